using System.Numerics;
using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>A least set of drain points.</summary>
/// <param name="Nodes">Ids, in the order of the candidates.</param>
/// <param name="Exact">True when no smaller set would do; false when it was found greedily, and a smaller one may exist.</param>
/// <param name="NotReached">Points (node ids, or "edge:bend") that no candidate drains with the fall and tolerance wanted.</param>
public sealed record DrainSetAnswer(IReadOnlyList<string> Nodes, bool Exact, IReadOnlyList<string> NotReached);

/// <summary>Where drains must go so that every point falls to one.</summary>
public static class DrainSet
{
    /// <summary>Up to this many candidates every subset is tried.</summary>
    public const int MostExact = 12;

    /// <summary>
    /// The fewest of <paramref name="candidates"/> (node ids) such that from every point of <paramref name="network"/> some way runs to one of them, every
    /// length of it falling by at least <paramref name="fall"/> (m/m) however the vehicle stands within ±<paramref name="tolerance"/>. The drains the network
    /// has count as there already. Points that no candidate reaches are named, and the rest is served. Exact up to <see cref="MostExact"/> candidates by trying
    /// subsets of rising size, greedy above. O(candidates · segments + subsets · points/64).
    /// </summary>
    public static DrainSetAnswer Find(LevelNetwork network, IReadOnlyList<string> candidates, double fall, Attitude tolerance)
    {
        // A network that has no drain yet is the usual question: any node will do to lay it out.
        bool none = network.Drains.Count == 0;
        if (network.Nodes.Count == 0) throw new LevelNetworkException("nodes", "the network is empty");
        var graph = new LevelGraph(none ? network with { Drains = [network.Nodes[0].Id] } : network);
        LevelGraph.Demand(tolerance);
        if (!double.IsFinite(fall)) throw new LevelNetworkException("fall", "it must be a finite number");
        double pitch = Math.Abs(tolerance.TanPitch()), roll = Math.Abs(tolerance.TanRoll());
        var into = new List<int>[graph.Points.Length];
        void Falls(int a, int b, int s)
        {
            var d = graph.Points[a] - graph.Points[b];
            if (d.ZM >= fall * graph.SegLengthM[s] + pitch * Math.Abs(d.XM) + roll * Math.Abs(d.YM) - 1e-12) (into[b] ??= []).Add(a);
        }
        for (int s = 0; s < graph.SegA.Length; s++)
        {
            if (graph.SegPasses[s] == Passes.None || graph.SegLengthM[s] == 0) continue;
            Falls(graph.SegA[s], graph.SegB[s], s);
            if (graph.SegPasses[s] == Passes.Both) Falls(graph.SegB[s], graph.SegA[s], s);
        }
        var lift = graph.VesselPoint.ToHashSet();
        int[] points = [.. Enumerable.Range(0, graph.Points.Length).Where(p => !lift.Contains(p))];
        int words = (graph.Points.Length + 63) / 64;
        ulong[] Reach(IEnumerable<int> starts)
        {
            var bits = new ulong[words];
            var stack = new Stack<int>(starts);
            foreach (int p in stack) bits[p / 64] |= 1UL << (p % 64);
            while (stack.TryPop(out int p))
            {
                foreach (int q in into[p] ?? [])
                {
                    if ((bits[q / 64] & (1UL << (q % 64))) != 0) continue;
                    bits[q / 64] |= 1UL << (q % 64);
                    stack.Push(q);
                }
            }
            return bits;
        }
        var there = none ? new ulong[words] : Reach(graph.DrainPoints);
        ulong[][] reach = [.. candidates.Select(c => Reach([graph.PointOf(c)]))];
        var all = (ulong[])there.Clone();
        foreach (var r in reach) Or(all, r);
        string[] missed = [.. points.Where(p => (all[p / 64] & (1UL << (p % 64))) == 0).Select(p => NameOf(graph, p))];
        var chosen = candidates.Count <= MostExact ? Smallest(there, reach, all) : Greedy(there, reach, all);
        return new DrainSetAnswer([.. chosen.Select(i => candidates[i])], candidates.Count <= MostExact || chosen.Count <= 1, missed);
    }

    private static List<int> Smallest(ulong[] there, ulong[][] reach, ulong[] all)
    {
        for (int size = 0; size <= reach.Length; size++)
        {
            for (int set = 0; set < 1 << reach.Length; set++)
            {
                if (BitOperations.PopCount((uint)set) != size) continue;
                var got = (ulong[])there.Clone();
                for (int i = 0; i < reach.Length; i++)
                    if ((set & (1 << i)) != 0) Or(got, reach[i]);
                if (got.AsSpan().SequenceEqual(all)) return [.. Enumerable.Range(0, reach.Length).Where(i => (set & (1 << i)) != 0)];
            }
        }
        throw new InvalidOperationException("All candidates together reach what all of them reach.");
    }

    private static List<int> Greedy(ulong[] there, ulong[][] reach, ulong[] all)
    {
        var got = (ulong[])there.Clone();
        var chosen = new List<int>();
        while (!got.AsSpan().SequenceEqual(all))
        {
            int best = Enumerable.Range(0, reach.Length).MaxBy(i => Gain(got, reach[i]));
            Or(got, reach[best]);
            chosen.Add(best);
        }
        return [.. chosen.Order()];
    }

    private static int Gain(ulong[] got, ulong[] more)
    {
        int gain = 0;
        for (int w = 0; w < got.Length; w++) gain += BitOperations.PopCount(more[w] & ~got[w]);
        return gain;
    }

    private static void Or(ulong[] into, ulong[] from)
    {
        for (int w = 0; w < into.Length; w++) into[w] |= from[w];
    }

    private static string NameOf(LevelGraph graph, int point)
    {
        if (point < graph.NodeCount) return graph.Network.Nodes[point].Id;
        for (int e = 0; e < graph.Network.Edges.Count; e++)
        {
            int bend = Array.IndexOf(graph.PointsOfEdge(e), point);
            if (bend > 0) return $"{graph.Network.Edges[e].Id}:{bend}";
        }
        return "?";
    }
}
