using System.Collections.Concurrent;

namespace WarmConduit.Core.Weather;

/// <summary>The season of frost at a place.</summary>
public static class Frost
{
    // One winter in ten has its first frost earlier, or its last one later.
    private const int Winters = 20, Tenth = 2;
    private const int LastDay = WeatherModel.LastDay;

    private static readonly ConcurrentDictionary<WeatherPlace, (int First, int Last)> Known = new();

    /// <summary>Days since 1 October of the first and the last frost, as early and as late as in one winter of ten. O(winters) the first time.</summary>
    public static (int First, int Last) Season(WeatherPlace place) => Known.GetOrAdd(place, static p =>
    {
        var winters = Enumerable.Range(1, Winters).Select(w => WeatherModel.Winter(p, w)).ToList();
        int Day(IReadOnlyList<WeatherHour> hours, bool last)
        {
            var cold = Enumerable.Range(0, (LastDay + 1) * 24).Where(h => hours[h].TemperatureC <= 0);
            return (last ? cold.LastOrDefault(0) : cold.FirstOrDefault(LastDay * 24)) / 24;
        }
        return (winters.Select(w => Day(w, false)).Order().ElementAt(Tenth - 1), winters.Select(w => Day(w, true)).OrderDescending().ElementAt(Tenth - 1));
    });

    /// <summary>The day by which a wet rig has to be drained: in the season of frost <paramref name="now"/> itself.</summary>
    public static DateOnly Next(WeatherPlace place, DateOnly now)
    {
        var (first, last) = Season(place);
        // The winter that runs, or the next one.
        var start = new DateOnly(now.Month >= 10 ? now.Year : now.Year - 1, 10, 1);
        if (now > start.AddDays(last)) start = start.AddYears(1);
        var frost = start.AddDays(first);
        return frost < now ? now : frost;
    }
}
