using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>Water that stays together in one place. Volumes in m³, heights over ground in metres.</summary>
/// <param name="LevelM">The level it stands at; plus infinity when nothing lets it out, nor back into a vessel.</param>
/// <param name="CrestPoint">The point it would have to climb over; -1 when there is no way out.</param>
/// <param name="VolumeM3">Water in the bores of the pool (vessels are counted apart).</param>
/// <param name="Edges">Edge numbers with the water each holds.</param>
/// <param name="LowestPoint">The lowest wet point: where a drain would empty it.</param>
/// <param name="Points">All wet points.</param>
public sealed record Pool(
    double LevelM, int CrestPoint, double VolumeM3, IReadOnlyList<(int Edge, double VolumeM3)> Edges, int LowestPoint, IReadOnlyList<int> Points);

/// <summary>
/// What stays in a network, point by point. Arrays are indexed by the points, segments, edges and vessels of <see cref="Graph"/>; do not write to them.
/// </summary>
public sealed class LevelAnswer
{
    internal LevelAnswer(LevelGraph graph, double[] heightM, double[] levelM, int[] next, int[] crest, double[] segmentM3)
    {
        (Graph, HeightM, LevelM, Next, Crest, SegmentM3) = (graph, heightM, levelM, next, crest, segmentM3);
        EdgeM3 = new double[graph.Network.Edges.Count];
        for (int e = 0; e < EdgeM3.Length; e++)
            for (int s = graph.EdgeFirst[e]; s < graph.EdgeFirst[e + 1]; s++)
                EdgeM3[e] += segmentM3[s];
    }

    /// <summary>The graph that was solved.</summary>
    public LevelGraph Graph { get; }

    /// <summary>Invert height over ground of each point, m.</summary>
    public double[] HeightM { get; }

    /// <summary>Level at which water stands at each point, m: its own height when it runs dry, plus infinity when nothing lets it out.</summary>
    public double[] LevelM { get; }

    /// <summary>The point to which water runs on from each point; -1 at a drain and where there is no way out.</summary>
    public int[] Next { get; }

    /// <summary>The point that sets the level: the highest on the lowest way out; -1 where there is none.</summary>
    public int[] Crest { get; }

    /// <summary>Water that stays in each straight segment, m³.</summary>
    public double[] SegmentM3 { get; }

    /// <summary>Water that stays in each edge, m³.</summary>
    public double[] EdgeM3 { get; }

    /// <summary>Water that stays in vessel number <paramref name="vessel"/>, m³: all of it when nothing lets it out. O(1).</summary>
    public double VesselM3(int vessel)
    {
        var it = Graph.Network.Vessels[vessel];
        double level = LevelM[Graph.VesselPoint[vessel]];
        return it.HoldsM3 * VesselSlice.FilledFraction(it.Box, level, Attitude);
    }

    /// <summary>How the vehicle is parked.</summary>
    public required Attitude Attitude { get; init; }

    /// <summary>
    /// Groups what stays into pools: wet segments that touch at a wet point. Segments holding less than <paramref name="leastM3"/> are left out.
    /// Largest first. O(segments · α).
    /// </summary>
    public IReadOnlyList<Pool> Pools(double leastM3 = 1e-9)
    {
        var parent = new int[HeightM.Length];
        for (int p = 0; p < parent.Length; p++) parent[p] = p;
        int Root(int p)
        {
            while (parent[p] != p) p = parent[p] = parent[parent[p]];
            return p;
        }
        bool Wet(int p) => LevelM[p] > HeightM[p] + 1e-9;

        for (int s = 0; s < SegmentM3.Length; s++)
        {
            int a = Graph.SegA[s], b = Graph.SegB[s];
            // Inside a shut element the water is its own even where the ends are dry.
            bool shut = Graph.SegPasses[s] == Passes.None && Graph.SegBoreM[s] > 0;
            if ((SegmentM3[s] > leastM3 || Graph.SegBoreM[s] == 0) && (shut || (Wet(a) && Wet(b)))) parent[Root(a)] = Root(b);
        }

        var groups = new Dictionary<int, List<int>>();
        for (int s = 0; s < SegmentM3.Length; s++)
        {
            if (SegmentM3[s] <= leastM3) continue;
            int a = Graph.SegA[s], b = Graph.SegB[s];
            int root = Root(HeightM[a] <= HeightM[b] ? a : b);
            if (!groups.TryGetValue(root, out var list)) groups[root] = list = [];
            list.Add(s);
        }

        var pools = new List<Pool>(groups.Count);
        foreach (var segments in groups.Values) pools.Add(PoolOf(segments));
        pools.Sort((p, q) => q.VolumeM3.CompareTo(p.VolumeM3));
        return pools;
    }

    // Segments come in rising order, so those of one edge come together.
    private Pool PoolOf(List<int> segments)
    {
        double volume = 0, level = double.NegativeInfinity;
        int lowest = -1, crest = -1;
        var points = new List<int>(segments.Count + 1);
        var edges = new List<(int Edge, double VolumeM3)>();
        foreach (int s in segments)
        {
            volume += SegmentM3[s];
            int edge = Graph.EdgeOfSegment(s);
            if (edges.Count > 0 && edges[^1].Edge == edge) edges[^1] = (edge, edges[^1].VolumeM3 + SegmentM3[s]);
            else edges.Add((edge, SegmentM3[s]));
            foreach (int p in (ReadOnlySpan<int>)[Graph.SegA[s], Graph.SegB[s]])
            {
                if (lowest < 0 || HeightM[p] < HeightM[lowest]) lowest = p;
                if (LevelM[p] <= HeightM[p] + 1e-9 && Graph.SegPasses[s] != Passes.None) continue;
                points.Add(p);
                if (LevelM[p] > level) (level, crest) = (LevelM[p], Crest[p]);
            }
        }
        points.Sort();
        int kept = 0;
        for (int i = 0; i < points.Count; i++)
            if (i == 0 || points[i] != points[i - 1]) points[kept++] = points[i];
        points.RemoveRange(kept, points.Count - kept);
        return new Pool(level, double.IsPositiveInfinity(level) ? -1 : crest, volume, edges, lowest, points);
    }
}
