using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>Water that stays for want of air.</summary>
/// <param name="Edges">Edges that keep it, and how much each, m³.</param>
/// <param name="VolumeM3">How much in all.</param>
/// <param name="OpenAt">Point at which an opening would let it go: its highest.</param>
/// <param name="TopM">Height of that point over ground, m.</param>
public sealed record AirBasin(IReadOnlyList<(int Edge, double VolumeM3)> Edges, double VolumeM3, int OpenAt, double TopM);

/// <summary>All that stays for want of air.</summary>
/// <param name="Basins">Largest first.</param>
/// <param name="SegmentShare">The upper share of each segment that it fills, 0..1.</param>
public sealed record AirAnswer(IReadOnlyList<AirBasin> Basins, double[] SegmentShare);

/// <summary>Where no air gets in, no water gets out.</summary>
public static class AirBasins
{
    /// <summary>
    /// Basins of <paramref name="graph"/> that stay full although they lie above a way out, because no opening lets air in behind the water. Open are the
    /// drains and
    /// <paramref name="vents"/> (node ids). Water moves where it lies on some way from one opening to another that is no higher than the highest of them: there
    /// air follows it. A branch with no opening of its own hangs on like water in a straw; so does what stands above every opening it is joined to.
    /// Through one-way elements air comes only their way; shut ones let none through. Largest first. O(points), and O(points) more for each end of an edge in a
    /// network with one-way elements.
    /// </summary>
    public static AirAnswer Find(LevelGraph graph, IReadOnlyList<string> vents, Attitude attitude)
    {
        var z = graph.Heights(attitude);
        var openings = graph.DrainPoints.Concat(vents.Select(graph.PointOf)).Distinct().ToArray();
        int n = z.Length, sky = n, segments = graph.SegA.Length;
        // One more node for the open air, joined to every opening: a loop through it is a way from one opening to another.
        var edges = new List<(int, int)>(segments + openings.Length);
        for (int s = 0; s < segments; s++) edges.Add(graph.SegPasses[s] == Passes.None ? (graph.SegA[s], graph.SegA[s]) : (graph.SegA[s], graph.SegB[s]));
        foreach (int o in openings) edges.Add((sky, o));
        var block = Blocks.Of(n + 1, System.Runtime.InteropServices.CollectionsMarshal.AsSpan(edges));
        var airy = new HashSet<int>();
        for (int o = segments; o < edges.Count; o++) airy.Add(block[o]);

        var (top, level) = (HighestOpening(graph, z, openings), Draining.Sweep(graph, z).Level);
        var air = graph.SegPasses.Contains(Passes.Forward) ? new OneWayAir(graph, z, openings) : null;
        var (held, shares) = (new double[segments], new double[segments]);
        for (int s = 0; s < segments; s++)
        {
            int a = graph.SegA[s], b = graph.SegB[s];
            if (graph.SegBoreM[s] == 0 || graph.SegPasses[s] == Passes.None || double.IsInfinity(level[a]) || double.IsInfinity(level[b])) continue;
            bool follows = airy.Contains(block[s]) && (air is null || air.Reaches(s));
            double above = follows ? Math.Max(top[a], top[b]) : double.NegativeInfinity;
            // What stands above the highest opening of its part hangs, the rest runs; a branch without an opening hangs as far as it is not a pool anyhow.
            double out_ = Draining.OutLevel(graph.SegPasses[s], level[a], level[b]);
            double share = shares[s] = ShareAbove(z[a], z[b], Math.Max(above, out_));
            held[s] = share * BoreSegment.VolumeM3(graph.SegBoreM[s], graph.SegLengthM[s], double.PositiveInfinity, double.PositiveInfinity);
        }
        return new AirAnswer(Group(graph, z, held), shares);
    }

    // Where air comes in behind water, some elements letting it through one way only. A straight length has air from one end where its whole edge has, so each
    // end of an edge is looked at once.
    private sealed class OneWayAir
    {
        private readonly List<(int From, int Edge)>[] _into;
        private readonly LevelGraph _graph;
        private readonly double[] _z;
        private readonly bool[] _open;
        private readonly Dictionary<(int Edge, bool Start), bool> _known = [];

        public OneWayAir(LevelGraph graph, double[] z, int[] openings)
        {
            (_graph, _z) = (graph, z);
            _into = new List<(int, int)>[z.Length];
            _open = new bool[z.Length];
            foreach (int o in openings) _open[o] = true;
            for (int s = 0; s < graph.SegA.Length; s++)
            {
                if (graph.SegPasses[s] == Passes.None) continue;
                // What lies inside vessels stands behind all edges.
                int edge = s < graph.EdgeFirst[^1] ? graph.EdgeOfSegment(s) : -1 - s;
                (_into[graph.SegB[s]] ??= []).Add((graph.SegA[s], edge));
                if (graph.SegPasses[s] == Passes.Both) (_into[graph.SegA[s]] ??= []).Add((graph.SegB[s], edge));
            }
        }

        // To the end from which its water leaves, without passing it.
        public bool Reaches(int segment)
        {
            int a = _graph.SegA[segment], b = _graph.SegB[segment], edge = _graph.EdgeOfSegment(segment);
            return _graph.SegPasses[segment] == Passes.Forward ? Comes(edge, true) : _z[a] == _z[b] ? Comes(edge, true) || Comes(edge, false)
                : Comes(edge, _z[a] > _z[b]);
        }

        private bool Comes(int edge, bool start)
        {
            if (_known.TryGetValue((edge, start), out bool known)) return known;
            int to = start ? _graph.SegA[_graph.EdgeFirst[edge]] : _graph.SegB[_graph.EdgeFirst[edge + 1] - 1];
            return _known[(edge, start)] = Comes(to, edge);
        }

        private bool Comes(int to, int without)
        {
            var seen = new HashSet<int> { to };
            var stack = new Stack<int>(seen);
            while (stack.TryPop(out int p))
            {
                if (_open[p]) return true;
                foreach (var (from, edge) in _into[p] ?? [])
                    if (edge != without && seen.Add(from)) stack.Push(from);
            }
            return false;
        }
    }

    private static double ShareAbove(double za, double zb, double level)
    {
        double low = Math.Min(za, zb), high = Math.Max(za, zb);
        return level >= high ? 0 : level <= low ? 1 : (high - level) / (high - low);
    }

    // Highest opening in the connected part of each point.
    private static double[] HighestOpening(LevelGraph graph, double[] z, int[] openings)
    {
        var top = new double[z.Length];
        Array.Fill(top, double.NegativeInfinity);
        var neighbours = new List<int>[z.Length];
        for (int s = 0; s < graph.SegA.Length; s++)
        {
            if (graph.SegPasses[s] == Passes.None) continue;
            (neighbours[graph.SegA[s]] ??= []).Add(graph.SegB[s]);
            (neighbours[graph.SegB[s]] ??= []).Add(graph.SegA[s]);
        }
        var stack = new Stack<int>();
        foreach (int o in openings.OrderByDescending(o => z[o]))
        {
            if (!double.IsNegativeInfinity(top[o])) continue;
            top[o] = z[o];
            stack.Push(o);
            while (stack.TryPop(out int p))
            {
                foreach (int q in neighbours[p] ?? [])
                {
                    if (!double.IsNegativeInfinity(top[q])) continue;
                    top[q] = z[o];
                    stack.Push(q);
                }
            }
        }
        return top;
    }

    private static List<AirBasin> Group(LevelGraph graph, double[] z, double[] held)
    {
        var parent = Enumerable.Range(0, z.Length).ToArray();
        int Root(int p)
        {
            while (parent[p] != p) p = parent[p] = parent[parent[p]];
            return p;
        }
        for (int s = 0; s < held.Length; s++)
            if (held[s] > 1e-9) parent[Root(graph.SegA[s])] = Root(graph.SegB[s]);
        var basins = new List<AirBasin>();
        foreach (var group in Enumerable.Range(0, held.Length).Where(s => held[s] > 1e-9).GroupBy(s => Root(graph.SegA[s])))
        {
            int top = group.SelectMany(s => (int[])[graph.SegA[s], graph.SegB[s]]).MaxBy(p => z[p]);
            var edges = group.GroupBy(graph.EdgeOfSegment).OrderBy(g => g.Key).Select(g => (g.Key, g.Sum(s => held[s]))).ToArray();
            basins.Add(new AirBasin(edges, group.Sum(s => held[s]), top, z[top]));
        }
        return [.. basins.OrderByDescending(b => b.VolumeM3)];
    }
}
