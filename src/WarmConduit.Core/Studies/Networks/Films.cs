using WarmConduit.Core.Heat.Night;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Sizes of films.</summary>
internal static class Films
{
    /// <summary>The same films, so many times as large.</summary>
    public static IReadOnlyList<NightFilmed> Times(this IReadOnlyList<NightFilmed> films, double times) => times == 1 || films.Count == 0 ? films
        : [.. films.Select(f => f with { Size = f.Size * times })];

    /// <summary>Films of one kind as one.</summary>
    public static IReadOnlyList<NightFilmed> Alike(IEnumerable<NightFilmed> films) =>
        [.. films.GroupBy(f => f.Film).Select(g => new NightFilmed(g.Key, g.Sum(f => f.Size)))];

    /// <summary>W/K of outer films of walls at <paramref name="outdoorC"/> in a wind of <paramref name="windMPerS"/>.</summary>
    public static double AtWPerK(this IReadOnlyList<NightFilmed> films, double outdoorC, double windMPerS)
    {
        double share = 0.5;
        return films.Sum(f => f.Size * f.Film.WPerK(outdoorC, outdoorC, windMPerS, ref share));
    }
}
