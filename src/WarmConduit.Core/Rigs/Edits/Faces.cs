using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Starting;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Faces of zones from their boxes, keeping what was said of them.</summary>
internal static class Faces
{
    /// <summary>Below this a face is no more than a seam, m².</summary>
    private const double LeastM2 = 0.002;

    public static IReadOnlyList<Zone> Drawn(IReadOnlyList<Zone> zones, IReadOnlyList<string> which)
    {
        var wanted = which.Count == 0 ? zones.Select(z => z.Id).ToHashSet() : [.. which];
        var pieces = Skin.Of(zones);
        // Of a partition the smaller zone has the face: what a wanted zone meets is drawn along.
        foreach (var piece in pieces)
            if (piece.Towards is { } other && wanted.Contains(other) && which.Count > 0) wanted.Add(piece.ZoneId);
        var skin = pieces.Where(p => p.AreaM2 >= LeastM2).ToLookup(p => p.ZoneId);
        return [.. zones.Select(z => wanted.Contains(z.Id) ? z with { Faces = Of(zones, z, skin[z.Id]) } : z)];
    }

    private static IReadOnlyList<Face> Of(IReadOnlyList<Zone> zones, Zone zone, IEnumerable<SkinPiece> pieces)
    {
        var old = zone.Faces.ToList();
        var made = new List<Face>();
        foreach (var piece in pieces)
        {
            // What lies open in the wind has no walls of its own.
            if (zone.Kind == ZoneKind.OpenUnderfloor && piece.Towards is null) continue;
            string where = Skin.Words(piece.Facing), id = Skin.FaceId(where, piece.Towards);
            var side = Skin.SideOf(piece.Facing);
            var alike = old.Where(f => f.Side == side && f.Towards == piece.Towards).ToList();
            // A face under a name of its own stays it; one that is called by its way is that way's alone: a room that is moved to another wall has another
            // face, built up as this one.
            var own = alike.Where(f => !ByItsWay(f) && made.All(m => m.Id != f.Id)).ToList();
            if ((old.Find(f => f.Id == id) ?? own.Find(f => f.Name.Contains(where, StringComparison.Ordinal)) ?? own.FirstOrDefault()) is { } kept)
            {
                made.Add(kept with { AreaM2 = Math.Round(piece.AreaM2, 3) });
                continue;
            }
            var like = alike.Count > 0 ? (alike[0].Layers, alike[0].BridgeFraction, alike[0].BridgeLayers)
                : Like(zones, side, piece.Towards is null || Outside(zones, piece.Towards));
            string name = piece.Towards is { } other ? $"{where} towards {zones.Find(other)!.Name}" : where;
            made.Add(new Face(id, Words.Names.Cut(name, Words.Names.Longest), side, Math.Round(piece.AreaM2, 3), like.Layers, like.BridgeFraction,
                like.BridgeLayers, piece.Towards, piece.Towards is null && piece.Facing == Facing.Rear ? true : null));
        }
        return made.InOrder();
    }

    private static bool ByItsWay(Face face) => Enum.GetValues<Facing>().Any(f => face.Id == Skin.FaceId(Skin.Words(f), face.Towards));

    private static bool Outside(IReadOnlyList<Zone> zones, string id) => zones.Find(id)!.Kind is ZoneKind.OpenUnderfloor or ZoneKind.EnclosedUnderfloor;

    // As the largest face that looks the same way; else what vans usually have.
    private static (IReadOnlyList<FaceLayer> Layers, double BridgeFraction, IReadOnlyList<FaceLayer> BridgeLayers) Like(IReadOnlyList<Zone> zones,
        FaceSide side, bool outside)
    {
        var like = zones.SelectMany(z => z.Faces).Where(f => f.Side == side && (f.Towards is null || Outside(zones, f.Towards)) == outside)
            .MaxBy(f => f.AreaM2);
        if (like is not null) return (like.Layers, like.BridgeFraction, like.BridgeLayers);
        var usual = !outside ? BuildUps.Board : side switch { FaceSide.Roof => BuildUps.VanRoof, FaceSide.Floor => BuildUps.VanFloor, _ => BuildUps.VanWall };
        return (usual.Layers, usual.BridgeFraction, usual.BridgeLayers);
    }
}
