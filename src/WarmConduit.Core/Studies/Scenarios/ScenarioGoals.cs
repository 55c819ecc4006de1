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

    /// <summary>A scenario of the user's own.</summary>
    Own,
}

/// <summary>What each task asks of the ways of water, as clauses for the finder.</summary>
internal sealed class ScenarioGoals
{
    private WayGraph _graph;
    private readonly int[] _tanks, _towns, _outlets;
    private readonly Gears _gears;
    private readonly Lazy<int[]> _unfed;
    private readonly Lazy<(int, int, int)[]> _shut;

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
        _unfed = new(() => _tanks.Length + _towns.Length == 0 ? [] : [.. _outlets.Except(Possible([.. _tanks, .. _towns], _outlets))]);
        _shut = new(() => [.. FindBypasses()]);
        _gears = new Gears(graph);
        Pumps = [.. Enumerable.Range(0, graph.Parts.Count).Where(i => Stock(graph.Parts[i]) is { Passage: Passage.Pump } s && s.Id != "return-pump")];
    }

    /// <summary>The same for the same ways through a rig.</summary>
    public ScenarioGoals On(WayGraph graph)
    {
        var other = (ScenarioGoals)MemberwiseClone();
        other._graph = graph;
        return other;
    }

    /// <summary>Numbers of the pumps that feed the taps.</summary>
    public IReadOnlyList<int> Pumps { get; }

    /// <summary>Whether a place is the free end of a hose, where a pump draws air.</summary>
    public bool IsOpenEnd(int place) => _gears.OpenEnds.Contains(place);

    /// <summary>Whether the rig has what the task is about: where the water comes from, and what is emptied or bypassed.</summary>
    public bool Has(TaskKind kind) => kind switch
    {
        TaskKind.Tank => _tanks.Length > 0,
        TaskKind.Town => _towns.Length > 0,
        TaskKind.Fill => _towns.Length > 0 && Possible(_towns, _tanks).Count > 0,
        TaskKind.PumpOut => _tanks.Length > 0 && Pumps.Count > 0,
        TaskKind.BlowOut or TaskKind.Antifreeze => GearOf(kind, null).Count > 0,
        TaskKind.BypassHeater => _tanks.Length > 0 && Bypassed(PartWater.HeatsWater).Count > 0,
        TaskKind.BypassFilter => _tanks.Length > 0 && Bypassed(IsFilter).Count > 0,
        _ => false,
    };

    /// <summary>Gear that is joined for a task: what the builder has chosen for it, else what it usually takes.</summary>
    public IReadOnlyList<ScenarioGear> GearOf(TaskKind kind, Scenario? scenario) =>
        scenario?.Gear is { } own && _gears.Has(own) ? [own] : _gears.Usual(kind);

    /// <summary>What can be joined for a task, and where.</summary>
    public IReadOnlyList<ScenarioGear> GearFor(TaskKind kind) => _gears.For(kind);

    /// <summary>Inlets of outlets that no tank and no hose gets water to, however all is set; none while there is no source.</summary>
    public IReadOnlyList<int> Unfed => _unfed.Value;

    /// <summary>The clauses of a task as its scenario has it; empty where nothing is asked of valves.</summary>
    public IReadOnlyList<WayClause> Of(TaskKind kind, Scenario? scenario = null)
    {
        if (scenario?.Goal is { } goal) return Of(goal, GearOf(kind, scenario));
        if (!Has(kind)) return [];
        int[] air = [WayGraph.Air];
        var gear = GearOf(kind, scenario);
        int[] joined = [.. gear.Select(g => _graph.At(g.PartId, g.Port))];
        int[] off = _gears.Off(gear);
        WayClause[] rings = Rings([.. _tanks], []);
        return kind switch
        {
            TaskKind.Tank => [new WayClause(_tanks, Possible(_tanks, _outlets), [.. air, .. Mains()]), .. rings],
            TaskKind.Town => [new WayClause(_towns, Possible(_towns, _outlets), [.. air, .. _tanks])],
            TaskKind.Fill => [joined.Length > 0 ? new WayClause(joined, Possible(joined, _tanks), air, Off: off)
                : new WayClause(_towns, Possible(_towns, _tanks), air)],
            TaskKind.PumpOut => [new WayClause(_tanks, [.. Pumps.Select(p => At(p, "in"))], []),
                .. Pumps.Select(p => new WayClause([At(p, "out")], air, [])), .. rings],
            // From an inlet, air gets out nowhere but by the taps.
            TaskKind.BlowOut => [new WayClause(joined, Possible(joined, _outlets), [.. gear.Any(_gears.IsPort) ? [] : air, .. _tanks], Off: off)],
            TaskKind.Antifreeze => [new WayClause(joined, Possible(joined, _outlets, off), [.. _tanks, .. Bypassed(PartWater.HeatsWater)], Off: off),
                .. gear.Any(_gears.IsAtPump) ? [] : (WayClause[])[new WayClause(_tanks, [], [.. Pumps.Select(p => At(p, "in"))])]],
            TaskKind.BypassHeater or TaskKind.BypassFilter => [
                Past([.. Bypassed(kind == TaskKind.BypassHeater ? PartWater.HeatsWater : IsFilter)]), .. rings],
            _ => [],
        };
    }

    private WayClause Past(int[] places) => new(_tanks, Possible(_tanks, _outlets, places), [WayGraph.Air, .. Mains(), .. places]);

    // Ways into what has a bypass: water comes into it from behind as well.
    private List<int> Bypassed(Func<Part, bool> kind) => [.. ShutBypasses.Select(b => _graph.Parts[b.Past]).Where(kind).Distinct()
        .SelectMany(p => p.Ports.Where(o => p.RoleOf(o) is PortRole.Cold or PortRole.Hot or PortRole.Inlet && _graph.Index.IsJoined(p.Id, o.Id))
            .Select(o => _graph.At(p.Id, o.Id)))];

    /// <summary>A task's first clause as places of the drawing.</summary>
    public ScenarioGoal Told(IReadOnlyList<WayClause> clauses)
    {
        string[] Ids(IEnumerable<int> places) => [.. places.Select(_graph.PartAt).OfType<string>().Distinct()];
        return clauses.Count == 0 ? new ScenarioGoal([], [], []) : new ScenarioGoal(Ids(clauses[0].From), Ids(clauses[0].Reach), Ids(clauses[0].Avoid));
    }

    // Of a user's goal. What it reaches by a drain or an open end runs out there; by nothing else.
    private WayClause[] Of(ScenarioGoal goal, IReadOnlyList<ScenarioGear> gear)
    {
        int[] from = [.. goal.From.SelectMany(_graph.SourcesOf), .. gear.Select(g => _graph.At(g.PartId, g.Port))];
        int[] reach = [.. goal.Reach.SelectMany(_graph.InletsOf)];
        if (from.Length == 0) return [];
        bool letsOut = goal.Reach.Any(_graph.LetsOut);
        var clause = new WayClause(from, reach, [.. letsOut ? [] : (int[])[WayGraph.Air], .. goal.Avoid.SelectMany(_graph.PlacesOf)], Off: _gears.Off(gear));
        return [clause, .. Rings([.. _tanks.Intersect(from)], reach)];
    }

    // What a pump presses on does not come back to where it draws from, and no air gets in there.
    private WayClause[] Rings(int[] tanks, int[] reach) => tanks.Length == 0 ? []
        : [.. Pumps.Select(p => new WayClause([At(p, "out")], [], [At(p, "in"), .. tanks.Except(reach)], p)),
            .. _gears.OpenEnds.Count == 0 ? [] : (WayClause[])[new WayClause(_gears.OpenEnds, [], [.. Pumps.Select(p => At(p, "in"))])]];

    /// <summary>
    /// What shuts the bypasses of filters and heaters: one part turned from all that is open, so that some outlet gets water through them alone, and none loses
    /// its water. Worked out once; O(valves on the way · ways).
    /// </summary>
    public IReadOnlyList<(int Past, int Part, int Position)> ShutBypasses => _shut.Value;

    private IEnumerable<(int Past, int Part, int Position)> FindBypasses()
    {
        int[] sources = _tanks.Length > 0 ? _tanks : _towns, open = Open(0);
        int[] mixed = [.. _graph.Parts.Where(p => p.Flows().MixesToC is not null && p.PortAt("cold") is not null).Select(p => _graph.At(p.Id, "cold"))];
        var fed = _graph.Reach(sources, open);
        for (int number = 0; number < _graph.Parts.Count; number++)
        {
            var part = _graph.Parts[number];
            if (!IsFilter(part) && !PartWater.HeatsWater(part)) continue;
            // Cold water that a mixing valve adds is not past the heater.
            int[] into = [.. _graph.InletsOf(part.Id), .. mixed];
            var past = _graph.Reach(sources, open, not: into);
            int[] led = [.. _outlets.Where(o => past[o] is not null)];
            foreach (int valve in led.SelectMany(o => ScenarioFinder.WayTo(past, o)).Where(_graph.Settable.Contains).Distinct().Order())
                foreach (int k in Enumerable.Range(0, _graph.PositionsOf(valve).Count).Where(k => k != open[valve]))
                {
                    int[] set = With(open, valve, k);
                    var (none, all) = (_graph.Reach(sources, set, not: into), _graph.Reach(sources, set));
                    if (led.All(o => none[o] is not null) || _outlets.Any(o => fed[o] is not null && all[o] is null)) continue;
                    yield return (number, valve, k);
                    break;
                }
        }
    }

    private static int[] With(int[] set, int part, int position)
    {
        int[] other = [.. set];
        other[part] = position;
        return other;
    }

    /// <summary>Pumps that run with nothing open before them, and what is closed there. O(pumps · ways).</summary>
    public IEnumerable<(Part Pump, Part Closed)> AgainstClosed(int[] set)
    {
        foreach (int pump in Pumps.Where(p => _graph.PositionsOf(p) is { Count: > 0 } at && at[set[p]].Passes && _graph.Parts[p].PortAt("out") is not null))
        {
            int[] from = [At(pump, "out")];
            var came = _graph.Reach(from, set);
            if (came[WayGraph.Air] is not null || _outlets.Concat(_tanks).Any(o => came[o] is not null) || Possible(from, _outlets).Count == 0) continue;
            var closed = _graph.Frontier(came, set).Select(f => _graph.Parts[f.Part])
                .FirstOrDefault(p => Catalogue.Part(p.Stock)!.Passage == Passage.Valve);
            if (closed is not null) yield return (_graph.Parts[pump], closed);
        }
    }

    /// <summary>Filters that tank water goes past in a setting, and the valve of its bypass; null: there is none. O(filters · ways).</summary>
    public IEnumerable<(Part Filter, Part? Open)> PastFilters(int[] set)
    {
        var fed = _graph.Reach(_tanks, set);
        foreach (var filter in _graph.Parts.Where(IsFilter))
        {
            var shut = ShutBypasses.Where(b => _graph.Parts[b.Past] == filter).ToList();
            foreach (var (_, valve, k) in shut.Where(b => set[b.Part] != b.Position))
                if (_graph.Reach(_tanks, With(set, valve, k)) is var all && _outlets.All(o => fed[o] is null || all[o] is not null))
                    yield return (filter, _graph.Parts[valve]);
            if (shut.Count == 0 && IsPast(filter, _graph.Reach(_tanks, set, not: [.. _graph.InletsOf(filter.Id)]))) yield return (filter, null);
        }
    }

    // Water gets round a filter to its way out; through another one is not round it.
    private bool IsPast(Part filter, (int From, int Part)?[] came) => filter.PortAt("out") is not null && _graph.At(filter.Id, "out") is var o
        && came[o] is not null && ScenarioFinder.WayTo(came, o).Where(p => p >= 0).Select(p => _graph.Parts[p]).All(p => p == filter || !IsFilter(p));

    /// <summary>Pumps whose own valves alone keep town water out of a tank. O(tanks · ways).</summary>
    public IEnumerable<(Part Pump, Part Tank)> HoldTown(int[] set)
    {
        var (came, worn) = (_graph.Reach(_towns, set), _graph.Reach(_towns, set, pumpsLetBack: true));
        foreach (int tank in _tanks.Where(t => came[t] is null && worn[t] is not null))
            if (ScenarioFinder.WayTo(worn, tank).Where(Pumps.Contains).Select(p => _graph.Parts[p]).FirstOrDefault() is { } pump)
                yield return (pump, _graph.Index.Part(_graph.PartAt(tank)!));
    }

    /// <summary>Outlets that water from <paramref name="from"/> gets to in some position of everything.</summary>
    private IReadOnlyList<int> Possible(int[] from, int[] outlets, int[]? without = null)
    {
        var reached = new HashSet<int>();
        foreach (int shift in (int[])[0, 1, 2])
        {
            var came = _graph.Reach(from, Open(shift), not: without);
            reached.UnionWith(outlets.Where(o => came[o] is not null));
        }
        return [.. outlets.Where(reached.Contains)];
    }

    // Each in the position in which most is joined, or in another of those of what has several ways.
    private int[] Open(int shift)
    {
        var set = new int[_graph.Parts.Count];
        foreach (int p in _graph.Settable)
        {
            var positions = _graph.PositionsOf(p);
            List<int> open = [.. Enumerable.Range(0, positions.Count).Where(k => positions[k].Passes).OrderBy(k => positions[k].Joins is null ? 0 : 1)];
            set[p] = open.Count == 0 ? 0 : open[Math.Min(shift, open.Count - 1)];
        }
        return set;
    }

    // A coupling without a check valve lets water back into the town's line.
    private IEnumerable<int> Mains() => _graph.Parts.Where(p => p.Stock == "town-coupling").Select(p => _graph.At(p.Id, "in"));

    private static bool IsFilter(Part part) => Catalogue.Part(part.Stock)! is { Group: PartGroup.Clean } and not { Id: "strainer" or "drinking-filter" };

    private int At(int part, string port) => _graph.At(_graph.Parts[part].Id, port);
}
