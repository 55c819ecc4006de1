using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>An <see cref="AutoFallInput"/>, looked up by point, run and room. Of two entries for one thing the last counts.</summary>
internal sealed class HeightLimits(AutoFallInput input)
{
    private readonly HashSet<string> _locked = [.. input.Locked ?? []];
    private readonly Dictionary<string, HeightBand> _bands = (input.Bands ?? []).GroupBy(b => b.Thing).ToDictionary(g => g.Key, g => g.Last());
    private readonly Dictionary<string, double> _slopes = (input.Slopes ?? []).GroupBy(s => s.Thing).ToDictionary(g => g.Key, g => g.Last().SlopeDeg);

    /// <summary>The slope for the whole rig; null: as the brief has it.</summary>
    public double? SlopeDeg => input.SlopeDeg;

    /// <summary>Whether this point, or all of its room or run, stays where it is.</summary>
    public bool Holds(string pointId, string runId, string? zoneId) => _locked.Contains(pointId) || _locked.Contains($"runs/{runId}")
        || (zoneId is not null && _locked.Contains($"zones/{zoneId}"));

    /// <summary>A point's band, no wider than its own or that of the room it lies in. One drawn outside of it comes in as far as it can.</summary>
    public FallPoint Within(FallPoint point, string? zoneId) =>
        _bands.TryGetValue(point.Id, out var band) || (zoneId is not null && _bands.TryGetValue($"zones/{zoneId}", out band))
            ? point with { LowestM = Clamp(band.LowestM, point.LowestM, point), HighestM = Clamp(band.HighestM, point.HighestM, point) }
            : point;

    /// <summary>The slope asked at a point: its own, or its room's; null where the rig's holds.</summary>
    public double? SlopeAt(string pointId, string? zoneId) =>
        _slopes.TryGetValue(pointId, out double own) || (zoneId is not null && _slopes.TryGetValue($"zones/{zoneId}", out own)) ? own : null;

    private static double Clamp(double? m, double open, FallPoint point) => Math.Clamp(m ?? open, point.LowestM, point.HighestM);
}
