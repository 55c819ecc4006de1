using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>Zones laid out for finding the one that a place belongs to: the smallest that holds it.</summary>
internal sealed class ZonesBySize(IReadOnlyList<Zone> zones)
{
    private readonly Zone[] _zones = [.. zones.OrderBy(z => z.Box.VolumeM3())];

    /// <summary>The zone that holds <paramref name="place"/>, or null for outdoors. O(zones).</summary>
    public Zone? At(Point3 place)
    {
        foreach (var zone in _zones)
            if (zone.Box.Holds(place))
                return zone;
        return null;
    }
}
