using System.Globalization;
using CsvHelper;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Tables;
using WarmConduit.Core.Units;

namespace WarmConduit.Application.Tables;

/// <summary>Tables as text: divided by commas, semicolons or tabs, as spreadsheets give them.</summary>
public static class RigTableText
{
    private const int MaxCharacters = 2_000_000;

    /// <summary>What a table says of <paramref name="rig"/>.</summary>
    public static TableRead Read(Rig rig, string text, UnitSystem system)
    {
        if (text.Length > MaxCharacters) return RigTables.Read(rig, [], system, [new TableFault(1, null, "it is larger than 2 MB")]);
        var table = DelimitedText.Of(text);
        return RigTables.Read(rig, table.Lines, system, [.. table.Torn.Select(l => new TableFault(l, null, "its quotes do not match"))]);
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
