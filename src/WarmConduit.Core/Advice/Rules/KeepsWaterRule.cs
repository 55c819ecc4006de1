using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Parts that keep their water by design: a task on leaving, or a warning where nobody has taken it on.</summary>
internal sealed class KeepsWaterRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.KeepsWater];

    public Harm Harm => Harm.Water;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } id ? ideas.ByHand(id).Concat(ideas.OfPoolsAt(id)) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        // A part that keeps its water and freezes with it is one finding, that of the ice.
        var ice = FirstIceRule.Freezing(question).Select(r => r.PartId).ToHashSet();
        foreach (var drain in question.Ask(DrainDownStudy.Ask).Parts.Where(p => (p.ByDesign || p.ByHandL > 0) && !ice.Contains(p.PartId)))
        {
            var part = question.Index.Part(drain.PartId);
            var why = new Why("Content of the part, from stock or as the rig says.", [new("content", Measure.Volume(drain.FullL), part.HoldsL is null)]);
            yield return drain.Task is { } task
                ? new Finding(
                    $"hand:{part.Id}", FindingKind.KeepsWater, Severity.Note, part.Name, "by hand", Measure.Volume(drain.ByHandL),
                    $"It doesn't drain by itself. When you leave: {task}. Assumed done.", Place.OnPart(question.Index, part), [], why)
                : new Finding(
                    $"keeps:{part.Id}", FindingKind.KeepsWater, Severity.Warning, part.Name, "keeps", Measure.Volume(drain.RetainedL),
                    $"It keeps its water by design. {drain.Remedy}.", Place.OnPart(question.Index, part), [], why);
        }
    }
}
