using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice;

/// <summary>Turns the answers of the studies into findings.</summary>
public static class Adviser
{
    /// <summary>
    /// Findings on <paramref name="rig"/>: each pool, each part that keeps its water, each part that reaches first ice before morning, each run flatter than the
    /// least fall. Heaviest first. Falls and pools weigh as faults where the rig relies on draining, and less where air, antifreeze or heat does the work. Pure.
    /// </summary>
    public static IReadOnlyList<Finding> Ask(Rig rig, Conditions night, DrainDownAnswer drained, FreezeLadderAnswer ladder)
    {
        var findings = new List<Finding>();
        var ice = ladder.Rungs.Where(r => r.PartId is not null && r.State != IceState.Safe).ToDictionary(r => r.PartId!);
        foreach (var pool in drained.Pools) findings.Add(OfPool(rig, drained, pool));
        // A part that keeps its water and freezes with it is one finding, that of the ice.
        foreach (var part in drained.Parts.Where(p => p.ByDesign && !ice.ContainsKey(p.PartId))) findings.Add(OfKeeper(rig, part));
        foreach (var rung in ice.Values) findings.Add(OfIce(rig, night, rung));
        var pooled = drained.Pools.SelectMany(p => p.Shares).Select(s => s.RunId).ToHashSet();
        foreach (var run in drained.Runs)
            if (Flattest(run, rig.Brief.LeastFall, pooled.Contains(run.RunId)) is { } at)
                findings.Add(OfFlatRun(rig, run, at));
        return [.. findings.OrderBy(f => f.Weight).ThenBy(f => f.Kind).ThenByDescending(f => f.Kind == FindingKind.FirstIce ? -f.Number.Value : f.Number.Value)];
    }

    private static Weight Draining(Rig rig) => rig.Brief.School == FreezeSchool.Drain ? Weight.Fault : Weight.Warning;

    private static Finding OfPool(Rig rig, DrainDownAnswer drained, PoolAnswer pool)
    {
        Sentence reason = pool switch
        {
            { Shares: [], Crest: not null } => new Sentence(
                "{0} of {1} stays: nothing open lies lower.",
                [new(pool.HeldL, Quantity.Volume), new(drained.Parts.First(p => p.PartId == pool.Parts[0].PartId).FullL, Quantity.Volume)]),
            { Crest: { } crest } => new Sentence(
                "It lies {0} lower than the crest at " + crest.Words + ", which it would have to climb on its way out.", [new Measure(pool.DepthM, Quantity.Length)]),
            { ShutBy: { } shut } => $"Nothing lets it out: it is shut in by {shut.Words}.",
            _ => "Nothing lets it out: there is no drain on this side.",
        };
        if (pool.Threatens.Count > 0)
            reason = reason with { Text = reason.Text + " Ice here breaks: " + string.Join(", ", pool.Threatens.Select(id => rig.PartOf(id).Name)) + "." };
        return new Finding(
            pool.Id, FindingKind.Pool, Draining(rig), pool.Words, new Measure(pool.HeldL, Quantity.Volume), reason, pool.Lowest,
            [.. pool.Shares.Select(s => s.RunId)],
            new Why(
                "Water leaves over the lowest crest on its way to any open drain. What lies below that level stays: circular segments of the bore, along the pipe, and what stands level in tanks.",
                [
                    .. pool.Shares.Select(s => new WhyInput(rig.Runs.First(r => r.Id == s.RunId).Name, new Measure(s.HeldL, Quantity.Volume), false)),
                    .. pool.Parts.Select(p => new WhyInput(rig.PartOf(p.PartId).Name, new Measure(p.HeldL, Quantity.Volume), false)),
                ]));
    }

    private static Finding OfKeeper(Rig rig, PartDrain drain)
    {
        var part = rig.PartOf(drain.PartId);
        return new Finding(
            "keeps:" + part.Id, FindingKind.KeepsWater, Weight.Warning, part.Name, new Measure(drain.HeldL, Quantity.Volume),
            $"It keeps its water by design. {drain.Remedy}.",
            Place.OnPart(rig, part.Id, part.Box.Centre()), [],
            new Why("Content of the part, from stock or as the rig says.", [new("content", new Measure(drain.FullL, Quantity.Volume), part.HoldsL is null)]));
    }

    private static Finding OfIce(Rig rig, Conditions night, Rung rung)
    {
        var part = rig.PartOf(rung.PartId!);
        string fate = rung.Breaks ? "Ice breaks it." : "It stands ice.";
        if (Catalogue.Part(part.Stock)!.Remedy is { } remedy) fate += $" {remedy}.";
        string full = night.Water == WaterState.Wet ? "left wet" : "with what stays in it";
        return new Finding(
            "ice:" + part.Id, FindingKind.FirstIce, rung.Breaks ? Weight.Fault : Weight.Note, part.Name, new Measure(rung.FirstIceS, Quantity.Duration),
            new Sentence($"First ice after {{0}}, {full}, in air of {{1}}. {fate}", [new(rung.FirstIceS, Quantity.Duration), new(rung.AirC, Quantity.Temperature)]),
            Place.OnPart(rig, part.Id, part.Box.Centre()), [], rung.Why);
    }

    // Index of the flattest length below the least fall; a length that climbs is told by the pool it makes.
    private static int? Flattest(RunDrain run, double leastFall, bool pooled)
    {
        int? flattest = null;
        for (int k = 0; k + 1 < run.Stations.Count; k++)
        {
            if (run.Stations[k].Fall is not { } fall || fall >= leastFall - 1e-6 || (pooled && fall < 0)) continue;
            if (flattest is null || fall < run.Stations[flattest.Value].Fall) flattest = k;
        }
        return flattest;
    }

    private static Finding OfFlatRun(Rig rig, RunDrain drain, int station)
    {
        var run = rig.Runs.First(r => r.Id == drain.RunId);
        var at = drain.Stations[station];
        double length = drain.Stations[station + 1].DistanceM - at.DistanceM;
        double fall = at.Fall!.Value;
        var weight = run.Service is Service.Vent or Service.Fill || fall >= 0.01 ? Weight.Note : Draining(rig) == Weight.Fault ? Weight.Warning : Weight.Note;
        string words = fall < 0 ? "{0} of it climbs the way its water should leave, by {1} where {2} is asked." : "{0} of it falls by only {1} where {2} is asked; film and beads stay.";
        return new Finding(
            "flat:" + run.Id, FindingKind.FlatRun, weight, run.Name, new Measure(fall, Quantity.Fall),
            new Sentence(words, [new(length, Quantity.Length), new(Math.Abs(fall), Quantity.Fall), new(rig.Brief.LeastFall, Quantity.Fall)]),
            Place.OnRun(rig, run, station, at.At), [run.Id],
            new Why(
                "Fall = drop of the invert ÷ length, as parked, in the sense in which the water leaves.",
                [new("length", new(length, Quantity.Length), false), new("film that stays", new(drain.FilmL, Quantity.Volume), true)]));
    }
}
