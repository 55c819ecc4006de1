namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>One thing that a task asks of the ways of water.</summary>
/// <param name="From">Places that it comes from.</param>
/// <param name="Reach">Places that it has to get to.</param>
/// <param name="Avoid">Places that it must not get to.</param>
/// <param name="Without">A part that it does not pass, by number; -1: none.</param>
/// <param name="Off">Places that it does not enter; null: none.</param>
internal sealed record WayClause(IReadOnlyList<int> From, IReadOnlyList<int> Reach, IReadOnlyList<int> Avoid, int Without = -1, int[]? Off = null)
{
    /// <summary>Where the water of this clause gets to in a setting.</summary>
    public (int From, int Part)?[] Reached(WayGraph graph, int[] set) => graph.Reach(From, set, Without, Off);
}

/// <summary>The first thing that a setting of the valves gets wrong: the way that water must not take, or the place that it does not get to.</summary>
/// <param name="Clause">Number of the clause.</param>
/// <param name="Place">The place.</param>
/// <param name="Reached">It is reached and must not be; else it is not reached and has to be.</param>
internal sealed record WayFault(int Clause, int Place, bool Reached);

/// <summary>
/// Positions that do a task with the fewest turns from those at first. Where water goes a wrong way, one of the parts on that way has to be set otherwise;
/// where it does not get on, one of those at which it stops. Each is tried in turn, with one turn more at a time, so that the first answer has the fewest.
/// </summary>
internal static class ScenarioFinder
{
    /// <summary>The most tries before it is given up.</summary>
    public const int MostTries = 5_000;

    /// <summary>
    /// Positions by part number, or null where none of <paramref name="mostTurns"/> turns do it. <paramref name="kept"/> parts are not turned. Exact: every
    /// answer differs from the setting at hand in a part of the way, or at the border, that is wrong with it. Exponential in the turns at the worst, not in
    /// the valves.
    /// </summary>
    public static int[]? Find(WayGraph graph, IReadOnlyList<WayClause> clauses, int[] first, IReadOnlySet<int> kept, int mostTurns = 8,
        CancellationToken cancel = default)
    {
        int tries = 0;
        for (int turns = 0; turns <= mostTurns; turns++)
        {
            var seen = new HashSet<string>();
            if (Search((int[])first.Clone(), [.. kept], turns, seen) is { } found) return found;
            if (tries > MostTries) return null;
        }
        return null;

        int[]? Search(int[] set, HashSet<int> done, int turns, HashSet<string> seen)
        {
            cancel.ThrowIfCancellationRequested();
            if (++tries > MostTries || !seen.Add(string.Join(',', graph.Settable.Select(p => done.Contains(p) ? set[p] : -1)))) return null;
            if (FaultOf(graph, clauses, set) is not { } fault) return set;
            if (turns == 0) return null;
            foreach (var (part, position) in Remedies(graph, clauses, set, fault).Where(r => !done.Contains(r.Part)).Distinct())
            {
                int before = set[part];
                set[part] = position;
                done.Add(part);
                if (Search(set, done, turns - 1, seen) is { } found) return found;
                done.Remove(part);
                set[part] = before;
            }
            return null;
        }
    }

    /// <summary>The first thing that is wrong with a setting; null: nothing.</summary>
    public static WayFault? FaultOf(WayGraph graph, IReadOnlyList<WayClause> clauses, int[] set)
    {
        for (int c = 0; c < clauses.Count; c++)
        {
            var came = clauses[c].Reached(graph, set);
            foreach (int place in clauses[c].Avoid)
                if (came[place] is { From: >= 0 }) return new WayFault(c, place, true);
            foreach (int place in clauses[c].Reach)
                if (came[place] is null) return new WayFault(c, place, false);
        }
        return null;
    }

    /// <summary>The parts by which water gets to a place from where it came, the last one first; -1 stands for a run.</summary>
    public static List<int> WayTo((int From, int Part)?[] came, int place)
    {
        var way = new List<int>();
        while (came[place] is { From: >= 0 } step)
        {
            way.Add(step.Part);
            place = step.From;
        }
        return way;
    }

    private static IEnumerable<(int Part, int Position)> Remedies(WayGraph graph, IReadOnlyList<WayClause> clauses, int[] set, WayFault fault)
    {
        var clause = clauses[fault.Clause];
        var came = clause.Reached(graph, set);
        if (!fault.Reached) return graph.Frontier(came, set);
        return WayTo(came, fault.Place).Where(p => p >= 0 && graph.PositionsOf(p).Count > 1).Distinct()
            .SelectMany(p => Enumerable.Range(0, graph.PositionsOf(p).Count).Where(k => k != set[p]).Select(k => (p, k)));
    }
}
