using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A rig set by thermometers.</summary>
public class CalibrationTests
{
    private static readonly Rig Sparrow = DemoRigs.Of("sparrow");

    // A night of the rig whose living space loses half as much again, and whose garage holds twice as much, as thermometers read it.
    private static Thermometers Readings(Rig rig, Conditions night, double watts)
    {
        var truth = rig with
        {
            Shell = rig.Shell with
            {
                Zones = [.. rig.Shell.Zones.Select(z => z.Id switch
                {
                    "living" => z with { Measured = new ZoneMeasure(1.5, 0), Heater = new ZoneHeater(watts, 40) },
                    "garage" => z with { Measured = new ZoneMeasure(0.7, 0),
                    HeatCapacityJPerK = 2 * ZoneCapacity.JPerK(z, ZoneVolumes.Of(rig.Shell.Zones)[rig.Shell.Zones.ToList().IndexOf(z)]) },
                    _ => z,
                })],
            },
        };
        var told = new Question(truth, night with
        {
            HeatOn = watts > 0,
            Hours = 30,
            Events = [new PlanEvent("a", PlanEventKind.HeatFails, 3, 9), new PlanEvent("b", PlanEventKind.HeatFails, 14)]
        }).Ask(NightStudy.Ask);
        double[] Hours(Func<int, double> at) => [.. Enumerable.Range(0, told.Weather.Count).Select(at)];
        IReadOnlyList<double> Room(string id) => told.Zones.Single(z => z.ZoneId == id).C;
        return new Thermometers(
            Hours(h => 3600 * h), Hours(h => told.Weather[h].TemperatureC), watts > 0 ? Hours(h => h < 3 || h is >= 9 and < 14 ? watts : 0) : null,
            [new("living", Hours(h => Room("living")[h])), new("garage", Hours(h => Room("garage")[h]))]);
    }

    [Theory]
    [InlineData(1200)]
    [InlineData(0)]
    public void What_is_taken_over_makes_the_rig_go_as_its_thermometers_went(double watts)
    {
        var night = Conditions.Of(Sparrow.Brief) with { Water = WaterState.Drained };
        var read = Readings(Sparrow, night, watts);
        var told = CalibrationStudy.Ask(new Question(Sparrow, night), new(read));
        Assert.Empty(new CalibrationInput(read).Check(Sparrow));
        Assert.Equal(watts > 0, told.HeaterKnown);
        Assert.InRange(told.ResidualK, 0, 0.3);
        var after = Editor.Apply(Sparrow, told.Edits).Rig;
        var living = after.Shell.Zones.Find("living")!;
        if (watts > 0)
        {
            Assert.InRange(living.Measured!.LossFactor, 1.4, 1.6);
            Assert.True(told.Figures.Single(f => f.Name == "living space, to outdoors").Determined);
        }
        // With the figures taken over, the readings are told as well as the fit told them, and nothing is left to set.
        var again = CalibrationStudy.Ask(new Question(after, night), new(read));
        Assert.All(again.Figures.Where(f => f.Determined), f => Assert.InRange(f.Fitted.Value!.Value / f.Typed.Value!.Value, 0.9, 1.1));
        // Its night is another one now, and narrower between its sides.
        Assert.NotEqual(RigBuilder.LossWPerK(Sparrow.Shell.Zones.Find("living")!, night), RigBuilder.LossWPerK(living, night), 0.1);
        double Sides(Rig rig) => Math.Abs(Coldest(rig, Uncertainty.Pessimistic) - Coldest(rig, Uncertainty.Optimistic));
        double Coldest(Rig rig, Uncertainty doubt) => RigNight.Of(new Question(rig, night), doubt) is var n
            ? n.AirC(rig.Shell.Zones.Find("living"), n.Morning) : 0;
        Assert.True(Sides(after) < Sides(Sparrow));
        Assert.Empty(RigCheck.Check(after));
    }

    [Fact]
    public void Readings_out_of_range_are_refused_at_their_field()
    {
        double[] hours = [.. Enumerable.Range(0, 20).Select(h => 3600.0 * h)], cold = [.. hours.Select(_ => -5.0)], warm = [.. hours.Select(_ => 12.0)];
        string[] Wrong(Thermometers read) => [.. new CalibrationInput(read).Check(Sparrow).Select(f => f.Path)];
        var good = new Thermometers(hours, cold, null, [new("living", warm)]);
        Assert.Empty(Wrong(good));
        Assert.Equal(["readings.timeS"], Wrong(good with { TimeS = [0, 1] }));
        Assert.Equal(["readings.timeS[3]", "readings.outdoorC"], Wrong(good with
        {
            TimeS = [.. hours.Select((s, h) => h == 3 ? 0 : s)],
            OutdoorC = [.. cold.Skip(1)]
        }));
        Assert.Equal(["readings.zones[0].zoneId", "readings.zones[0].c[19]"], Wrong(good with { Zones = [new("attic", [.. warm.Take(19), double.NaN])] }));
    }
}
