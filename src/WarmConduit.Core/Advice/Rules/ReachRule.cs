using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>A weekend rig is emptied in the cold, again and again: its worst drain decides whether it is.</summary>
internal sealed class ReachRule : IRule
{
    public IEnumerable<Finding> Find(Question question)
    {
        if (question.Rig.Brief.Living != WayOfLiving.Weekends || !question.Rig.Parts.Any(p => Hard(p) && (Stage.Opens(p) || question.Rig.ByHand.Find(p.Id) is not null))) yield break;
        var order = question.Ask(DrainOrderStudy.Ask);
        var worst = order.Steps.SelectMany(s => s.PartIds).Select(question.Index.Part).Where(Hard).MaxBy(p => p.Reach!.HandS());
        if (worst is null) yield break;
        yield return new Finding(
            $"worst:{worst.Id}", FindingKind.OutOfReach, Severity.Warning, worst.Name, "emptied in", Measure.Duration(order.LongestS),
            Sentence.Of($"It is reached {worst.Reach!.Words()}, and it has to be opened each time the rig is left: the worst of them decides whether that is done. In all it takes {Measure.Duration(order.ShortestS)} to {Measure.Duration(order.LongestS)}. Estimate."),
            Place.OnPart(question.Index, worst), [], null);
    }

    private static bool Hard(Part part) => part.Reach?.Kind is ReachKind.OnBack or ReachKind.Panel;
}
