namespace WarmConduit.Core.Geometry;

/// <summary>
/// The projection of a plane on another that takes four points to four: as a camera sees a wall. Exact for the four points; closed form of eight equations.
/// </summary>
public sealed class Homography
{
    private readonly double[] _h;

    private Homography(double[] h) => _h = h;

    /// <summary>
    /// From the unit square (0,0), (1,0), (1,1), (0,1) to four corners in that order. Null where three of them lie on a line: no wall is seen like that.
    /// </summary>
    public static Homography? FromUnitSquare(IReadOnlyList<(double X, double Y)> corners)
    {
        var ((x0, y0), (x1, y1), (x2, y2), (x3, y3)) = (corners[0], corners[1], corners[2], corners[3]);
        for (int i = 0; i < 4; i++)
        {
            var (a, b, c) = (corners[i], corners[(i + 1) % 4], corners[(i + 2) % 4]);
            // All turn the same way, and none is straight.
            if ((b.X - a.X) * (c.Y - b.Y) - (b.Y - a.Y) * (c.X - b.X) < 1e-9) return null;
        }
        double dx1 = x1 - x2, dx2 = x3 - x2, sx = x0 - x1 + x2 - x3, dy1 = y1 - y2, dy2 = y3 - y2, sy = y0 - y1 + y2 - y3, det = dx1 * dy2 - dx2 * dy1;
        double g = (sx * dy2 - dx2 * sy) / det, h = (dx1 * sy - sx * dy1) / det;
        return new Homography([x1 - x0 + g * x1, x3 - x0 + h * x3, x0, y1 - y0 + g * y1, y3 - y0 + h * y3, y0, g, h]);
    }

    /// <summary>Where a place goes; null where it lies behind the camera.</summary>
    public (double X, double Y)? At(double u, double v)
    {
        double w = _h[6] * u + _h[7] * v + 1;
        return w <= 1e-6 ? null : ((_h[0] * u + _h[1] * v + _h[2]) / w, (_h[3] * u + _h[4] * v + _h[5]) / w);
    }
}
