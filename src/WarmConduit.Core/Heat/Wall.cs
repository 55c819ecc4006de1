namespace WarmConduit.Core.Heat;

/// <summary>One layer of a wall: thickness in m, conductivity in W/mK.</summary>
public readonly record struct WallLayer(double ThicknessM, double ConductivityWPerMK)
{
    /// <summary>m²K/W.</summary>
    public double Resistance() => ThicknessM / ConductivityWPerMK;
}

/// <summary>Which way heat goes through the inner face; it sets the surface resistance there (ISO 6946).</summary>
public enum HeatFlow
{
    /// <summary>Through a roof: Rsi 0.10.</summary>
    Up,

    /// <summary>Through a wall: Rsi 0.13.</summary>
    Horizontal,

    /// <summary>Through a floor: Rsi 0.17.</summary>
    Down,
}

/// <summary>Transmittance of layered walls. Source: ISO 6946; metal that bridges counts as a parallel path (upper limit of conductance).</summary>
public static class Wall
{
    /// <summary>Surface resistance of an inner face, m²K/W.</summary>
    public static double InnerSurfaceM2KPerW(HeatFlow flow) => flow switch
    {
        HeatFlow.Up => 0.10,
        HeatFlow.Down => 0.17,
        _ => 0.13,
    };

    /// <summary>
    /// W/m²K of a wall with <paramref name="layers"/> from inside to outside, of which <paramref name="bridgeFraction"/> (0..1) of the area is
    /// <paramref name="bridge"/> instead. Surface resistances in m²K/W. O(layers).
    /// </summary>
    public static double TransmittanceWPerM2K(
        ReadOnlySpan<WallLayer> layers, ReadOnlySpan<WallLayer> bridge, double bridgeFraction, double innerSurface, double outerSurface)
    {
        double clear = 1 / (innerSurface + Sum(layers) + outerSurface);
        if (bridgeFraction <= 0) return clear;
        return (1 - bridgeFraction) * clear + bridgeFraction / (innerSurface + Sum(bridge) + outerSurface);
    }

    private static double Sum(ReadOnlySpan<WallLayer> layers)
    {
        double r = 0;
        foreach (var layer in layers) r += layer.Resistance();
        return r;
    }
}
