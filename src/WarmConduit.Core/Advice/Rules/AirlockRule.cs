using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Water that stays in lines because no air gets in behind it. Tanks without air are told by how they breathe.</summary>
internal sealed class AirlockRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Airlock];

    public Harm Harm => Harm.Stays;

    // What a cup holds is worth a note; more is to be seen to.
    private const double WorthL = 0.05;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => ideas.OfAirlock(finding.RunIds);

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        foreach (var held in drained.Airlocks.Where(a => !a.Gulps))
        {
            double litres = held.Litres;
            yield return new Finding(
                $"airlock:{held.RunIds.Order(StringComparer.Ordinal).First()}:{held.OpenAt.PointId ?? held.OpenAt.PartId}", FindingKind.Airlock,
                litres < WorthL ? Severity.Note : Severity.Warning, held.Words, "airlocked", Measure.Volume(litres),
                $"Airlocked: no air gets in behind this water, so it stays above its drain. Let air in at {held.OpenAt.Words}: leave a tap or valve " +
                $"open there, fit a bleed, or loosen a joint.",
                held.OpenAt, held.RunIds,
                new Why("A line that is closed at the top keeps its water like a straw under a thumb, up to 20 mm (3/4 in) bore; wider ones let air in.",
                [new("airlocked", Measure.Volume(litres), true)]));
        }
    }
}
