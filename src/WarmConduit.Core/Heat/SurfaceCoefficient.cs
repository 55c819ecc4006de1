namespace WarmConduit.Core.Heat;

/// <summary>Heat between surfaces and air. Coefficients in W/m²K, temperatures in °C; closed forms, O(1), that check nothing.</summary>
public static class SurfaceCoefficient
{
    /// <summary>Stefan-Boltzmann constant, W/m²K⁴.</summary>
    public const double StefanBoltzmann = 5.670374419e-8;

    /// <summary>0 °C in kelvin.</summary>
    public const double ZeroC = 273.15;

    /// <summary>
    /// Cylinder of diameter <paramref name="diameterM"/> in air: the greater of free convection and cross wind at <paramref name="airSpeedMPerS"/>,
    /// plus radiation to surroundings at air temperature. Source: ISO 12241. Uncertain by some 15 %, and its two formulas for wind do not meet:
    /// where the second takes over the coefficient of a thin pipe falls by more than half. See <see cref="WorstWindMPerS"/>.
    /// </summary>
    public static double CylinderWPerM2K(double diameterM, double surfaceC, double airC, double airSpeedMPerS, double emissivity)
    {
        double wind = 0;
        if (airSpeedMPerS > 0)
        {
            wind = airSpeedMPerS * diameterM <= LaminarM2PerS ? Laminar(airSpeedMPerS, diameterM) : Turbulent(airSpeedMPerS, diameterM);
        }
        return Math.Max(StillCylinderWPerM2K(diameterM, surfaceC - airC), wind) + RadiationWPerM2K(surfaceC, airC, emissivity);
    }

    /// <summary>
    /// The air speed, m/s, up to <paramref name="airSpeedMPerS"/> at which a cylinder of <paramref name="diameterM"/> loses most by <see
    /// cref="CylinderWPerM2K"/>. Wind comes in gusts and lulls, so a loss that is to be on the safe side is reckoned with this one: it never falls as the wind
    /// rises.
    /// </summary>
    public static double WorstWindMPerS(double diameterM, double airSpeedMPerS)
    {
        // A hair under the border, so that rounding does not put it beyond.
        double border = LaminarM2PerS / diameterM * (1 - 1e-12);
        return airSpeedMPerS > border && Laminar(border, diameterM) > Turbulent(airSpeedMPerS, diameterM) ? border : airSpeedMPerS;
    }

    /// <summary>Free convection of a cylinder whose surface is <paramref name="differenceK"/> from the air. Source: ISO 12241.</summary>
    public static double StillCylinderWPerM2K(double diameterM, double differenceK)
    {
        double dT = Math.Abs(differenceK);
        return diameterM * diameterM * diameterM * dT <= 10 ? 1.25 * Math.Sqrt(Math.Sqrt(dT / diameterM)) : 1.21 * Math.Cbrt(dT);
    }

    /// <summary>What wind of up to <paramref name="airSpeedMPerS"/> takes from a cylinder at the worst (see <see cref="WorstWindMPerS"/>); 0 in still
    /// air.</summary>
    public static double WindOnCylinderWPerM2K(double diameterM, double airSpeedMPerS)
    {
        if (!(airSpeedMPerS > 0)) return 0;
        double border = LaminarM2PerS / diameterM * (1 - 1e-12);
        return airSpeedMPerS <= border ? Laminar(airSpeedMPerS, diameterM) : Math.Max(Laminar(border, diameterM), Turbulent(airSpeedMPerS, diameterM));
    }

    private const double LaminarM2PerS = 8.55e-3;

    private static double Laminar(double v, double d) => 8.1e-3 / d + 3.14 * Math.Sqrt(v / d);

    private static double Turbulent(double v, double d) => 8.9 * Math.Pow(v, 0.9) / Math.Pow(d, 0.1);

    /// <summary>Radiation between a small surface and surroundings at <paramref name="airC"/>: εσ(Ts² + Ta²)(Ts + Ta).</summary>
    public static double RadiationWPerM2K(double surfaceC, double airC, double emissivity)
    {
        double ts = surfaceC + ZeroC, ta = airC + ZeroC;
        return emissivity * StefanBoltzmann * (ts * ts + ta * ta) * (ts + ta);
    }

    /// <summary>Outer face of a wall in wind: 4 + 4 v + 4εσT³, T the mean outer temperature. Source: ISO 6946, annex.</summary>
    public static double OuterWallWPerM2K(double windMPerS, double emissivity, double meanOuterC)
    {
        double t = meanOuterC + ZeroC;
        return 4 + 4 * windMPerS + 4 * emissivity * StefanBoltzmann * t * t * t;
    }
}
