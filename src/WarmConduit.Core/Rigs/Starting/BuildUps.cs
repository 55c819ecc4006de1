namespace WarmConduit.Core.Rigs.Starting;

/// <summary>A ready-made build-up of a face. All are estimates.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Layers">From inside to outside.</param>
/// <param name="BridgeFraction">Share of the area that metal bridges.</param>
/// <param name="BridgeLayers">Layers there.</param>
public sealed record BuildUp(string Id, string Name, IReadOnlyList<FaceLayer> Layers, double BridgeFraction, IReadOnlyList<FaceLayer> BridgeLayers);

/// <summary>Ready build-ups for walls, roofs, floors and partitions.</summary>
public static class BuildUps
{
    private static FaceLayer Mm(string material, double mm) => new(material, mm / 1000);

    /// <summary>Bare sheet metal.</summary>
    public static readonly BuildUp BareMetal = new("bare-metal", "bare sheet metal", [Mm("steel", 1)], 0, []);

    /// <summary>A van's wall, insulated between its ribs and lined.</summary>
    public static readonly BuildUp VanWall = new(
        "van-wall", "van wall: lining, 25 mm foam, sheet metal", [Mm("plywood", 6), Mm("elastomer", 25), Mm("steel", 1)], 0.02,
        [Mm("plywood", 6), Mm("steel", 26)]);

    /// <summary>A van's roof.</summary>
    public static readonly BuildUp VanRoof = new(
        "van-roof", "van roof: lining, 32 mm foam, sheet metal", [Mm("plywood", 4), Mm("elastomer", 32), Mm("steel", 1)], 0.01,
        [Mm("plywood", 4), Mm("steel", 33)]);

    /// <summary>A floor on foam board over sheet metal.</summary>
    public static readonly BuildUp VanFloor = new("van-floor", "floor: 12 mm board, 30 mm foam board, sheet metal",
        [Mm("plywood", 12), Mm("xps", 30), Mm("steel", 1.2)], 0, []);

    /// <summary>A sandwich panel.</summary>
    public static readonly BuildUp Sandwich = new("sandwich", "sandwich panel 44 mm", [Mm("grp", 2), Mm("xps", 40), Mm("grp", 2)], 0.02,
        [Mm("grp", 2), Mm("plywood", 40), Mm("grp", 2)]);

    /// <summary>A floor of a sandwich body.</summary>
    public static readonly BuildUp SandwichFloor = new("sandwich-floor", "sandwich floor 60 mm", [Mm("plywood", 12), Mm("xps", 40), Mm("plywood", 8)], 0.05,
        [Mm("plywood", 60)]);

    /// <summary>A wall towards the cab.</summary>
    public static readonly BuildUp Bulkhead = new("bulkhead", "bulkhead: board, 20 mm foam board, sheet metal",
        [Mm("plywood", 9), Mm("xps", 20), Mm("steel", 1)], 0, []);

    /// <summary>A board between two rooms.</summary>
    public static readonly BuildUp Board = new("board", "board 12 mm", [Mm("plywood", 12)], 0, []);

    /// <summary>A thin plastic lid.</summary>
    public static readonly BuildUp Lid = new("lid", "plastic lid 4 mm", [Mm("grp", 4)], 0, []);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<BuildUp> All { get; } = [BareMetal, VanWall, VanRoof, VanFloor, Sandwich, SandwichFloor, Bulkhead, Board, Lid];
}
