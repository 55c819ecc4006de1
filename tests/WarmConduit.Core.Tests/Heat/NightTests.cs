using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;

namespace WarmConduit.Core.Tests.Heat;

public class NightTests
{
    private const double Hour = 3600;

    private static NightBody Pipe(string id, params NightContact[] contacts) => new(id, 0.3, 250, 8, IceGrowth.Cylinder, 2.5, contacts, []);

    private static readonly NightNetwork Plain = new(
        [
            new("living", 500_000, 40, 15, [new(18, 1, 1500, 0, 6 * Hour), new(18, 1, 1500, 9 * Hour, 30 * Hour)]),
            new("garage", 150_000, 20, 8, [], OutdoorWPerKPerMPerS: 1.5),
        ],
        [new("living", "garage", 9)],
        [Pipe("run", new NightContact("garage", 0.9)), Pipe("hatch", new NightContact("garage", 0.3), new NightContact("outdoor", 0.4))],
        new TimeSeries([0, 8 * Hour, 20 * Hour, 30 * Hour], [-4, -14, -16, 6]),
        36 * Hour)
    {
        WindMPerS = new TimeSeries([0, 10 * Hour], [2, 9]),
    };

    [Fact]
    public void Body_step_is_the_exact_answer_and_joins_its_series_smoothly()
    {
        foreach (double x in (double[])[1e-9, 9.9e-5, 1.01e-4, 0.3, 4, 60])
        {
            var s = BodyStep.Of(x);
            // A body that starts at its surroundings' temperature and sees none change stays there; so does its mean.
            Assert.Equal(1, s.E + s.Start + s.End, 1e-12);
            Assert.Equal(1, s.Phi + s.MeanStart + s.MeanEnd, 1e-12);
            // Heat kept: x (mean surroundings - mean) = rise.
            Assert.Equal(s.End, x * (0.5 - s.MeanEnd), 1e-9);
        }
    }

    [Fact]
    public void The_scheme_is_of_second_order_and_the_balance_closes_whatever_the_step()
    {
        NightAnswer With(double step) => NightEngine.Run(Plain, new NightOptions(step, step, [5 * Hour]));
        var fine = With(2);
        double Error(double step) => Math.Max(Math.Abs(With(step).ZoneC[0, 1] - fine.ZoneC[0, 1]), Math.Abs(With(step).BodyC[0, 0] - fine.BodyC[0, 0]));
        double ratio = Error(240) / Error(120);
        Assert.InRange(ratio, 3.2, 5.5);
        foreach (double step in (double[])[30, 300, 3600]) Assert.InRange(With(step).Balance.Gap(), 0, 1e-9);
    }

    [Fact]
    public void A_night_that_stays_as_it_is_comes_to_the_linear_balance()
    {
        var steady = Plain with
        {
            Zones = [Plain.Zones[0] with { Heaters = [new(18, 0.01, 4000, 0, double.PositiveInfinity)] }, Plain.Zones[1]],
            Bodies = [],
            OutdoorC = TimeSeries.Constant(-9),
            WindMPerS = TimeSeries.Constant(4),
            EndS = 200 * Hour,
        };
        var night = NightEngine.Run(steady, new NightOptions(ReportS: [200 * Hour]));
        var balance = SteadyZones.Solve([new(40, 4000, 18), new(26, 0, 0)], [new(0, 1, 9)], -9);
        Assert.Equal(balance.TemperatureC[0], night.ZoneC[0, 0], 0.006);
        Assert.Equal(balance.TemperatureC[1], night.ZoneC[0, 1], 0.006);
    }

    [Fact]
    public void Dead_water_in_constant_air_freezes_when_the_closed_form_says()
    {
        var air = new NightZone("air", 1e12, 0, -8, []);
        double resistance = 1 / 0.9 * 2.5;
        var closed = Freezing.PartlyFilled(0.3 / 2.5, resistance, 250 / 2.5, 8, -8, FreezingConstants.Default);
        var night = NightEngine.Run(new NightNetwork([air], [], [Pipe("run", new NightContact("air", 0.9))], TimeSeries.Constant(-8), 48 * Hour),
            new NightOptions(300));
        var m = night.Milestones[0];
        Assert.Equal(closed.FirstIceS, m.FirstIceS, 1e-4 * closed.FirstIceS);
        Assert.Equal(closed.TenthS, m.BlockedS, 5e-3 * closed.TenthS);
        Assert.Equal(closed.SolidS, m.SolidS, 5e-3 * closed.SolidS);
    }

    [Fact]
    public void Milestones_come_in_order_and_thaw_after_the_cold()
    {
        var m = NightEngine.Run(Plain).Milestones[1];
        Assert.True(m.FirstIceS < m.BlockedS && m.BlockedS < m.SolidS && m.SolidS < m.ThawedS && m.ThawedS <= 36 * Hour);
        Assert.Equal(1, m.MostIce);
        Assert.True(m.LowestC < 0);
    }

    [Fact]
    public void Wind_an_open_door_and_a_failed_heater_make_it_colder_and_a_limit_is_kept()
    {
        double Garage(NightNetwork network) => NightEngine.Run(network, new NightOptions(ReportS: [20 * Hour])).ZoneC[0, 1];
        Assert.True(Garage(Plain with { WindMPerS = TimeSeries.Constant(15) }) < Garage(Plain with { WindMPerS = TimeSeries.Constant(0) }) - 1);
        Assert.True(Garage(Plain with { Events = [new(12 * Hour, "garage", null, 3)] }) < Garage(Plain) - 1);
        Assert.True(Garage(Plain with { Events = [new(12 * Hour, "living", "garage", 5)] }) > Garage(Plain) + 1);
        // However wide a door that opens later is, it is shut until then, and the balance closes over it.
        var wide = NightEngine.Run(Plain with { Events = [new(21 * Hour, "living", "garage", 1e7)] }, new NightOptions(ReportS: [20 * Hour, 36 * Hour]));
        Assert.Equal(Garage(Plain), wide.ZoneC[0, 1], 1e-9);
        Assert.Equal(wide.ZoneC[1, 0], wide.ZoneC[1, 1], 0.01);
        Assert.InRange(wide.Balance.Gap(), 0, 1e-6);
        // A louvre between the rooms warms the garage; shut at noon of the night it does so no more. What passes is what the linear balance with its
        // conductance says.
        var louvre = Plain with { Openings = [new("garage", "living", 0.08, 0.4)] };
        Assert.True(Garage(louvre) > Garage(Plain) + 1);
        Assert.InRange(Garage(louvre with { Events = [new(12 * Hour, "living", "garage", 0)] }), -20, Garage(Plain));
        Assert.InRange(NightEngine.Run(louvre).Balance.Gap(), 0, 1e-9);
        var capped = Plain with { Zones = [Plain.Zones[0] with { Heaters = [new(18, 1, 1500, 0, 36 * Hour, LimitWh: 5000)] }, Plain.Zones[1]] };
        var answer = NightEngine.Run(capped);
        Assert.Equal(5000, answer.Energy[0].TotalWh(), 1e-6);
        Assert.Equal(36, answer.Energy[0].WhByHour.Count);
        Assert.True(Garage(capped) < Garage(Plain));
    }

    [Fact]
    public void A_coolant_loop_and_a_warm_neighbour_keep_a_line_from_freezing_and_the_balance_still_closes()
    {
        var traced = Plain with
        {
            Bodies =
            [
                Pipe("run", new NightContact("garage", 0.9), new NightContact("loop", 1.2)),
                Pipe("beside", new NightContact("garage", 0.5), new NightContact("run", 2.5)),
                Pipe("alone", new NightContact("garage", 0.5)),
            ],
            Sources = [new("loop", new TimeSeries([0, 36 * Hour], [45, 40]))],
        };
        var answer = NightEngine.Run(traced, new NightOptions(ReportS: [24 * Hour]));
        Assert.Equal(double.PositiveInfinity, answer.Milestones[0].FirstIceS);
        Assert.Equal(double.PositiveInfinity, answer.Milestones[1].FirstIceS);
        Assert.True(double.IsFinite(answer.Milestones[2].FirstIceS));
        Assert.True(answer.BodyC[0, 0] > answer.BodyC[0, 1] && answer.BodyC[0, 1] > answer.BodyC[0, 2]);
        Assert.InRange(answer.Balance.Gap(), 0, 1e-3);
    }

    [Fact]
    public void Many_nights_are_the_same_to_the_bit_on_one_thread_and_on_many_and_can_be_called_off()
    {
        NightNetwork[] nights = [.. Enumerable.Range(0, 8).Select(i => Plain with { OutdoorC = new TimeSeries([0, 20 * Hour], [-i, -9 - i]) })];
        var options = new NightOptions(ReportS: NightOptions.Every(Hour, 36 * Hour));
        int heard = 0;
        var one = NightEngine.RunMany(nights, options, threads: 1, new Heard(() => Interlocked.Increment(ref heard)));
        var many = NightEngine.RunMany(nights, options);
        Assert.Equal(8, heard);
        for (int i = 0; i < nights.Length; i++)
        {
            Assert.Equal(one[i].BodyC, many[i].BodyC);
            Assert.Equal(one[i].Milestones, many[i].Milestones);
        }
        Assert.Throws<OperationCanceledException>(() => NightEngine.RunMany(nights, cancel: new CancellationToken(canceled: true)));
    }

    private sealed class Heard(Action then) : IProgress<int>
    {
        public void Report(int value) => then();
    }

    [Fact]
    public void Default_steps_keep_up_with_whatever_happens_in_a_night_and_the_balance_closes()
    {
        var far = new List<double>();
        Parallel.For(0, 120, seed =>
        {
            var night = new NightGen(seed).Night();
            var reports = NightOptions.Every(Hour / 2, 24 * Hour);
            var (answer, fine) = (NightEngine.Run(night, new NightOptions(ReportS: reports)), NightEngine.Run(night, new NightOptions(10, 0.1, reports)));
            Assert.InRange(answer.Balance.Gap(), 0, 1e-9);
            Assert.InRange(Farthest(answer.ZoneC, fine.ZoneC), 0, 0.2);
            foreach (double c in answer.BodyC) Assert.InRange(c, -20, 45);
            foreach (double f in answer.IceFraction) Assert.InRange(f, 0, 1);
            Assert.InRange(Farthest(answer.IceFraction, fine.IceFraction), 0, 0.02);
            for (int b = 0; b < night.Bodies.Count; b++)
            {
                // Water that only just comes to 0 °C does so any time.
                var (got, wanted) = (answer.Milestones[b], fine.Milestones[b]);
                if (Math.Max(got.MostIce, wanted.MostIce) > 0.02) Assert.Equal(wanted.FirstIceS, got.FirstIceS, Math.Max(60, 0.02 * wanted.FirstIceS));
            }
            lock (far) far.Add(Farthest(answer.BodyC, fine.BodyC));
        });
        // A body is off by more for a while when its last ice goes half a minute sooner.
        Assert.InRange(far.Max(), 0, 1);
        Assert.InRange(far.Count(f => f > 0.15), 0, 3);
    }

    [Fact]
    public void Plain_stepping_of_the_equations_comes_to_the_same() => Parallel.For(200, 206, seed => SteppedPlainly(new NightGen(seed).Night(), 0.2));

    [Fact]
    public void With_circuits_too() => Parallel.For(301, 303, seed => SteppedPlainly(WithoutFans(new NightGen(seed).WithCircuits()), 0.2, 5));

    // Fluid that is sent round until it stays never comes to rest about a fan that starts.
    private static NightNetwork WithoutFans(NightNetwork night) => night with
    {
        Circuits = [.. night.Circuits.Select(c => c with
        {
            Reaches = [.. c.Reaches.Select(r => r.Emission is { } e ? r with { Emission = e with { FanFromC = -1000 } } : r)],
        })],
    };

    private static void SteppedPlainly(NightNetwork whole, double step, double hours = 12)
    {
        var night = whole with { EndS = hours * Hour };
        var reports = NightOptions.Every(Hour / 2, hours * Hour);
        var answer = NightEngine.Run(night, new NightOptions(60, 1, reports));
        var (zoneC, bodyC, ice) = new PlainNight(night).Run(reports, step);
        Assert.InRange(Farthest(answer.ZoneC, zoneC), 0, 0.1);
        Assert.InRange(Farthest(answer.BodyC, bodyC), 0, 0.15);
        Assert.InRange(Farthest(answer.IceFraction, ice), 0, 0.01);
    }

    [Fact]
    public void Circuits_keep_their_heat_whatever_the_step()
    {
        var far = new List<(double Zone, double Body)>();
        Parallel.For(0, 60, seed =>
        {
            var night = new NightGen(seed).WithCircuits();
            var reports = NightOptions.Every(Hour / 2, 24 * Hour);
            var (answer, fine) = (NightEngine.Run(night, new NightOptions(ReportS: reports)), NightEngine.Run(night, new NightOptions(10, 0.1, reports)));
            Assert.InRange(answer.Balance.Gap(), 0, 1e-6);
            for (int c = 0; c < night.Circuits.Count; c++)
                // What its heater gives is what its fluid gives off, hour by hour.
                for (int h = 0; h < 24; h++)
                    Assert.Equal(0, answer.Circuits[c].HeatWhByHour.Sum(r => r[h]), 1e-6 * (1 + answer.Circuits[c].HeatWhByHour.Sum(r => Math.Abs(r[h]))));
            // A fan that starts, or ice that goes, half a minute sooner throws a small thing off for a while.
            lock (far) far.Add((Mean(answer.ZoneC, fine.ZoneC), Mean(answer.BodyC, fine.BodyC)));
        });
        Assert.InRange(far.Max(f => f.Zone), 0, 0.05);
        Assert.InRange(far.Max(f => f.Body), 0, 0.1);
    }

    private static double Mean(double[,] a, double[,] b) => a.Cast<double>().Zip(b.Cast<double>(), (x, y) => Math.Abs(x - y)).Average();

    // The greatest of numbers passes over what is none.
    private static double Farthest(double[,] a, double[,] b)
    {
        double[] off = [.. a.Cast<double>().Zip(b.Cast<double>(), (x, y) => Math.Abs(x - y))];
        return off.Any(double.IsNaN) ? double.NaN : off.Max();
    }

    [Fact]
    public void Nights_that_make_no_sense_are_refused_with_their_place()
    {
        string Refused(NightNetwork network) => Assert.Throws<HeatNetworkException>(() => NightEngine.Run(network)).Place;
        Assert.Equal("run", Refused(Plain with { Bodies = [Pipe("run", new NightContact("attic", 1))] }));
        Assert.Equal("run", Refused(Plain with { Bodies = [Pipe("run", new NightContact("garage", double.NaN))] }));
        Assert.Equal("run", Refused(Plain with { Bodies = [Pipe("run", new NightContact("run", 1))] }));
        Assert.Equal("garage", Refused(Plain with { Zones = [Plain.Zones[0], Plain.Zones[1] with { HeatCapacityJPerK = -1 }] }));
        Assert.Equal("living-attic", Refused(Plain with { Links = [new("living", "attic", 1)] }));
        Assert.Equal("outdoor", Refused(Plain with { OutdoorC = new TimeSeries([0, 0], [1, 2]) }));
        Assert.Equal("zones", Refused(Plain with { Zones = [], Links = [], Bodies = [] }));
        Assert.Equal("living-living", Refused(Plain with { Openings = [new("living", "living", 1, 1)] }));
        Assert.Equal("hatch", Refused(Plain with { Bodies = [Pipe("run", new NightContact("garage", 1)), Pipe("hatch", new NightContact("run", 1e9))] }));
        Assert.Equal("end", Refused(Plain with { EndS = 1e300 }));
        Assert.Equal("reports", Assert.Throws<HeatNetworkException>(() => NightOptions.Every(0, Hour)).Place);
        Assert.Equal("reports", Assert.Throws<HeatNetworkException>(() => NightEngine.Run(Plain, new NightOptions(ReportS: [Hour, 0]))).Place);
        Assert.Equal("end", Refused(Plain with { EndS = double.PositiveInfinity }));
    }
}
