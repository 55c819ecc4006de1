using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>
/// What the valves cannot be set for: water from the tank and from a hose that is drawn, and what the chosen school does before frost. Inlets that no water
/// gets to.
/// </summary>
internal sealed class TaskRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.TaskFails, FindingKind.Unfed];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) =>
        finding.Kind == FindingKind.TaskFails && Enum.TryParse<TaskKind>(finding.Id["task:".Length..], out var kind) ? ideas.Routes.ValveFor(kind) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var found = question.Tasks;
        if (found.Graph.Parts.Count == 0) return [];
        return [.. Fails(question, found), .. Unfed(question, found)];
    }

    private static IEnumerable<Finding> Fails(Question question, FoundTasks found)
    {
        List<TaskKind> wanted = [TaskKind.Tank, TaskKind.Town];
        if (question.Rig.Brief.School == FreezeSchool.Air) wanted.Add(TaskKind.BlowOut);
        if (question.Rig.Brief.School == FreezeSchool.Antifreeze) wanted.Add(TaskKind.Antifreeze);
        foreach (var kind in wanted.Where(found.Goals.Has))
        {
            var task = found.For(kind, question.Cancel);
            if (task.Fault is not { } fault) continue;
            string? at = found.Graph.PartAt(fault.Place);
            yield return new Finding(
                $"task:{kind}", FindingKind.TaskFails, Severity.Warning, TaskStudy.NameOf(kind), "can't be done", null,
                TaskStudy.Why(found, task, fault), at is null ? null : Place.OnPart(question.Index, question.Index.Part(at)),
                [], null);
        }
    }

    private static IEnumerable<Finding> Unfed(Question question, FoundTasks found) =>
        found.Goals.Unfed.Select(place => found.Graph.PartAt(place)!).Distinct().Select(id => question.Index.Part(id)).Select(part => new Finding(
            $"unfed:{part.Id}", FindingKind.Unfed, Severity.Warning, part.Name, "no water gets there", null,
            "Its line leads to no tank and no town inlet, however the valves are set.", Place.OnPart(question.Index, part), [], null));
}
