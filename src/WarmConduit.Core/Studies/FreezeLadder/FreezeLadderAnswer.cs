using WarmConduit.Core.Geometry;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>Whether a rig is safe on its night.</summary>
public enum Verdict
{
    /// <summary>Nothing reaches first ice.</summary>
    Passes,

    /// <summary>Only what stands ice reaches it: no damage.</summary>
    PassesButForIce,

    /// <summary>Ice breaks something.</summary>
    Fails,
}

/// <summary>What freezes and when on a night.</summary>
/// <param name="Verdict">Whether the rig is safe this night.</param>
/// <param name="Rungs">Pieces of runs and parts that hold water: first what ice breaks by morning, the earliest leading, then the rest by first ice;
/// the first 3000.</param>
/// <param name="Count">How many there are in all.</param>
/// <param name="Zones">Each zone's air in the morning, and what its heater gave in the hour before.</param>
/// <param name="MorningS">Seconds from the start until morning.</param>
/// <param name="EndS">Seconds from the start to the end of the calculation.</param>
public sealed record FreezeLadderAnswer(Verdict Verdict, IReadOnlyList<Rung> Rungs, int Count, IReadOnlyList<ZoneAir> Zones, double MorningS, double EndS);

/// <summary>How far freezing gets before morning.</summary>
public enum IceState
{
    /// <summary>No ice.</summary>
    Safe,

    /// <summary>Ice has begun.</summary>
    FirstIce,

    /// <summary>A tenth is ice: pipes up to 22 mm are blocked. Estimate.</summary>
    Blocked,

    /// <summary>Frozen through.</summary>
    Solid,
}

/// <summary>A piece of a run within one zone, or a part. Times in seconds from the start; null: not by morning, nor within twelve hours.</summary>
/// <param name="Id">Stable id.</param>
/// <param name="Name">In the builder's words.</param>
/// <param name="RunId">The run, for a piece of one.</param>
/// <param name="PartId">The part, for a part.</param>
/// <param name="ZoneId">The zone; null for outdoors.</param>
/// <param name="Course">The piece's course; for a part, its middle.</param>
/// <param name="WaterL">Water in it, litres.</param>
/// <param name="AirC">Air around it in the morning, °C.</param>
/// <param name="FirstIceS">First ice.</param>
/// <param name="BlockedS">A tenth ice.</param>
/// <param name="SolidS">All ice.</param>
/// <param name="ThawedS">The last ice is gone again.</param>
/// <param name="MorningC">Its temperature in the morning, °C.</param>
/// <param name="MorningIce">Its ice fraction in the morning, 0..1.</param>
/// <param name="State">How far freezing gets before morning.</param>
/// <param name="Breaks">Ice that comes before morning breaks it.</param>
/// <param name="BreaksS">When ice breaks it; null: it stands ice, or has none.</param>
/// <param name="AtS">When ice breaks it by morning, else its first ice; null: neither.</param>
/// <param name="ShutIn">It breaks because it freezes between two blocked ends, with no way to expand.</param>
public sealed record Rung(
    string Id,
    string Name,
    string? RunId,
    string? PartId,
    string? ZoneId,
    IReadOnlyList<Point3> Course,
    double WaterL,
    double AirC,
    double? FirstIceS,
    double? BlockedS,
    double? SolidS,
    double? ThawedS,
    double MorningC,
    double MorningIce,
    IceState State,
    bool Breaks,
    double? BreaksS,
    double? AtS,
    bool ShutIn);
