using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>A rig as the Levels engine sees it with every valve, tap and pump as a scenario has it. Loose ends count as capped.</summary>
internal sealed class RigLevels
{
    private readonly RigIndex _index;
    private readonly Scenario _scenario;
    private readonly Dictionary<int, (string Part, string Port)> _portOfPoint = [];
    private readonly int[][] _runPoints = [];
    private readonly Dictionary<(int, int), (int Run, bool Reversed)> _runFrom = [];
    private readonly Dictionary<int, (int Run, int Index)> _pointOfRun = [];
    private readonly HashSet<string> _shut = [];
    private readonly HashSet<int> _joined = [];

    /// <summary>Lays a rig out. <see cref="Graph"/> is null when nothing is open anywhere, so that everything stays.</summary>
    public RigLevels(RigIndex index, Scenario scenario)
    {
        (_index, _scenario) = (index, scenario);
        var rig = index.Rig;
        var nodes = new List<LevelNode>();
        var edges = new List<LevelEdge>();
        var vessels = new List<LevelVessel>();
        var drains = new List<string>();

        foreach (var run in rig.Runs)
        {
            double bore = Catalogue.Pipe(run.Pipe)!.InnerDiameterM;
            edges.Add(new LevelEdge(run.Id, EndNode(run, run.From, RunPoint.From, nodes), EndNode(run, run.To, RunPoint.To, nodes), bore, Passes.Both,
                [.. run.Bends.Select(b => b.At)]));
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
        _runPoints = new int[rig.Runs.Count][];
        for (int r = 0; r < _runPoints.Length; r++)
        {
            _runPoints[r] = Graph.PointsOfEdge(r);
            for (int k = 0; k < _runPoints[r].Length; k++)
                if (!_portOfPoint.ContainsKey(_runPoints[r][k])) _pointOfRun[_runPoints[r][k]] = (r, k);
            _joined.Add(_runPoints[r][0]);
            _joined.Add(_runPoints[r][^1]);
            _runFrom.TryAdd((_runPoints[r][0], _runPoints[r][1]), (r, false));
            _runFrom.TryAdd((_runPoints[r][^1], _runPoints[r][^2]), (r, true));
        }
    }

    /// <summary>The network; edges 0 .. runs-1 are the runs, in their order.</summary>
    public LevelGraph? Graph { get; }

    /// <summary>Vessel number of a part, for those that are vessels.</summary>
    public Dictionary<string, int> VesselOf { get; } = [];

    /// <summary>The run that is entered by going from its end <paramref name="point"/> to <paramref name="next"/>, reversed when that end is its last; or
    /// null.</summary>
    public (int Run, bool Reversed)? RunFrom(int point, int next) => _runFrom.TryGetValue((point, next), out var run) ? run : null;

    /// <summary>Points of run number <paramref name="run"/> along its course.</summary>
    public int[] PointsOfRun(int run) => _runPoints[run];

    /// <summary>The part and port at a point, or null for a bend, a loose end or the inside of a vessel.</summary>
    public (string Part, string Port)? PortAt(int point) => _portOfPoint.TryGetValue(point, out var p) ? p : null;

    /// <summary>Point of a part's port.</summary>
    public int PointOf(string part, string port) => Graph!.PointOf(NodeId(part, port));

    /// <summary>Points of the ports of a part that a run joins. The spout of a tap that is shut, say, tells nothing of what lies behind it.</summary>
    public IEnumerable<int> JoinedPointsOf(Part part) => part.Ports.Select(p => PointOf(part.Id, p.Id)).Where(_joined.Contains);

    /// <summary>Whether some way through a part is shut: a closed valve or tap, a resting pump, a non-return valve against its arrow.</summary>
    public bool Shuts(string partId) => _shut.Contains(partId);

    /// <summary>A point in the builder's words.</summary>
    public Place PlaceAt(int point)
    {
        var at = Graph!.Points[point];
        if (_pointOfRun.TryGetValue(point, out var bend)) return Place.OnRun(_index, _index.Rig.Runs[bend.Run], bend.Index, at);
        return PortAt(point) is { } port ? Place.OnPart(_index, port.Part, at) : new Place(at, "inside a tank", null, null, null, null);
    }

    /// <summary>Whether ice breaks the part with this id.</summary>
    public bool IceBreaks(string id) => Catalogue.Part(_index.Part(id).Stock)!.IceBreaks == Materials.IceBreaks.Yes;

    /// <summary>The node of a part's port.</summary>
    public static string NodeId(string part, string port) => $"{part}.{port}";

    private static string EndNode(Run run, RunEnd end, string name, List<LevelNode> nodes)
    {
        if (end.At is not { } place) return NodeId(end.Part!, end.Port!);
        string id = NodeId($"~{run.Id}", name);
        nodes.Add(new LevelNode(id, place));
        return id;
    }

    // How water gets through a part: edges without bore between its ports, or a vessel; and the ports open to air, which are drains at their own height.
    private void AddInside(Part part, List<LevelEdge> edges, List<LevelVessel> vessels, List<string> drains)
    {
        var stock = Catalogue.Part(part.Stock)!;
        var position = _scenario.PositionOf(part);
        foreach (var (from, to, passes) in Inside.Ways(part, position))
        {
            if (passes != Passes.Both) _shut.Add(part.Id);
            edges.Add(new LevelEdge($"{part.Id}:{from}>{to}", NodeId(part.Id, from), NodeId(part.Id, to), 0, passes, []));
        }
        switch (stock.Passage)
        {
            case Passage.Mixer when position!.Passes && part.PortAt("spout") is not null:
                drains.Add(NodeId(part.Id, "spout"));
                break;
            case Passage.Vessel:
                VesselOf[part.Id] = vessels.Count;
                vessels.Add(new LevelVessel(part.Id, part.Box, PartWater.HoldsL(part) / 1000, [.. part.Ports.Select(p => NodeId(part.Id, p.Id))]));
                if (PartWater.OpenTop(part)) drains.AddRange(part.Ports.Where(p => part.RoleOf(p) == PortRole.Vent).Select(p => NodeId(part.Id, p.Id)));
                break;
            case Passage.Drain when !position!.Passes:
                _shut.Add(part.Id);
                break;
            case Passage.Drain:
            case Passage.OpenEnd:
                foreach (var port in part.Ports) drains.Add(NodeId(part.Id, port.Id));
                break;
            default:
                break;
        }
    }
}
