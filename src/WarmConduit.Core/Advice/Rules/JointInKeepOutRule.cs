using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Joints where a leak or a knock does harm: by electrics, heat or sharp metal.</summary>
internal sealed class JointInKeepOutRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.JointInKeepOut];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } joint ? ideas.Routes.OutOf(joint) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var keepOut in question.Rig.Shell.KeepOuts)
        {
            foreach (var part in question.Rig.Parts)
            {
                if (!part.Ports.Any(p => keepOut.Box.Holds(part.Box.At + p.Offset))) continue;
                string harm = keepOut.Kind switch
                {
                    KeepOutKind.Electrics => "A joint near electrics is a fault: one drop is enough.",
                    KeepOutKind.Heat => "Heat softens pipe and seals there.",
                    KeepOutKind.SharpMetal => "Sharp metal chafes pipe there: use a grommet, or go around.",
                    _ => "No joints there.",
                };
                yield return new Finding(
                    $"keepout:{keepOut.Id}:{part.Id}", FindingKind.JointInKeepOut, keepOut.Kind == KeepOutKind.Electrics ? Severity.Fault : Severity.Warning,
                    part.Name, "joint", null,
                    $"It has a joint in “{keepOut.Name}”. {harm}", Place.OnPart(question.Index, part), [], null);
            }
        }
    }
}
