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
/// <param name="Part">Id of a part.</param>
/// <param name="Port">Id of one of its ports.</param>
/// <param name="At">Place of a loose end, m.</param>
public sealed record RunEnd(string? Part = null, string? Port = null, Point3? At = null)
{
    /// <summary>Joined to nothing yet.</summary>
    public bool IsLoose() => At is not null;
}

/// <summary>A sleeve around a run: a solid of the catalogue and its thickness, m.</summary>
/// <param name="Material">Id of a solid.</param>
/// <param name="ThicknessM">Thickness, m; 0 to 0.3.</param>
/// <param name="GapShare">Share of it that is bare: at clips, fittings and gaps between pieces, 0 to 1; left out: none.</param>
/// <param name="Over">Layers over it, up to three in all, the outer ones without gaps; left out: none.</param>
public sealed record Sleeve(string Material, double ThicknessM, double? GapShare = null, Sleeve? Over = null)
{
    /// <summary>It and what lies over it, from inside to outside.</summary>
    public IEnumerable<Sleeve> Layers()
    {
        for (var layer = this; layer is not null; layer = layer.Over) yield return layer;
    }

    /// <summary>Thickness of all layers, m.</summary>
    public double AllM() => ThicknessM + (Over?.AllM() ?? 0);
}

/// <summary>What supports a run at one of its points.</summary>
public enum Fixing
{
    /// <summary>A clip: the pipe does not sag beyond it.</summary>
    Clip,

    /// <summary>A grommet or sleeve in the wall or floor that the run passes there, which also holds it.</summary>
    Grommet,
}

/// <summary>A bend of a run, or a point where it is only clipped: its id, unique in the run, and its invert in metres.</summary>
/// <param name="Id">Id, unique in the run.</param>
/// <param name="At">Invert, m.</param>
/// <param name="Insulation">The sleeve from here on, a thickness of 0 being none; left out: as before it.</param>
/// <param name="Fixing">What supports it there; left out: nothing of its own.</param>
public sealed record Bend(string Id, Point3 At, Sleeve? Insulation = null, Fixing? Fixing = null) : IIdentified;

/// <summary>
/// A line from end to end. Its course is its start, its bends in the order of flow from <paramref name="From"/> to <paramref name="To"/>, and its
/// end, straight between them. <paramref name="Pipe"/> names a pipe of the catalogue.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name, 1 to 80 characters.</param>
/// <param name="Service">What it carries.</param>
/// <param name="Pipe">Id of a pipe of the catalogue.</param>
/// <param name="From">Where it starts.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Bends">Bends in the order of flow.</param>
/// <param name="Insulation">The sleeve from its start on; left out: none.</param>
/// <param name="ClipSpacingM">Distance between clips, m; 0.05 to 10.</param>
/// <param name="SlackM">Extra length over its course, m: a hose that sags; 0 to 5.</param>
/// <param name="Traces">Water runs along which this one, of heating fluid, is taped; at most 20; left out: none.</param>
/// <param name="Floor">It lies in the floor, in a plate that spreads its heat; left out: it does not.</param>
public sealed record Run(
    string Id,
    string Name,
    Service Service,
    string Pipe,
    RunEnd From,
    RunEnd To,
    IReadOnlyList<Bend> Bends,
    Sleeve? Insulation = null,
    double? ClipSpacingM = null,
    double? SlackM = null,
    IReadOnlyList<Trace>? Traces = null,
    FloorLoop? Floor = null) : IIdentified
{
    /// <summary>Most extra length of a run, m.</summary>
    public const double MostSlackM = 5;

    /// <summary>The run with another bend number <paramref name="index"/>, from 0.</summary>
    public Run With(int index, Bend bend) => this with { Bends = [.. Bends.Select((b, i) => i == index ? bend : b)] };

    /// <summary>The same with its traces in order of id.</summary>
    public Run InOrder() => Traces is null ? this : this with { Traces = Traces.Count > 0 ? Traces.InOrder() : null };

    /// <summary>The same, taped along none of <paramref name="gone"/>.</summary>
    public Run WithoutTraces(Predicate<string> gone) => Traces?.Any(t => gone(t.Id)) == true
        ? this with { Traces = Traces.Where(t => !gone(t.Id)).ToList() is { Count: > 0 } left ? left : null } : this;

    /// <summary>
    /// Into how many spans clips part a straight length of <paramref name="lengthM"/> metres: by their distance, or one where they are placed at points. Points
    /// of the course hold the pipe as well. Null where nothing is known of clips.
    /// </summary>
    public int? Spans(double lengthM) =>
        ClipSpacingM is { } spacing ? Math.Max(1, (int)Math.Ceiling(lengthM / spacing - 1e-9)) : Bends.Any(b => b.Fixing is not null) ? 1 : null;

    /// <summary>Whether any length of it has a sleeve.</summary>
    public bool IsSleeved() => Insulation is { ThicknessM: > 0 } || Bends.Any(b => b.Insulation is { ThicknessM: > 0 });

    /// <summary>The sleeve on the length after point number <paramref name="segment"/> of the course (0: from its start), or null.</summary>
    public Sleeve? SleeveOn(int segment)
    {
        for (int i = Math.Min(segment, Bends.Count) - 1; i >= 0; i--)
            if (Bends[i].Insulation is { } from) return from.ThicknessM > 0 ? from : null;
        return Insulation;
    }
}
