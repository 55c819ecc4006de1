using CsCheck;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What heats a circuit besides its heater, what it warms besides radiators and coils, and what fails.</summary>
public class HeatSourceTests
{
    private const double Hour = 3600;
    private const Service Coolant = Service.Coolant;
    private const string Hose = "epdm-5/8";

    private static readonly Box TankBox = new(new(0, 0, 0), new(0.5, 0.4, 0.3));

    /// <summary>An engine, a circulator in its loop, a coil in a tank of 60 L; by a tee and a valve, another way with a radiator.</summary>
    internal static RigBuilder EngineLoop(string valve = "motor-valve-shuts") => new RigBuilder()
        .Tank("tank", TankBox, ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
        .Part("engine", "engine", "off", ("in", 1.5, 0.2, 0.1), ("out", 1.5, 0.25, 0.1))
        .Part("pump", "circulator", ("in", 1.4, 0.25, 0.1), ("out", 1.3, 0.25, 0.1))
        .Part("tee", "tee", ("a", 1.2, 0.25, 0.1), ("b", 1.15, 0.25, 0.1), ("c", 1.17, 0.3, 0.1))
        .Part("valve", valve, ("a", 1, 0.25, 0.1), ("b", 0.9, 0.25, 0.1)).Part("coil", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1))
        .Part("rad", "panel-radiator", ("in", 1, 0.6, 0.1), ("out", 1.1, 0.6, 0.1))
        .Part("back", "tee", ("a", 1.2, 0.2, 0.1), ("b", 1.25, 0.2, 0.1), ("c", 1.22, 0.15, 0.1))
        .Run("a", Coolant, Hose, "engine.out", "pump.in").Run("b", Coolant, Hose, "pump.out", "tee.a").Run("c", Coolant, Hose, "tee.b", "valve.a")
        .Run("d", Coolant, Hose, "valve.b", "coil.in").Run("e", Coolant, Hose, "coil.out", "back.a").Run("f", Coolant, Hose, "tee.c", "rad.in")
        .Run("g", Coolant, Hose, "rad.out", "back.c").Run("h", Coolant, Hose, "back.b", "engine.in");

    internal static Conditions Night(Rig rig, params PlanEvent[] events) => Conditions.Of(rig.Brief) with
    {
        OutdoorC = -10,
        WindMPerS = 0,
        HeatOn = true,
        Water = WaterState.Wet,
        Hours = 10,
        StartWaterC = 10,
        Events = events,
    };

    private static readonly PlanEvent Drive = new("drive", PlanEventKind.Drive, 1, 3, SpeedMPerS: 0);

    internal static RigNight Of(Rig rig, params PlanEvent[] events)
    {
        Assert.Empty(Night(rig, events).Check(rig));
        return new Question(rig, Night(rig, events)).Ask(RigNight.Of);
    }

    internal static double Wh(RigNight night, string part, int from, int to) => night.Heat.PartWh.TryGetValue(part, out var wh) ? wh[from..to].Sum() : 0;

    [Fact]
    public void An_engine_heats_while_it_drives_and_cools_for_hours_after()
    {
        var rig = EngineLoop().Build();
        Assert.Empty(RigCheck.Check(rig));
        var night = Of(rig, Drive);
        var answer = HeatingStudy.Ask(new Question(rig, Night(rig, Drive)));
        var engine = answer.Parts.Single(p => p.PartId == "engine");
        Assert.Equal(HeatRole.Engine, engine.Kind);
        // 85 °C, and more than the 8 L/min of its own pump with the circulator's; cold before.
        Assert.InRange(engine.OutC[2]!.Value, 80, 85.5);
        Assert.InRange(engine.LPerMin[2], 7, 20);
        Assert.True(engine.HeatW[0] < 0 && engine.HeatW[2] > 3000 && engine.HeatW[3] > 1000);
        // Colder than what it has warmed, it takes heat back, and that is told.
        Assert.True(engine.HeatW[5] < 0 && engine.InC[5] > engine.InC[8]);
        Assert.Contains(answer.Notes, n => n.Text.Contains("takes", StringComparison.Ordinal));
        // What it gives is what coil, radiator and hoses give off, but for what the block holds.
        double given = -Wh(night, "engine", 1, 3), got = Wh(night, "coil", 1, 3) + Wh(night, "rad", 1, 3);
        Assert.InRange(got, 0.6 * given, given);
        Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-4);
        // Without circulator the rest of its heat stays where it is; with heat off its own pump goes all the same.
        var still = Of(rig, Drive, new PlanEvent("off", PlanEventKind.PumpFails, 0));
        Assert.True(Wh(still, "coil", 1, 3) > 100);
        Assert.Equal(0, Wh(still, "coil", 3, 10), 1e-9);
        Assert.True(Wh(night, "rad", 3, 4) > 20);
        // Two hours of driving take nothing from the battery where the circulator rests.
        Assert.Empty(still.Heat.PumpS);
        // A cold engine only takes.
        Assert.True(Wh(Of(rig), "coil", 0, 10) < 0);
    }

    /// <summary>Alone, T = T₀ + (85 - T₀) e^(-t / 1.5 h).</summary>
    [Fact]
    public void An_engine_that_stands_cools_by_its_time_constant()
    {
        var rig = EngineLoop().Build();
        var question = new Question(rig, Night(rig));
        var segment = NightCourse.At(question.Conditions, 0) with { FromS = 0, ToS = 6 * Hour };
        var network = RigNetwork.Of(question, (IReadOnlyList<FreezeCandidate>)[], [new(-10, 0, 1)], segment, Uncertainty.None, LaidCircuits.None, out _);
        network = network with { Zones = [.. network.Zones.Select(z => z.Id == "engine:engine" ? z with { StartC = 85 } : z)] };
        int at = network.Zones.ToList().FindIndex(z => z.Id == "engine:engine");
        var answer = NightEngine.Run(network, new NightOptions(900, 10, NightOptions.Every(Hour, 6 * Hour)));
        for (int h = 0; h <= 6; h++) Assert.Equal(-10 + (95 * Math.Exp(-h / 1.5)), answer.ZoneC[h, at], 0.5);
    }

    [Fact]
    public void A_valve_that_sticks_or_has_no_power_sends_the_flow_elsewhere()
    {
        var dead = new PlanEvent("dead", PlanEventKind.BatteryOut, 0);
        var (shuts, opens, stays) = (EngineLoop().Build(), EngineLoop("motor-valve-opens").Build(), EngineLoop("motor-valve").Build());
        Assert.Equal(0, Wh(Of(shuts, Drive, dead), "coil", 1, 3), 1e-9);
        Assert.True(Wh(Of(shuts, Drive, dead), "rad", 1, 3) > 100);
        double stayed = Wh(Of(stays, Drive, dead), "coil", 1, 3);
        Assert.True(stayed > 100);
        Assert.Equal(stayed, Wh(Of(opens, Drive, dead), "coil", 1, 3), 1);
        // Stuck shut from the second hour of the drive on: nothing for the coil, and more for the radiator.
        var stuck = new PlanEvent("stuck", PlanEventKind.ValveSticks, 2, PartId: "valve", Position: Positions.Closed);
        var (free, held) = (Of(stays, Drive), Of(stays, Drive, stuck));
        Assert.Equal(Wh(free, "coil", 1, 2), Wh(held, "coil", 1, 2), 3);
        Assert.Equal(0, Wh(held, "coil", 2, 10), 1e-9);
        HeatPart Told(string part) => HeatingStudy.Ask(new Question(stays, Night(stays, Drive, stuck))).Parts.Single(p => p.PartId == part);
        // At its hour it is told as it was until then.
        Assert.True(Told("rad").LPerMin[3] > 1.02 * Told("rad").LPerMin[2]);
        Assert.True(Told("coil").LPerMin is [> 1, > 1, > 1, 0, ..]);
        // It is named at its field, and is gone with its valve.
        string Faults(PlanEvent e) => string.Join(' ', Night(stays, e).Check(stays).Select(f => f.Path));
        Assert.Equal("conditions.events[0].position", Faults(stuck with { Position = "left" }));
        Assert.Equal("conditions.events[0].partId", Faults(stuck with { PartId = "nobody" }));
        Assert.Equal("conditions.events[0].partId", Faults(stuck with { PartId = "rad" }));
        Assert.Equal("conditions.events[0].partId", Faults(stuck with { Kind = PlanEventKind.HeatFails }));
        Assert.Equal("conditions.events[0].partId conditions.events[0].position", Faults(new PlanEvent("e", PlanEventKind.ValveSticks, 0)));
        var planned = stays with { Plans = [new NightPlan("p", "P", 20, 10, true, 10, [Drive, stuck])] };
        Assert.Equal([Drive], Editor.Apply(planned, [new RemoveThing("parts/valve")]).Rig.Plans![0].Events);
    }

    [Fact]
    public void Cold_fluid_is_thick_and_its_flow_is_worked_out_anew()
    {
        // A long hose, which asks more of cold fluid than fittings do.
        var rig = EngineLoop().Run("a", Coolant, Hose, "engine.out", "pump.in", new Point3(9, 0.25, 0.1)).Build();
        double Kg(RigNight night, int hour) => night.Heat.Moments[hour] is { } m ? m.Reaches[m.Pieces.ToList().FindIndex(p => p.PartId == "engine")].KgPerS : 0;
        var (cold, road) = (Of(rig), Of(rig, new PlanEvent("drive", PlanEventKind.Drive, 0, SpeedMPerS: 0)));
        // On the road it is near enough to what flows are worked out for; parked the loop is cold all night.
        Assert.Equal([RigHeat.UsualC], road.Heat.FluidC);
        double celsius = Assert.Single(cold.Heat.FluidC);
        Assert.InRange(celsius, -15, 15);
        var usual = RigHeat.Of(new Question(rig, Night(rig)));
        var then = usual.At(celsius)!;
        var engine = rig.Parts.Find("engine")!;
        Assert.Equal(then.ThroughM3PerS(engine) * then.KgPerM3, Kg(cold, 4), 1e-6);
        Assert.True(then.ThroughM3PerS(engine) < (1 - RigHeat.FlowTolerance) * usual.ThroughM3PerS(engine));
        Assert.Null(usual.At(RigHeat.UsualC + 4));
        Assert.InRange(cold.Answer.Balance.Gap(), 0, 1e-4);
        Assert.Contains("thicker", HeatingStudy.Ask(new Question(rig, Night(rig))).FlowWords!.Text);
    }

    [Fact]
    public void Whatever_fails_on_the_road_energy_closes_and_nothing_is_hotter_than_the_engine() =>
        (from at in Gen.Double[0, 6].Array[4]
         from lasts in Gen.Double[0.1, 5].Array[4]
         from kinds in Gen.OneOfConst(PlanEventKind.Drive,
            PlanEventKind.ValveSticks, PlanEventKind.BatteryOut, PlanEventKind.PumpFails, PlanEventKind.AirLocks, PlanEventKind.HeatFails).Array[4]
         from valve in Gen.OneOfConst("motor-valve", "motor-valve-shuts", "motor-valve-opens")
         from shut in Gen.Bool
         select (at, lasts, kinds, valve, shut)).Sample(c =>
        {
            var rig = EngineLoop(c.valve).Build();
            PlanEvent Event(PlanEventKind kind, int i) => new($"e{i}", kind, c.at[i], c.at[i] + c.lasts[i]);
            PlanEvent[] events = [.. c.kinds.Select((k, i) => k switch
            {
                PlanEventKind.Drive => Event(k, i) with { SpeedMPerS = 5 },
                PlanEventKind.ValveSticks => Event(k, i) with { PartId = "valve", Position = c.shut ? "closed" : "open" },
                PlanEventKind.AirLocks => Event(k, i) with { RunId = c.shut ? "d" : "a" },
                _ => Event(k, i),
            })];
            var night = Of(rig, events);
            Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-3);
            for (int n = 0; n < night.Candidates.Count; n++) Assert.InRange(night.Marks(n).LowestC, -11, 12);
            Assert.All(night.Heat.Moments.OfType<HeatMoment>(), m => Assert.All(m.Row.OutC, t => Assert.InRange(t, -11, 86)));
        }, iter: 60);

    [Fact]
    public void Modes_tell_what_the_engine_heats()
    {
        var rig = EngineLoop("ball-valve").Build();
        var modes = ModesStudy.Ask(new Question(rig, Night(rig))).Modes;
        var road = modes.Where(m => m.Sources.Contains("engine")).ToList();
        Assert.Contains(road, m => m.Name == "engine: rooms alone" && m.Warms.Single().Id == "rad");
        Assert.Contains(road, m => m.Name == "engine: rooms and frost protection" && m.Warms.Count == 2);
        Assert.All(road, m => Assert.Contains(m.Checks, s => s.Text.Contains("for the road", StringComparison.Ordinal)));
        Assert.All(road, m => Assert.DoesNotContain(m.Warms, w => w.Group == Core.Studies.Modes.HeatGroup.Engine));
    }

    internal static RigBuilder HeaterLoop(string heater, string sink, params (string Port, double X, double Y, double Z)[] ports) => new RigBuilder()
        .Tank("tank", TankBox, ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
        .Part("heater", heater, ("in", 1.5, 0.2, 0.1), ("out", 1.5, 0.25, 0.1)).Part("pump", "circulator", ("in", 1.4, 0.25, 0.1), ("out", 1.3, 0.25, 0.1))
        .Part("sink", sink, ports).Run("a", Coolant, Hose, "heater.out", "pump.in").Run("b", Coolant, Hose, "pump.out", "sink.in")
        .Run("c", Coolant, Hose, "sink.out", "heater.in");

    [Fact]
    public void An_element_warms_by_what_it_runs_on_and_takes_what_it_gives()
    {
        var rig = HeaterLoop("loop-element", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1)).Build();
        Rig On(ElectricSupply supply) => rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "heater" ? p with { Heat = new PartHeat(Supply: supply) } : p)],
        };
        PlanEvent mains = new("m", PlanEventKind.Mains, 2, 4), dead = new("d", PlanEventKind.BatteryOut, 5);
        Assert.Equal(0, Wh(Of(rig), "heater", 0, 10), 1e-9);
        Assert.Equal(-1600, Wh(Of(rig, mains), "heater", 0, 10), 5);
        Assert.Equal(-4000, Wh(Of(On(ElectricSupply.Battery), dead), "heater", 0, 10), 10);
        Assert.Equal(-1600, Wh(Of(On(ElectricSupply.Surplus), Drive), "heater", 0, 10), 5);
        // It fails alone, and so does a pad.
        var padded = On(ElectricSupply.Battery) with
        {
            Parts = [.. On(ElectricSupply.Battery).Parts.Select(p => p.Id == "tank" ? p with { Pad = Pad.Usual with { OnC = 70, OffC = 80 } } : p)],
        };
        PlanEvent alone = new("a", PlanEventKind.HeatFails, 5, PartId: "heater"), pad = alone with { PartId = "tank" };
        Assert.Equal(-4000, Wh(Of(padded, alone), "heater", 0, 10), 10);
        Assert.True(Of(padded, alone).Heat.PumpS["pump"][8] > 0 && Of(padded, alone).Heat.PadWh["tank"][8] > 0);
        Assert.Equal((0.0, true), (Of(padded, pad).Heat.PadWh["tank"][8], Wh(Of(padded, pad), "heater", 8, 9) < -100));
        var use = HeatingStudy.Ask(new Question(rig, Night(rig, mains))).Energy;
        Assert.Equal(1600, use.Single(e => e.Kind == EnergyKind.Mains).UntilMorning, 5);
        Assert.DoesNotContain(HeatingStudy.Ask(new Question(On(ElectricSupply.Surplus), Night(rig, Drive))).Energy, e => e.Kind == EnergyKind.Mains);
    }

    /// <summary>20 L that an element of 800 W keeps at 55 °C: what a shower of 38 °C drew of them at 10 °C takes so many Wh again.</summary>
    [Fact]
    public void An_element_in_a_calorifier_has_its_store_hot_again()
    {
        var rig = new RigBuilder().Part("boiler", "calorifier", ("cold", 0, 0.1, 0.1), ("hot", 0, 0.2, 0.3)).Build();
        rig = rig with { Parts = [.. rig.Parts.Select(p => p with { Pad = Pad.UsualElement })] };
        Assert.Empty(RigCheck.Check(rig));
        var question = new Question(rig, Night(rig, new PlanEvent("m", PlanEventKind.Mains, 0)));
        var store = HeatingStudy.Ask(question).HotWater.Single();
        HotStores.At(20, 55, 10, 38, out double drawnL);
        Assert.Equal(55, store.HotC);
        Assert.Equal(drawnL * 1.152 * 45 / 800 * Hour, store.RecoversS!.Value, 0.03 * store.RecoversS.Value);
        Assert.True(question.Ask(RigNight.Of).Heat.PadWh["boiler"].Sum() > 200);
        // Not plugged in, it is told as it was heated before, and when it is hot again is not.
        var unplugged = HeatingStudy.Ask(new Question(rig, Night(rig))).HotWater.Single();
        Assert.Null(unplugged.RecoversS);
        Assert.Contains("Nothing heats it on this night", unplugged.Words.Text);
    }

    [Fact]
    public void A_plate_exchanger_makes_what_its_plates_or_its_heater_allow()
    {
        // One transfer unit and as much heat carried on both sides: half of the difference.
        Assert.Equal(45, Exchangers.LeavesC(700, 700, 700, 80, 10), 1e-6);
        // Plates without end: the water leaves as hot as the fluid comes.
        Assert.Equal(80, Exchangers.LeavesC(1e6, 700, 300, 80, 10), 1e-3);
        // By plain steps: fluid from one end, water from the other, cut into lengths.
        const int lengths = 4000;
        double water = 80 - 1e-9, fluid = 0;
        (double low, double high) = (10, 80);
        for (int i = 0; i < 60; i++)
        {
            (double t, double f) = (water = (low + high) / 2, 80);
            for (int n = 0; n < lengths; n++)
            {
                double w = 600.0 / lengths * (f - t);
                (t, f) = (t - (w / 250), f - (w / 400));
            }
            (low, high) = t > 10 ? (low, water) : (water, high);
            fluid = f;
        }
        Assert.Equal(water, Exchangers.LeavesC(600, 400, 250, 80, 10), 0.05);
        Assert.Equal(250 * (water - 10), 400 * (80 - fluid), 10.0);

        var rig = HeaterLoop("coolant-heater", "exchanger-side", ("in", 0.1, 0.8, 0.1), ("out", 0.1, 0.75, 0.1))
            .Part("plates", "plate-exchanger", ("in", 0.1, 0.75, 0.1), ("out", 0.12, 0.75, 0.12)).Build();
        rig = rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "plates" ? p with { Box = new Box(new(0.05, 0.7, 0), new(0.2, 0.2, 0.3)) } : p)],
        };
        var question = new Question(rig, Night(rig));
        var draw = HeatingStudy.Ask(question).HotDraws.Single();
        // 5 kW from 10 to 38 °C.
        Assert.True(draw.ByHeater);
        Assert.Equal(5000 / (4150 * 28.0) * 60, draw.LPerMin, 0.03);
        // Its water does not freeze while the loop runs.
        var night = question.Ask(RigNight.Of);
        Assert.True(night.WaterC(night.Morning, night.Numbers()["plates"]) > 30);
        var finding = Adviser.Ask(question).Findings.Single(f => f.Kind == FindingKind.SingleWall);
        Assert.Equal(Severity.Warning, finding.Severity);
        Assert.DoesNotContain(Adviser.Ask(new Question(Editor.Apply(rig, finding.Mends![0].Edits).Rig, Night(rig))).Findings,
            f => f.Kind == FindingKind.SingleWall);
        // Joined to an engine it is a fault.
        var poisoned = EngineLoop().Build();
        Assert.Equal(Severity.Fault, Adviser.Ask(new Question(poisoned, Night(poisoned))).Findings.Single(f => f.Kind == FindingKind.SingleWall).Severity);
    }

    [Fact]
    public void A_floor_loop_warms_the_room_over_it_by_its_layers()
    {
        var plywood = new FloorLoop(new Sleeve("plywood", 0.012), new Sleeve("xps", 0.03));
        Assert.Equal(2.2, plywood.UpWPerMK(), 1e-9);
        // 25 mm: 13 mm of plywood more over a strip of 0.2 m.
        Assert.Equal(1 / ((1 / 2.2) + (0.013 / 0.13 / 0.2)), (plywood with { Cover = new Sleeve("plywood", 0.025) }).UpWPerMK(), 1e-9);
        Assert.True(plywood.DownWPerMK() < (plywood with { Below = null }).DownWPerMK());
        var rig = HeaterLoop("coolant-heater", "header-tank", ("in", 0.6, 0.25, 0.1), ("out", 0.6, 0.2, 0.1)).Build();
        Rig Floored(FloorLoop? floor) => rig with { Runs = [.. rig.Runs.Select(r => r.Id == "b" ? r with { Floor = floor } : r)] };
        var (bare, floor) = (Of(rig), Of(Floored(plywood)));
        var line = HeatingStudy.Ask(new Question(Floored(plywood), Night(rig))).Lines.Where(l => l.RunId == "b").ToList();
        var air = floor.AirC(rig.Shell.Zones[0], 8);
        double metres = new Question(rig, Night(rig)).Index.PipeLengthM(rig.Runs.Find("b")!), up = line[^1].HeatW[8];
        Assert.Equal(2.2 * metres * (((line[^1].InC[8] + line[^1].OutC[8]) / 2) - air)!.Value, up, 0.02 * up);
        Assert.True(air > bare.AirC(rig.Shell.Zones[0], 8));
        Assert.Contains(HeatingStudy.Ask(new Question(Floored(plywood), Night(rig))).Notes, n => n.Text.Contains("Bare feet", StringComparison.Ordinal));
        Assert.Equal("runs[0].floor", RigCheck.Check(rig with
        {
            Runs = [.. rig.Runs.Select(r => r.Id == "a" ? r with { Floor = plywood, Service = Service.Cold } : r)],
        }).First(f => f.Path.EndsWith("floor", StringComparison.Ordinal)).Path);
    }

    [Fact]
    public void Batteries_that_frost_reaches_are_told()
    {
        var rig = EngineLoop().Build();
        var cold = rig with
        {
            Shell = rig.Shell with { KeepOuts = [new KeepOut("box", "battery box", KeepOutKind.Electrics, new Box(new(0.5, 0.5, 0.1), new(0.2, 0.2, 0.2)))] },
        };
        IEnumerable<Finding> Told(double outdoorC) => Adviser.Ask(new Question(cold, Night(cold) with { OutdoorC = outdoorC })).Findings
            .Where(f => f.Kind == FindingKind.ColdBattery);
        var night = new Question(cold, Night(cold)).Ask(RigNight.Of);
        Assert.Equal(Enumerable.Range(0, night.Morning + 1).Min(r => night.AirC(cold.Shell.Zones[0], r)), Told(-10).Single().Number!.Value!.Value, 1e-9);
        Assert.Empty(Told(8));
        // Heat alone keeps frost out of what gives none.
        var begun = new RigBuilder().Part("tap", "mixer", ("cold", 1, 1, 1)).Part("w", "pump", ("in", 1, 1.5, 0), ("out", 1.2, 1.5, 0)).Build().Parts;
        var bare = cold with
        {
            Brief = cold.Brief with { School = FreezeSchool.Heat },
            Shell = cold.Shell with { Zones = [.. cold.Shell.Zones.Select(z => z with { Heater = null })] },
            Parts = [.. cold.Parts, .. begun],
        };
        bool Lacks(Rig of) => Adviser.Ask(new Question(of, Night(of))).Findings.Any(f => f.Id == "school:heat-source");
        Assert.True(Lacks(bare));
        Assert.False(Lacks(bare with { Parts = [.. bare.Parts.Select(p => p.Id == "tank" ? p with { Pad = Pad.Usual } : p)] }));
        // Lantern's are kept from frost by its heat, and reached by it when that fails.
        var lantern = DemoRigs.Of("lantern");
        bool Reached(bool heatOn) => Adviser.Ask(new Question(lantern, Conditions.Of(lantern.Brief) with { HeatOn = heatOn, Hours = 72 })).Findings
            .Any(f => f.Kind == FindingKind.ColdBattery);
        Assert.Equal((false, true), (Reached(true), Reached(false)));
    }
}
