using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Runs laid anew between the ends they have.</summary>
internal static class RunRegrading
{
    /// <summary>Each bend as high as its share of the way from end to end: the run falls evenly.</summary>
    public static RouteRun Even(Run run, Point3[] course)
    {
        var heights = Heights.Between(course);
        return new RouteRun(run.Id, [.. run.Bends.Select((b, i) => b with { At = b.At with { ZM = Math.Round(heights[i + 1], 4) } })]);
    }

    /// <summary>A mend that lays <paramref name="run"/> evenly, where that gives it at least <paramref name="leastFall"/> as it is parked; none where its ends
    /// are too level for it.</summary>
    public static IReadOnlyList<Mend>? ItsFall(RigIndex index, Run run, Attitude parked, double leastFall)
    {
        if (run.Bends.Count == 0) return null;
        var course = index.CourseOf(run);
        var even = Even(run, course);
        Point3[] laid = [course[0], .. even.Bends.Select(b => b.At), course[^1]];
        double way = parked.HeightM(laid[^1]) - parked.HeightM(laid[0]);
        for (int i = 1; i < laid.Length; i++)
        {
            double length = laid[i].DistanceM(laid[i - 1]);
            // A rounding of a tenth of a millimetre is no fault of the fall.
            if (length > 1e-3 && (parked.HeightM(laid[i]) - parked.HeightM(laid[i - 1])) * Math.Sign(way) < leastFall * length - 2e-4) return null;
        }
        return [new Mend("Set even fall", [even])];
    }
}
