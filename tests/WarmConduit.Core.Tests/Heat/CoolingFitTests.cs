using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Heat;

/// <summary>Rates found back from thermometers.</summary>
public class CoolingFitTests
{
    private const double HeldJPerK = 1e6;

    // Two rooms in the engine's own terms: the living space holds a megajoule a kelvin unless a heater tells what it holds.
    private static (CoolingQuestion Question, Func<CoolingAnswer, Dictionary<string, FittedFactor>> Rates) Ask(double[] timeS, double[] outdoorC,
        double[] heaterW, ThermometerSeries[] measured)
    {
        bool two = measured.Length > 1, heated = heaterW.Any(w => w != 0);
        const double a = 1e-4, link = 2e-5, g = 1.5e-4;
        var heaters = new List<NightHeater>();
        for (int t = 0; t + 1 < timeS.Length; t++)
            if (heaterW[t] > 0) heaters.Add(new NightHeater(500, 1, heaterW[t], timeS[t], timeS[t + 1]));
        // Unknowns: living to outdoors, exchange, garage to outdoors, what the garage holds, what the living space holds.
        NightNetwork Network(IReadOnlyList<double> f)
        {
            double holds = HeldJPerK * (heated ? f[^1] : 1);
            NightZone[] zones = [new("living", holds, a * HeldJPerK * f[0], 0, heaters), .. two
                ? [new NightZone("garage", 0.2 * HeldJPerK * f[3], g * 0.2 * HeldJPerK * f[2], 0, [])] : (NightZone[])[]];
            return new NightNetwork(zones, two ? [new NightLink("living", "garage", link * HeldJPerK * f[1])] : [], [],
                new TimeSeries(timeS, outdoorC), timeS[^1]);
        }
        var question = new CoolingQuestion(timeS, measured, (two ? 4 : 1) + (heated ? 1 : 0), Network);
        return (question, answer =>
        {
            int held = question.Unknowns - 1;
            // What is lost over what is held: the powers of the factors in each rate.
            FittedFactor Rate(double typed, params (int Factor, int Power)[] of)
            {
                var powers = new int[question.Unknowns];
                foreach (var (factor, power) in of) powers[factor] += power;
                return new FittedFactor(typed * answer.Factors.Zip(powers, (f, p) => Math.Pow(f.Value, p)).Aggregate((x, y) => x * y),
                    answer.DeviationOf(powers));
            }
            (int, int)[] over = heated ? [(held, -1)] : [];
            var rates = new Dictionary<string, FittedFactor> { ["livingOutdoor_per_s"] = Rate(a, [(0, 1), .. over]) };
            if (heated) rates["inverseLivingCapacity_K_J"] = Rate(1 / HeldJPerK, (held, -1));
            if (!two) return rates;
            rates["livingLink_per_s"] = Rate(link, [(1, 1), .. over]);
            rates["garageLink_per_s"] = Rate(link / 0.2, (1, 1), (3, -1));
            rates["garageOutdoor_per_s"] = Rate(g, (2, 1), (3, -1));
            return rates;
        }
        );
    }

    [Fact]
    public void Reference_coolings_give_their_rates_back() => Cases.Each("cooling_fit", (input, expected, check) =>
    {
        double[] Row(string name) => [.. input.GetProperty("series").GetProperty(name).EnumerateArray().Select(v => v.GetDouble())];
        ThermometerSeries[] measured = [.. input.GetProperty("zones").EnumerateArray().Select(z => z.GetString()!)
            .Select(z => new ThermometerSeries(z, Row($"{z}_C")))];
        var (question, rates) = Ask(Row("time_s"), Row("outdoor_C"), Row("heaterPower_W"), measured);
        var told = rates(CoolingFit.Solve(question));
        foreach (var truth in expected.GetProperty("truth").EnumerateObject())
        {
            double sigma = expected.GetProperty("sigma_percent").GetProperty(truth.Name).GetDouble() / 100;
            var found = told[truth.Name];
            check.Near(truth.Name, truth.Value.GetDouble(), found.Value, Math.Max(0.02, 3 * sigma));
            if (sigma == 0) continue;
            check.Near($"{truth.Name}, its deviation", 1, found.Deviation / sigma, 0.5);
            if (sigma is < 0.07 or > 0.14 && found.Determined() != sigma < 0.07)
                check.Off.Add($"{check.Row} {truth.Name}: determined {found.Determined()} at {sigma}");
        }
    });

    [Fact]
    public void The_truth_of_fifty_random_vehicles_is_found_back_through_the_noise()
    {
        int told = 0;
        var off = new List<string>();
        for (int seed = 1; seed <= 50; seed++)
        {
            var random = new Random(seed);
            double Even(double low, double high) => low + ((high - low) * random.NextDouble());
            double Noise() => 0.1 * Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
            int count = random.Next(85, 200);
            double[] time = [.. Enumerable.Range(0, count).Select(t => t * 600.0)];
            double start = Even(-15, 0);
            double[] outdoor = [.. time.Select(t => start - (4 * Math.Sin(t / 86_400 * Math.PI)) + Even(-0.3, 0.3))];
            int from = random.Next(10, 40);
            double[] heater = [.. Enumerable.Range(0, count).Select(t => seed % 2 == 0 && (t - from) % 30 is >= 0 and < 12 ? 1500.0 : 0)];
            bool two = seed % 5 != 0;
            ThermometerSeries Bare(string zone) => new(zone, new double[count]);
            ThermometerSeries[] none = two ? [Bare("living"), Bare("garage")] : [Bare("living")];
            var (question, rates) = Ask(time, outdoor, heater, none);
            double[] truth = [.. Enumerable.Range(0, question.Unknowns).Select(_ => Math.Exp(Even(-0.7, 0.7)))];
            var night = question.Network(truth);
            var real = NightEngine.Run(night with { Zones = [.. night.Zones.Select((z, i) => z with { StartC = i == 0 ? Even(14, 20) : Even(3, 10) })] },
                new NightOptions(60, 30, time));
            var measured = none.Select((m, i) => m with { C = [.. Enumerable.Range(0, count).Select(t => real.ZoneC[t, i] + Noise())] }).ToList();
            var answer = CoolingFit.Solve(question with { Measured = measured });
            Assert.InRange(answer.ResidualK, 0.08, 0.12);
            var found = rates(answer);
            var right = rates(answer with { Factors = [.. truth.Select(f => new FittedFactor(f, 0))] });
            foreach (var (name, rate) in found)
            {
                double error = Math.Abs((rate.Value / right[name].Value) - 1);
                if (rate.Determined() && error > Math.Max(0.02, 3.5 * rate.Deviation)) off.Add($"{seed} {name}: {error} at {rate.Deviation}");
            }
            if (found.Where(r => !r.Key.EndsWith("Link_per_s", StringComparison.Ordinal)).All(r => r.Value.Determined())) told++;
        }
        Assert.True(off.Count == 0, string.Join('\n', off));
        Assert.InRange(told, 40, 50);
    }

    [Fact]
    public void What_makes_no_sense_is_refused()
    {
        var (question, _) = Ask([.. Enumerable.Range(0, 20).Select(t => t * 600.0)], new double[20], new double[20], [new("living", new double[20])]);
        foreach (var (wrong, where) in ((CoolingQuestion, string)[])
                 [(question with { Measured = [] }, "thermometers"), (question with { TimeS = [.. question.TimeS.Select(t => t + 1)] }, "times"),
                     (question with { Measured = [new("living", new double[3])] }, "living"),
                     (question with { Measured = [new("attic", new double[20])] }, "thermometers")])
            Assert.Contains(where, Assert.Throws<HeatNetworkException>(() => CoolingFit.Solve(wrong)).Message, StringComparison.Ordinal);
    }
}
