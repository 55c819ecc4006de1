using WarmConduit.Core.Flow;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>What a branch is to get.</summary>
/// <param name="Id">Its radiator or coil.</param>
/// <param name="Share">Parts of the flow, as against the other branches; 0 to 1000.</param>
public sealed record FlowWish(string Id, double Share) : IIdentified;

/// <summary>How the flow of a circuit is to be shared.</summary>
/// <param name="Wishes">Branches that get another share than what they can give off asks for; left out: none.</param>
public sealed record BalanceInput(IReadOnlyList<FlowWish>? Wishes = null) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c =>
    {
        c.Count("wishes", Wishes?.Count ?? 0, 0, 100);
        c.Unique("wishes", Wishes ?? []);
        for (int i = 0; i < Math.Min(Wishes?.Count ?? 0, 100); i++)
        {
            if (rig.Parts.Find(Wishes![i].Id) is null) c.Add($"wishes[{i}].id", $"there is no part '{Wishes[i].Id}'");
            c.Range($"wishes[{i}].share", Wishes[i].Share, 0.01, 1000, "");
        }
    });
}

/// <summary>A branch, balanced.</summary>
/// <param name="PartId">Its radiator or coil.</param>
/// <param name="Wish">Parts of the flow that it is to get.</param>
/// <param name="NowLPerMin">Flow as the valves stand, L/min.</param>
/// <param name="LPerMin">Flow once balanced, L/min.</param>
/// <param name="Opening">How far its balancing valve is open, 0 (shut) to 1: of the area that the line has.</param>
public sealed record BalancedBranch(string PartId, double Wish, double NowLPerMin, double LPerMin, double Opening);

/// <summary>Balancing valves that share the flow as wished. Estimates: set them by a thermometer on each return.</summary>
/// <param name="Branches">The branches; empty: there are not two.</param>
/// <param name="Reached">They get what is wished; else what comes nearest.</param>
/// <param name="Words">What it comes to, in words; null: nothing to say.</param>
public sealed record BalanceAnswer(IReadOnlyList<BalancedBranch> Branches, bool Reached, Sentence? Words);

/// <summary>How far to close a balancing valve before each radiator and coil so that all get their share.</summary>
public static class BalanceStudy
{
    private const double OpenLoss = 0.1, CoilAtK = 10;

    /// <summary>Puts a valve before everything with flow that gives off heat, and asks the engine how far each is open. Pure. Some 15 flows.</summary>
    public static BalanceAnswer Ask(Question question, BalanceInput input)
    {
        var heat = RigHeat.Of(question);
        var sinks = heat.Acting.Where(p => p.Heats().StopsC is null && heat.ThroughM3PerS(p) > 0).ToList();
        if (sinks.Count < 2) return new BalanceAnswer([], true, null);
        var network = heat.Net.Network;
        var ids = sinks.Select(p => p.Id).ToHashSet();
        var edges = new List<FlowEdge>();
        // What comes to a part passes its valve first.
        for (int e = 0; e < network.Edges.Count; e++)
        {
            var edge = network.Edges[e];
            bool forward = heat.Flow!.FlowM3PerS[e] > 0;
            string to = forward ? edge.To : edge.From;
            edges.Add(!ids.Contains(to) || heat.Flow.FlowM3PerS[e] == 0 ? edge : forward ? edge with { To = Before(to) } : edge with { From = Before(to) });
        }
        double bore = question.Rig.Runs.Where(r => r.Service == Service.Coolant).Max(r => Catalogue(r));
        edges.AddRange(sinks.Select(p => new FlowValve($"{p.Id}~balance", Before(p.Id), p.Id, bore, OpenLoss)));
        var valved = network with { Edges = edges, Nodes = [.. network.Nodes, .. sinks.Select(p => new FlowNode(Before(p.Id)))] };
        double[] wish = [.. sinks.Select(p => input.Wishes?.Find(p.Id)?.Share ?? Math.Round(RatedW(p) / 100, 1))];
        try
        {
            var answer = Balancing.Solve(valved, [.. sinks.Select(p => $"{p.Id}~balance")], wish);
            var branches = sinks.Select((p, i) => new BalancedBranch(p.Id, wish[i], Rounded(heat.ThroughM3PerS(p)),
                Rounded(answer.Flow.FlowM3PerS[network.Edges.Count + i]), Math.Round(answer.Opening[i], 3))).ToList();
            double before = branches.Sum(b => b.NowLPerMin), after = branches.Sum(b => b.LPerMin);
            return new BalanceAnswer(branches, answer.Reached, answer.Reached
                ? Sentence.Of($"Shared so, {new Measure(after, Quantity.Flow)} flow in all, where {new Measure(before, Quantity.Flow)} did.")
                : "These shares cannot be set: a branch would have to be all but shut, or is driven backwards.");
        }
        catch (FlowNetworkException)
        {
            return new BalanceAnswer([], false, "Radiators or coils lie in line with each other: what flows through one flows through the next, and there is " +
                "nothing to share.");
        }

        static string Before(string id) => id + "~before";
        static double Rounded(double m3PerS) => Math.Round(m3PerS * 60e3, 3);
        static double Catalogue(Run run) => Materials.Catalogue.Pipe(run.Pipe)!.InnerDiameterM;
    }

    // What it can give off: of a coil, to water that is ten degrees colder.
    private static double RatedW(Part part) => part.Heats() is { CoilWPerK: { } coil } ? coil * CoilAtK : part.Heats().RatedW ?? 100;
}
