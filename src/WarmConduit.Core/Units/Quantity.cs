namespace WarmConduit.Core.Units;

/// <summary>What a number is a measure of. Inside, every value of a quantity has the one unit named here.</summary>
public enum Quantity
{
    /// <summary>Metres.</summary>
    Length,

    /// <summary>Square metres.</summary>
    Area,

    /// <summary>Litres.</summary>
    Volume,

    /// <summary>Kilograms.</summary>
    Mass,

    /// <summary>°C.</summary>
    Temperature,

    /// <summary>Kelvin between two temperatures.</summary>
    TemperatureDifference,

    /// <summary>Pascal, gauge.</summary>
    Pressure,

    /// <summary>Litres per minute.</summary>
    Flow,

    /// <summary>Fuel, litres per hour.</summary>
    FuelRate,

    /// <summary>Metres per second.</summary>
    Speed,

    /// <summary>Watts.</summary>
    Power,

    /// <summary>Watt-hours.</summary>
    Energy,

    /// <summary>Watts per kelvin.</summary>
    Conductance,

    /// <summary>W/m²K.</summary>
    Transmittance,

    /// <summary>m²K/W.</summary>
    ThermalResistance,

    /// <summary>Seconds.</summary>
    Duration,

    /// <summary>Metres per metre.</summary>
    Fall,

    /// <summary>Metres per metre, told as a rise over a length, as a folding rule shows it.</summary>
    Slope,

    /// <summary>Part of a whole, 0 to 1.</summary>
    Share,

    /// <summary>Newtons.</summary>
    Force,

    /// <summary>Degrees of arc.</summary>
    Angle,

    /// <summary>A plain number.</summary>
    Number,
}

/// <summary>The two systems people measure in.</summary>
public enum UnitSystem
{
    /// <summary>mm, L, °C, bar.</summary>
    Metric,

    /// <summary>Inch, US gallon, °F, psi.</summary>
    UsCustomary,
}

/// <summary>
/// A unit: value in base = (written + <paramref name="Offset"/>) × <paramref name="Factor"/>. <paramref name="Symbol"/> is how it is printed,
/// <paramref name="Spellings"/> what else is read (lower case).
/// </summary>
public sealed record Unit(Quantity Quantity, string Symbol, double Factor, double Offset, IReadOnlyList<string> Spellings);

/// <summary>
/// How values up to <paramref name="Below"/> (in the base unit, by size) are printed in a system: with <paramref name="Decimals"/> digits, or as a fraction
/// of <paramref name="Denominator"/> when that is above 1.
/// </summary>
/// <param name="Quantity">The kind of quantity.</param>
/// <param name="System">The system of units.</param>
/// <param name="Below">Up to this size, in the base unit.</param>
/// <param name="Symbol">Unit as printed.</param>
/// <param name="Factor">Printed value = (value - offset) / factor.</param>
/// <param name="Offset">See the factor.</param>
/// <param name="Decimals">Digits after the point.</param>
/// <param name="Denominator">Above 1: printed as a fraction of this; of feet, as feet and inches with such a fraction.</param>
public sealed record PrintRule(Quantity Quantity, UnitSystem System, double Below, string Symbol, double Factor, double Offset, int Decimals,
    int Denominator = 1);
