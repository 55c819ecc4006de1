using System.Globalization;
using CsCheck;
using WarmConduit.Application.Tables;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Server.Tests;

/// <summary>Tables of weather and of thermometers as text: out and in again, and what is wrong by line and column.</summary>
public class TableFileTests
{
    [Fact]
    public void Whatever_text_is_read_it_gives_hours_in_range_or_says_why_not()
    {
        var cell = Gen.OneOf(Gen.Double[-80, 60].Select(d => d.ToString("0.##", CultureInfo.InvariantCulture)),
            Gen.OneOfConst("", "x", "1e999", "NaN", "-", "\u2212" + "3", "99.9", "\"4\"", "LOCATION"));
        var row = Gen.Select(cell.Array[0, 25], Gen.OneOfConst(",", ";", "\t"), (cells, between) => string.Join(between, cells));
        Gen.Select(Gen.OneOfConst("temperature,wind,cloud", "temp;wind;cloud %", "LOCATION,Nowhere", "wind", ""), row.Array[0, 14], (head, rows) =>
            head + "\n" + string.Join('\n', rows)).Sample(text =>
        {
            try
            {
                var read = WeatherFiles.Read(text);
                Assert.Empty(new WeatherChoice(Hours: read.Hours).Check());
                Assert.InRange(read.ColdestFrom, 0, read.Hours.Count - 1);
            }
            catch (RigFileException refused)
            {
                Assert.All(refused.Faults, f => Assert.StartsWith("line ", f.Path, StringComparison.Ordinal));
            }
        });
    }

    [Fact]
    public void Weather_goes_out_and_in_again_and_what_cannot_be_read_is_named()
    {
        var winter = WeatherModel.Winter(WeatherPlace.BrennickQuay, 2);
        var read = WeatherFiles.Read(WeatherFiles.Write(winter));
        Assert.Equal(winter, read.Hours);
        Assert.Equal(0, read.Missing);
        double Cold(int from) => winter.Skip(from).Take(12).Sum(h => h.TemperatureC);
        Assert.Equal(Enumerable.Range(0, winter.Count - 11).Min(Cold), Cold(read.ColdestFrom), 6);
        // With commas for points, as spreadsheets of half the world write.
        var commas = WeatherFiles.Read("Temperatur;Wind;Cloud %\n-3,5;2;50\n;4;100\n");
        Assert.Equal([new WeatherHour(-3.5, 2, 0.5), new WeatherHour(-3.5, 4, 1)], commas.Hours);
        Assert.Equal(1, commas.Missing);
        string epw = string.Join('\n', (string[])["LOCATION,Nowhere,,", .. Enumerable.Repeat("x", 7), Hour("-7.2", "3.5", "5"), Hour("99.9", "999", "99")]);
        Assert.Equal([new WeatherHour(-7.2, 3.5, 0.5), new WeatherHour(-7.2, 3.5, 0.5)], WeatherFiles.Read(epw).Hours);
        Assert.Equal(("Nowhere", 3), (WeatherFiles.Read(epw).Name, WeatherFiles.Read(epw).Missing));
        static string Hour(string t, string wind, string cover) => string.Join(',',
            Enumerable.Range(0, 24).Select(c => c switch { 6 => t, 21 => wind, 22 => cover, _ => "0" }));
        foreach (var (text, where) in ((string, string)[])[("wind\n3", "line 1"), ("temp,wind\n-3,x", "line 2, column 2"),
            ("temp\n-3\n-300", "line 3, column 1"), (epw.Replace("-7.2", "cold", StringComparison.Ordinal), "line 9, column 7"), ("temp", "line 2"),
            ("", "line 1")])
            Assert.Contains(Assert.Throws<RigFileException>(() => WeatherFiles.Read(text)).Faults, f => f.Path == where);
    }

    [Fact]
    public void Readings_are_read_by_clock_or_hour_and_what_cannot_be_is_told_by_line_and_column()
    {
        Room[] rooms = [new("living", "living space"), new("garage", "garage")];
        string[] lines = ["Time,Outdoors,Heater (W),living space,Garage,humidity",
            .. Enumerable.Range(0, 30).Select(h =>
            FormattableString.Invariant($"{(22 + h) % 24}:00,{-5 - (0.1 * h)},{(h < 3 ? 1200 : 0)},{17 - (0.3 * h)},{4 - (0.2 * h)},x"))];
        var read = ThermometerFiles.Read(string.Join('\n', lines), rooms);
        Assert.Equal([.. Enumerable.Range(0, 30).Select(h => 3600.0 * h)], read.TimeS);
        Assert.Equal(["living", "garage"], read.Zones.Select(z => z.ZoneId));
        Assert.Equal(["humidity"], read.Unread!);
        Assert.Equal([1200, 0], read.HeaterW!.Skip(2).Take(2));
        IReadOnlyList<RigFault> Faults(string text) => Assert.Throws<RigFileException>(() => ThermometerFiles.Read(text, rooms)).Faults;
        string With(int line, string text) => string.Join('\n', lines.Select((l, i) => i == line ? text : l));
        foreach (var (text, where) in ((string, string)[])
                 [
                     ("", "line 1"), (With(0, "Time,Outdoors,Heater,attic,loft,x"), "line 1"), (With(3, "01:00,-9,0,warm,5,x"), "line 4, column 4"),
                     (With(3, "01:00,-99,0,3,5,x"), "line 4, column 2"),
                     (string.Join('\n', lines.Take(5)), "line 5"), ("hour,outdoors,living\n"
                     + string.Join('\n', Enumerable.Range(0, 20).Select(h => $"{(h == 9 ? 3 : h)},-5,10")), "line 11, column 1"),
                 ])
            Assert.Contains(Faults(text), f => f.Path == where);
    }
}
