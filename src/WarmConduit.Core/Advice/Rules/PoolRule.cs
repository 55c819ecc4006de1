using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Water that stays in a pool.</summary>
internal sealed class PoolRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Pool];

    public Harm Harm => Harm.Stays;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => ideas.Pool(finding.Id) is { } pool ? ideas.OfPool(pool) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        return drained.Pools.Select(pool => Of(question, drained, pool));
    }

    private static Finding Of(Question question, DrainDownAnswer drained, PoolAnswer pool)
    {
        var reason = pool switch
        {
            { Shares: [], Crest: { } crest } => Sentence.Of(
                $"{Measure.Volume(pool.RetainedL)} of {Measure.Volume(drained.Parts.First(p => p.PartId == pool.Parts[0].PartId).FullL)} stays below its " +
                $"lowest way out, {crest.Words}.").And(Slope(question, pool.Lowest, crest)),
            { Crest: { } crest } => Sentence.Of(
                $"It lies {Measure.Length(pool.DepthM)} lower than the high point at {crest.Words}, so it can't drain."),
            { ShutBy: { } shut } => $"Nothing drains it: it is closed in by {shut.Words}.",
            _ => "Nothing drains it: no drain on this side.",
        };
        if (pool.Threatens.Count > 0) reason = reason.And($" Ice here breaks: {string.Join(", ", pool.Threatens.Select(id => question.Index.Part(id).Name))}.");
        return new Finding(
            pool.Id, FindingKind.Pool, School.OfRetainedWater(question.Rig), pool.Words, "keeps", Measure.Volume(pool.RetainedL), reason, pool.Lowest,
            [.. pool.Shares.Select(s => s.RunId)],
            new Why(
                "Water drains over the lowest high point on its way to an open drain. What lies below that level stays, in pipes and in tanks.",
                [
                    .. pool.Shares.Select(s => new WhyInput(question.Index.Run(s.RunId).Name, Measure.Volume(s.RetainedL), false)),
                    .. pool.Parts.Select(p => new WhyInput(question.Index.Part(p.PartId).Name, Measure.Volume(p.RetainedL), false)),
                ]),
            // What hangs in one run under a crest of its own goes when that run is laid evenly.
            pool is { Shares: [{ } only], Parts: [], Crest: { } hump } && hump.RunId == only.RunId
                ? RunRegrading.ItsFall(question.Index, question.Index.Run(only.RunId), question.Conditions.Parked, question.Rig.Brief.LeastFall)
                : null);
    }

    // A tank whose outlet is at its floor, and stands at the high end, is helped by the way it is parked, not by its valve.
    private static Sentence Slope(Question question, Place lowest, Place outlet) =>
        question.Conditions.Parked == Attitude.Level || outlet.At.ZM > lowest.At.ZM + 0.005
            ? "" : " The slope holds it back: park with that end low, or add a drain at the other end.";
}
