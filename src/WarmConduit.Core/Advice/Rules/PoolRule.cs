using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Water that stays in a pool.</summary>
internal sealed class PoolRule : IRule
{
    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        return drained.Pools.Select(pool => Of(question, drained, pool));
    }

    private static Finding Of(Question question, DrainDownAnswer drained, PoolAnswer pool)
    {
        var reason = pool switch
        {
            { Shares: [], Crest: not null } => Sentence.Of(
                $"{Measure.Volume(pool.RetainedL)} of {Measure.Volume(drained.Parts.First(p => p.PartId == pool.Parts[0].PartId).FullL)} stays: nothing open lies lower."),
            { Crest: { } crest } => Sentence.Of(
                $"It lies {Measure.Length(pool.DepthM)} lower than the crest at {crest.Words}, which it would have to climb on its way out."),
            { ShutBy: { } shut } => $"Nothing lets it out: it is shut in by {shut.Words}.",
            _ => "Nothing lets it out: there is no drain on this side.",
        };
        if (pool.Threatens.Count > 0) reason = reason.And($" Ice here breaks: {string.Join(", ", pool.Threatens.Select(id => question.Index.Part(id).Name))}.");
        return new Finding(
            pool.Id, FindingKind.Pool, School.OfRetainedWater(question.Rig), pool.Words, "holds", Measure.Volume(pool.RetainedL), reason, pool.Lowest,
            [.. pool.Shares.Select(s => s.RunId)],
            new Why(
                "Water leaves over the lowest crest on its way to any open drain. What lies below that level stays: circular segments of the bore, along the pipe, and what stands level in tanks.",
                [
                    .. pool.Shares.Select(s => new WhyInput(question.Index.Run(s.RunId).Name, Measure.Volume(s.RetainedL), false)),
                    .. pool.Parts.Select(p => new WhyInput(question.Index.Part(p.PartId).Name, Measure.Volume(p.RetainedL), false)),
                ]));
    }
}
