using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Holds;

/// <summary>Why something still holds water.</summary>
public enum HoldKind
{
    /// <summary>It lies below a crest.</summary>
    Pool,

    /// <summary>It leads to nothing, and lies below the tee that it leaves.</summary>
    DeadLeg,

    /// <summary>A tank or heater keeps what lies below its way out.</summary>
    Vessel,

    /// <summary>It keeps its water by design: a pump head, a bowl, a trap.</summary>
    Design,

    /// <summary>A ball or cartridge that is shut keeps what is inside.</summary>
    Shut,

    /// <summary>It hangs through between its clips.</summary>
    Sag,

    /// <summary>No air gets in behind it.</summary>
    NoAir,

    /// <summary>Film and beads in a bore that is too flat.</summary>
    Film,
}

/// <summary>Something that holds water once the rig is drained.</summary>
/// <param name="Kind">Why it does.</param>
/// <param name="Words">What it is.</param>
/// <param name="Litres">How much, L.</param>
/// <param name="Breaks">Ice there breaks something.</param>
/// <param name="Empties">The one thing that empties it.</param>
/// <param name="Counted">It is part of what the drain-down counts; else it comes on top as an estimate.</param>
public sealed record Hold(HoldKind Kind, string Words, double Litres, bool Breaks, Sentence Empties, bool Counted);

/// <summary>Everything that holds water.</summary>
/// <param name="Holds">Most first.</param>
/// <param name="CountedL">What the drain-down counts, L.</param>
/// <param name="BesidesL">What comes on top, L. Estimate.</param>
public sealed record HoldsAnswer(IReadOnlyList<Hold> Holds, double CountedL, double BesidesL);

/// <summary>What still holds water, whatever the reason.</summary>
public static class HoldsStudy
{
    private const double LeastFilmL = 0.001, LeastSagL = 0.0002;

    /// <summary>Asks of a rig once it is drained. Pure. O(points).</summary>
    public static HoldsAnswer Ask(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        var order = question.Ask(DrainOrderStudy.Ask);
        var holds = new List<Hold>();
        holds.AddRange(drained.Pools.Select(p => OfPool(question, p)));
        foreach (var part in drained.Parts.Where(p => p.ByDesign && p.RetainedL > 0)) holds.Add(OfPart(question, part));
        holds.AddRange(question.Rig.Parts.Select(p => OfShut(question, p)).OfType<Hold>());
        holds.AddRange(question.Rig.Runs.Select((r, i) => OfSag(question, r, drained.Runs[i])).OfType<Hold>());
        holds.AddRange(order.Air.Where(h => !h.Gulps).Select(h => new Hold(HoldKind.NoAir, h.Words, h.Litres, false, $"Let air in at {h.OpenAt.Words}: an opening there, or loosen it.", false)));
        foreach (var run in drained.Runs.Where(r => r.ResidualL >= LeastFilmL))
            holds.Add(new Hold(HoldKind.Film, question.Index.Run(run.RunId).Name, run.ResidualL, false, Sentence.Of($"A fall of {Measure.Fall(question.Rig.Brief.LeastFall)} all the way, or air."), false));
        return new HoldsAnswer([.. holds.OrderByDescending(h => h.Litres)], drained.RetainedL, holds.Where(h => !h.Counted).Sum(h => h.Litres));
    }

    private static Hold OfPool(Question question, PoolAnswer pool)
    {
        if (pool.Shares.Count == 0)
            return new Hold(HoldKind.Vessel, pool.Words, pool.RetainedL, pool.Threatens.Count > 0, pool.ShutBy is { } by ? $"Open {by.Words}." : "A drain at its lowest corner, or a sponge.", true);
        bool dead = pool.Shares.Select(s => question.Index.Run(s.RunId)).Any(r => Dead(question, r.From) || Dead(question, r.To));
        return new Hold(
            dead ? HoldKind.DeadLeg : HoldKind.Pool, pool.Words, pool.RetainedL, pool.Threatens.Count > 0,
            pool.ShutBy is { } shut ? $"Open {shut.Words}, or put a drain at {pool.Lowest.Words}." : $"A drain at {pool.Lowest.Words}, or its fall.", true);
    }

    private static bool Dead(Question question, RunEnd end) => end.Part is { } id && Catalogue.Part(question.Index.Part(id).Stock)!.Passage == Passage.DeadEnd;

    private static Hold OfPart(Question question, PartDrain drain)
    {
        var part = question.Index.Part(drain.PartId);
        return new Hold(HoldKind.Design, part.Name, drain.RetainedL, question.Levels.IceBreaks(part.Id), $"{drain.Remedy}.", true);
    }

    // Half open, a ball lets its own water go.
    private static Hold? OfShut(Question question, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (stock.Passage is not (Passage.Valve or Passage.Mixer) || question.Scenario.PositionOf(part) is not { Passes: false } || question.Index.HoldsCoolant(part)) return null;
        return new Hold(
            HoldKind.Shut, part.Name, PartWater.HoldsL(part), stock.IceBreaks == IceBreaks.Yes,
            stock.Passage == Passage.Valve ? "Leave it half open: shut, the ball keeps what is in it, and so may what lies behind." : "Leave it open, lever in the middle: its cartridge keeps what is in it.", false);
    }

    // Each straight length as it hangs between its clips, and where its slack hangs, drained by itself.
    private static Hold? OfSag(Question question, Run run, RunDrain drain)
    {
        if (run.Service == Service.Coolant || Catalogue.Pipe(run.Pipe) is not { } pipe) return null;
        var clipped = ClippedPipe.Of(pipe, run.Service == Service.Hot);
        var slack = Slack.Of(question.Index, run);
        double litres = 0;
        for (int k = 0; k + 1 < drain.Stations.Count; k++)
        {
            var (a, b) = (drain.Stations[k], drain.Stations[k + 1]);
            double length = a.At.DistanceM(b.At);
            bool hangs = slack?.Leg == k;
            int? spans = run.Spans(length);
            if ((spans is null && !hangs) || a.Fall is not (>= 0 and < 0.5) || a.WetTo > a.WetFrom || length < 0.05) continue;
            var (high, low) = a.HeightM >= b.HeightM ? (a.At, b.At) : (b.At, a.At);
            var edge = new LevelEdge("span", "high", "low", pipe.InnerDiameterM, Passes.Both, []);
            edge = hangs ? edge with { Via = HangingHose.Course(high.Towards(low, 0.5 - 0.5 / (spans ?? 1)), high.Towards(low, 0.5 + 0.5 / (spans ?? 1)), slack!.BellyM) } : clipped.Sagged(edge, high, low, length / spans!.Value);
            var network = new LevelNetwork([new LevelNode("high", high), new LevelNode("low", low)], [edge], [], ["low"]);
            litres += Draining.Solve(network, question.Conditions.Parked).EdgeM3[0] * 1000;
        }
        return litres < LeastSagL ? null : new Hold(HoldKind.Sag, run.Name, litres, false, slack is null ? "Clips closer together." : "Its slack taken out, or a board beneath.", false);
    }
}
