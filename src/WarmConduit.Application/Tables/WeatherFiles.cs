using System.Globalization;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Application.Tables;

/// <summary>Hourly weather that was read.</summary>
/// <param name="Name">The place named in the file; empty: none.</param>
/// <param name="Hours">Hour by hour; the first one of a weather file of the EPW kind is midnight of 1 January.</param>
/// <param name="Missing">Missing values, filled from the hour before.</param>
/// <param name="ColdestFrom">Number of the hour at which the twelve coldest hours in a row begin.</param>
public sealed record WeatherRead(string Name, IReadOnlyList<WeatherHour> Hours, int Missing, int ColdestFrom);

/// <summary>
/// Hourly weather from text: EPW (an open format: eight lines of headings, then a line an hour), or a table with headings: temperature, wind and cloud (m/s;
/// cover 0 to 1, or in percent), each hour a line, with commas, semicolons or tabs between.
/// </summary>
public static class WeatherFiles
{
    private const int MostFaults = 50;

    // Columns of an EPW line, and what stands there for missing.
    private const int EpwHeadings = 8, EpwTemperature = 6, EpwWind = 21, EpwCover = 22;

    /// <summary>Reads <paramref name="text"/>. Throws <see cref="RigFileException"/> naming line and column (from 1) of what cannot be read. O(text).</summary>
    public static WeatherRead Read(string text)
    {
        var table = DelimitedText.Of(text);
        return text.StartsWith("LOCATION,", StringComparison.OrdinalIgnoreCase) ? Epw(table) : Table(table);
    }

    /// <summary>Hours as a table that <see cref="Read"/> takes.</summary>
    public static string Write(IEnumerable<WeatherHour> hours) =>
        "temperature (°C),wind (m/s),cloud\n" + string.Concat(hours.Select(h => FormattableString.Invariant($"{h.TemperatureC},{h.WindMPerS},{h.Cloud}\n")));

    private static WeatherRead Epw(DelimitedText table)
    {
        var faults = new List<RigFault>();
        if (table.Rows < EpwHeadings) faults.Add(new RigFault("line 1", "a weather file has eight lines of headings, and hours after them"));
        var reader = new HourReader(faults);
        for (int l = EpwHeadings; l <= table.Rows && faults.Count < MostFaults; l++)
        {
            var cells = table.Lines[l].Cells;
            if (cells.Count <= EpwCover)
            {
                faults.Add(new RigFault($"line {table.LineOf(l)}", $"{EpwCover + 1} columns are needed; it has {cells.Count}"));
                continue;
            }
            reader.Add(
                table.LineOf(l), (EpwTemperature, cells[EpwTemperature], v => v >= 99.9, -60, 50, 1), (EpwWind, cells[EpwWind], v => v >= 999, 0, 60, 1),
                (EpwCover, cells[EpwCover], v => v >= 99, 0, 10, 0.1), '.');
        }
        return reader.Done(table.Cell(0, 1));
    }

    private static WeatherRead Table(DelimitedText table)
    {
        var faults = new List<RigFault>();
        int temperature = table.Column("temp"), wind = table.Column("wind"), cloud = table.Column("cloud");
        if (temperature < 0) faults.Add(new RigFault("line 1", "add a column headed “temperature”; “wind” and “cloud” are optional"));
        double percent = cloud >= 0 && table.Headings[cloud].Contains('%', StringComparison.Ordinal) ? 0.01 : 1;
        var reader = new HourReader(faults);
        for (int l = 1; l <= table.Rows && temperature >= 0 && faults.Count < MostFaults; l++)
        {
            if (table.Overfull(l) is { } overfull)
            {
                faults.Add(overfull);
                continue;
            }
            string Cell(int column) => table.Cell(l, column);
            reader.Add(
                table.LineOf(l), (temperature, Cell(temperature), _ => false, -60, 50, 1), (wind, wind < 0 ? "0" : Cell(wind), _ => false, 0, 60, 1),
                (cloud, cloud < 0 ? "1" : Cell(cloud), _ => false, 0, 1 / percent, cloud < 0 ? 1 : percent),
                table.Point);
        }
        return reader.Done("");
    }

    private sealed class HourReader(List<RigFault> faults)
    {
        private readonly List<WeatherHour> _hours = [];
        private int _missing;

        public void Add(
            int line,
            (int Column, string Text, Func<double, bool> IsMissing, double Low, double High, double Factor) temperature,
            (int Column, string Text, Func<double, bool> IsMissing, double Low, double High, double Factor) wind,
            (int Column, string Text, Func<double, bool> IsMissing, double Low, double High, double Factor) cloud,
            char point)
        {
            var before = _hours.Count > 0 ? _hours[^1] : null;
            int had = faults.Count;
            double t = Of(line, temperature, before?.TemperatureC, point), w = Of(line, wind, before?.WindMPerS ?? 0, point),
                c = Of(line, cloud, before?.Cloud ?? 1, point);
            if (faults.Count > had) return;
            if (_hours.Count >= WeatherChoice.MostHours) faults.Add(new RigFault($"line {line}", $"use at most {WeatherChoice.MostHours} hours"));
            else _hours.Add(new WeatherHour(t, w, c));
        }

        private double Of(int line, (int Column, string Text, Func<double, bool> IsMissing, double Low, double High, double Factor) cell,
            double? before, char point)
        {
            string where = $"line {line}, column {cell.Column + 1}", text = point == ',' ? cell.Text.Replace(',', '.') : cell.Text;
            bool empty = string.IsNullOrWhiteSpace(text);
            double value = 0;
            if (!empty && !double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out value))
            {
                faults.Add(new RigFault(where, $"“{(text.Length > 20 ? text[..20] : text)}” is no number"));
                return 0;
            }
            if (empty || cell.IsMissing(value))
            {
                _missing++;
                if (before is null) faults.Add(new RigFault(where, "the first hour must be known"));
                return before ?? 0;
            }
            if (!(value >= cell.Low && value <= cell.High))
                faults.Add(new RigFault(where, FormattableString.Invariant($"it must lie between {cell.Low} and {cell.High}")));
            return Math.Round(value * cell.Factor, 4);
        }

        private int Coldest()
        {
            const int night = 12;
            double sum = _hours.Take(night).Sum(h => h.TemperatureC), least = sum;
            int from = 0;
            for (int h = night; h < _hours.Count; h++)
            {
                sum += _hours[h].TemperatureC - _hours[h - night].TemperatureC;
                if (sum < least) (least, from) = (sum, h - night + 1);
            }
            return from;
        }

        public WeatherRead Done(string name)
        {
            if (faults.Count == 0 && _hours.Count == 0) faults.Add(new RigFault("line 2", "there is no hour in it"));
            return faults.Count == 0 ? new WeatherRead(name, _hours, _missing, Coldest()) : throw new RigFileException([.. faults.Take(MostFaults)]);
        }
    }
}
