using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;
using static WarmConduit.Core.Tests.Studies.Asking;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Random circuits, what is found about them, and what is refused.</summary>
public class HeatingRuleTests
{
    private const double Hour = 3600;

    private static readonly Rig Lantern = DemoRigs.Of("lantern");

    /// <summary>A heater and a circulator before one to four branches side by side, each with a radiator or a coil in the tank, some behind a valve that is
    /// shut.</summary>
    private static Rig Random(int seed)
    {
        var random = new Random(seed);
        double Even(double low, double high) => low + ((high - low) * random.NextDouble());
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
            .Part("heater", "coolant-heater", ("in", 1, 0, 0.1), ("out", 1, 0.05, 0.1))
            .Part("pump", "circulator", ("in", 1.1, 0.05, 0.1), ("out", 1.2, 0.05, 0.1))
            .Run("out", Service.Coolant, "epdm-5/8", "heater.out", "pump.in");
        string from = "pump.out", back = "heater.in";
        int branches = random.Next(1, 5);
        for (int b = 0; b < branches; b++)
        {
            double x = 1.5 + b;
            if (b + 1 < branches)
            {
                rig.Part($"s{b}", "tee", ("a", x, 0.05, 0.1), ("b", x + 0.1, 0.05, 0.1), ("c", x, 0.15, 0.1))
                    .Part($"r{b}", "tee", ("a", x, 0, 0.1), ("b", x + 0.1, 0, 0.1), ("c", x, -0.1, 0.1))
                    .Run($"to{b}", Service.Coolant, "epdm-5/8", from, $"s{b}.a").Run($"back{b}", Service.Coolant, "epdm-5/8", $"r{b}.a", back);
            }
            string supply = b + 1 < branches ? $"s{b}.c" : from, home = b + 1 < branches ? $"r{b}.c" : back, gives = $"g{b}";
            bool coil = random.Next(2) == 0, valve = random.Next(2) == 0;
            if (coil) rig.Part(gives, "coolant-coil", ("in", 0.2, 0.1, 0.1), ("out", 0.2, 0.15, 0.1));
            else rig.Part(gives, random.Next(2) == 0 ? "radiator" : "panel-radiator", ("in", x, Even(0.5, 2), 0.1), ("out", x + 0.1, Even(0.5, 2), 0.1));
            if (valve)
                rig.Part($"v{b}", "ball-valve-22", ("a", x, 0.3, 0.1), ("b", x, 0.4, 0.1)).Run($"to-v{b}", Service.Coolant, "epdm-5/8", supply, $"v{b}.a");
            rig.Run($"in{b}", Service.Coolant, "epdm-3/4", valve ? $"v{b}.b" : supply, $"{gives}.in")
                .Run($"home{b}", Service.Coolant, "epdm-5/8", $"{gives}.out", home);
            (from, back) = ($"s{b}.b", $"r{b}.b");
        }
        var built = rig.Build();
        Setting[] shut = [.. built.Parts.Where(p => p.Stock == "ball-valve-22" && random.Next(3) == 0).Select(p => new Setting(p.Id, Positions.Closed))];
        return built with
        {
            Scenarios = [.. built.Scenarios.Where(s => s.Kind != ScenarioKind.InUse), built.ScenarioOf(ScenarioKind.InUse) with { Settings = shut.InOrder() }],
        };
    }

    [Fact]
    public void Random_circuits_keep_flow_and_heat_and_what_is_shut_gives_nothing()
    {
        for (int seed = 0; seed < 40; seed++)
        {
            var rig = Random(seed);
            var question = new Question(rig, Conditions.Of(rig.Brief) with { OutdoorC = -8, HeatOn = true, Water = WaterState.Wet, Hours = 6 });
            var (night, answer) = (question.Ask(RigNight.Of), HeatingStudy.Ask(question));
            Assert.InRange(night.Answer.Balance.Gap(), 0, 1e-3);
            var shut = rig.ScenarioOf(ScenarioKind.InUse).Settings.Select(s => s.Id[1..]).ToHashSet();
            foreach (var part in rig.Parts.Where(p => p.Id[0] == 'g'))
            {
                var told = answer.Parts.FirstOrDefault(p => p.PartId == part.Id);
                if (shut.Contains(part.Id[1..])) Assert.True(told is null || told.HeatW.All(w => Math.Abs(w) < 0.5), $"{seed} {part.Id}");
                else Assert.True(told is { LPerMin: [> 0.05, ..] }, $"{seed} {part.Id}");
            }
            if (answer.Lines.Count == 0) continue;
            // What comes to the heater is what all branches let through; what it gives is what lines and parts give off.
            var heater = answer.Parts.Single(p => p.Kind == HeatRole.Source);
            Assert.Equal(heater.LPerMin[3], answer.Parts.Where(p => p.Kind != HeatRole.Source).Sum(p => p.LPerMin[3]), 0.01);
            var row = night.Heat.Moments[3]!;
            Assert.Equal(0, row.Row.HeatW.Where(w => !double.IsNaN(w)).Sum(), 0.5);
            // Its lines are those with flow, and no others.
            var heat = RigHeat.Of(question);
            double most = heat.Flow!.FlowM3PerS.Max(Math.Abs);
            Assert.Equal(heat.Net.Runs.Where(r => Math.Abs(heat.Flow.FlowM3PerS[heat.Net.EdgeOfRun(r.Id)]) > 1e-6 * most).Select(r => r.Id).Order(),
                answer.Lines.Select(l => l.RunId).Distinct().Order());
        }
    }

    [Fact]
    public void Fluid_that_freezes_is_a_fault_and_its_mend_fills_enough()
    {
        Rig Filled(double glycol) => Lantern with { Brief = Lantern.Brief with { Choices = Lantern.Brief.Chosen() with { CoolantGlycol = glycol } } };
        IEnumerable<Finding> Of(Rig rig) => Adviser.Ask(new Question(rig, Conditions.Of(rig.Brief))).Findings.Where(f => f.Kind == FindingKind.CoolantFreezes);
        Assert.Empty(Of(Lantern));
        var thin = Assert.Single(Of(Filled(0.3)));
        Assert.Equal(GlycolWater.FreezingC(0.3), thin.Number!.Value);
        var mended = Editor.Apply(Filled(0.3), thin.Mends![0].Edits).Rig;
        Assert.Empty(Of(mended));
        Assert.True(GlycolWater.FreezingC(mended.Brief.Chosen().CoolantGlycol!.Value) < Lantern.Brief.LowestC - 1);
    }

    [Fact]
    public void A_radiator_that_cannot_hold_its_room_is_told_and_one_that_can_is_not()
    {
        HeatShortAnswer Of(Rig rig) => new Question(rig, Conditions.Of(rig.Brief)).Ask(ShortHeat.Of);
        Assert.Empty(Of(Lantern).Heaters);
        var small = With(With(Lantern, "rad-living", p => p with { Heat = new PartHeat(RatedW: 300) }), "rad-wet",
            p => p with { Heat = new PartHeat(RatedW: 100) });
        var told = Of(small).Heaters.First(h => h.ZoneId == "living");
        Assert.True(told.PowerW < told.NeededW);
        Assert.Contains(Adviser.Ask(new Question(small, Conditions.Of(small.Brief))).Findings,
            f => f is { Kind: FindingKind.HeatShort, Place.ZoneId: "living" });
    }

    [Fact]
    public void What_stops_gives_nothing_from_then_on()
    {
        RigNight At(params PlanEvent[] events) => new Question(Lantern, Conditions.Of(Lantern.Brief).Happening(events)).Ask(RigNight.Of);
        double After(RigNight night, string part) => -night.Heat.PartWh[part].Skip(4).Sum();
        var (on, fuel, battery) = (At(), At(new PlanEvent("e", PlanEventKind.FuelOut, 4)), At(new PlanEvent("e", PlanEventKind.BatteryOut, 4)));
        Assert.True(After(on, "heater") > 5000);
        Assert.Equal(0, After(fuel, "heater"), 1e-6);
        Assert.Equal(0, After(battery, "heater"), 1e-6);
        // Without fuel the pump goes on, and carries what is warm to what is cold; without a battery it rests.
        Assert.Equal((Hour, 0.0), (fuel.Heat.PumpS.Values.Max(s => s[6]), battery.Heat.PumpS.Values.Max(s => s[6])));
        Assert.True(fuel.Heat.Moments[6] is not null && battery.Heat.Moments[6] is null);
        Assert.True(fuel.AirC(Lantern.Shell.Zones.Find("duct"), 6) > battery.AirC(Lantern.Shell.Zones.Find("duct"), 6));
        // Set back, the room is let go to what is asked of it.
        var back = At(new PlanEvent("e", PlanEventKind.SetBack, 1, HoldC: 12));
        Assert.True(back.AirC(Lantern.Shell.Zones.Find("living"), 8) < on.AirC(Lantern.Shell.Zones.Find("living"), 8) - 1);
        Assert.True(After(back, "heater") < After(on, "heater"));
    }

    [Fact]
    public void Winters_side_by_side_are_those_of_one_after_the_other()
    {
        var night = Conditions.Of(Lantern.Brief) with { HeatOn = true };
        SeasonAnswer Of(int winters) => SeasonStudy.Ask(new Question(Lantern, night), new SeasonInput(WeatherPlace.KettleFell, winters));
        var (one, two) = (Of(1), Of(2));
        var again = Of(2);
        Assert.Equal(two.Weeks, again.Weeks);
        Assert.Equal(two.WintersThatBreak, again.WintersThatBreak);
        Assert.True(one.Weeks.Zip(two.Weeks).All(w => w.First.IceNights <= (2 * w.Second.IceNights) + 1e-9));
        // On its own loop it stands a winter; with the heat off it does not.
        Assert.True(two.Weeks.Sum(w => w.IceNights) < SeasonStudy.Ask(new Question(Lantern, night with { HeatOn = false }),
            new SeasonInput(WeatherPlace.KettleFell, 2)).Weeks.Sum(w => w.IceNights));
    }

    [Fact]
    public void A_heater_that_is_too_weak_is_told_beside_radiators_that_are_not()
    {
        Rig Heated(double watt) => Lantern with
        {
            Shell = Lantern.Shell with
            {
                Zones = [.. Lantern.Shell.Zones.Select(z => z.Id == "garage" ? z with { Heater = new ZoneHeater(watt, 15, true) } : z)],
            },
        };
        HeatShortAnswer Of(Rig rig) => new Question(rig, Conditions.Of(rig.Brief)).Ask(ShortHeat.Of);
        Assert.Equal(["garage"], Of(Heated(50)).Heaters.Select(h => h.ZoneId!));
        Assert.Empty(Of(Heated(20_000)).Heaters);
    }

    [Fact]
    public void Figures_that_make_no_sense_are_refused_at_their_field()
    {
        string[] Refused(Rig rig) => [.. RigCheck.Check(rig).Where(f => f.Essential).Select(f => f.Path)];
        int tank = Lantern.Parts.ToList().FindIndex(p => p.Id == "tank-a"), heater = Lantern.Parts.ToList().FindIndex(p => p.Id == "heater"),
            trace = Lantern.Runs.ToList().FindIndex(r => r.Id == "c-trace-2");
        Assert.Equal([$"parts[{tank}].pad.offC"], Refused(With(Lantern, "tank-a", p => p with { Pad = Pad.Usual with { OffC = 5 } })));
        Assert.Equal([$"parts[{tank}].pad.powerW"], Refused(With(Lantern, "tank-a", p => p with { Pad = Pad.Usual with { PowerW = 0 } })));
        Assert.Equal([$"parts[{heater}].heat.startsC"], Refused(With(Lantern, "heater", p => p with { Heat = new PartHeat(StartsC: 90) })));
        Assert.Equal([$"parts[{heater}].heat.leastW"], Refused(With(Lantern, "heater", p => p with { Heat = new PartHeat(LeastW: 9000) })));
        Rig Taped(params Trace[] traces) => Lantern with { Runs = [.. Lantern.Runs.Select(r => r.Id == "c-trace-2" ? r with { Traces = traces } : r)] };
        Assert.Equal([$"runs[{trace}].traces[0].id"], Refused(Taped(new Trace("nowhere", TraceKind.Plain))));
        Assert.Equal([$"runs[{trace}].traces[0].id"], Refused(Taped(new Trace("c-coil", TraceKind.Plain))));
        Assert.Empty(Refused(Taped(new Trace("link-a", TraceKind.SpreadingPlate), new Trace("link-b", TraceKind.Plain))));
    }
}
