using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using WarmConduit.Application.Tables;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Application.LayUp;

/// <summary>
/// A logbook as a table. Columns: id, kind, at (ISO 8601), words, outdoor_c, who, thing, thing_name, expected_l, collected_l, care, corrects, walk, pictures
/// (names with spaces between), revision. To be read it wants at and words; a line without an id is known by what it says, so that a table read twice adds
/// nothing.
/// </summary>
public static class LogTable
{
    private const int MaxCharacters = 5_000_000, MostFaults = 20;
    private static readonly string[] Columns =
        ["id", "kind", "at", "words", "outdoor_c", "who", "thing", "thing_name", "expected_l", "collected_l", "care", "corrects", "walk", "pictures",
            "revision"];

    /// <summary>Entries as text, the oldest first.</summary>
    public static string Write(IEnumerable<LogEntry> entries) => RigTableText.Write(entries.OrderBy(e => e.At).ThenBy(e => e.Id, StringComparer.Ordinal)
        .Select(e => (IReadOnlyList<string>)
        [
            e.Id, Camel(e.Kind), e.At.ToString("O", CultureInfo.InvariantCulture), Safe(e.Words), Number(e.OutdoorC), Safe(e.Who), e.Thing ?? "",
                Safe(e.ThingName),
            Number(e.ExpectedL), Number(e.CollectedL), e.Care ?? "", e.Corrects ?? "", e.WalkId ?? "", string.Join(' ', e.Pictures ?? []),
            e.Revision.ToString(CultureInfo.InvariantCulture),
        ]).Prepend(Columns));

    /// <summary>Reads a table. Throws <see cref="RigFileException"/> naming line and column of what cannot be read.</summary>
    public static IReadOnlyList<LogEntry> Read(string text)
    {
        if (text.Length > MaxCharacters) throw new RigFileException([new RigFault("text", "it is larger than 5 MB")]);
        var table = DelimitedText.Of(text);
        var faults = table.Torn.Select(l => new RigFault($"line {l}", "its quotes do not match")).ToList();
        int[] at = [.. Columns.Select(c => Array.IndexOf(table.Headings, c))];
        if (at[2] < 0) faults.Add(new RigFault("line 1", "add a column headed “at”"));
        if (at[3] < 0) faults.Add(new RigFault("line 1", "add a column headed “words”"));
        if (table.Rows > LogEntry.Most) faults.Add(new RigFault("text", $"at most {LogEntry.Most} lines"));
        if (faults.Count > 0) throw new RigFileException(faults);
        var entries = new List<LogEntry>();
        var said = new Dictionary<string, int>();
        for (int row = 1; row <= table.Rows && faults.Count < MostFaults; row++)
        {
            string line = $"line {table.LineOf(row)}";
            string Cell(int column) => Plain(table.Cell(row, at[column]));
            string? Some(int column) => Cell(column) is { Length: > 0 } cell ? cell : null;
            double? Figure(int column, string limit) => Some(column) is null ? null
                : table.Number(row, at[column], (FieldLimits.All[limit].Least, FieldLimits.All[limit].Most), faults);
            if (!DateTimeOffset.TryParse(Cell(2), CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var when))
            {
                faults.Add(new RigFault($"{line}, column at",
                    $"“{(Cell(2).Length > 20 ? Cell(2)[..20] : Cell(2))}” is no date: write 2026-11-30 or 2026-11-30T18:20"));
                continue;
            }
            if (!Enum.TryParse<LogKind>(Some(1) ?? "note", true, out var kind) || !Enum.IsDefined(kind))
                faults.Add(new RigFault($"{line}, column kind", $"one of {string.Join(", ", Enum.GetValues<LogKind>().Select(Camel))}"));
            // Two lines that say the same are two entries.
            string sum = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', Enumerable.Range(1, Columns.Length - 1)
                .Select(Cell)))))[..24];
            int copy = said[sum] = said.GetValueOrDefault(sum) + 1;
            var entry = new LogEntry(
                Some(0) ?? $"row-{sum}-{copy}", kind, when, Cell(3), Figure(4, "log.outdoorC"), Some(5), Some(6), Some(7), Figure(8, "left.outL"), Figure(9,
                    "left.outL"),
                Some(10), Some(11), Some(12), Some(13)?.Split(' ', StringSplitOptions.RemoveEmptyEntries),
                int.TryParse(Some(14), NumberStyles.None, CultureInfo.InvariantCulture, out int revision) ? revision : 0);
            faults.AddRange(entry.Check().Select(f => f with { Path = $"{line}, {f.Path}" }));
            entries.Add(entry);
        }
        return faults.Count > 0 ? throw new RigFileException([.. faults.Take(MostFaults)]) : entries;
    }

    private static string Camel(LogKind kind) => kind.ToString().ToLowerInvariant();

    private static string Number(double? value) => value?.ToString("R", CultureInfo.InvariantCulture) ?? "";

    // A spreadsheet takes a text that begins so for a formula.
    private static string Safe(string? text) => text is { Length: > 0 } && "=+-@\t\r".Contains(text[0], StringComparison.Ordinal) ? $"'{text}" : text ?? "";

    private static string Plain(string cell) => cell is ['\'', '=' or '+' or '-' or '@', ..] ? cell[1..] : cell;
}
