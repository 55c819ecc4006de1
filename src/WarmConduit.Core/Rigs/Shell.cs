using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>What kind of room a zone is.</summary>
public enum ZoneKind
{
    /// <summary>Where people live.</summary>
    Living,

    /// <summary>Garage or bay.</summary>
    Garage,

    /// <summary>Cupboard.</summary>
    Cupboard,

    /// <summary>Cavity in a wall.</summary>
    WallCavity,

    /// <summary>Corner by a wheel arch.</summary>
    WheelArch,

    /// <summary>Hatch to the outside.</summary>
    Hatch,

    /// <summary>Boxed in under the floor.</summary>
    EnclosedUnderfloor,

    /// <summary>Under the floor, in the wind.</summary>
    OpenUnderfloor,
}

/// <summary>Where a face of a zone lies; it sets the surface resistance inside.</summary>
public enum FaceSide
{
    /// <summary>Roof: heat flows up.</summary>
    Roof,

    /// <summary>Wall, door or bulkhead.</summary>
    Wall,

    /// <summary>Floor: heat flows down.</summary>
    Floor,
}

/// <summary>A layer of a face: a solid of the catalogue and its thickness, m.</summary>
public sealed record FaceLayer(string Material, double ThicknessM);

/// <summary>
/// A face of a zone, layers from inside to outside. <paramref name="Towards"/> is another zone's id, or null for outdoors.
/// <paramref name="BridgeLayers"/> stand for <paramref name="BridgeFraction"/> of the area: ribs and pillars. Area in m².
/// </summary>
public sealed record Face(
    string Id, string Name, FaceSide Side, double AreaM2, IReadOnlyList<FaceLayer> Layers, double BridgeFraction, IReadOnlyList<FaceLayer> BridgeLayers, string? Towards = null) : IIdentified;

/// <summary>What heats a zone while heat is on: it holds <paramref name="SetpointC"/> with at most <paramref name="PowerW"/>.</summary>
public sealed record ZoneHeater(double PowerW, double SetpointC);

/// <summary>An opening to zone <paramref name="Towards"/>: a louvre, an open cupboard door. Area in m², height in m.</summary>
public sealed record Opening(string Id, string Towards, double AreaM2, double HeightM) : IIdentified;

/// <summary>
/// A room a pipe can be in. A place belongs to the smallest zone whose box holds it, and to outdoors when none does.
/// <paramref name="AirChangesPerHour"/> is leakage to outdoors.
/// </summary>
public sealed record Zone(
    string Id,
    string Name,
    ZoneKind Kind,
    Box Box,
    double AirChangesPerHour,
    IReadOnlyList<Face> Faces,
    IReadOnlyList<Opening> Openings,
    ZoneHeater? Heater = null) : IIdentified;

/// <summary>The vehicle's body: its box (load bay, metres), what gets in the way, its zones, where no joint may be, and where hands get in.</summary>
public sealed record Shell(
    Box Body, IReadOnlyList<Obstacle> Obstacles, IReadOnlyList<Zone> Zones, IReadOnlyList<KeepOut> KeepOuts, IReadOnlyList<Access> Access);

/// <summary>What kind of thing is in the way.</summary>
public enum ObstacleKind
{
    /// <summary>An arch over a wheel.</summary>
    WheelArch,

    /// <summary>Anything else.</summary>
    Other,
}

/// <summary>Something solid that runs must go around.</summary>
public sealed record Obstacle(string Id, string Name, ObstacleKind Kind, Box Box) : IIdentified;

/// <summary>Why joints keep out of a place.</summary>
public enum KeepOutKind
{
    /// <summary>Wiring, batteries, sockets.</summary>
    Electrics,

    /// <summary>A heater, its flue or its fuel.</summary>
    Heat,

    /// <summary>Edges and moving things that chafe.</summary>
    SharpMetal,

    /// <summary>Anything else.</summary>
    Other,
}

/// <summary>A box that joints keep out of.</summary>
public sealed record KeepOut(string Id, string Name, KeepOutKind Kind, Box Box) : IIdentified;

/// <summary>A box that both hands reach once the rig is built: behind a hatch, a door, a panel that comes off.</summary>
public sealed record Access(string Id, string Name, Box Box) : IIdentified;
