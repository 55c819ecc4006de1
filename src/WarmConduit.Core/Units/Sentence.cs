using System.Runtime.CompilerServices;
using System.Text;

namespace WarmConduit.Core.Units;

/// <summary>A value with its kind, in the base unit of the quantity. A null value means "never" or "without limit".</summary>
/// <param name="Value">The value, in the base unit of the quantity.</param>
/// <param name="Quantity">What it measures.</param>
public sealed record Measure(double? Value, Quantity Quantity)
{
    /// <summary>Metres.</summary>
    public static Measure Length(double? metres) => new(metres, Quantity.Length);

    /// <summary>Litres.</summary>
    public static Measure Volume(double? litres) => new(litres, Quantity.Volume);

    /// <summary>°C.</summary>
    public static Measure Temperature(double? celsius) => new(celsius, Quantity.Temperature);

    /// <summary>Seconds.</summary>
    public static Measure Duration(double? seconds) => new(seconds, Quantity.Duration);

    /// <summary>Metres per metre.</summary>
    public static Measure Fall(double? metresPerMetre) => new(metresPerMetre, Quantity.Fall);

    /// <summary>Kilograms.</summary>
    public static Measure Mass(double? kilograms) => new(kilograms, Quantity.Mass);

    /// <summary>Pascal, gauge.</summary>
    public static Measure Pressure(double? pascal) => new(pascal, Quantity.Pressure);

    /// <summary>Watt-hours.</summary>
    public static Measure Energy(double? wattHours) => new(wattHours, Quantity.Energy);

    /// <summary>Watts.</summary>
    public static Measure Power(double? watts) => new(watts, Quantity.Power);

    /// <summary>L/min.</summary>
    public static Measure Flow(double? litresPerMinute) => new(litresPerMinute, Quantity.Flow);

    /// <summary>Kelvin between two temperatures.</summary>
    public static Measure Difference(double? kelvin) => new(kelvin, Quantity.TemperatureDifference);

    /// <summary>W/K.</summary>
    public static Measure Conductance(double? wattsPerKelvin) => new(wattsPerKelvin, Quantity.Conductance);
}

/// <summary>
/// A sentence with <c>{0}</c>, <c>{1}</c> … where the values go, so that they are written in the reader's units. A brace that means itself is doubled.
/// </summary>
/// <param name="Text">The words, with places for the values.</param>
/// <param name="Values">The values.</param>
public sealed record Sentence(string Text, IReadOnlyList<Measure> Values)
{
    /// <summary>A sentence without values; braces in it mean themselves.</summary>
    public static implicit operator Sentence(string text) => new(Plain(text), []);

    /// <summary>A sentence written as an interpolated string: measures become values, all else stands as it is.</summary>
    public static Sentence Of(SentenceHandler written) => written.Done();

    /// <summary>This sentence with <paramref name="other"/> after it.</summary>
    public Sentence And(Sentence other) =>
        new(Text + Shifted(other.Text, Values.Count), [.. Values, .. other.Values]);

    /// <summary>The sentence as it reads in <paramref name="system"/>.</summary>
    public string Print(UnitSystem system) =>
        Fill(n => n < Values.Count ? Values[n].Value is { } v ? QuantityText.Print(v, Values[n].Quantity, system) : "never" : "");

    internal static string Plain(string text) => text.Replace("{", "{{", StringComparison.Ordinal).Replace("}", "}}", StringComparison.Ordinal);

    private static string Shifted(string text, int by) => by == 0 ? text : new Sentence(text, []).Fill(n => $"{{{n + by}}}", keepBraces: true);

    private string Fill(Func<int, string> value, bool keepBraces = false)
    {
        var built = new StringBuilder();
        for (int i = 0; i < Text.Length; i++)
        {
            char c = Text[i];
            bool doubled = c is '{' or '}' && i + 1 < Text.Length && Text[i + 1] == c;
            if (doubled) built.Append(c, keepBraces ? 2 : 1);
            else if (c == '{' && Text.IndexOf('}', i) is var end and > 0 && int.TryParse(Text.AsSpan(i + 1, end - i - 1), out int n)) built.Append(value(n));
            else
            {
                built.Append(c);
                continue;
            }
            i = doubled ? i + 1 : Text.IndexOf('}', i);
        }
        return built.ToString();
    }
}

/// <summary>Collects an interpolated string into a <see cref="Sentence"/>.</summary>
[InterpolatedStringHandler]
public readonly ref struct SentenceHandler
{
    private readonly StringBuilder _text;
    private readonly List<Measure> _values = [];

    /// <summary>Called by the compiler.</summary>
    public SentenceHandler(int literalLength, int formattedCount) => _text = new StringBuilder(literalLength + 8 * formattedCount);

    /// <summary>Called by the compiler.</summary>
    public void AppendLiteral(string text) => _text.Append(Sentence.Plain(text));

    /// <summary>Called by the compiler.</summary>
    public void AppendFormatted(Measure value)
    {
        _text.Append('{').Append(_values.Count).Append('}');
        _values.Add(value);
    }

    /// <summary>Called by the compiler.</summary>
    public void AppendFormatted(string? text) => _text.Append(Sentence.Plain(text ?? ""));

    /// <summary>Called by the compiler.</summary>
    public void AppendFormatted(int number) => _text.Append(number);

    internal Sentence Done() => new(_text.ToString(), _values);
}
