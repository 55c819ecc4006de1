using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs.Starting;

/// <summary>A measure of a body that is typed, with its default and its limits, m.</summary>
/// <param name="Usual">At first.</param>
/// <param name="Least">Least.</param>
/// <param name="Most">Most.</param>
public sealed record BodyMeasure(double Usual, double Least, double Most);

/// <summary>A kind of body to begin with: generic, scaled by its inside length, width and height.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Words">What it has.</param>
/// <param name="Length">Inside length, m.</param>
/// <param name="Width">Inside width at the floor, m.</param>
/// <param name="Height">Inside height, m.</param>
public sealed record BodyKind(string Id, string Name, string Words, BodyMeasure Length, BodyMeasure Width, BodyMeasure Height);

/// <summary>Bodies to begin with.</summary>
public static class Bodies
{
    private const double ArchHeight = 0.3, UnderfloorHeight = 0.36;

    /// <summary>All of them.</summary>
    public static IReadOnlyList<BodyKind> All { get; } =
    [
        new("short-van", "Short panel van", "Sheet metal between ribs, rear doors, two arches; a garage under the bed.", new(2.7, 1.6, 3.2),
        new(1.7, 1.3, 2.1), new(1.5, 1.1, 2.2)),
        new("long-van", "Long panel van", "Sheet metal between ribs, rear doors, two arches; a garage under the bed.", new(3.7, 2.8, 5), new(1.75, 1.4, 2.2),
        new(1.9, 1.3, 2.3)),
        new("box-body", "Box body", "Sandwich panels on a chassis; a garage across the rear, the floor above the wheels.", new(4.4, 2.6, 7.5),
        new(2.1, 1.7, 2.45), new(2.1, 1.8, 2.5)),
        new("coach", "Coach", "A long body with arches at both axles and a luggage bay under its floor.", new(8.2, 5, 12), new(2.3, 2, 2.5),
        new(1.95, 1.8, 2.3)),
        new("trailer", "Trailer", "Sandwich panels, arches in the middle, a locker at the drawbar end.", new(4, 2.2, 7.5), new(2, 1.6, 2.45),
        new(1.95, 1.6, 2.3)),
        new("cabin", "Demountable cabin", "Sandwich panels on a carrier, no arches, nothing under its floor.", new(2.6, 1.8, 4), new(1.9, 1.5, 2.2),
        new(1.9, 1.6, 2.2)),
    ];

    /// <summary>The shell of a body of this kind and size, with zones, faces and estimated layers. Lengths in m, within the borders of the kind.</summary>
    public static Shell Make(BodyKind kind, double length, double width, double height, bool heated)
    {
        bool metal = kind.Id is "short-van" or "long-van" or "coach";
        var body = new Box(default, new Point3(length, width, height));
        var zones = new List<Zone>
        {
            Bare("living", "living space", ZoneKind.Living, body, metal ? 0.8 : 0.5) with { Heater = heated ? new ZoneHeater(2000, 18) : null },
            Bare("cupboard", "kitchen cupboard", ZoneKind.Cupboard, KitchenOf(kind, length, width, height), 0.3),
        };
        if (kind.Id is not "cabin")
            zones.Add(Bare("underfloor", "under the floor", ZoneKind.OpenUnderfloor,
            new Box(new Point3(0, 0, -UnderfloorHeight), new Point3(length, width, UnderfloorHeight)), 60));
        if (kind.Id is "short-van" or "long-van" or "box-body")
            zones.Add(Bare("garage", "garage", ZoneKind.Garage, new Box(default,
            new Point3(GarageLength(kind, length), width, Math.Min(0.75, height / 2))), 2));
        if (kind.Id == "coach")
            zones.Add(Bare("bay", "luggage bay", ZoneKind.EnclosedUnderfloor,
                new Box(new Point3(length * 0.42, 0.1, -UnderfloorHeight), new Point3(length * 0.22, width - 0.2, UnderfloorHeight)), 3));
        if (kind.Id == "trailer")
            zones.Add(Bare("locker", "drawbar locker", ZoneKind.Hatch, new Box(new Point3(length - 0.5, 0, 0), new Point3(0.5, width, 0.55)), 4));
        IReadOnlyList<Zone> made = zones.InOrder();
        made = WithFaces(made, piece => Face(kind, metal, made.Find(piece.ZoneId)!, piece));
        var living = made.Find("living")!;
        made = [.. made.Select(z => z.Id == "living" ? living with { Openings = [new Opening("cupboard-gap", "cupboard", 0.02, 0.4)] } : z)];
        VehicleFront? front = kind.Id switch
        {
            "short-van" or "long-van" => VehicleFront.Bonnet,
            "box-body" or "coach" => VehicleFront.FlatCab,
            "trailer" => VehicleFront.Drawbar,
            _ => null,
        };
        return new Shell(body, Arches(kind, length, width), made, [], [], Front: front);
    }

    /// <summary>Where the kitchen stands: on the far side, ahead of the garage.</summary>
    internal static Box KitchenOf(BodyKind kind, double length, double width, double height)
    {
        // Ahead of an arch, so that its drain leg has the floor.
        if (kind.Id is "coach" or "trailer")
            return new Box(new Point3(kind.Id == "coach" ? length * 0.22 + 1.05 : length * 0.42 + 0.85, width - 0.48, 0),
            new Point3(0.95, 0.48, Math.Min(0.86, height * 0.6)));
        double begin = Math.Min(length - 1.05, Math.Max(1.65, Math.Min(length * 0.58, GarageLength(kind, length) + 1.6)));
        return new Box(new Point3(Math.Max(0, begin), width - 0.48, 0), new Point3(0.95, 0.48, Math.Min(0.86, height * 0.6)));
    }

    /// <summary>Gives zones the faces that their boxes have; those that <paramref name="faceOf"/> leaves out are open.</summary>
    public static IReadOnlyList<Zone> WithFaces(IReadOnlyList<Zone> zones, Func<SkinPiece, Face?> faceOf)
    {
        var faces = Skin.Of(zones).Select(p => (p.ZoneId, Face: faceOf(p))).Where(p => p.Face is not null).ToLookup(p => p.ZoneId, p => p.Face!);
        return [.. zones.Select(z => z with { Faces = faces[z.Id].InOrder() })];
    }

    private static double GarageLength(BodyKind kind, double length) => kind.Id is "short-van" or "long-van" or "box-body"
        ? Math.Max(0.8, Math.Min(1.2, length * 0.26)) : 0.9;

    private static Zone Bare(string id, string name, ZoneKind kind, Box box, double changes) => new(id, name, kind, box, changes, [], []);

    private static Face? Face(BodyKind kind, bool metal, Zone zone, SkinPiece piece)
    {
        // What lies open in the wind has no walls of its own.
        if (zone.Kind == ZoneKind.OpenUnderfloor && piece.Towards is null) return null;
        bool outside = piece.Towards is null or "underfloor" or "bay";
        bool van = kind.Id is "short-van" or "long-van";
        var layers = piece switch
        {
            _ when zone.Id == "locker" && piece.Towards is null => BuildUps.Lid,
            _ when zone.Id is "bay" && piece.Facing != Facing.Up => BuildUps.BareMetal,
            _ when zone.Id is "bay" => BuildUps.VanFloor,
            { Facing: Facing.Down } when outside => metal ? BuildUps.VanFloor : BuildUps.SandwichFloor,
            // The zone under the floor is the smaller of the two at times: then its top is the floor.
            { Facing: Facing.Up, ZoneId: "underfloor" } => metal ? BuildUps.VanFloor : BuildUps.SandwichFloor,
            { Facing: Facing.Up, Towards: null } => metal ? BuildUps.VanRoof : BuildUps.Sandwich,
            { Facing: Facing.Forward, Towards: null } when van => BuildUps.Bulkhead,
            { Towards: null } => metal ? BuildUps.VanWall : BuildUps.Sandwich,
            _ => BuildUps.Board,
        };
        string where = piece switch
        {
            { Facing: Facing.Rear } when van => "rear doors",
            { Facing: Facing.Forward, Towards: null } when van => "bulkhead to the cab",
            _ => Skin.Words(piece.Facing),
        };
        string name = piece.Towards is null ? where : $"{(piece.Facing is Facing.Up or Facing.Down ? where : "board")} towards {piece.Towards}";
        return new Face(Skin.FaceId(where, piece.Towards), name, Skin.SideOf(piece.Facing), Math.Round(piece.AreaM2, 3), layers.Layers, layers.BridgeFraction,
            layers.BridgeLayers, piece.Towards);
    }

    private static List<Obstacle> Arches(BodyKind kind, double length, double width)
    {
        (double At, double Long, double Deep, double High)[] axles = kind.Id switch
        {
            "short-van" => [(Math.Max(0.95, length * 0.28), 0.8, 0.22, ArchHeight)],
            "long-van" => [(Math.Max(0.95, length * 0.28), 0.8, 0.22, ArchHeight)],
            "coach" => [(length * 0.22, 0.95, 0.3, 0.25), (length * 0.78, 0.95, 0.3, 0.25)],
            "trailer" => [(length * 0.42, 0.75, 0.22, 0.28)],
            _ => [],
        };
        var made = new List<Obstacle>();
        foreach (var (axle, n) in axles.Select((a, i) => (a, i + 1)))
        {
            string which = axles.Length == 1 ? "" : n == 1 ? ", rear" : ", front";
            made.Add(new($"arch-{n}-kerb", $"wheel arch, kerb side{which}", ObstacleKind.WheelArch,
                new Box(new Point3(axle.At, 0, 0), new Point3(axle.Long, axle.Deep, axle.High))));
            made.Add(new($"arch-{n}-far", $"wheel arch, far side{which}", ObstacleKind.WheelArch,
                new Box(new Point3(axle.At, width - axle.Deep, 0), new Point3(axle.Long, axle.Deep, axle.High))));
        }
        return made;
    }
}
