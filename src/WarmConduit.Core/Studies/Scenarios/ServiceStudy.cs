using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>The part that is taken out.</summary>
/// <param name="PartId">Its id.</param>
public sealed record ServiceInput(string PartId) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        if (rig.Parts.Find(PartId) is null) c.Add("partId", $"there is no part '{PartId}'");
        return c.Faults;
    }
}

/// <summary>How a part is taken out with as little water as can be.</summary>
/// <param name="Can">Valves can isolate it.</param>
/// <param name="Turns">The fewest to turn from how they are in use.</param>
/// <param name="SpillsL">Water between those valves, L: what comes out when it is opened. Estimate.</param>
/// <param name="Words">In words.</param>
public sealed record ServiceAnswer(bool Can, IReadOnlyList<Setting> Turns, double SpillsL, Sentence Words);

/// <summary>Isolates a part.</summary>
public static class ServiceStudy
{
    /// <summary>Asks. Pure; the search is that of <see cref="ScenarioFinder"/>.</summary>
    public static ServiceAnswer Ask(Question question, ServiceInput input)
    {
        var found = question.Tasks;
        var graph = found.Graph;
        var part = question.Index.Part(input.PartId);
        int number = graph.Parts.ToList().FindIndex(p => p.Id == part.Id);
        if (number < 0) return new ServiceAnswer(true, [], 0, "No water line joins it.");
        var use = found.For(TaskKind.Tank, question.Cancel);
        int[] ports = [.. part.Ports.Where(p => question.Index.IsJoined(part.Id, p.Id)).Select(p => graph.At(part.Id, p.Id))];
        // Off first: no pump presses on what is open.
        int[] first = [.. use.Set];
        foreach (int pump in found.Goals.Pumps) first[pump] = Off(graph, pump);
        int[] sources = [.. graph.Parts.Where(p => WayGraph.IsTank(p) && p.Id != part.Id).Select(p => graph.Tank(p.Id)),
            .. graph.Parts.Where(p => RigFlow.IsTownInlet(p) && p.Id != part.Id).Select(p => graph.At(p.Id, "in"))];
        int[]? set = ScenarioFinder.Find(graph, [new WayClause(sources, [], ports)], first, new HashSet<int> { number }, cancel: question.Cancel);
        int[] at = set ?? first;
        Setting[] turns = [.. graph.Settable.Where(p => at[p] != use.Set[p]).Select(p => new Setting(graph.Parts[p].Id, graph.PositionsOf(p)[at[p]].Id))];
        double litres = Spilled(question, graph, at, ports, part.Id);
        return new ServiceAnswer(set is not null, turns, litres, set is null
            ? Sentence.Of($"No valves isolate it: drain first, or about {Measure.Volume(litres)} and what the tank holds comes out.")
            : turns.Length == 0 ? Sentence.Of($"Nothing to close. About {Measure.Volume(litres)} comes out.")
            : Sentence.Of($"{FoundTasks.Words(question.Index, turns)}. About {Measure.Volume(litres)} comes out."));
    }

    private static int Off(WayGraph graph, int pump) => Math.Max(0, graph.PositionsOf(pump).ToList().FindIndex(p => !p.Passes));

    // All that hangs together with it, whichever way: a check valve holds nothing back that stands on its outlet.
    private static double Spilled(Question question, WayGraph graph, int[] set, int[] ports, string partId)
    {
        var came = graph.Reach(ports, set);
        double runs = graph.Runs.Where(r => came[graph.At(r.From.Part!, r.From.Port!)] is not null && came[graph.At(r.To.Part!, r.To.Port!)] is not null)
            .Sum(r => Catalogue.Pipe(r.Pipe)!.BoreM2() * question.Index.PipeLengthM(r) * 1000);
        return runs + graph.Parts.Where(p => (p.Id == partId || !WayGraph.IsTank(p)) && p.Ports.Any(o => came[graph.At(p.Id, o.Id)] is not null))
            .Sum(PartWater.HoldsL);
    }
}
