using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
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
    Airlock,

    /// <summary>Film and beads in a bore that is too flat.</summary>
    Film,

    /// <summary>It keeps its water, safe from frost by what is poured in on leaving.</summary>
    Protected,

    /// <summary>All that is too little to name.</summary>
    Rest,
}

/// <summary>Something that holds water once the rig is drained.</summary>
/// <param name="Kind">Why it does.</param>
/// <param name="Words">What it is.</param>
/// <param name="Litres">How much, L.</param>
/// <param name="Breaks">Ice there breaks something.</param>
/// <param name="Empties">The one thing that would empty it.</param>
/// <param name="Estimate">How much is an estimate.</param>
public sealed record Hold(HoldKind Kind, string Words, double Litres, bool Breaks, Sentence Empties, bool Estimate);

/// <summary>Everything that holds water.</summary>
/// <param name="Holds">Most first; together they are all that stays.</param>
/// <param name="Stays">The sums of the drain-down.</param>
public sealed record HoldsAnswer(IReadOnlyList<Hold> Holds, Stays Stays);

/// <summary>What still holds water, whatever the reason: the drain-down's account, thing by thing.</summary>
public static class HoldsStudy
{
    private const double LeastRestL = 1e-6;

    /// <summary>Asks of a rig once it is drained. Every litre of <see cref="DrainDownAnswer.Stays"/> stands in one line. Pure. O(points).</summary>
    public static HoldsAnswer Ask(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        var holds = drained.Pools.Select(p => OfPool(question, p)).ToList();
        var told = drained.Pools.SelectMany(p => p.Parts).Select(p => p.PartId).ToHashSet();
        var airlocked = drained.Airlocks.Where(a => !a.Gulps).ToList();
        foreach (var part in drained.Parts.Where(p => p.RetainedL > LeastRestL && !told.Contains(p.PartId)))
        {
            if (OfPart(question, part) is { } hold) holds.Add(hold);
        }
        // As much as is in the bores, which is no more than they hold.
        var inRun = drained.Runs.ToDictionary(r => r.RunId);
        foreach (var lock_ in airlocked)
            holds.Add(new Hold(HoldKind.Airlock, lock_.Words, lock_.Litres, lock_.RunIds.Any(id => inRun[id].Threatens),
                $"Let air in at {lock_.OpenAt.Words}: open a tap or valve there, or loosen a joint.", true));
        foreach (var run in drained.Runs)
        {
            string name = question.Index.Run(run.RunId).Name;
            if (run.SagL > 0)
                holds.Add(new Hold(HoldKind.Sag, name, run.SagL, false, Slack.Of(question.Index, question.Index.Run(run.RunId)) is null
                ? "Clips closer together." : "Cut it to length, or put a board beneath.", true));
            if (run.FilmL - run.SagL >= LeastFilmL)
                holds.Add(new Hold(HoldKind.Film, name, run.FilmL - run.SagL, false,
                Sentence.Of($"A fall of {Measure.Fall(question.Rig.Brief.LeastFall)} all the way, or air."), true));
        }
        double rest = drained.Stays.TotalL - holds.Sum(h => h.Litres);
        if (rest > LeastRestL) holds.Add(new Hold(HoldKind.Rest, "small amounts", rest, false, "Too little to name.", true));
        return new HoldsAnswer([.. holds.OrderByDescending(h => h.Litres)], drained.Stays);
    }

    private const double LeastFilmL = 0.001;

    private static Hold OfPool(Question question, PoolAnswer pool)
    {
        if (pool.Shares.Count == 0)
            return new Hold(HoldKind.Vessel, pool.Words, pool.RetainedL, pool.Threatens.Count > 0, pool.ShutBy is { } by ? $"Open {by.Words}."
                : OfVessel(question, pool.Parts[0].PartId), false);
        bool dead = pool.Shares.Select(s => question.Index.Run(s.RunId)).Any(r => Dead(question, r.From) || Dead(question, r.To));
        return new Hold(
            dead ? HoldKind.DeadLeg : HoldKind.Pool, pool.Words, pool.RetainedL, pool.Threatens.Count > 0,
            pool.ShutBy is { } shut ? $"Open {shut.Words}, or put a drain at {pool.Lowest.Words}." : $"A drain at {pool.Lowest.Words}, or even fall.", false);
    }

    private static Sentence OfVessel(Question question, string partId) =>
        question.Ask(DrainDownStudy.Ask).Parts.First(p => p.PartId == partId).Cause == StayCause.Airlock ? "Add a vent: no air gets in behind its water."
            : "A drain at its lowest corner.";

    private static bool Dead(Question question, RunEnd end) => end.Part is { } id && Catalogue.Part(question.Index.Part(id).Stock)!.Passage == Passage.DeadEnd;

    private static Hold? OfPart(Question question, PartDrain drain)
    {
        var part = question.Index.Part(drain.PartId);
        var stock = Catalogue.Part(part.Stock)!;
        bool breaks = question.Levels.IceBreaks(part.Id);
        return drain.Cause switch
        {
            StayCause.Design when drain.ProtectedL > 0 => new Hold(HoldKind.Protected, part.Name, drain.RetainedL, false,
                $"It stays, mixed with antifreeze: {drain.Task}.", false),
            StayCause.Design => new Hold(HoldKind.Design, part.Name, drain.RetainedL, breaks, $"{drain.Remedy}.", false),
            StayCause.Shut => new Hold(
                HoldKind.Shut, part.Name, drain.RetainedL, breaks,
                stock.Passage == Passage.Valve ? "Leave it half open: shut, the ball keeps what is in it, and so may what lies behind."
                : "Leave it open, lever in the middle: its cartridge keeps what is in it.", true),
            StayCause.Airlock when stock.Passage != Passage.Vessel => new Hold(HoldKind.Airlock, part.Name, drain.RetainedL, breaks,
            "Let air in above it.", true),
            _ when stock.Passage == Passage.Vessel => new Hold(HoldKind.Vessel, part.Name, drain.RetainedL, breaks, OfVessel(question, part.Id), false),
            _ => null,
        };
    }
}
