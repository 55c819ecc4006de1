using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Night;

/// <summary>What a room holds of heat.</summary>
public static class ZoneCapacity
{
    // Beds, cupboards and what is in them, kJ/K for each m³ of room: some 20 kg of wood and cloth. Estimate.
    private const double FurnishedJPerKM3 = 30_000, StoredJPerKM3 = 12_000, InsulatingWPerMK = 0.1;

    /// <summary>
    /// Air, what stands in it, and the linings on the warm side of the first insulating layer of each face (ISO 13786: what lies behind it takes no part in an
    /// evening). J/K. Estimate, unless the zone says its own. <paramref name="volumeM3"/>: its air (<see cref="ZoneVolumes"/>).
    /// </summary>
    public static double JPerK(Zone zone, double volumeM3) => zone.HeatCapacityJPerK ?? AssumedJPerK(zone, volumeM3);

    /// <summary>The estimate, whatever the zone says itself.</summary>
    public static double AssumedJPerK(Zone zone, double volumeM3)
    {
        double things = zone.Kind switch
        {
            ZoneKind.Living => FurnishedJPerKM3,
            ZoneKind.Garage or ZoneKind.Cupboard => StoredJPerKM3,
            _ => 0,
        };
        return volumeM3 * (Air.FreezingKgPerM3 * Air.HeatCapacityJPerKgK + things) + zone.Faces.Sum(f => f.AreaM2 * LiningJPerM2K(f.Layers));
    }

    private static double LiningJPerM2K(IReadOnlyList<FaceLayer> layers)
    {
        double sum = 0;
        foreach (var layer in layers)
        {
            var solid = Catalogue.Solid(layer.Material)!;
            if (solid.ConductivityWPerMK < InsulatingWPerMK) break;
            sum += layer.ThicknessM * solid.DensityKgPerM3 * solid.JPerKgK;
        }
        return sum;
    }
}
