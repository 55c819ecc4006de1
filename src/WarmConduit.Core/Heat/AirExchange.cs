using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Heat;

/// <summary>Heat carried by air that comes and goes. W/K.</summary>
public static class AirExchange
{
    /// <summary>Density times heat capacity of air near 0 °C, J/m³K.</summary>
    public const double AirJPerM3K = Air.FreezingKgPerM3 * Air.HeatCapacityJPerKgK;

    private const double ByWind = 0.025;

    // What colder air below a lid gives to warmer air above. Estimate.
    private const double LyingStill = 0.05;

    /// <summary>Leakage: ρ cp n V/3600, n air changes an hour. O(1).</summary>
    public static double LeakageWPerK(double changesPerHour, double volumeM3) => AirJPerM3K * changesPerHour * volumeM3 / 3600;

    /// <summary>
    /// A tall opening between two zones: one-sided buoyant exchange V = Cd A/3 √(g H ΔT/T), Cd 0.6, for a difference <paramref name="dTK"/> around
    /// <paramref name="meanC"/>, and with it what a wind blows through, 0.025 A v (Warren 1977, one-sided), in quadrature. The conductance goes with √ΔT, so
    /// linearise it anew as the difference changes. Uncertain by a third. O(1).
    /// </summary>
    /// <remarks>
    /// One that lies flat, <paramref name="heightM"/> then its length: the same where what is below is the warmer of the two, next to nothing where it is the
    /// colder (<paramref name="still"/>).
    /// </remarks>
    public static double OpeningWPerK(double areaM2, double heightM, double dTK, double meanC, double windMPerS = 0, bool still = false)
    {
        double buoyant = (still ? LyingStill : 1) * 0.6 * areaM2 / 3 * Math.Sqrt(TradeConstants.GravityMPerS2 * heightM * Math.Abs(dTK) / (meanC
            + SurfaceCoefficient.ZeroC));
        return AirJPerM3K * (windMPerS > 0 ? double.Hypot(buoyant, ByWind * areaM2 * windMPerS) : buoyant);
    }
}
