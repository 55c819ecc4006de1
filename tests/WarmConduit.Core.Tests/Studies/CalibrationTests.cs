using System.Globalization;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using Xunit;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A rig set by thermometers.</summary>
public class CalibrationTests
{
    private static readonly Rig Sparrow = DemoRigs.Of("sparrow");

    // A night of the rig whose living space loses half as much again, and whose garage holds twice as much, as a table of readings.
    private static string Readings(Rig rig, Conditions night, double watts)
    {
        var truth = rig with
        {
            Shell = rig.Shell with
            {
                Zones = [.. rig.Shell.Zones.Select(z => z.Id switch
                {
                    "living" => z with { Measured = new ZoneMeasure(1.5, 0), Heater = new ZoneHeater(watts, 40) },
                    "garage" => z with { Measured = new ZoneMeasure(0.7, 0), HeatCapacityJPerK = 2 * ZoneCapacity.JPerK(z, ZoneVolumes.Of(rig.Shell.Zones)[rig.Shell.Zones.ToList().IndexOf(z)]) },
                    _ => z,
                })],
            },
        };
        var told = new Question(truth, night with { HeatOn = watts > 0, Hours = 30, Events = [new PlanEvent("a", PlanEventKind.HeatFails, 3, 9), new PlanEvent("b", PlanEventKind.HeatFails, 14)] }).Ask(NightStudy.Ask);
        var rows = Enumerable.Range(0, told.Weather.Count).Select(h => FormattableString.Invariant(
            $"{(22 + h) % 24}:00,{told.Weather[h].TemperatureC},{(watts > 0 && (h < 3 || h is >= 9 and < 14) ? watts : 0)},{told.Zones.Single(z => z.ZoneId == "living").C[h]},{told.Zones.Single(z => z.ZoneId == "garage").C[h]},x"));
        return "Time,Outdoors,Heater (W),living space,Garage,humidity\n" + string.Join('\n', rows);
    }

    [Theory]
    [InlineData(1200)]
    [InlineData(0)]
    public void What_is_taken_over_makes_the_rig_go_as_its_thermometers_went(double watts)
    {
        var night = Conditions.Of(Sparrow.Brief) with { Water = WaterState.Drained };
        string readings = Readings(Sparrow, night, watts);
        var told = new Question(Sparrow, night, readings).Ask(CalibrationStudy.Ask);
        Assert.Empty(told.Faults);
        Assert.Equal(watts > 0, told.HeaterKnown);
        Assert.Equal(["humidity"], told.Unread);
        Assert.InRange(told.ResidualK, 0, 0.3);
        var after = Editor.Apply(Sparrow, told.Edits).Rig;
        var living = after.Shell.Zones.Find("living")!;
        if (watts > 0)
        {
            Assert.InRange(living.Measured!.LossFactor, 1.4, 1.6);
            Assert.True(told.Figures.Single(f => f.Name == "living space, to outdoors").Determined);
        }
        // With the figures taken over, the readings are told as well as the fit told them, and nothing is left to set.
        var again = new Question(after, night, readings).Ask(CalibrationStudy.Ask);
        Assert.All(again.Figures.Where(f => f.Determined), f => Assert.InRange(f.Fitted.Value!.Value / f.Typed.Value!.Value, 0.9, 1.1));
        // Its night is another one now, and narrower between its sides.
        Assert.NotEqual(RigBuilder.LossWPerK(Sparrow.Shell.Zones.Find("living")!, night), RigBuilder.LossWPerK(living, night), 0.1);
        double Sides(Rig rig) => Math.Abs(Coldest(rig, Doubt.Cold) - Coldest(rig, Doubt.Warm));
        double Coldest(Rig rig, Doubt doubt) => RigNight.Of(new Question(rig, night), doubt) is var n ? n.AirC(rig.Shell.Zones.Find("living"), n.Morning) : 0;
        Assert.True(Sides(after) < Sides(Sparrow));
        Assert.Empty(RigCheck.Check(after));
    }

    [Fact]
    public void Readings_that_cannot_be_read_are_told_by_line_and_column()
    {
        string good = Readings(Sparrow, Conditions.Of(Sparrow.Brief), 0);
        string[] lines = good.Split('\n');
        CalibrationAnswer Ask(string text) => new Question(Sparrow, Conditions.Of(Sparrow.Brief), text).Ask(CalibrationStudy.Ask);
        string With(int line, string text) => string.Join('\n', lines.Select((l, i) => i == line ? text : l));
        foreach (var (text, where) in ((string, string)[])
                 [("", "line 1"), (With(0, "Time,Outdoors,Heater,attic,loft,x"), "line 1"), (With(3, "01:00,-9,0,warm,5,x"), "line 4, column 4"), (With(3, "01:00,-99,0,3,5,x"), "line 4, column 2"), (string.Join('\n', lines.Take(5)), "line 5")])
            Assert.Contains(Ask(text).Faults, f => f.Path == where);
        Assert.Contains(Ask("hour,outdoors,living\n" + string.Join('\n', Enumerable.Range(0, 20).Select(h => $"{(h == 9 ? 3 : h).ToString(CultureInfo.InvariantCulture)},-5,10"))).Faults, f => f.Path == "line 11, column 1");
    }
}
