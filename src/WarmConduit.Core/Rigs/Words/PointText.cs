using System.Text.RegularExpressions;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Words;

/// <summary>Reads three lengths as a place: from the rear, from the kerb, above the floor. <c>4.2 m, 0.2 m, 0.30 m</c>; <c>4.2, 0.2, 0.3</c>; <c>1200; 300;
/// 200</c>.</summary>
public static partial class PointText
{
    // No vehicle is longer, m: beyond it bare numbers are millimetres.
    private const double LongestM = 30;

    /// <summary>The three figures of <paramref name="text"/> and where each begins; null where there are not three.</summary>
    public static (string Figure, int Place)[]? Figures(string text)
    {
        foreach (var separator in (Regex[])[Spaced(), Comma()])
        {
            var found = new List<(string, int)>();
            int from = 0;
            foreach (Match match in separator.Matches(text))
            {
                found.Add((text[from..match.Index], from));
                from = match.Index + match.Length;
            }
            found.Add((text[from..], from));
            if (found.Count == 3 && found.All(f => !string.IsNullOrWhiteSpace(f.Item1))) return [.. found];
        }
        return null;
    }

    /// <summary>
    /// The place that <paramref name="figures"/> say. A bare number has the unit of the figure beside it that has one; where none has, metres, or millimetres
    /// where one is beyond any vehicle; inches in US units. Throws <see cref="QuantityFormatException"/> at the character that is not understood, counted with
    /// <paramref name="offset"/>.
    /// </summary>
    public static Point3 Read((string Figure, int Place)[] figures, int offset, UnitSystem system)
    {
        // What has a unit is read first: its mistake is told, and the others take it.
        var units = figures.Select(f => QuantityText.UnitIn(f.Figure, Quantity.Length)).ToList();
        double One(int i, string? beside)
        {
            string written = figures[i].Figure.TrimEnd();
            try
            {
                return QuantityText.Parse(written, Quantity.Length, system, beside);
            }
            catch (QuantityFormatException e)
            {
                throw new QuantityFormatException(offset + figures[i].Place + Math.Min(e.Position, written.Length), e.Message);
            }
        }
        int[] all = [0, 1, 2];
        foreach (int i in all.Where(i => units[i] is not null)) One(i, null);
        string beside = units.FirstOrDefault(u => u is not null) ?? (system == UnitSystem.UsCustomary ? "in" : all.Any(i => Math.Abs(One(i, "m")) > LongestM)
            ? "mm" : "m");
        double[] place = [.. all.Select(i => One(i, beside) is var m && units[i] is null && Math.Abs(m) > LongestM ? One(i, "mm") : One(i, beside))];
        return new Point3(Math.Round(place[0], 4), Math.Round(place[1], 4), Math.Round(place[2], 4));
    }

    [GeneratedRegex(@"[,;]\s+|;")]
    private static partial Regex Spaced();

    [GeneratedRegex(",")]
    private static partial Regex Comma();
}
