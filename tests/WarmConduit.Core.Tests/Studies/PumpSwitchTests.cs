using System.Text.Json.Nodes;
using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;
using static WarmConduit.Core.Tests.Studies.HeatSourceTests;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Loop pumps that a timer or a button switches, and air that stops a loop.</summary>
public class PumpSwitchTests
{
    private const double Hour = 3600;

    private static Rig Switched(Rig rig, PumpSwitch? by, string pump = "pump") =>
        rig with { Parts = [.. rig.Parts.Select(p => p.Id == pump ? p with { Heat = new PartHeat(Switch: by) } : p)] };

    private static PumpSwitch At(params (double From, double Until)[] times) =>
        new(PumpSwitchKind.Timer, [.. times.Select(t => new DailyTime(t.From, t.Until))]);

    /// <summary>A heater of 5 kW, a circulator and a coil in 60 L; its night starts at 22 o'clock.</summary>
    private static Rig Loop(PumpSwitch? by = null) => Switched(
        HeaterLoop("coolant-heater", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1)).Build(), by);

    private static RigNight From22(Rig rig, params PlanEvent[] events)
    {
        var night = Night(rig, events) with { StartHour = 22 };
        Assert.Empty(night.Check(rig));
        return new Question(rig, night).Ask(RigNight.Of);
    }

    private static readonly Gen<double> Clocks = Gen.Int[0, 24 * 60].Select(m => m / 60.0);

    // To whole minutes.
    private static readonly Gen<PumpSwitch> AnyTimer =
        from times in Gen.Select(Clocks, Clocks, (a, b) => new DailyTime(a, b)).Array[1, 3]
        from allDay in Gen.Bool
        from everyM in Gen.Int[15, 300]
        from forM in Gen.Int[1, 14]
        from through in Gen.Bool
        select new PumpSwitch(PumpSwitchKind.Timer, allDay ? null : times, through ? null : 60 * forM * (everyM / 15), through ? null : 60 * everyM);

    /// <summary>Asked at one moment, by the hour of its day alone.</summary>
    [Fact]
    public void A_timer_lets_a_pump_run_at_its_times() =>
        (from timer in AnyTimer
         from start in Clocks
         from at in Gen.Int[-12 * 60, (100 * 60) - 1].Select(m => (60.0 * m) + 30).Array[40]
         select (timer, start, at)).Sample(c =>
        {
            var windows = PumpHours.Of(Switched(Loop(), c.timer).Parts.Find("pump")!, Night(Loop()) with { StartHour = c.start }, -12 * Hour, 100 * Hour);
            Assert.All(windows.Zip(windows.Skip(1)), w => Assert.True(w.First.ToS < w.Second.FromS));
            foreach (double t in c.at)
            {
                double Clock(double hour) => hour - (24 * Math.Floor(hour / 24));
                bool Runs(DailyTime time)
                {
                    double sinceS = Clock(c.start + (t / Hour) - time.FromHour) * Hour, lastsH = Clock(time.UntilHour - time.FromHour);
                    return sinceS < (lastsH == 0 ? 24 : lastsH) * Hour && (c.timer.EveryS is not { } every || sinceS % every < c.timer.ForS);
                }
                Assert.True((c.timer.Times ?? [new DailyTime(0, 0)]).Any(Runs) == windows.Any(w => t >= w.FromS && t < w.ToS),
                    $"{t} {c.start} {string.Join(' ', c.timer.Times ?? [])} {c.timer.ForS} {c.timer.EveryS}");
            }
        }, iter: 200);

    [Fact]
    public void A_night_has_heat_while_its_timer_runs_and_what_warms_the_fluid_up_besides()
    {
        var rig = Loop(At((21, 1), (3, 5)));
        Assert.Empty(RigCheck.Check(rig));
        var (always, night) = (From22(Loop()), From22(rig));
        Assert.Equal([3600, 3600, 3600, 0, 0, 3600, 3600, 0], night.Heat.PumpS["pump"][..8]);
        // Until it rests, it is the night of a pump without a timer.
        Assert.Equal(Wh(always, "sink", 0, 3), Wh(night, "sink", 0, 3), 1e-6);
        Assert.Equal((0.0, 0.0), (Wh(night, "sink", 3, 5), Wh(night, "sink", 7, 10)));
        // Stopped by hand it rests at the same hours; a timer takes longer to be warm again, from -10 to 80 °C by 5 kW: of hose, parts and their fluid, as
        // far as two hours cool it.
        var byHand = From22(Loop(), new PlanEvent("a", PlanEventKind.PumpFails, 3, 5), new PlanEvent("b", PlanEventKind.PumpFails, 7, 24));
        var question = new Question(rig, Night(rig));
        var (heat, hose) = (RigHeat.Of(question), Catalogue.Pipe("epdm-5/8")!);
        double perL = heat.KgPerM3 * heat.JPerKgK / 1000, metres = rig.Runs.Sum(question.Index.PipeLengthM),
            perM = (hose.BoreM2() * 1000 * perL) + hose.WallJPerMK(), lossPerM = new LineLosses(question, heat.FluidC).PerMK(hose, null, rig.Shell.Zones[0]),
            parts = rig.Parts.Where(question.Index.HoldsCoolant).Sum(p => (PartWater.HoldsL(p) * perL) + (1000 * Catalogue.Part(p.Stock)!.MassKg)),
            warmS = (parts + (metres * perM * (1 - Math.Exp(-lossPerM * 2 * Hour / perM)))) * 90 / 5000;
        Assert.InRange(warmS, 60, 900);
        Assert.Equal(Hour - warmS, night.Heat.FlowS["sink"][5], 1);
        double less = Wh(byHand, "sink", 5, 7) - Wh(night, "sink", 5, 7);
        Assert.InRange(less, 0, 5000 * warmS / Hour);
        // What warms the fluid up is burnt and reaches nothing.
        Assert.Equal(5000 * warmS / Hour,
            -Wh(night, "heater", 5, 7) - Wh(night, "sink", 5, 7) - night.Heat.LineWh.Values.Sum(l => l[5..7].Sum()), 2);
        Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-4);
        // 18 W for five hours, and a start.
        double Battery(RigNight of) => new EnergyMeter(new Question(of.Rig, Night(of.Rig))).Of(of).BatteryWh.Sum();
        Assert.Equal(1, night.Heat.Starts["heater"].Sum());
        Assert.InRange(Battery(night), 5 * 18, Battery(always) - (5 * 18));
    }

    [Fact]
    public void A_button_runs_the_pump_after_each_press()
    {
        var rig = Loop(new PumpSwitch(PumpSwitchKind.Button, ForS: 900));
        Assert.Empty(RigCheck.Check(rig));
        string Notes(params PlanEvent[] events) => string.Join(' ', HeatingStudy.Ask(new Question(rig, Night(rig, events))).Notes.Select(n => n.Text));
        Assert.Contains("nobody presses it", Notes());
        Assert.Equal(0, Of(rig).Heat.PumpS["pump"].Sum());
        // Pressed again while it runs, it goes on; a press of another pump is none.
        PlanEvent[] presses = [new("a", PlanEventKind.PumpPressed, 3.5), new("b", PlanEventKind.PumpPressed, 3.6, PartId: "pump")];
        var night = Of(rig, presses);
        Assert.Equal(900 + 360, night.Heat.PumpS["pump"][3], 1e-6);
        Assert.Equal(900 + 360, night.Heat.PumpS["pump"].Sum(), 1e-6);
        Assert.True(Wh(night, "sink", 3, 4) > 100 && Wh(night, "sink", 4, 10) == 0);
        // The hour is told by its average, and its fluid as it was at the end of the run.
        var coil = HeatingStudy.Ask(new Question(rig, Night(rig, presses))).Parts.Single(p => p.PartId == "sink");
        Assert.Equal((Math.Round(Wh(night, "sink", 3, 4), 2), (double?)null), (coil.HeatW[3], coil.InC[4]));
        Assert.InRange(coil.InC[3]!.Value, 40, 80);
        Assert.Contains("by its button", Notes(presses));
        string Faults(PlanEvent e) => string.Join(' ', Night(rig, e).Check(rig).Select(f => f.Path));
        Assert.Equal("conditions.events[0].partId", Faults(presses[1] with { PartId = "heater" }));
        Assert.Equal("conditions.events[0].untilH", Faults(presses[1] with { UntilH = 4 }));
        Assert.Equal("conditions.events[0].partId", Faults(new PlanEvent("c", PlanEventKind.PumpFails, 0, PartId: "sink")));
    }

    /// <summary>A press of a button that is a timer now, air in a line of water, a pad that is gone: as one step, with the way back.</summary>
    [Fact]
    public void What_is_planned_goes_with_what_it_needs()
    {
        var rig = Loop(PumpSwitch.UsualButton);
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "tank" ? p with { Pad = Pad.Usual } : p)] };
        PlanEvent press = new("press", PlanEventKind.PumpPressed, 1, PartId: "pump"), all = new("all", PlanEventKind.PumpPressed, 1),
            air = new("air", PlanEventKind.AirLocks, 1, RunId: "c"), pad = new("pad", PlanEventKind.HeatFails, 1, PartId: "tank");
        rig = rig with { Plans = [new NightPlan("p", "P", 20, 10, true, 10, [air, all, pad, press])] };
        Assert.Empty(RigCheck.Check(rig));
        void Left(ChangeThing change, params PlanEvent[] left)
        {
            var edited = Editor.Apply(rig, [change]);
            Assert.Equal(left, edited.Rig.Plans![0].Events);
            Assert.True(Sameness.Same(rig, Editor.Apply(edited.Rig, edited.Inverse).Rig));
        }
        Left(new ChangeThing("parts/pump", new() { ["heat"] = JsonNode.Parse("""{"switch":{"kind":"timer"}}""") }), air, all, pad);
        Left(new ChangeThing("parts/tank", new() { ["pad"] = null }), air, all, press);
        Left(new ChangeThing("runs/c", new() { ["service"] = "cold" }), all, pad, press);
        // What is planned for nothing is refused.
        var none = new ChangeThing("plans/p/events/press", new() { ["partId"] = "heater" });
        Assert.Contains("no button", Assert.Throws<RigFileException>(() => Editor.Apply(rig, [none])).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Switches_that_make_no_sense_are_named_at_their_fields()
    {
        string Faults(PumpSwitch by, string part = "pump") => string.Join(' ', RigCheck.Check(Switched(Loop(), by, part)).Select(f => f.Path[(f.Path.IndexOf(
            "switch", StringComparison.Ordinal) + 6)..]));
        var timer = PumpSwitch.UsualTimer;
        Assert.Equal("", Faults(timer) + Faults(PumpSwitch.UsualButton));
        Assert.Equal(".everyS", Faults(timer with { EveryS = 600 }));
        Assert.Equal(".everyS", Faults(timer with { EveryS = null }));
        Assert.Equal(".forS", Faults(timer with { ForS = null }));
        Assert.Equal(".forS", Faults(timer with { ForS = 1 }));
        Assert.Equal(".times[0].untilHour", Faults(At((3, 25))));
        Assert.Equal(".times", Faults(timer with { Times = [] }));
        Assert.Equal(".forS .everyS .times", Faults(At((3, 5)) with { Kind = PumpSwitchKind.Button, EveryS = 900 }));
        Assert.Equal("", Faults(timer, "heater"));
        Assert.Contains(RigCheck.Check(Switched(Loop(), timer, "heater")), f => f.Path.EndsWith("heat.switch", StringComparison.Ordinal));
        Assert.Contains(RigCheck.Check(Switched(EngineLoop().Build(), timer, "engine")), f => f.Path.EndsWith("heat.switch", StringComparison.Ordinal));
    }

    /// <summary>Two ways side by side, each with its circulator; what fails besides is planned.</summary>
    [Fact]
    public void Whatever_switches_pumps_energy_closes_and_no_timer_warms_more_than_a_pump_that_always_runs()
    {
        var both = EngineLoop().Part("own", "circulator", ("in", 0.8, 0.25, 0.1), ("out", 0.7, 0.25, 0.1))
            .Part("heater", "coolant-heater", ("in", 1.5, 0.2, 0.1), ("out", 1.5, 0.25, 0.1))
            .Run("d", Service.Coolant, "epdm-5/8", "valve.b", "own.in").Run("d2", Service.Coolant, "epdm-5/8", "own.out", "coil.in")
            .Run("a", Service.Coolant, "epdm-5/8", "heater.out", "pump.in").Run("h", Service.Coolant, "epdm-5/8", "back.b", "heater.in").Build();
        Assert.Empty(RigCheck.Check(both));
        (from one in AnyTimer
         from other in AnyTimer
         from which in Gen.Int[0, 2]
         from start in Gen.Double[0, 24]
         from fails in Gen.Double[0, 8]
         from kind in Gen.OneOfConst(PlanEventKind.AirLocks, PlanEventKind.PumpFails, PlanEventKind.BatteryOut, PlanEventKind.SetBack)
         select (one, other, which, start, fails, kind)).Sample(c =>
        {
            var rig = Switched(Switched(both, c.which == 1 ? null : c.one), c.which == 0 ? null : c.other, "own");
            var what = new PlanEvent("e", c.kind, c.fails, c.fails + 2, HoldC: c.kind == PlanEventKind.SetBack ? 5 : null,
                RunId: c.kind == PlanEventKind.AirLocks ? "d2" : null, PartId: c.kind == PlanEventKind.PumpFails ? "own" : null);
            RigNight On(Rig of) => new Question(of, Night(of, what) with { StartHour = c.start }).Ask(RigNight.Of);
            var (night, always) = (On(rig), On(both));
            Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-3);
            Assert.All(night.Heat.Moments.OfType<HeatMoment>(), m => Assert.All(m.Row.OutC, t => Assert.InRange(t, -11, 81)));
            // Of pumps that push the same water round, one that rests can send more through the other's way: what all of it gets is not more.
            Assert.True(night.WaterC(night.Morning, night.Numbers()["tank"]) <= always.WaterC(always.Morning, always.Numbers()["tank"]) + 0.5);
            foreach (var (pump, s) in night.Heat.PumpS) Assert.All(s, v => Assert.InRange(v, 0, Hour + 1e-6));
        }, iter: 40);
    }

    [Fact]
    public void Air_stops_a_branch_as_a_shut_valve_does_and_a_loop_as_a_dead_pump_does()
    {
        var rig = EngineLoop("ball-valve").Build();
        var drive = new PlanEvent("drive", PlanEventKind.Drive, 0, SpeedMPerS: 0);
        PlanEvent air = new("air", PlanEventKind.AirLocks, 2, RunId: "d"),
            shut = new("shut", PlanEventKind.ValveSticks, 2, PartId: "valve", Position: Positions.Closed);
        var (locked, stuck, free) = (Of(rig, drive, air), Of(rig, drive, shut), Of(rig, drive));
        Assert.True(Wh(free, "coil", 2, 10) > 500);
        Assert.Equal(0, Wh(locked, "coil", 2, 10), 1e-9);
        Assert.Equal(Wh(free, "coil", 0, 2), Wh(locked, "coil", 0, 2), 1e-6);
        Assert.Equal(Wh(stuck, "rad", 2, 10), Wh(locked, "rad", 2, 10), 0.5);
        Assert.True(Wh(locked, "rad", 2, 10) > Wh(free, "rad", 2, 10));
        // Until it is bled.
        Assert.True(Wh(Of(rig, drive, air with { UntilH = 4 }), "coil", 4, 10) > 300);
        // In the one way round nothing is warmed; the pump turns, and takes what it takes.
        var (loop, all) = (Loop(), air with { RunId = "c" });
        var (still, dead) = (Of(loop, all), Of(loop, all with { Kind = PlanEventKind.PumpFails, RunId = null }));
        Assert.Equal((0.0, 0.0), (Wh(still, "heater", 2, 10), Wh(still, "sink", 2, 10)));
        Assert.Equal(Wh(dead, "sink", 0, 10), Wh(still, "sink", 0, 10), 1e-6);
        Assert.Equal((Hour, 0.0), (still.Heat.PumpS["pump"][5], dead.Heat.PumpS["pump"][5]));
        Assert.Contains(HeatingStudy.Ask(new Question(loop, Night(loop, all))).Notes, n => n.Text.Contains("Air stops the flow", StringComparison.Ordinal));
        // It is named at its field, and is gone with its line, or a part that its line is joined to.
        string Faults(PlanEvent e) => string.Join(' ', Night(rig, e).Check(rig).Select(f => f.Path));
        Assert.Equal("conditions.events[0].runId", Faults(air with { RunId = "nobody" }));
        Assert.Equal("conditions.events[0].runId", Faults(air with { RunId = null }));
        var planned = rig with { Plans = [new NightPlan("p", "P", 20, 10, true, 10, [air, drive])] };
        foreach (string thing in (string[])["runs/d", "parts/coil"])
            Assert.Equal([drive], Editor.Apply(planned, [new RemoveThing(thing)]).Rig.Plans![0].Events);
    }

    /// <summary>26 weeks of two hours a day by 18 W, where nothing heats.</summary>
    [Fact]
    public void A_winter_counts_the_hours_of_a_timer()
    {
        var rig = Switched(HeaterLoop("loop-element", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1)).Build(), At((6, 8)));
        var used = SeasonStudy.Ask(new Question(rig, Night(rig)), new SeasonInput(WeatherPlace.KettleFell, 1)).Energy;
        Assert.Equal(26 * 7 * 2 * 18, used.Single(e => e.Kind == EnergyKind.Battery).AWinter, 1);
    }
}
