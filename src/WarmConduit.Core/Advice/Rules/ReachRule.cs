using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>A weekend rig is emptied in the cold, again and again: its worst drain decides whether it is.</summary>
internal sealed class ReachRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [];

    public IEnumerable<Finding> Find(Question question)
    {
        if (question.Rig.Brief.Living != WayOfLiving.Weekends) yield break;
        var worst = question.Rig.Parts.Where(p => Hard(p) && (Stage.Opens(p) || question.Rig.ByHand.Find(p.Id) is not null)).MaxBy(p => p.Reach!.HandS());
        if (worst is null) yield break;
        yield return new Finding(
            $"worst:{worst.Id}", FindingKind.OutOfReach, Severity.Warning, worst.Name, "takes", Measure.Duration(worst.Reach!.HandS()),
            Sentence.Of($"You reach it {worst.Reach.Words()}, each time you leave. The hardest step decides whether you really do it. About " +
            $"{Measure.Duration(worst.Reach.HandS())} there and back. Estimate."),
            Place.OnPart(question.Index, worst), [], null);
    }

    private static bool Hard(Part part) => part.Reach?.Kind is ReachKind.OnBack or ReachKind.Panel;
}
