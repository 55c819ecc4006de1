using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Runs that pass through something solid, or out of the vehicle.</summary>
internal sealed class InTheWayRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.InTheWay];

    // A pipe may lie on a solid.
    private const double Skin = 0.004, OutsideM = 0.05;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(ideas.Routes.Around);

    public IEnumerable<Finding> Find(Question question)
    {
        var shell = question.Rig.Shell;
        var zones = shell.Zones;
        foreach (var run in question.Rig.Runs)
        {
            var course = question.Index.CourseOf(run);
            for (int i = 1; i < course.Length; i++)
            {
                var solid = shell.Obstacles.FirstOrDefault(o => o.Box.Through(course[i - 1], course[i], -Skin) is not null);
                if (solid is null) continue;
                yield return new Finding(
                    $"through:{run.Id}:{solid.Id}", FindingKind.InTheWay, Severity.Fault, run.Name, "through", null,
                    $"It passes through “{solid.Name}” between points {i} and {i + 1}. Route it over or around.",
                    Place.OnRun(question.Index, run, i, course[i]), [run.Id], null);
                break;
            }
            // What leads outdoors ends there; water lines do not.
            if (run.Service is not (Service.Cold or Service.Hot or Service.Coolant) || zones.Count == 0) continue;
            for (int i = 0; i < course.Length; i++)
            {
                if (shell.Body.OutsideM(course[i]) <= OutsideM || zones.Any(z => z.Box.OutsideM(course[i]) <= OutsideM)) continue;
                yield return new Finding(
                    $"outside:{run.Id}", FindingKind.InTheWay, Severity.Warning, run.Name, "outside", null,
                    "It leaves the vehicle: it is outside every room, so it counts as cold as outdoors and can be torn off. If there is a room, draw it.",
                    Place.OnRun(question.Index, run, i, course[i]), [run.Id], null);
                break;
            }
        }
    }
}
