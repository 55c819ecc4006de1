using System.Text.Json.Serialization;

namespace WarmConduit.Core.Geometry;

/// <summary>An upright box: <paramref name="At"/> is its lowest, rearmost, kerb-side corner; <paramref name="Size"/> its three edges, metres.</summary>
/// <param name="At">Lowest, rearmost, kerb-side corner, m.</param>
/// <param name="Size">Its three edges, m; none below 0.</param>
[method: JsonConstructor]
public readonly record struct Box(Point3 At, Point3 Size)
{
    /// <summary>The corner opposite to <see cref="At"/>.</summary>
    public Point3 Far() => At + Size;

    /// <summary>The middle of the box.</summary>
    public Point3 Centre() => At.Towards(Far(), 0.5);

    /// <summary>Content, cubic metres.</summary>
    public double VolumeM3() => Size.XM * Size.YM * Size.ZM;

    /// <summary>True when <paramref name="p"/> lies in the box or on its skin (within a micrometre).</summary>
    public bool Holds(Point3 p)
    {
        const double eps = 1e-6;
        var far = Far();
        return p.XM >= At.XM - eps && p.YM >= At.YM - eps && p.ZM >= At.ZM - eps
            && p.XM <= far.XM + eps && p.YM <= far.YM + eps && p.ZM <= far.ZM + eps;
    }

    /// <summary>Whether this box and <paramref name="other"/> share more than a skin of <paramref name="skinM"/>.</summary>
    public bool Overlaps(Box other, double skinM = 0) =>
        Math.Min(Far().XM, other.Far().XM) - Math.Max(At.XM, other.At.XM) > skinM
        && Math.Min(Far().YM, other.Far().YM) - Math.Max(At.YM, other.At.YM) > skinM
        && Math.Min(Far().ZM, other.Far().ZM) - Math.Max(At.ZM, other.At.ZM) > skinM;

    /// <summary>What of this box lies in <paramref name="other"/>; null: nothing.</summary>
    public Box? Within(Box other)
    {
        var low = new Point3(Math.Max(At.XM, other.At.XM), Math.Max(At.YM, other.At.YM), Math.Max(At.ZM, other.At.ZM));
        var size = new Point3(Math.Min(Far().XM, other.Far().XM), Math.Min(Far().YM, other.Far().YM), Math.Min(Far().ZM, other.Far().ZM)) - low;
        return size is { XM: > 0, YM: > 0, ZM: > 0 } ? new Box(low, size) : null;
    }

    /// <summary>
    /// The share of the length from <paramref name="a"/> to <paramref name="b"/>, 0 to 1, that lies in the box with <paramref name="roomM"/> more on every side
    /// (below 0: less); null: none of it.
    /// </summary>
    public (double Enter, double Leave)? Through(Point3 a, Point3 b, double roomM = 0)
    {
        var far = Far();
        var (enter, leave) = (0.0, 1.0);
        return Slab(a.XM, b.XM, At.XM, far.XM) && Slab(a.YM, b.YM, At.YM, far.YM) && Slab(a.ZM, b.ZM, At.ZM, far.ZM) ? (enter, leave) : null;

        bool Slab(double from, double to, double low, double high)
        {
            (low, high) = (low - roomM, high + roomM);
            if (high <= low) return false;
            double d = to - from;
            if (Math.Abs(d) < 1e-12) return from > low && from < high;
            double first = (low - from) / d, second = (high - from) / d;
            (enter, leave) = (Math.Max(enter, Math.Min(first, second)), Math.Min(leave, Math.Max(first, second)));
            return enter < leave - 1e-9;
        }
    }

    /// <summary>Straight distance from <paramref name="p"/> to the box, metres; 0 inside.</summary>
    public double OutsideM(Point3 p)
    {
        static double Beyond(double at, double low, double high) => Math.Max(0, Math.Max(low - at, at - high));
        var far = Far();
        return new Point3(Beyond(p.XM, At.XM, far.XM), Beyond(p.YM, At.YM, far.YM), Beyond(p.ZM, At.ZM, far.ZM)).DistanceM(default);
    }
}
