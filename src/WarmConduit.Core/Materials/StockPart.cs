using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Materials;

/// <summary>How water and air get through a part.</summary>
public enum Passage
{
    /// <summary>Both ways between all its ports.</summary>
    Through,

    /// <summary>As its position says, both ways.</summary>
    Valve,

    /// <summary>From port "in" to port "out" only.</summary>
    OneWay,

    /// <summary>Not at all while it rests; from port "in" to port "out" when it runs.</summary>
    Pump,

    /// <summary>Between all ports when open; port "spout" is then open to air.</summary>
    Mixer,

    /// <summary>A vessel: water inside stands level and leaves over its lowest free port.</summary>
    Vessel,

    /// <summary>One port and nothing behind it.</summary>
    DeadEnd,

    /// <summary>A cock at the end of a line: open to air when open.</summary>
    Drain,

    /// <summary>Always open to air: a vent's end, a waste outlet, a fill spout.</summary>
    OpenEnd,
}

/// <summary>What ice does to a part.</summary>
public enum IceBreaks
{
    /// <summary>It survives.</summary>
    No,

    /// <summary>Any ice breaks it.</summary>
    Yes,

    /// <summary>Ice breaks it when it is full.</summary>
    WhenFull,
}

/// <summary>How a part is drawn.</summary>
public enum PartLook
{
    /// <summary>A body of its own size.</summary>
    Body,

    /// <summary>A body that is round about its longest edge.</summary>
    Cylinder,

    /// <summary>A body that is open at the top.</summary>
    Bowl,

    /// <summary>A joint: a dot where pipes meet.</summary>
    Joint,

    /// <summary>An end that is open to air.</summary>
    OpenEnd,

    /// <summary>A drain.</summary>
    Drain,
}

/// <summary>The group of a part in the catalogue.</summary>
public enum PartGroup
{
    /// <summary>Tanks and what belongs to them.</summary>
    Store,

    /// <summary>Filling.</summary>
    Fill,

    /// <summary>Pumps, and what evens their pressure out.</summary>
    Move,

    /// <summary>Strainers and filters.</summary>
    Clean,

    /// <summary>Hot water and heating fluid.</summary>
    Heat,

    /// <summary>Taps, showers, appliances.</summary>
    Use,

    /// <summary>Basins, traps and grey tanks.</summary>
    Waste,

    /// <summary>Emptying.</summary>
    Drain,

    /// <summary>Air to and from tanks and pipes.</summary>
    Vent,

    /// <summary>What opens and shuts.</summary>
    Valves,

    /// <summary>What joins pipe to pipe.</summary>
    Joints,
}

/// <summary>The direction a port faces: along an axis of the vehicle (x forward, y away from the kerb, z up).</summary>
public enum Facing
{
    /// <summary>Towards the cab.</summary>
    Forward,

    /// <summary>Towards the rear.</summary>
    Rear,

    /// <summary>Away from the kerb.</summary>
    FarSide,

    /// <summary>Towards the kerb.</summary>
    KerbSide,

    /// <summary>Up.</summary>
    Up,

    /// <summary>Down.</summary>
    Down,
}

/// <summary>What a port is for.</summary>
public enum PortRole
{
    /// <summary>Water comes in, or goes either way.</summary>
    Inlet,

    /// <summary>Water goes out.</summary>
    Outlet,

    /// <summary>Cold water.</summary>
    Cold,

    /// <summary>Hot water.</summary>
    Hot,

    /// <summary>Open to air when the tap is.</summary>
    Spout,

    /// <summary>Filling.</summary>
    Fill,

    /// <summary>Air.</summary>
    Vent,

    /// <summary>Emptying.</summary>
    Drain,

    /// <summary>Waste water.</summary>
    Waste,

    /// <summary>Heating fluid.</summary>
    Coolant,
}

/// <summary>A port as stock has it: the invert as an offset from the part's corner, the way it faces, its bore in m, what it is for.</summary>
/// <param name="Id">Id, unique in the part.</param>
/// <param name="Offset">Its invert from the part's corner, m.</param>
/// <param name="Facing">The way it faces.</param>
/// <param name="BoreM">Bore, m.</param>
/// <param name="Role">What it is for.</param>
public sealed record StockPort(string Id, Point3 Offset, Facing Facing, double BoreM, PortRole Role);

/// <summary>
/// A position that a valve, tap or pump can be left in. <paramref name="Passes"/>: water gets through. <paramref name="Joins"/> lists the groups of
/// ports that are then joined; null for all of them.
/// </summary>
/// <param name="Id">Id, unique in the part.</param>
/// <param name="Name">In words.</param>
/// <param name="Passes">Water gets through.</param>
/// <param name="Joins">Groups of ports that are joined; null: all of them.</param>
public sealed record StockPosition(string Id, string Name, bool Passes, IReadOnlyList<IReadOnlyList<string>>? Joins = null);

/// <summary>Ids of the common positions.</summary>
public static class Positions
{
    /// <summary>Open.</summary>
    public const string Open = "open";

    /// <summary>Half open, so that no water is shut in the ball.</summary>
    public const string HalfOpen = "half-open";

    /// <summary>Closed.</summary>
    public const string Closed = "closed";

    /// <summary>Running.</summary>
    public const string On = "on";

    /// <summary>At rest.</summary>
    public const string Off = "off";
}

/// <summary>A part from stock. Every figure is an estimate that a rig may replace with its own.</summary>
/// <param name="Id">Name used in rig files.</param>
/// <param name="Name">Name shown.</param>
/// <param name="Group">Its group in the catalogue.</param>
/// <param name="HoldsL">Water held, litres.</param>
/// <param name="LossWPerK">Loss to the air of its zone, W/K.</param>
/// <param name="Passage">How water and air pass.</param>
/// <param name="KeepsWater">Keeps its water after draining, by design.</param>
/// <param name="Remedy">What empties or protects it, when it keeps its water.</param>
/// <param name="Protects">Its remedy leaves the water in it, protected from frost.</param>
/// <param name="IceBreaks">What ice does to it.</param>
/// <param name="RatedBar">Rated pressure; null where none applies.</param>
/// <param name="OutdoorShare">Part of the loss that goes straight outdoors, 0..1.</param>
/// <param name="UsualShare">How full a tank is assumed at the start of a night, 0..1; 1 for all that is always full.</param>
/// <param name="Look">How it is drawn.</param>
/// <param name="Landmark">Builders look for it first, so its name is shown even when zoomed out.</param>
/// <param name="Size">Its edges, m.</param>
/// <param name="Ports">Its ports.</param>
/// <param name="MassKg">Its mass when empty.</param>
/// <param name="Positions">The positions it can be left in; none for what cannot be set.</param>
/// <param name="Source">Where the values come from, or "estimate".</param>
/// <param name="Caution">A caution; null: none beyond common care.</param>
/// <param name="Flow">What it does to water that flows through it; null: no more than a fitting does.</param>
/// <param name="Heat">What it does with heat; null: nothing.</param>
/// <param name="Unpowered">The position to which a valve with a motor goes without power; null: it stays, or has none.</param>
public sealed record StockPart(
    string Id,
    string Name,
    PartGroup Group,
    double HoldsL,
    double LossWPerK,
    Passage Passage,
    bool KeepsWater,
    string? Remedy,
    bool Protects,
    IceBreaks IceBreaks,
    double? RatedBar,
    double OutdoorShare,
    double UsualShare,
    PartLook Look,
    bool Landmark,
    Point3 Size,
    IReadOnlyList<StockPort> Ports,
    double MassKg,
    IReadOnlyList<StockPosition> Positions,
    string Source,
    string? Caution,
    PartFlow? Flow = null,
    PartHeat? Heat = null,
    string? Unpowered = null);
