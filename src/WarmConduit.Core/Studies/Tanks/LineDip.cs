using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Tanks;

/// <summary>The deepest dip of a line that air or a fill takes: water stays in it, and shuts it.</summary>
/// <param name="At">Number of the lowest point, along the heights.</param>
/// <param name="DepthM">How deep it lies under the lower of the two crests beside it, m.</param>
internal readonly record struct LineDip(int At, double DepthM)
{
    // Less than this passes as a bend.
    private const double LeastM = 0.003;

    /// <summary>Of heights along a line, m; null: it has no dip.</summary>
    public static LineDip? Of(IReadOnlyList<double> heights)
    {
        var beyond = new double[heights.Count];
        double most = double.NegativeInfinity;
        for (int i = heights.Count - 1; i >= 0; i--) (beyond[i], most) = (most, Math.Max(most, heights[i]));
        LineDip? deepest = null;
        most = double.NegativeInfinity;
        for (int i = 0; i < heights.Count; i++)
        {
            double depth = Math.Min(most, beyond[i]) - heights[i];
            if (depth > (deepest?.DepthM ?? LeastM)) deepest = new LineDip(i, depth);
            most = Math.Max(most, heights[i]);
        }
        return deepest;
    }

    /// <summary>Of a run, as the vehicle is parked.</summary>
    public static LineDip? Of(Question question, Run run) => Of([.. question.Index.CourseOf(run).Select(p => question.Conditions.Parked.HeightM(p))]);
}
