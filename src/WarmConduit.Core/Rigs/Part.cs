using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>How a valve, tap or drain stands once the draining procedure is done.</summary>
public enum ValveState
{
    /// <summary>Open.</summary>
    Open,

    /// <summary>Half open, so that no water is shut in the ball.</summary>
    HalfOpen,

    /// <summary>Closed, or forgotten.</summary>
    Closed,
}

/// <summary>A place where a run joins a part: the pipe's invert, as an offset in metres from the part's corner.</summary>
public sealed record Port(string Id, Point3 Offset);

/// <summary>
/// A part in its place. <paramref name="Stock"/> names a part of the catalogue; <paramref name="HoldsL"/> and <paramref name="LossWPerK"/> replace its
/// figures where the builder knows better. Of a tank, the content is that of its box unless <paramref name="HoldsL"/> says otherwise.
/// </summary>
public sealed record Part(
    string Id,
    string Name,
    string Stock,
    Box Box,
    IReadOnlyList<Port> Ports,
    ValveState WhenDrained = ValveState.Open,
    double? HoldsL = null,
    double? LossWPerK = null)
{
    /// <summary>Where port <paramref name="port"/> is in the vehicle, or null when the part has none of that name.</summary>
    public Point3? PortAt(string port)
    {
        foreach (var p in Ports)
            if (p.Id == port)
                return Box.At + p.Offset;
        return null;
    }
}
