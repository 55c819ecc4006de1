using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>Lines that are traced: where their water is coldest, and what would hold it where it is too cold.</summary>
internal static class TracedLines
{
    private const double MostC = 90;

    private static readonly double[] MoreFlow = [1.25, 1.5, 2, 3];

    /// <summary>Each of them by the night; those that are too cold with a few nights more. O(lines · candidates · hours).</summary>
    public static IEnumerable<TracedRun> Of(Question question, RigNight night)
    {
        var touched = night.Heat.LineWh.Keys.Select(p => p.Traced).OfType<string>().ToHashSet();
        foreach (string id in question.Rig.Runs.SelectMany(r => r.Traces ?? []).Select(t => t.Id).Distinct().Order(StringComparer.Ordinal))
        {
            if (Coldest(night, id) is not var (coldest, number)) continue;
            double bare = night.Candidates.Where(f => f.Thing == id && !touched.Contains(f.Id)).Sum(f => f.LengthM);
            string name = question.Index.Run(id).Name;
            var candidate = night.Candidates[number];
            double along = candidate.AlongM + (candidate.LengthM / 2);
            var words = coldest >= TradeConstants.HoldC ? Sentence.Of($"{name} stays at {Measure.Temperature(coldest)} or more.")
                : Sentence.Of($"{name} falls to {Measure.Temperature(coldest)}, {Measure.Length(along)} from its start: below the " +
                    $"{Measure.Temperature(TradeConstants.HoldC)} that is safe.");
            if (bare > 0.01) words = words.And(Sentence.Of($" The trace does not touch {Measure.Length(bare)} of it."));
            // Where nothing flows, more of it is no help.
            if (coldest < TradeConstants.HoldC && night.Candidates.Any(f => f.Thing == id && touched.Contains(f.Id))) words = words.And(Needs(question, id));
            yield return new TracedRun(id, coldest, along, bare, words);
        }
    }

    private static (double C, int Candidate)? Coldest(RigNight night, string id)
    {
        (double C, int Candidate)? coldest = null;
        for (int n = 0; n < night.Candidates.Count; n++)
            if (night.Candidates[n] is { LengthM: > 0 } f && f.Thing == id)
                for (int r = 0; r <= night.Morning; r++)
                    if (coldest is null || night.WaterC(r, n) < coldest.Value.C) coldest = (night.WaterC(r, n), n);
        return coldest;
    }

    // Tried on the night: one sleeve where there are two, pumps that always run, stronger ones, then hotter fluid.
    private static Sentence Needs(Question question, string id)
    {
        bool HoldsOn(Rig rig) => question.On(rig, question.Cancel).Ask(RigNight.Of) is var night && Coldest(night, id) is { C: >= TradeConstants.HoldC };
        bool Holds(Func<Part, Part> change) => HoldsOn(question.Rig with { Parts = [.. question.Rig.Parts.Select(change)] });
        bool Apart(Run run) => run.Traces?.Find(id) is { Wrapped: not true } && (run.IsSleeved() || question.Index.Run(id).IsSleeved());
        if (question.Rig.Runs.Any(Apart) && HoldsOn(question.Rig with { Runs = [.. question.Rig.Runs.Select(r => Apart(r) ? Wrapped(r, id) : r)] }))
            return " One sleeve around both would hold it: its insulation lies between it and the trace.";
        if (question.Rig.Parts.Any(IsSwitched) && Holds(p => IsSwitched(p) ? p with { Heat = p.Heat! with { Switch = null } } : p))
            return " With its pump running all the time it would hold.";
        foreach (double k in MoreFlow)
            if (Holds(p => question.Index.HoldsCoolant(p) ? Stronger(p, k) : p))
                return Sentence.Of($" A pump of {new Measure(k, Quantity.Share)} of this one's flow would hold it.");
        foreach (double c in (double[])[5, 10, 20])
            if (question.Rig.Parts.Any(p => p.Heats().StopsC + c <= MostC) && Holds(p => Hotter(p, c)))
                return Sentence.Of($" Fluid hotter by {new Measure(c, Quantity.TemperatureDifference)} would hold it.");
        return " Neither more flow nor hotter fluid would hold it: more of it has to be taped, in closer contact, or sleeved.";
    }

    private static bool IsSwitched(Part part) => part.Heat?.Switch is not null;

    private static Run Wrapped(Run run, string id) => run with { Traces = [.. run.Traces!.Select(t => t.Id == id ? t with { Wrapped = true } : t)] };

    private static Part Hotter(Part part, double byK) => part.Heats().StopsC is { } stops && stops + byK <= MostC
        ? part with { Heat = (part.Heat ?? PartHeat.None) with { StopsC = stops + byK } } : part;

    private static Part Stronger(Part part, double k) => part.IsPump() && part.Flows() is { FreeLPerMin: { } free, ShutoffBar: { } bar }
        ? part with { Flow = (part.Flow ?? PartFlow.None) with { FreeLPerMin = free * k, ShutoffBar = bar * k * k } } : part;
}
