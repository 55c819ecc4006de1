using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>Something that valves are set for.</summary>
public enum TaskKind
{
    /// <summary>Water from the tank by the pump.</summary>
    Tank,

    /// <summary>Water from a hose outside.</summary>
    Town,

    /// <summary>Filling the tank from a hose outside.</summary>
    Fill,

    /// <summary>Pumping the tank out.</summary>
    PumpOut,

    /// <summary>Draining for frost.</summary>
    Drain,

    /// <summary>Blowing the lines out with air.</summary>
    BlowOut,

    /// <summary>Drawing antifreeze from a bottle.</summary>
    Antifreeze,

    /// <summary>Water past the heater.</summary>
    BypassHeater,

    /// <summary>Water past the filter.</summary>
    BypassFilter,
}

/// <summary>What each task asks of the ways of water, as clauses for the finder.</summary>
internal sealed class ScenarioGoals
{
    private readonly WayGraph _graph;
    private readonly int[] _tanks, _suctions, _towns, _outlets, _blows, _heaters, _filters;
    private readonly Lazy<int[]> _unfed;

    /// <summary>What a rig has of sources, outlets and what is between. O(parts · ways): an outlet that nothing could ever reach is not asked for.</summary>
    public ScenarioGoals(WayGraph graph)
    {
        _graph = graph;
        int[] Ports(Func<Part, bool> of, Func<Part, Port, bool> port) => [.. graph.Parts.Where(of)
            .SelectMany(p => p.Ports.Where(o => port(p, o) && graph.Index.IsJoined(p.Id, o.Id)).Select(o => graph.At(p.Id, o.Id)))];
        static StockPart Stock(Part p) => Catalogue.Part(p.Stock)!;
        _tanks = [.. graph.Parts.Where(p => TankStudy.IsTank(p) && Stock(p).Group == PartGroup.Store).Select(p => graph.Tank(p.Id))];
        _towns = [.. graph.Parts.Where(RigFlow.IsTownInlet).Select(p => graph.At(p.Id, "in"))];
        _outlets = Ports(p => Stock(p).Passage == Passage.Mixer, (p, o) => p.RoleOf(o) is PortRole.Cold or PortRole.Hot);
        _blows = Ports(p => p.Stock == "air-port", (_, _) => true);
        _suctions = Ports(p => p.Stock is "dip-tube" or "hose-tail", (_, _) => true);
        _heaters = Ports(PartWater.HeatsWater, (p, o) => p.RoleOf(o) == PortRole.Cold);
        _filters = Ports(p => Stock(p) is { Group: PartGroup.Clean } and not { Id: "strainer" or "drinking-filter" }, (_, o) => o.Id == "in");
        _unfed = new(() => _tanks.Length + _towns.Length == 0 ? [] : [.. _outlets.Except(Possible([.. _tanks, .. _towns], _outlets))]);
        Pumps = [.. Enumerable.Range(0, graph.Parts.Count).Where(i => Stock(graph.Parts[i]) is { Passage: Passage.Pump } s && s.Id != "return-pump")];
    }

    /// <summary>Numbers of the pumps that feed the taps.</summary>
    public IReadOnlyList<int> Pumps { get; }

    /// <summary>Whether the rig has what the task is about: where the water comes from, and what is emptied or bypassed.</summary>
    public bool Has(TaskKind kind) => kind switch
    {
        TaskKind.Tank => _tanks.Length > 0,
        TaskKind.Town => _towns.Length > 0,
        TaskKind.Fill => _towns.Length > 0 && Possible(_towns, _tanks).Count > 0,
        TaskKind.PumpOut => _tanks.Length > 0 && Pumps.Count > 0,
        TaskKind.BlowOut => _blows.Length + _towns.Length > 0,
        TaskKind.Antifreeze => _suctions.Length > 0 && Pumps.Count > 0,
        TaskKind.BypassHeater => _tanks.Length > 0 && Settable(_heaters),
        TaskKind.BypassFilter => _tanks.Length > 0 && Settable(_filters),
        _ => false,
    };

    /// <summary>Inlets of outlets that no tank and no hose gets water to, however all is set; none while there is no source.</summary>
    public IReadOnlyList<int> Unfed => _unfed.Value;

    /// <summary>The clauses of a task; empty where nothing is asked of valves.</summary>
    public IReadOnlyList<WayClause> Of(TaskKind kind)
    {
        if (!Has(kind)) return [];
        int[] air = [WayGraph.Air];
        // What a pump presses on does not come back to where it draws from.
        WayClause[] rings = [.. Pumps.Select(p => new WayClause([At(p, "out")], [], [At(p, "in"), .. _tanks], p))];
        int[] blow = _blows.Length > 0 ? _blows : _towns;
        return kind switch
        {
            TaskKind.Tank => [new WayClause(_tanks, Possible(_tanks, _outlets), [.. air, .. Mains()]), .. rings],
            TaskKind.Town => [new WayClause(_towns, Possible(_towns, _outlets), [.. air, .. _tanks])],
            TaskKind.Fill => [new WayClause(_towns, Possible(_towns, _tanks), air)],
            TaskKind.PumpOut => [new WayClause(_tanks, [.. Pumps.Select(p => At(p, "in"))], []),
                .. Pumps.Select(p => new WayClause([At(p, "out")], air, [])), .. rings],
            TaskKind.BlowOut => [new WayClause(blow, Possible(blow, _outlets), [.. _blows.Length > 0 ? [] : air, .. _tanks])],
            TaskKind.Antifreeze => [new WayClause(_suctions, Possible(_suctions, _outlets), [.. _tanks, .. Settable(_heaters) ? _heaters : []]),
                new WayClause(_tanks, [], [.. Pumps.Select(p => At(p, "in"))])],
            TaskKind.BypassHeater => [new WayClause(_tanks, PossibleWithout(_heaters), [.. air, .. Mains(), .. _heaters]), .. rings],
            TaskKind.BypassFilter => [new WayClause(_tanks, Possible(_tanks, _outlets), [.. air, .. Mains(), .. _filters]), .. rings],
            _ => [],
        };
    }

    /// <summary>Outlets that water from <paramref name="from"/> gets to in some position of everything.</summary>
    private IReadOnlyList<int> Possible(int[] from, int[] outlets, int[]? without = null)
    {
        var set = new int[_graph.Parts.Count];
        var reached = new HashSet<int>();
        // Each in the position in which most is joined, then the others of what has several ways.
        foreach (int shift in (int[])[0, 1, 2])
        {
            foreach (int p in _graph.Settable)
            {
                var positions = _graph.PositionsOf(p);
                List<int> open = [.. Enumerable.Range(0, positions.Count).Where(k => positions[k].Passes).OrderBy(k => positions[k].Joins is null ? 0 : 1)];
                set[p] = open.Count == 0 ? 0 : open[Math.Min(shift, open.Count - 1)];
            }
            var came = _graph.Reach(from, set, not: without);
            reached.UnionWith(outlets.Where(o => came[o] is not null));
        }
        return [.. outlets.Where(reached.Contains)];
    }

    // A coupling without a check valve lets water back into the town's line.
    private IEnumerable<int> Mains() => _graph.Parts.Where(p => p.Stock == "town-coupling").Select(p => _graph.At(p.Id, "in"));

    // Some setting gets water past these places to every outlet that it gets to otherwise.
    private bool Settable(int[] places) => places.Length > 0 && _tanks.Length > 0 && PossibleWithout(places).Count == Possible(_tanks, _outlets).Count;

    private IReadOnlyList<int> PossibleWithout(int[] places) => Possible(_tanks, _outlets, places);

    private int At(int part, string port) => _graph.At(_graph.Parts[part].Id, port);
}
