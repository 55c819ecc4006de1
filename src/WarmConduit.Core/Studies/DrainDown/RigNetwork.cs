using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>A rig as the Levels engine sees it once every tap, valve and drain stands as the draining procedure leaves it.</summary>
internal sealed class RigNetwork
{
    public Rig Rig { get; }
    public LevelGraph? Graph { get; }

    /// <summary>Edge numbers 0 .. runs-1 are the runs, in their order.</summary>
    public int RunCount => Rig.Runs.Count;

    /// <summary>Vessel number of a part, for those that are vessels.</summary>
    public Dictionary<string, int> VesselOf { get; } = [];

    private readonly Dictionary<string, Part> _parts;
    private readonly Dictionary<int, (string Part, string Port)> _portOfPoint = [];
    private readonly int[][] _runPoints = [];
    private readonly Dictionary<(int, int), (int Run, bool Reversed)> _runFrom = [];
    private readonly Dictionary<int, (int Run, int Index)> _bendOfPoint = [];

    /// <summary>Lays <paramref name="rig"/> out. <see cref="Graph"/> is null when nothing is open anywhere, so that everything stays.</summary>
    public RigNetwork(Rig rig)
    {
        Rig = rig;
        _parts = rig.Parts.ToDictionary(p => p.Id);
        var nodes = new List<LevelNode>();
        var edges = new List<LevelEdge>();
        var vessels = new List<LevelVessel>();
        var drains = new List<string>();

        foreach (var run in rig.Runs)
        {
            double bore = Catalogue.Pipe(run.Pipe)!.InnerDiameterM;
            edges.Add(new LevelEdge(run.Id, NodeId(run.From.Part, run.From.Port), NodeId(run.To.Part, run.To.Port), bore, Passes.Both, run.Via));
        }
        foreach (var part in rig.Parts)
        {
            foreach (var port in part.Ports) nodes.Add(new LevelNode(NodeId(part.Id, port.Id), part.Box.At + port.Offset));
            AddInside(part, edges, vessels, drains);
        }
        if (drains.Count == 0) return;

        Graph = new LevelGraph(new LevelNetwork(nodes, edges, vessels, drains));
        foreach (var part in rig.Parts)
            foreach (var port in part.Ports)
                _portOfPoint[Graph.PointOf(NodeId(part.Id, port.Id))] = (part.Id, port.Id);
        _runPoints = new int[RunCount][];
        for (int r = 0; r < RunCount; r++)
        {
            _runPoints[r] = Graph.PointsOfEdge(r);
            for (int k = 1; k < _runPoints[r].Length - 1; k++) _bendOfPoint[_runPoints[r][k]] = (r, k);
            _runFrom.TryAdd((_runPoints[r][0], _runPoints[r][1]), (r, false));
            _runFrom.TryAdd((_runPoints[r][^1], _runPoints[r][^2]), (r, true));
        }
    }

    /// <summary>The run that is entered by going from its end <paramref name="point"/> to <paramref name="next"/>, reversed when that end is its last; or null.</summary>
    public (int Run, bool Reversed)? RunFrom(int point, int next) => _runFrom.TryGetValue((point, next), out var run) ? run : null;

    /// <summary>Points of run number <paramref name="run"/> along its course.</summary>
    public int[] PointsOfRun(int run) => _runPoints[run];

    /// <summary>The run a bend belongs to, or null for a port.</summary>
    public (int Run, int Index)? BendAt(int point) => _bendOfPoint.TryGetValue(point, out var b) ? b : null;

    /// <summary>The part and port at a point, or null for a bend or the inside of a vessel.</summary>
    public (string Part, string Port)? PortAt(int point) => _portOfPoint.TryGetValue(point, out var p) ? p : null;

    /// <summary>Point of a part's port.</summary>
    public int PointOf(string part, string port) => Graph!.PointOf(NodeId(part, port));

    /// <summary>A point in the builder's words.</summary>
    public Place PlaceAt(int point)
    {
        var at = Graph!.Points[point];
        if (BendAt(point) is { } bend) return Place.OnRun(Rig, Rig.Runs[bend.Run], bend.Index, at);
        return PortAt(point) is { } port ? Place.OnPart(Rig, port.Part, at) : new Place(at, "inside a tank", null, null, null, null);
    }

    /// <summary>The part with this id.</summary>
    public Part PartOf(string id) => _parts[id];

    /// <summary>Whether ice breaks the part with this id.</summary>
    public bool IceBreaks(string id) => Catalogue.Part(PartOf(id).Stock)!.IceBreaks == Materials.IceBreaks.Yes;

    private static string NodeId(string part, string port) => $"{part}.{port}";

    // How water gets through a part: edges without bore between its ports, or a vessel; and the ports open to air, which are drains at their own height.
    private void AddInside(Part part, List<LevelEdge> edges, List<LevelVessel> vessels, List<string> drains)
    {
        var stock = Catalogue.Part(part.Stock)!;
        bool open = part.WhenDrained != ValveState.Closed;
        switch (stock.Passage)
        {
            case Passage.Through:
                Join(Passes.Both);
                break;
            case Passage.Valve:
                Join(open ? Passes.Both : Passes.None);
                break;
            case Passage.OneWay:
                Edge("in", "out", Passes.Forward);
                break;
            case Passage.Pump:
                Edge("in", "out", Passes.None);
                break;
            case Passage.Mixer:
                Join(open ? Passes.Both : Passes.None);
                if (open && part.PortAt("spout") is not null) drains.Add(NodeId(part.Id, "spout"));
                break;
            case Passage.Vessel:
                VesselOf[part.Id] = vessels.Count;
                vessels.Add(new LevelVessel(part.Id, part.Box, PartWater.HoldsL(part) / 1000, [.. part.Ports.Select(p => NodeId(part.Id, p.Id))]));
                break;
            case Passage.Drain when open:
            case Passage.OpenEnd:
                foreach (var port in part.Ports) drains.Add(NodeId(part.Id, port.Id));
                break;
            default:
                break;
        }

        void Join(Passes passes)
        {
            // Every pair, so that water between two ports need not climb over a third.
            for (int j = 0; j < part.Ports.Count; j++)
                for (int k = j + 1; k < part.Ports.Count; k++)
                    Edge(part.Ports[j].Id, part.Ports[k].Id, passes);
        }
        void Edge(string from, string to, Passes passes) =>
            edges.Add(new LevelEdge($"{part.Id}:{from}>{to}", NodeId(part.Id, from), NodeId(part.Id, to), 0, passes, []));
    }
}
