using System.Collections.Concurrent;

namespace WarmConduit.Core.Weather;

/// <summary>
/// Hourly winters of the three invented places, drawn from a seed: the season as a cosine, spells of some days and gusts of some hours as first-order
/// autoregressions, nights that cool more under a clear sky than a covered one. The same place and winter give the same hours for ever. Invented: no station
/// stands behind it.
/// </summary>
public static class WeatherModel
{
    /// <summary>Last day on which a night can start; the winter goes on to the end of the next day.</summary>
    public const int LastDay = 181;

    private const int Days = LastDay + 14, Coldest = 105;
    private const int MostKept = 64;

    private static readonly ConcurrentDictionary<(WeatherPlace, int), IReadOnlyList<WeatherHour>> Known = new();

    // Mean of the winter and of its coldest days, spells (K), day against night under a clear sky (K), wind (m/s), usual cover.
    private sealed record Climate(double MeanC, double DeepC, double SpellK, double DayK, double WindMPerS, double Cover);

    private static Climate Of(WeatherPlace place) => place switch
    {
        WeatherPlace.KettleFell => new(2, -6, 4.0, 7, 2.5, 0.35),
        WeatherPlace.BrennickQuay => new(5.5, 1.5, 3.0, 3, 8, 0.75),
        _ => new(-4, -15, 5.5, 5, 4, 0.45),
    };

    /// <summary>The place that is written so (kettleFell), whatever its letters' case; null: none is.</summary>
    public static WeatherPlace? Named(string written) =>
        Enum.GetValues<WeatherPlace>().Where(p => p.ToString().Equals(written, StringComparison.OrdinalIgnoreCase)).Select(p => (WeatherPlace?)p)
            .FirstOrDefault();

    /// <summary>The hours of a winter from midnight of 1 October on. O(hours) the first time.</summary>
    public static IReadOnlyList<WeatherHour> Winter(WeatherPlace place, int winter)
    {
        if (Known.TryGetValue((place, winter), out var known)) return known;
        // A season asks for a hundred of them once.
        if (Known.Count >= MostKept) Known.Clear();
        return Known[(place, winter)] = Draw(place, winter);
    }

    private static WeatherHour[] Draw(WeatherPlace place, int winter)
    {
        var c = Of(place);
        var random = new Draws(((ulong)place + 1) * 1_000_003 + (ulong)winter);
        var hours = new WeatherHour[Days * 24];
        double spell = random.Normal(), cover = random.Normal(), gust = random.Normal();
        // Half a memory of an hour: spells 60 h, cover 15 h, wind 8 h.
        const double spellKeep = 0.9885, coverKeep = 0.955, gustKeep = 0.917;
        for (int h = 0; h < hours.Length; h++)
        {
            spell = spellKeep * spell + Math.Sqrt(1 - spellKeep * spellKeep) * random.Normal();
            cover = coverKeep * cover + Math.Sqrt(1 - coverKeep * coverKeep) * random.Normal();
            gust = gustKeep * gust + Math.Sqrt(1 - gustKeep * gustKeep) * random.Normal();
            // Deep cold comes under a clear sky.
            double cloud = 1 / (1 + Math.Exp(-(2.2 * cover + 4 * (c.Cover - 0.5) + 0.6 * spell)));
            double season = c.MeanC + (c.DeepC - c.MeanC) * Math.Cos(2 * Math.PI * (h / 24.0 - Coldest) / 365);
            double day = -Math.Cos(2 * Math.PI * (h % 24 - 4) / 24) * c.DayK / 2 * (0.3 + 0.7 * (1 - cloud));
            double wind = c.WindMPerS * Math.Exp(0.55 * gust - 0.15);
            hours[h] = new WeatherHour(Math.Round(season + c.SpellK * spell + day, 2), Math.Round(Math.Min(wind, 40), 2), Math.Round(cloud, 3));
        }
        return hours;
    }

    // Steele, Lea and Flood's SplitMix64, and Box and Muller's normals: the same on every machine and in every version.
    private sealed class Draws(ulong seed)
    {
        private ulong _state = seed * 0x9E3779B97F4A7C15;
        private double? _spare;

        public double Normal()
        {
            if (_spare is { } kept)
            {
                _spare = null;
                return kept;
            }
            double u = 1 - Uniform(), v = Uniform(), r = Math.Sqrt(-2 * Math.Log(u));
            _spare = r * Math.Sin(2 * Math.PI * v);
            return r * Math.Cos(2 * Math.PI * v);
        }

        private double Uniform()
        {
            ulong z = _state += 0x9E3779B97F4A7C15;
            z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
            z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
            return ((z ^ (z >> 31)) >> 11) * (1.0 / (1UL << 53));
        }
    }
}
