using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Bench;

/// <summary>Pools in random networks with loops.</summary>
[Engine]
public class LevelBenchmarks
{
    private LevelNetwork _network = null!;

    /// <summary>Nodes.</summary>
    [Params(125, 250, 500, 1000)]
    public int Size { get; set; }

    /// <summary>A tree with a tenth of its edges again as loops.</summary>
    [GlobalSetup]
    public void Setup() => _network = Networks.Levels(Size, Size / 10, seed: 7);

    /// <summary>From the plain network to its pools.</summary>
    [Benchmark(Description = "pools of a network, nodes"), Limit(1, AtSize = 500)]
    public int Pools() => Draining.Solve(_network, new Attitude(1.2, -0.7)).Pools().Count;
}
