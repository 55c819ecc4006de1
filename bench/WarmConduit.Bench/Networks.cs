using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
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

    public static FallQuestion Falls(int points, int seed)
    {
        var random = new Random(seed);
        var all = new List<FallPoint> { new("p0", 0.02, 0.02) };
        var lengths = new List<FallLength>();
        for (int i = 1; i < points; i++)
        {
            double low = 0.03 + 0.4 * random.NextDouble(), x = 0.2 + random.NextDouble(), y = random.NextDouble();
            all.Add(new FallPoint($"p{i}", low, low + (i % 5 == 0 ? 0.05 : 0.6)));
            lengths.Add(new FallLength($"p{i}", $"p{random.Next(Math.Max(0, i - 8), i)}", Math.Sqrt(x * x + y * y), x, y));
        }
        return new FallQuestion(all, lengths, 1, 1, 0.02);
    }

    public static SweepEdge[] Sweep(int edges, int oneWay, int seed)
    {
        var random = new Random(seed);
        int nodes = edges * 5 / 6;
        var all = new SweepEdge[edges];
        for (int e = 0; e < edges; e++)
        {
            int from = e + 1 < nodes ? e + 1 : random.Next(nodes), to = e + 1 < nodes ? random.Next(Math.Max(0, e - 6), e + 1) : random.Next(nodes);
            all[e] = new SweepEdge($"e{e}", $"n{from}", $"n{to}", oneWay > 0 && e % oneWay == 0 ? Passes.Forward : Passes.Both);
        }
        return all;
    }

    public static FlowNetwork Flow(int edges, int seed)
    {
        var random = new Random(seed);
        int nodes = edges * 5 / 6;
        var all = new List<FlowEdge> { new FlowPump("pump", "n0", "n1", 20, 1.5e9) };
        for (int e = 1; e < edges; e++)
        {
            int from = e + 1 < nodes ? random.Next(Math.Max(1, e - 5), e + 1) : 1 + random.Next(nodes - 1), to = e + 1 < nodes ? e + 1
                : 1 + random.Next(nodes - 1);
            if (from != to) all.Add(new FlowPipe($"e{e}", $"n{from}", $"n{to}", 0.3 + 3 * random.NextDouble(), 0.0123, 1.5e-6, 3));
        }
        return new FlowNetwork(
            999, 1.3e-3, [.. Enumerable.Range(0, nodes).Select(i => new FlowNode($"n{i}", i == 0 ? 0.3 : null))], all,
            [.. Enumerable.Range(0, nodes / 4).Select(i => new FlowOutlet($"n{nodes - 1 - i}", 0.5 + random.NextDouble(), 3e-7))]);
    }

    /// <summary>The same closed: every end leads back to the pump, and it is full of glycol and water at 60 °C.</summary>
    public static FlowNetwork Circuit(int edges, int seed)
    {
        var open = Flow(edges * 5 / 6, seed);
        var back = open.Outlets.Select((o, i) => new FlowPipe($"r{i}", o.Node, "n0", 2 + i % 3, 0.0123, 1.5e-6, 3));
        return open with { DensityKgPerM3 = 1030, ViscosityPaS = 1.3e-3, Edges = [.. open.Edges, .. back], Outlets = [] };
    }

    public static NightNetwork Night(int bodies, int hours, int seed)
    {
        var random = new Random(seed);
        double Between(double a, double b) => a + (b - a) * random.NextDouble();
        string[] zones = ["living", "garage", "cupboard", "underfloor", "hatch", "battery"];
        var times = Enumerable.Range(0, hours + 1).Select(h => 3600.0 * h).ToArray();
        var outdoor = times.Select(t => -5 + 6 * Math.Sin(t / 86400 * 2 * Math.PI) - 7 * Math.Sin(t / 86400 / 11 * 2 * Math.PI) + Between(-1, 1)).ToArray();
        return new NightNetwork(
            [
                new("living", 600_000, 45, 18, [new(18, 1, 2200, 0, hours * 1800), new(18, 1, 2200, hours * 2400, hours * 3600)]),
                new("garage", 200_000, 20, 12, []), new("cupboard", 60_000, 6, 15, []), new("underfloor", 50_000, 40, 2, []), new("hatch", 15_000, 5, 3, []),
                new("battery", 40_000, 3, 10, []),
            ],
            [new("living", "garage", 12), new("living", "cupboard", 6), new("garage", "underfloor", 8), new("garage", "hatch", 2), new("garage", "battery", 3)],
            [.. Enumerable.Range(0, bodies).Select(b => new NightBody(
                $"b{b}", Between(0.03, 0.5), Between(30, 400), Between(4, 14), IceGrowth.Cylinder, Between(0.3, 4),
                [new(zones[b % 6], Between(0.05, 0.9))], []))],
            new TimeSeries(times, outdoor),
            3600.0 * hours);
    }
}
