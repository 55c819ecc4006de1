using System.Text.RegularExpressions;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Tables;

/// <summary>A table as it comes from a file or a spreadsheet: headings, and rows with their lines.</summary>
internal sealed partial class Sheet
{
    public const int MaxRows = 5000;

    private readonly Dictionary<string, int> _columns = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> _units = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Takes lines in order, the first of them the headings, which may name the unit of bare numbers, as in "above floor (mm)".</summary>
    public Sheet(IReadOnlyList<TableLine> lines, List<TableFault> faults)
    {
        foreach (var (line, cells) in lines)
        {
            if (cells.All(string.IsNullOrWhiteSpace)) continue;
            if (_columns.Count == 0)
            {
                for (int i = 0; i < cells.Count; i++)
                {
                    var match = Heading().Match(cells[i]);
                    string name = match.Groups[1].Value.Trim();
                    if (name.Length == 0) continue;
                    _columns.TryAdd(name, i);
                    if (match.Groups[2].Success) _units[name] = match.Groups[2].Value.Trim();
                }
                continue;
            }
            if (Rows.Count == MaxRows)
            {
                faults.Add(new TableFault(line, null, $"there are more than {MaxRows} rows"));
                break;
            }
            Rows.Add(new Row(this, line, cells));
        }
    }

    public List<Row> Rows { get; } = [];

    public bool Has(string column) => _columns.ContainsKey(column);

    [GeneratedRegex(@"^\s*([^()]*?)\s*(?:\(([^)]*)\))?\s*$")]
    private static partial Regex Heading();

    /// <summary>A row; what it lacks or says wrong is told at its line and column.</summary>
    internal sealed class Row(Sheet sheet, int line, IReadOnlyList<string> cells)
    {
        public int Line => line;

        // A mark that keeps a spreadsheet from working a name out is no part of it.
        public string this[string column] =>
            sheet._columns.TryGetValue(column, out int i) && i < cells.Count ? cells[i].Trim() is ['\'', '=' or '+' or '-' or '@' or '\t' or '\r', ..] name
                ? name[1..] : cells[i].Trim() : "";

        public double? Quantity(string column, Quantity quantity, UnitSystem system, List<TableFault> faults)
        {
            string text = this[column];
            if (text.Length == 0) return null;
            try
            {
                return QuantityText.Parse(text, quantity, system, sheet._units.GetValueOrDefault(column));
            }
            catch (QuantityFormatException e)
            {
                faults.Add(new TableFault(line, column, e.Message));
                return double.NaN;
            }
        }
    }
}
