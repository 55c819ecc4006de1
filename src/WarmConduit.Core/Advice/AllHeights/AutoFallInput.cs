using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>Heights between which a point lies, or all points of a room.</summary>
/// <param name="Thing">The point or the room: <c>runs/main/bends/b2</c>, <c>parts/tee-1</c>, <c>zones/bay</c>.</param>
/// <param name="LowestM">Not below, m, -10 to 10; left out: as low as it can.</param>
/// <param name="HighestM">Not above, m, likewise.</param>
public sealed record HeightBand(string Thing, double? LowestM = null, double? HighestM = null);

/// <summary>The slope on which lines fall at a point, or at all points of a room.</summary>
/// <param name="Thing">The point or the room, as for <see cref="HeightBand"/>.</param>
/// <param name="SlopeDeg">The slope, degrees, 0 to 10.</param>
public sealed record LocalSlope(string Thing, double SlopeDeg);

/// <summary>What the builder asks of the heights.</summary>
/// <param name="Locked">Points, runs and rooms in which nothing moves: <c>runs/main</c>, <c>zones/bay</c>.</param>
/// <param name="Bands">Heights that are allowed, by point or room; a point's own comes before its room's.</param>
/// <param name="SlopeDeg">The slope on which all lines fall, degrees, 0 to 10; left out: as the brief has it.</param>
/// <param name="Slopes">The slope at a point or in a room, where it is another.</param>
public sealed record AutoFallInput(
    IReadOnlyList<string>? Locked = null, IReadOnlyList<HeightBand>? Bands = null, double? SlopeDeg = null, IReadOnlyList<LocalSlope>? Slopes = null) : IStudyInput
{
    private const double MostSlopeDeg = 10;
    private const int MostEntries = 5000;

    /// <inheritdoc/>
    public IEnumerable<RigFault> Check(Rig rig)
    {
        var (locked, bands, slopes) = (Locked ?? [], Bands ?? [], Slopes ?? []);
        if (Math.Max(locked.Count, Math.Max(bands.Count, slopes.Count)) > MostEntries)
        {
            yield return new RigFault("", $"more than {MostEntries} entries");
            yield break;
        }
        const string wrongSlope = "it must lie between 0 and 10 °";
        if (SlopeDeg is { } all && !(all is >= 0 and <= MostSlopeDeg)) yield return new RigFault("slopeDeg", wrongSlope);
        for (int i = 0; i < locked.Count; i++)
            if (!rig.Has(locked[i])) yield return None($"locked[{i}]", locked[i]);
        for (int i = 0; i < bands.Count; i++)
        {
            var (thing, low, high) = bands[i];
            if (!rig.Has(thing)) yield return None($"bands[{i}].thing", thing);
            if (Wrong(low)) yield return Range($"bands[{i}].lowestM");
            if (Wrong(high)) yield return Range($"bands[{i}].highestM");
            if (low > high) yield return new RigFault($"bands[{i}].highestM", "it lies below the lowest height");
        }
        for (int i = 0; i < slopes.Count; i++)
        {
            if (!rig.Has(slopes[i].Thing)) yield return None($"slopes[{i}].thing", slopes[i].Thing);
            if (!(slopes[i].SlopeDeg is >= 0 and <= MostSlopeDeg)) yield return new RigFault($"slopes[{i}].slopeDeg", wrongSlope);
        }

        static RigFault None(string path, string thing) => new(path, $"there is no '{thing}' in the rig");
        static bool Wrong(double? m) => m is { } height && !(Math.Abs(height) <= RigCheck.FarthestM);
        static RigFault Range(string path) => new(path, FormattableString.Invariant($"it must lie between {-RigCheck.FarthestM} and {RigCheck.FarthestM} m"));
    }
}
