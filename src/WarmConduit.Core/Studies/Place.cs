using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>Names of the two ends of a run, where a bend has its id.</summary>
public static class RunPoint
{
    /// <summary>Its start.</summary>
    public const string From = "from";

    /// <summary>Its end.</summary>
    public const string To = "to";

    /// <summary>Id of point <paramref name="index"/> along the course of <paramref name="run"/> (0: its start).</summary>
    public static string IdOf(Run run, int index) => index == 0 ? From : index <= run.Bends.Count ? run.Bends[index - 1].Id : To;
}

/// <summary>
/// A place on the rig in words. <paramref name="PointId"/> names a point of <paramref name="RunId"/>: a bend's id, or <c>from</c> or <c>to</c>.
/// </summary>
/// <param name="At">In the vehicle, m.</param>
/// <param name="Words">In the builder's words.</param>
/// <param name="RunId">The run it lies on.</param>
/// <param name="PointId">Point of that run: a bend's id, or from or to.</param>
/// <param name="PartId">The part it belongs to.</param>
/// <param name="ZoneId">The zone it belongs to.</param>
public sealed record Place(Point3 At, string Words, string? RunId, string? PointId, string? PartId, string? ZoneId)
{
    /// <summary>A bend or end of a run, counted along its course.</summary>
    public static Place OnRun(RigIndex index, Run run, int pointIndex, Point3 at)
    {
        string id = RunPoint.IdOf(run, pointIndex);
        if ((id == RunPoint.From ? run.From.Part : id == RunPoint.To ? run.To.Part : null) is { } part)
            return OnPart(index, part, at) with { RunId = run.Id, PointId = id };
        string words = id is RunPoint.From or RunPoint.To ? $"{run.Name}, loose end" : $"{run.Name}, bend {pointIndex}";
        return new Place(at, words, run.Id, id, null, index.ZoneAt(at)?.Id);
    }

    /// <summary>A part, or one of its ports.</summary>
    public static Place OnPart(RigIndex index, string partId, Point3 at) => new(at, index.Part(partId).Name, null, null, partId, index.ZoneAt(at)?.Id);

    /// <summary>The middle of a part.</summary>
    public static Place OnPart(RigIndex index, Part part) => OnPart(index, part.Id, part.Box.Centre());
}
