using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>Where gear that is joined for one task can go: a bottle's hose, an air hose, a loose pump.</summary>
internal sealed class Gears
{
    private readonly WayGraph _graph;
    private readonly ScenarioGear[] _bottles, _pumpBottles, _airPorts, _airInlets, _loosePumps;

    /// <summary>Looks a rig over. O(parts).</summary>
    public Gears(WayGraph graph)
    {
        _graph = graph;
        ScenarioGear[] Free(GearKind kind, Func<Part, bool> of) => [.. graph.Parts.Where(of).SelectMany(p => FreePorts(p).Take(1)
            .Select(o => new ScenarioGear(kind, p.Id, o.Id)))];
        static bool Takes(Part p) => p.Stock is "dip-tube" or "hose-tail";
        _bottles = Free(GearKind.Bottle, Takes);
        _pumpBottles = [.. graph.Parts.Where(p => Catalogue.Part(p.Stock)! is { Passage: Passage.Pump, Id: not "return-pump" } or { Id: "foot-pump" }
            && p.PortAt("in") is not null)
            .Select(p => new ScenarioGear(GearKind.Bottle, p.Id, "in"))];
        _airPorts = [.. graph.Parts.Where(p => p.Stock == "air-port").Select(p => new ScenarioGear(GearKind.AirHose, p.Id, p.Ports[0].Id))];
        _airInlets = Free(GearKind.AirHose, RigFlow.IsTownInlet);
        _loosePumps = Free(GearKind.LoosePump, p => RigFlow.IsTownInlet(p) || p.Stock == "fill-filter" || Takes(p));
        OpenEnds = [.. graph.Parts.Where(p => p.Stock == "hose-tail").SelectMany(p => FreePorts(p).Select(o => graph.At(p.Id, o.Id)))];
    }

    /// <summary>Free ends of hose tails: air gets in there where a pump draws. A dip tube has its cap.</summary>
    public IReadOnlyList<int> OpenEnds { get; }

    /// <summary>Whether this place is still there.</summary>
    public bool Has(ScenarioGear gear) => _graph.NumberOf(gear.PartId) >= 0 && _graph.Parts[_graph.NumberOf(gear.PartId)].PortAt(gear.Port) is not null;

    /// <summary>Whether it is joined to a blow-out port.</summary>
    public bool IsPort(ScenarioGear gear) => _airPorts.Any(a => a.PartId == gear.PartId);

    /// <summary>Whether it is joined to a pump, in place of its suction line.</summary>
    public bool IsAtPump(ScenarioGear gear) => _pumpBottles.Any(a => a.PartId == gear.PartId && a.Port == gear.Port);

    /// <summary>What a task takes where nobody has chosen.</summary>
    public IReadOnlyList<ScenarioGear> Usual(TaskKind kind) => kind switch
    {
        TaskKind.BlowOut => _airPorts.Length > 0 ? _airPorts : _airInlets,
        TaskKind.Antifreeze => _bottles.Length > 0 ? _bottles : _pumpBottles,
        _ => [],
    };

    /// <summary>What can be chosen for a task.</summary>
    public IReadOnlyList<ScenarioGear> For(TaskKind kind) => kind switch
    {
        TaskKind.BlowOut => [.. _airPorts, .. _airInlets],
        TaskKind.Antifreeze => [.. _bottles, .. _pumpBottles],
        TaskKind.Fill => _loosePumps,
        TaskKind.Own => [.. _bottles, .. _pumpBottles, .. _airPorts, .. _airInlets, .. _loosePumps],
        _ => [],
    };

    /// <summary>The far ends of lines that are taken off for it.</summary>
    public int[] Off(IReadOnlyList<ScenarioGear> gear) => [.. gear.Where(g => !IsPort(g)).SelectMany(g => _graph.Runs
        .Where(r => RigFlow.TakenOff(r, g)).Select(r => r.From.Part == g.PartId && r.From.Port == g.Port
            ? _graph.At(r.To.Part!, r.To.Port!) : _graph.At(r.From.Part!, r.From.Port!)))];

    private IEnumerable<Port> FreePorts(Part part) => part.Ports.Where(o => !_graph.Index.IsJoined(part.Id, o.Id)
        && part.Ports.Any(x => _graph.Index.IsJoined(part.Id, x.Id)) && part.RoleOf(o) is PortRole.Inlet or PortRole.Outlet or PortRole.Fill);
}
