using System.Text.Json.Serialization;

namespace WarmConduit.Core.Geometry;

/// <summary>
/// A place in the vehicle's frame, metres: x forward from the rear of the load bay, y across from the kerb side, z up from the floor.
/// </summary>
/// <param name="XM">Forward from the rear of the load bay, m.</param>
/// <param name="YM">Across from the kerb side, m.</param>
/// <param name="ZM">Up from the floor, m.</param>
[method: JsonConstructor]
public readonly record struct Point3(
    [property: JsonPropertyName("xM")] double XM,
    [property: JsonPropertyName("yM")] double YM,
    [property: JsonPropertyName("zM")] double ZM)
{
    /// <summary>The vector sum, metres.</summary>
    public static Point3 operator +(Point3 a, Point3 b) => new(a.XM + b.XM, a.YM + b.YM, a.ZM + b.ZM);

    /// <summary>The vector difference, metres.</summary>
    public static Point3 operator -(Point3 a, Point3 b) => new(a.XM - b.XM, a.YM - b.YM, a.ZM - b.ZM);

    /// <summary>Each component times <paramref name="by"/>.</summary>
    public static Point3 operator *(Point3 a, double by) => new(a.XM * by, a.YM * by, a.ZM * by);

    /// <summary>Point at fraction <paramref name="t"/> (0..1) of the straight line from this point to <paramref name="other"/>.</summary>
    public Point3 Towards(Point3 other, double t) =>
        new(XM + (other.XM - XM) * t, YM + (other.YM - YM) * t, ZM + (other.ZM - ZM) * t);

    /// <summary>Where this point lies along the straight line from <paramref name="a"/> to <paramref name="b"/>, as a fraction of it, also beyond its ends; 0
    /// where the two are one.</summary>
    public double ShareAlong(Point3 a, Point3 b)
    {
        Point3 way = b - a, off = this - a;
        double square = way.XM * way.XM + way.YM * way.YM + way.ZM * way.ZM;
        return square > 0 ? (off.XM * way.XM + off.YM * way.YM + off.ZM * way.ZM) / square : 0;
    }

    /// <summary>Straight distance to <paramref name="other"/>, metres.</summary>
    public double DistanceM(Point3 other)
    {
        double dx = XM - other.XM, dy = YM - other.YM, dz = ZM - other.ZM;
        return Math.Sqrt(dx * dx + dy * dy + dz * dz);
    }
}
