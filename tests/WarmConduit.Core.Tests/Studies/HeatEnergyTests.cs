using CsCheck;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What heat takes over a winter, and hot water in store, each by a plain count beside.</summary>
public class HeatEnergyTests
{
    [Fact]
    public void A_winter_takes_in_its_first_week_what_a_night_of_seven_days_takes()
    {
        var rig = DemoRigs.Of("lantern");
        var night = Conditions.Of(rig.Brief) with { StartHour = 12, Hours = 168, Weather = new WeatherChoice(WeatherPlace.KettleFell, 1) };
        var week = HeatingStudy.Ask(new Question(rig, night)).Energy;
        var winter = SeasonStudy.Ask(new Question(rig, night), new(WeatherPlace.KettleFell, 1)).Energy;
        foreach (var kind in (EnergyKind[])[EnergyKind.Fuel, EnergyKind.Battery])
        {
            double byNight = Assert.Single(week, e => e.Kind == kind).UntilMorning / 7;
            Assert.True(byNight > 0);
            Assert.Equal(byNight, Assert.Single(winter, e => e.Kind == kind).ADayByWeek[0], 0.05 * byNight);
        }
        Assert.All(winter, e => Assert.Equal(e.AWinter, 7 * e.ADayByWeek.Sum(), 1e-6 * e.AWinter));
        Assert.Empty(SeasonStudy.Ask(new Question(rig, night with { HeatOn = false }), new(WeatherPlace.KettleFell, 1)).Energy);
    }

    [Fact]
    public void Days_until_empty_are_the_fewest_from_whatever_day_on() => Gen.Select(Gen.Double[0, 5].Array[1, 30], Gen.Double[0.1, 20]).Sample((days, has) =>
    {
        double Least(double left, int from) => Enumerable.Range(from, days.Length - from).Select(day =>
        {
            double before = left;
            left -= days[day];
            return before > 0 && days[day] >= before ? day - from + (before / days[day]) : double.PositiveInfinity;
        }).Min();
        // Told to the day that it begins with: a start within a day is not looked for. Days that come to all of it, to the last digits, are more or less than
        // it.
        double[] least = [.. new[] { has * (1 - 1e-12), has * (1 + 1e-12) }.Select(all => Enumerable.Range(0, days.Length).Min(from => Least(all, from)))];
        double told = SeasonMeter.LeastDays(days, has);
        return told >= least[0] - 1e-9 && told <= least[1] + 1e-9;
    });

    [Fact]
    public void Days_that_come_to_all_of_it_are_counted_whole() =>
        Assert.Equal((2.0, 2.0), (SeasonMeter.LeastDays([1, 1, 0], 2), SeasonMeter.LeastDays([1, 1, 2], 3)));

    [Fact]
    public void Hot_water_in_store_is_what_plain_steps_draw_and_it_is_hot_again_when_they_are() => Gen.Select(
        Gen.Double[5, 60], Gen.Double[40, 75], Gen.Double[2, 20], Gen.Double[50, 400], Gen.Double[500, 5000]).Sample((litres, hot, cold, perK, power) =>
    {
        double told = HotStores.At(litres, hot, cold, 38, out double drawn), plain = 0, mixed = 0.3 * litres;
        const int steps = 20_000;
        for (int i = 0; i < steps; i++)
        {
            // What leaves at a moment, from the hot layer, the mixed one, or too cold.
            double at = litres * 1.5 * (i + 0.5) / steps, into = Math.Clamp((at - (litres - (mixed / 2))) / mixed, 0, 1);
            double leaves = hot - ((hot - cold) * into);
            if (leaves < 38) break;
            plain += litres * 1.5 / steps * (leaves - cold) / (38 - cold);
        }
        double supply = hot + 10, water = cold, s = 0, recovers = HotStores.RecoversS(drawn, cold, hot, supply, perK, power);
        double heat = drawn / 1000 * Water.DensityKgPerM3(hot) * Water.HeatCapacityJPerKgK(hot), step = recovers / steps;
        for (; water < hot && s < 2 * recovers; s += step) water += step * Math.Min(power, perK * (supply - water)) / heat;
        return Math.Abs(told - plain) < 0.002 * litres * 5 && Math.Abs(s - recovers) < 0.005 * recovers;
    }, iter: 50);

    [Fact]
    public void The_store_of_the_demo_is_told_with_its_thermostat()
    {
        var rig = DemoRigs.Of("lantern");
        var store = Assert.Single(HeatingStudy.Ask(new Question(rig, Conditions.Of(rig.Brief))).HotWater);
        // 20 L at 65 °C and water of 12 °C: 20 · 53 / 26 = 40.8 L at 38 °C if nothing mixed.
        Assert.Equal((65, 12), (store.HotC, store.ColdC));
        Assert.InRange(store.At38L, 34, 40.7);
        // 20 L from 12 to 65 °C take 1.23 kWh: at 5 kW a quarter of an hour, and longer at the end.
        Assert.InRange(store.RecoversS!.Value, 750, 1800);
    }

    [Fact]
    public void A_traced_line_that_is_too_cold_says_what_would_hold_it()
    {
        var rig = DemoRigs.Of("lantern");
        // Hardly any flow: the trace is cold where it ends.
        var weak = new PartFlow(ShutoffBar: 0.001, FreeLPerMin: 0.25);
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Stock == "circulator" ? p with { Flow = weak } : p)] };
        var answer = HeatingStudy.Ask(new Question(rig, Conditions.Of(rig.Brief) with { OutdoorC = -35, Hours = 12 }));
        var cold = answer.Traced.Where(t => t.ColdestC < TradeConstants.HoldC).ToList();
        Assert.NotEmpty(cold);
        Assert.All(cold, t => Assert.Contains("hold it", t.Words.Text, StringComparison.Ordinal));
    }
}
