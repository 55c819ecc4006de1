using System.Globalization;

namespace WarmConduit.Core.Units;

/// <summary>Text that is no quantity of the wanted kind. <see cref="Position"/> counts characters from 0.</summary>
public sealed class QuantityFormatException(int position, string reason) : FormatException(reason)
{
    /// <summary>Where reading stopped.</summary>
    public int Position { get; } = position;
}

/// <summary>Reads and prints quantities in either system: "3/8 in", "5 ft 3 1/2 in", "12 gal", "2 bar", "-4 F", "R-13", "13,5 mm".</summary>
public static class QuantityText
{
    /// <summary>
    /// Value of <paramref name="text"/> in the base unit of <paramref name="quantity"/>. A bare number has the unit of what stands <paramref name="beside"/> it
    /// ("mm", "0.30 m"), else the one usual in <paramref name="system"/>. Throws <see cref="QuantityFormatException"/> with the position and reason otherwise.
    /// Never returns NaN or an infinity. O(length).
    /// </summary>
    public static double Parse(string text, Quantity quantity, UnitSystem system, string? beside = null)
    {
        var reader = new Reader(text);
        reader.SkipSpace();
        if (reader.AtEnd) throw reader.Error("write a number");
        double value = quantity == Quantity.ThermalResistance && reader.TakeRValue(out double r) ? r * UnitOf(quantity, "R").Factor
            : Terms(reader, quantity, system, beside);
        reader.SkipSpace();
        if (!reader.AtEnd) throw reader.Error($"'{reader.Rest()}' doesn't belong here");
        if (!double.IsFinite(value)) throw reader.Error("the number is too large");
        return value;
    }

    /// <summary>Symbol of the unit that <paramref name="text"/> has behind its last number, or alone; null: none.</summary>
    public static string? UnitIn(string text, Quantity quantity)
    {
        var reader = new Reader(text);
        reader.SkipSpace();
        if (reader.AtEnd) return null;
        reader.TakeSign();
        if (reader.AtDigit) reader.TakeNumber();
        string? symbol = reader.AtEnd ? null : reader.TakeUnit(quantity)?.Symbol;
        reader.SkipSpace();
        if (symbol is null || !reader.AtDigit) return symbol;
        reader.TakeNumber();
        return reader.TakeUnit(quantity)?.Symbol ?? symbol;
    }

    /// <summary>
    /// <paramref name="value"/> (base unit) as it is shown in <paramref name="system"/>, with its unit; "never" for infinity. Reading it back gives the
    /// same print again.
    /// </summary>
    public static string Print(double value, Quantity quantity, UnitSystem system)
    {
        if (!double.IsFinite(value)) return "never";
        var rule = UnitTable.PrintRules.First(r => r.Quantity == quantity && r.System == system && Math.Abs(value) < r.Below);
        double written = value / rule.Factor - rule.Offset;
        if (rule.Denominator > 1 && rule.Symbol == "ft") return FeetAndInches(written, rule.Denominator);
        string number = rule.Denominator > 1 ? Fraction(written, rule.Denominator) : Decimal(written, rule.Decimals);
        // A count has no noughts behind its point.
        if (quantity == Quantity.Number) number = number.TrimEnd('0').TrimEnd('.');
        return rule.Symbol is "" ? number : rule.Symbol is "°" or "%" ? number + rule.Symbol : $"{number} {rule.Symbol}";
    }

    private static string Decimal(double value, int decimals)
    {
        string text = value.ToString("F" + decimals, CultureInfo.InvariantCulture);
        // No minus before a zero.
        if (text.StartsWith('-') && text.Trim('-', '0', '.').Length == 0) text = text[1..];
        return text.Replace('-', '−');
    }

    // As a tape is read: "9 ft 10 1/8 in"; no inches are told too, so that a bare number beside it is always of inches.
    private static string FeetAndInches(double feet, int denominator)
    {
        long parts = (long)Math.Round(Math.Abs(feet) * 12 * denominator);
        string inches = Fraction((double)(parts % (12 * denominator)) / denominator, denominator);
        return $"{(feet < 0 ? "−" : "")}{parts / (12 * denominator)} ft {inches} in";
    }

    private static string Fraction(double value, int denominator)
    {
        long parts = (long)Math.Round(Math.Abs(value) * denominator);
        long whole = parts / denominator, rest = parts % denominator;
        string sign = value < 0 && parts > 0 ? "−" : "";
        if (rest == 0) return sign + whole.ToString(CultureInfo.InvariantCulture);
        long bottom = denominator;
        while (rest % 2 == 0) (rest, bottom) = (rest / 2, bottom / 2);
        return whole > 0 ? $"{sign}{whole} {rest}/{bottom}" : $"{sign}{rest}/{bottom}";
    }

    // One or two terms: "5 ft 3 1/2 in".
    private static double Terms(Reader reader, Quantity quantity, UnitSystem system, string? beside)
    {
        bool negative = reader.TakeSign();
        double number = reader.TakeNumber();
        var unit = reader.TakeUnit(quantity);
        if (unit is null)
        {
            reader.SkipSpace();
            if (!reader.AtEnd) throw reader.Error($"'{reader.Rest()}' is not a unit of {Word(quantity)}");
            unit = beside is not null && UnitIn(beside, quantity) is { } symbol ? UnitOf(quantity, symbol) : UnitTable.Bare(quantity, system);
        }
        double value = ((negative ? -number : number) + unit.Offset) * unit.Factor;
        reader.SkipSpace();
        if (quantity == Quantity.Length && unit.Symbol == "ft" && reader.AtDigit)
        {
            double inches = reader.TakeNumber();
            var second = reader.TakeUnit(quantity);
            if (second is not null && second.Symbol != "in") throw reader.Error("inches go with feet");
            value += (negative ? -1 : 1) * inches * UnitOf(Quantity.Length, "in").Factor;
        }
        return value;
    }

    private static Unit UnitOf(Quantity quantity, string symbol) => UnitTable.Units.First(u => u.Quantity == quantity && u.Symbol == symbol);

    private static string Word(Quantity quantity) => quantity switch
    {
        Quantity.TemperatureDifference => "temperature difference",
        Quantity.ThermalResistance => "thermal resistance",
        _ => quantity.ToString().ToLowerInvariant(),
    };

    private sealed class Reader(string text)
    {
        private int _at;

        public bool AtEnd => _at >= text.Length;

        public bool AtDigit => !AtEnd && char.IsAsciiDigit(text[_at]);

        public string Rest() => text[_at..].Trim();

        public QuantityFormatException Error(string reason) => new(Math.Min(_at, text.Length), reason);

        public void SkipSpace()
        {
            while (!AtEnd && char.IsWhiteSpace(text[_at])) _at++;
        }

        public bool TakeSign()
        {
            if (AtEnd || text[_at] is not ('-' or '−' or '+')) return false;
            bool negative = text[_at++] != '+';
            SkipSpace();
            return negative;
        }

        /// <summary>"R-13", "R13": US thermal resistance, with its letter first.</summary>
        public bool TakeRValue(out double value)
        {
            value = 0;
            if (text[_at] is not ('R' or 'r') || _at + 1 >= text.Length || char.IsAsciiLetter(text[_at + 1])) return false;
            _at++;
            if (!AtEnd && text[_at] is '-' or '−' or ' ') _at++;
            value = TakeNumber();
            return true;
        }

        public double TakeNumber()
        {
            double first = TakeDecimal(out bool whole);
            if (!whole) return first;
            if (!AtEnd && text[_at] == '/') return first / TakeBottom();
            int back = _at;
            // "3 1/2" and, as tapes and lists have it, "3-1/2".
            bool joined = !AtEnd && text[_at] is '-' or '‐' or '–';
            if (joined) _at++;
            else SkipSpace();
            if (_at > back && AtDigit)
            {
                double top = TakeDecimal(out bool plain);
                if (plain && !AtEnd && text[_at] == '/') return first + top / TakeBottom();
            }
            _at = back;
            return first;
        }

        public Unit? TakeUnit(Quantity quantity)
        {
            SkipSpace();
            Unit? best = null;
            int longest = 0;
            foreach (var unit in UnitTable.Units)
            {
                if (unit.Quantity != quantity) continue;
                foreach (string name in (ReadOnlySpan<string>)[unit.Symbol, .. unit.Spellings])
                {
                    if (name.Length > longest && Fits(name, exact: name == unit.Symbol)) (best, longest) = (unit, name.Length);
                }
            }
            _at += longest;
            return best;
        }

        private bool Fits(string name, bool exact)
        {
            if (_at + name.Length > text.Length) return false;
            var comparison = exact ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase;
            if (!text.AsSpan(_at, name.Length).Equals(name, comparison)) return false;
            int after = _at + name.Length;
            return after >= text.Length || !char.IsLetter(name[^1]) || !(char.IsLetter(text[after]) || text[after] is '/' or '²' or '³');
        }

        private double TakeBottom()
        {
            _at++;
            int at = _at;
            double bottom = TakeDecimal(out bool whole);
            if (bottom != 0 && whole) return bottom;
            _at = at;
            throw Error("the bottom of a fraction is a whole number above 0");
        }

        private double TakeDecimal(out bool whole)
        {
            int start = _at;
            while (AtDigit) _at++;
            whole = true;
            if (!AtEnd && text[_at] is '.' or ',')
            {
                whole = false;
                int mark = _at++;
                while (AtDigit) _at++;
                if (text[mark] == ',' && _at - mark == 4 && mark > start && mark - start <= 3 && text[start] != '0')
                {
                    string said = text[start.._at];
                    _at = start;
                    throw Error($"'{said}' can be read as {said.Replace(",", "", StringComparison.Ordinal)} or as " +
                        $"{said.Replace(',', '.').TrimEnd('0').TrimEnd('.')}: write the one you mean");
                }
            }
            if (_at == start || (_at == start + 1 && !whole))
            {
                _at = start;
                throw Error("a number belongs here");
            }
            return double.Parse(text[start.._at].Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
        }
    }
}
