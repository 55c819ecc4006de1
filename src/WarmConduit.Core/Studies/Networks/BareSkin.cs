using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Where a line lies against a skin without insulation: the air there is the skin's, not the room's.</summary>
internal static class BareSkin
{
    /// <summary>Nearer than a hand is thick there is no room air around it, m. Estimate.</summary>
    public const double NearM = 0.025;

    /// <summary>The share of a bare line's surface that looks at the skin. Estimate.</summary>
    public const double FacesShare = 0.5;

    // Less resistance than a finger of foam is none. Estimate.
    private const double BareM2KPerW = 0.15;

    private static readonly (Facing Facing, Point3 Out)[] Ways =
    [
        (Facing.Rear, new(-1, 0, 0)), (Facing.Forward, new(1, 0, 0)), (Facing.KerbSide, new(0, -1, 0)), (Facing.FarSide, new(0, 1, 0)), (Facing.Down, new(0, 0, -1)), (Facing.Up, new(0, 0, 1)),
    ];

    /// <summary>The way out of the skin that a straight length in a zone lies against; null where it lies against none.</summary>
    public static Point3? Of(Question question, Zone zone, Point3 a, Point3 b)
    {
        foreach (var (facing, outward) in Ways)
            if (Math.Max(FromSkin(zone.Box, a, outward), FromSkin(zone.Box, b, outward)) <= NearM && IsBare(question, zone, facing, a.Towards(b, 0.5), outward)) return outward;
        return null;
    }

    /// <summary>How far a place is from the side of a box that looks <paramref name="outward"/>, m.</summary>
    public static double FromSkin(Box box, Point3 p, Point3 outward)
    {
        var (low, high) = (box.At, box.Far());
        return outward switch
        {
            { XM: < 0 } => p.XM - low.XM,
            { XM: > 0 } => high.XM - p.XM,
            { YM: < 0 } => p.YM - low.YM,
            { YM: > 0 } => high.YM - p.YM,
            { ZM: < 0 } => p.ZM - low.ZM,
            _ => high.ZM - p.ZM,
        };
    }

    // Outdoors behind it, and a face that says what it is made of.
    private static bool IsBare(Question question, Zone zone, Facing facing, Point3 at, Point3 outward)
    {
        if (question.Index.ZoneAt(at + outward * (FromSkin(zone.Box, at, outward) + 0.02)) is not null) return false;
        var face = zone.Faces.Find(Skin.FaceId(Skin.Words(facing), null)) ?? zone.Faces.FirstOrDefault(f => f.Towards is null && f.Side == Skin.SideOf(facing));
        return face is { Layers.Count: > 0 } && face.Layers.Sum(l => l.ThicknessM / Catalogue.Solid(l.Material)!.ConductivityAt(l.ThicknessM)) < BareM2KPerW;
    }
}
