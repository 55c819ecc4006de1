using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>What comes out of a drain, m³: with all drains open at once, and when they are opened one after the other.</summary>
public readonly record struct DrainYield(string Node, double TogetherM3, double InTurnM3);

/// <summary>How much to expect at each drain, so that a bucket tells whether the system is empty.</summary>
public static class DrainYields
{
    /// <summary>
    /// Yields of the drains of <paramref name="network"/>, full at the start (vessels too), opened in the order of <paramref name="order"/> (node ids; null:
    /// highest first, which lets each give its own and wets the fewest feet). O(drains · points log points).
    /// </summary>
    public static IReadOnlyList<DrainYield> Ask(LevelNetwork network, Attitude attitude, IReadOnlyList<string>? order = null)
    {
        var all = Draining.Solve(network, attitude);
        var graph = all.Graph;
        order ??= [.. network.Drains.Distinct().OrderByDescending(d => all.HeightM[graph.PointOf(d)])];
        foreach (string d in order)
            if (!network.Drains.Contains(d)) throw new LevelNetworkException(d, "it is not one of the drains");

        var together = new Dictionary<int, double>();
        var drainOf = DrainOfPoint(all);
        for (int s = 0; s < graph.SegA.Length; s++)
        {
            int a = graph.SegA[s], b = graph.SegB[s];
            double leaves = Full(graph, s) - all.SegmentM3[s];
            int by = graph.SegPasses[s] == Passes.Both && all.LevelM[a] < all.LevelM[b] ? a : b;
            if (leaves > 0 && drainOf[by] >= 0) together[drainOf[by]] = together.GetValueOrDefault(drainOf[by]) + leaves;
        }
        for (int v = 0; v < network.Vessels.Count; v++)
        {
            int by = drainOf[graph.VesselPoint[v]];
            if (by >= 0) together[by] = together.GetValueOrDefault(by) + network.Vessels[v].HoldsM3 - all.VesselM3(v);
        }

        var yields = new List<DrainYield>();
        double before = Enumerable.Range(0, graph.SegA.Length).Sum(s => Full(graph, s)) + network.Vessels.Sum(v => v.HoldsM3);
        for (int k = 0; k < order.Count; k++)
        {
            double stays = Stays(k + 1 == order.Count && order.Count == network.Drains.Distinct().Count()
                ? all
                : Draining.Solve(network with { Drains = [.. order.Take(k + 1)] }, attitude));
            yields.Add(new DrainYield(order[k], together.GetValueOrDefault(graph.PointOf(order[k])), before - stays));
            before = stays;
        }
        return yields;
    }

    private static double Full(LevelGraph graph, int segment) =>
        graph.SegBoreM[segment] == 0 ? 0 : BoreSegment.VolumeM3(graph.SegBoreM[segment], graph.SegLengthM[segment], double.PositiveInfinity,
            double.PositiveInfinity);

    private static double Stays(LevelAnswer answer) => answer.SegmentM3.Sum() + Enumerable.Range(0, answer.Graph.Network.Vessels.Count).Sum(answer.VesselM3);

    private static int[] DrainOfPoint(LevelAnswer answer)
    {
        var drain = new int[answer.Next.Length];
        for (int p = 0; p < drain.Length; p++)
        {
            int at = p;
            while (answer.Next[at] >= 0) at = answer.Next[at];
            drain[p] = double.IsInfinity(answer.LevelM[p]) ? -1 : at;
        }
        return drain;
    }
}
