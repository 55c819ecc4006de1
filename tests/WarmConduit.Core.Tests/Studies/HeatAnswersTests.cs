using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Tests.Rigs;
using static WarmConduit.Core.Tests.Studies.Asking;
using static WarmConduit.Core.Tests.Studies.HeatSourceTests;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What is told of circuits and pads, by hand: where the heat goes, what is in them, and what is wrong with them.</summary>
public class HeatAnswersTests
{
    private const Service Coolant = Service.Coolant;
    private static readonly (string, double, double, double)[] CoilPorts = [("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1)];

    private static IReadOnlyList<Finding> Findings(Rig rig) => Adviser.Ask(new Question(rig, Night(rig))).Findings;

    /// <summary>Fluid holds no heat: what rooms, water and outdoors get in an hour is what heaters and pads give in it.</summary>
    [Fact]
    public void Where_the_heat_goes_adds_up_to_what_is_given()
    {
        var lantern = DemoRigs.Of("lantern");
        var warm = Pad.Usual with { OnC = 60, OffC = 70 };
        var padded = With(HeaterLoop("coolant-heater", "coolant-coil", CoilPorts).Build(), "tank", p => p with { Pad = warm });
        var road = EngineLoop().Build();
        foreach (var question in (Question[])[new(lantern, Conditions.Of(lantern.Brief)), new(padded, Night(padded)),
            new(road, Night(road, new PlanEvent("drive", PlanEventKind.Drive, 1, 3, SpeedMPerS: 0)))])
        {
            var answer = HeatingStudy.Ask(question);
            for (int h = 0; h < answer.Got[0].WhByHour.Count; h++)
            {
                double given = answer.Parts.Where(p => p.Kind is HeatRole.Source or HeatRole.Pad).Sum(p => p.WhByHour[h]);
                Assert.Equal(given, answer.Got.Sum(g => g.WhByHour[h]), 0.05 * (answer.Got.Count + answer.Parts.Count) + (1e-4 * given));
            }
            // A room gets what its radiators give, and what pipes lose in it.
            foreach (var zone in answer.Got.Where(g => g.Place == HeatPlace.Zone))
                Assert.True(zone.UntilMorningWh >= answer.Parts.Where(p => p.Kind == HeatRole.Emitter && p.Warms == zone.Id).Sum(p => p.UntilMorningWh) - 1);
            Assert.Equal(answer.Got.OrderByDescending(g => g.UntilMorningWh), answer.Got);
        }
        var places = HeatingStudy.Ask(new Question(lantern, Conditions.Of(lantern.Brief))).Got.Select(g => (g.Place, g.Id)).ToList();
        Assert.All([(HeatPlace.Zone, "living"), (HeatPlace.Part, "calorifier"), (HeatPlace.Part, "grey"), (HeatPlace.Zone, "seat")],
            p => Assert.Contains(p, places));
        Assert.Contains(places, p => p.Place == HeatPlace.Run);
    }

    /// <summary>150 W at 50 K over the room, to the power 1.3.</summary>
    [Fact]
    public void A_towel_ladder_gives_its_rated_output_by_the_power_of_1_3()
    {
        var rig = HeaterLoop("coolant-heater", "towel-ladder", ("in", 0.6, 0.4, 0.1), ("out", 1, 0.4, 0.1)).Build();
        var question = new Question(rig, Night(rig));
        var ladder = HeatingStudy.Ask(question).Parts.Single(p => p.PartId == "sink");
        double air = question.Ask(Core.Studies.Night.RigNight.Of).AirC(rig.Shell.Zones[0], 8), mean = (ladder.InC[8]!.Value + ladder.OutC[8]!.Value) / 2;
        Assert.Equal(150 * Math.Pow((mean - air) / 50, 1.3), ladder.HeatW[8], 0.01 * ladder.HeatW[8]);
    }

    /// <summary>Litres of hose and parts; two fifths of them glycol; twice what they swell by from 20 to 90 °C.</summary>
    [Fact]
    public void What_is_in_a_circuit_is_its_hose_and_its_parts()
    {
        var rig = HeaterLoop("coolant-heater", "coolant-coil", CoilPorts).Build();
        rig = rig with { Brief = rig.Brief with { Choices = rig.Brief.Chosen() with { CoolantGlycol = 0.4 } } };
        var answer = HeatingStudy.Ask(new Question(rig, Night(rig)));
        double metres = 0.1 + 1 + 1.2, litres = RigBuilder.BoreL(metres, "epdm-5/8") + 0.4 + 0.08 + 0.5;
        Assert.Equal(litres, answer.Litres, 0.005);
        Assert.Equal(0.4 * litres, answer.GlycolL, 0.003);
        double x = GlycolWater.MassFraction(0.4), swells = (GlycolWater.DensityKgPerM3(x, 20) / GlycolWater.DensityKgPerM3(x, 90)) - 1;
        Assert.InRange(swells, 0.03, 0.06);
        Assert.Equal(2 * swells * litres, answer.HeaderL, 0.002);
    }

    [Fact]
    public void Hot_coolant_in_plain_plastic_is_a_fault_and_its_mend_takes_a_hose_that_bears_it()
    {
        var rig = HeaterLoop("coolant-heater", "coolant-coil", CoilPorts).Run("b", Coolant, "pex-1/2", "pump.out", "sink.in").Build();
        var fault = Assert.Single(Findings(rig), f => f.Id == "heat:b");
        Assert.Equal((FindingKind.PipeUnfit, Severity.Fault), (fault.Kind, fault.Severity));
        Assert.Contains("scalds", fault.Caution, StringComparison.Ordinal);
        var mended = Editor.Apply(rig, fault.Mends!.Single().Edits).Rig;
        Assert.True(Catalogue.Pipe(mended.Runs.Find("b")!.Pipe)!.MaxC >= 110);
        Assert.DoesNotContain(Findings(mended), f => f.Kind == FindingKind.PipeUnfit);
    }

    /// <summary>Between two pumps with a branch each: one alone draws through the other's branch from behind.</summary>
    [Fact]
    public void A_branch_whose_flow_turns_round_is_told()
    {
        var rig = HeaterLoop("coolant-heater", "panel-radiator", ("in", 0.6, 0.6, 0.1), ("out", 0.7, 0.6, 0.1))
            .Part("s", "tee", ("a", 1.2, 0.25, 0.1), ("b", 1.15, 0.25, 0.1), ("c", 1.17, 0.3, 0.1))
            .Part("r", "tee", ("a", 1.2, 0.2, 0.1), ("b", 1.25, 0.2, 0.1), ("c", 1.22, 0.15, 0.1))
            .Part("second", "circulator", ("in", 1, 0.5, 0.1), ("out", 0.9, 0.5, 0.1))
            .Part("rad", "towel-ladder", ("in", 0.8, 0.9, 0.1), ("out", 0.9, 0.9, 0.1))
            .Run("b", Coolant, "epdm-5/8", "pump.out", "s.a").Run("one", Coolant, "epdm-5/8", "s.b", "sink.in").Run("c", Coolant, "epdm-5/8", "sink.out", "r.a")
            .Run("two", Coolant, "epdm-5/8", "s.c", "second.in").Run("three", Coolant, "epdm-5/8", "second.out", "rad.in")
            .Run("four", Coolant, "epdm-5/8", "rad.out", "r.c").Run("home", Coolant, "epdm-5/8", "r.b", "heater.in").Build();
        HeatMode Now(params Setting[] set) => ModesStudy.Ask(new Question(rig, Night(rig) with { HeatSettings = set })).Modes.Single(m => m.Now);
        string[] Turned(HeatMode mode) => [.. mode.Checks.Where(c => c.Text.Contains("turns round", StringComparison.Ordinal)).Select(c => c.Text)];
        // Alone, the second draws through the first radiator backwards and through the heater as before; the first alone turns nothing.
        string told = Assert.Single(Turned(Now(new("heater", "on"), new("pump", "off"), new("second", "on"))));
        Assert.Contains("one", told, StringComparison.Ordinal);
        Assert.DoesNotContain("two", told, StringComparison.Ordinal);
        Assert.Empty(Turned(Now(new("heater", "on"), new("pump", "on"), new("second", "off"))));
    }

    [Fact]
    public void Hot_water_above_49_degrees_at_a_tap_is_told_in_each_mode_that_makes_it()
    {
        Rig Tapped(double? mixesToC)
        {
            var rig = HeaterLoop("coolant-heater", "coolant-coil", CoilPorts).Part("mix", "mixing-valve", ("hot", 0.6, 0, 0), ("cold", 0.6, 0.1, 0),
                ("mixed", 0.7, 0, 0)).Part("tap", "mixer", ("cold", 1, 1, 1), ("hot", 1.05, 1, 1));
            var built = (mixesToC is null ? rig.Run("hot", Service.Hot, "pex-1/2", "tank.outlet", "tap.hot")
                : rig.Run("hot", Service.Hot, "pex-1/2", "tank.outlet", "mix.hot").Run("mixed", Service.Hot, "pex-1/2", "mix.mixed", "tap.hot")).Build();
            Port Hot(Port port) => port.Id == "outlet" ? port with { Id = "hot" } : port;
            built = With(built, "tank", p => p with { Stock = "coil-calorifier", Ports = [.. p.Ports.Select(Hot)] });
            built = built with { Runs = [.. built.Runs.Select(r => r.Id == "hot" ? r with { From = new RunEnd("tank", "hot") } : r)] };
            return With(built, "mix", p => p with { Flow = new PartFlow(MixesToC: mixesToC) });
        }
        string Told(Rig rig) => string.Join(' ', ModesStudy.Ask(new Question(rig, Night(rig))).Modes.Where(m => m.Warms.Count > 0).SelectMany(m => m.Checks)
            .Select(c => c.Print(Core.Units.UnitSystem.Metric)).Where(c => c.Contains("scalds", StringComparison.Ordinal)));
        Assert.Contains("No thermostatic mixing valve", Told(Tapped(null)), StringComparison.Ordinal);
        Assert.Equal("", Told(Tapped(45)));
        Assert.Contains("mix lets 60.0 °C through to tap", Told(Tapped(60)), StringComparison.Ordinal);
        var hot = Assert.Single(Findings(Tapped(60)), f => f.Kind == FindingKind.Scald);
        var mended = Editor.Apply(Tapped(60), hot.Mends!.Single().Edits).Rig;
        Assert.Equal("", Told(mended));
    }

    /// <summary>To spare heat, what can be moved to the warm is moved: a pad would give what the garage takes.</summary>
    [Fact]
    public void A_filter_in_a_cold_garage_can_be_moved_inside()
    {
        var rig = new RigBuilder().Zone("room", ZoneKind.Living, new Box(new(0, 0, 0), new(3, 2, 2)), 15, new ZoneHeater(3000, 18))
            .Zone("garage", ZoneKind.Garage, new Box(new(3, 0, 0), new(1.2, 2, 1)), 6)
            .Part("filter", "filter", ("in", 3.3, 1, 0.4), ("out", 3.3, 1.1, 0.4)).Build();
        var question = new Question(rig, Conditions.Of(rig.Brief) with { OutdoorC = -20, HeatOn = true });
        var input = new HoldInput(OutdoorC: -20, Hours: 72, By: HoldBy.Energy);
        var answer = HoldFinder.Ask(question, input);
        Assert.True(answer.Holds);
        Assert.Contains(answer.Pieces, p => p.Words.Text == "filter: set inside, in room" && p.Why.Text.StartsWith("Without it", StringComparison.Ordinal));
        var done = Editor.Apply(rig, answer.Edits).Rig;
        Assert.Equal("room", new Question(done, question.Conditions).Index.ZoneAt(done.Parts.Find("filter")!.Box.Centre())!.Id);
        var padded = new Question(With(rig, "filter", p => p with { Pad = Pad.Usual }), input.Night(question)).Ask(Core.Studies.Night.RigNight.Of);
        Assert.True(answer.HeatAfterWh < padded.HeatWh());
    }

    /// <summary>The rear side of the tank has 0.4 by 0.3 m: 180 W at 0.15 W on a square centimetre.</summary>
    [Fact]
    public void A_pad_touches_no_more_than_the_side_on_which_it_lies()
    {
        Rig Padded(Facing? side) => With(HeaterLoop("coolant-heater", "coolant-coil", CoilPorts).Build(), "tank",
            p => p with { Pad = new Pad(240, 7, 18, ElectricSupply.Battery, 0.2, Side: side) });
        Finding? Strong(Rig rig) => Findings(rig).SingleOrDefault(f => f.Id == "pad:tank");
        Assert.Null(Strong(Padded(null)));
        Assert.Null(Strong(Padded(Facing.Down)));
        var mended = Editor.Apply(Padded(Facing.Rear), Strong(Padded(Facing.Rear))!.Mends!.Single().Edits).Rig;
        Assert.Equal((180, 0.12), (mended.Parts.Find("tank")!.Pad!.PowerW, Math.Round(mended.Parts.Find("tank")!.Pad!.AreaM2, 6)));
        Assert.Null(Strong(mended));
        Assert.EndsWith(".pad.side", Assert.Single(RigCheck.Check(Padded(Facing.Up))).Path, StringComparison.Ordinal);
    }
}
