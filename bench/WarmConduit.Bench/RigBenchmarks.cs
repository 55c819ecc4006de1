using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Bench;

namespace WarmConduit.Bench;

/// <summary>The questions that a drag on the bench asks.</summary>
public class RigBenchmarks
{
    private readonly Rig _rig = Repository.Sparrow();
    private Conditions _wet = null!;

    /// <summary>The harder night: full of water.</summary>
    [GlobalSetup]
    public void Setup() => _wet = Conditions.Of(_rig.Brief) with { Water = WaterState.Wet, HeatOn = true };

    /// <summary>All that the bench shows.</summary>
    [Benchmark(Description = "combined study of Sparrow"), Limit(10)]
    public BenchAnswer Combined() => BenchStudy.Ask(_rig, _wet);
}
