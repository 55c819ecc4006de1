using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>Where a hose that is longer than its way hangs through: on the straight length after point number <paramref name="Leg"/> of its course, by
/// <paramref name="BellyM"/>.</summary>
internal sealed record Slack(int Leg, double BellyM)
{
    /// <summary>The slack of <paramref name="run"/> gathers where its span across is the longest. Null where it has none, or stands upright all the
    /// way.</summary>
    public static Slack? Of(RigIndex index, Run run)
    {
        if (run.SlackM is not > 0) return null;
        var course = index.CourseOf(run);
        double Across(int k) => (course[k] with { ZM = 0 }).DistanceM(course[k + 1] with { ZM = 0 }) / (run.Spans(course[k].DistanceM(course[k + 1])) ?? 1);
        int leg = Enumerable.Range(0, course.Length - 1).MaxBy(Across);
        return HangingHose.BellyM(Across(leg), run.SlackM.Value) is > 0 and var belly ? new Slack(leg, belly) : null;
    }
}
