using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>How full an upright box is when water inside stands level while the box is tilted with the vehicle.</summary>
public static class VesselSlice
{
    /// <summary>
    /// Fraction 0..1 of <paramref name="box"/> below the height over ground <paramref name="levelM"/> (metres; infinities allowed). The depth over the floor is
    /// a plane cut off at floor and lid, integrated in closed form: error below 1e-9. O(1).
    /// </summary>
    public static double FilledFraction(Box box, double levelM, Attitude attitude)
    {
        if (double.IsPositiveInfinity(levelM)) return 1;
        if (double.IsNegativeInfinity(levelM)) return 0;
        // In box heights: how much the floor rises along its two edges, and the water over its lowest corner.
        double along = Math.Abs(attitude.TanPitch() * box.Size.XM / box.Size.ZM), across = Math.Abs(attitude.TanRoll() * box.Size.YM / box.Size.ZM);
        double lowest = attitude.HeightM(box.Centre()) / box.Size.ZM - (1 + along + across) / 2, depth = levelM / box.Size.ZM - lowest;
        return Math.Clamp(Over(depth, along, across) - Over(depth - 1, along, across), 0, 1);
    }

    /// <summary>The height over ground, m, at which water stands that fills <paramref name="fraction"/> (0..1) of it. To a micrometre. O(1).</summary>
    public static double SurfaceM(Box box, double fraction, Attitude attitude)
    {
        double half = (box.Size.ZM + Math.Abs(attitude.TanPitch() * box.Size.XM) + Math.Abs(attitude.TanRoll() * box.Size.YM)) / 2,
            middle = attitude.HeightM(box.Centre());
        double low = middle - half, high = middle + half;
        while (high - low > 1e-6)
        {
            double at = (low + high) / 2;
            if (FilledFraction(box, at, attitude) < fraction) low = at;
            else high = at;
        }
        return high;
    }

    // ∫∫ max(0, u - a x - b y) over the unit square.
    private static double Over(double u, double a, double b)
    {
        if (a < b) (a, b) = (b, a);
        if (u <= 0) return 0;
        if (u >= a + b) return u - (a + b) / 2;
        // A rise so slight beside the other leaves nothing of the differences of cubes; its middle is as good.
        if (b < 1e-6 * a) return (Square(u - b / 2) - Square(u - b / 2 - a)) / (2 * a);
        return (Cube(u) - Cube(u - a) - Cube(u - b)) / (6 * a * b);
    }

    private static double Square(double x) => x > 0 ? x * x : 0;

    private static double Cube(double x) => x > 0 ? x * x * x : 0;
}
