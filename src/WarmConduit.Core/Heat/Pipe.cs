namespace WarmConduit.Core.Heat;

/// <summary>A pipe with or without insulation, per metre of length. Diameters and thickness in m, conductivities in W/mK.</summary>
public readonly record struct PipeSection(
    double InnerDiameterM,
    double OuterDiameterM,
    double PipeConductivityWPerMK,
    double InsulationThicknessM = 0,
    double InsulationConductivityWPerMK = 0.036,
    double Emissivity = 0.9)
{
    /// <summary>Diameter of the outermost surface, m.</summary>
    public double SurfaceDiameterM() => OuterDiameterM + 2 * InsulationThicknessM;

    /// <summary>
    /// The conductivity of one layer that holds as much as several around a diameter of <paramref name="innerM"/>, W/mK; layers from inside to outside, none of
    /// them of no thickness. Their resistances in series. O(layers).
    /// </summary>
    public static double AsOneLayer(double innerM, ReadOnlySpan<WallLayer> layers)
    {
        double d = innerM, sum = 0;
        foreach (var layer in layers)
        {
            sum += Math.Log(1 + (2 * layer.ThicknessM / d)) / layer.ConductivityWPerMK;
            d += 2 * layer.ThicknessM;
        }
        return Math.Log(d / innerM) / sum;
    }

    /// <summary>Resistance of pipe wall and insulation, without the surface coefficient outside, mK/W.</summary>
    public double WallResistanceMKPerW()
    {
        double wall = Math.Log(OuterDiameterM / InnerDiameterM) / (2 * Math.PI * PipeConductivityWPerMK);
        if (InsulationThicknessM > 0)
            wall += Math.Log(SurfaceDiameterM() / OuterDiameterM) / (2 * Math.PI * InsulationConductivityWPerMK);
        return wall;
    }
}

/// <summary>Steady loss of a water-filled pipe.</summary>
/// <param name="LossWPerM">Heat lost, W per metre; negative when the air is warmer.</param>
/// <param name="SurfaceC">Temperature of the outermost surface, °C.</param>
/// <param name="ConductanceWPerMK">Loss over (water - air), W/mK.</param>
public readonly record struct PipeLoss(double LossWPerM, double SurfaceC, double ConductanceWPerMK);

/// <summary>What pipes lose to air.</summary>
public static class PipeHeat
{
    /// <summary>
    /// Loss of <paramref name="pipe"/> filled with water at <paramref name="waterC"/> in air at <paramref name="airC"/> moving at
    /// <paramref name="airSpeedMPerS"/>: ISO 12241 coefficient on the outermost surface, its temperature iterated to 1e-9 K (at most 60 rounds). None inside.
    /// </summary>
    public static PipeLoss Steady(PipeSection pipe, double waterC, double airC, double airSpeedMPerS)
    {
        double wall = pipe.WallResistanceMKPerW(), d = pipe.SurfaceDiameterM();
        // At equal temperatures the ratio is still wanted: a thousandth of a kelvin stands in for the difference.
        double driving = Math.Abs(waterC - airC) < 1e-3 ? airC + 1e-3 : waterC;
        double surface = (driving + airC) / 2, outside = 0;
        for (int i = 0; i < 60; i++)
        {
            outside = 1 / (SurfaceCoefficient.CylinderWPerM2K(d, surface, airC, airSpeedMPerS, pipe.Emissivity) * Math.PI * d);
            double renewed = airC + (driving - airC) * outside / (outside + wall);
            if (Math.Abs(renewed - surface) < 1e-9) break;
            surface = renewed;
        }
        double conductance = 1 / (outside + wall);
        return new PipeLoss((waterC - airC) * conductance, surface, conductance);
    }
}
