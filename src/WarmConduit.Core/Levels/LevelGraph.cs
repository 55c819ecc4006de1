using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>
/// A <see cref="LevelNetwork"/> laid out for sweeping: every node, bend and vessel a point, every straight length a segment. Build it once, then
/// solve it at any attitude. Immutable and safe to share between threads.
/// </summary>
public sealed class LevelGraph
{
    // Metres. Farther, larger and fuller than this is a mistake, and squares and products of it still are finite.
    private const double Most = 1e6;

    private readonly Dictionary<string, int> _nodeIndex;

    /// <summary>Place of every point, m: the nodes first, in their order, then bends and vessels. Do not write to the arrays of this class.</summary>
    public Point3[] Points { get; }

    /// <summary>How many of the points are nodes.</summary>
    public int NodeCount { get; }

    /// <summary>Point at which each segment starts, in the sense of its edge, so that one-way passage runs from here.</summary>
    public int[] SegA { get; }

    /// <summary>Point at which each segment ends.</summary>
    public int[] SegB { get; }

    /// <summary>Length of each segment, m.</summary>
    public double[] SegLengthM { get; }

    /// <summary>Bore of each segment, m; 0 inside parts and vessels.</summary>
    public double[] SegBoreM { get; }

    /// <summary>Which way each segment passes water.</summary>
    public Passes[] SegPasses { get; }

    /// <summary>First segment of each edge: edge e owns segments EdgeFirst[e] .. EdgeFirst[e + 1] - 1. Those of the vessels follow after the last
    /// edge.</summary>
    public int[] EdgeFirst { get; }

    /// <summary>Point of each vessel.</summary>
    public int[] VesselPoint { get; }

    /// <summary>Points of the drains.</summary>
    public int[] DrainPoints { get; }

    // Who can flow into a point: neighbours from which water may come, compressed rows.
    private readonly int[] _rowStart;
    private readonly int[] _rowPoint;

    /// <summary>The network this graph was laid out from.</summary>
    public LevelNetwork Network { get; }

    /// <summary>
    /// Checks and lays out <paramref name="network"/>. O(points). Throws <see cref="LevelNetworkException"/> naming the place for an unknown or
    /// doubled id, a place, bore or content that is no number or beyond 1e6 (m, m³), a bore below 0, a box without room, or a network without any drain.
    /// </summary>
    public LevelGraph(LevelNetwork network)
    {
        Network = network;
        NodeCount = network.Nodes.Count;
        _nodeIndex = new Dictionary<string, int>(NodeCount);
        var points = new List<Point3>(NodeCount + network.Edges.Count);
        foreach (var node in network.Nodes)
        {
            if (!IsNear(node.At)) throw new LevelNetworkException(node.Id, $"its place must be within {Most:0} m");
            if (!_nodeIndex.TryAdd(node.Id, points.Count)) throw new LevelNetworkException(node.Id, "this node id is used twice");
            points.Add(node.At);
        }

        var a = new List<int>();
        var b = new List<int>();
        var length = new List<double>();
        var bore = new List<double>();
        var passes = new List<Passes>();
        EdgeFirst = new int[network.Edges.Count + 1];
        var ids = new HashSet<string>(network.Edges.Count);
        for (int e = 0; e < network.Edges.Count; e++)
        {
            var edge = network.Edges[e];
            if (!ids.Add(edge.Id)) throw new LevelNetworkException(edge.Id, "this edge id is used twice");
            if (edge.InnerDiameterM is not (>= 0 and <= Most)) throw new LevelNetworkException(edge.Id, $"its bore must lie between 0 and {Most:0} m");
            if (!Enum.IsDefined(edge.Passes)) throw new LevelNetworkException(edge.Id, "the direction it passes must be one of the known ones");
            EdgeFirst[e] = a.Count;
            int last = NodeOf(edge.From, edge.Id), end = NodeOf(edge.To, edge.Id);
            for (int k = 0; k <= edge.Via.Count; k++)
            {
                int next = end;
                if (k < edge.Via.Count)
                {
                    if (!IsNear(edge.Via[k])) throw new LevelNetworkException(edge.Id, $"its bend {k + 1} must be within {Most:0} m");
                    next = points.Count;
                    points.Add(edge.Via[k]);
                }
                Add(last, next, edge.InnerDiameterM, edge.Passes);
                last = next;
            }
        }
        EdgeFirst[^1] = a.Count;

        VesselPoint = new int[network.Vessels.Count];
        for (int v = 0; v < network.Vessels.Count; v++)
        {
            var vessel = network.Vessels[v];
            if (!ids.Add(vessel.Id)) throw new LevelNetworkException(vessel.Id, "this vessel id is already used");
            var size = vessel.Box.Size;
            if (vessel.HoldsM3 is not (>= 0 and <= Most)) throw new LevelNetworkException(vessel.Id, $"its content must lie between 0 and {Most:0} m³");
            if (!IsNear(vessel.Box.At) || !IsNear(size) || !(size.XM > 0 && size.YM > 0 && size.ZM > 0))
                throw new LevelNetworkException(vessel.Id, $"its box must have room, and lie within {Most:0} m");
            VesselPoint[v] = points.Count;
            points.Add(vessel.Box.Centre());
            foreach (string port in vessel.Ports) Add(VesselPoint[v], NodeOf(port, vessel.Id), 0, Passes.Both);
        }

        void Add(int from, int to, double diameter, Passes way)
        {
            a.Add(from);
            b.Add(to);
            length.Add(points[from].DistanceM(points[to]));
            bore.Add(diameter);
            passes.Add(way);
        }

        if (network.Drains.Count == 0) throw new LevelNetworkException("drains", "no drain is open: open at least one");
        DrainPoints = [.. network.Drains.Select(d => NodeOf(d, "drains"))];
        (Points, SegA, SegB) = ([.. points], [.. a], [.. b]);
        (SegLengthM, SegBoreM, SegPasses) = ([.. length], [.. bore], [.. passes]);
        (_rowStart, _rowPoint) = Rows();
    }

    /// <summary>Index of the point at node <paramref name="id"/>; throws <see cref="LevelNetworkException"/> when there is none.</summary>
    public int PointOf(string id) => NodeOf(id, "network");

    /// <summary>Points of edge number <paramref name="edge"/>, in its own sense: its first node, its bends, its last node.</summary>
    public int[] PointsOfEdge(int edge)
    {
        int first = EdgeFirst[edge], end = EdgeFirst[edge + 1];
        var points = new int[end - first + 1];
        points[0] = SegA[first];
        for (int s = first; s < end; s++) points[s - first + 1] = SegB[s];
        return points;
    }

    /// <summary>The edge that owns <paramref name="segment"/>. Every edge has a segment, so an exact hit is the edge itself. O(log edges).</summary>
    internal int EdgeOfSegment(int segment)
    {
        int e = Array.BinarySearch(EdgeFirst, segment);
        return e < 0 ? ~e - 1 : e;
    }

    /// <summary>
    /// Height over ground of every point at <paramref name="attitude"/>, metres; the inside of a vessel is no crest and lies at minus infinity. Throws as <see
    /// cref="Demand"/> does.
    /// </summary>
    internal double[] Heights(Attitude attitude)
    {
        Demand(attitude);
        double tanPitch = attitude.TanPitch(), tanRoll = attitude.TanRoll();
        var z = new double[Points.Length];
        for (int p = 0; p < z.Length; p++) z[p] = Points[p].ZM + Points[p].XM * tanPitch + Points[p].YM * tanRoll;
        foreach (int v in VesselPoint) z[v] = double.NegativeInfinity;
        return z;
    }

    /// <summary>Points from which water may come to <paramref name="point"/>.</summary>
    internal ReadOnlySpan<int> Upstream(int point) => _rowPoint.AsSpan(_rowStart[point], _rowStart[point + 1] - _rowStart[point]);

    /// <summary>Throws <see cref="LevelNetworkException"/> for an <paramref name="attitude"/> of 90 degrees and more, or that is no number.</summary>
    internal static void Demand(Attitude attitude)
    {
        if (!(Math.Abs(attitude.PitchDeg) < 90 && Math.Abs(attitude.RollDeg) < 90))
            throw new LevelNetworkException("attitude", "pitch and roll must be below 90 degrees");
    }

    internal static bool IsNear(Point3 p) => Math.Abs(p.XM) <= Most && Math.Abs(p.YM) <= Most && Math.Abs(p.ZM) <= Most;

    private int NodeOf(string id, string place) =>
        _nodeIndex.TryGetValue(id, out int p) ? p : throw new LevelNetworkException(place, $"node '{id}' is unknown");

    private (int[] Start, int[] Point) Rows()
    {
        var start = new int[Points.Length + 1];
        for (int s = 0; s < SegA.Length; s++)
        {
            if (SegPasses[s] == Passes.None) continue;
            start[SegB[s] + 1]++;
            if (SegPasses[s] == Passes.Both) start[SegA[s] + 1]++;
        }
        for (int p = 0; p < Points.Length; p++) start[p + 1] += start[p];
        var fill = start.ToArray();
        var row = new int[start[^1]];
        for (int s = 0; s < SegA.Length; s++)
        {
            if (SegPasses[s] == Passes.None) continue;
            row[fill[SegB[s]]++] = SegA[s];
            if (SegPasses[s] == Passes.Both) row[fill[SegA[s]]++] = SegB[s];
        }
        return (start, row);
    }
}
