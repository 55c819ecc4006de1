using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>The heights between which a point, or all points of a room, must lie.</summary>
/// <param name="Thing">The point or the room: <c>runs/main/bends/b2</c>, <c>parts/tee-1</c>, <c>zones/bay</c>.</param>
/// <param name="LowestM">Not below, m, -30 to 30; left out: as low as it can.</param>
/// <param name="HighestM">Not above, m, likewise.</param>
public sealed record HeightBand(string Thing, double? LowestM = null, double? HighestM = null);

/// <summary>The slope on which lines fall at a point, or at all points of a room.</summary>
/// <param name="Thing">The point or the room, as for <see cref="HeightBand"/>.</param>
/// <param name="SlopeDeg">The slope, degrees, 0 to 10.</param>
public sealed record LocalSlope(string Thing, double SlopeDeg);

/// <summary>The builder's limits on heights.</summary>
/// <param name="Locked">Points, runs and rooms in which nothing moves: <c>runs/main</c>, <c>zones/bay</c>.</param>
/// <param name="Bands">Heights that are allowed, by point or room; a point's own comes before its room's.</param>
/// <param name="SlopeDeg">The slope on which all lines fall, degrees, 0 to 10; left out: as the brief has it.</param>
/// <param name="Slopes">The slope at a point or in a room, where it is another.</param>
public sealed record AutoFallInput(
    IReadOnlyList<string>? Locked = null, IReadOnlyList<HeightBand>? Bands = null, double? SlopeDeg = null, IReadOnlyList<LocalSlope>? Slopes = null)
    : IStudyInput
{
    private const double MostSlopeDeg = 10;
    private const int MostEntries = 5000;

    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c =>
    {
        var (locked, bands, slopes) = (Locked ?? [], Bands ?? [], Slopes ?? []);
        c.Count("locked", locked.Count, 0, MostEntries);
        c.Count("bands", bands.Count, 0, MostEntries);
        c.Count("slopes", slopes.Count, 0, MostEntries);
        if (c.Faults.Count > 0) return;
        void Thing(string path, string thing)
        {
            if (!rig.Has(thing)) c.Add(path, $"there is no '{thing}' in the rig");
        }
        void Height(string path, double? m) => c.Range(path, m ?? 0, -RigCheck.FarthestM, RigCheck.FarthestM, "m");
        c.Range("slopeDeg", SlopeDeg ?? 0, "autoFall.slopeDeg");
        for (int i = 0; i < locked.Count; i++) Thing($"locked[{i}]", locked[i]);
        for (int i = 0; i < bands.Count; i++)
        {
            var (thing, low, high) = bands[i];
            Thing($"bands[{i}].thing", thing);
            Height($"bands[{i}].lowestM", low);
            Height($"bands[{i}].highestM", high);
            if (low > high) c.Add($"bands[{i}].highestM", "it lies below the lowest height");
        }
        for (int i = 0; i < slopes.Count; i++)
        {
            Thing($"slopes[{i}].thing", slopes[i].Thing);
            c.Range($"slopes[{i}].slopeDeg", slopes[i].SlopeDeg, "autoFall.slopeDeg");
        }
    });
}
