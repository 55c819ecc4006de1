using System.Collections.Concurrent;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>How a task is set: positions by part number, those that were turned for it, and what is wrong where nothing does it.</summary>
/// <param name="Kind">The task.</param>
/// <param name="Set">Position of each part by number: of those that can be set.</param>
/// <param name="Turned">Numbers of the parts that are turned from how they are in use.</param>
/// <param name="Fault">What no turn mends; null: it is done.</param>
/// <param name="Scenario">The scenario in which the builder sets it; null: there is none.</param>
/// <param name="Clauses">What it asks.</param>
/// <param name="Unkept">Positions that do it if the builder's are given up; null: none do, or none are needed.</param>
internal sealed record FoundTask(
    TaskKind Kind, int[] Set, IReadOnlyList<int> Turned, WayFault? Fault, Scenario? Scenario, IReadOnlyList<WayClause> Clauses, int[]? Unkept)
{
    /// <summary>Its name for <see cref="FoundTasks.Named"/>.</summary>
    public string Key => Kind == TaskKind.Own ? Scenario!.Id : Kind.ToString();
}

/// <summary>The positions of a rig's valves for each task: as the builder has set them, the others found.</summary>
internal sealed class FoundTasks
{
    private Rig _rig;
    private readonly Lazy<int[]> _pieces;
    private readonly ConcurrentDictionary<(TaskKind, string?), FoundTask> _found = [];

    private readonly Lazy<(FoundTask Task, string Pump, string Closed)[]> _blocked;
    private readonly Lazy<(string Filter, string? Open)[]> _past;
    private readonly Lazy<(string Pump, string Tank)[]> _held;

    private FoundTasks(Question question)
    {
        _rig = question.Rig;
        Graph = new WayGraph(question.Index);
        Goals = new ScenarioGoals(Graph);
        _pieces = new(Graph.Pieces);
        // Where a task fails by it, that says so.
        _blocked = new(() => [.. Own.Prepend(_rig.ScenarioOf(ScenarioKind.InUse)).Select(s => For(s)).Where(t => t.Fault is null)
            .SelectMany(t => Goals.AgainstClosed(t.Set).Select(b => (t, b.Pump.Id, b.Closed.Id)))]);
        _past = new(() => [.. Goals.PastFilters(For(TaskKind.Tank).Set).Select(f => (f.Filter.Id, f.Open?.Id))]);
        _held = new(() => [.. Goals.Has(TaskKind.Town) ? Goals.HoldTown(For(TaskKind.Town).Set).Select(h => (h.Pump.Id, h.Tank.Id)) : []]);
    }

    /// <summary>The ways of water.</summary>
    public WayGraph Graph { get; private set; }

    /// <summary>What tasks ask.</summary>
    public ScenarioGoals Goals { get; private set; }

    /// <summary>Ids of pumps that run against a closed valve, in use or in a scenario of the user's own.</summary>
    public IReadOnlyList<(FoundTask Task, string Pump, string Closed)> Blocked => _blocked.Value;

    /// <summary>Ids of filters that water goes past in use, and of the valve by which it does.</summary>
    public IReadOnlyList<(string Filter, string? Open)> PastFilters => _past.Value;

    /// <summary>Ids of pumps that alone keep town water out of a tank.</summary>
    public IReadOnlyList<(string Pump, string Tank)> TownHeld => _held.Value;

    /// <summary>Worked out once for a question, and kept for edited copies in which nothing is joined otherwise; each task when it is asked for.</summary>
    public static FoundTasks Of(Question question) => new(question);

    /// <summary>The same positions for an edited rig that they fit: what is told of its runs and parts is as they are now. O(parts + runs).</summary>
    public FoundTasks On(Question question)
    {
        if (ReferenceEquals(question.Rig, _rig)) return this;
        var other = (FoundTasks)MemberwiseClone();
        other._rig = question.Rig;
        other.Graph = Graph.On(question.Index);
        other.Goals = Goals.On(other.Graph);
        return other;
    }

    /// <summary>Whether these are the positions of <paramref name="rig"/> too: what is joined, and how it is set, are the same. O(parts + runs).</summary>
    public bool Fits(Rig rig) => (ReferenceEquals(rig.Scenarios, _rig.Scenarios) || rig.Scenarios.SequenceEqual(_rig.Scenarios))
        && rig.Parts.Count == _rig.Parts.Count && rig.Runs.Count == _rig.Runs.Count
        && rig.Parts.Zip(_rig.Parts).All(p => ReferenceEquals(p.First, p.Second) || (p.First.Id == p.Second.Id && p.First.Stock == p.Second.Stock
            && p.First.Name == p.Second.Name && p.First.Ports.Select(Joins).SequenceEqual(p.Second.Ports.Select(Joins))))
        && rig.Runs.Zip(_rig.Runs).All(r => ReferenceEquals(r.First, r.Second) || (r.First.Id == r.Second.Id && r.First.Service == r.Second.Service
            && SameEnd(r.First.From, r.Second.From) && SameEnd(r.First.To, r.Second.To)));

    private static (string Id, PortRole? Role) Joins(Port port) => (port.Id, port.Role);

    private static bool SameEnd(RunEnd a, RunEnd b) => a.Part == b.Part && a.Port == b.Port;

    /// <summary>The scenario in which the builder sets the valves of a task; null: there is none.</summary>
    public static ScenarioKind? ScenarioOf(TaskKind kind) => kind switch
    {
        TaskKind.Tank => ScenarioKind.InUse,
        TaskKind.Town => ScenarioKind.TownWater,
        TaskKind.Fill => ScenarioKind.Fill,
        TaskKind.Drain => ScenarioKind.Drain,
        TaskKind.BlowOut => ScenarioKind.BlowOut,
        TaskKind.Antifreeze => ScenarioKind.Antifreeze,
        _ => null,
    };

    /// <summary>A task by the name of its kind, or by the id of a scenario of the user's own; null: there is none.</summary>
    public FoundTask? Named(string name, CancellationToken cancel = default) => _rig.Scenarios.Find(name) is { Kind: ScenarioKind.Own } own ? For(own, cancel)
        : Enum.TryParse<TaskKind>(name, out var kind) ? For(kind, cancel) : null;

    /// <summary>Scenarios of the user's own, by name.</summary>
    public IEnumerable<Scenario> Own => _rig.Scenarios.Where(s => s.Kind == ScenarioKind.Own).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase);

    /// <summary>The task that a scenario is for; null: the user's own.</summary>
    public static TaskKind? TaskOf(ScenarioKind kind) =>
        Enum.GetValues<TaskKind>().Cast<TaskKind?>().FirstOrDefault(t => ScenarioOf(t!.Value) == kind);

    /// <summary>How a task is set.</summary>
    public FoundTask For(TaskKind kind, CancellationToken cancel = default) =>
        _found.GetOrAdd((kind, null), _ => Find(kind, ScenarioOf(kind) is { } of ? _rig.ScenarioOf(of) : null, cancel));

    /// <summary>How a scenario is set: of the user's own, or of its task.</summary>
    public FoundTask For(Scenario scenario, CancellationToken cancel = default) => TaskOf(scenario.Kind) is { } kind ? For(kind, cancel)
        : _found.GetOrAdd((TaskKind.Own, scenario.Id), _ => Find(TaskKind.Own, scenario, cancel));

    /// <summary>The positions of a task as they are set on parts, valves and pumps and drains alike.</summary>
    public IReadOnlyList<Setting> SettingsOf(FoundTask task) =>
        [.. Graph.Settable.Select(p => new Setting(Graph.Parts[p].Id, Graph.PositionsOf(p)[task.Set[p]].Id)).OrderBy(s => s.Id, StringComparer.Ordinal)];

    private FoundTask Find(TaskKind kind, Scenario? scenario, CancellationToken cancel)
    {
        int[] use = kind == TaskKind.Tank ? [] : For(TaskKind.Tank, cancel).Set;
        int[] first = new int[Graph.Parts.Count];
        var (kept, asked) = (new HashSet<int>(), new HashSet<int>());
        foreach (int p in Graph.Settable)
        {
            var part = Graph.Parts[p];
            var stock = Catalogue.Part(part.Stock)!;
            bool pumped = kind is not (TaskKind.Town or TaskKind.Fill or TaskKind.Drain or TaskKind.BlowOut);
            first[p] = stock.Passage == Passage.Pump ? Graph.PositionOf(p, pumped ? Positions.On : Positions.Off)
                : use.Length > 0 ? use[p] : Graph.PositionOf(p, Rigs.Scenarios.Usual(stock, ScenarioKind.InUse));
            if (scenario?.Goal?.Reach.Contains(part.Id) == true && stock.Passage == Passage.Drain)
            {
                first[p] = Graph.PositionOf(p, Positions.Open);
                asked.Add(p);
            }
            if (scenario?.Settings.Find(part.Id) is not { } own) continue;
            first[p] = Graph.PositionOf(p, own.Position);
            kept.Add(p);
        }
        int[] usual = [.. first];
        if (kind == TaskKind.Tank)
            foreach (var (_, part, position) in Goals.ShutBypasses.Where(b => !kept.Contains(b.Part))) first[part] = position;
        var clauses = Goals.Of(kind, scenario);
        var (set, done) = Piecewise(clauses, first, [.. kept, .. asked], cancel);
        int[]? unkept = !done && kept.Count > 0 && Piecewise(clauses, first, asked, cancel) is { Done: true } other ? other.Set : null;
        var from = kind == TaskKind.Tank ? usual : use;
        return new FoundTask(kind, set, [.. Graph.Settable.Where(p => set[p] != from[p])], done ? null : ScenarioFinder.FaultOf(Graph, clauses, set),
            scenario, clauses, unkept);
    }

    /// <summary>Positions in words: "tank valve closed, pump off".</summary>
    public static string Words(RigIndex index, IEnumerable<Setting> turns) => string.Join(", ", turns.Select(t => (index.Part(t.Id), t.Position))
        .Select(t => $"{t.Item1.Name} {Catalogue.Part(t.Item1.Stock)!.Positions.First(p => p.Id == t.Position).Name}"));

    // What hangs together is searched by itself: systems side by side do not multiply.
    private (int[] Set, bool Done) Piecewise(
        IReadOnlyList<WayClause> clauses, int[] first, HashSet<int> kept, CancellationToken cancel)
    {
        int[] set = [.. first];
        bool done = true;
        if (clauses.Count == 0 || ScenarioFinder.FaultOf(Graph, clauses, first) is null) return (set, true);
        int[] piece = _pieces.Value;
        foreach (int number in clauses.SelectMany(c => c.From).Select(p => piece[p]).Distinct().Order())
        {
            int[] In(IReadOnlyList<int> places) => [.. places.Where(p => p == WayGraph.Air || piece[p] == number)];
            WayClause[] own = [.. clauses.Select(c => c with { From = In(c.From), Reach = In(c.Reach), Avoid = In(c.Avoid) }).Where(c => c.From.Count > 0)];
            var still = kept.Concat(Graph.Settable.Where(p => piece[Graph.At(Graph.Parts[p].Id, Graph.Parts[p].Ports[0].Id)] != number)).ToHashSet();
            if (ScenarioFinder.Find(Graph, own, set, still, cancel: cancel) is { } found) set = found;
            else done = false;
        }
        return (set, done);
    }
}
