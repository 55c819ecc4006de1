using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>A hose that is longer than the way from clip to clip, and hangs between them in a flat parabola. Lengths in m.</summary>
public static class HangingHose
{
    /// <summary>
    /// How deep it hangs in the middle of a span, m: √(3/8 · span · slack), from the length of a flat parabola, s = L + 8f²/(3L); never more than the hose
    /// folded double. Estimate: a stiff hose hangs less. 0 for no span or no slack.
    /// </summary>
    public static double BellyM(double spanM, double slackM) =>
        spanM > 0 && slackM > 0 ? Math.Min(Math.Sqrt(3.0 / 8 * spanM * slackM), (spanM + slackM) / 2) : 0;

    /// <summary>Points between <paramref name="from"/> and <paramref name="to"/> along the belly of <paramref name="depthM"/>.</summary>
    public static IReadOnlyList<Point3> Course(Point3 from, Point3 to, double depthM, int points = 15) =>
        [.. Enumerable.Range(1, points).Select(i => (double)i / (points + 1)).Select(u => from.Towards(to, u) - new Point3(0, 0, 4 * depthM * u * (1 - u)))];
}
