namespace WarmConduit.Core.Levels;

/// <summary>Which vessels get air in behind their water. One that does not keeps it, whatever lies open below.</summary>
public static class VesselAir
{
    /// <summary>From this bore on air gets up past the water that runs down. Estimate.</summary>
    public const double GulpBoreM = 0.020;

    // Openings nearer in height than this are one.
    private const double HigherM = 0.005;

    /// <summary>
    /// By vessel: true where air comes in, by another way than the one its water leaves by, or up that one where it is wide. Air comes by another port, from an
    /// opening over a crest that is higher than the one that water leaves over, through one-way elements only their way, and through a dip full of water only
    /// where the column that leaves draws harder than the dip is deep. True for a vessel with no way out: it keeps its water anyhow. O(vessels · points log
    /// points).
    /// </summary>
    public static bool[] Breathes(LevelAnswer levels)
    {
        var graph = levels.Graph;
        var breathes = new bool[graph.VesselPoint.Length];
        if (breathes.Length == 0) return breathes;
        var beside = Neighbours(graph);
        var open = new HashSet<int>(graph.DrainPoints);
        for (int v = 0; v < breathes.Length; v++)
        {
            int from = graph.VesselPoint[v], end = from;
            double leaves = levels.LevelM[from], narrowest = double.PositiveInfinity;
            for (int guard = 0; levels.Next[end] >= 0 && guard < levels.Next.Length; guard++)
            {
                int on = levels.Next[end];
                double bore = beside[end].Where(n => n.To == on).Select(n => n.BoreM).DefaultIfEmpty(0).Max();
                if (bore > 0) narrowest = Math.Min(narrowest, bore);
                end = on;
            }
            breathes[v] = double.IsInfinity(leaves) || !open.Contains(end) || narrowest >= GulpBoreM
                || Reached(levels, beside, open, from, leaves, Math.Max(0, leaves - levels.HeightM[end]));
        }
        return breathes;
    }

    private static List<(int To, double BoreM)>[] Neighbours(LevelGraph graph)
    {
        var beside = new List<(int, double)>[graph.Points.Length];
        for (int p = 0; p < beside.Length; p++) beside[p] = [];
        for (int s = 0; s < graph.SegA.Length; s++)
        {
            // As air goes: from an opening towards the vessel, so that it is followed the other way.
            if (graph.SegPasses[s] == Passes.None) continue;
            beside[graph.SegB[s]].Add((graph.SegA[s], graph.SegBoreM[s]));
            if (graph.SegPasses[s] == Passes.Both) beside[graph.SegA[s]].Add((graph.SegB[s], graph.SegBoreM[s]));
        }
        return beside;
    }

    // Outwards over the lowest crests, until an opening lies behind one that is higher than that of the water.
    private static bool Reached(LevelAnswer levels, List<(int To, double BoreM)>[] beside, HashSet<int> open, int from, double leavesM, double drawsM)
    {
        // Not by the port that the water fills as it leaves.
        var crest = new Dictionary<int, double> { [from] = double.NegativeInfinity, [levels.Next[from]] = double.NegativeInfinity };
        var queue = new PriorityQueue<int, double>();
        queue.Enqueue(from, double.NegativeInfinity);
        while (queue.TryDequeue(out int p, out double over))
        {
            if (over > crest[p]) continue;
            if (open.Contains(p) && over > leavesM + HigherM) return true;
            foreach (var (q, bore) in beside[p])
            {
                double full = levels.LevelM[q] - levels.HeightM[q];
                if (bore > 0 && full >= bore && full >= drawsM) continue;
                double up = Math.Max(over, levels.HeightM[q]);
                if (crest.TryGetValue(q, out double known) && known <= up) continue;
                crest[q] = up;
                queue.Enqueue(q, up);
            }
        }
        return false;
    }
}
