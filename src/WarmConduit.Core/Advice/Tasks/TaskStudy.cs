using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Tasks;

/// <summary>A valve without which a task cannot be done.</summary>
/// <param name="RunId">The run that it belongs in.</param>
/// <param name="RunName">Its name.</param>
/// <param name="Edits">The edits that put it there.</param>
public sealed record MissingValve(string RunId, string RunName, IReadOnlyList<Edit> Edits);

/// <summary>How the valves are set for a task.</summary>
/// <param name="Kind">The task.</param>
/// <param name="Name">Its name.</param>
/// <param name="ScenarioId">The scenario in which its positions are kept; null: none is.</param>
/// <param name="Can">These positions do it.</param>
/// <param name="Words">What to do, or why it cannot be done.</param>
/// <param name="Settings">The position of every valve, pump and drain.</param>
/// <param name="Turns">Those that are turned from how they are in use.</param>
/// <param name="Missing">A valve that would make it possible; null: none is needed, or none would.</param>
/// <param name="Check">What to check before water or air is on.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
public sealed record TaskSetting(
    TaskKind Kind, string Name, string? ScenarioId, bool Can, Sentence Words, IReadOnlyList<Setting> Settings, IReadOnlyList<Setting> Turns,
    MissingValve? Missing, string Check, string? Caution);

/// <summary>The tasks that a rig's valves are set for.</summary>
/// <param name="Tasks">In the order of use.</param>
public sealed record TasksAnswer(IReadOnlyList<TaskSetting> Tasks);

/// <summary>Finds the positions of the valves for every task.</summary>
public static class TaskStudy
{
    /// <summary>Asks every task that the rig has the parts for. Pure; the search is bounded (<see cref="ScenarioFinder.MostTries"/>).</summary>
    public static TasksAnswer Ask(Question question)
    {
        var found = question.Tasks;
        return new TasksAnswer([.. Enum.GetValues<TaskKind>().Where(k => k == TaskKind.Drain ? found.Graph.Settable.Count > 0 : found.Goals.Has(k))
            .Select(k => SettingFor(question, found, k))]);
    }

    /// <summary>A valve in a run, after which a task can be done; the nearest to where water must not go leads. Null: one valve is not enough.</summary>
    internal static MissingValve? MissingFor(Question question, FoundTasks found, FoundTask task)
    {
        if (task.Fault is not { Reached: true } fault) return null;
        var clause = found.Goals.Of(task.Kind)[fault.Clause];
        var came = found.Graph.Reach(clause.From, task.Set, clause.Without);
        var fit = new Fitter(question);
        int place = fault.Place;
        while (came[place] is { From: >= 0 } step)
        {
            if (step.Part < 0 && RunBetween(found.Graph, step.From, place) is { } run && fit.LongestLeg(run).LengthM >= Fitter.StraightM)
            {
                var edits = fit.Inline(run, "ball-valve", $"{task.Kind.ToString().ToLowerInvariant()}-valve", $"valve in {run.Name}", "a", "b");
                var tried = question.On(Editor.Apply(question.Rig, edits).Rig, question.Cancel);
                if (tried.Tasks.For(task.Kind, question.Cancel).Fault is null) return new MissingValve(run.Id, run.Name, edits);
            }
            place = step.From;
        }
        return null;
    }

    /// <summary>What is wrong with a task that no position does, in words.</summary>
    internal static Sentence Why(FoundTasks found, FoundTask task, WayFault fault)
    {
        string at = PlaceName(found.Graph, fault.Place);
        return fault.Reached ? $"Water gets to {at}, and no valve stops it." : $"Water does not get to {at}, however the valves are set.";
    }

    private static TaskSetting SettingFor(Question question, FoundTasks found, TaskKind kind)
    {
        var task = found.For(kind, question.Cancel);
        var scenario = FoundTasks.ScenarioOf(kind) is { } of ? question.Rig.ScenarioOf(of) : null;
        var all = kind == TaskKind.Drain ? DrainSettings(question) : found.SettingsOf(task);
        var turned = task.Turned.Select(p => found.Graph.Parts[p].Id).ToHashSet();
        IReadOnlyList<Setting> turns = kind == TaskKind.Drain ? all : [.. all.Where(s => turned.Contains(s.Id))];
        Sentence words = task.Fault is { } fault ? Why(found, task, fault)
            : kind == TaskKind.Drain ? "Every drain and tap open, every valve half open, so that no water is shut in its ball."
            : turns.Count == 0 ? "Nothing to turn: the valves are as in use."
            : $"{turns.Count} to turn: {FoundTasks.Words(question.Index, turns)}.";
        return new TaskSetting(kind, NameOf(kind), scenario?.Id, task.Fault is null, words, all, turns,
            task.Fault is null ? null : MissingFor(question, found, task), CheckOf(kind), CautionOf(kind));
    }

    // As the drain scenario has them, which what stays is worked out from.
    private static IReadOnlyList<Setting> DrainSettings(Question question)
    {
        var scenario = question.Rig.ScenarioOf(ScenarioKind.Drain);
        return [.. question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Positions.Count > 0 && !question.Index.HoldsCoolant(p))
            .Select(p => new Setting(p.Id, scenario.PositionOf(p)!.Id))];
    }

    private static string PlaceName(WayGraph graph, int place) => place == WayGraph.Air ? "an open end"
        : graph.PartAt(place) is { } id ? graph.Index.Part(id).Name : "a tank";

    private static Run? RunBetween(WayGraph graph, int a, int b) => graph.Runs.FirstOrDefault(r =>
        (graph.At(r.From.Part!, r.From.Port!), graph.At(r.To.Part!, r.To.Port!)) is var (x, y) && ((x == a && y == b) || (x == b && y == a)));

    /// <summary>The name of a task.</summary>
    internal static string NameOf(TaskKind kind) => kind switch
    {
        TaskKind.Tank => "Use tank water",
        TaskKind.Town => "Use town water",
        TaskKind.Fill => "Fill the tank",
        TaskKind.PumpOut => "Pump the tank out",
        TaskKind.Drain => "Drain",
        TaskKind.BlowOut => "Blow out",
        TaskKind.Antifreeze => "Draw antifreeze",
        TaskKind.BypassHeater => "Bypass the heater",
        _ => "Bypass the filter",
    };

    private static string CheckOf(TaskKind kind) => kind switch
    {
        TaskKind.Tank => "Drains closed; the pump stops when all taps are closed.",
        TaskKind.Town => "Pump off. Watch the tank level: it must not rise.",
        TaskKind.Fill => "Stop when water comes out of the overflow.",
        TaskKind.PumpOut => "Water only where it is permitted; stop the pump when it runs dry.",
        TaskKind.Drain => "Heater off and cool; taps open; water comes from every drain.",
        TaskKind.BlowOut => "One tap open before the air is on; then the next.",
        TaskKind.Antifreeze => "Open each tap until colour comes; drains and traps last.",
        TaskKind.BypassHeater => "Heater off and cool before its water is let out.",
        _ => "Drink from no tap while the filter is bypassed.",
    };

    private static string? CautionOf(TaskKind kind) => kind switch
    {
        TaskKind.BlowOut => "Compressed air: regulator set first, eye protection, and never more than the weakest part is rated for.",
        TaskKind.Antifreeze => "Only propylene glycol that is meant for drinking-water systems. Flush well before you drink.",
        TaskKind.Drain or TaskKind.BypassHeater => "Heater water scalds: off, and cool, first.",
        TaskKind.Town => "Town water needs a check valve or backflow preventer; local codes say which.",
        TaskKind.PumpOut => "Discharge only where it is permitted.",
        _ => null,
    };
}
