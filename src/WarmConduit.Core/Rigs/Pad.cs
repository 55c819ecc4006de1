namespace WarmConduit.Core.Rigs;

/// <summary>What a heating pad runs on.</summary>
public enum PadSupply
{
    /// <summary>The vehicle's battery.</summary>
    Battery,

    /// <summary>Mains: it warms only while the vehicle is plugged in.</summary>
    Mains,
}

/// <summary>A heating pad or tape on a part, with a thermostat of its own on that part.</summary>
/// <param name="PowerW">Power, W; 1 to 500.</param>
/// <param name="OnC">It goes on below this, °C; 1 to 30. Nights count on no more than this.</param>
/// <param name="OffC">It goes off above this, °C; above <paramref name="OnC"/>, up to 60.</param>
/// <param name="Supply">What it runs on.</param>
/// <param name="AreaM2">Area that it covers, m²; 0.001 to 2.</param>
public sealed record Pad(double PowerW, double OnC, double OffC, PadSupply Supply, double AreaM2)
{
    /// <summary>The most that a pad may give where it lies on plastic, W/m². Estimate.</summary>
    public const double MostOnPlasticWPerM2 = 1500;

    /// <summary>A pad as tanks usually get it. Estimate.</summary>
    public static readonly Pad Usual = new(40, 7, 18, PadSupply.Battery, 0.06);
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
public sealed record Trace(string Id, TraceKind Kind) : IIdentified;
