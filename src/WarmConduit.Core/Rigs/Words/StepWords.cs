using System.Text.RegularExpressions;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Words;

/// <summary>A word that a step of a run can have.</summary>
/// <param name="Word">As it is typed.</param>
/// <param name="Means">What it does.</param>
public sealed record StepWord(string Word, string Means);

/// <summary>The next point of a run typed in words: where it is, and how it was understood.</summary>
/// <param name="At">The next point, m.</param>
/// <param name="Understood">In words.</param>
/// <param name="To">The port that it ends on; null: it goes on.</param>
/// <param name="Next">Whole texts that complete what was typed; at most 8.</param>
public sealed record StepRead(Point3 At, Sentence Understood, PortName? To, IReadOnlyList<string> Next);

/// <summary>A port that a run may end on.</summary>
/// <param name="Words">Its part and its own name, as it is typed.</param>
/// <param name="Part">Id of the part.</param>
/// <param name="Port">Id of the port.</param>
/// <param name="At">Where it is, m.</param>
public sealed record PortName(string Words, string Part, string Port, Point3 At);

/// <summary>
/// Reads the next point of a run in plain words: <c>rear 1.2 m, fall 2 %</c>, <c>up 30 cm</c>, <c>height 400 mm</c>, <c>clear 20 mm</c>. A figure alone is a
/// length on in the way the hand points; three are a place, <c>at 4.2, 0.2, 0.3</c>; <c>to fresh tank outlet</c> ends it there. Lengths in either system.
/// </summary>
public static partial class StepWords
{
    /// <summary>Words that are understood, in the order in which they are offered.</summary>
    public static IReadOnlyList<StepWord> All { get; } =
    [
        new("forward", "towards the cab, by a length"),
        new("rear", "towards the rear, by a length"),
        new("kerb", "towards the kerb, by a length"),
        new("far", "away from the kerb, by a length"),
        new("up", "up, by a length"),
        new("down", "down, by a length"),
        new("fall", "falls this much, after a direction and a length"),
        new("rise", "rises this much, after a direction and a length"),
        new("height", "to this height above the floor"),
        new("clear", "this far above the floor or the arch below"),
        new("at", "to a place: from the rear, from the kerb, above the floor"),
        new("to", "ends it on a port, by its name"),
    ];

    /// <summary>Words that can follow what has been typed so far: those that begin like its last word.</summary>
    public static IReadOnlyList<StepWord> After(string typed)
    {
        string last = Splitter().Split(typed.ToLowerInvariant())[^1];
        return [.. All.Where(w => w.Word.StartsWith(last, StringComparison.Ordinal) && w.Word != last)];
    }

    private const string To = "to ", AtWord = "at ";
    private const int MostNext = 8, FarthestM = 1000;

    private static bool Far(Point3 at) => !(Math.Abs(at.XM) <= FarthestM && Math.Abs(at.YM) <= FarthestM && Math.Abs(at.ZM) <= FarthestM);

    /// <summary>Reads <paramref name="text"/>. Throws <see cref="QuantityFormatException"/> at the character that is not understood.</summary>
    /// <param name="text">What was typed; at most 100 characters.</param>
    /// <param name="from">The last point, m.</param>
    /// <param name="towards">Where the hand points, m; what is not said stays as there.</param>
    /// <param name="shell">What lies under it.</param>
    /// <param name="system">The system in which a bare number is meant: in metric units one with a decimal point is metres, one without is millimetres.</param>
    /// <param name="ports">Ports that are free.</param>
    public static StepRead Read(string text, Point3 from, Point3 towards, Shell shell, UnitSystem system, IReadOnlyList<PortName> ports)
    {
        if (Far(from) || Far(towards)) throw new QuantityFormatException(0, $"the run lies farther than {FarthestM} m from the vehicle");
        if (string.IsNullOrWhiteSpace(text)) throw new QuantityFormatException(0, "type a direction and a length, such as rear 1.2 m");
        if (text.StartsWith(To, StringComparison.OrdinalIgnoreCase)) return Port(text, from, ports);
        bool absolute = text.StartsWith(AtWord, StringComparison.OrdinalIgnoreCase);
        int begin = absolute ? AtWord.Length : 0;
        if (PointText.Figures(text[begin..]) is { } figures && (absolute || figures.All(f => !Word().IsMatch(f.Figure))))
            return Step(from, PointText.Read(figures, begin, system));
        if (absolute) throw new QuantityFormatException(begin, "after at come three lengths: from the rear, from the kerb, above the floor");
        var at = from;
        double run = 0;
        bool moved = false;
        double? height = null, fall = null, clear = null;
        foreach (var (word, figure, place) in Pieces(text))
        {
            double Length()
            {
                try
                {
                    return QuantityText.Parse(figure, Quantity.Length, system, system == UnitSystem.Metric && figure.AsSpan().ContainsAny('.', ',')
                        ? "m" : null);
                }
                catch (QuantityFormatException e)
                {
                    throw new QuantityFormatException(place + e.Position, figure.Length == 0 ? $"after {word} comes a length, such as 30 cm" : e.Message);
                }
            }
            void Move(double x, double y, double z)
            {
                double by = Length();
                at += new Point3(x * by, y * by, z * by);
                if (z == 0) run += Math.Abs(by);
                moved = true;
            }
            switch (word)
            {
                case "forward": Move(1, 0, 0); break;
                case "rear": Move(-1, 0, 0); break;
                case "far": Move(0, 1, 0); break;
                case "kerb": Move(0, -1, 0); break;
                case "up": Move(0, 0, 1); break;
                case "down": Move(0, 0, -1); break;
                case "height": height = Length(); break;
                case "clear": clear = Length(); break;
                case "fall" or "rise":
                    double share;
                    try
                    {
                        share = QuantityText.Parse(figure, Quantity.Fall, system);
                    }
                    catch (QuantityFormatException e)
                    {
                        throw new QuantityFormatException(place + e.Position, figure.Length == 0 ? $"after {word} comes a share, such as 2 %" : e.Message);
                    }
                    fall = word == "fall" ? share : -share;
                    break;
                case "":
                    double on = Length(), whole = from.DistanceM(towards);
                    if (whole < 1e-6) throw new QuantityFormatException(place, "point somewhere first, or say which direction");
                    at = from.Towards(towards, on / whole);
                    run += on;
                    moved = true;
                    break;
                default:
                    throw new QuantityFormatException(place, $"“{word}” is not understood; there are {string.Join(", ", All.Select(w => w.Word))}");
            }
        }
        if (!moved && (height is not null || fall is not null || clear is not null))
        {
            at = towards with { ZM = from.ZM };
            run = from.DistanceM(at);
        }
        if (fall is { } f) at = at with { ZM = at.ZM - f * run };
        if (height is { } h) at = at with { ZM = h };
        if (clear is { } c) at = at with { ZM = Under(shell, at) + c };
        at = new Point3(Math.Round(at.XM, 4), Math.Round(at.YM, 4), Math.Round(at.ZM, 4));
        return Step(from, at);
    }

    // A port by its name, or by the beginning of it.
    private static StepRead Port(string text, Point3 from, IReadOnlyList<PortName> ports)
    {
        string typed = text[To.Length..].Trim();
        var like = ports.Where(p => p.Words.StartsWith(typed, StringComparison.OrdinalIgnoreCase)).ToList();
        if (like.Count == 0) throw new QuantityFormatException(To.Length, "no part has a free port of that name");
        var next = like.Take(MostNext).Select(p => To + p.Words).ToList();
        return (like.Count == 1 ? like[0] : like.FirstOrDefault(p => p.Words.Equals(typed, StringComparison.OrdinalIgnoreCase))) is { } port
            ? Step(from, port.At) with { To = port, Understood = $"ends on {port.Words}" }
            : new StepRead(from, "which of them?", null, next);
    }

    private static StepRead Step(Point3 from, Point3 at)
    {
        if (Far(at)) throw new QuantityFormatException(0, $"that leads farther than {FarthestM} m from the vehicle");
        double length = from.DistanceM(at);
        return new StepRead(at, Sentence.Of($"{Measure.Length(length)} on, to {Measure.Length(at.ZM)} above the floor").And(
            Math.Abs(at.ZM - from.ZM) < 5e-5 || length < 1e-6 ? ", level"
            : Sentence.Of($", {(at.ZM < from.ZM ? "falling" : "rising")} {Measure.Fall(Math.Abs(at.ZM - from.ZM) / length)}")), null, []);
    }

    private static double Under(Shell shell, Point3 at)
    {
        double floor = 0;
        foreach (var o in shell.Obstacles)
        {
            var far = o.Box.Far();
            if (at.XM >= o.Box.At.XM && at.XM <= far.XM && at.YM >= o.Box.At.YM && at.YM <= far.YM) floor = Math.Max(floor, far.ZM);
        }
        return floor;
    }

    // Words with the figure behind each, and where it stands; a figure before any word has none.
    private static IEnumerable<(string Word, string Figure, int Place)> Pieces(string text)
    {
        var words = Word().Matches(text);
        string before = text[..(words.Count > 0 ? words[0].Index : text.Length)].Trim(' ', ',');
        if (before.Length > 0) yield return ("", before, text.IndexOf(before, StringComparison.Ordinal));
        for (int i = 0; i < words.Count; i++)
        {
            int start = words[i].Index + words[i].Length, end = i + 1 < words.Count ? words[i + 1].Index : text.Length;
            string figure = text[start..end].Trim(' ', ',');
            yield return (words[i].Value.ToLowerInvariant(), figure, figure.Length == 0 ? words[i].Index
                : text.IndexOf(figure, start, StringComparison.Ordinal));
        }
    }

    [GeneratedRegex(@"\b(?!(?:mm|cm|in|ft|inch|inches|foot|feet|metre|metres|meter|meters|percent|per)\b)[A-Za-z]{2,}\b", RegexOptions.IgnoreCase)]
    private static partial Regex Word();

    [GeneratedRegex(@"[\s,]+")]
    private static partial Regex Splitter();
}
