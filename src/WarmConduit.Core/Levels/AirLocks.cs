using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>Air caught at the humps of lines that should be full: coolant, suction. The levels of water, upside down.</summary>
public static class AirLocks
{
    /// <summary>
    /// Air that stays in <paramref name="network"/> when it is filled, with <paramref name="network"/>'s drains taken as bleeds and open tops. The answer
    /// speaks of the mirrored network: heights are minus heights of the crown, "pools" are air, a pool's lowest point is the top of the hump where a bleed
    /// belongs. O(points · log points).
    /// </summary>
    public static LevelAnswer Solve(LevelNetwork network, Attitude attitude)
    {
        Point3 Mirror(Point3 p, double crown) => new(p.XM, p.YM, -p.ZM - crown);
        // A node has one crown: that of the widest bore that meets there.
        var crown = new Dictionary<string, double>();
        foreach (var e in network.Edges)
            foreach (string end in (ReadOnlySpan<string>)[e.From, e.To]) crown[end] = Math.Max(crown.GetValueOrDefault(end), e.InnerDiameterM);
        var mirrored = network with
        {
            Nodes = [.. network.Nodes.Select(n => n with { At = Mirror(n.At, crown.GetValueOrDefault(n.Id)) })],
            Edges = [.. network.Edges.Select(e => e with { Via = [.. e.Via.Select(v => Mirror(v, e.InnerDiameterM))] })],
            Vessels = [.. network.Vessels.Select(v => v with { Box = v.Box with { At = new Point3(v.Box.At.XM, v.Box.At.YM, -v.Box.Far().ZM) } })],
        };
        return Draining.Solve(mirrored, new Attitude(-attitude.PitchDeg, -attitude.RollDeg));
    }
}
