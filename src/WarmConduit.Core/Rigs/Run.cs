using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>What a run carries.</summary>
public enum Service
{
    /// <summary>Cold drinking water.</summary>
    Cold,

    /// <summary>Hot drinking water.</summary>
    Hot,

    /// <summary>Grey water.</summary>
    Waste,

    /// <summary>Air to and from a tank.</summary>
    Vent,

    /// <summary>Water into the tank.</summary>
    Fill,

    /// <summary>Heating fluid.</summary>
    Coolant,

    /// <summary>What a tank has too much of.</summary>
    Overflow,
}

/// <summary>
/// An end of a run: a part's id and one of its ports, or, while the drawing is under way, a loose end at a place (invert, metres). Exactly one of the two.
/// </summary>
public sealed record RunEnd(string? Part = null, string? Port = null, Point3? At = null)
{
    /// <summary>Joined to nothing yet.</summary>
    public bool IsLoose() => At is not null;
}

/// <summary>A sleeve around a run: a solid of the catalogue and its thickness, m.</summary>
public sealed record Sleeve(string Material, double ThicknessM);

/// <summary>A bend of a run: its id, unique in the run, and its invert in metres.</summary>
public sealed record Bend(string Id, Point3 At) : IIdentified;

/// <summary>
/// A line from end to end. Its course is the place it starts from, its bends in the order of flow from <paramref name="From"/> to <paramref name="To"/>,
/// and the place it ends at; straight between. <paramref name="Pipe"/> names a pipe of the catalogue.
/// </summary>
public sealed record Run(
    string Id,
    string Name,
    Service Service,
    string Pipe,
    RunEnd From,
    RunEnd To,
    IReadOnlyList<Bend> Bends,
    Sleeve? Insulation = null,
    double? ClipSpacingM = null) : IIdentified;
