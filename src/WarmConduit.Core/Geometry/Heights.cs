namespace WarmConduit.Core.Geometry;

/// <summary>Heights of points in a row.</summary>
public static class Heights
{
    /// <summary>An even fall from the first of <paramref name="course"/> (two points or more) to its last: heights in m, by level length. The first and the
    /// last keep theirs.</summary>
    public static double[] Between(IReadOnlyList<Point3> course)
    {
        var along = new double[course.Count];
        // Points above one another still come one after the other.
        for (int i = 1; i < along.Length; i++)
            along[i] = along[i - 1] + Math.Max(1e-6, (course[i] with { ZM = 0 }).DistanceM(course[i - 1] with { ZM = 0 }));
        return [.. along.Select(a => course[0].ZM + (course[^1].ZM - course[0].ZM) * a / along[^1])];
    }
}
