using System.Globalization;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Filling;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <content>Filling, cleaning, and what goes wrong in the cold.</content>
internal sealed partial class ProcedureKit
{
    // A freeze that is this near is told first, s.
    private const int MostFirst = 6;

    /// <summary>Every drain and tap closed, valves as in use.</summary>
    public void CloseAll()
    {
        var task = question.Tasks.For(TaskKind.Tank, question.Cancel);
        foreach (var setting in question.Tasks.SettingsOf(task)) _ends[setting.Id] = setting.Position;
        foreach (var pump in Pumps) _ends[pump.Id] = Positions.Off;
        var closed = Rig.Parts.Where(p => Stock(p).Passage == Passage.Drain && !question.Index.HoldsCoolant(p)).ToList();
        Add("close", "Close every drain and plug, then every tap; valves as in use", closed, [.. question.Tasks.SettingsOf(task)
            .Where(s => Stock(question.Index.Part(s.Id)).Passage is Passage.Valve or Passage.Drain)], wrong: "The drain that was left open shows when the " +
                "pump runs.");
    }

    private void PumpsOn()
    {
        foreach (var pump in Pumps.Where(p => _steps.All(s => s.Id != $"pump-on:{p.Id}")))
            Add($"pump-on:{pump.Id}", $"Turn {pump.Name} on", [pump], [new Setting(pump.Id, Positions.On)]);
    }

    // It is full again: what was left in it before counts no more.
    private static StepMark[] Full => [new StepMark(LeftActKind.Filled)];

    /// <summary>What was left in it goes to waste.</summary>
    public void Flush()
    {
        PumpsOn();
        bool fluid = (Rig.Left ?? []).Any(a => a.Kind == LeftActKind.Antifreeze);
        Add("flush", $"Put water into {Names(Fresh)}, and run each tap, hot and cold, until it comes {(fluid ? "without colour and foam" : "clear")}",
            [.. Taps], caution: fluid ? "What comes first is antifreeze: catch it, and keep it from ground water and animals." : null, marks: Full);
    }

    /// <summary>A dose by litres, time, and a rinse.</summary>
    public void Sanitise()
    {
        double tank = Fresh.Sum(PartWater.HoldsL), lines = question.Tasks.Graph.Runs.Sum(r => BlowOutStudy.FullL(question, r));
        var dose = input.Dose ?? new DoseInput();
        double bleach = dose.OfL(tank + lines);
        const string chlorine = "Never with anything else in it: chlorine and acids give poison gas. Gloves, eyes covered, windows open.";
        Tool("gloves", "eye protection", "funnel");
        _supplies.Add(Sentence.Of($"{Measure.Volume(bleach)} of plain household bleach of {dose.Percent()}, or the product that its label doses"));
        Add("dose", Sentence.Of($"Half fill {Names(Fresh)}, pour in {Measure.Volume(bleach)} of bleach of {dose.Percent()}, and fill up: ")
            .And(Sentence.Of($"{dose.MgPerL.ToString("0.#", CultureInfo.InvariantCulture)} mg of chlorine in a litre")), [.. Fresh], inL: tank,
                caution: chlorine, marks: Full);
        PumpsOn();
        Add("each-tap", $"Open each tap, hot and cold, until it smells of chlorine, then close it: {Names(Taps)}", [.. Taps]);
        Add("contact", Sentence.Of($"Let it stand for {Measure.Duration(dose.ContactH * 3600)} or longer; the label of the product and local health rules ")
            .And("come first"), [], shortest: dose.ContactH * 3600, longest: 4 * dose.ContactH * 3600, waits: true,
                caution: "Nobody drinks from it meanwhile.");
        Add("rinse", "Drain it all, fill with fresh water, and rinse until no smell is left at any tap, hot and cold; twice as a rule", [.. Taps],
            outL: tank + lines);
    }

    /// <summary>After the rinse: chlorine spoils a cartridge.</summary>
    public void FiltersIn()
    {
        foreach (var filter in Filters)
            Add($"filter-in:{filter.Id}", $"Put the cartridge into {filter.Name}", [filter], wrong: "Before the rinse, chlorine spoils it.");
    }

    /// <summary>Dry to a paper towel.</summary>
    public void LeakLook()
    {
        Tool("paper towel");
        Add("leaks", "Pump on, taps closed: does it stop and stay quiet for ten minutes? Every joint dry to a paper towel", [], shortest: 600, longest: 900,
            waits: true, wrong: "A pump that starts by itself tells of a leak or a drain that is not quite closed.");
    }

    /// <summary>Full first, then power.</summary>
    public void HeatersOn()
    {
        foreach (var heater in Heaters)
            Add($"on:{heater.Id}", $"Open a hot tap until water comes without air, then turn {heater.Name} on", [heater], wrong:
                "Empty, its element or burner is ruined.", caution: "Try its relief valve. Gas, flue and mains are looked at by licensed people.");
    }

    /// <summary>By hand.</summary>
    public void CleanTanks()
    {
        Tool("soft brush", "bucket");
        foreach (var tank in Fresh)
        {
            Add($"empty:{tank.Id}", $"Empty {tank.Name} by its drain", [tank], outL: PartWater.HoldsL(tank));
            Add($"wipe:{tank.Id}", $"Wipe {tank.Name} through its hand hole, rinse, and let it run out", [tank],
                wrong: "What is scoured grows film sooner: a soft brush.");
        }
    }

    /// <summary>Isolated by the fewest valves.</summary>
    public void ChangeFilters()
    {
        Tool("filter spanner", "bowl and towel");
        foreach (var filter in Filters)
        {
            var service = ServiceStudy.Ask(question, new ServiceInput(filter.Id));
            _supplies.Add($"cartridge for {filter.Name}");
            Add($"isolate:{filter.Id}", service.Turns.Count > 0 ? $"Set {FoundTasks.Words(question.Index, service.Turns)}"
                : "Pump off, and a tap open to let the pressure out",
                [.. service.Turns.Select(t => question.Index.Part(t.Id)).DefaultIfEmpty(filter)]);
            Add($"change:{filter.Id}", $"Open {filter.Name}, change its cartridge, wet its seal", [filter], outL: service.SpillsL);
            Add($"back:{filter.Id}", "Set the valves back and let five litres run to waste", [filter]);
        }
    }

    /// <summary>A little, half, full.</summary>
    public void FirstFill()
    {
        Tool("paper towel", "torch");
        CloseAll();
        Add("swarf", $"Rinse {Names(Fresh)} before the pump runs: swarf from drilling ruins it", [.. Fresh], wrong: "The strainer catches what is left: " +
            "look into it after an hour.");
        foreach (var (id, words) in ((string, string)[])[("tenth", "Fill a tenth, and look at every joint of the tank"), ("half",
            "Fill to half, and look again"),
            ("full", "Fill until the overflow runs, and look at the vent and the fill hose")]) Add($"fill-{id}", words, [.. Fresh], marks: id == "full" ? Full
                : []);
        foreach (var pump in Pumps)
            Add($"pump-on:{pump.Id}", $"Turn {pump.Name} on and open the farthest cold tap, then hot, until no air comes", [pump],
                [new Setting(pump.Id, Positions.On)], wrong:
                "It must stop once all taps are closed.");
        LeakLook();
    }

    /// <summary>What hangs outdoors.</summary>
    public void OutdoorsOff()
    {
        foreach (var part in Rig.Parts.Where(p => p.Stock is "outdoor-shower" or "pet-wash"))
        {
            var service = ServiceStudy.Ask(question, new ServiceInput(part.Id));
            Add($"shut:{part.Id}", service.Can && service.Turns.Count > 0 ? $"Set " +
                $"{FoundTasks.Words(question.Index, service.Turns.Where(t => t.Position != Positions.Off))}"
                : $"No valve shuts {part.Name} off: put one into its lines, or drain it each evening", [part]);
            Add($"open:{part.Id}", $"Open {part.Name} hot and cold, let it run out, and leave it open", [part]);
        }
        Add("rest", "Keep the heat on for the rest: the night of the brief tells how long it holds without", []);
    }

    /// <summary>Iced spouts, hoses and valves.</summary>
    public void FillInFrost()
    {
        foreach (var spout in Rig.Parts.Where(p => p.Stock is "fill-spout" || Networks.RigFlow.IsTownInlet(p)))
            Add($"spout:{spout.Id}", $"Warm {spout.Name} with a wet cloth until its cap turns", [spout], wrong: "Forced, an iced cap breaks.");
        Add("vent", "Look that the vent is open: a tank with an iced vent is drawn flat by its pump", []);
        Add("fill", "Fill by can, or by a hose that was kept warm, and drain the hose at once", [.. Fresh], inL: Fresh.Sum(PartWater.HoldsL), marks: Full);
        foreach (var dump in Rig.Parts.Where(p => p.Stock is "dump-valve" or "frost-valve"))
            Add($"dump:{dump.Id}", $"Look that {dump.Name} closes: ice keeps it open", [dump], wrong: dump.Stock == "frost-valve"
                ? (Sentence)"With the pump on, a frost valve that trips empties the tank." : null);
    }

    /// <summary>What freezes first, with its minutes, from now on without heat.</summary>
    public void FirstToFreeze()
    {
        var cold = question.With(question.Conditions with { HeatOn = false, Water = WaterState.Wet });
        var ladder = cold.Ask(FreezeLadderStudy.Ask);
        var first = ladder.Rungs.Where(r => r.FirstIceS is not null).OrderBy(r => r.FirstIceS).DistinctBy(r => r.Name).Take(MostFirst).ToList();
        foreach (var rung in first)
            Add($"first:{rung.Id}", Sentence.Of($"{rung.Name} has ice in {Measure.Duration(rung.FirstIceS!.Value)}"), rung.PartId is { } id
                ? [question.Index.Part(id)] : [],
                shortest: rung.FirstIceS, longest: rung.FirstIceS);
        if (first.Count == 0) Add("first", "Nothing has ice by morning on this night: there is time to mend the heat", []);
    }

    /// <summary>Slowly, from the open end.</summary>
    public void Thaw()
    {
        foreach (var pump in Pumps) Add($"pump-off:{pump.Id}", $"Turn {pump.Name} off", [pump], [new Setting(pump.Id, Positions.Off)]);
        // What shuts the pump off from the tank.
        var turns = Pumps.Take(1).SelectMany(p => ServiceStudy.Ask(question, new ServiceInput(p.Id)).Turns).Where(t => t.Position != Positions.Off).ToList();
        Add("tank-shut", turns.Count > 0 ? $"Set {FoundTasks.Words(question.Index, turns)}: nothing runs from the tank when the ice gives way"
            : "No valve shuts the tank off: have a bucket at hand", [.. turns.Select(t => question.Index.Part(t.Id))]);
        Add("open-tap", $"Open the taps, so that water has somewhere to go: {Names(Taps)}", [.. Taps]);
        Add("warm", "Warm the room, then the place itself with a cloth and warm water, from the tap towards the ice", [], shortest: 1800,
            longest: 7200, waits: true,
            wrong: "Fast or uneven heat splits plastic.", caution: "Never a flame, never a heat gun on plastic or near gas.");
        Add("test", "Water on section by section, with the valve of the next one closed, and look at each joint", [],
            wrong: "A split shows only once the ice is gone.");
    }

    /// <summary>Before the first frost.</summary>
    public void TryHeat()
    {
        foreach (var heater in Rig.Parts.Where(p => Stock(p).Group == PartGroup.Heat && Stock(p).Id != "mixing-valve"))
            Add($"try:{heater.Id}", $"Run {heater.Name} for a quarter of an hour, and feel that it gets warm", [heater], shortest: 900, longest: 900,
                waits: true, caution:
                heater.Stock == "gas-heater" ? "Flue free, carbon monoxide alarm tried; the rest is for a licensed fitter." : null);
        Add("thermostats", "Warm and cool each thermostat's sensor by hand: does what it switches go off and on?", []);
        Battery();
    }

    /// <summary>In the cold it has less to give.</summary>
    public void Battery() =>
        Add("battery", "Charge the battery and look at its voltage under load: in the cold it has a third less to give, and lithium takes no charge below " +
            "0 °C", [], caution: "Mains chargers and gas are for licensed people.");

    /// <summary>Laid up, and out for some nights all the same.</summary>
    public void ColdTrip()
    {
        Tool("water in canisters", "bowl for washing", "bucket with a lid");
        foreach (var pump in Pumps) Add($"pump-off:{pump.Id}", $"Leave {pump.Name} off, and its fuse out", [pump], [new Setting(pump.Id, Positions.Off)],
            wrong: "Somebody opens a tap from habit, and the lines are wet again.");
        Add("taps", $"Tie a note on the taps: {Names(Taps)}", [.. Taps], wrong: "What goes down the drain stands in the trap and in the waste line.");
        Add("canisters", "Cook and wash from canisters, and carry the waste water out in the bucket", []);
        foreach (var toilet in Rig.Parts.Where(p => p.Stock is "toilet" or "cassette-toilet"))
            Add($"toilet:{toilet.Id}", $"Flush {toilet.Name} with antifreeze from a can, never from its tank", [toilet]);
        Battery();
        Traps();
        AgainAfterMoving();
    }
}
