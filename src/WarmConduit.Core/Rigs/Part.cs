using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>Something in a rig that a hand can hold, with an id that stays its own. Lists of such things stand in ordinal order of id, but for bends.</summary>
public interface IIdentified
{
    /// <summary>1 to 60 lower-case letters, digits and hyphens, unique in its list.</summary>
    string Id { get; }
}

/// <summary>
/// A place where a run joins a part: the pipe's invert, as an offset in metres from the part's corner. Facing, bore (m) and role come with a part from stock
/// and may be left out.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Offset">From the corner of the part, m; within 2 m of its box.</param>
/// <param name="Facing">The direction it faces.</param>
/// <param name="BoreM">Bore, m.</param>
/// <param name="Role">What it is for.</param>
/// <param name="Name">The builder's name for it, 1 to 80 characters; left out: its id.</param>
public sealed record Port(string Id, Point3 Offset, Facing? Facing = null, double? BoreM = null, PortRole? Role = null, string? Name = null) : IIdentified
{
    /// <summary>What it is called: by its builder, else by its id.</summary>
    public string Called() => Name ?? Id;
}

/// <summary>
/// How a part is turned from the way stock describes it: mirrored along its own x, put upside down, then turned counter-clockwise as seen from above by
/// <paramref name="QuarterTurns"/> (0 to 3).
/// </summary>
/// <param name="QuarterTurns">0 to 3, counter-clockwise as seen from above.</param>
/// <param name="Mirrored">Mirrored along its own x.</param>
/// <param name="UpsideDown">Put upside down.</param>
public sealed record Orientation(int QuarterTurns, bool Mirrored = false, bool UpsideDown = false)
{
    /// <summary>As stock has it.</summary>
    public static readonly Orientation AsStock = new(0);
}

/// <summary>How something is reached.</summary>
public enum ReachKind
{
    /// <summary>From outside, standing.</summary>
    Outside,

    /// <summary>Inside, standing.</summary>
    Standing,

    /// <summary>Kneeling.</summary>
    Kneeling,

    /// <summary>Lying on one's back.</summary>
    OnBack,

    /// <summary>Behind a panel.</summary>
    Panel,
}

/// <summary>How a part is reached once the rig is built.</summary>
/// <param name="Kind">How.</param>
/// <param name="Screws">Screws of the panel, 0 to 99; left out: it is only lifted off.</param>
public sealed record Reach(ReachKind Kind, int? Screws = null)
{
    /// <summary>In words.</summary>
    public string Words() => Kind switch
    {
        ReachKind.Outside => "from outside",
        ReachKind.Standing => "inside, standing",
        ReachKind.Kneeling => "kneeling",
        ReachKind.OnBack => "on your back",
        _ => Screws is > 0 ? $"behind a panel with {Screws} {(Screws == 1 ? "screw" : "screws")}" : "behind a panel",
    };

    /// <summary>How long it takes to get there and back, s: a quarter of a minute standing, half kneeling, one on one's back, ten seconds a screw.
    /// Estimates.</summary>
    public double HandS() => Kind switch
    {
        ReachKind.Outside or ReachKind.Standing => 15,
        ReachKind.Kneeling => 30,
        ReachKind.OnBack => 60,
        _ => 45 + (10 * (Screws ?? 0)),
    };
}

/// <summary>
/// A part in its place. <paramref name="Stock"/> names a part of the catalogue; <paramref name="HoldsL"/>,
/// <paramref name="LossWPerK"/> and <paramref name="MassKg"/> replace its figures where the builder knows better. A tank's content is that of its
/// box unless HoldsL is given. Box and ports are as turned; <paramref name="Orientation"/> (left out: default) says how.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name, 1 to 80 characters.</param>
/// <param name="Stock">Id of its stock part.</param>
/// <param name="Box">Its box as turned, m.</param>
/// <param name="Ports">1 to 16 ports.</param>
/// <param name="Orientation">How it is turned; left out: default.</param>
/// <param name="HoldsL">Water held when full, L; 0 to 2000, and more than 0 for a vessel.</param>
/// <param name="LossWPerK">Loss to the air around it, W/K; 0 to 100.</param>
/// <param name="MassKg">Mass when empty, kg; 0 to 1000.</param>
/// <param name="Covered">Light is kept off it; left out: it is not known.</param>
/// <param name="Reach">How it is reached; left out: not known.</param>
/// <param name="Jacket">Insulation around it; left out: none.</param>
/// <param name="JacketOff">Sides of its box that the jacket leaves bare, 1 to 5; left out: none.</param>
/// <param name="Own">The builder's own part, with its own size, ports and figures; offered in other rigs too.</param>
/// <param name="Flow">What it does to water that flows through it, where the builder knows better than stock; left out: as stock has it.</param>
/// <param name="Heat">What it does with heat, where the builder knows better than stock; left out: as stock has it.</param>
/// <param name="Pad">A heating pad on it; left out: none.</param>
public sealed record Part(
    string Id,
    string Name,
    string Stock,
    Box Box,
    IReadOnlyList<Port> Ports,
    Orientation? Orientation = null,
    double? HoldsL = null,
    double? LossWPerK = null,
    double? MassKg = null,
    bool? Covered = null,
    bool? Own = null,
    Reach? Reach = null,
    Sleeve? Jacket = null,
    IReadOnlyList<Facing>? JacketOff = null,
    PartFlow? Flow = null,
    PartHeat? Heat = null,
    Pad? Pad = null) : IIdentified
{
    /// <summary>What it does to water that flows through it: as typed, else as stock has it.</summary>
    public PartFlow Flows() => (Flow ?? PartFlow.None).Over(Catalogue.Part(Stock)?.Flow ?? PartFlow.None);

    /// <summary>What it does with heat: as typed, else as stock has it.</summary>
    public PartHeat Heats() => (Heat ?? PartHeat.None).Over(Catalogue.Part(Stock)?.Heat ?? PartHeat.None);

    /// <summary>A side of its box, m².</summary>
    internal double SideM2(Facing side) => (Box.Size, side) switch
    {
        (var s, Facing.Rear or Facing.Forward) => s.YM * s.ZM,
        (var s, Facing.KerbSide or Facing.FarSide) => s.XM * s.ZM,
        (var s, _) => s.XM * s.YM,
    };

    /// <summary>Whether it drives a flow, as a pump does; an engine's pump is the engine's.</summary>
    internal bool IsPump() => Flows().ShutoffBar is not null && !Heats().IsEngine;

    /// <summary>Whether electric heat lies in its water, as an element, and not on it, as a pad.</summary>
    internal bool TakesElement() => Catalogue.Part(Stock) is { Group: PartGroup.Heat, Passage: Passage.Vessel };

    /// <summary>What <paramref name="port"/> is for: as it says itself, else as stock has it.</summary>
    public PortRole? RoleOf(Port port) => port.Role ?? Catalogue.Part(Stock)?.Ports.FirstOrDefault(p => p.Id == port.Id)?.Role;

    /// <summary>Where port <paramref name="port"/> is in the vehicle, or null when the part has none of that name.</summary>
    public Point3? PortAt(string port)
    {
        foreach (var p in Ports)
            if (p.Id == port)
                return Box.At + p.Offset;
        return null;
    }
}
