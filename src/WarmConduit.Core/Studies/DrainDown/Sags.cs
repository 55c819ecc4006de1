using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>What hangs through between clips, and where a hose is longer than its way.</summary>
internal static class Sags
{
    private const double LeastLegM = 0.05, LeastL = 0.0002;

    /// <summary>
    /// Litres that stay in the straight lengths of a run as they hang, each drained by itself; of lengths that are dry as drawn, and fall less than a half.
    /// Estimate. O(lengths), and the drawing of those that hang steeper than they fall.
    /// </summary>
    public static double LitresOf(Question question, Run run, IReadOnlyList<Station> stations)
    {
        if (Catalogue.Pipe(run.Pipe) is not { } pipe) return 0;
        var clipped = ClippedPipe.Of(pipe, run.Service == Service.Hot);
        var slack = Slack.Of(question.Index, run);
        double litres = 0;
        for (int k = 0; k + 1 < stations.Count; k++)
        {
            var (a, b) = (stations[k], stations[k + 1]);
            double length = a.At.DistanceM(b.At);
            bool hangs = slack?.Leg == k;
            int? spans = run.Spans(length);
            if ((spans is null && !hangs) || a.Fall is not (>= 0 and < 0.5) || a.WetTo > a.WetFrom || a.AirlockedTo > a.AirlockedFrom
                || length < LeastLegM) continue;
            // A span pools when its slope at the clip is more than the fall.
            if (!hangs && clipped.EndSlope(length / spans!.Value) <= a.Fall) continue;
            var (high, low) = a.HeightM >= b.HeightM ? (a.At, b.At) : (b.At, a.At);
            var edge = new LevelEdge("span", "high", "low", pipe.InnerDiameterM, Passes.Both, []);
            edge = hangs ? edge with
            {
                Via = HangingHose.Course(high.Towards(low, 0.5 - 0.5 / (spans ?? 1)), high.Towards(low, 0.5 + 0.5 / (spans ?? 1)),
                slack!.BellyM)
            } : clipped.Sagged(edge, high, low, length / spans!.Value);
            var network = new LevelNetwork([new LevelNode("high", high), new LevelNode("low", low)], [edge], [], ["low"]);
            litres += Draining.Solve(network, question.Conditions.Parked).EdgeM3[0] * 1000;
        }
        return litres < LeastL ? 0 : litres;
    }
}
