using System.Collections.Concurrent;
using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Weights;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What holds for every night, whoever asks for it and whatever is planned.</summary>
public class AnyNightTests
{
    private const double HourS = 3600, DayS = 24 * HourS;

    private static readonly string[] Names = ["sparrow", "tern", "lantern"];
    private static readonly Dictionary<string, Rig> Rigs = Names.ToDictionary(n => n, DemoRigs.Of);

    private static Conditions Left(Rig rig, bool heat) => Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = heat };

    public static TheoryData<string, string> Nights => new(Names.SelectMany(n =>
        (string[])["cold side", "warm side", "limit", "winter", "week", "calibration"], (name, study) => (name, study)));

    [Theory]
    [MemberData(nameof(Nights))]
    public void Energy_closes_in_the_nights_of_each_study(string name, string study)
    {
        var rig = Rigs[name];
        HeatBalance Of(Conditions night, Uncertainty doubt) => RigNight.Of(new Question(rig, night), doubt).Answer.Balance;
        HeatBalance Winter()
        {
            var asked = new Question(rig, Left(rig, true));
            var candidates = FreezeLadderStudy.Candidates(asked);
            var laid = LaidCircuits.Of(asked, candidates, SeasonStudy.Course(asked, 182), Uncertainty.None);
            return SeasonStudy.Drawn(asked, candidates, laid, new WeatherChoice(WeatherPlace.OsmerPlain, 3), 182, out _).Balance;
        }
        HeatBalance Fitted()
        {
            // As the fit asks for it: the rooms with what holds water in them, outdoors from readings, a heater of known watts for some hours.
            var asked = new Question(rig, Left(rig, false));
            var rooms = RigNetwork.Of(asked, FreezeLadderStudy.Candidates(asked), [new WeatherHour(-8, 1, 1)], NightCourse.Of(asked.Conditions, 10 * HourS)[0],
                Uncertainty.None, LaidCircuits.None, out _);
            return NightEngine.Run(rooms with
            {
                OutdoorC = new TimeSeries([0, 3 * HourS, 10 * HourS], [2, -6, -11]),
                Zones = [.. rooms.Zones.Select((z, i) => i == 0 ? z with { Heaters = [new NightHeater(500, 1, 900, HourS, 4 * HourS)] } : z)],
            }).Balance;
        }
        var balance = study switch
        {
            "cold side" => Of(Left(rig, true) with { Cloud = 0 }, Uncertainty.Pessimistic),
            "warm side" => Of(Left(rig, false), Uncertainty.Optimistic),
            "limit" => Of(Left(rig, true) with { OutdoorC = -40, Hours = 72 }, Uncertainty.None),
            "winter" => Winter(),
            "week" => Of(Left(rig, true) with
            {
                Hours = 168,
                Weather = new WeatherChoice(WeatherPlace.BrennickQuay, 2, 80),
                Events = [new("away", PlanEventKind.Away, 24, 144), new("drained", PlanEventKind.Drained, 26, 140)]
            }, Uncertainty.None),
            _ => Fitted(),
        };
        Assert.True(balance.TurnoverJ > 1e5);
        Assert.InRange(balance.Gap(), 0, 0.001);
    }

    private sealed record Planned(string Rig, Conditions Night)
    {
        // What is to be seen of one that fails: its events too.
        public override string ToString() => $"{Rig} {System.Text.Json.JsonSerializer.Serialize(Night, RigFile.Compact)}";
    }

    private static readonly Gen<Planned> AnyPlan =
        from name in Gen.OneOfConst(Names)
        from weather in Gen.Frequency((1, Gen.Const((WeatherChoice?)null)),
            (2, Gen.Select(Gen.Enum<WeatherPlace>(), Gen.Int[1, 50], Gen.Int[60, 160], (p, w, d) => (WeatherChoice?)new WeatherChoice(p, w, d))))
        from outdoor in Gen.Double[-30, 3]
        from wind in Gen.Double[0, 12]
        from heat in Gen.Bool
        from drained in Gen.Frequency((3, Gen.Const(WaterState.Wet)), (1, Gen.Const(WaterState.Drained)))
        from hours in Gen.Frequency((3, Gen.Double[1, 40]), (1, Gen.Select(Gen.Int[1, 40], Gen.Double[0, 1e-4], (h, past) => h + past)))
        from events in EventOf(Rigs[name]).Array[0, 6]
        select new Planned(name, Left(Rigs[name], heat) with
        {
            OutdoorC = outdoor,
            WindMPerS = wind,
            Weather = weather,
            Water = drained,
            Hours = hours,
            Events = [.. events.Select((e, i) => e with { Id = $"e{i}" })],
        });

    private static Gen<PlanEvent> EventOf(Rig rig) =>
        from kind in Gen.Enum<PlanEventKind>().Where(k => k != PlanEventKind.AirLocks || Lines(rig).Count > 0)
        from at in Gen.Double[0, 45]
        from lasts in Gen.Frequency((1, Gen.Const((double?)null)), (3, Gen.Double[0, 20].Select(h => (double?)h)))
        from hold in Gen.Double[-5, 20]
        from room in Gen.Int[0, rig.Shell.Zones.Count - 1]
        from other in Gen.Int[-1, rig.Shell.Zones.Count - 1]
        from area in Gen.Double[0, 1.5]
        from valve in Gen.Int[0, 1000]
        select new PlanEvent(
            "e", kind, at, kind == PlanEventKind.PumpPressed ? null : at + lasts, kind is PlanEventKind.SetBack or PlanEventKind.Away ? hold : null,
            kind == PlanEventKind.Drive ? 20 + hold : null,
            kind == PlanEventKind.Open ? rig.Shell.Zones[room].Id : null,
            kind == PlanEventKind.Open && other >= 0 && other != room ? rig.Shell.Zones[other].Id : null, kind == PlanEventKind.Open ? area : null,
            kind == PlanEventKind.Open ? 0.1 : null, kind == PlanEventKind.ValveSticks ? Valve(rig, valve).Id : null,
            kind == PlanEventKind.ValveSticks ? Catalogue.Part(Valve(rig, valve).Stock)!.Positions[^1].Id : null,
            kind == PlanEventKind.AirLocks ? Lines(rig)[valve % Lines(rig).Count].Id : null);

    private static List<Run> Lines(Rig rig) => [.. rig.Runs.Where(r => r.Service == Service.Coolant)];

    private static Part Valve(Rig rig, int number) => rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Valve).ToList() is var valves
        ? valves[number % valves.Count] : null!;

    [Theory]
    [InlineData(1e-10)]
    [InlineData(3.4e-10)]
    [InlineData(1e-6)]
    [InlineData(3e-6)]
    [InlineData(1e-4)]
    public void A_night_that_ends_a_moment_past_an_hour_ends_as_one_that_ends_on_it(double pastH)
    {
        Conditions Until(double hours) => Left(Rigs["lantern"], false) with { Hours = hours, Weather = new WeatherChoice(WeatherPlace.KettleFell, 17, 131) };
        NightAnswer At(double hours) => RigNight.Of(new Question(Rigs["lantern"], Until(hours))).Answer;
        var (on, past) = (At(7), At(7 + pastH));
        for (int z = 0; z < on.ZoneC.GetLength(1); z++)
            Assert.Equal(on.ZoneC[on.ReportS.Count - 1, z], past.ZoneC[past.ReportS.Count - 1, z], 0.01);
    }

    [Fact]
    public void Whatever_is_planned_energy_closes_and_nothing_is_colder_than_outdoors_or_warmer_than_what_warmed_it() => AnyPlan.Sample(
        planned =>
        {
            var (rig, asked) = (Rigs[planned.Rig], planned.Night);
            Assert.Empty(asked.Check(rig));
            var night = RigNight.Of(new Question(rig, asked));
            Assert.InRange(night.Answer.Balance.Gap(), 0, 0.001);
            // Nothing is open to the sky here but faces under less than a full cover.
            double coldest = Math.Min(Math.Min(asked.KeptC(rig), rig.Shell.Zones.Min(z => z.Heater?.SetpointC ?? 40)),
                night.Weather.Min(w => OuterFace.SkyC(w.TemperatureC, w.Cloud))) - 0.1, hold = asked.Events!.Max(e => e.HoldC) ?? 0;
            double warmest = Math.Max(Math.Max(asked.KeptC(rig), asked.StartWaterC), Math.Max(hold, rig.Shell.Zones.Max(z => z.Heater?.SetpointC ?? 0))) + 0.6;
            warmest = Math.Max(warmest, night.Weather.Max(w => w.TemperatureC) + 0.1);
            // Circuits warm no more than their heaters stop at.
            warmest = Math.Max(warmest, rig.Parts.Where(p => night.Heat.PartWh.ContainsKey(p.Id)).Max(p => p.Heats().StopsC) ?? 0);
            // Pads and elements no more than where they go on.
            warmest = Math.Max(warmest, rig.Parts.Where(p => night.Heat.PadWh.ContainsKey(p.Id)).Max(p => p.Pad?.OnC + 0.5) ?? 0);
            for (int r = 0; r < night.Answer.ReportS.Count; r++)
            {
                foreach (var zone in rig.Shell.Zones) Assert.InRange(night.AirC(zone, r), coldest, warmest);
                for (int n = 0; n < night.Candidates.Count; n++)
                {
                    Assert.InRange(night.WaterC(r, n), coldest, warmest);
                    Assert.InRange(night.Ice(r, n), 0, 1);
                }
            }
            for (int n = 0; n < night.Candidates.Count; n++)
            {
                var marks = night.Marks(n);
                Assert.True(marks.FirstIceS <= marks.BlockedS && marks.BlockedS <= marks.SolidS, night.Candidates[n].Name);
                Assert.True(night.BreaksS(n) >= marks.FirstIceS, night.Candidates[n].Name);
            }
        },
        iter: 120);

    [Fact]
    public void A_course_is_the_whole_night_without_gaps_and_a_stretch_is_what_is_on_in_its_middle() => AnyPlan.Sample(
        planned =>
        {
            double endS = Math.Max(12, planned.Night.Hours) * HourS;
            var course = NightCourse.Of(planned.Night, endS);
            Assert.Equal((0.0, endS), (course[0].FromS, course[^1].ToS));
            Assert.All(course.Zip(course.Skip(1)), p => Assert.Equal(p.First.ToS, p.Second.FromS));
            var heater = new ZoneHeater(500, 10);
            foreach (var segment in course)
                foreach (double share in (double[])[0.01, 0.5, 0.99])
                {
                    double hour = (segment.FromS + share * (segment.ToS - segment.FromS)) / HourS;
                    // Edges nearer to one another than a second are one.
                    if (planned.Night.Events!.Any(e => Math.Abs(e.AtH - hour) < 2 / HourS || Math.Abs((e.UntilH ?? -1) - hour) < 2 / HourS)) continue;
                    var on = planned.Night.Events!.Where(e => e.AtH <= hour && hour < (e.UntilH ?? 1e9)).Select(e => e.Kind).ToHashSet();
                    Assert.Equal(on.Contains(PlanEventKind.Drained) ? WaterState.Drained : planned.Night.Water, segment.Water);
                    bool heats = (planned.Night.HeatOn || on.Contains(PlanEventKind.HeatOn)) && !on.Contains(PlanEventKind.HeatFails)
                        && !on.Contains(PlanEventKind.FuelOut) && (!on.Contains(PlanEventKind.BatteryOut) || on.Contains(PlanEventKind.Mains));
                    Assert.Equal(heats, segment.Heats(heater));
                }
        },
        iter: 500);

    [Fact]
    public void Colder_outdoors_nothing_freezes_later_and_in_a_warmer_start_nothing_sooner() =>
        Gen.Select(Gen.OneOfConst(Names), Gen.Double[-30, -1], Gen.Double[0.5, 8], Gen.Bool).Sample(
        (name, outdoor, by, start) =>
        {
            var night = Left(Rigs[name], false) with { OutdoorC = outdoor, Hours = 24, InsideC = 6 };
            var (here, there) = (RigNight.Of(new Question(Rigs[name], night)),
                RigNight.Of(new Question(Rigs[name], start ? night with { InsideC = 6 + by } : night with { OutdoorC = outdoor - by })));
            var number = there.Numbers();
            for (int n = 0; n < here.Candidates.Count; n++)
            {
                var (now, then) = (here.Marks(n).FirstIceS, there.Marks(number[here.Candidates[n].Id]).FirstIceS);
                Assert.True(start ? then >= now - 60 : then <= now + 60, here.Candidates[n].Name);
            }
        },
        iter: 40);

    [Fact]
    public void A_window_lets_in_what_the_wind_of_its_hour_blows()
    {
        // A day of calm, a day of 12 m/s, at -10 °C; a heater that is never enough. Each day ends where what it gives is what walls, draughts and window take.
        var room = new Zone("room", "room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2), 0.5,
            [new("wall", "wall", FaceSide.Wall, 10, [new("xps", 0.03)], 0, [])], [], new ZoneHeater(300, 40), 50_000);
        var bare = new RigBuilder().Build();
        WeatherHour[] hours = [.. Enumerable.Repeat(new WeatherHour(-10, 0, 1), 24), .. Enumerable.Repeat(new WeatherHour(-10, 12, 1), 30)];
        var night = new Conditions(-10, 0, true, 12, WaterState.Wet, 22, 48, Attitude.Level, Weather: new WeatherChoice(Hours: hours),
            Events: [new PlanEvent("window", PlanEventKind.Open, 0, ZoneId: "room", AreaM2: 0.2, HeightM: 0.4)]);
        var told = new Question(bare with { Shell = bare.Shell with { Zones = [room] } }, night).Ask(NightStudy.Ask).Zones.Single();
        foreach (var (hour, wind) in ((int, double)[])[(23, 0), (47, 12)])
        {
            double over = told.C[hour] + 10;
            Assert.Equal(300, (RigBuilder.LossWPerK(room, night with { Weather = null, WindMPerS = wind })
                + AirExchange.OpeningWPerK(0.2, 0.4, over, told.C[hour] - over / 2, wind)) * over, 3.0);
        }
        Assert.True(told.C[47] < told.C[23] - 2);
    }

    [Fact]
    public void What_a_winter_is_drawn_of_may_be_asked_on_all_cores_at_once()
    {
        var rig = Rigs["lantern"];
        for (int round = 0; round < 40; round++)
        {
            var asked = new Question(rig, Left(rig, true));
            var candidates = FreezeLadderStudy.Candidates(asked);
            var made = new ConcurrentBag<double>();
            Parallel.For(0, 8, _ => made.Add(RigNetwork.Bodies(asked, candidates, Uncertainty.None).Sum(b => b.Contacts.Sum(c => RigBuilder.At5WPerK(c)))));
            Assert.Single(made.Distinct());
        }
    }

    [Fact]
    public void Lines_in_too_many_pieces_are_refused_by_what_cuts_them_and_weighed_all_the_same()
    {
        // Each of 20,000 lengths goes up and down through four borders.
        var sparrow = Rigs["sparrow"];
        var zones = Enumerable.Range(0, 6).Select(n => new Zone($"z{n}", $"z{n}", ZoneKind.Living,
            new Box(new(-25, 0, 0.44 + (0.01 * n) + (n == 0 ? -0.4 : 0)), new(50, 2, n == 0 ? 0.41 : 0.01)), 0.5, [], [])).ToList();
        var largest = SizedRigs.Largest(sparrow);
        largest = largest with { Shell = largest.Shell with { Zones = zones } };
        var question = new Question(largest, Left(sparrow, false)).Warm();
        Assert.Contains("pieces", Assert.Throws<TooLargeException>(() => question.Ask(FreezeLadderStudy.Ask)).Message);
        Assert.True(question.Ask(WeightStudy.Ask).PipeKg > 1);
    }
}
