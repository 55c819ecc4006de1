using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>
/// A whole water system as its builder describes it: the one document that is edited, saved as a revision and written to a file. Immutable.
/// </summary>
/// <param name="FormatVersion">Version of the document's shape; this code reads and writes <see cref="CurrentFormat"/>.</param>
/// <param name="Id">Stable id: lower-case letters, digits and hyphens.</param>
/// <param name="Name">Its name.</param>
/// <param name="Note">What a reader should know of it.</param>
/// <param name="Brief">What it shall do.</param>
/// <param name="Shell">The body and its zones.</param>
/// <param name="Parts">Tanks, pumps, taps and all else that runs join.</param>
/// <param name="Runs">Pipes and hoses.</param>
public sealed record Rig(
    int FormatVersion, string Id, string Name, string Note, Brief Brief, Shell Shell, IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs)
{
    /// <summary>The only format version so far.</summary>
    public const int CurrentFormat = 1;

    /// <summary>The part with this id; throws when the rig was not checked and has none.</summary>
    public Part PartOf(string id) => Parts.First(p => p.Id == id);

    /// <summary>The whole course of <paramref name="run"/>: its ends' ports and the bends between, in its own sense. At least two points.</summary>
    public IReadOnlyList<Point3> CourseOf(Run run)
    {
        var course = new Point3[run.Via.Count + 2];
        course[0] = PartOf(run.From.Part).PortAt(run.From.Port)!.Value;
        for (int i = 0; i < run.Via.Count; i++) course[i + 1] = run.Via[i];
        course[^1] = PartOf(run.To.Part).PortAt(run.To.Port)!.Value;
        return course;
    }

    /// <summary>The zone that holds <paramref name="place"/> (the smallest one), or null for outdoors.</summary>
    public Zone? ZoneAt(Point3 place)
    {
        Zone? best = null;
        foreach (var zone in Shell.Zones)
            if (zone.Box.Holds(place) && (best is null || zone.Box.VolumeM3() < best.Box.VolumeM3()))
                best = zone;
        return best;
    }
}
