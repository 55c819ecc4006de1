namespace WarmConduit.Core.Levels;

/// <summary>Water that lies in the bottom of a straight round bore: circular segments, integrated along the pipe.</summary>
public static class BoreSegment
{
    // Antiderivative of the segment area, tabulated for a bore of diameter 1: depth 0..1 in equal steps, cubic Hermite between. Near floor and crown, where the
    // area goes with the power 3/2 of the depth, its series instead.
    private const int Steps = 512;
    private const double Shallow = 1.0 / 16;
    private static readonly double[] Table = BuildTable();

    /// <summary>Wetted cross-section, m², of a bore of <paramref name="diameterM"/> filled to <paramref name="depthM"/> (clamped to 0..diameter).</summary>
    public static double AreaM2(double diameterM, double depthM)
    {
        double u = Math.Clamp(depthM / diameterM, 0, 1);
        return diameterM * diameterM * UnitArea(u);
    }

    /// <summary>
    /// Water, m³, in a straight bore of <paramref name="lengthM"/> whose depth goes linearly from <paramref name="depthStartM"/> to
    /// <paramref name="depthEndM"/>. Depths outside 0..diameter are allowed and mean dry and full. Error below 1e-9 of the bore. O(1).
    /// </summary>
    public static double VolumeM3(double diameterM, double lengthM, double depthStartM, double depthEndM)
    {
        return diameterM * diameterM * lengthM * MeanUnitArea(depthStartM / diameterM, depthEndM / diameterM);
    }

    /// <summary>Mean wetted section of a bore of diameter 1 whose depth goes linearly from <paramref name="u1"/> to <paramref name="u2"/>.</summary>
    internal static double MeanUnitArea(double u1, double u2)
    {
        if (u1 <= 0 && u2 <= 0) return 0;
        if (u1 >= 1 && u2 >= 1) return Math.PI / 4;
        // What is empty under the crown is as what is full over the floor.
        if (Math.Min(u1, u2) > 1 - Shallow) return Math.PI / 4 - MeanUnitArea(1 - u1, 1 - u2);
        double du = u2 - u1;
        // Over a short range the difference of integrals is lost in rounding, but for the series; Simpson's rule is not.
        double least = Math.Max(u1, u2) < Shallow ? 1e-7 : 1e-3;
        double mean = Math.Abs(du) < least
            ? (UnitArea(u1) + 4 * UnitArea((u1 + u2) / 2) + UnitArea(u2)) / 6
            : (Integral(u2) - Integral(u1)) / du;
        return Math.Max(mean, 0);
    }

    private static double UnitArea(double u)
    {
        if (u <= 0) return 0;
        if (u >= 1) return Math.PI / 4;
        if (u < Shallow) return AreaSeries(u);
        if (u > 1 - Shallow) return Math.PI / 4 - AreaSeries(1 - u);
        return 0.25 * Math.Acos(1 - 2 * u) - (0.5 - u) * Math.Sqrt(u - u * u);
    }

    /// <summary>∫ of the unit segment area from 0 to u; beyond 1 the bore is full and it grows by π/4 a unit.</summary>
    internal static double Integral(double u)
    {
        if (u <= 0) return 0;
        if (u >= 1) return Table[2 * Steps] + (u - 1) * (Math.PI / 4);
        if (u < Shallow) return IntegralSeries(u);
        if (u > 1 - Shallow) return Table[2 * Steps] - (1 - u) * (Math.PI / 4) + IntegralSeries(1 - u);
        double s = u * Steps;
        int i = Math.Min((int)s, Steps - 1);
        double t = s - i, h = 1.0 / Steps;
        double y0 = Table[2 * i], d0 = Table[2 * i + 1] * h, y1 = Table[2 * i + 2], d1 = Table[2 * i + 3] * h;
        return y0 + t * (d0 + t * (3 * (y1 - y0) - 2 * d0 - d1 + t * (2 * (y0 - y1) + d0 + d1)));
    }

    // The width is 2 √(u - u²): its series integrated once and twice, to a rounding up to the depth where they are used.
    private static double AreaSeries(double u) =>
        u * Math.Sqrt(u) * (4.0 / 3 - u * (2.0 / 5 + u * (1.0 / 14 + u * (1.0 / 36 + u * (5.0 / 352 + u * (7.0 / 832 + u * (7.0 / 1280)))))));

    private static double IntegralSeries(double u) =>
        u * u * Math.Sqrt(u) * (8.0 / 15 - u * (4.0 / 35 + u * (1.0 / 63 + u * (1.0 / 198 + u * (5.0 / 2288 + u * (7.0 / 6240 + u * (7.0 / 10880)))))));

    private static double[] BuildTable()
    {
        // Value and slope side by side. With θ = acos(1-2u): ∫A du has the closed form below (u = (1-cos θ)/2, du = sin θ/2 dθ).
        var table = new double[2 * (Steps + 1)];
        for (int i = 0; i <= Steps; i++)
        {
            double u = (double)i / Steps, theta = Math.Acos(1 - 2 * u), s = Math.Sin(theta);
            table[2 * i] = 0.125 * (s - theta * Math.Cos(theta)) - s * s * s / 24;
            table[2 * i + 1] = UnitArea(u);
        }
        return table;
    }
}
