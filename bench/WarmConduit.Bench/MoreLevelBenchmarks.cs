using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Levels;

namespace WarmConduit.Bench;

/// <summary>81 × 81 attitudes.</summary>
[Engine]
public class EnvelopeBenchmarks
{
    private LevelGraph _graph = null!;
    private readonly double[] _angles = ParkingEnvelope.Angles(4, 81);

    /// <summary>Runs.</summary>
    [Params(75, 150, 300, 600)]
    public int Size { get; set; }

    /// <summary>A tree with a few loops; every run has a bend.</summary>
    [GlobalSetup]
    public void Setup() => _graph = new LevelGraph(Networks.Levels(Size * 19 / 20, Size / 20, seed: 3));

    /// <summary>On one core.</summary>
    [Benchmark(Description = "envelope of 81 × 81 attitudes, runs"), Limit(150, AtSize = 300)]
    public EnvelopeAnswer Envelope() => ParkingEnvelope.Ask(_graph, _angles, _angles, [1, 2, 3]);
}

/// <summary>Heights that make a system fall.</summary>
[Engine]
public class AutoFallBenchmarks
{
    private FallQuestion _question = null!;

    /// <summary>Points.</summary>
    [Params(50, 100, 200, 400)]
    public int Size { get; set; }

    /// <summary>A tree down to one drain, with crests that pinch it.</summary>
    [GlobalSetup]
    public void Setup() => _question = Networks.Falls(Size, seed: 11);

    /// <summary>Margin, heights, certificate and changes.</summary>
    [Benchmark(Description = "auto-fall, points"), Limit(5, AtSize = 200)]
    public FallAnswer Solve() => AutoFall.Solve(_question);
}

/// <summary>What the air sweeps, in a system with many loops; a twentieth of its parts are one-way in the harder case.</summary>
[Engine]
public class SweptBenchmarks
{
    private SweepEdge[] _plain = null!;
    private SweepEdge[] _oneWay = null!;

    /// <summary>Edges.</summary>
    [Params(500, 1000, 2000, 4000)]
    public int Size { get; set; }

    /// <summary>A tree with a fifth of its edges as loops.</summary>
    [GlobalSetup]
    public void Setup() => (_plain, _oneWay) = (Networks.Sweep(Size, oneWay: 0, seed: 2), Networks.Sweep(Size, oneWay: 20, seed: 2));

    /// <summary>All both ways.</summary>
    [Benchmark(Description = "swept, edges"), Limit(10, AtSize = 2000)]
    public SweptAnswer Plain() => Swept.Find(_plain, "n0", "n7");

    /// <summary>Every twentieth one-way.</summary>
    [Benchmark(Description = "swept with one-way parts, edges"), Limit(10, AtSize = 2000)]
    public SweptAnswer OneWay() => Swept.Find(_oneWay, "n0", "n7");
}
