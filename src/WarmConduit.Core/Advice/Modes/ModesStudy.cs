using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Advice.Rules;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Modes;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Modes;

/// <summary>
/// What the valves and pumps of the heating circuits can be set to: every position is gone through, what each does is judged by its flow, and each is tried on
/// the night.
/// </summary>
public static class ModesStudy
{
    private const int MostNames = 3, MostModes = 24;

    private static readonly HeatGroup[] Groups = Enum.GetValues<HeatGroup>();

    /// <summary>Asks. Pure. O(settings of the valves · elements + modes · the night).</summary>
    public static ModesAnswer Ask(Question question)
    {
        var finder = new ModeFinder(question);
        if (finder.Sources.Count == 0 || finder.Graph.Runs.Count == 0) return new ModesAnswer([], [], [], null);
        var outcomes = finder.Find(question.Cancel);
        var use = CircuitGraph.InUse(question.Rig);
        var wanted = new List<(string Key, string Name, string? ScenarioId, Scenario Set)>();
        foreach (var own in question.Rig.Scenarios.Where(s => s.Kind == ScenarioKind.Heating).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase))
            wanted.Add((own.Id, own.Name, own.Id, own));
        foreach (var (name, source, mode) in Named(finder, outcomes)) wanted.Add((name, name, null, ScenarioOf(question, finder, mode.Set, source)));
        wanted.Add(("off", "All off", null, Off(question, finder)));
        var modes = new List<HeatMode>();
        var inUse = Tried(question, finder, ("use", "", null, use), null);
        bool known = false;
        foreach (var want in wanted.Take(MostModes))
        {
            question.GoOn(modes.Count, wanted.Count);
            var mode = Tried(question, finder, want, inUse.Heat).Mode;
            known |= mode.InUse;
            modes.Add(mode);
        }
        // As it is set in use may be none of those that are usual.
        if (!known) modes.Insert(0, inUse.Mode with { Name = "As set in use" });
        // Of modes that are kept and those that were found, one tells the same.
        var kept = modes.Where(m => m.ScenarioId is not null).Select(Positioned).ToHashSet();
        modes.RemoveAll(m => m.ScenarioId is null && kept.Contains(Positioned(m)));
        var now = question.Conditions.Heating(question.Rig);
        if (modes.All(m => !m.Now)) modes.Insert(0, Tried(question, finder, ("now", "As set here", null, now), inUse.Heat).Mode);
        modes = [.. modes.OrderBy(m => m.InUse ? 0 : 1)];
        var turned = modes.SelectMany(m => m.Settings).GroupBy(s => s.Id).Where(g => g.Select(s => s.Position).Distinct().Count() > 1).Select(g => g.Key);
        return new ModesAnswer(modes, [.. Missing(question, finder, outcomes)], [.. turned.Order(StringComparer.Ordinal)], Searched(finder, outcomes));
    }

    private static string Positioned(HeatMode mode) => string.Join('|', mode.Settings.Select(s => $"{s.Id}={s.Position}"));

    private static Sentence? Searched(ModeFinder finder, IReadOnlyList<FoundMode> outcomes) => finder.Graph.Turnable.Count == 0 ? null
        : finder.Exhaustive ? Sentence.Of($"All {(int)finder.Settings} positions of {finder.Graph.Turnable.Count} valves and pumps were gone through; they " +
            $"do {outcomes.Count} different things.")
        : Sentence.Of($"{finder.Graph.Turnable.Count} valves and pumps have too many positions to go through: those with the fewest turns from in use were.");

    // For each heater, what warms whole groups and nothing else; and the loop kept hot for itself.
    private static IEnumerable<(string Name, string Source, FoundMode Mode)> Named(ModeFinder finder, IReadOnlyList<FoundMode> outcomes)
    {
        foreach (string source in finder.Sources)
        {
            string of = Of(finder, source);
            foreach (var groups in Choices(finder, source).OrderByDescending(g => g.Count))
                if (Best(finder, outcomes, source, groups) is { } mode) yield return (Name(of, groups), source, mode);
            if (!finder.IsEngine(source) && outcomes.Where(m => m.Sources.Contains(source) && m.Sinks.Count == 0).MinBy(m => m.Turns) is { } standby)
                yield return ($"{of}{(of == "" ? "S" : "s")}tandby, nothing warmed", source, standby);
        }
    }

    // The heater that is alone needs no name.
    private static string Of(ModeFinder finder, string source) => finder.IsEngine(source) || finder.Sources.Count(s => !finder.IsEngine(s)) > 1
        ? $"{finder.Graph.Parts.First(p => p.Id == source).Name}: " : "";

    private static FoundMode? Best(ModeFinder finder, IReadOnlyList<FoundMode> outcomes, string source, IReadOnlyList<HeatGroup> groups)
    {
        var sinks = finder.Sinks.Where(s => groups.Contains(s.Group)).Select(s => s.Id).ToHashSet();
        return outcomes.Where(m => m.Sources.Contains(source) && sinks.SetEquals(m.Sinks)).OrderBy(m => m.Sources.Count).ThenBy(m => m.Turns).FirstOrDefault();
    }

    // Every choice among the groups that a source can warm: an engine warms no engine.
    private static IEnumerable<IReadOnlyList<HeatGroup>> Choices(ModeFinder finder, string source)
    {
        HeatGroup[] there = [.. Groups.Where(g => finder.Sinks.Any(s => s.Group == g) && (g != HeatGroup.Engine || !finder.IsEngine(source)))];
        for (int bits = 1; bits < 1 << there.Length; bits++) yield return [.. there.Where((_, i) => (bits >> i & 1) == 1)];
    }

    private static string Name(string of, IReadOnlyList<HeatGroup> groups)
    {
        string[] names = [.. groups.Select(NameOf)];
        string all = names.Length == 1 ? $"{names[0]} alone" : $"{string.Join(", ", names[..^1])} and {names[^1]}";
        return of + (of == "" ? char.ToUpperInvariant(all[0]) + all[1..] : all);
    }

    /// <summary>A group of what is warmed, in words.</summary>
    internal static string NameOf(HeatGroup group) => group switch
    {
        HeatGroup.HotWater => "hot water",
        HeatGroup.Rooms => "rooms",
        HeatGroup.Engine => "the engine",
        _ => "frost protection",
    };

    // Other heaters on the way are switched off.
    private static Scenario ScenarioOf(Question question, ModeFinder finder, int[] set, string? source)
    {
        var use = CircuitGraph.InUse(question.Rig);
        var settings = new List<Setting>();
        for (int t = 0; t < finder.Graph.Turnable.Count; t++)
        {
            var part = finder.Graph.Parts[finder.Graph.Turnable[t]];
            var position = finder.Graph.At(set, t);
            // A valve that is half open shares the flow, and stays so.
            bool half = position.Passes && use.PositionOf(part)?.Id == Positions.HalfOpen;
            settings.Add(new Setting(part.Id, half ? Positions.HalfOpen : position.Id));
        }
        // One with its own pump is set with the pumps.
        foreach (string id in finder.Sources.Where(s => settings.All(o => o.Id != s)))
        {
            var heater = finder.Graph.Parts.First(p => p.Id == id);
            if (!finder.IsEngine(id) && CircuitGraph.PositionsOf(heater).FirstOrDefault(p => p.Passes == (source is not null && id == source)) is { } position)
                settings.Add(new Setting(id, position.Id));
        }
        return use with { Settings = [.. settings, .. use.Settings.Where(s => settings.All(o => o.Id != s.Id))] };
    }

    private static Scenario Off(Question question, ModeFinder finder)
    {
        int[] set = finder.First;
        for (int t = 0; t < set.Length; t++)
        {
            var part = finder.Graph.Parts[finder.Graph.Turnable[t]];
            if (part.Flows().ShutoffBar is not null) set[t] = CircuitGraph.PositionsOf(part).ToList().FindIndex(p => !p.Passes);
        }
        return ScenarioOf(question, finder, set, null);
    }

    private static (HeatMode Mode, RigHeat Heat) Tried(
        Question question, ModeFinder finder, (string Key, string Name, string? ScenarioId, Scenario Set) want, RigHeat? inUse)
    {
        Part[] turnable = [.. finder.Graph.Parts.Where(p => CircuitGraph.PositionsOf(p).Count > 1)];
        Setting[] At(Scenario scenario) => [.. turnable.Select(p => new Setting(p.Id, scenario.PositionOf(p)!.Id))];
        Setting[] settings = At(want.Set), turns = [.. settings.Except(At(CircuitGraph.InUse(question.Rig)))];
        bool isNow = settings.SequenceEqual(At(question.Conditions.Heating(question.Rig)));
        var asked = isNow ? question : question.With(question.Conditions with { ModeId = null, HeatSettings = settings });
        var (heat, night) = (RigHeat.Of(asked), asked.Ask(RigNight.Of));
        double MeanW(HeatSink sink) => sink.IsRun ? TracedW(night, sink.Id, sink.Group == HeatGroup.Rooms) : PartW(night, sink.Id);
        string[] sources = [.. finder.Sources.Where(s => Flows(s) && heat.IsOn(question.Index.Part(s)))];
        ModeShare[] warms = [.. finder.Sinks.Where(s => !sources.Contains(s.Id) && (s.IsRun ? heat.AlongM3PerS(question.Index.Run(s.Id)) != 0 : Flows(s.Id)))
            .Select(s => new ModeShare(s.Id, s.Group, Math.Round(MeanW(s), 1))).OrderByDescending(s => s.MeanW)];
        var (ice, words) = Unprotected(night);
        return (new HeatMode(want.Key, want.Name, want.ScenarioId, isNow, turns.Length == 0, sources, warms,
            Math.Round(-sources.Sum(s => PartW(night, s)), 1), settings, turns, double.IsFinite(ice) ? ice : null, [.. Takes(asked, night)], words,
            [.. Checks(asked, finder, heat, inUse, sources, warms)]), heat);

        bool Flows(string part) => question.Rig.Runs.Where(r => r.Service == Service.Coolant && (r.From.Part == part || r.To.Part == part))
            .Any(r => finder.Graph.Runs.Contains(r) && heat.AlongM3PerS(r) != 0);
    }

    // What a part gives off on average until morning, W; of a heater, below 0.
    private static double PartW(RigNight night, string part) =>
        night.Heat.PartWh.TryGetValue(part, out var wh) ? night.UntilMorning(wh) / (night.MorningS / 3600) : 0;

    // The same of a run to what it is taped to, or of a floor loop to the room over it, by its hours.
    private static double TracedW(RigNight night, string run, bool floor)
    {
        bool Counts(HeatPiece piece) => piece.RunId == run && !piece.Below && (floor || piece.Traced is not null);
        return night.Heat.LineWh.Where(l => Counts(l.Key)).Sum(l => night.UntilMorning(l.Value)) / (night.MorningS / 3600);
    }

    private static IEnumerable<ModeCost> Takes(Question asked, RigNight night) => new EnergyMeter(asked).Of(night).Kinds(asked.Rig.Brief.Chosen())
        .Select(k => new ModeCost(k.Kind, Math.Round(night.UntilMorning(k.ByHour), 3)));

    private static (double AtS, Sentence Words) Unprotected(RigNight night)
    {
        var first = new Dictionary<string, (double AtS, string Name)>();
        for (int n = 0; n < night.Candidates.Count; n++)
            if (night.Marks(n).FirstIceS is var at && at < night.MorningS && (!first.TryGetValue(night.Candidates[n].Thing, out var was) || at < was.AtS))
                first[night.Candidates[n].Thing] = (at, night.Candidates[n].Name);
        if (first.Count == 0) return (double.PositiveInfinity, "Nothing freezes until morning.");
        var order = first.Values.OrderBy(f => f.AtS).ToList();
        string names = string.Join("; ", order.Take(MostNames).Select(f => f.Name));
        string more = order.Count > MostNames ? $"; {order.Count - MostNames} more" : "";
        return (order[0].AtS, Sentence.Of($"The first freezes after {Measure.Duration(order[0].AtS)}. What freezes until morning: {names}{more}."));
    }

    private static IEnumerable<Sentence> Checks(Question asked, ModeFinder finder, RigHeat heat, RigHeat? inUse, string[] sources,
        ModeShare[] warms)
    {
        foreach (var drive in heat.Net.Drives.Where(d => heat.Flow is null || Math.Abs(heat.Flow.FlowM3PerS[d.Edge]) * 60e3 < 1e-3))
            yield return Sentence.Of($"{asked.Index.Part(drive.PartId).Name} runs against shut valves. Switch it off, or open a way.");
        bool Dry(string source) => !finder.IsEngine(source) && !sources.Contains(source) && heat.IsOn(asked.Index.Part(source));
        foreach (string id in finder.Sources.Where(s => heat.Net.Drives.Count > 0 && Dry(s)))
            yield return Sentence.Of($"{asked.Index.Part(id).Name} is on and has no flow: it overheats and trips. Switch it off.");
        if (inUse is not null)
        {
            string[] turned = [.. finder.Graph.Runs.Where(r => inUse.AlongM3PerS(r) * heat.AlongM3PerS(r) < 0).Select(r => r.Name)];
            if (turned.Length > 0)
                yield return Sentence.Of($"Flow turns round, compared with in use, in {string.Join(", ", turned.Take(MostNames))}" +
                    $"{(turned.Length > MostNames ? $" and {turned.Length - MostNames} more" : "")}.");
        }
        var hot = warms.Where(w => w.Group == HeatGroup.HotWater).Select(w => heat.Around(asked.Index.Part(w.Id))).ToHashSet();
        if (hot.Count > 0)
            foreach (var finding in new ScaldRule().Find(asked).Where(f => hot.Contains(f.Place?.PartId))) yield return finding.Reason;
        if (warms.FirstOrDefault(w => w.Group == HeatGroup.Engine) is { } engine && warms.Length > 1)
            yield return Sentence.Of($"Fluid passes the engine too, which takes {Measure.Power(engine.MeanW)} of the heat. Shut the way to it unless it is " +
                $"to be warmed.");
        if (sources.FirstOrDefault(finder.IsEngine) is { } runs)
            yield return Sentence.Of($"This is for the road: it is told as if {asked.Index.Part(runs).Name} ran until morning. Parked, it cools in some " +
                $"hours, and only a circulator brings what is left.");
        if (sources.Length > 0 && warms.Length == 0)
            yield return "The loop is kept hot and warms nothing but what it passes: fuel and battery are used all the same.";
    }

    // What people want of every loop: each group alone, and all together.
    private static IEnumerable<MissingMode> Missing(Question question, ModeFinder finder, IReadOnlyList<FoundMode> outcomes)
    {
        foreach (string source in finder.Sources)
        {
            var choices = Choices(finder, source).ToList();
            if (choices.Count == 0) continue;
            string of = Of(finder, source);
            foreach (var groups in choices.Where(g => (g.Count == 1 || g.Count == choices.Max(c => c.Count)) && Best(finder, outcomes, source, g) is null))
            {
                question.Cancel.ThrowIfCancellationRequested();
                string[] sinks = [.. finder.Sinks.Where(s => groups.Contains(s.Group)).Select(s => s.Id)];
                string name = Name(of, groups);
                if (finder.Missing(sinks, source, question.Cancel) is not { Count: > 0 } cuts)
                {
                    yield return new MissingMode(name, "No position of the valves brings flow to all of it, and no valve would.", null);
                    continue;
                }
                Run[] runs = [.. cuts.Select(r => finder.Graph.Runs[r])];
                string lines = string.Join(", ", runs.Select(r => r.Name));
                yield return new MissingMode(name, Sentence.Of($"Nothing stops the flow in {lines}. {(runs.Length == 1 ? "A valve" : "Valves")} there " +
                    $"would make it possible."), Placed(question, runs, source, sinks));
            }
        }
    }

    // Placed and gone through again: what is offered is what works.
    private static TaskMend? Placed(Question question, Run[] runs, string source, string[] sinks)
    {
        var (rig, edits) = (question.Rig, new List<Edit>());
        foreach (var run in runs)
        {
            var fit = new Fitter(question.On(rig, question.Cancel));
            var line = rig.Runs.Find(run.Id)!;
            if (fit.LongestLeg(line).LengthM < Fitter.StraightM) return null;
            var next = fit.Inline(line, "ball-valve", $"{run.Id}-valve", $"valve in {run.Name}", "a", "b");
            edits.AddRange(next);
            rig = Editor.Apply(rig, next).Rig;
        }
        var tried = new ModeFinder(question.On(rig, question.Cancel));
        return tried.Find(question.Cancel).Any(m => m.Sources.Contains(source) && m.Sinks.ToHashSet().SetEquals(sinks))
            ? new TaskMend($"Place {(runs.Length == 1 ? "a valve" : $"{runs.Length} valves")} in {string.Join(", ", runs.Select(r => r.Name))}", edits) : null;
    }
}
