using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>
/// What water does in a network of open bores when nothing but its weight drives it. Water at a place leaves over the lowest crest on its way to any open
/// drain; the level it stands at is the least, over all ways out, of the greatest height on the way: a minimax path.
/// </summary>
public static class Draining
{
    /// <summary>
    /// Solves <paramref name="graph"/> at <paramref name="attitude"/> by one sweep from the drains with a priority queue (Dijkstra's order with max for
    /// the sum). Exact. O(points · log points).
    /// </summary>
    /// <param name="graph">The network.</param>
    /// <param name="attitude">How it stands.</param>
    /// <param name="surfaceM">How high water stands in each vessel to begin with, m over ground: it stands no higher afterwards, and what lies above runs down
    /// into it. Infinite for a vessel that is full; left out: all are.</param>
    public static LevelAnswer Solve(LevelGraph graph, Attitude attitude, IReadOnlyList<double>? surfaceM = null)
    {
        var z = graph.Heights(attitude);
        var (level, next, crest) = Sweep(graph, z);
        if (surfaceM is not null) StayInVessels(graph, z, surfaceM, level, next, crest);
        return new LevelAnswer(graph, z, level, next, crest, SegmentVolumes(graph, z, level)) { Attitude = attitude };
    }

    /// <summary>Lays out and solves in one step. Throws as <see cref="LevelGraph(LevelNetwork)"/> does.</summary>
    public static LevelAnswer Solve(LevelNetwork network, Attitude attitude) => Solve(new LevelGraph(network), attitude);

    // A vessel that is not full takes what is above its water, over the lowest crest.
    private static void StayInVessels(LevelGraph graph, double[] z, IReadOnlyList<double> surfaceM, double[] level, int[] next, int[] crest)
    {
        var takes = Enumerable.Range(0, graph.VesselPoint.Length).Where(v => level[graph.VesselPoint[v]] > surfaceM[v])
            .Select(v => (graph.VesselPoint[v], surfaceM[v])).ToList();
        if (takes.Count == 0) return;
        var (stays, back, over) = Sweep(graph, z, takes);
        for (int p = 0; p < z.Length; p++)
            if (stays[p] < level[p]) (level[p], next[p], crest[p]) = (stays[p], back[p], over[p]);
    }

    internal static (double[] Level, int[] Next, int[] Crest) Sweep(LevelGraph graph, double[] z, IReadOnlyList<(int Point, double LevelM)>? vessels = null)
    {
        int n = z.Length;
        var level = new double[n];
        var next = new int[n];
        var crest = new int[n];
        Array.Fill(level, double.PositiveInfinity);
        Array.Fill(next, -1);
        Array.Fill(crest, -1);
        var queue = new PriorityQueue<int, double>(n);
        if (vessels is null)
        {
            foreach (int d in graph.DrainPoints)
            {
                (level[d], crest[d]) = (z[d], d);
                queue.Enqueue(d, z[d]);
            }
        }
        // A vessel is no way out: it has no crest.
        foreach (var (point, stands) in vessels ?? [])
        {
            if (stands >= level[point]) continue;
            level[point] = stands;
            queue.Enqueue(point, stands);
        }
        while (queue.TryDequeue(out int p, out double at))
        {
            if (at > level[p]) continue;
            foreach (int q in graph.Upstream(p))
            {
                double over = Math.Max(z[q], level[p]);
                if (over >= level[q]) continue;
                (level[q], next[q], crest[q]) = (over, p, z[q] >= level[p] ? q : crest[p]);
                queue.Enqueue(q, over);
            }
        }
        return (level, next, crest);
    }

    internal static double[] SegmentVolumes(LevelGraph graph, double[] z, double[] level)
    {
        var volumes = new double[graph.SegA.Length];
        for (int s = 0; s < volumes.Length; s++)
        {
            if (graph.SegBoreM[s] == 0) continue;
            int a = graph.SegA[s], b = graph.SegB[s];
            double out_ = OutLevel(graph.SegPasses[s], level[a], level[b]);
            volumes[s] = BoreSegment.VolumeM3(graph.SegBoreM[s], graph.SegLengthM[s], out_ - z[a], out_ - z[b]);
        }
        return volumes;
    }

    /// <summary>The lowest level to which the inside of a segment can fall, through whichever of its ends it may leave by.</summary>
    internal static double OutLevel(Passes passes, double levelA, double levelB) => passes switch
    {
        Passes.Both => Math.Min(levelA, levelB),
        Passes.Forward => levelB,
        _ => double.PositiveInfinity,
    };
}
