using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Weather;

/// <summary>One hour of weather.</summary>
/// <param name="TemperatureC">Air, °C.</param>
/// <param name="WindMPerS">Wind, m/s.</param>
/// <param name="Cloud">Cover of the sky, 0 (clear) to 1.</param>
public sealed record WeatherHour(double TemperatureC, double WindMPerS, double Cloud);

/// <summary>The invented places whose weather ships.</summary>
public enum WeatherPlace
{
    /// <summary>Kettle Fell: high, dry, still cold.</summary>
    KettleFell,

    /// <summary>Brennick Quay: wet and windy, around zero.</summary>
    BrennickQuay,

    /// <summary>Osmer Plain: long deep frost.</summary>
    OsmerPlain,
}

/// <summary>Which weather a night has: a night of a seeded winter at one of the invented places, or hours of the builder's own. Exactly one of the
/// two.</summary>
/// <param name="Place">The place.</param>
/// <param name="Winter">Which of its winters, 1 to 9999: each is another draw.</param>
/// <param name="Day">Day of the winter on which the night starts, 0 (1 October) to 181.</param>
/// <param name="Hours">Hours of the user's own weather from the start of the night on, 1 to 8784; the last one continues.</param>
public sealed record WeatherChoice(WeatherPlace? Place = null, int Winter = 1, int Day = 0, IReadOnlyList<WeatherHour>? Hours = null)
{
    /// <summary>Hours that are accepted at the most: a leap year.</summary>
    public const int MostHours = 8784;

    /// <summary>Winters that can be drawn of each place.</summary>
    public const int MostWinters = 9999;

    /// <summary>What is out of range, by field.</summary>
    public IEnumerable<RigFault> Check()
    {
        if ((Place is null) == (Hours is null)) yield return new RigFault("conditions.weather", "it names a place, or hours, and not both");
        if (Winter is < 1 or > MostWinters) yield return new RigFault("conditions.weather.winter", $"it must lie between 1 and {MostWinters}");
        if (Day is < 0 or > WeatherModel.LastDay) yield return new RigFault("conditions.weather.day", $"it must lie between 0 and {WeatherModel.LastDay}");
        if (Hours is null) yield break;
        if (Hours.Count is 0 or > MostHours)
        {
            yield return new RigFault("conditions.weather.hours", $"1 to {MostHours} hours are allowed");
            yield break;
        }
        for (int h = 0; h < Hours.Count; h++)
            if (!(Hours[h] is { TemperatureC: >= -60 and <= 50, WindMPerS: >= 0 and <= 60, Cloud: >= 0 and <= 1 }))
            {
                yield return new RigFault($"conditions.weather.hours[{h}]", "use air of -60 to 50 °C, wind of 0 to 60 m/s and cover of 0 to 1");
                yield break;
            }
    }

    /// <summary>The weather from <paramref name="startHour"/> (hour of the day) of the night's day on, one value an hour, for at least <paramref name="hours"/>
    /// hours.</summary>
    public IReadOnlyList<WeatherHour> From(double startHour, double hours)
    {
        int count = (int)Math.Ceiling(hours) + 1;
        if (Hours is { } own) return [.. Enumerable.Range(0, count).Select(h => own[Math.Min(h, own.Count - 1)])];
        int first = Day * 24 + (int)Math.Floor(startHour);
        var winter = WeatherModel.Winter(Place!.Value, Winter);
        return [.. Enumerable.Range(first, count).Select(h => winter[Math.Min(h, winter.Count - 1)])];
    }
}

/// <summary>Time below zero and depth, of a temperature interpolated linearly between samples.</summary>
/// <param name="HoursBelow">Time below 0 °C, h.</param>
/// <param name="DegreeHours">∫ of what it lies below it, K h.</param>
/// <param name="ColdestC">The coldest, °C.</param>
/// <param name="LongestSpellH">The longest time below 0 °C without a break, h.</param>
public sealed record Exposure(double HoursBelow, double DegreeHours, double ColdestC, double LongestSpellH)
{
    private const double HourS = 3600;

    /// <summary>Sums up temperatures at times that rise, s and °C; at least one. O(times).</summary>
    public static Exposure Of(IEnumerable<(double AtS, double C)> told)
    {
        double below = 0, spell = 0, longest = 0, degrees = 0, coldest = double.PositiveInfinity;
        (double AtS, double C)? before = null;
        foreach (var now in told)
        {
            coldest = Math.Min(coldest, now.C);
            if (before is { } was)
            {
                double hours = (now.AtS - was.AtS) / HourS;
                // Where it passes 0 °C on the way, only a part of it is below, at its start or at its end.
                double share = was.C < 0 && now.C < 0 ? 1 : was.C >= 0 && now.C >= 0 ? 0
                    : Math.Min(was.C, now.C) / (Math.Min(was.C, now.C) - Math.Max(was.C, now.C));
                below += share * hours;
                degrees -= share * hours * (Math.Min(0, was.C) + Math.Min(0, now.C)) / 2;
                spell = (was.C < 0 ? spell : 0) + (share * hours);
                longest = Math.Max(longest, spell);
                if (now.C >= 0) spell = 0;
            }
            before = now;
        }
        return new Exposure(below, degrees, coldest, longest);
    }
}

/// <summary>Hours of weather as a line through them.</summary>
internal static class WeatherHours
{
    private const double HourS = 3600;

    /// <summary>Air at a time from the first hour on, °C: straight between hours, and held after the last. O(1).</summary>
    public static double TemperatureAt(this IReadOnlyList<WeatherHour> hours, double atS)
    {
        double hour = Math.Clamp(atS / HourS, 0, hours.Count - 1);
        int h = (int)hour, next = Math.Min(h + 1, hours.Count - 1);
        return hours[h].TemperatureC + ((hour - h) * (hours[next].TemperatureC - hours[h].TemperatureC));
    }
}
