using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Tasks;

/// <summary>What makes a task possible.</summary>
/// <param name="Words">What is done.</param>
/// <param name="Edits">The edits that do it.</param>
public sealed record TaskMend(Sentence Words, IReadOnlyList<Edit> Edits);

/// <summary>Gear for a task, and where it goes.</summary>
/// <param name="Gear">The gear.</param>
/// <param name="Words">What is joined where.</param>
public sealed record GearChoice(ScenarioGear Gear, Sentence Words);

/// <summary>How the valves are set for a task.</summary>
/// <param name="Kind">The task.</param>
/// <param name="Name">Its name.</param>
/// <param name="ScenarioId">The scenario in which its positions are kept; null: none is.</param>
/// <param name="Can">These positions do it.</param>
/// <param name="Words">What to do, or why it cannot be done.</param>
/// <param name="Settings">The position of every valve, pump and drain.</param>
/// <param name="Turns">Those that are turned from how they are in use.</param>
/// <param name="Mend">What would make it possible; null: nothing is needed, or no one thing would.</param>
/// <param name="Check">What to check before water or air is on.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
/// <param name="Goal">Where its water comes from, and where it has to get to and must not.</param>
/// <param name="Gear">Gear that is joined for it.</param>
/// <param name="GearChoices">What can be joined for it instead.</param>
public sealed record TaskSetting(
    TaskKind Kind, string Name, string? ScenarioId, bool Can, Sentence Words, IReadOnlyList<Setting> Settings, IReadOnlyList<Setting> Turns,
    TaskMend? Mend, string Check, string? Caution, ScenarioGoal Goal, IReadOnlyList<GearChoice> Gear, IReadOnlyList<GearChoice> GearChoices);

/// <summary>The tasks that a rig's valves are set for.</summary>
/// <param name="Tasks">In the order of use; the user's own last.</param>
public sealed record TasksAnswer(IReadOnlyList<TaskSetting> Tasks);

/// <summary>Finds the positions of the valves for every task.</summary>
public static class TaskStudy
{
    /// <summary>Asks every task that the rig has the parts for. Pure; the search is bounded (<see cref="ScenarioFinder.MostTries"/>).</summary>
    public static TasksAnswer Ask(Question question)
    {
        var found = question.Tasks;
        return new TasksAnswer([
            .. Enum.GetValues<TaskKind>().Where(k => k == TaskKind.Drain ? found.Graph.Settable.Count > 0 : found.Goals.Has(k))
                .Select(k => SettingFor(question, found, found.For(k, question.Cancel))),
            .. found.Own.Select(s => SettingFor(question, found, found.For(s, question.Cancel)))]);
    }

    /// <summary>What makes a task possible: other positions than those that are kept, or one valve, the nearest to where water must not go. Null: neither
    /// is enough.</summary>
    internal static TaskMend? MendOf(Question question, FoundTasks found, FoundTask task)
    {
        if (task is { Unkept: { } other, Scenario: { } scenario })
        {
            Setting[] turns = [.. Differing(found, task, other, other)];
            return new TaskMend(Sentence.Of($"Set {FoundTasks.Words(question.Index, turns)}"),
                [.. turns.Select(t => new SetPosition(scenario.Id, t.Id, t.Position))]);
        }
        if (task.Fault is not { Reached: true } fault) return null;
        var came = task.Clauses[fault.Clause].Reached(found.Graph, task.Set);
        var fit = new Fitter(question);
        int place = fault.Place;
        while (came[place] is { From: >= 0 } step)
        {
            if (step.Part < 0 && RunBetween(found.Graph, step.From, place) is { } run && fit.LongestLeg(run).LengthM >= Fitter.StraightM)
            {
                var edits = fit.Inline(run, "ball-valve", $"{task.Kind.ToString().ToLowerInvariant()}-valve", $"valve in {run.Name}", "a", "b");
                var tried = question.On(Editor.Apply(question.Rig, edits).Rig, question.Cancel);
                if (tried.Tasks.Named(task.Key, question.Cancel) is { Fault: null }) return new TaskMend($"Place a valve in {run.Name}", edits);
            }
            place = step.From;
        }
        return null;
    }

    /// <summary>What is wrong with a task that no position does, in words.</summary>
    internal static Sentence Why(FoundTasks found, FoundTask task, WayFault fault)
    {
        string at = PlaceName(found.Graph, fault.Place);
        var clause = task.Clauses[fault.Clause];
        if (fault.Reached && (clause.From.Contains(fault.Place) || clause.Reach.Contains(fault.Place)))
            return $"{at} has to be reached and must not be: it can be in one of the lists only.";
        Sentence kept = "";
        if (task is { Unkept: { } other, Scenario: { } scenario })
        {
            var positions = Differing(found, task, other, task.Set);
            kept = Sentence.Of($"In “{scenario.Name}”, {FoundTasks.Words(found.Graph.Index, positions)}. ");
        }
        string end = task.Unkept is null ? ", and no valve stops it." : ".", tried = task.Unkept is null ? ", however the valves are set." : ".";
        Sentence what = fault.Reached && clause.From.All(found.Goals.IsOpenEnd) ? $"Air gets to {at} by the free end of a hose{end}"
            : fault.Reached && task.Kind == TaskKind.Town && fault.Place != WayGraph.Air ? $"Town water gets into {at}{end}"
            : fault.Reached ? $"Water gets to {at}{end}" : $"Water does not get to {at}{tried}";
        return kept.And(what);
    }

    /// <summary>The name of a task.</summary>
    internal static string NameOf(FoundTask task) => task is { Kind: TaskKind.Own, Scenario: { } own } ? own.Name : NameOf(task.Kind);

    // The builder's positions that have to be given up, as they are told of one setting.
    private static IEnumerable<Setting> Differing(FoundTasks found, FoundTask task, int[] unkept, int[] told) =>
        found.Graph.Settable.Where(p => task.Set[p] != unkept[p] && task.Scenario!.Settings.Find(found.Graph.Parts[p].Id) is not null)
            .Select(p => new Setting(found.Graph.Parts[p].Id, found.Graph.PositionsOf(p)[told[p]].Id));

    private static TaskSetting SettingFor(Question question, FoundTasks found, FoundTask task)
    {
        var kind = task.Kind;
        var all = kind == TaskKind.Drain ? DrainSettings(question) : found.SettingsOf(task);
        var turned = task.Turned.Select(p => found.Graph.Parts[p].Id).ToHashSet();
        IReadOnlyList<Setting> turns = kind == TaskKind.Drain ? all : [.. all.Where(s => turned.Contains(s.Id))];
        Sentence words = task.Fault is { } fault ? Why(found, task, fault)
            : kind == TaskKind.Drain ? "Every drain and tap open, every valve half open, so that no water is shut in its ball."
            : turns.Count == 0 ? "Nothing to turn: the valves are as in use."
            : $"{turns.Count} to turn: {FoundTasks.Words(question.Index, turns)}.";
        GearChoice[] Choices(IEnumerable<ScenarioGear> gear) => [.. gear.Select(g => new GearChoice(g, GearWords(question, g)))];
        return new TaskSetting(kind, NameOf(task), task.Scenario?.Id, task.Fault is null, words, all, turns,
            task.Fault is null ? null : MendOf(question, found, task), CheckOf(kind), CautionOf(kind, found.Goals.GearOf(kind, task.Scenario)),
            task.Scenario?.Goal ?? found.Goals.Told(task.Clauses), Choices(found.Goals.GearOf(kind, task.Scenario)), Choices(found.Goals.GearFor(kind)));
    }

    private static Sentence GearWords(Question question, ScenarioGear gear)
    {
        var part = question.Index.Part(gear.PartId);
        string line = question.Rig.Runs.FirstOrDefault(r => RigFlow.TakenOff(r, gear)) is { } run ? $", in place of {run.Name}" : "";
        return gear.Kind switch
        {
            GearKind.Bottle => $"The hose of a bottle on {part.Name}{line}",
            GearKind.AirHose => $"An air hose on {part.Name}",
            _ => $"A loose pump, in open water, on {part.Name}",
        };
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
        TaskKind.BypassFilter => "Bypass the filter",
        _ => "Own",
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
        TaskKind.BypassFilter => "Drink from no tap while the filter is bypassed.",
        _ => "Nothing comes where it must not.",
    };

    private static string? CautionOf(TaskKind kind, IReadOnlyList<ScenarioGear> gear) => kind switch
    {
        TaskKind.Fill or TaskKind.Own when gear.Any(g => g.Kind == GearKind.LoosePump) => "Open water makes ill: filter and treat it before anyone drinks it.",
        TaskKind.Own when gear.Any(g => g.Kind == GearKind.AirHose) => CautionOf(TaskKind.BlowOut, []),
        TaskKind.Own when gear.Any(g => g.Kind == GearKind.Bottle) => CautionOf(TaskKind.Antifreeze, []),
        TaskKind.BlowOut => "Compressed air: regulator set first, eye protection, and never more than the weakest part is rated for.",
        TaskKind.Antifreeze => "Only propylene glycol that is meant for drinking-water systems. Flush well before you drink.",
        TaskKind.Drain or TaskKind.BypassHeater => "Heater water scalds: off, and cool, first.",
        TaskKind.Town => "Town water needs a check valve or backflow preventer; local codes say which.",
        TaskKind.PumpOut => "Discharge only where it is permitted.",
        _ => null,
    };
}
