using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Weather;

/// <summary>Readings of one cold night.</summary>
/// <param name="TimeS">Times from the first reading on, s.</param>
/// <param name="OutdoorC">Outdoors, °C.</param>
/// <param name="HeaterW">What the heater gave from this reading to the next, W; null: no heater ran.</param>
/// <param name="Zones">Rooms with a thermometer.</param>
/// <param name="Unread">Headings of columns that were not read.</param>
public sealed record Thermometers(
    IReadOnlyList<double> TimeS, IReadOnlyList<double> OutdoorC, IReadOnlyList<double>? HeaterW, IReadOnlyList<ThermometerSeries> Zones,
    IReadOnlyList<string>? Unread = null)
{
    /// <summary>Fewest readings that are taken.</summary>
    public const int LeastReadings = 12;

    /// <summary>Most readings that are taken.</summary>
    public const int MostReadings = 3000;

    /// <summary>Longest time, s.</summary>
    public const double MostS = 11 * 86_400;

    /// <summary>What is taken: outdoors and in rooms, °C, and of a heater, W.</summary>
    public static readonly (double Low, double High) OutdoorRangeC = (-60, 50), RoomRangeC = (-60, 60), HeaterRangeW = (0, 50_000);

    /// <summary>What is out of range or of no room among <paramref name="zones"/>, by field; empty when all is well. O(readings).</summary>
    public IReadOnlyList<RigFault> Check(IReadOnlyList<Zone> zones) => FieldChecker.Of(c =>
    {
        int count = TimeS.Count;
        c.Count("timeS", count, LeastReadings, MostReadings);
        if (Zones.Count == 0) c.Add("zones", "name a room");
        if (c.Faults.Count > 0) return;
        for (int t = 1; t < count && c.Faults.Count == 0; t++)
            if (!(TimeS[t] > TimeS[t - 1])) c.Add($"timeS[{t}]", "times must rise");
        c.Range("timeS[0]", TimeS[0], 0, 0, "s");
        if (!(TimeS[^1] <= MostS)) c.Add($"timeS[{count - 1}]", "use at most ten days");
        // Of each series the first that is wrong.
        void Series(string field, IReadOnlyList<double> values, (double Low, double High) range)
        {
            if (values.Count != count) c.Add(field, $"it has {values.Count} readings, and there are {count} times");
            int had = c.Faults.Count;
            for (int t = 0; t < values.Count && c.Faults.Count == had; t++) c.Range($"{field}[{t}]", values[t], range.Low, range.High, "");
        }
        Series("outdoorC", OutdoorC, OutdoorRangeC);
        if (HeaterW is not null) Series("heaterW", HeaterW, HeaterRangeW);
        for (int z = 0; z < Zones.Count; z++)
        {
            if (zones.Find(Zones[z].ZoneId) is null) c.Add($"zones[{z}].zoneId", $"there is no zone '{Zones[z].ZoneId}'");
            else if (Zones.Take(z).Any(o => o.ZoneId == Zones[z].ZoneId)) c.Add($"zones[{z}].zoneId", "this room is listed twice");
            Series($"zones[{z}].c", Zones[z].C, RoomRangeC);
        }
    });
}
