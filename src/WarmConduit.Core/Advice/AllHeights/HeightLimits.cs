using System.Globalization;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>
/// What the builder asks of the heights: things, points and rooms in which nothing moves, bands of height by room or point, and the slope on which lines shall fall,
/// everywhere or at a room or point of its own. Written with commas between:
/// <c>runs/main,parts/tee-1,zones/bay,zones/cupboard=0.05..0.4,runs/main/bends/b2=0.1..0.2,slope=2,zones/bay:slope=3</c> (m, degrees). What says none of these is left out.
/// </summary>
internal sealed record HeightLimits(
    IReadOnlySet<string> Locked, IReadOnlyDictionary<string, (double LowestM, double HighestM)> Bands, double? SlopeDeg, IReadOnlyDictionary<string, double> Slopes)
{
    private const double MostSlopeDeg = 10;
    private const string OfSlope = ":slope";

    public static HeightLimits Of(string? about)
    {
        var locked = new HashSet<string>();
        var bands = new Dictionary<string, (double, double)>();
        var slopes = new Dictionary<string, double>();
        double? slope = null;
        foreach (string part in (about ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries))
        {
            if (part.IndexOf('=', StringComparison.Ordinal) is not (> 0 and int equals)) locked.Add(part);
            else if (part[..equals] is var what && (what == OfSlope[1..] || what.EndsWith(OfSlope, StringComparison.Ordinal)))
            {
                if (Number(part[(equals + 1)..]) is not ({ } deg and >= 0 and <= MostSlopeDeg)) continue;
                if (what == OfSlope[1..]) slope = deg;
                else slopes[what[..^OfSlope.Length]] = deg;
            }
            else if (part[(equals + 1)..].Split("..") is [var low, var high] && Number(low) is { } lowest && Number(high) is { } highest && lowest <= highest) bands[part[..equals]] = (lowest, highest);
        }
        return new HeightLimits(locked, bands, slope, slopes);

        static double? Number(string text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double number) && double.IsFinite(number) ? number : null;
    }

    /// <summary>Whether this point, or all of its room or run, stays where it is.</summary>
    public bool Holds(string pointId, string runId, string? zoneId) => Locked.Contains(pointId) || Locked.Contains($"runs/{runId}") || (zoneId is not null && Locked.Contains($"zones/{zoneId}"));

    /// <summary>A point's band, no wider than its own or that of the room it lies in. One drawn outside of it comes in as far as it can.</summary>
    public FallPoint Within(FallPoint point, string? zoneId) =>
        Bands.TryGetValue(point.Id, out var band) || (zoneId is not null && Bands.TryGetValue($"zones/{zoneId}", out band))
            ? point with { LowestM = Math.Clamp(band.LowestM, point.LowestM, point.HighestM), HighestM = Math.Clamp(band.HighestM, point.LowestM, point.HighestM) }
            : point;

    /// <summary>The slope asked at a point: its own, or its room's; null where the rig's holds.</summary>
    public double? SlopeAt(string pointId, string? zoneId) =>
        Slopes.TryGetValue(pointId, out double own) || (zoneId is not null && Slopes.TryGetValue($"zones/{zoneId}", out own)) ? own : null;
}
