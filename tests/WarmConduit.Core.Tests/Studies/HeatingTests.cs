using System.Text.Json;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Heat;
using WarmConduit.Core.Tests.Reference;
using WarmConduit.Core.Tests.Rigs;
using static WarmConduit.Core.Tests.Studies.Asking;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Circuits and pads of small rigs, by hand.</summary>
public class HeatingTests
{
    private const double Hour = 3600;

    private static readonly Box TankBox = new(new(0, 0, 0), new(0.5, 0.4, 0.3));

    /// <summary>A heater, a circulator, and a coil in a tank of 60 L: 1 m there, 1 m back. The room is the builder's own.</summary>
    private static RigBuilder Loop(double backM = 1) => new RigBuilder().Tank("tank", TankBox, ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
        .Part("heater", "coolant-heater", ("in", 1.5, 0.2, 0.1), ("out", 1.5, 0.25, 0.1))
        .Part("pump", "circulator", ("in", 1.4, 0.25, 0.1), ("out", 1.3, 0.25, 0.1))
        .Part("coil", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1))
        .Run("a", Service.Coolant, "epdm-5/8", "heater.out", "pump.in").Run("b", Service.Coolant, "epdm-5/8", "pump.out", "coil.in")
        .Run("c", Service.Coolant, "epdm-5/8", "coil.out", "heater.in", [.. backM > 1 ? [new Point3(1, 0.2 + (backM / 2), 0.1)] : (Point3[])[]]);

    private static Conditions Night(Rig rig, bool heatOn = true) => Conditions.Of(rig.Brief) with
    {
        OutdoorC = -10,
        WindMPerS = 0,
        HeatOn = heatOn,
        Water = WaterState.Wet,
        Hours = 8,
        StartWaterC = 10,
    };

    /// <summary>The same night with the circuit written down by hand: 5 kW up to 80 °C, hose with the loss of a metre by ISO 12241, the coil's 140 W/K on 60
    /// L of
    /// water.</summary>
    [Fact]
    public void A_rig_does_what_the_engine_does_with_its_circuit_written_down()
    {
        var rig = Loop().Build();
        var question = new Question(rig, Night(rig));
        var night = question.Ask(RigNight.Of);
        var heat = RigHeat.Of(question);
        double kg = heat.Flow!.FlowM3PerS[heat.Net.EdgeOfRun("b")] * RigHeat.Fluid(0.5, 60).DensityKgPerM3, cp = RigHeat.Fluid(0.5, 60).HeatCapacityJPerKgK;
        Assert.InRange(kg * 60, 5, 20);

        var segment = NightCourse.At(question.Conditions, 0) with { FromS = 0, ToS = 12 * Hour };
        var network = RigNetwork.Of(question, night.Candidates, night.Weather, segment, Uncertainty.None,
            LaidCircuits.Of(question, night.Candidates, segment, Uncertainty.None), out _);
        string room = RigNetwork.IdOf(rig.Shell.Zones[0].Id);
        double share = 0.5, perM = question.Films.Of(Catalogue.Pipe("epdm-5/8")!, null, false).Sum(f => f.Size * f.Film.WPerK(60, 5, 0, ref share));
        Run Of(string id) => rig.Runs.Find(id)!;
        NightReach Pipe(string id, string from, string to) => new(id, from, to, kg, room, perM * question.Index.PipeLengthM(Of(id)));
        var byHand = network with
        {
            Circuits =
            [
                new NightCircuit("by-hand", cp,
                [
                    new("heater", "1", "2", kg, Heater: new NightFluidHeater(5000, 80, [NightWindow.Always])), Pipe("a", "2", "3"), Pipe("b", "3", "4"),
                    new("coil", "4", "5", kg, "tank", 140), Pipe("c", "5", "1"),
                ], [NightWindow.Always]),
            ],
        };
        var answer = NightEngine.Run(byHand, new NightOptions(1800, 60, night.Answer.ReportS));
        int body = network.Bodies.ToList().FindIndex(b => b.Id == "tank"), tank = night.Numbers()["tank"];
        for (int r = 0; r < night.Answer.ReportS.Count; r++)
        {
            Assert.Equal(answer.BodyC[r, body], night.WaterC(r, tank), 0.15);
            Assert.Equal(answer.ZoneC[r, 0], night.AirC(rig.Shell.Zones[0], r), 0.15);
        }
        // The rig's translation, run, is that circuit stepped plainly: to what the reference cases are held to.
        var constants = new NightConstants(4200, 2060, 333_600, 2.22);
        double[] hours = [.. NightOptions.Every(Hour, 4 * Hour)];
        var translated = NightEngine.Run(network with { Constants = constants, EndS = 4 * Hour }, new NightOptions(1800, 60, hours));
        var (zoneC, bodyC, _) = new PlainNight(byHand with { Constants = constants, EndS = 4 * Hour }).Run(hours, 0.5);
        for (int h = 0; h < hours.Length; h++)
        {
            Assert.Equal(zoneC[h, 0], translated.ZoneC[h, 0], 0.15);
            for (int b = 0; b < network.Bodies.Count; b++) Assert.Equal(bodyC[h, b], translated.BodyC[h, b], 0.15);
        }
        double given = -night.Heat.PartWh["heater"].Sum(), byHandWh = answer.Circuits[0].Rows[^1].GivenWh[0];
        Assert.Equal(byHandWh, given, 0.02 * byHandWh);
        // 60 L from 10 °C take 1163 Wh per 16.6 K: what the coil gave is in the tank, but for what that lost.
        double rose = night.WaterC(night.Answer.ReportS.Count - 1, tank) - 10;
        Assert.InRange(night.Heat.PartWh["coil"].Sum(), 60 * 1.163 * rose, 60 * 1.163 * rose * 2.2);
        Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-6);
    }

    [Fact]
    public void Stepped_plainly_the_demo_with_its_circuits_comes_to_the_same()
    {
        var rig = DemoRigs.Of("lantern");
        var question = new Question(rig, Conditions.Of(rig.Brief) with { WindMPerS = 0 });
        var night = question.Ask(RigNight.Of);
        var segment = NightCourse.At(question.Conditions, 0) with { FromS = 0, ToS = Hour / 4 };
        var network = RigNetwork.Of(question, night.Candidates, night.Weather, segment, Uncertainty.None,
            LaidCircuits.Of(question, night.Candidates, segment, Uncertainty.None), out _);
        // Without fans, about which fluid that is sent round never comes to rest; the thinnest drops are left out, that plain steps swing about.
        network = network with
        {
            Circuits = [.. network.Circuits.Select(c => c with
            {
                Reaches = [.. c.Reaches.Select(r => r.Emission is { } e ? r with { Emission = e with { FanFromC = -1000 } } : r)],
            })],
            Constants = new NightConstants(4200, 2060, 333_600, 2.22),
        };
        var reports = NightOptions.Every(Hour / 8, Hour / 4);
        var answer = NightEngine.Run(network, new NightOptions(60, 1, reports));
        var (zoneC, bodyC, _) = new PlainNight(network).Run(reports, 0.5);
        for (int r = 0; r < reports.Count; r++)
        {
            for (int z = 0; z < network.Zones.Count; z++) Assert.Equal(zoneC[r, z], answer.ZoneC[r, z], 0.15);
            for (int b = 0; b < network.Bodies.Count; b++) Assert.Equal(bodyC[r, b], answer.BodyC[r, b], 0.3);
        }
        Assert.InRange(answer.Balance.Gap(), 0, 1e-3);
    }

    /// <summary>The loop in the open, its tank with a loss that is typed, heated for three hours: a case of night_loop, solved apart.</summary>
    [Fact]
    public void A_rig_that_is_a_case_of_nights_with_loops_comes_to_what_was_solved_for_it()
    {
        var rig = With(Loop(6).Build(), "tank", p => p with { LossWPerK = 40 });
        rig = rig with { Shell = rig.Shell with { Zones = [] } };
        var question = new Question(rig, Night(rig) with { Hours = 12, Events = [new("stop", PlanEventKind.HeatFails, 3)] });
        var night = question.Ask(RigNight.Of);
        var (input, expected) = Cases.Of("night_loop_rig").Single();
        var solved = NightCase.Read(input);

        // Its figures are the case's.
        var moment = night.Heat.Moments[1]!;
        double Sum(IEnumerable<NightReach> reaches, string to) => reaches.Where(r => r.Target == to).Sum(r => r.ConductanceWPerK);
        foreach (string to in (string[])["tank", "outdoor"])
            Assert.Equal(Sum(solved.Circuits[0].Reaches, to), Sum(moment.Reaches, to), 1e-3);
        Assert.Equal(solved.Circuits[0].Reaches[0].KgPerS * solved.Circuits[0].JPerKgK, moment.Reaches[0].KgPerS * RigHeat.Of(question).JPerKgK, 0.1);
        Assert.Equal((solved.Bodies.Count, solved.Bodies[0].StartC, solved.Bodies[0].WaterKg), (night.Candidates.Count, 10, 60));

        var check = new Cases.Checker { Row = "loop-rig" };
        int heater = moment.Pieces.ToList().FindIndex(p => p.PartId == "heater");
        foreach (var row in expected.Rows("rows"))
        {
            double at = row.Num("time_s");
            int r = night.Answer.ReportS.ToList().IndexOf(at);
            var (body, loop) = (row.GetProperty("bodies").GetProperty("tank"), row.GetProperty("loops").GetProperty("circuit"));
            check.Near($"tank at {at}", body.Num("temperature_C"), night.WaterC(r, 0), 0, 0.15);
            check.Near($"ice at {at}", body.Num("iceFraction"), night.Ice(r, 0), 0, 0.02);
            check.Near($"heat at {at}", loop.Num("given_Wh"), -night.Heat.PartWh["heater"].Take((int)(at / Hour)).Sum(), 0.02, 1);
            if (loop.GetProperty("supply_C").ValueKind == JsonValueKind.Null) check.Same<HeatMoment?>($"rest at {at}", null, night.Heat.Moments[r]);
            else check.Near($"supply at {at}", loop.Num("supply_C"), night.Heat.Moments[r]!.Row.OutC[heater], 0, 0.5);
        }
        check.Near("first ice", expected.GetProperty("firstIce_s").Num("tank"), night.Marks(0).FirstIceS, 0.02, 60);
        Assert.True(check.Off.Count == 0, string.Join('\n', check.Off));
    }

    [Fact]
    public void A_thermostat_holds_a_tank_and_a_stopped_pump_gives_nothing()
    {
        var rig = Loop().Build();
        var held = With(rig, "coil", p => p with { Heat = new PartHeat(HoldC: 25) });
        HeatingAnswer Ask(Rig of, bool on = true) => HeatingStudy.Ask(new Question(of, Night(of, on)));
        double Tank(Rig of, bool on = true)
        {
            var night = new Question(of, Night(of, on)).Ask(RigNight.Of);
            return night.WaterC(night.Morning, night.Numbers()["tank"]);
        }
        Assert.True(Tank(rig) > 60);
        Assert.Equal(25, Tank(held), 0.6);
        Assert.Contains(Adviser.Ask(new Question(rig, Night(rig))).Findings, f => f.Kind == FindingKind.TooHot && f.Place?.PartId == "tank");
        var hot = Adviser.Ask(new Question(rig, Night(rig))).Findings.Single(f => f.Id == "hot:tank");
        Assert.DoesNotContain(Adviser.Ask(new Question(Editor.Apply(rig, hot.Mends![0].Edits).Rig, Night(rig))).Findings, f => f.Kind == FindingKind.TooHot);

        Assert.Empty(Ask(rig, on: false).Parts);
        var stopped = rig with
        {
            Scenarios = [.. rig.Scenarios.Where(s => s.Kind != ScenarioKind.InUse),
                rig.ScenarioOf(ScenarioKind.InUse) with { Settings = [new Setting("pump", Positions.Off)] }],
        };
        Assert.Empty(Ask(stopped).Lines);
        Assert.Contains("No pump", Ask(stopped).Notes[0].Text);
        Assert.Equal(Tank(rig, on: false), Tank(stopped, on: false), 1e-9);
    }

    [Fact]
    public void Colder_outdoors_never_warms_and_heat_given_is_heat_kept_or_lost()
    {
        var rig = With(Loop(6).Build(), "coil", p => p with { Heat = new PartHeat(HoldC: 20) });
        RigNight At(double outdoorC) => new Question(rig, Night(rig) with { OutdoorC = outdoorC }).Ask(RigNight.Of);
        RigNight[] nights = [.. new[] { 5.0, 0, -5, -10, -20 }.Select(At)];
        for (int i = 1; i < nights.Length; i++)
            for (int r = 0; r < nights[i].Answer.ReportS.Count; r++)
            {
                Assert.True(nights[i].AirC(rig.Shell.Zones[0], r) <= nights[i - 1].AirC(rig.Shell.Zones[0], r) + 0.02);
                Assert.True(nights[i].WaterC(r, 0) <= nights[i - 1].WaterC(r, 0) + 0.1);
            }
        foreach (var night in nights) Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-6);
    }

    [Fact]
    public void More_flow_never_cools_the_last_metre()
    {
        double before = double.NegativeInfinity;
        foreach (double free in (double[])[4, 8, 12, 20])
        {
            var rig = With(With(Loop(8).Build(), "pump", p => p with { Flow = new PartFlow(FreeLPerMin: free) }), "heater",
                p => p with { Heat = new PartHeat(PowerW: 50_000) });
            var answer = HeatingStudy.Ask(new Question(rig, Night(rig)));
            var last = answer.Lines.Last(l => l.RunId == "c");
            Assert.True(last.OutC[4] >= before - 1e-3);
            before = last.OutC[4]!.Value;
        }
    }

    /// <summary>60 L in a room of -10 °C: the pad gives what the tank loses at 7 °C, no more, once it is there.</summary>
    [Fact]
    public void A_pad_holds_a_tank_where_it_goes_on_and_no_warmer()
    {
        var bare = Loop().Build();
        var rig = With(bare, "tank", p => p with { Pad = new Pad(200, 7, 18, ElectricSupply.Battery, 0.2) });
        Conditions cold = Night(rig, heatOn: false) with { Hours = 72 };
        var night = new Question(rig, cold).Ask(RigNight.Of);
        int tank = night.Numbers()["tank"];
        Assert.Equal(7, night.WaterC(night.Morning, tank), 0.6);
        Assert.True(new Question(bare, cold).Ask(RigNight.Of) is var without && without.WaterC(without.Morning, without.Numbers()["tank"]) < 1);
        // Steady by then: its watts are what the tank loses to the room.
        double share = 0.5, airC = night.AirC(rig.Shell.Zones[0], night.Morning), waterC = night.WaterC(night.Morning, tank);
        double loss = night.Candidates[tank].Body(cold, z => z ?? "outdoor").Contacts.Sum(c => c.ConductanceWPerK
            + (c.Films ?? []).Sum(f => f.Size * f.Film.WPerK(waterC, airC, 0, ref share)));
        Assert.Equal(loss * (waterC - airC), night.Heat.PadWh["tank"][70], 0.08 * loss * (waterC - airC));
        // An empty battery, and mains that nobody plugged in, give nothing.
        double Given(Rig of, params PlanEvent[] events) =>
            new Question(of, cold with { Events = events }).Ask(RigNight.Of).Heat.PadWh.GetValueOrDefault("tank")?.Sum() ?? 0;
        Assert.Equal(0, Given(rig, new PlanEvent("e", PlanEventKind.BatteryOut, 0)));
        var mains = With(rig, "tank", p => p with { Pad = p.Pad! with { Supply = ElectricSupply.Mains } });
        Assert.Equal(0, Given(mains));
        Assert.True(Given(mains, new PlanEvent("e", PlanEventKind.Mains, 0)) > 100);
        // 400 W on 0.2 m² is 0.2 W on a square centimetre.
        var strong = With(rig, "tank", p => p with { Pad = p.Pad! with { PowerW = 400 } });
        Assert.Contains(Adviser.Ask(new Question(strong, cold)).Findings, f => f.Id == "pad:tank");
        Assert.DoesNotContain(Adviser.Ask(new Question(rig, cold)).Findings, f => f.Id == "pad:tank");
    }

    /// <summary>A kilowatt on a heater whose lowest stage is 1500 W: 36 kJ/K over 10 K cool in 360 s, and 500 W to spare warm them in 720 s.</summary>
    [Fact]
    public void Short_cycling_by_hand()
    {
        var heat = new PartHeat(PowerW: 5000, LeastW: 1500, StartsC: 70, StopsC: 80, DrawW: 35, StartW: 120, StartS: 120, RestS: 300);
        var cycle = HeaterCycle.Of(heat, 1000, 36_000);
        Assert.Equal(720.0 / 1080, cycle.OnShare, 1e-9);
        Assert.Equal(3600.0 / 1080, cycle.StartsPerHour, 1e-9);
        Assert.Equal((35 * 720.0 / 1080) + (3600.0 / 1080 * 85 * 120 / 3600), cycle.ElectricWh(heat), 1e-9);
        // With little fluid the rest that it must keep decides: 300 s, in which the load took 300 kJ, burnt back in 600 s.
        Assert.Equal(3600.0 / 900, HeaterCycle.Of(heat, 1000, 5000).StartsPerHour, 1e-9);
        Assert.Equal(new HeaterCycle(1, 0), HeaterCycle.Of(heat, 2000, 36_000));
        Assert.Equal(default, HeaterCycle.Of(heat, 0, 36_000));
    }

    [Fact]
    public void What_a_night_uses_is_the_sum_of_its_hours_and_runs_out_when_they_say()
    {
        var rig = DemoRigs.Of("lantern");
        var answer = HeatingStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));
        var heater = answer.Parts.Single(p => p.Kind == HeatRole.Source);
        var fuel = answer.Energy.Single(e => e.Kind == EnergyKind.Fuel);
        // 0.62 L/h at 5 kW.
        for (int h = 0; h < 8; h++) Assert.Equal(0.62 * heater.WhByHour[h] / 5000, fuel.ByHour[h], 1e-3);
        Assert.Equal(fuel.ByHour.Take(8).Sum(), fuel.UntilMorning, 1e-3);
        int hour = 0;
        double sum = 0;
        while (sum + fuel.ByHour[hour] <= 2) sum += fuel.ByHour[hour++];
        Assert.Equal(hour + ((2 - sum) / fuel.ByHour[hour]), fuel.EmptyS!.Value / Hour, 0.01);
        Assert.Equal(2 / fuel.UntilMorning, fuel.Nights!.Value, 1e-3);
        // It passes with heat, and not for long without.
        Assert.Equal(Verdict.Passes, FreezeLadderStudy.Ask(new Question(rig, Conditions.Of(rig.Brief))).Verdict);
        var plan = rig.Plans!.Find("fuel-out")!;
        var without = FreezeLadderStudy.Ask(new Question(rig, Conditions.Of(rig.Brief) with
        {
            PlanId = plan.Id,
            Hours = plan.Hours,
            StartHour = plan.StartHour,
        }));
        Assert.True(without.Rungs[0].FirstIceS > 5 * Hour);
        Assert.Equal(5 * Hour, NightCourse.HeatStopsS(rig, Conditions.Of(rig.Brief).Happening(plan.Events), 14 * Hour));
    }

    // Water that lies still in a cold room, a hose of the loop along two metres of it.
    private static Rig Taped(TraceKind? kind, bool wrapped = false, Sleeve? its = null, Sleeve? own = null, double pastM = 1)
    {
        var rig = Loop(6).Part("x", "end-cap", ("in", -pastM, 2, 0.1)).Part("y", "end-cap", ("in", 2 + pastM, 2, 0.1)).Run("water", "x.in", "y.in")
            .Run("c", Service.Coolant, "epdm-5/8", "coil.out", "heater.in", new Point3(0, 2, 0.125), new Point3(2, 2, 0.125)).Build();
        return rig with
        {
            Runs = [.. rig.Runs.Select(r => r.Id switch
            {
                "c" => r with { Traces = kind is { } of ? [new Trace("water", of, wrapped)] : null, Insulation = own },
                "water" => r with { Insulation = its },
                _ => r,
            })],
        };
    }

    [Fact]
    public void One_sleeve_around_a_trace_and_its_line_loses_less_than_two_and_two_between_them_keep_its_heat_back()
    {
        var foam = new Sleeve("pe-foam", 0.013);
        var (water, trace) = (Catalogue.Pipe("pex-1/2")!, Catalogue.Pipe("epdm-5/8")!);
        (double ContactWPerMK, double LossWPerMK, double WaterC) Of(Rig rig)
        {
            var question = new Question(rig, Night(rig));
            var (candidates, segment) = (FreezeLadderStudy.Candidates(question), NightCourse.At(question.Conditions, 0));
            var taped = candidates.Where(f => f.Taped).Select(f => f.Id).ToHashSet();
            var laid = LaidCircuits.Of(question, candidates, segment, Uncertainty.None).All.Single();
            // What the fluid gives the water by the metre, and what it loses at its side.
            var touching = Enumerable.Range(0, laid.Pieces.Count).Where(n => laid.Pieces[n].Traced is not null).ToList();
            double metres = touching.Sum(n => Math.Abs(laid.Pieces[n].ToM - laid.Pieces[n].FromM));
            double Sum(int step) => touching.Sum(n => laid.Circuit.Reaches[n + step].ConductanceWPerK) / metres;
            var night = question.Ask(RigNight.Of);
            return (Sum(0), Sum(1), Enumerable.Range(0, night.Candidates.Count).Where(n => night.Candidates[n] is { Thing: "water", Taped: true })
                .Max(n => night.WaterC(night.Morning, n)));
        }
        var (bare, both, apart) = (Of(Taped(TraceKind.Plain)), Of(Taped(TraceKind.Plain, true, foam)), Of(Taped(TraceKind.Plain, false, foam, foam)));
        Assert.Equal((0.7, 0.7), (bare.ContactWPerMK, both.ContactWPerMK), (a, b) => Math.Abs(a.Item1 - b.Item1) + Math.Abs(a.Item2 - b.Item2) < 1e-6);
        // By hand: two sleeves in a row, of which a quarter face each other.
        double k = Catalogue.Solid("pe-foam")!.ConductivityWPerMK;
        double Around(double d) => Math.Log((d + 0.026) / d) / (2 * Math.PI * k);
        Assert.Equal(1 / ((1 / 0.7) + ((Around(water.OuterDiameterM) + Around(trace.OuterDiameterM)) / 0.25)), apart.ContactWPerMK, 1e-6);
        // And around both: a belt around two circles, shared by diameter. The wind does not reach in here.
        double sum = water.OuterDiameterM + trace.OuterDiameterM, belt = sum * (1 + (Math.PI / 2)) / Math.PI, share = trace.OuterDiameterM / sum;
        double wall = Math.Log(trace.OuterDiameterM / trace.InnerDiameterM) / (2 * Math.PI * trace.ConductivityWPerMK);
        var around = PipeHeat.Steady(new PipeSection(belt - 1e-9, belt, 1000, 0.013, k), 60, 5, 0);
        Assert.Equal(share / ((1 / around.ConductanceWPerMK) + (share * wall)), both.LossWPerMK, 0.02 * both.LossWPerMK);
        Assert.True(both.LossWPerMK < 0.8 * apart.LossWPerMK);
        Assert.True(both.WaterC > bare.WaterC + 3 && bare.WaterC > apart.WaterC, $"{both.WaterC} {bare.WaterC} {apart.WaterC}");
        // Where they lie apart it is told that one sleeve would do.
        var cold = Taped(TraceKind.Plain, false, foam, foam, -0.05);
        var night = Night(cold) with { OutdoorC = -25 };
        string told = HeatingStudy.Ask(new Question(cold, night)).Traced.Single().Words.Print(Core.Units.UnitSystem.Metric);
        Assert.Contains("One sleeve around both would hold it", told, StringComparison.Ordinal);
    }

    [Fact]
    public void A_trace_warms_the_metres_that_it_touches_and_tells_the_rest()
    {
        RigNight At(TraceKind? kind) => new Question(Taped(kind), Night(Taped(kind))).Ask(RigNight.Of);
        double Morning(TraceKind? kind, bool taped)
        {
            var night = At(kind);
            return Enumerable.Range(0, night.Candidates.Count).Where(n => night.Candidates[n].Thing == "water" && night.Candidates[n].Taped == taped)
                .Max(n => night.WaterC(night.Morning, n));
        }
        double bare = Morning(null, taped: false);
        Assert.True(bare < Morning(TraceKind.Plain, taped: true) - 3);
        Assert.True(Morning(TraceKind.Plain, true) < Morning(TraceKind.AluminiumTape, true)
            && Morning(TraceKind.AluminiumTape, true) < Morning(TraceKind.SpreadingPlate, true));
        // The metres beside it are as cold as they were, but for a room that the loop has warmed.
        foreach (var kind in Enum.GetValues<TraceKind>()) Assert.Equal(bare, Morning(kind, taped: false), 0.5);
        var rig = Taped(TraceKind.Plain);
        // 0.7 W/mK over the two metres that lie against it; the other two it does not touch.
        var question = new Question(rig, Night(rig));
        var (candidates, segment) = (FreezeLadderStudy.Candidates(question), NightCourse.At(question.Conditions, 0));
        Assert.Equal(2, candidates.Where(f => f is { Thing: "water", Taped: true }).Sum(f => f.LengthM), 0.15);
        Assert.Equal(4, candidates.Where(f => f.Thing == "water").Sum(f => f.LengthM), 1e-6);
        var taped = candidates.Where(f => f.Taped).Select(f => f.Id).ToHashSet();
        var laid = LaidCircuits.Of(question, candidates, segment, Uncertainty.None).All.Single();
        Assert.Equal(1.4, laid.Circuit.Reaches.Where(r => r.Target is { } t && taped.Contains(t)).Sum(r => r.ConductanceWPerK), 0.1);
        Assert.Equal(2, HeatingStudy.Ask(question).Traced.Single().BareM, 0.15);
        // Gone with its line.
        Assert.Null(Editor.Apply(rig, [new RemoveThing("runs/water")]).Rig.Runs.Find("c")!.Traces);
    }
}
