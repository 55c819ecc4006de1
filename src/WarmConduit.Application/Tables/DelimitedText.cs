using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Tables;

namespace WarmConduit.Application.Tables;

/// <summary>
/// A table as spreadsheets write it: a line of headings, and commas, semicolons or tabs between cells, whichever the headings have. Where it is not a comma
/// that divides, a comma may stand for the decimal point.
/// </summary>
internal sealed class DelimitedText
{
    private readonly List<TableLine> _lines;

    private DelimitedText(List<TableLine> lines, char between)
    {
        (_lines, Point) = (lines, between == ',' ? '.' : ',');
        Headings = lines.Count == 0 ? [""] : [.. lines[0].Cells.Select(h => h.Trim().ToLowerInvariant())];
    }

    /// <summary>Headings in small letters.</summary>
    public string[] Headings { get; }

    /// <summary>What may stand for a decimal point besides the point.</summary>
    public char Point { get; }

    /// <summary>Rows under the headings.</summary>
    public int Rows => Math.Max(0, _lines.Count - 1);

    /// <summary>All lines, the headings first, for what takes tables apart itself.</summary>
    public IReadOnlyList<TableLine> Lines => _lines;

    /// <summary>Lines whose quotes do not match, from 1.</summary>
    public required IReadOnlyList<int> Torn { get; init; }

    /// <summary>Takes a text apart. O(text).</summary>
    public static DelimitedText Of(string text)
    {
        string first = text[..(text.IndexOfAny(['\n', '\r']) is >= 0 and var end ? end : text.Length)];
        char between = first.Contains('\t', StringComparison.Ordinal) ? '\t' : first.Contains(';', StringComparison.Ordinal) ? ';' : ',';
        var (lines, torn) = (new List<TableLine>(), new List<int>());
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = between.ToString(),
            BadDataFound = b => torn.Add(b.Context.Parser!.RawRow),
            TrimOptions = TrimOptions.Trim,
            IgnoreBlankLines = true,
        };
        using var parser = new CsvParser(new StringReader(text), configuration);
        while (parser.Read()) lines.Add(new TableLine(parser.RawRow, parser.Record!));
        return new DelimitedText(lines, between) { Torn = torn };
    }

    /// <summary>The first column whose heading starts so; -1: none.</summary>
    public int Column(string stem) => Array.FindIndex(Headings, h => h.StartsWith(stem, StringComparison.Ordinal));

    /// <summary>The line of the text on which a row stands, from 1; row 1 is the first under the headings.</summary>
    public int LineOf(int row) => row < _lines.Count ? _lines[row].Line : 1;

    /// <summary>A cell of a row; empty where there is none.</summary>
    public string Cell(int row, int column) => _lines[row].Cells is var cells && column >= 0 && column < cells.Count ? cells[column] : "";

    /// <summary>What is wrong with a row that has more in it than there are headings: a comma for a decimal point would shift what follows. Null: nothing
    /// is.</summary>
    public RigFault? Overfull(int row) =>
        _lines[row].Cells is var cells && cells.Skip(Headings.Length).Any(c => c.Length > 0)
            ? new RigFault($"line {LineOf(row)}", $"it has {cells.Count} cells, and there are {Headings.Length} headings") : null;

    /// <summary>The number in a cell, NaN with a fault where there is none or it lies outside of <paramref name="range"/>.</summary>
    public double Number(int row, int column, (double Low, double High) range, List<RigFault> faults)
    {
        string text = Cell(row, column), where = $"line {LineOf(row)}, column {column + 1}";
        if (!double.TryParse(Point == ',' ? text.Replace(',', '.') : text, NumberStyles.Float, CultureInfo.InvariantCulture, out double value))
            faults.Add(new RigFault(where, text.Length == 0 ? "a number belongs here" : $"“{(text.Length > 20 ? text[..20] : text)}” is no number"));
        else if (!(value >= range.Low && value <= range.High))
            faults.Add(new RigFault(where, FormattableString.Invariant($"it must lie between {range.Low} and {range.High}")));
        return value;
    }
}
