namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>What is turned until something is right that falls as it is turned: by the slope that the last turn showed.</summary>
internal sealed class Knob
{
    private double? _lastAt, _lastOff;

    public const double Most = 8;

    // So far over, a side that gives anything at all gives it.
    public const double Enough = 4;

    public double At { get; private set; }

    public bool Done { get; set; }

    public double Begin(double at) => At = Math.Clamp(at, -3, 3);

    public double Turn(double off, double least, double most)
    {
        double slope = _lastAt is { } at && Math.Abs(At - at) > 1e-9 ? (off - _lastOff!.Value) / (At - at) : -1;
        (_lastAt, _lastOff) = (At, off);
        double by = slope < -1e-3 ? -off / slope : off;
        return At = Math.Clamp(At + Math.Clamp(by, -2, 2), least, most);
    }
}
