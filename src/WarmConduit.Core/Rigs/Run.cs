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
}

/// <summary>An end of a run: a part's id and one of its ports.</summary>
public sealed record RunEnd(string Part, string Port);

/// <summary>A sleeve around a run: a solid of the catalogue and its thickness, m.</summary>
public sealed record Sleeve(string Material, double ThicknessM);

/// <summary>
/// A line from part to part. Its course is the port it starts from, the bends of <paramref name="Via"/> (inverts, metres) and the port it ends at;
/// straight between. <paramref name="Pipe"/> names a pipe of the catalogue.
/// </summary>
public sealed record Run(
    string Id,
    string Name,
    Service Service,
    string Pipe,
    RunEnd From,
    RunEnd To,
    IReadOnlyList<Point3> Via,
    Sleeve? Insulation = null,
    double? ClipSpacingM = null);
