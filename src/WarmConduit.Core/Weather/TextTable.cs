using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Weather;

/// <summary>A table as spreadsheets write it: a line of headings, and commas, semicolons or tabs between cells. Where it is not a comma that divides, a comma may stand for the decimal point.</summary>
internal sealed class TextTable
{
    private readonly string[] _lines;
    private readonly char _between;
    private (int Line, string[] Cells) _split = (-1, []);

    public TextTable(string[] lines)
    {
        _lines = lines;
        _between = lines[0].Contains('\t', StringComparison.Ordinal) ? '\t' : lines[0].Contains(';', StringComparison.Ordinal) ? ';' : ',';
        Headings = [.. lines[0].Split(_between).Select(h => h.Trim().Trim('"').ToLowerInvariant())];
    }

    /// <summary>Headings in small letters.</summary>
    public string[] Headings { get; }

    /// <summary>What may stand for a decimal point besides the point.</summary>
    public char Point => _between == ',' ? '.' : ',';

    /// <summary>Lines of a text, however they end; at least one.</summary>
    public static string[] Lines(string text) => text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\r', '\n').TrimEnd('\n', ' ').Split('\n');

    /// <summary>The first column whose heading starts so; -1: none.</summary>
    public int Column(string stem) => Array.FindIndex(Headings, h => h.StartsWith(stem, StringComparison.Ordinal));

    /// <summary>A cell, trimmed; empty where there is none.</summary>
    public string Cell(int line, int column) => Cells(line) is var cells && column >= 0 && column < cells.Length ? cells[column].Trim().Trim('"') : "";

    /// <summary>What is wrong with a line that has more in it than there are headings: a comma for a decimal point would shift what follows. Null: nothing is.</summary>
    public RigFault? Overfull(int line) =>
        Cells(line).Skip(Headings.Length).Any(c => !string.IsNullOrWhiteSpace(c)) ? new RigFault($"line {line + 1}", $"it has {Cells(line).Length} cells, and there are {Headings.Length} headings") : null;

    private string[] Cells(int line)
    {
        if (_split.Line != line) _split = (line, _lines[line].Split(_between));
        return _split.Cells;
    }
}
