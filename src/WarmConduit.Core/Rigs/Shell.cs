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

/// <summary>The position of a face; it sets the inside surface resistance.</summary>
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
/// <param name="Material">Id of a solid.</param>
/// <param name="ThicknessM">Thickness, m; 0 to 1.</param>
public sealed record FaceLayer(string Material, double ThicknessM);

/// <summary>
/// A face of a zone, layers from inside to outside. <paramref name="Towards"/> is another zone's id, or null for outdoors.
/// <paramref name="BridgeLayers"/> stand for <paramref name="BridgeFraction"/> of the area: ribs and pillars. Area in m².
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Side">Where it lies.</param>
/// <param name="AreaM2">Area, m²; 0 to 200.</param>
/// <param name="Layers">Layers from inside to outside; at most 12.</param>
/// <param name="BridgeFraction">Share of the area that is bridged, 0 to 1.</param>
/// <param name="BridgeLayers">Layers there.</param>
/// <param name="Towards">The zone behind it; left out: outdoors.</param>
/// <param name="Rearward">It faces the rear: driving, it gets half the wind; left out: it does not.</param>
public sealed record Face(
    string Id, string Name, FaceSide Side, double AreaM2, IReadOnlyList<FaceLayer> Layers, double BridgeFraction, IReadOnlyList<FaceLayer> BridgeLayers,
    string? Towards = null, bool? Rearward = null) : IIdentified;

/// <summary>A zone's heater while heat is on: keeps <paramref name="SetpointC"/> with at most <paramref name="PowerW"/>.</summary>
/// <param name="PowerW">Most it gives, W; 0 to 50,000.</param>
/// <param name="SetpointC">Its thermostat setting, °C; -20 to 40.</param>
/// <param name="Electric">It heats electrically; otherwise, and left out, it burns fuel and its fan runs on the battery.</param>
public sealed record ZoneHeater(double PowerW, double SetpointC, bool? Electric = null);

/// <summary>An opening to zone <paramref name="Towards"/>: a louvre, an open cupboard door. Area in m², height in m.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Towards">The zone behind it.</param>
/// <param name="AreaM2">Area, m²; 0 to 20.</param>
/// <param name="HeightM">Height, m; of one in a roof or floor its length. 0 to 5, and no more than either room has.</param>
/// <param name="Side">Where it lies in this room: in its roof the other room is above, in its floor below; left out: in a wall.</param>
public sealed record Opening(string Id, string Towards, double AreaM2, double HeightM, FaceSide? Side = null) : IIdentified
{
    /// <summary>1: the other room is above, -1: below, 0: beside.</summary>
    public int Above() => Side switch { FaceSide.Roof => 1, FaceSide.Floor => -1, _ => 0 };

    /// <summary>The highest it can be between two rooms, m.</summary>
    public double MostHeightM(Zone a, Zone b) => Above() == 0
        ? Math.Min(a.Box.Size.ZM, b.Box.Size.ZM)
        : Math.Min(Math.Max(a.Box.Size.XM, a.Box.Size.YM), Math.Max(b.Box.Size.XM, b.Box.Size.YM));
}

/// <summary>Heat exchanged with another room, as a share of that of its partitions and openings.</summary>
/// <param name="Id">The other room's id.</param>
/// <param name="Factor">The share, 0.02 to 50.</param>
public sealed record ExchangeFactor(string Id, double Factor) : IIdentified;

/// <summary>A room's calibration from a cold night. The split of its loss between walls and leakage stays as typed: both are scaled alike.</summary>
/// <param name="LossFactor">Its loss to outdoors, as a share of that of its faces and leakage, 0.02 to 50.</param>
/// <param name="LossDeviation">One standard deviation of that, as a share of it, 0 to 1.</param>
/// <param name="Exchange">Exchange with other rooms; left out: as typed.</param>
public sealed record ZoneMeasure(double LossFactor, double LossDeviation, IReadOnlyList<ExchangeFactor>? Exchange = null);

/// <summary>
/// A room a pipe can be in. A place belongs to the smallest zone whose box holds it, and to outdoors when none does.
/// <paramref name="AirChangesPerHour"/> is leakage to outdoors.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Kind">What kind of room it is.</param>
/// <param name="Box">Its box, m.</param>
/// <param name="AirChangesPerHour">Leakage to outdoors, air changes an hour; 0 to 1000.</param>
/// <param name="Faces">Its faces.</param>
/// <param name="Openings">Its openings to other zones.</param>
/// <param name="Heater">Its heater.</param>
/// <param name="HeatCapacityJPerK">Heat capacity of air, linings and furniture, J/K; 1,000 to 100,000,000; left out: estimated.</param>
/// <param name="Measured">Its calibration by thermometers; left out: none yet.</param>
public sealed record Zone(
    string Id,
    string Name,
    ZoneKind Kind,
    Box Box,
    double AirChangesPerHour,
    IReadOnlyList<Face> Faces,
    IReadOnlyList<Opening> Openings,
    ZoneHeater? Heater = null,
    double? HeatCapacityJPerK = null,
    ZoneMeasure? Measured = null) : IIdentified;

/// <summary>What is in front of the load bay of a vehicle.</summary>
public enum VehicleFront
{
    /// <summary>A cab behind a bonnet, as of a van.</summary>
    Bonnet,

    /// <summary>A cab over the engine, as of a coach or a lorry.</summary>
    FlatCab,

    /// <summary>A drawbar, as of a trailer.</summary>
    Drawbar,
}

/// <summary>The vehicle's body: its box (load bay, metres), what gets in the way, its zones, where no joint may be, and where hands get in.</summary>
/// <param name="Body">The load bay, m.</param>
/// <param name="Obstacles">Solids that runs go around.</param>
/// <param name="Zones">Rooms of air.</param>
/// <param name="KeepOuts">Where no joint may be.</param>
/// <param name="Access">Where hands get in.</param>
/// <param name="Axles">What carries it, as weighed; left out: not known yet.</param>
/// <param name="Photos">Pictures under the drawings, at most 12; left out: none.</param>
/// <param name="Front">What is in front of the load bay, for the drawings; left out: nothing is drawn there.</param>
public sealed record Shell(
    Box Body, IReadOnlyList<Obstacle> Obstacles, IReadOnlyList<Zone> Zones, IReadOnlyList<KeepOut> KeepOuts, IReadOnlyList<Access> Access, Axles? Axles = null,
    IReadOnlyList<Photo>? Photos = null, VehicleFront? Front = null)
{
    /// <summary>What lets hands in at <paramref name="place"/>; null where nothing does.</summary>
    public Access? AccessTo(Point3 place) => Access.FirstOrDefault(a => a.Box.Holds(place));
}

/// <summary>
/// What carries the vehicle, and what it weighs before the water system is in it. Of a trailer the coupling stands for the front axle; of a cabin its carrier's
/// axles are meant.
/// </summary>
/// <param name="FrontXM">Front axle, or coupling, along the vehicle, m; -30 to 30.</param>
/// <param name="WheelbaseM">From there back to the rear axle, m; 0.5 to 15.</param>
/// <param name="TrackM">Between the wheels of an axle, m; 0.5 to 3.</param>
/// <param name="FrontKg">On the front axle, empty, kg; 0 to 20,000.</param>
/// <param name="RearKg">On the rear axle, empty, kg; 0 to 20,000.</param>
/// <param name="FrontMostKg">Most the front axle may carry, kg; left out: not known.</param>
/// <param name="RearMostKg">Most the rear axle may carry, kg; left out: not known.</param>
/// <param name="TotalMostKg">Most in all, kg; left out: not known.</param>
/// <param name="OtherKg">Other load: people, furniture, gear, kg, in the middle of the body; 0 to 10,000.</param>
public sealed record Axles(
    double FrontXM, double WheelbaseM, double TrackM, double FrontKg, double RearKg, double? FrontMostKg = null, double? RearMostKg = null,
    double? TotalMostKg = null, double OtherKg = 0);

/// <summary>What kind of thing is in the way.</summary>
public enum ObstacleKind
{
    /// <summary>An arch over a wheel.</summary>
    WheelArch,

    /// <summary>Anything else.</summary>
    Other,
}

/// <summary>Something solid that runs must go around.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Box">Where it is, m.</param>
public sealed record Obstacle(string Id, string Name, ObstacleKind Kind, Box Box) : IIdentified;

/// <summary>Why a place is kept free of joints.</summary>
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
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Kind">Why joints are not allowed.</param>
/// <param name="Box">Where it is, m.</param>
public sealed record KeepOut(string Id, string Name, KeepOutKind Kind, Box Box) : IIdentified;

/// <summary>A box that both hands reach once the rig is built: behind a hatch, a door or a removable panel.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Box">Where it is, m.</param>
public sealed record Access(string Id, string Name, Box Box) : IIdentified;
