using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Tables;
using WarmConduit.Core.Units;

namespace WarmConduit.Server.Rigs;

/// <summary>Tables as text: divided by commas, semicolons or tabs, as spreadsheets give them.</summary>
public static class TableText
{
    private const int MaxCharacters = 2_000_000;

    /// <summary>What a table says of <paramref name="rig"/>.</summary>
    public static TableRead Read(Rig rig, string text, UnitSystem system)
    {
        if (text.Length > MaxCharacters) return RigTables.Read(rig, [], system, [new TableFault(1, null, "it is larger than 2 MB")]);
        var faults = new List<TableFault>();
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = true,
            DetectDelimiterValues = ["\t", ";", ","],
            BadDataFound = b => faults.Add(new TableFault(b.Context.Parser!.RawRow, null, "its quotes do not match")),
            TrimOptions = TrimOptions.Trim,
            IgnoreBlankLines = true,
        };
        var lines = new List<TableLine>();
        using var parser = new CsvParser(new StringReader(text), configuration);
        while (parser.Read()) lines.Add(new TableLine(parser.RawRow, parser.Record!));
        return RigTables.Read(rig, lines, system, faults);
    }

    /// <summary>Rows as text, divided by commas.</summary>
    public static string Write(IEnumerable<IReadOnlyList<string>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, CultureInfo.InvariantCulture))
        {
            foreach (var row in rows)
            {
                foreach (string cell in row) csv.WriteField(cell);
                csv.NextRecord();
            }
        }
        return text.ToString();
    }
}
