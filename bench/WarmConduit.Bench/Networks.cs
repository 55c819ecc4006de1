using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Bench;

/// <summary>Seeded random networks for measuring.</summary>
internal static class Networks
{
    public static LevelNetwork Levels(int nodes, int loops, int seed, int drains = 3)
    {
        var random = new Random(seed);
        Point3 Place() => new(5 * random.NextDouble(), 2 * random.NextDouble(), 0.6 * random.NextDouble());
        var at = Enumerable.Range(0, nodes).Select(i => new LevelNode($"n{i}", Place())).ToList();
        var edges = new List<LevelEdge>();
        for (int e = 1; e < nodes + loops; e++)
        {
            int from = e < nodes ? e : random.Next(nodes);
            int to = e < nodes ? random.Next(Math.Max(0, e - 12), e) : random.Next(nodes);
            if (from == to) continue;
            var passes = random.Next(20) switch { 0 => Passes.Forward, 1 => Passes.None, _ => Passes.Both };
            edges.Add(new LevelEdge($"e{e}", $"n{from}", $"n{to}", 0.0123, passes, [Place()]));
        }
        return new LevelNetwork(at, edges, [], [.. Enumerable.Range(0, drains).Select(d => $"n{d * nodes / drains}")]);
    }
}
