using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>Where the sensor of a pad's thermostat sits.</summary>
public enum PadSensorKind
{
    /// <summary>In the pad, which is warmer than what it lies on while it is on.</summary>
    InPad,

    /// <summary>In the air of the room in which the part is; outdoors, where it is in none.</summary>
    Room,

    /// <summary>On another part.</summary>
    Part,
}

/// <summary>The sensor of a pad's thermostat, where it does not sit on what the pad warms.</summary>
/// <param name="Kind">Where it sits.</param>
/// <param name="PartId">The other part; null for other kinds.</param>
public sealed record PadSensor(PadSensorKind Kind, string? PartId = null)
{
    /// <summary>In the air of the room, as where it came off what it sat on.</summary>
    public static readonly PadSensor InRoom = new(PadSensorKind.Room);
}

/// <summary>A heating pad or tape on a part, or an element in a calorifier, with a thermostat of its own.</summary>
/// <param name="PowerW">Power, W; 1 to 3000.</param>
/// <param name="OnC">It goes on below this, °C; 1 to 80. Nights count on no more than this.</param>
/// <param name="OffC">It goes off above this, °C; above <paramref name="OnC"/>, up to 85.</param>
/// <param name="Supply">What it runs on.</param>
/// <param name="AreaM2">Area that it covers, m²; 0.001 to 2. An element lies in the water, and has none that counts.</param>
/// <param name="Sensor">Where its thermostat measures; left out: on the part, clear of the pad. That of an element lies in the water.</param>
/// <param name="Side">The side of its part that it lies on; left out: underneath, or wrapped around it. Not on top, where there is air over the water.</param>
public sealed record Pad(double PowerW, double OnC, double OffC, ElectricSupply Supply, double AreaM2, PadSensor? Sensor = null, Facing? Side = null)
{
    // Between a pad and the water: 4 mm of plastic at 0.4 W/mK, and a film of 400 W/m²K. Estimate.
    private const double ThroughM2KPerW = 0.0125;

    /// <summary>Area that touches <paramref name="part"/>, m²: no more than the side on which it lies has.</summary>
    internal double TouchesM2(Part part) => Side is { } side ? Math.Min(AreaM2, part.SideM2(side)) : AreaM2;

    /// <summary>How much warmer a pad that is on is than the water under it, K.</summary>
    internal double OverK(Part part) => TouchesM2(part) is > 0 and var m2 ? PowerW / m2 * ThroughM2KPerW : 0;

    /// <summary>The most that a pad may give where it lies on plastic, W/m². Estimate.</summary>
    public const double MostOnPlasticWPerM2 = 1500;

    /// <summary>A pad as tanks usually get it. Estimate.</summary>
    public static readonly Pad Usual = new(40, 7, 18, ElectricSupply.Battery, 0.06);

    /// <summary>An element in a calorifier or storage heater. Estimate.</summary>
    public static readonly Pad UsualElement = new(800, 55, 60, ElectricSupply.Mains, 0.06);
}

/// <summary>How a trace line touches the water line along which it is taped.</summary>
public enum TraceKind
{
    /// <summary>Side by side, plain plastic.</summary>
    Plain,

    /// <summary>Under aluminium tape over its full length.</summary>
    AluminiumTape,

    /// <summary>Clipped into a plate that spreads the heat.</summary>
    SpreadingPlate,
}

/// <summary>Heating fluid taped along a water line.</summary>
/// <param name="Id">Id of the run with the water.</param>
/// <param name="Kind">How the two touch.</param>
/// <param name="Wrapped">A sleeve of the water line goes around both where they touch; left out: each has its own, and what there is of it lies between
/// them.</param>
public sealed record Trace(string Id, TraceKind Kind, bool? Wrapped = null) : IIdentified;
