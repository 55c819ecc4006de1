using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>
/// Drinking water of a rig, or its heating fluid, as the Flow engine sees it, with every valve, tap and pump as a scene has it: what is joined inside parts
/// is told by
/// <see cref="Inside"/>. Vented tanks are reservoirs at their level, heaters are parts of the line; loose ends and free ports count as capped. Heads are
/// metres of water over the ground of the vehicle as it is parked.
/// </summary>
internal sealed partial class RigFlow
{
    private readonly RigIndex _index;
    private readonly FlowScene _scene;
    private readonly Attitude _parked;
    private readonly double _density;
    private readonly List<FlowNode> _nodes = [];
    private readonly List<FlowEdge> _edges = [];
    private readonly List<FlowOutlet> _outlets = [];
    private readonly Dictionary<string, double> _boreAt = [];
    private readonly Dictionary<string, int> _edgeOfRun = [];

    // Runs by the port that they alone join; ports that are one with the middle of their part, and what the fittings at a run's ends take of it.
    private readonly Dictionary<string, string?> _runAt = [];
    private readonly Dictionary<string, string> _at = [];
    private readonly Dictionary<string, List<(string PartId, double Loss)>> _fittings = [];

    /// <summary>Lays <paramref name="question"/>'s rig out. O(parts + runs).</summary>
    public RigFlow(Question question, FlowScene scene)
    {
        (_index, _scene, _parked) = (question.Index, scene, question.Conditions.Parked);
        _density = scene.Coolant?.DensityKgPerM3 ?? Water.DensityKgPerM3(scene.ColdC);
        var gear = scene.Gear ?? [];
        Runs = [.. _index.Rig.Runs.Where(r => scene.Carries(r) && !r.From.IsLoose() && !r.To.IsLoose() && !gear.Any(g => TakenOff(r, g)))];
        foreach (var run in Runs)
            foreach (var end in (RunEnd[])[run.From, run.To])
            {
                _boreAt[Node(end)] = BoreOf(run);
                if (!_runAt.TryAdd(Node(end), run.Id)) _runAt[Node(end)] = null;
            }
        var wet = Runs.SelectMany(r => (string[])[r.From.Part!, r.To.Part!]).ToHashSet();
        foreach (var part in _index.Rig.Parts.Where(p => wet.Contains(p.Id))) AddPart(part);
        foreach (var run in Runs)
        {
            _edgeOfRun[run.Id] = _edges.Count;
            string from = At(Node(run.From)), to = At(Node(run.To));
            // A run from a part to itself moves nothing.
            if (from == to) _nodes.Add(new FlowNode(to = $"{run.Id}~"));
            Add(new FlowPipe(run.Id, from, to, Math.Max(1e-3, _index.PipeLengthM(run)), BoreOf(run),
                Catalogue.Pipe(run.Pipe)!.RoughnessM(), BendLoss(run) + FittingsOf(run.Id).Sum(f => f.Loss)), new FlowPiece(run.Id, null));
        }
        _nodes.RemoveAll(n => _at.ContainsKey(n.Id));
        Network = new FlowNetwork(_density, scene.Coolant?.ViscosityPaS ?? Water.ViscosityPaS(scene.ColdC), _nodes, _edges, _outlets);
    }

    /// <summary>The whole network.</summary>
    public FlowNetwork Network { get; }

    /// <summary>Runs that carry drinking water from part to part, in the rig's order.</summary>
    public IReadOnlyList<Run> Runs { get; }

    /// <summary>The node in whose place another is: a fitting's losses are counted with the run at its port.</summary>
    public string At(string node) => _at.GetValueOrDefault(node, node);

    /// <summary>Fittings at the ends of a run, and what they take, in velocity heads on its bore.</summary>
    public IReadOnlyList<(string PartId, double Loss)> FittingsOf(string runId) => _fittings.GetValueOrDefault(runId) ?? [];

    /// <summary>Number of a run's element.</summary>
    public int EdgeOfRun(string id) => _edgeOfRun[id];

    /// <summary>What each element is, in the network's order.</summary>
    public List<FlowPiece> Pieces { get; } = [];

    /// <summary>The part of each outlet, in the network's order.</summary>
    public List<string> OutletParts { get; } = [];

    /// <summary>Taps and valves that mix.</summary>
    public List<FlowSplit> Splits { get; } = [];

    /// <summary>Pumps that run.</summary>
    public List<FlowDrive> Drives { get; } = [];

    /// <summary>Parts that heat what flows through them, by the node that is as hot as they are.</summary>
    public Dictionary<string, Part> HeaterAt { get; } = [];

    /// <summary>Regulators: the number of the element, and the pressure it lets through, bar.</summary>
    public List<(int Edge, double HoldsBar)> Regulators { get; } = [];

    /// <summary>Ports from which a tank's water leaves that lie above it: its pump draws air there.</summary>
    public List<(Part Tank, Port Port)> Uncovered { get; } = [];

    /// <summary>Whether a run carries water that taps give, or that fills.</summary>
    public static bool IsWater(Run run) => run.Service is Service.Cold or Service.Hot or Service.Fill;

    /// <summary>Whether a hose from outside is joined here.</summary>
    public static bool IsTownInlet(Part part) => part.Stock is "town-inlet" or "town-coupling";

    /// <summary>Whether a run ends where gear is joined, and is taken off for it. A blow-out port takes gear beside its line.</summary>
    public static bool TakenOff(Run run, ScenarioGear gear) => gear.Kind != GearKind.AirHose
        && ((run.From.Part == gear.PartId && run.From.Port == gear.Port) || (run.To.Part == gear.PartId && run.To.Port == gear.Port));

    /// <summary>The node of a part's port.</summary>
    public static string Node(string part, string port) => $"{part}.{port}";

    /// <summary>A part by its id.</summary>
    public Part PartOf(string id) => _index.Part(id);

    /// <summary>Height of a port over the ground, m.</summary>
    public double HeightM(Part part, string port) => _parked.HeightM(part.PortAt(port)!.Value);

    /// <summary>Metres of water in a bar.</summary>
    public double HeadPerBar => 1e5 / (_density * Friction.Gravity);

    private static string Node(RunEnd end) => Node(end.Part!, end.Port!);

    private double BoreOf(Run run) => run.Service != Service.Fill && _scene.BoreM is { } other ? other : Catalogue.Pipe(run.Pipe)!.InnerDiameterM;

    private double ElbowLoss => _index.Rig.Brief.Chosen().Joints == JointSchool.PushFit ? PushFitElbow : InsertElbow;

    // Pipe that can be bent is; what cannot has an elbow at each bend. A share of a right angle has a share of its loss.
    private double BendLoss(Run run)
    {
        var course = _index.CourseOf(run);
        double sum = 0, each = Catalogue.Pipe(run.Pipe)!.BendRadiusM is null ? ElbowLoss : Bend;
        for (int i = 1; i < course.Length - 1; i++)
        {
            Point3 a = course[i] - course[i - 1], b = course[i + 1] - course[i];
            double lengths = course[i].DistanceM(course[i - 1]) * course[i].DistanceM(course[i + 1]);
            if (lengths > 0) sum += each * Math.Acos(Math.Clamp(((a.XM * b.XM) + (a.YM * b.YM) + (a.ZM * b.ZM)) / lengths, -1, 1)) / (Math.PI / 2);
        }
        return sum;
    }

    private void Add(FlowEdge edge, FlowPiece piece)
    {
        _edges.Add(edge);
        Pieces.Add(piece);
    }
}
