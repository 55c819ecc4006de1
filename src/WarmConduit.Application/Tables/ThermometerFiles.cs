using System.Globalization;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Application.Tables;

/// <summary>A room of the rig, as a table may name it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
public sealed record Room(string Id, string Name);

/// <summary>
/// Readings of thermometers from a table with headings: hour (or a clock, 22:10, or minutes or seconds where the heading says so), outdoors, heater (W; where
/// one ran), and a column for each room by its name, °C.
/// </summary>
public static class ThermometerFiles
{
    private const int MostFaults = 20;

    /// <summary>Reads <paramref name="text"/> for the rooms of <paramref name="zones"/>. Throws <see cref="RigFileException"/> naming line and column (from 1)
    /// of what cannot be read. O(text · rooms).</summary>
    public static Thermometers Read(string text, IReadOnlyList<Room> zones)
    {
        var table = DelimitedText.Of(text);
        var faults = new List<RigFault>();
        int time = Array.FindIndex(table.Headings, h => h.StartsWith("hour", StringComparison.Ordinal) || h.StartsWith("time", StringComparison.Ordinal)
            || h.StartsWith("min", StringComparison.Ordinal));
        int outdoors = table.Column("out"), heater = table.Column("heater");
        var rooms = zones.Select(z => (Zone: z, Column: Array.FindIndex(table.Headings, h => h == z.Id || h.Equals(z.Name, StringComparison.OrdinalIgnoreCase)
            || h.StartsWith($"{z.Name} ", StringComparison.OrdinalIgnoreCase)))).Where(r => r.Column >= 0).ToList();
        if (time < 0) faults.Add(new RigFault("line 1", "add a column headed “hour”"));
        if (outdoors < 0) faults.Add(new RigFault("line 1", "add a column headed “outdoors”"));
        if (rooms.Count == 0) faults.Add(new RigFault("line 1", $"add a column headed with the name of a room: " +
            $"{string.Join(", ", zones.Take(8).Select(z => z.Name))}"));
        if (table.Rows < Thermometers.LeastReadings)
            faults.Add(new RigFault($"line {table.LineOf(table.Rows)}", $"add at least {Thermometers.LeastReadings} readings"));
        if (table.Rows > Thermometers.MostReadings)
            faults.Add(new RigFault($"line {table.LineOf(Thermometers.MostReadings + 1)}", $"use at most {Thermometers.MostReadings} readings"));
        if (faults.Count > 0) throw new RigFileException(faults);

        string heading = table.Headings[time];
        double unit = heading.Contains("min", StringComparison.Ordinal) ? 60 : heading.EndsWith("_s", StringComparison.Ordinal)
            || heading.Contains("(s)", StringComparison.Ordinal) ? 1 : 3600;
        var (at, out_, watts) = (new List<double>(), new List<double>(), new List<double>());
        var series = rooms.Select(_ => new List<double>()).ToList();
        double day = 0;
        for (int l = 1; l <= table.Rows && faults.Count < MostFaults; l++)
        {
            if (table.Overfull(l) is { } overfull) faults.Add(overfull);
            string clock = table.Cell(l, time);
            double s;
            if (clock.Split(':') is [var hours, var minutes, ..] && int.TryParse(hours, CultureInfo.InvariantCulture, out int hh)
                && int.TryParse(minutes, CultureInfo.InvariantCulture, out int mm) && hh is >= 0 and < 25 && mm is >= 0 and < 60)
            {
                s = day + (hh * 3600) + (mm * 60);
                // Past midnight.
                if (at.Count > 0 && s <= at[^1]) s += 86_400 * Math.Ceiling((at[^1] - s + 1) / 86_400);
                day = s - (hh * 3600) - (mm * 60);
            }
            else
            {
                s = table.Number(l, time, (0, 1e7), faults) * unit;
            }
            if (at.Count > 0 && s <= at[^1]) faults.Add(new RigFault($"line {table.LineOf(l)}, column {time + 1}", "times must rise"));
            at.Add(s);
            out_.Add(table.Number(l, outdoors, Thermometers.OutdoorRangeC, faults));
            if (heater >= 0) watts.Add(table.Number(l, heater, Thermometers.HeaterRangeW, faults));
            for (int r = 0; r < rooms.Count; r++) series[r].Add(table.Number(l, rooms[r].Column, Thermometers.RoomRangeC, faults));
        }
        if (faults.Count == 0 && at[^1] - at[0] > Thermometers.MostS)
            faults.Add(new RigFault($"line {table.LineOf(table.Rows)}", "use at most ten days"));
        if (faults.Count > 0) throw new RigFileException([.. faults.Take(MostFaults)]);
        var read = new HashSet<int>([time, outdoors, heater, .. rooms.Select(r => r.Column)]);
        return new Thermometers(
            [.. at.Select(s => s - at[0])], out_, watts.Any(w => w > 0) ? watts : null,
            [.. rooms.Select((r, i) => new ThermometerSeries(r.Zone.Id, series[i]))],
            [.. table.Headings.Where((_, i) => !read.Contains(i))]);
    }
}
