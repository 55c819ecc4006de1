using System.Globalization;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>
/// What the builder asks of the heights: things and rooms in which nothing moves, bands of height by room, and the slope on which lines shall fall. Written with commas between:
/// <c>runs/main,parts/tee-1,zones/bay,zones/cupboard=0.05..0.4,slope=2</c> (m, degrees). What says none of these is left out.
/// </summary>
internal sealed record HeightLimits(IReadOnlySet<string> Locked, IReadOnlyDictionary<string, (double LowestM, double HighestM)> Bands, double? SlopeDeg)
{
    private const double MostSlopeDeg = 10;

    public static HeightLimits Of(string? about)
    {
        var locked = new HashSet<string>();
        var bands = new Dictionary<string, (double, double)>();
        double? slope = null;
        foreach (string part in (about ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries))
        {
            if (part.IndexOf('=', StringComparison.Ordinal) is not (> 0 and int equals)) locked.Add(part);
            else if (part[..equals] == "slope")
            {
                if (Number(part[(equals + 1)..]) is { } deg and >= 0 and <= MostSlopeDeg) slope = deg;
            }
            else if (part[(equals + 1)..].Split("..") is [var low, var high] && Number(low) is { } lowest && Number(high) is { } highest && lowest <= highest) bands[part[..equals]] = (lowest, highest);
        }
        return new HeightLimits(locked, bands, slope);

        static double? Number(string text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double number) && double.IsFinite(number) ? number : null;
    }

    /// <summary>Whether nothing moves in the room with this id.</summary>
    public bool Holds(string? zoneId) => zoneId is not null && Locked.Contains($"zones/{zoneId}");

    /// <summary>A point's band, no wider than that of the room it lies in. One drawn outside of it comes in as far as it can.</summary>
    public FallPoint Within(FallPoint point, string? zoneId) =>
        zoneId is not null && Bands.TryGetValue($"zones/{zoneId}", out var band)
            ? point with { LowestM = Math.Clamp(band.LowestM, point.LowestM, point.HighestM), HighestM = Math.Clamp(band.HighestM, point.LowestM, point.HighestM) }
            : point;
}
