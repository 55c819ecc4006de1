using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Layers of the rig as the heat engines see them.</summary>
internal static class Layered
{
    /// <summary>Of a face, from inside to outside.</summary>
    public static WallLayer[] Of(IReadOnlyList<FaceLayer> layers) => [.. layers.Select(l => Of(l.Material, l.ThicknessM))];

    /// <summary>Of a sleeve or jacket, from inside to outside; empty for none.</summary>
    public static WallLayer[] Of(Sleeve? sleeve) => [.. sleeve?.Layers().Where(l => l.ThicknessM > 0).Select(l => Of(l.Material, l.ThicknessM)) ?? []];

    private static WallLayer Of(string material, double thicknessM) => new(thicknessM, Catalogue.Solid(material)!.ConductivityAt(thicknessM));
}
