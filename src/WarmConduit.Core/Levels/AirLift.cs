using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Levels;

/// <summary>What air does to the water in a riser.</summary>
public enum AirCarries
{
    /// <summary>It carries all of it up, but for a film.</summary>
    All,

    /// <summary>It pushes plugs up, and a thick film stays.</summary>
    Plugs,

    /// <summary>It bubbles through.</summary>
    Bubbles,

    /// <summary>No air gets there.</summary>
    None,
}

/// <summary>Air that carries water up a riser: the gas number of Wallis, j* = j √(ρ/(g D ρw)). Air is ideal and stays as warm as it is.</summary>
public static class AirLift
{
    /// <summary>From these numbers on air carries all, or pushes plugs.</summary>
    public const double CarriesAll = 0.9, PushesPlugs = 0.5;

    private const double GasJPerKgK = 287.05;

    /// <summary>Speed in a line, m/s, of air that is <paramref name="freeLPerMin"/> at the pressure outside, L/min. Bore above 0, m.</summary>
    public static double SpeedMPerS(double boreM, double freeLPerMin, double gaugeBar)
    {
        if (!(boreM > 0)) throw new ArgumentOutOfRangeException(nameof(boreM), "a line has a bore");
        return freeLPerMin / 60e3 * SmallSums.AtmosphereBar / (SmallSums.AtmosphereBar + gaugeBar) / (Math.PI / 4 * boreM * boreM);
    }

    /// <summary>The number j* of such air.</summary>
    public static double Number(double boreM, double freeLPerMin, double gaugeBar, double airC, double waterKgPerM3) =>
        SpeedMPerS(boreM, freeLPerMin, gaugeBar) * PerSpeed(boreM, gaugeBar, airC, waterKgPerM3);

    /// <summary>Free air, L/min, that has the number <paramref name="number"/> in a bore.</summary>
    public static double NeedsLPerMin(double boreM, double gaugeBar, double airC, double waterKgPerM3, double number = CarriesAll) =>
        number / PerSpeed(boreM, gaugeBar, airC, waterKgPerM3) / SpeedMPerS(boreM, 1, gaugeBar);

    /// <summary>What air of a number does.</summary>
    public static AirCarries Carries(double number) => number >= CarriesAll ? AirCarries.All : number >= PushesPlugs ? AirCarries.Plugs : AirCarries.Bubbles;

    /// <summary>Density of air under a gauge pressure, kg/m³.</summary>
    public static double DensityKgPerM3(double gaugeBar, double airC) => (SmallSums.AtmosphereBar + gaugeBar) * 1e5 / (GasJPerKgK * (airC + 273.15));

    private static double PerSpeed(double boreM, double gaugeBar, double airC, double waterKgPerM3) =>
        Math.Sqrt(DensityKgPerM3(gaugeBar, airC) / (TradeConstants.GravityMPerS2 * boreM * waterKgPerM3));
}
