using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Tests.Studies;

public class FreezeLadderTests
{
    private static readonly Conditions Night = new(-8, 0, false, 10, WaterState.Wet, 22, 8, Attitude.Level, InsideC: -8);

    private static RigBuilder Line(string pipe = "pex-1/2", Service service = Service.Cold) => new RigBuilder()
        .Part("tap", "open-end", ("end", 0, 0, 0.6))
        .Part("foot", "drain-cock", ("in", 3, 0, 0.2))
        .Run("line", service, pipe, "tap.end", "foot.in");

    private static FreezeLadderAnswer Ask(Rig rig, Conditions night) => rig.Ladder(night);

    private static Rung RungOf(Rig rig, Conditions night, string id) => Ask(rig, night).Rungs.First(r => (r.RunId ?? r.PartId) == id);

    [Theory]
    [InlineData(10, 0)]
    [InlineData(0.5, 0)]
    [InlineData(60, 0)]
    [InlineData(10, 6)]
    public void A_run_in_one_zone_cools_by_what_its_film_lets_through_at_each_moment(double startC, double wind)
    {
        // A room that was as cold as outdoors all evening stays so: constant air.
        var under = Line().Zone("under", ZoneKind.OpenUnderfloor, RigBuilder.Cube(-5, -5, -5, 15));
        var rung = RungOf((wind > 0 ? under : Line()).Build(), Night with { Hours = 24, StartWaterC = startC, WindMPerS = wind }, "line");
        var pipe = Catalogue.Pipe("pex-1/2")!;
        var section = new PipeSection(pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.ConductivityWPerMK);
        double capacity = (Math.PI * pipe.InnerDiameterM * pipe.InnerDiameterM / 4 * 1000 * 4200) + pipe.WallJPerMK(), celsius = startC, seconds = 0;
        for (; celsius > 0; seconds++) celsius -= PipeHeat.Steady(section, celsius, -8, wind).LossWPerM / capacity;
        Assert.Equal(seconds, rung.FirstIceS!.Value, Math.Max(5, 0.01 * seconds));
        // Its ice as Plank has it, by the film that it begins with: a little early.
        double resistance = 1 / PipeHeat.Steady(section, 0, -8, wind).ConductanceWPerMK;
        var times = Freezing.Pipe(pipe.InnerDiameterM, resistance, pipe.WallJPerMK(), startC, -8, FreezingConstants.Default);
        Assert.Equal(times.SolidS - times.FirstIceS, rung.SolidS!.Value - rung.FirstIceS!.Value, 0.005 * times.SolidS);
        Assert.Equal(-8, rung.AirC, 6);
    }

    [Fact]
    public void Insulation_buys_time_and_wind_takes_it()
    {
        double First(RigBuilder rig, double wind = 0) => RungOf(rig.Zone("under", ZoneKind.OpenUnderfloor, RigBuilder.Cube(-5, -5, -5, 15)).Build(),
            Night with { WindMPerS = wind }, "line").FirstIceS!.Value;
        Assert.True(First(Line().Insulate("line", 0.013)) > 2 * First(Line()));
        Assert.True(First(Line(), 8) < 0.6 * First(Line()));
        double[] rising = [.. Enumerable.Range(0, 17).Select(w => First(Line(), 0.25 * w))];
        Assert.Equal(rising.OrderDescending(), rising);
        Assert.True(First(Line().Insulate("line", 0.019)) > First(Line().Insulate("line", 0.009)));
    }

    [Fact]
    public void A_run_is_cut_where_it_passes_from_zone_to_zone_and_outdoors_is_coldest()
    {
        var rig = Line()
            .Zone("bay", ZoneKind.Garage, new Box(new(-1, -1, 0), new(2, 2, 1)), heater: new ZoneHeater(500, 5))
            .Zone("box", ZoneKind.Cupboard, new Box(new(1, -1, 0), new(1, 2, 1)), towards: "bay")
            .Build();
        var pieces = Ask(rig, Night with { HeatOn = true }).Rungs.Where(r => r.RunId == "line").OrderBy(r => r.Course[0].XM).ToList();
        Assert.Equal(["bay", "box", null], pieces.Select(p => p.ZoneId));
        Assert.Equal([0, 1, 2], pieces.Select(p => Math.Round(p.Course[0].XM, 6)));
        Assert.Equal(5, pieces[0].AirC, 0.5);
        Assert.Equal(-8, pieces[2].AirC, 6);
        Assert.Equal(IceState.Safe, pieces[0].State);
        Assert.True(pieces[2].FirstIceS < (pieces[1].FirstIceS ?? double.PositiveInfinity));
        Assert.Contains("outdoors", pieces[2].Name);
    }

    [Fact]
    public void Drained_only_what_stays_can_freeze_and_vents_and_waste_hold_no_water_in_use()
    {
        Assert.DoesNotContain(Ask(Line().Build(), Night with { Water = WaterState.Drained }).Rungs, r => r.RunId == "line");
        Assert.DoesNotContain(Ask(Line("waste-28", Service.Waste).Build(), Night).Rungs, r => r.RunId == "line");
        var dipped = new RigBuilder().Part("tap", "open-end", ("end", 0, 0, 0.6)).Part("foot", "drain-cock", ("in", 3, 0, 0.4))
            .Run("line", "tap.end", "foot.in", new Point3(1.5, 0, 0.2)).Build();
        var rung = RungOf(dipped, Night with { Water = WaterState.Drained }, "line");
        Assert.InRange(rung.WaterL, 0.1, RigBuilder.BoreL(3.1));
        Assert.Equal(dipped.Drained().Runs[0].PoolL, rung.WaterL, 1e-9);
    }

    [Fact]
    public void Copper_is_broken_by_ice_plastic_pipe_is_not_and_a_filter_bowl_is()
    {
        Assert.True(RungOf(Line("copper-15").Build(), Night, "line").Breaks);
        Assert.False(RungOf(Line().Build(), Night, "line").Breaks);
        var filter = Line().Part("filter", "filter", ("in", 1, 1, 0.5)).Build();
        var rung = RungOf(filter, Night, "filter");
        Assert.True(rung.Breaks);
        Assert.Equal(0.9, rung.WaterL, 9);
        // 0.9 L and a third of that again as dry heat, losing 0.5 W/K.
        Assert.Equal(0.9 * 4200 * 4 / 3 / 0.5 * Math.Log(18.0 / 8), rung.FirstIceS!.Value, 30.0);
    }

    [Fact]
    public void The_morning_is_told_by_temperature_or_by_ice()
    {
        var rig = Line().Build();
        var mild = RungOf(rig, Night with { OutdoorC = -1, InsideC = -1, Hours = 0.5 }, "line");
        Assert.Equal((IceState.Safe, 0.0), (mild.State, mild.MorningIce));
        Assert.InRange(mild.MorningC, 0, 10);
        var some = RungOf(rig, Night with { Hours = 3 }, "line");
        Assert.Equal(0, some.MorningC);
        Assert.InRange(some.MorningIce, 0.01, 0.99);
        // The ice in the morning is that whose time the morning is.
        var later = RungOf(rig, Night with { Hours = 4 }, "line");
        Assert.True(later.MorningIce > some.MorningIce);
        var whole = RungOf(rig, Night with { Hours = 100 }, "line");
        Assert.Equal((IceState.Solid, 1.0), (whole.State, whole.MorningIce));
        Assert.Equal(-8, whole.MorningC, 1e-3);
    }

    [Fact]
    public void Half_of_an_outdoor_shower_box_feels_the_weather()
    {
        var rig = Line().Part("box", "outdoor-shower", ("cold", 1, 0.5, 0.5))
            .Zone("room", ZoneKind.Living, RigBuilder.Cube(-1, -1, -1, 5), heater: new ZoneHeater(5000, 12)).Build();
        var box = RungOf(rig, Night with { HeatOn = true, Hours = 100 }, "box");
        // Half from the room, half from outdoors; its heater gives within half a kelvin of what is set.
        Assert.Equal((12 - 8) / 2.0, box.MorningC, 0.3);
        Assert.Equal(12, box.AirC, 0.5);
    }

    [Fact]
    public void Every_time_can_be_asked_why_and_guesses_are_marked()
    {
        var why = RungWhyStudy.Ask(new Question(Line().Build(), Night), new("line#room.1")).Why!;
        Assert.Contains("minute by minute", why.Formula);
        Assert.Contains(why.Inputs, i => i.Estimate);
        Assert.Contains(why.Inputs, i => i is { Name: "water at the start", Estimate: false, Value.Value: 10 });
    }

    [Fact]
    public void An_open_door_a_thick_wall_and_a_strong_heater_make_a_cupboard_warmer()
    {
        double Cupboard(double wall, double opening, double watts)
        {
            var rig = new RigBuilder()
                .Zone("living", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 3), heater: new ZoneHeater(watts, 18))
                .Zone("box", ZoneKind.Cupboard, RigBuilder.Cube(1, 1, 0, 0.8), wall, opening: new Opening("door", "living", opening, 0.5))
                .Build();
            return ZoneBalance.Solve(rig, (Night with { HeatOn = true }).Steady()).Single(z => z.ZoneId == "box").AirC;
        }
        Assert.True(Cupboard(2, 0.2, 2000) > Cupboard(2, 0.01, 2000) + 2);
        Assert.True(Cupboard(1, 0.05, 2000) > Cupboard(4, 0.05, 2000) + 1);
        Assert.True(Cupboard(2, 0.05, 2000) > Cupboard(2, 0.05, 100) + 1);
    }

    [Fact]
    public void A_heater_gives_what_holds_its_set_point_and_no_more_than_it_can()
    {
        var rig = new RigBuilder().Zone("room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 3), 20, new ZoneHeater(300, 18)).Build();
        ZoneAir Room(double outdoor) => ZoneBalance.Solve(rig, new SteadyNight(outdoor, Night.WindMPerS, true))[0];
        Assert.Equal(18, Room(12).AirC, 6);
        Assert.InRange(Room(12).HeaterW, 1, 300);
        Assert.Equal(300, Room(-20).HeaterW, 6);
        Assert.True(Room(-20).AirC < 10);
        Assert.Equal(0, Room(25).HeaterW, 6);
        Assert.Equal(25, Room(25).AirC, 6);
    }

    [Fact]
    public void The_coldest_night_a_lived_in_rig_stands_is_that_of_its_heater_and_plastic_pipe_stands_them_all()
    {
        RigBuilder Rig(string pipe, double watts) => new RigBuilder { Brief = new Brief(2, 3, 10, -10, 0, 0, WayOfLiving.LivedIn, FreezeSchool.Heat, 0.02) }
            .Part("tap", "open-end", ("end", 0.5, 0.5, 0.6)).Part("foot", "open-end", ("in", 2.5, 0.5, 0.3))
                .Run("line", Service.Cold, pipe, "tap.end", "foot.in")
            .Zone("room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 3), 20, new ZoneHeater(watts, 18));
        double? weak = Rig("copper-15", 200).Build().Standing().Limit.ColdestC, strong = Rig("copper-15", 600).Build().Standing().Limit.ColdestC;
        Assert.True(strong < weak - 5);
        Assert.True(strong > -40);
        var plastic = Rig("pex-1/2", 200).Build().Standing();
        // As far as was looked is no temperature that it stands.
        Assert.Equal((null, true, -40.0), (plastic.Limit.ColdestC, plastic.Limit.StandsAllTried, plastic.Limit.TriedC));
    }

    [Fact]
    public void Findings_speak_of_ice_in_parts_that_break_before_ice_in_parts_that_do_not()
    {
        var rig = Line().Part("filter", "filter", ("in", 1, 1, 0.5)).Part("hose", "shower-hose", ("in", 2, 1, 0.5)).Build();
        var ice = rig.Findings(Night).Where(f => f.Kind == FindingKind.FirstIce).ToList();
        Assert.Equal(Severity.Fault, ice.Single(f => f.Title == "filter").Severity);
        Assert.Equal(Severity.Note, ice.Single(f => f.Title == "hose").Severity);
        Assert.True(ice.FindIndex(f => f.Title == "filter") < ice.FindIndex(f => f.Title == "hose"));
        Assert.DoesNotContain(rig.Findings(Night with { OutdoorC = 3 }), f => f.Kind == FindingKind.FirstIce);
    }

    [Fact]
    public void Conditions_out_of_range_are_named()
    {
        Assert.Empty(Night.Check(Line().Build()));
        var faults = (Night with { OutdoorC = double.NaN, WindMPerS = -1, StartWaterC = 200, Hours = 0, Parked = new Attitude(90, 0) }).Check(Line().Build());
        Assert.Equal(
            ["conditions.hours", "conditions.outdoorC", "conditions.parked.pitchDeg", "conditions.startWaterC", "conditions.windMPerS"],
            faults.Select(f => f.Path).Order());
    }
}
