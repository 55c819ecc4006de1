using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A night that starts with a vehicle as it was left, and its weather.</summary>
public class NightStudyTests
{
    private static readonly Rig Sparrow = DemoRigs.Of("sparrow");
    private static readonly Conditions Wet = Conditions.Of(Sparrow.Brief) with { Water = WaterState.Wet, HeatOn = false };

    private static NightHoursAnswer Ask(Conditions night, Rig? rig = null) => new Question(rig ?? Sparrow, night).Ask(NightStudy.Ask);

    [Fact]
    public void A_room_cools_from_how_warm_it_was_kept_by_its_own_capacity()
    {
        // 10 m² of 30 mm XPS and half an air change; 200 kJ/K of room, nothing in it: e-folding time C / G.
        var shell = new RigBuilder().Zone("room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2)).Build();
        var zone = shell.Shell.Zones[0] with { HeatCapacityJPerK = 200_000 };
        var rig = shell with { Shell = shell.Shell with { Zones = [zone] } };
        var night = new Conditions(-10, 0, false, 10, WaterState.Wet, 22, 8, Attitude.Level, InsideC: 18);
        double g = RigBuilder.LossWPerK(zone, night);
        var told = Ask(night, rig).Zones.Single();
        Assert.Equal(18, told.C[0], 0.01);
        foreach (int hour in (int[])[1, 3, 8]) Assert.Equal(-10 + 28 * Math.Exp(-g * hour * 3600 / 200_000), told.C[hour], 0.1);
        // Below zero from where that curve meets it until morning, and the area between.
        double tauH = 200_000 / g / 3600, zeroH = tauH * Math.Log(2.8),
            area = (10 * (8 - zeroH)) - (28 * tauH * (Math.Exp(-zeroH / tauH) - Math.Exp(-8 / tauH)));
        Assert.Equal(8 - zeroH, told.Exposure.HoursBelow, 0.1);
        Assert.Equal(area, told.Exposure.DegreeHours, 0.5);
    }

    [Fact]
    public void A_warm_evening_puts_the_first_ice_off_and_the_last_hour_is_the_steady_balance()
    {
        double First(Conditions night) => new Question(Sparrow, night).Ask(FreezeLadderStudy.Ask).Rungs.First(r => r.ZoneId == "living").FirstIceS!.Value;
        var cold = Wet with { InsideC = Wet.OutdoorC };
        Assert.InRange(First(Wet) / 3600, 4, 8);
        Assert.True(First(Wet) > First(cold) + 2 * 3600);
        // Kept by its heaters for days, each room is where the linear balance has it, within the thermostat's band.
        var kept = Wet with { HeatOn = true, Hours = 240 };
        var steady = ZoneBalance.Solve(Sparrow, kept.Steady()).ToDictionary(z => z.ZoneId, z => z.AirC);
        Assert.All(new Question(Sparrow, kept).Ask(FreezeLadderStudy.Ask).Zones, z => Assert.Equal(steady[z.ZoneId], z.AirC, 0.6));
    }

    [Theory]
    [InlineData("sparrow")]
    [InlineData("lantern")]
    public void Energy_closes_and_every_time_lies_between_its_cold_and_its_warm_side(string name)
    {
        var rig = DemoRigs.Of(name);
        var night = Conditions.Of(rig.Brief) with
        {
            Water = WaterState.Wet,
            HeatOn = true,
            Events = [new PlanEvent("fails", PlanEventKind.HeatFails, 2)],
            Cloud = 0
        };
        Assert.InRange(RigNight.Of(new Question(rig, night)).Answer.Balance.Gap(), 0, 0.001);
        var told = Ask(night, rig);
        Assert.Equal(2 * 3600, told.HeatStopsS);
        Assert.Contains(told.Rungs, r => r.Rung.FirstIceS != null);
        Assert.All(told.Rungs, r =>
        {
            double at = r.Rung.FirstIceS ?? double.PositiveInfinity;
            Assert.True((r.EarliestS ?? double.PositiveInfinity) <= at + 1 && at <= (r.LatestS ?? double.PositiveInfinity) + 1, r.Rung.Name);
        });
        // The air around a thing is its room's; what breaks costs what the builder says, and what has no price has none.
        Assert.All(told.Rungs.Where(r => r.Rung.ZoneId is not null), r =>
            Assert.Equal(told.Zones.Single(z => z.ZoneId == r.Rung.ZoneId).Exposure.HoursBelow, r.Exposure.HoursBelow));
        var priced = Ask(night, rig with { Prices = [new Price("valve", "ball-valve", 40)] }).Rungs;
        Assert.All(priced, r => Assert.Equal(r.Rung.Breaks && r.Rung.PartId is { } part && rig.Parts.Find(part)!.Stock == "ball-valve" ? 40 : null, r.Money));
        // Drawn at any hour as it is told here; a week is read every few hours.
        var hourly = new Question(rig, night).Ask(HourlyStudy.Ask);
        Assert.Equal((1, told.Weather.Count), (hourly.StepH, hourly.Steps));
        Assert.Equal(told.Rungs.Select(r => r.Rung.Id), hourly.Rungs.Take(told.Rungs.Count).Select(r => r.Id));
        Assert.All(told.Rungs.Zip(hourly.Rungs), p => Assert.All(p.First.C.Zip(p.Second.C), c => Assert.Equal(c.First, c.Second, 0.06)));
        Assert.All(told.Rungs.Zip(hourly.Rungs), p => Assert.Equal(p.First.Ice, p.Second.Ice));
        Assert.All(told.Zones.Zip(hourly.Zones), p => Assert.All(p.First.C.Zip(p.Second.C), c => Assert.Equal(c.First, c.Second, 0.06)));
        var week = new Question(rig, night with { Hours = 168, Events = null }).Ask(HourlyStudy.Ask);
        Assert.Equal((4, 43), (week.StepH, week.Steps));
        // Heaters give until they fail, and nothing after.
        Assert.All(told.Zones.Where(z => z.HeaterWh.Count > 0), z => Assert.True(z.HeaterWh.Take(2).Sum() > 0 && z.HeaterWh.Skip(2).Sum() == 0));
    }

    [Fact]
    public void What_is_alike_by_the_kilogram_is_one_body_and_keeps_its_times()
    {
        static NightBody Body(string id, double kg, double wPerK) => new(id, kg, 400 * kg, 12, IceGrowth.Cylinder, 8 * kg,
            [new NightContact("room", wPerK)], []);
        NightBody[] bodies = [Body("a", 1, 0.5), Body("b", 3, 1.5), Body("c", 1, 0.9), Body("d", 0.5, 0.25), Body("e", 1, 0.5) with { Contacts = [] }];
        var alike = RigNetwork.Alike(bodies, new HashSet<string>(), out int[] number);
        Assert.Equal([0, 0, 1, 0, 2], number);
        // A pump that is typed to lose nothing never freezes.
        var lossless = Sparrow with { Parts = [.. Sparrow.Parts.Select(p => p.Id == "pump" ? p with { LossWPerK = 0 } : p)] };
        Assert.Null(Ask(Wet with { OutdoorC = -30 }, lossless).Rungs.Single(r => r.Rung.Id == "pump").Rung.FirstIceS);
        NightAnswer Run(IReadOnlyList<NightBody> of) => NightEngine.Run(new NightNetwork([new NightZone("room", 50_000, 20, 12, [])], [], of,
            TimeSeries.Constant(-10), 43_200));
        var (each, together) = (Run(bodies), Run(alike));
        for (int b = 0; b < bodies.Length; b++) Assert.Equal(each.Milestones[b].FirstIceS, together.Milestones[number[b]].FirstIceS, 1.0);
    }

    [Fact]
    public void A_clear_sky_and_a_failing_heater_bring_ice_sooner()
    {
        double First(Conditions night) => new Question(Sparrow, night).Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.ZoneId == "living")
            .Min(r => r.FirstIceS ?? double.PositiveInfinity);
        Assert.True(First(Wet with { Cloud = 0 }) < First(Wet) - 300);
        Assert.Equal(double.PositiveInfinity, First(Wet with { HeatOn = true }));
        double fails = First(Wet with { HeatOn = true, Events = [new PlanEvent("fails", PlanEventKind.HeatFails, 3)] });
        Assert.InRange(fails / 3600, 3 + 3, 3 + 9);
    }

    [Fact]
    public void The_limit_falls_with_the_cold_and_agrees_with_the_coldest_night_of_the_verdict()
    {
        var question = new Question(Sparrow, Wet);
        var limit = question.Ask(LimitStudy.Ask);
        var hours = limit.Curve.Select(p => p.Hours ?? double.PositiveInfinity).ToList();
        Assert.Equal(hours.OrderDescending(), hours);
        Assert.Equal(question.Ask(StandingStudy.Ask).Limit.ColdestC, limit.Limit.ColdestC);
        // On either side of the coldest night of so many hours, the curve says so.
        Assert.All(limit.Curve.Where(p => p.OutdoorC < limit.Limit.ColdestC - 0.25), p => Assert.True(p.Hours <= limit.ForHours));
        Assert.All(limit.Curve.Where(p => p.OutdoorC > limit.Limit.ColdestC), p => Assert.True(p.Hours is null || p.Hours >= limit.ForHours));
        Assert.NotNull(limit.AtLowest.First);
    }

    [Theory]
    [InlineData("sparrow", true, 104, 104)]
    [InlineData("lantern", false, 10, 10)]
    [InlineData("tern", true, 2880, 240)]
    public void What_the_brief_asks_for_is_told_whatever_night_is_looked_at(string name, bool drained, double asked, double hours)
    {
        var rig = DemoRigs.Of(name);
        var brief = new Question(rig, Conditions.Of(rig.Brief) with { OutdoorC = -3, HeatOn = true, Hours = 2 }).Ask(LimitStudy.Ask).Brief!;
        Assert.Equal((drained, asked, hours, rig.Brief.LowestC), (brief.Drained, brief.Hours, brief.ForHours, brief.LowestC));
        var left = new Question(rig, Conditions.WithoutHeat(rig.Brief));
        Assert.Equal(left.Ask(StandingStudy.Ask).Limit.ColdestC, brief.Limit.ColdestC);
        // One truth: it stands the brief's lowest for its hours where the ladder of that night breaks nothing, and where the coldest is no warmer.
        Assert.Equal(brief.AtLowest.Hours is null || brief.AtLowest.Hours >= hours, brief.Stands);
        Assert.Equal(left.Ask(FreezeLadderStudy.Ask).Rungs.All(r => !r.Breaks), brief.Stands);
        if (brief.Stands) Assert.True(brief.Limit.StandsAllTried || brief.Limit.ColdestC <= brief.LowestC + 0.35);
        else Assert.True(brief.Limit.ColdestC is null || brief.Limit.ColdestC > brief.LowestC);
        Assert.Null(new Question(rig with { Brief = rig.Brief with { HoursWithoutHeat = 0 } }, Conditions.Of(rig.Brief)).Ask(LimitStudy.Ask).Brief);
    }

    [Fact]
    public void The_guess_to_measure_is_the_one_that_moves_the_first_ice_most_and_a_winter_counts_its_nights()
    {
        var drained = Conditions.Of(Sparrow.Brief);
        var told = new Question(Sparrow, drained).Ask(GuessStudy.Ask);
        Assert.Equal(told.Guesses.OrderByDescending(g => g.SwingS), told.Guesses);
        Assert.True(told.Guesses[0].SwingS > 600);
        // Warmer outdoors, or more kept inside, is later.
        var outdoors = told.Guesses.Single(g => g.Name == "outdoors");
        Assert.True(outdoors.AtLowS < told.FirstIceS && told.FirstIceS < (outdoors.AtHighS ?? double.PositiveInfinity));

        SeasonAnswer Season(WeatherPlace place) => SeasonStudy.Ask(new Question(Sparrow, drained), new(place, 3));
        var (plain, quay) = (Season(WeatherPlace.OsmerPlain), Season(WeatherPlace.BrennickQuay));
        Assert.Equal((WeatherPlace.OsmerPlain, 3, 26), (plain.Place, plain.Winters, plain.Weeks.Count));
        Assert.All(plain.Weeks, w => Assert.True(w.BreakNights <= w.IceNights && w.IceNights <= 7));
        Assert.True(plain.Weeks.Sum(w => w.IceNights) > 2 * quay.Weeks.Sum(w => w.IceNights));
        Assert.Equal(plain.Leaders.OrderByDescending(l => l.Breaks).ThenByDescending(l => l.Nights), plain.Leaders);
        Assert.Contains(plain.Leaders, l => l.Name == "shower hot, shower hatch" && l.Nights > 10);
        Assert.Equal(["winters"], new SeasonInput(Winters: 101).Check(Sparrow).Select(f => f.Path));
        // Mended, nothing is left to freeze.
        var dry = DemoRigs.Of("sparrow") with { Runs = [], Parts = [] };
        Assert.Equal(0, SeasonStudy.Ask(new Question(dry, drained), new(WeatherPlace.OsmerPlain, 1)).WintersThatBreak);
    }

    [Fact]
    public void Winters_are_drawn_alike_for_ever_and_are_as_their_places_are()
    {
        var fell = WeatherModel.Winter(WeatherPlace.KettleFell, 7);
        Assert.Equal(fell, WeatherModel.Winter(WeatherPlace.KettleFell, 7));
        Assert.NotEqual(fell[1000], WeatherModel.Winter(WeatherPlace.KettleFell, 8)[1000]);
        // Drawn anew it would be another winter: the hour is written down.
        Assert.Equal(WeatherModel.Winter(WeatherPlace.KettleFell, 1)[2500], new WeatherHour(-8.71, 1.81, 0.274));
        double Mean(WeatherPlace place, Func<WeatherHour, double> of) =>
            Enumerable.Range(1, 20).Average(w => WeatherModel.Winter(place, w).Take(182 * 24).Average(of));
        Assert.True(Mean(WeatherPlace.OsmerPlain, h => h.TemperatureC) < Mean(WeatherPlace.KettleFell, h => h.TemperatureC) - 3);
        Assert.InRange(Mean(WeatherPlace.BrennickQuay, h => h.TemperatureC), 0, 6);
        Assert.True(Mean(WeatherPlace.BrennickQuay, h => h.WindMPerS) > 2 * Mean(WeatherPlace.KettleFell, h => h.WindMPerS));
        Assert.All(fell, h => Assert.True(h is { Cloud: >= 0 and <= 1, WindMPerS: >= 0 }));
    }

    [Fact]
    public void Heat_capacity_ends_at_the_first_insulation_and_a_typed_one_stands()
    {
        var room = new Zone("room", "room", ZoneKind.WallCavity, RigBuilder.Cube(0, 0, 0, 1), 0.5,
            [new Face("wall", "wall", FaceSide.Wall, 2, [new("plywood", 0.01), new("xps", 0.05), new("steel", 0.001)], 0, [])], []);
        // Air 1.29 · 1006 J/K, and 2 m² of 10 mm of plywood: 2 · 0.01 · 600 · 1600; the skin behind the board takes no part.
        Assert.Equal(1.29 * 1006 + 19_200, ZoneCapacity.JPerK(room, 1), 1);
        Assert.Equal(30_000, ZoneCapacity.JPerK(room with { Kind = ZoneKind.Living }, 1) - ZoneCapacity.JPerK(room, 1), 1);
        Assert.Equal(5000, ZoneCapacity.JPerK(room with { HeatCapacityJPerK = 5000 }, 1));
    }

    [Fact]
    public void A_wall_under_a_clear_sky_sees_outdoors_colder_by_its_share_and_a_floor_does_not()
    {
        // One wall, no draught: outdoors is colder to it by half of what a roof would lose to the sky.
        double Settled(FaceSide side, double cloud)
        {
            var zone = new Zone("room", "room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 1), 0,
                [new Face("face", "face", side, 4, [new("xps", 0.02)], 0, [])], [], HeatCapacityJPerK: 1000);
            var rig = new RigBuilder().Build();
            return Ask(new Conditions(-10, 3, false, 10, WaterState.Wet, 22, 100, Attitude.Level, InsideC: -10, Cloud: cloud),
                rig with { Shell = rig.Shell with { Zones = [zone] } }).Zones.Single().C[^1];
        }
        double roof = WarmConduit.Core.Heat.OuterFace.ShiftK(-10, WarmConduit.Core.Heat.OuterFace.SkyC(-10, 0), 1, 3, 0.9);
        Assert.True(roof < -2);
        Assert.Equal(-10 + roof, Settled(FaceSide.Roof, 0), 0.02);
        Assert.Equal(-10 + roof / 2, Settled(FaceSide.Wall, 0), 0.02);
        Assert.Equal(-10, Settled(FaceSide.Floor, 0), 0.02);
        Assert.Equal(-10, Settled(FaceSide.Roof, 1), 0.02);
    }

    [Fact]
    public void A_night_of_the_winter_is_that_of_its_hours_and_weather_that_is_none_is_named()
    {
        var choice = new WeatherChoice(WeatherPlace.OsmerPlain, 3, 100);
        var told = Ask(Wet with { Weather = choice });
        Assert.Equal(WeatherModel.Winter(WeatherPlace.OsmerPlain, 3)[100 * 24 + 22], told.Weather[0]);
        Assert.Equal(told.Weather.Take(9).Min(h => h.TemperatureC), told.Outdoors.ColdestC, 0.01);
        // The same hours of one's own are the same night.
        var own = Ask(Wet with { Weather = new WeatherChoice(Hours: [.. choice.From(22, 12)]) });
        Assert.Equal(told.Rungs.Select(r => (r.Rung.Id, r.Rung.FirstIceS)), own.Rungs.Select(r => (r.Rung.Id, r.Rung.FirstIceS)));
        foreach (var (wrong, field) in ((WeatherChoice, string)[])[(new(), "weather"), (new(WeatherPlace.KettleFell, Winter: 0), "winter"),
            (new(WeatherPlace.KettleFell, Day: 400), "day"), (new(Hours: [new(-5, 1, 2)]), "hours[0]")])
            Assert.Contains((Wet with { Weather = wrong }).Check(Sparrow), f => f.Path.EndsWith(field, StringComparison.Ordinal));
        var spell = Exposure.Of(((double[])[1, -1, -2, 3, -4, -5, -6, 0]).Select((c, h) => (3600.0 * h, c)));
        Assert.Equal((0.5 + 1 + 0.4 + (4 / 7.0) + 3, 3 + (4 / 7.0)), (spell.HoursBelow, spell.LongestSpellH));
        Assert.Equal((0.25 + 1.5 + 0.4 + (8 / 7.0) + 4.5 + 5.5 + 3, -6.0), (spell.DegreeHours, spell.ColdestC));
    }
}
