using System.Globalization;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Weather;

/// <summary>Readings of one cold night.</summary>
/// <param name="TimeS">Times from the first reading on, s.</param>
/// <param name="OutdoorC">Outdoors, °C.</param>
/// <param name="HeaterW">What the heater gave from this reading to the next, W; null: no heater ran.</param>
/// <param name="Zones">Rooms with a thermometer.</param>
/// <param name="Unread">Headings of columns that were not read.</param>
public sealed record Thermometers(IReadOnlyList<double> TimeS, IReadOnlyList<double> OutdoorC, IReadOnlyList<double>? HeaterW, IReadOnlyList<ThermometerSeries> Zones, IReadOnlyList<string> Unread);

/// <summary>
/// Readings of thermometers from a table with headings: hour (or a clock, 22:10, or minutes or seconds where the heading says so), outdoors, heater (W; where one ran), and a column for each room by its
/// name, °C.
/// </summary>
public static class ThermometerFiles
{
    /// <summary>Readings that are taken at the most.</summary>
    public const int MostReadings = 3000;

    private const int MostFaults = 20, LeastReadings = 12;

    /// <summary>Reads <paramref name="text"/> for the rooms of <paramref name="zones"/>. Throws <see cref="RigFileException"/> naming line and column (from 1) of what cannot be read. O(text · rooms).</summary>
    public static Thermometers Read(string text, IReadOnlyList<Zone> zones)
    {
        string[] lines = TextTable.Lines(text);
        var table = new TextTable(lines);
        var faults = new List<RigFault>();
        int time = Array.FindIndex(table.Headings, h => h.StartsWith("hour", StringComparison.Ordinal) || h.StartsWith("time", StringComparison.Ordinal) || h.StartsWith("min", StringComparison.Ordinal));
        int outdoors = table.Column("out"), heater = table.Column("heater");
        var rooms = zones.Select(z => (Zone: z, Column: Array.FindIndex(table.Headings, h => h == z.Id || h.Equals(z.Name, StringComparison.OrdinalIgnoreCase) || h.StartsWith($"{z.Name} ", StringComparison.OrdinalIgnoreCase)))).Where(r => r.Column >= 0).ToList();
        if (time < 0) faults.Add(new RigFault("line 1", "a heading “hour” is wanted"));
        if (outdoors < 0) faults.Add(new RigFault("line 1", "a heading “outdoors” is wanted"));
        if (rooms.Count == 0) faults.Add(new RigFault("line 1", $"a heading with the name of a room is wanted: {string.Join(", ", zones.Take(8).Select(z => z.Name))}"));
        if (lines.Length - 1 < LeastReadings) faults.Add(new RigFault($"line {lines.Length}", $"{LeastReadings} readings at the least are wanted"));
        if (lines.Length - 1 > MostReadings) faults.Add(new RigFault($"line {MostReadings + 2}", $"more than {MostReadings} readings are not taken"));
        if (faults.Count > 0) throw new RigFileException(faults);

        string heading = table.Headings[time];
        double unit = heading.Contains("min", StringComparison.Ordinal) ? 60 : heading.EndsWith("_s", StringComparison.Ordinal) || heading.Contains("(s)", StringComparison.Ordinal) ? 1 : 3600;
        double Number(int line, int column, double low, double high)
        {
            string cell = table.Cell(line, column);
            if (!double.TryParse(table.Point == ',' ? cell.Replace(',', '.') : cell, NumberStyles.Float, CultureInfo.InvariantCulture, out double value))
                faults.Add(new RigFault($"line {line + 1}, column {column + 1}", cell.Length == 0 ? "a reading belongs here" : $"“{(cell.Length > 20 ? cell[..20] : cell)}” is no number"));
            else if (!(value >= low && value <= high)) faults.Add(new RigFault($"line {line + 1}, column {column + 1}", FormattableString.Invariant($"it must lie between {low} and {high}")));
            return value;
        }
        var (at, out_, watts) = (new List<double>(), new List<double>(), new List<double>());
        var series = rooms.Select(_ => new List<double>()).ToList();
        double day = 0;
        for (int l = 1; l < lines.Length && faults.Count < MostFaults; l++)
        {
            if (table.Overfull(l) is { } overfull) faults.Add(overfull);
            string clock = table.Cell(l, time);
            double s;
            if (clock.Split(':') is [var hours, var minutes, ..] && int.TryParse(hours, CultureInfo.InvariantCulture, out int hh) && int.TryParse(minutes, CultureInfo.InvariantCulture, out int mm) && hh is >= 0 and < 25 && mm is >= 0 and < 60)
            {
                s = day + (hh * 3600) + (mm * 60);
                // Past midnight.
                if (at.Count > 0 && s <= at[^1]) s += 86_400 * Math.Ceiling((at[^1] - s + 1) / 86_400);
                day = s - (hh * 3600) - (mm * 60);
            }
            else
            {
                s = Number(l, time, 0, 1e7) * unit;
            }
            if (at.Count > 0 && s <= at[^1]) faults.Add(new RigFault($"line {l + 1}, column {time + 1}", "times must rise"));
            at.Add(s);
            out_.Add(Number(l, outdoors, -60, 50));
            if (heater >= 0) watts.Add(Number(l, heater, 0, 50_000));
            for (int r = 0; r < rooms.Count; r++) series[r].Add(Number(l, rooms[r].Column, -60, 60));
        }
        if (faults.Count == 0 && at[^1] - at[0] > 11 * 86_400) faults.Add(new RigFault($"line {lines.Length}", "more than ten days are not taken"));
        if (faults.Count > 0) throw new RigFileException([.. faults.Take(MostFaults)]);
        var read = new HashSet<int>([time, outdoors, heater, .. rooms.Select(r => r.Column)]);
        return new Thermometers(
            [.. at.Select(s => s - at[0])], out_, watts.Any(w => w > 0) ? watts : null, [.. rooms.Select((r, i) => new ThermometerSeries(r.Zone.Id, series[i]))],
            [.. table.Headings.Where((_, i) => !read.Contains(i))]);
    }
}
