namespace WarmConduit.Core.Heat;

/// <summary>An outer face in wind and under a sky: its surface, °C, and what leaves through it, W/m².</summary>
public readonly record struct OuterFaceAnswer(double SurfaceC, double HeatWPerM2);

/// <summary>What an outer face loses to the air around it and to the sky that it sees. Temperatures in °C; closed forms and one Newton search, O(1).</summary>
public static class OuterFace
{
    /// <summary>
    /// Temperature of a sky with <paramref name="cloud"/> (0 clear, 1 covered) over air of <paramref name="airC"/>: 0.0552 Ta^1.5 (K, Swinbank) when clear, the
    /// air's when covered, linear between.
    /// </summary>
    public static double SkyC(double airC, double cloud)
    {
        double air = airC + SurfaceCoefficient.ZeroC;
        return cloud * airC + (1 - cloud) * (0.0552 * Math.Pow(air, 1.5) - SurfaceCoefficient.ZeroC);
    }

    /// <summary>
    /// A face behind <paramref name="resistanceM2KPerW"/> from a zone of <paramref name="zoneC"/>: convection 4 + 4 v, radiation to the sky by its view of it
    /// (0..1) and to surroundings as warm as the air by the rest. Solved in full.
    /// </summary>
    public static OuterFaceAnswer Solve(double zoneC, double resistanceM2KPerW, double airC, double skyC, double skyView, double windMPerS, double emissivity)
    {
        double wind = 4 + 4 * windMPerS, es = emissivity * SurfaceCoefficient.StefanBoltzmann;
        double air4 = Fourth(airC), sky4 = Fourth(skyC), surface = airC;
        for (int i = 0; i < 30; i++)
        {
            double k = surface + SurfaceCoefficient.ZeroC;
            double gap = (zoneC - surface) / resistanceM2KPerW - wind * (surface - airC) - es * (Fourth(surface) - skyView * sky4 - (1 - skyView) * air4);
            double step = gap / (1 / resistanceM2KPerW + wind + 4 * es * k * k * k);
            surface += step;
            if (Math.Abs(step) < 1e-9) break;
        }
        return new OuterFaceAnswer(surface, (zoneC - surface) / resistanceM2KPerW);
    }

    /// <summary>
    /// How much colder than the air outdoors is to a face that sees the sky, K (never above 0): radiation 4 ε σ T³ · view · (air − sky), T the mean of air and
    /// sky, over the whole film 4 + 4 v + 4 ε σ T³. To be used with <see cref="SurfaceCoefficient.OuterWallWPerM2K"/>.
    /// </summary>
    public static double ShiftK(double airC, double skyC, double skyView, double windMPerS, double emissivity)
    {
        double t = (airC + skyC) / 2 + SurfaceCoefficient.ZeroC;
        double radiation = 4 * emissivity * SurfaceCoefficient.StefanBoltzmann * t * t * t;
        return -skyView * radiation * (airC - skyC) / SurfaceCoefficient.OuterWallWPerM2K(windMPerS, emissivity, airC);
    }

    private static double Fourth(double c)
    {
        double k = c + SurfaceCoefficient.ZeroC;
        return k * k * k * k;
    }
}
