using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Measuring;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Core.Studies.Supply;
using WarmConduit.Core.Tests.Heat;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A night errs early, never late: rigs by chance against plain stepping with films at every instant, and rules of sense that hold for any of
/// them.</summary>
public class NightTruthTests
{
    private const double HourS = 3600, PlainStepS = 10;

    /// <summary>How many random rigs; the long campaign takes more.</summary>
    private static int Rigs => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_NIGHT_RIGS"), out int n) ? n : 12;

    private static readonly Rig Sparrow = DemoRigs.Of("sparrow");

    // Gusts in single hours, cold that comes and goes, any set point and start water; heat on, off, or failing at some hour.
    private static (Rig Rig, Conditions Night, double? FailsH) Any(int seed)
    {
        var random = new Random(seed);
        double Even(double low, double high) => low + ((high - low) * random.NextDouble());
        double mean = Even(-18, 1), wind = Even(0, 6);
        WeatherHour[] hours = [.. Enumerable.Range(0, 26).Select(_ => new WeatherHour(mean + Even(-4, 4), random.Next(5) == 0 ? Even(10, 38)
            : wind * Even(0.2, 1.5), random.Next(2) == 0 ? 1 : Even(0, 1)))];
        double? fails = random.Next(3) > 0 ? Math.Round(Even(0.5, 18), 2) : null;
        double water = random.Next(3) switch { 0 => Even(0.3, 2), 1 => Even(5, 15), _ => Even(20, 70) };
        var night = new Conditions(
            mean, wind, fails is not null || random.Next(2) == 0, water, random.Next(4) == 0 ? WaterState.Drained : WaterState.Wet, 22, 24, Attitude.Level,
            Weather: new WeatherChoice(Hours: hours),
            InsideC: random.Next(3) == 0 ? Even(3, 20) : null, Events: fails is { } at ? [new PlanEvent("fails", PlanEventKind.HeatFails, at)] : null);
        return (AnyRig.Of(seed), night, fails);
    }

    [Fact]
    public void Ice_comes_when_plain_stepping_with_films_at_every_instant_says_or_a_little_sooner()
    {
        var (worstEarly, worstLate, told) = (0.0, 0.0, 0);
        int touched = 0;
        Parallel.For(0, Rigs, seed =>
        {
            var (rig, asked, fails) = Any(seed);
            var question = new Question(rig, asked);
            var night = RigNight.Of(question);
            var candidates = FreezeLadderStudy.Candidates(question);
            var start = NightCourse.Of(asked with { Events = null }, 24 * HourS)[0];
            var network = RigNetwork.Rooms(question, night.Weather, start,
                Uncertainty.None) with
            { Bodies = RigNetwork.Bodies(question, candidates, Uncertainty.None) };
            if (fails is { } at)
                network = network with { Zones = [.. network.Zones.Select(z => z with { Heaters = [.. z.Heaters.Select(h => h with { ToS = at * HourS })] })] };
            var plain = new PlainNight(network);
            var (zoneC, _, _) = plain.Run([6 * HourS, 12 * HourS, 24 * HourS], PlainStepS);
            for (int z = 0; z < rig.Shell.Zones.Count; z++)
                foreach (var (report, hour) in ((int, int)[])[(0, 6), (1, 12), (2, 24)])
                    Assert.True(night.Answer.ZoneC[night.Answer.ReportS.ToList().IndexOf(hour * HourS), z] - zoneC[report, z] is > -0.4 and < 0.2,
                        $"rig {seed}, {rig.Shell.Zones[z].Id} at {hour} h");
            PlainNight? finer = null;
            for (int n = 0; n < candidates.Count; n++)
            {
                double got = night.Marks(n).FirstIceS, wanted = plain.FirstIceS[n];
                if (Math.Abs(got - wanted) > 0.01 * Math.Max(wanted, 1200))
                {
                    // Water that hangs about 0 °C goes below it by the width of a step.
                    if (finer is null) (finer = new PlainNight(network)).Run([24 * HourS], PlainStepS / 5);
                    wanted = finer.FirstIceS[n];
                }
                // Water that only just comes to 0 °C does so any time.
                if (double.IsInfinity(got) || double.IsInfinity(wanted))
                {
                    Assert.True(got == wanted || night.Marks(n).MostIce < 0.02 || night.Marks(n).LowestC > -0.05,
                        $"rig {seed}, {candidates[n].Name}: {got} for {wanted}");
                    continue;
                }
                double off = (got - wanted) / Math.Max(wanted, 1200);
                Assert.True(off < 0.02, $"rig {seed}, {candidates[n].Name}: {got:0} for {wanted:0}");
                if (off <= -0.05)
                {
                    // Water that hangs within 0.05 K of 0 °C for long: some hundredths of a kelvin, and the plain steps themselves, decide when that is ice.
                    // Early is as good.
                    Assert.True(got > 0.95 * plain.NearIceS[n], $"rig {seed}, {candidates[n].Name}: {got:0} for {wanted:0}, near 0 °C at " +
                        $"{plain.NearIceS[n]:0}");
                    Interlocked.Increment(ref touched);
                    continue;
                }
                lock (Sparrow) (worstEarly, worstLate, told) = (Math.Min(worstEarly, off), Math.Max(worstLate, off), told + 1);
            }
        });
        Assert.True(told > 5 * Rigs && touched < told / 100);
        CampaignTable.Row($"| {Rigs} | {told} | {-100 * worstEarly:0.0} % | {100 * worstLate:0.0} % | {touched} |");
    }

    [Fact]
    public void Warmer_water_at_the_start_never_freezes_sooner()
    {
        for (int seed = 0; seed < Rigs; seed++)
        {
            var (rig, night, _) = Any(seed);
            double[]? before = null;
            foreach (double water in (double[])[0.5, 2, 6, 12, 30, 80])
            {
                var told = RigNight.Of(new Question(rig, night with { StartWaterC = water }));
                double[] ice = [.. Enumerable.Range(0, told.Candidates.Count).Select(n => told.Marks(n).FirstIceS)];
                if (before is not null)
                    Assert.All(before.Zip(ice), p => Assert.True(p.Second >= 0.99 * p.First - 30, $"rig {seed}, {water} °C: {p.Second:0} after {p.First:0}"));
                before = ice;
            }
        }
    }

    [Fact]
    public void A_gust_changes_nothing_that_came_before_it()
    {
        var rig = DemoRigs.Of("tern");
        double[] Ice(double gust)
        {
            WeatherHour[] hours = [.. Enumerable.Range(0, 14).Select(h => new WeatherHour(-6, h == 11 ? gust : 2, 1))];
            var night = RigNight.Of(new Question(rig, Conditions.Of(rig.Brief) with
            {
                Water = WaterState.Wet,
                HeatOn = false,
                Weather = new WeatherChoice(Hours: hours)
            }));
            return [.. Enumerable.Range(0, night.Candidates.Count).Select(n => night.Marks(n).FirstIceS)];
        }
        var (calm, gusty) = (Ice(2), Ice(50));
        Assert.Contains(calm, s => s < 9 * HourS);
        Assert.All(calm.Zip(gusty).Where(p => p.First < 9.9 * HourS), p => Assert.Equal(p.First, p.Second, Math.Max(10, 0.003 * p.First)));
    }

    [Fact]
    public void A_room_in_an_ordinary_hour_loses_by_the_wind_of_that_hour_whatever_blows_later()
    {
        // Behind hardly anything the film is most of the resistance. Calm for a day and a half, then a storm; a small room that settles within the hour.
        var room = new Zone("room", "room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 1), 0,
            [new("wall", "wall", FaceSide.Wall, 5, [new("steel", 0.001)], 0, [])], [], new ZoneHeater(200, 40), 2000);
        var bare = new RigBuilder().Build();
        WeatherHour[] hours = [.. Enumerable.Range(0, 50).Select(h => new WeatherHour(-10, h < 36 ? 3 : 30, 1))];
        var night = new Conditions(-10, 0, true, 12, WaterState.Wet, 22, 48, Attitude.Level, Weather: new WeatherChoice(Hours: hours));
        var told = new Question(bare with { Shell = bare.Shell with { Zones = [room] } }, night).Ask(NightStudy.Ask).Zones.Single();
        double film = 4 + (4 * 3) + (4 * 0.9 * 5.67e-8 * Math.Pow(263.15, 3)), storm = 4 + (4 * 30) + (4 * 0.9 * 5.67e-8 * Math.Pow(263.15, 3));
        Assert.Equal(-10 + (200 / (5 / (0.13 + (1 / film)))), told.C[30], 0.1);
        Assert.Equal(-10 + (200 / (5 / (0.13 + (1 / storm)))), told.C[48], 0.1);
    }

    [Fact]
    public void What_is_asked_of_a_steady_night_is_not_answered_from_the_weather_of_another()
    {
        var mild = new WeatherChoice(Hours: [.. Enumerable.Repeat(new WeatherHour(6, 0.5, 1), 30)]);
        foreach (string name in (string[])["sparrow", "lantern"])
        {
            var rig = DemoRigs.Of(name);
            rig = rig with { Brief = rig.Brief with { LowestC = -9, WindMPerS = 8 } };
            Question Ask(WeatherChoice? weather) => new(rig, Conditions.Of(rig.Brief) with { Weather = weather });
            Assert.Equal(Ask(null).Ask(SupplyStudy.Ask).Consequences.Select(c => c.Words.Text),
                Ask(mild).Ask(SupplyStudy.Ask).Consequences.Select(c => c.Words.Text));
            var (plain, other) = (Ask(null).Ask(MeasureNextStudy.Ask), Ask(mild).Ask(MeasureNextStudy.Ask));
            Assert.Equal((plain.ZoneId, plain.AirC), (other.ZoneId, other.AirC));
            Assert.Equal(plain.Items.Select(i => (i.Id, i.SwingK)), other.Items.Select(i => (i.Id, i.SwingK)));
        }
        // Driving at 25 m/s lines under the floor have 25 m/s, whatever the night's weather blows.
        var tern = DemoRigs.Of("tern");
        PlanEvent[] drive = [new("drive", PlanEventKind.Drive, 0, SpeedMPerS: 25)];
        var still = Conditions.Of(tern.Brief) with { Water = WaterState.Wet, HeatOn = false, OutdoorC = -8, WindMPerS = 0.5, Events = drive };
        var (steady, hourly) = (RigNight.Of(new Question(tern, still)),
            RigNight.Of(new Question(tern, still with { Weather = new WeatherChoice(Hours: [.. Enumerable.Repeat(new WeatherHour(-8, 0.5, 1), 30)]) })));
        Assert.All(Enumerable.Range(0, steady.Candidates.Count), n => Assert.Equal(Math.Min(1e6, steady.Marks(n).FirstIceS),
            Math.Min(1e6, hourly.Marks(n).FirstIceS), 1.0));
        var parked = RigNight.Of(new Question(tern, still with { Events = null }));
        int outdoors = Enumerable.Range(0, steady.Candidates.Count).First(n => steady.Candidates[n] is { Zone: null } f && tern.Runs.Find(f.Thing) is not null);
        Assert.True(hourly.Marks(outdoors).FirstIceS < 0.5 * parked.Marks(outdoors).FirstIceS);
    }

    [Fact]
    public void An_exposed_tank_has_the_wind_of_its_winter_not_of_the_night_on_screen()
    {
        var tern = DemoRigs.Of("tern");
        SeasonAnswer Winters(double wind, double outdoor) => SeasonStudy.Ask(new Question(tern,
            Conditions.Of(tern.Brief) with { Water = WaterState.Wet, HeatOn = false, WindMPerS = wind, OutdoorC = outdoor }),
            new(WeatherPlace.BrennickQuay, 2));
        Assert.Equal(Winters(0, -20).Weeks, Winters(30, 5).Weeks);
    }

    [Fact]
    public void An_evening_starts_as_each_room_was_kept()
    {
        Zone Room(string id, ZoneKind kind, double x, ZoneHeater? heater) =>
            new(id, id, kind, RigBuilder.Cube(x, 0, 0, 2), 0.5, [new("wall", "wall", FaceSide.Wall, 6, [new("xps", 0.03)], 0, [])], [], heater);
        double[] Start(double? insideC, params Zone[] zones)
        {
            var rig = new RigBuilder().Build();
            var night = new Conditions(-10, 2, false, 12, WaterState.Wet, 22, 8, Attitude.Level, InsideC: insideC);
            return [.. new Question(rig with { Shell = rig.Shell with { Zones = zones } }, night).Ask(NightStudy.Ask).Zones.Select(z => z.C[0])];
        }
        // A guard in the garage holds its own set point and takes nothing from the living space, however weak it is.
        Assert.Equal([8, 18], Start(null, Room("garage", ZoneKind.Garage, 0, new(800, 8)), Room("living", ZoneKind.Living, 3, null)));
        Assert.Equal(18, Start(null, Room("garage", ZoneKind.Garage, 0, new(1, 8)), Room("living", ZoneKind.Living, 3, null))[1]);
        Assert.InRange(Start(null, Room("garage", ZoneKind.Garage, 0, new(1, 8)), Room("living", ZoneKind.Living, 3, null))[0], -10, -9);
        Assert.Equal([8, 15], Start(15, Room("garage", ZoneKind.Garage, 0, new(800, 8)), Room("living", ZoneKind.Living, 3, null)));
        // Living space with a heater has its set point, or what is said.
        Assert.Equal([20.5], Start(null, Room("living", ZoneKind.Living, 0, new(2000, 20.5))));
        Assert.Equal([12], Start(12, Room("living", ZoneKind.Living, 0, new(2000, 20.5))));
        // Beside a heated one, a second room of the kind settles as it may.
        Assert.InRange(Start(null, Room("bath", ZoneKind.Living, 0, null), Room("living", ZoneKind.Living, 3, new(2000, 20)))[0], -10, 0);
        // At any power the rest is as warm or warmer for it.
        foreach (double watts in (double[])[0, 1, 10, 100, 1000])
            Assert.True(Start(null, Room("garage", ZoneKind.Garage, 0, new(watts, 8)), Room("living", ZoneKind.Living, 3, null)).All(c => c >= -10.001));
    }

    [Fact]
    public void Heat_that_is_on_and_does_not_heat_is_a_finding()
    {
        Finding[] Found(double watts, double outdoor, bool on = true)
        {
            var rig = new RigBuilder().Zone("room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2), heater: watts < 0 ? null : new ZoneHeater(watts, 18)).Build();
            return [.. rig.Findings(new Conditions(outdoor, 2, on, 12, WaterState.Wet, 22, 8, Attitude.Level)).Where(f => f.Kind == FindingKind.HeatShort)];
        }
        Assert.Empty(Found(2000, -10));
        Assert.Empty(Found(0, -10, on: false));
        Assert.All((double[])[-1, 0], watts => Assert.Equal("heat", Assert.Single(Found(watts, -10)).Id));
        var short_ = Assert.Single(Found(100, -10));
        // 10 m² of 30 mm of XPS in 2 m/s, half an air change of 8 m³, 28 K.
        double u = 1 / (0.13 + (0.03 / 0.034) + (1 / (4 + 8 + (4 * 0.9 * 5.67e-8 * Math.Pow(263.15, 3))))),
            needed = 28 * ((10 * u) + (0.5 * 8 * 1.29 * 1006 / 3600));
        Assert.Equal(needed - 100, short_.Number!.Value!.Value, 1.0);
    }

    [Fact]
    public void What_breaks_leads_and_is_told_by_when_it_breaks()
    {
        int shutIn = 0;
        foreach (var rig in Enumerable.Range(0, 3 * Rigs).Select(AnyRig.Of).Append(DemoRigs.Of("lantern")).Append(Sparrow))
        {
            var question = new Question(rig, Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = false });
            var (night, ladder, told) = (question.Ask(RigNight.Of), question.Ask(FreezeLadderStudy.Ask), question.Ask(NightStudy.Ask));
            Assert.All(ladder.Rungs, r => Assert.Equal(r.Breaks ? r.BreaksS : r.FirstIceS, r.AtS));
            var rungs = ladder.Rungs.Select(r => (r.Breaks ? 0 : 1, r.AtS ?? double.PositiveInfinity)).ToList();
            Assert.Equal(rungs.Order(), rungs);
            shutIn += ladder.Rungs.Count(r => r is { Breaks: true, ShutIn: true } && r.BreaksS > r.FirstIceS + 60);
            var first = ladder.Rungs[0];
            var standing = question.Ask(StandingStudy.Ask);
            if (first.State != IceState.Safe) Assert.Equal((first.Name, first.AtS), (standing.FirstName, standing.FirstS));
            if (first.Breaks)
                Assert.Equal((first.BreaksS!.Value, first.Name), (question.Ask(GuessStudy.Ask).FirstIceS!.Value, question.Ask(GuessStudy.Ask).Name!));
            Assert.All(told.Rungs, r => Assert.True((r.EarliestS ?? 0) <= (r.Rung.AtS ?? 1e9) && (r.LatestS ?? 1e9) >= (r.Rung.AtS ?? 0)));
            // Each line that bursts is a finding, with the same time.
            var findings = question.Ask(Adviser.Ask).Findings.Where(f => f.Kind == FindingKind.FirstIce).ToDictionary(f => f.Id, f => f.Number!.Value);
            Assert.All(ladder.Rungs.Where(r => r is { RunId: not null, Breaks: true }).GroupBy(r => r.RunId), g =>
                Assert.Equal(g.Min(r => r.BreaksS), findings[$"ice:run:{g.Key}"]));
        }
        Assert.True(shutIn > 5, $"{shutIn} lines that freeze shut in");
    }

    [Fact]
    public void The_warmest_night_that_breaks_something_is_found_by_trying_all_of_them()
    {
        int kinder = 0;
        for (int seed = 0; seed < Rigs; seed++)
        {
            // From a tank that stays warm through a bay that cools to an end in the open, all plastic, and nothing else that ice breaks: the end bursts where
            // the bay's length is blocked before it is through, and that comes and goes with the cold.
            Zone Room(string id, double x, double holds) => new(id, id, ZoneKind.Living, new Box(new(x, 0, 0), new(3, 2, 2)), 1,
                [new("wall", "wall", FaceSide.Wall, 12, [new("xps", 0.02)], 0, [])], [], HeatCapacityJPerK: holds);
            var rig = new RigBuilder { Brief = new(2, 3, 10, -10, 3, 2, WayOfLiving.LivedIn, FreezeSchool.Heat, 0.02) }
                .Tank("tank", new Box(new(-2.6, 0.8, 0.4), new(0.6, 0.4, 0.4)), ("outlet", -2, 1, 0.5), ("vent", -2.3, 1, 0.8))
                    .Part("end", "level-sender", ("in", 4, 1, 0.5))
                .Run("line", "tank.outlet", "end.in").Insulate("line", 0.001 * (seed % 3)).Build();
            rig = rig with { Shell = rig.Shell with { Zones = [Room("bay", 0, 24_000 + (6000 * (seed % 4))), Room("tanks", -3, 5e7)] } };
            var question = new Question(rig, Conditions.Of(rig.Brief) with
            {
                HeatOn = false,
                Hours = 8 + (4 * (seed % 3)),
                InsideC = 15,
                TankLevels = [new("tank", 0.5)]
            });
            var told = question.Ask(ColdLimit.Of);
            bool Breaks(double c) => !question.With(question.Conditions.Constant(c)).Ask(RigNight.Of).Stands();
            double? warmest = null;
            for (double c = -0.5; c >= -40 && warmest is null; c -= 0.25) if (Breaks(c)) warmest = c;
            if (warmest is { } found) Assert.InRange(told.FailsC!.Value, found - 0.5, found + 0.5);
            else Assert.True(told.StandsAllTried);
            if (told.ColdestC is { } safe)
                Assert.All(Enumerable.Range(0, 400).Select(k => -0.1 * k).Where(c => c >= safe && c <= -0.5), c => Assert.False(Breaks(c)));
            if (told.KinderC is not { } cold) continue;
            kinder++;
            Assert.False(Breaks(cold));
            Assert.True(cold < told.FailsC);
        }
        Assert.True(kinder > 0);
    }

    [Fact]
    public void A_room_has_its_box_less_the_rooms_in_it()
    {
        for (int seed = 0; seed < Rigs; seed++)
        {
            var zones = AnyRig.Of(seed).Shell.Zones;
            var volumes = ZoneVolumes.Of(zones);
            var owner = new ZonesBySize(zones);
            for (int z = 0; z < zones.Count; z++)
            {
                // By the share of a fine grid of places that finds its way to the room.
                const int n = 24;
                int own = 0;
                for (int i = 0; i < n * n * n; i++)
                {
                    var share = new Point3(((i % n) + 0.5) / n, ((i / n % n) + 0.5) / n, ((i / n / n) + 0.5) / n);
                    var (at, size) = (zones[z].Box.At, zones[z].Box.Size);
                    if (owner.At(at + new Point3(size.XM * share.XM, size.YM * share.YM, size.ZM * share.ZM))?.Id == zones[z].Id) own++;
                }
                Assert.Equal(zones[z].Box.VolumeM3() * own / (n * n * n), volumes[z], 0.06 * zones[z].Box.VolumeM3());
            }
        }
        // What leaks and what holds heat go by that.
        var nested = new RigBuilder().Zone("living", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2)).Zone("bay", ZoneKind.Garage, RigBuilder.Cube(0, 0, 0, 1))
            .Zone("box", ZoneKind.Cupboard, RigBuilder.Cube(0.5, 0.5, 0.5, 0.5)).Build();
        Assert.Equal([0.875, 0.125, 7], ZoneVolumes.Of(nested.Shell.Zones));
    }

    [Fact]
    public void An_opening_is_no_higher_than_its_rooms_and_one_in_a_lid_over_colder_air_lies_still()
    {
        Zone Room(string id, ZoneKind kind, Box box, Opening? opening = null, ZoneHeater? heater = null) =>
            new(id, id, kind, box, 0.5, [new("wall", "wall", FaceSide.Wall, 3, [new("xps", 0.03)], 0, [])], opening is null ? [] : [opening], heater);
        double Duct(Opening opening, double warmC = 18)
        {
            var rig = new RigBuilder().Build();
            Zone[] zones = [Room("duct", ZoneKind.EnclosedUnderfloor, new Box(new(0, 0, -0.05), new(2, 0.3, 0.05)), opening),
                Room("living", ZoneKind.Living, new Box(new(0, 0, 0), new(3, 2, 2)), null, new(3000, warmC))];
            return ZoneBalance.Solve(rig with { Shell = rig.Shell with { Zones = zones } }, new SteadyNight(-10, 2, true)).First(z => z.ZoneId == "duct").AirC;
        }
        var slot = new Opening("slot", "living", 0.02, 0.4);
        Assert.Equal(Duct(slot with { HeightM = 0.05 }), Duct(slot), 6);
        Assert.True(Duct(slot with { Side = FaceSide.Roof }) < Duct(slot with { HeightM = 0.4, Side = FaceSide.Floor }) - 3);
        // Drawn anew it is refused at its field; what was saved so stays readable.
        var bare = new RigBuilder().Build();
        var high = bare with
        {
            Shell = bare.Shell with
            {
                Zones = [Room("duct", ZoneKind.EnclosedUnderfloor, new Box(new(0, 0, -0.05), new(2, 0.3, 0.05)),
            slot), Room("living", ZoneKind.Living, new Box(new(0, 0, 0), new(3, 2, 2)))]
            }
        };
        var fault = Assert.Single(RigCheck.Check(high));
        Assert.Equal(("shell.zones[0].openings[0].heightM", false), (fault.Path, fault.Essential));
    }

    [Fact]
    public void The_same_rig_elsewhere_or_mirrored_has_the_same_night_to_the_second()
    {
        for (int seed = 0; seed < Rigs; seed++)
        {
            var (rig, night, _) = Any(seed);
            var here = RigNight.Of(new Question(rig, night));
            foreach (var there in (Rig[])[Moved(rig, new Point3(0.137, -0.291, 0.0533)), Mirrored(rig)])
            {
                var other = RigNight.Of(new Question(there, night));
                var number = other.Numbers();
                Assert.Equal(here.Candidates.Count, other.Candidates.Count);
                for (int n = 0; n < here.Candidates.Count; n++)
                {
                    int m = number[here.Candidates[n].Id];
                    Assert.Equal(Math.Min(1e6, here.Marks(n).FirstIceS), Math.Min(1e6, other.Marks(m).FirstIceS), 1.0);
                    Assert.Equal(Math.Min(1e6, here.BreaksS(n)), Math.Min(1e6, other.BreaksS(m)), 1.0);
                }
            }
        }
    }

    private static Rig Moved(Rig rig, Point3 by) => rig with
    {
        Shell = rig.Shell with
        {
            Body = rig.Shell.Body with { At = rig.Shell.Body.At + by },
            Zones = [.. rig.Shell.Zones.Select(z => z with { Box = z.Box with { At = z.Box.At + by } })]
        },
        Parts = [.. rig.Parts.Select(p => p with { Box = p.Box with { At = p.Box.At + by } })],
        Runs = [.. rig.Runs.Select(r => r with { Bends = [.. r.Bends.Select(b => b with { At = b.At + by })] })],
    };

    // Kerb side for far side.
    private static Rig Mirrored(Rig rig)
    {
        static Box Turned(Box box) => box with { At = box.At with { YM = 3 - box.Far().YM } };
        static string Side(string words) => words.Contains("kerb", StringComparison.Ordinal) ? words.Replace("kerb", "far", StringComparison.Ordinal)
            : words.Replace("far", "kerb", StringComparison.Ordinal);
        return rig with
        {
            Shell = rig.Shell with
            {
                Body = Turned(rig.Shell.Body),
                Zones =
                [.. rig.Shell.Zones.Select(z => z with { Box = Turned(z.Box),
                Faces = z.Faces.Select(f => f with { Id = Side(f.Id), Name = Side(f.Name) }).InOrder() })]
            },
            Parts = [.. rig.Parts.Select(p => p with { Box = Turned(p.Box),
            Ports = [.. p.Ports.Select(o => o with { Offset = o.Offset with { YM = p.Box.Size.YM - o.Offset.YM } })] })],
            Runs = [.. rig.Runs.Select(r => r with { Bends = [.. r.Bends.Select(b => b with { At = b.At with { YM = 3 - b.At.YM } })] })],
        };
    }

    [Fact]
    public void Below_zero_and_heat_are_told_until_morning()
    {
        var zone = new Zone("room", "room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2), 0,
            [new("wall", "wall", FaceSide.Wall, 6, [new("xps", 0.03)], 0, [])], [], new ZoneHeater(3000, 15));
        var rig = new RigBuilder().Build();
        var told = new Question(rig with { Shell = rig.Shell with { Zones = [zone] } }, new Conditions(-15, 0, true, 12, WaterState.Wet, 22, 8, Attitude.Level))
            .Ask(NightStudy.Ask);
        Assert.Equal((8.0, 120.0, 8.0, -15.0), (told.Outdoors.HoursBelow, told.Outdoors.DegreeHours, told.Outdoors.LongestSpellH, told.Outdoors.ColdestC));
        Assert.Equal(told.Zones[0].HeaterWh.Take(8).Sum(), told.Zones[0].UntilMorningWh, 0.5);
        Assert.True(told.Zones[0].HeaterWh.Count > 8);
    }
}
