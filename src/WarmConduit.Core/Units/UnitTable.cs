namespace WarmConduit.Core.Units;

/// <summary>All units that are read and the rules by which values are printed. Factors: NIST SP 811 (exact where the unit is defined by SI).</summary>
public static class UnitTable
{
    /// <summary>One psi, Pa.</summary>
    internal const double PsiPa = 6894.757293168;

    private const double Inch = 0.0254, Foot = 0.3048, Gallon = 3.785411784, Btu = 0.29307107, Pound = 0.45359237, PoundForce = 4.4482216152605;

    /// <summary>Every unit.</summary>
    public static IReadOnlyList<Unit> Units { get; } =
    [
        U(Quantity.Length, "m", 1, "metre", "metres", "meter", "meters"),
        U(Quantity.Length, "mm", 0.001),
        U(Quantity.Length, "cm", 0.01),
        U(Quantity.Length, "in", Inch, "\"", "inch", "inches", "″"),
        U(Quantity.Length, "ft", Foot, "'", "foot", "feet", "′"),
        U(Quantity.Area, "m²", 1, "m2", "sqm"),
        U(Quantity.Area, "ft²", Foot * Foot, "ft2", "sqft"),
        U(Quantity.Volume, "L", 1, "l", "litre", "litres", "liter", "liters"),
        U(Quantity.Volume, "mL", 0.001, "ml"),
        U(Quantity.Volume, "m³", 1000, "m3"),
        U(Quantity.Volume, "gal", Gallon, "gallon", "gallons"),
        U(Quantity.Volume, "qt", Gallon / 4, "quart", "quarts"),
        U(Quantity.Volume, "fl oz", Gallon / 128, "floz", "oz"),
        U(Quantity.Mass, "kg", 1, "kilo", "kilos"),
        U(Quantity.Mass, "g", 0.001),
        U(Quantity.Mass, "lb", Pound, "lbs", "pound", "pounds"),
        U(Quantity.Temperature, "°C", 1, "c", "celsius", "deg c"),
        new(Quantity.Temperature, "°F", 5.0 / 9, -32, ["f", "fahrenheit", "deg f"]),
        new(Quantity.Temperature, "K", 1, -273.15, ["k", "kelvin"]),
        U(Quantity.TemperatureDifference, "K", 1, "k", "°c", "c"),
        U(Quantity.TemperatureDifference, "°F", 5.0 / 9, "f"),
        U(Quantity.Pressure, "bar", 1e5),
        U(Quantity.Pressure, "psi", PsiPa),
        U(Quantity.Pressure, "kPa", 1000, "kpa"),
        U(Quantity.Pressure, "Pa", 1, "pa"),
        U(Quantity.Flow, "L/min", 1, "l/min", "lpm"),
        U(Quantity.Flow, "gpm", Gallon, "gal/min"),
        U(Quantity.FuelRate, "L/h", 1, "l/h"),
        U(Quantity.FuelRate, "gal/h", Gallon, "gph"),
        U(Quantity.Speed, "m/s", 1),
        U(Quantity.Speed, "km/h", 1 / 3.6, "kph"),
        U(Quantity.Speed, "mph", 0.44704),
        U(Quantity.Power, "W", 1, "w", "watt", "watts"),
        U(Quantity.Power, "kW", 1000, "kw"),
        U(Quantity.Power, "Btu/h", Btu, "btu/h", "btuh"),
        U(Quantity.Energy, "Wh", 1, "wh"),
        U(Quantity.Energy, "kWh", 1000, "kwh"),
        U(Quantity.Conductance, "W/K", 1, "w/k"),
        U(Quantity.Conductance, "Btu/h°F", Btu * 9 / 5, "btu/hf", "btu/h°f"),
        U(Quantity.Transmittance, "W/m²K", 1, "w/m2k"),
        U(Quantity.Transmittance, "Btu/h ft²°F", 5.678263337, "btu/h ft2 f", "btu/hft2f"),
        U(Quantity.ThermalResistance, "m²K/W", 1, "m2k/w", "rsi"),
        U(Quantity.ThermalResistance, "R", 0.1761101838, "r", "h ft² °f/btu"),
        U(Quantity.Duration, "s", 1, "sec", "seconds"),
        U(Quantity.Duration, "min", 60, "minutes"),
        U(Quantity.Duration, "h", 3600, "hours", "hour", "hr"),
        U(Quantity.Duration, "d", 86400, "days", "day"),
        U(Quantity.Fall, "%", 0.01, "percent"),
        U(Quantity.Fall, "in/ft", 1.0 / 12, "in per ft"),
        U(Quantity.Slope, "mm/m", 0.001, "mm per m"),
        U(Quantity.Slope, "in/ft", 1.0 / 12, "in per ft"),
        U(Quantity.Share, "%", 0.01, "percent"),
        U(Quantity.Force, "N", 1, "n", "newton", "newtons"),
        U(Quantity.Force, "kN", 1000, "kn"),
        U(Quantity.Force, "lbf", PoundForce, "lb", "lbs"),
        U(Quantity.Angle, "°", 1, "deg", "degrees"),
        U(Quantity.Number, "", 1),
    ];

    /// <summary>How values are printed; of the rules for a quantity and system the first whose <see cref="PrintRule.Below"/> exceeds the value's size
    /// holds.</summary>
    public static IReadOnlyList<PrintRule> PrintRules { get; } =
    [
        .. Rules(Quantity.Length, UnitSystem.Metric, (1.9995, "mm", 0, 1), (9.995, "m", 2, 1), (Most, "m", 1, 1)),
        .. Rules(Quantity.Length, UnitSystem.UsCustomary, (4 * Foot, "in", 0, 16), (20 * Foot, "ft", 0, 16), (Most, "ft", 1, 1)),
        .. Rules(Quantity.Area, UnitSystem.Metric, (Most, "m²", 2, 1)),
        .. Rules(Quantity.Area, UnitSystem.UsCustomary, (Most, "ft²", 1, 1)),
        .. Rules(Quantity.Volume, UnitSystem.Metric, (0.9995, "mL", 0, 1), (9.995, "L", 2, 1), (99.95, "L", 1, 1), (Most, "L", 0, 1)),
        .. Rules(Quantity.Volume, UnitSystem.UsCustomary, (Gallon / 4, "fl oz", 1, 1), (9.995 * Gallon, "gal", 2, 1), (Most, "gal", 1, 1)),
        .. Rules(Quantity.Mass, UnitSystem.Metric, (99.95, "kg", 1, 1), (Most, "kg", 0, 1)),
        .. Rules(Quantity.Mass, UnitSystem.UsCustomary, (99.95 * Pound, "lb", 1, 1), (Most, "lb", 0, 1)),
        .. Rules(Quantity.Temperature, UnitSystem.Metric, (Most, "°C", 1, 1)),
        .. Rules(Quantity.Temperature, UnitSystem.UsCustomary, (Most, "°F", 0, 1)),
        .. Rules(Quantity.TemperatureDifference, UnitSystem.Metric, (Most, "K", 1, 1)),
        .. Rules(Quantity.TemperatureDifference, UnitSystem.UsCustomary, (Most, "°F", 1, 1)),
        .. Rules(Quantity.Pressure, UnitSystem.Metric, (Most, "bar", 2, 1)),
        .. Rules(Quantity.Pressure, UnitSystem.UsCustomary, (Most, "psi", 1, 1)),
        .. Rules(Quantity.Flow, UnitSystem.Metric, (Most, "L/min", 1, 1)),
        .. Rules(Quantity.Flow, UnitSystem.UsCustomary, (Most, "gpm", 2, 1)),
        .. Rules(Quantity.FuelRate, UnitSystem.Metric, (Most, "L/h", 2, 1)),
        .. Rules(Quantity.FuelRate, UnitSystem.UsCustomary, (Most, "gal/h", 3, 1)),
        .. Rules(Quantity.Speed, UnitSystem.Metric, (Most, "m/s", 1, 1)),
        .. Rules(Quantity.Speed, UnitSystem.UsCustomary, (Most, "mph", 0, 1)),
        .. Both(Quantity.Power, (Most, "W", 0, 1)),
        .. Both(Quantity.Energy, (999.5, "Wh", 0, 1), (Most, "kWh", 2, 1)),
        .. Rules(Quantity.Conductance, UnitSystem.Metric, (Most, "W/K", 2, 1)),
        .. Rules(Quantity.Conductance, UnitSystem.UsCustomary, (Most, "Btu/h°F", 2, 1)),
        .. Rules(Quantity.Transmittance, UnitSystem.Metric, (Most, "W/m²K", 2, 1)),
        .. Rules(Quantity.Transmittance, UnitSystem.UsCustomary, (Most, "Btu/h ft²°F", 3, 1)),
        .. Rules(Quantity.ThermalResistance, UnitSystem.Metric, (Most, "m²K/W", 2, 1)),
        .. Rules(Quantity.ThermalResistance, UnitSystem.UsCustomary, (Most, "R", 1, 1)),
        .. Both(Quantity.Duration, (5400, "min", 0, 1), (36 * 3600, "h", 1, 1), (Most, "d", 1, 1)),
        .. Both(Quantity.Share, (Most, "%", 0, 1)),
        .. Rules(Quantity.Force, UnitSystem.Metric, (1000, "N", 0, 1), (Most, "kN", 1, 1)),
        .. Rules(Quantity.Force, UnitSystem.UsCustomary, (Most, "lbf", 0, 1)),
        .. Both(Quantity.Fall, (Most, "%", 1, 1)),
        .. Rules(Quantity.Slope, UnitSystem.Metric, (Most, "mm/m", 0, 1)),
        .. Rules(Quantity.Slope, UnitSystem.UsCustomary, (Most, "in/ft", 2, 1)),
        .. Both(Quantity.Angle, (Most, "°", 1, 1)),
        .. Both(Quantity.Number, (Most, "", 2, 1)),
    ];

    private const double Most = 1e300;

    /// <summary>The unit in which a bare number of <paramref name="quantity"/> is read: that of the largest values printed, but mm and inches for
    /// lengths.</summary>
    public static Unit Bare(Quantity quantity, UnitSystem system)
    {
        string symbol = quantity == Quantity.Length
            ? system == UnitSystem.Metric ? "mm" : "in"
            : quantity == Quantity.Volume && system == UnitSystem.Metric ? "L"
            : PrintRules.Last(r => r.Quantity == quantity && r.System == system).Symbol;
        if (quantity == Quantity.Duration) symbol = "min";
        return Units.First(u => u.Quantity == quantity && u.Symbol == symbol);
    }

    private static Unit U(Quantity quantity, string symbol, double factor, params string[] spellings) => new(quantity, symbol, factor, 0, spellings);

    private static IEnumerable<PrintRule> Rules(Quantity quantity, UnitSystem system,
        params (double Below, string Symbol, int Decimals, int Denominator)[] rules)
    {
        foreach (var (below, symbol, decimals, denominator) in rules)
        {
            var unit = Units.First(u => u.Quantity == quantity && u.Symbol == symbol);
            yield return new PrintRule(quantity, system, below, symbol, unit.Factor, unit.Offset, decimals, denominator);
        }
    }

    private static IEnumerable<PrintRule> Both(Quantity quantity, params (double, string, int, int)[] rules) =>
        Rules(quantity, UnitSystem.Metric, rules).Concat(Rules(quantity, UnitSystem.UsCustomary, rules));
}
