using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Joints and valves that no hand reaches, once the builder has said where hands get in.</summary>
internal sealed class OutOfReachRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.OutOfReach];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } hidden ? ideas.Routes.Within(hidden) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        if (question.Rig.Shell.Access.Count == 0) yield break;
        foreach (var part in question.Rig.Parts)
        {
            if (Catalogue.Part(part.Stock)!.Group is not
                (PartGroup.Joints or PartGroup.Valves or PartGroup.Drain or PartGroup.Clean or PartGroup.Move)) continue;
            if (part.Reach is not null) continue;
            if (question.Rig.Shell.AccessTo(part.Box.Centre()) is not null) continue;
            yield return new Finding(
                $"reach:{part.Id}", FindingKind.OutOfReach, Severity.Note, part.Name, "out of reach", null,
                "No hatch, door or panel gives access. A joint you can't reach leaks for months before anyone notices.",
                Place.OnPart(question.Index, part), [], null);
        }
    }
}
