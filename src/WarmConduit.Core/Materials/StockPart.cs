namespace WarmConduit.Core.Materials;

/// <summary>How water and air get through a part while the system drains.</summary>
public enum Passage
{
    /// <summary>Both ways between all its ports.</summary>
    Through,

    /// <summary>Both ways when open or half open.</summary>
    Valve,

    /// <summary>From port "in" to port "out" only.</summary>
    OneWay,

    /// <summary>Not at all while it rests.</summary>
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

/// <summary>A part from stock. Every figure is an estimate that a rig may replace with its own.</summary>
/// <param name="Id">Name used in rig files.</param>
/// <param name="Name">Name shown.</param>
/// <param name="HoldsL">Water held, litres.</param>
/// <param name="LossWPerK">Loss to the air of its zone, W/K.</param>
/// <param name="Passage">How water and air pass.</param>
/// <param name="KeepsWater">Keeps its water after draining, by design.</param>
/// <param name="Remedy">What empties or protects it, when it keeps its water.</param>
/// <param name="IceBreaks">What ice does to it.</param>
/// <param name="RatedBar">Rated pressure; null where none applies.</param>
/// <param name="OutdoorShare">Part of the loss that goes straight outdoors, 0..1.</param>
/// <param name="Source">Where the values come from, or "estimate".</param>
public sealed record StockPart(
    string Id,
    string Name,
    double HoldsL,
    double LossWPerK,
    Passage Passage,
    bool KeepsWater,
    string? Remedy,
    IceBreaks IceBreaks,
    double? RatedBar,
    double OutdoorShare,
    string Source);
