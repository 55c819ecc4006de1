using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Modes;

/// <summary>What heat is for.</summary>
public enum HeatGroup
{
    /// <summary>Water for taps.</summary>
    HotWater,

    /// <summary>Rooms.</summary>
    Rooms,

    /// <summary>Tanks and lines that must not freeze.</summary>
    Frost,

    /// <summary>The vehicle's engine, before it is started.</summary>
    Engine,
}

/// <summary>Something that a circuit warms: a coil, a radiator, a run that is a trace.</summary>
/// <param name="Id">Id of the part or run.</param>
/// <param name="IsRun">It is a run.</param>
/// <param name="Group">What it is for.</param>
internal sealed record HeatSink(string Id, bool IsRun, HeatGroup Group);

/// <summary>A setting of valves and pumps, and what it does.</summary>
/// <param name="Set">Position of each turnable part, by number.</param>
/// <param name="Sources">Heaters that its flow passes.</param>
/// <param name="Sinks">What it warms.</param>
/// <param name="Turns">How many parts are turned from how they are in use.</param>
internal sealed record FoundMode(int[] Set, IReadOnlyList<string> Sources, IReadOnlyList<string> Sinks, int Turns);

/// <summary>Finds what the valves and pumps of a rig's circuits can do, by going through their positions.</summary>
internal sealed class ModeFinder
{
    /// <summary>The most valves and pumps whose every position is gone through.</summary>
    public const int MostTurnable = 12;

    // With more of them, positions with the fewest turns are.
    private const int MostSettings = 1 << MostTurnable;

    private readonly int[] _first;
    private readonly int[] _count;

    // Numbers of engines, and of heaters with their own pump, among what is turned.
    private readonly int[] _sourceAt;

    /// <summary>Looks a rig over. O(parts + runs).</summary>
    public ModeFinder(Question question)
    {
        Graph = new CircuitGraph(question.Index);
        var heat = RigHeat.Of(question);
        _first = Graph.SetOf(CircuitGraph.InUse(question.Rig));
        _count = [.. Graph.Turnable.Select(p => CircuitGraph.PositionsOf(Graph.Parts[p]).Count)];
        Sources = [.. Graph.Parts.Where(p => p.Heats().HeatsFluid || p.Heats().IsEngine).Select(p => p.Id)];
        _sourceAt = [.. Enumerable.Range(0, Graph.Turnable.Count).Where(t => Sources.Contains(Graph.Parts[Graph.Turnable[t]].Id))];
        Sinks = [.. Graph.Parts.Where(p => p.Heats().CoilWPerK is not null || p.Heats().RatedW is > 0)
            .Select(p => new HeatSink(p.Id, false, GroupOf(p))),
            .. Graph.Runs.Where(r => r.Traces is { Count: > 0 }).Select(r => new HeatSink(r.Id, true, HeatGroup.Frost)),
            .. Graph.Runs.Where(r => r.Floor is not null).Select(r => new HeatSink(r.Id, true, HeatGroup.Rooms))];

        HeatGroup GroupOf(Part part) => part.Heats().IsEngine ? HeatGroup.Engine : part.Heats().CoilWPerK is null ? HeatGroup.Rooms
            : heat.Around(part) is { } vessel && PartWater.HeatsWater(question.Index.Part(vessel)) ? HeatGroup.HotWater : HeatGroup.Frost;
    }

    /// <summary>What is joined.</summary>
    public CircuitGraph Graph { get; }

    /// <summary>Ids of the heaters and engines.</summary>
    public IReadOnlyList<string> Sources { get; }

    /// <summary>Whether a source is an engine.</summary>
    public bool IsEngine(string source) => Graph.Parts.First(p => p.Id == source).Heats().IsEngine;

    /// <summary>All that circuits can warm.</summary>
    public IReadOnlyList<HeatSink> Sinks { get; }

    /// <summary>Positions in use.</summary>
    public int[] First => [.. _first];

    /// <summary>How many settings there are.</summary>
    public double Settings => _count.Aggregate(1.0, (all, n) => all * n);

    /// <summary>Whether every setting is gone through.</summary>
    public bool Exhaustive => Settings <= MostSettings;

    /// <summary>Every setting, those with the fewest turns first; the first 4096 of them. O(settings).</summary>
    public IEnumerable<int[]> All()
    {
        int left = MostSettings;
        for (int turns = 0; turns <= _first.Length && left > 0; turns++)
            foreach (int[] set in WithTurns(0, turns, First))
            {
                yield return set;
                if (--left == 0) yield break;
            }
    }

    /// <summary>What a setting does. O(elements).</summary>
    public FoundMode At(int[] set, IReadOnlySet<int>? cut = null)
    {
        var (runs, parts) = Graph.Live(set, cut);
        var live = Graph.Parts.Where((_, p) => parts[p]).Select(p => p.Id).Concat(Graph.Runs.Where((_, r) => runs[r]).Select(r => r.Id)).ToHashSet();
        // An engine that runs is no sink, and one that stands is no source, nor is a heater that is off.
        var (run, stand) = (new HashSet<string>(), new HashSet<string>());
        foreach (int t in _sourceAt) (Graph.At(set, t).Passes ? run : stand).Add(Graph.Parts[Graph.Turnable[t]].Id);
        return new FoundMode([.. set], [.. Sources.Where(s => live.Contains(s) && !stand.Contains(s))],
            [.. Sinks.Where(s => live.Contains(s.Id) && !run.Contains(s.Id)).Select(s => s.Id)],
            set.Where((o, t) => o != _first[t]).Count());
    }

    /// <summary>One setting for each thing that the valves can do, with the fewest turns; none where nothing flows. O(settings · elements).</summary>
    public IReadOnlyList<FoundMode> Find(CancellationToken cancel, IReadOnlySet<int>? cut = null)
    {
        var found = new Dictionary<string, FoundMode>();
        foreach (int[] set in All())
        {
            cancel.ThrowIfCancellationRequested();
            var mode = At(set, cut);
            if (mode.Sources.Count > 0) found.TryAdd(string.Join('|', mode.Sources.Concat(mode.Sinks)), mode);
        }
        return [.. found.Values];
    }

    /// <summary>
    /// The runs, one to four, in which valves would leave <paramref name="wanted"/> alone with flow behind a heater; null: none would. Takes the run whose
    /// valve stops the most of what is not wanted, again and again. O(runs · settings · elements) at the worst.
    /// </summary>
    public IReadOnlyList<int>? Missing(IReadOnlyList<string> wanted, string source, CancellationToken cancel)
    {
        var cut = new HashSet<int>();
        // With all open, so that only what is in the way has to be stopped.
        var open = Find(cancel).Where(m => m.Sources.Contains(source) && wanted.All(m.Sinks.Contains)).MinBy(m => m.Sinks.Count);
        if (open is null) return null;
        var now = open;
        while (cut.Count < 4 && now.Sinks.Count > wanted.Count)
        {
            cancel.ThrowIfCancellationRequested();
            var live = Graph.Live(now.Set, cut).Runs;
            var best = Enumerable.Range(0, Graph.Runs.Count).Where(r => live[r]).Select(r => (Run: r, Mode: At(now.Set, cut.Append(r).ToHashSet())))
                .Where(m => m.Mode.Sources.Contains(source) && wanted.All(m.Mode.Sinks.Contains) && m.Mode.Sinks.Count < now.Sinks.Count)
                .OrderBy(m => m.Mode.Sinks.Count).ThenBy(m => EndsAtTee(Graph.Runs[m.Run]) ? 0 : 1).ThenBy(m => Graph.Runs[m.Run].Id, StringComparer.Ordinal)
                .Select(m => ((int, FoundMode)?)(m.Run, m.Mode)).FirstOrDefault();
            if (best is not var (run, mode)) return null;
            cut.Add(run);
            now = mode;
        }
        return now.Sinks.Count == wanted.Count ? [.. cut] : null;
    }

    // A valve belongs where a branch begins: whoever looks for it looks there.
    private bool EndsAtTee(Run run) => Graph.Parts.First(p => p.Id == run.From.Part).Ports.Count > 2;

    private IEnumerable<int[]> WithTurns(int from, int turns, int[] set)
    {
        if (turns == 0)
        {
            yield return [.. set];
            yield break;
        }
        for (int t = from; t <= set.Length - turns; t++)
            for (int o = 0; o < _count[t]; o++)
            {
                if (o == _first[t]) continue;
                set[t] = o;
                foreach (int[] next in WithTurns(t + 1, turns - 1, set)) yield return next;
                set[t] = _first[t];
            }
    }
}
