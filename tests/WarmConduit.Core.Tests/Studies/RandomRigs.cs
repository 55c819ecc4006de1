using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Random water systems that hang together.</summary>
internal static class RandomRigs
{
    /// <summary>A tank, a pump, and taps on a random tree of tees.</summary>
    public static (Rig Rig, IReadOnlyList<string> Taps) Tree(Random random, int taps) => Tree(random, taps, new RigBuilder()
        .Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
        .Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0)).Run("suction", "tank.outlet", "pump.in"), "pump.out");

    /// <summary>Taps on a random tree of tees behind a port.</summary>
    public static (Rig Rig, IReadOnlyList<string> Taps) Tree(Random random, int taps, RigBuilder rig, string from)
    {
        double X() => Math.Round(1 + 2 * random.NextDouble(), 3);
        double Z() => Math.Round(random.NextDouble(), 3);
        var free = new List<string> { from };
        var names = new List<string>();
        string Take()
        {
            int i = random.Next(free.Count);
            string port = free[i];
            free.RemoveAt(i);
            return port;
        }
        for (int t = 0; t < taps - 1; t++)
        {
            string id = $"tee-{t}";
            var (x, y, z) = (X(), X(), Z());
            rig.Part(id, "tee", ("a", x, y, z), ("b", x + 0.08, y, z), ("c", x + 0.04, y + 0.04, z)).Run($"to-{id}", Take(), $"{id}.a");
            free.AddRange([$"{id}.b", $"{id}.c"]);
        }
        for (int t = 0; t < taps; t++)
        {
            string id = $"tap-{t}";
            var (x, y, z) = (X(), X(), Z());
            rig.Part(id, "cold-tap", ("cold", x, y, z), ("spout", x, y, z + 0.1)).Run($"to-{id}", Take(), $"{id}.cold");
            names.Add(id);
        }
        return (rig.Build(), names);
    }
}
