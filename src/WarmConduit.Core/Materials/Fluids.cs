namespace WarmConduit.Core.Materials;

/// <summary>Liquid water. Source: Choi and Okos, in ASHRAE Refrigeration, thermal properties of foods; 0 to 100 °C.</summary>
public static class Water
{
    /// <summary>Latent heat of freezing, J/kg.</summary>
    public const double LatentJPerKg = 333_600;

    /// <summary>Heat capacity near 0 °C as the freezing formulas take it, J/kgK: a round figure, within 0.6 % of the curve.</summary>
    public const double FreezingJPerKgK = 4200;

    /// <summary>Conductivity, W/mK, at <paramref name="c"/> °C.</summary>
    public static double ConductivityWPerMK(double c) => 0.57109 + c * (1.7625e-3 - c * 6.7036e-6);

    /// <summary>Heat capacity, J/kgK.</summary>
    public static double HeatCapacityJPerKgK(double c) => 4176.2 + c * (-0.090864 + c * 5.4731e-3);

    /// <summary>Density, kg/m³.</summary>
    public static double DensityKgPerM3(double c) => 997.18 + c * (3.1439e-3 - c * 3.7574e-3);

    /// <summary>Viscosity, Pa·s: 2.414e-5 · 10^(247.8/(T - 140)), T in K; within 2.5 % from 0 to 100 °C.</summary>
    public static double ViscosityPaS(double c) => 2.414e-5 * Math.Pow(10, 247.8 / (c + 273.15 - 140));
}

/// <summary>Ice. Source: Choi and Okos; -40 to 0 °C.</summary>
public static class Ice
{
    /// <summary>Conductivity near 0 °C as the freezing formulas take it, W/mK.</summary>
    public const double FreezingWPerMK = 2.22;

    /// <summary>Heat capacity near 0 °C likewise, J/kgK.</summary>
    public const double FreezingJPerKgK = 2060;

    /// <summary>Conductivity, W/mK, at <paramref name="c"/> °C.</summary>
    public static double ConductivityWPerMK(double c) => 2.2196 + c * (-6.2489e-3 + c * 1.0154e-4);

    /// <summary>Heat capacity, J/kgK.</summary>
    public static double HeatCapacityJPerKgK(double c) => 2062.3 + 6.0769 * c;

    /// <summary>Density, kg/m³.</summary>
    public static double DensityKgPerM3(double c) => 916.89 - 0.1307 * c;
}

/// <summary>Dry air at 101 325 Pa.</summary>
public static class Air
{
    /// <summary>Heat capacity, J/kgK, between -40 and 60 °C.</summary>
    public const double HeatCapacityJPerKgK = 1006;

    /// <summary>Density at 0 °C, kg/m³, for exchange and leakage.</summary>
    public const double FreezingKgPerM3 = 1.29;

    /// <summary>Density, kg/m³, at <paramref name="c"/> °C and <paramref name="pressurePa"/> absolute: ideal gas.</summary>
    public static double DensityKgPerM3(double c, double pressurePa = 101_325) => pressurePa / (287.05 * (c + 273.15));

    /// <summary>Viscosity, Pa·s: Sutherland, within 1 %.</summary>
    public static double ViscosityPaS(double c)
    {
        double t = c + 273.15;
        return 1.458e-6 * Math.Pow(t, 1.5) / (t + 110.4);
    }
}

/// <summary>Propylene glycol and water: x is the mass fraction of glycol, 0..0.6. Source: M. Conde, property models of brines; -30 to 100 °C.</summary>
public static class GlycolWater
{
    /// <summary>Density of pure propylene glycol at 20 °C, kg/m³.</summary>
    public const double PureKgPerM3 = 1036;

    // ASHRAE Fundamentals, secondary coolants: volume fraction and freezing point, °C.
    private static readonly (double Volume, double C)[] Freezing =
    [
        (0, 0), (0.048, -1.6), (0.096, -3.3), (0.145, -5.1), (0.194, -7.1), (0.244, -9.6), (0.294, -12.7), (0.344, -16.4), (0.396, -21.1),
        (0.447, -26.7), (0.499, -33.5), (0.55, -41.6), (0.60, -51.1),
    ];

    // As makers of heat-transfer fluids print it: above this no pipe bursts, though slush may block it. Estimate.
    private static readonly (double Volume, double C)[] Burst =
        [(0, 0), (0.12, -7), (0.20, -12), (0.24, -18), (0.28, -23), (0.30, -29), (0.33, -34), (0.35, -51)];

    /// <summary>Density, kg/m³, at <paramref name="c"/> °C.</summary>
    public static double DensityKgPerM3(double x, double c)
    {
        double t = 273.15 / (c + 273.15);
        return 508.411 - 182.408 * x + 965.765 * t + 280.291 * x * t - 472.225 * t * t;
    }

    /// <summary>Heat capacity, J/kgK.</summary>
    public static double HeatCapacityJPerKgK(double x, double c)
    {
        double t = 273.15 / (c + 273.15);
        return 1000 * (4.47642 + 0.60863 * x - 0.71497 * t - 1.93855 * x * t + 0.47873 * t * t);
    }

    /// <summary>Viscosity, Pa·s.</summary>
    public static double ViscosityPaS(double x, double c)
    {
        double t = 273.15 / (c + 273.15);
        return Math.Exp(-1.02798 - 10.03298 * x - 19.93497 * t + 14.65802 * x * t + 14.62050 * t * t);
    }

    /// <summary>Mass fraction of a mixture with <paramref name="volumeFraction"/> of glycol, both measured at 20 °C before mixing.</summary>
    public static double MassFraction(double volumeFraction)
    {
        double glycol = volumeFraction * PureKgPerM3, water = (1 - volumeFraction) * Water.DensityKgPerM3(20);
        return glycol / (glycol + water);
    }

    /// <summary>Freezing point, °C, by volume fraction: linear in the table, held at its ends. First crystals form here.</summary>
    public static double FreezingC(double volumeFraction) => Linear(Freezing, volumeFraction);

    /// <summary>
    /// Temperature, °C, down to which slush still gives way, so that nothing bursts. Reaches lower than <see cref="FreezingC"/> and is not to be mixed up
    /// with it: pumps and traps may be blocked long before. Estimate.
    /// </summary>
    public static double BurstProtectionC(double volumeFraction) => Math.Min(Linear(Burst, volumeFraction), FreezingC(volumeFraction));

    /// <summary>Volume fraction left when <paramref name="addedL"/> of fraction <paramref name="added"/> mixes with <paramref name="waterL"/> of
    /// water.</summary>
    public static double Diluted(double added, double addedL, double waterL) => addedL + waterL > 0 ? added * addedL / (addedL + waterL) : 0;

    private static double Linear((double Volume, double C)[] table, double v)
    {
        if (v <= table[0].Volume) return table[0].C;
        for (int i = 1; i < table.Length; i++)
        {
            if (v > table[i].Volume) continue;
            double f = (v - table[i - 1].Volume) / (table[i].Volume - table[i - 1].Volume);
            return table[i - 1].C + f * (table[i].C - table[i - 1].C);
        }
        return table[^1].C;
    }
}
