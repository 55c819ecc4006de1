using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>
/// A spot on the rig in the builder's words. <paramref name="PointIndex"/> counts along the course of <paramref name="RunId"/> (0: its start).
/// </summary>
public sealed record Place(Point3 At, string Words, string? RunId, int? PointIndex, string? PartId, string? ZoneId)
{
    /// <summary>A bend or end of a run.</summary>
    public static Place OnRun(Rig rig, Run run, int pointIndex, Point3 at)
    {
        int last = run.Via.Count + 1;
        if (pointIndex == 0) return OnPart(rig, run.From.Part, at) with { RunId = run.Id, PointIndex = 0 };
        if (pointIndex == last) return OnPart(rig, run.To.Part, at) with { RunId = run.Id, PointIndex = last };
        var zone = rig.ZoneAt(at);
        return new Place(at, $"{run.Name}, bend {pointIndex}", run.Id, pointIndex, null, zone?.Id);
    }

    /// <summary>A part, or one of its ports.</summary>
    public static Place OnPart(Rig rig, string partId, Point3 at) =>
        new(at, rig.PartOf(partId).Name, null, null, partId, rig.ZoneAt(at)?.Id);
}
