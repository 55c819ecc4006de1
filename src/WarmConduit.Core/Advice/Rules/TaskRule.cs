using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>
/// What the valves cannot be set for: water from the tank and from a hose that is drawn, what the chosen school does before frost, a bypass that is drawn, the
/// builder's own scenarios. Inlets that no water gets to, pumps that run against a closed valve, ways past a filter, town water that only a pump holds back.
/// </summary>
internal sealed class TaskRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.TaskFails, FindingKind.Unfed, FindingKind.PumpBlocked, FindingKind.TwoWays, FindingKind.TownHeld];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) =>
        finding.Kind == FindingKind.TaskFails ? ideas.Routes.MendFor(finding.Id["task:".Length..]) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var found = question.Tasks;
        if (found.Graph.Parts.Count == 0) return [];
        return [.. Fails(question, found), .. Unfed(question, found), .. Blocked(question, found), .. TwoWays(question, found), .. Held(question, found)];
    }

    private static IEnumerable<Finding> Fails(Question question, FoundTasks found)
    {
        List<TaskKind> wanted = [TaskKind.Tank, TaskKind.Town, TaskKind.BypassHeater];
        if (question.Rig.Brief.School == FreezeSchool.Air) wanted.Add(TaskKind.BlowOut);
        if (question.Rig.Brief.School == FreezeSchool.Antifreeze) wanted.Add(TaskKind.Antifreeze);
        foreach (var task in wanted.Where(found.Goals.Has).Select(k => found.For(k, question.Cancel))
            .Concat(found.Own.Select(s => found.For(s, question.Cancel))))
        {
            if (task.Fault is not { } fault) continue;
            string? at = found.Graph.PartAt(fault.Place);
            yield return new Finding(
                $"task:{task.Key}", FindingKind.TaskFails, Severity.Warning, TaskStudy.NameOf(task),
                task.Kind == TaskKind.BypassHeater ? "bypass half made" : "can't be done", null,
                TaskStudy.Why(found, task, fault), at is null ? null : Place.OnPart(question.Index, question.Index.Part(at)),
                [], null);
        }
    }

    private static IEnumerable<Finding> Blocked(Question question, FoundTasks found) => found.Blocked.Select(b =>
    {
        var (pump, closed, scenario) = (question.Index.Part(b.Pump), question.Index.Part(b.Closed), b.Task.Scenario!);
        return new Finding(
            $"blocked:{pump.Id}:{b.Task.Key}", FindingKind.PumpBlocked, Severity.Warning, pump.Name, "runs against a closed valve", null,
            $"In “{scenario.Name}” it is on, and “{closed.Name}” before it is closed: nothing comes, and a pump without a pressure switch is damaged.",
            Place.OnPart(question.Index, pump), [], null, [
                new Mend($"Open {closed.Name} there", [new SetPosition(scenario.Id, closed.Id, Positions.Open)]),
                new Mend($"Leave {pump.Name} off there", [new SetPosition(scenario.Id, pump.Id, Positions.Off)])]);
    });

    // Past a heater, hot and cold are joined: that has its own rule.
    private static IEnumerable<Finding> TwoWays(Question question, FoundTasks found) => found.PastFilters.Select(p =>
    {
        var (filter, open) = (question.Index.Part(p.Filter), p.Open is { } id ? question.Index.Part(id) : null);
        return new Finding(
            $"past:{filter.Id}", FindingKind.TwoWays, Severity.Warning, filter.Name, "water goes past it", null,
            open is null ? "In use there are two ways: through it, and past it with no one valve that shuts it."
                : $"In use there are two ways: through it, and past it by “{open.Name}”, which is open.",
            Place.OnPart(question.Index, filter), [], null, open is null ? null :
            [new Mend($"Leave {open.Name} closed in use", [new SetPosition(question.Rig.ScenarioOf(ScenarioKind.InUse).Id, open.Id, Positions.Closed)])]);
    });

    private static IEnumerable<Finding> Held(Question question, FoundTasks found) => found.TownHeld.DistinctBy(h => h.Pump).Select(h =>
    {
        var pump = question.Index.Part(h.Pump);
        return new Finding(
            $"town-held:{pump.Id}", FindingKind.TownHeld, Severity.Note, pump.Name, "alone keeps town water out of the tank", null,
            $"Only the valves inside it are between town water and {question.Index.Part(h.Tank).Name}. When they wear, the tank overfills. A check " +
            "valve after the pump keeps it out.", Place.OnPart(question.Index, pump), [], null);
    });

    private static IEnumerable<Finding> Unfed(Question question, FoundTasks found) =>
        found.Goals.Unfed.Select(place => found.Graph.PartAt(place)!).Distinct().Select(id => question.Index.Part(id)).Select(part => new Finding(
            $"unfed:{part.Id}", FindingKind.Unfed, Severity.Warning, part.Name, "no water gets there", null,
            "Its line leads to no tank and no town inlet, however the valves are set.", Place.OnPart(question.Index, part), [], null));
}
