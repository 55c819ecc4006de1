namespace WarmConduit.Core.Heat;

/// <summary>A face of a tank: what it loses to the zone it looks at, or to the far side of a floor or wall it stands against.</summary>
public static class TankFace
{
    /// <summary>Surface coefficient of still water inside, W/m²K. Estimate.</summary>
    public const double WaterSideWPerM2K = 5;

    /// <summary>Conductivity of a moulded wall, W/mK. Estimate.</summary>
    public const double WallWPerMK = 0.4;

    /// <summary>
    /// W/m²K of a face with a plastic wall of <paramref name="wallM"/>, <paramref name="insulation"/> over it and <paramref name="outerSideWPerM2K"/>
    /// outside: 1/(1/5 + wall/0.4 + Σ d/k + 1/h). O(layers).
    /// </summary>
    public static double TransmittanceWPerM2K(double wallM, ReadOnlySpan<WallLayer> insulation, double outerSideWPerM2K)
    {
        double r = 1 / WaterSideWPerM2K + wallM / WallWPerMK + 1 / outerSideWPerM2K;
        foreach (var layer in insulation) r += layer.Resistance();
        return 1 / r;
    }

    /// <summary>W/m²K of a face that stands on a floor or against a wall: no air on it, but the floor's or wall's layers and the surface beyond.
    /// O(layers).</summary>
    public static double AgainstWPerM2K(double wallM, ReadOnlySpan<WallLayer> insulation, ReadOnlySpan<WallLayer> beyond, double beyondSideWPerM2K)
    {
        double r = 1 / TransmittanceWPerM2K(wallM, insulation, beyondSideWPerM2K);
        foreach (var layer in beyond) r += layer.Resistance();
        return 1 / r;
    }
}
