using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Flow;

namespace WarmConduit.Bench;

/// <summary>Drinking water with open taps.</summary>
[Engine]
public class FlowBenchmarks
{
    private FlowNetwork _network = null!, _circuit = null!;

    /// <summary>Edges.</summary>
    [Params(15, 30, 60, 120)]
    public int Size { get; set; }

    /// <summary>A pump, a tree of pipes with loops, every fourth end a tap.</summary>
    [GlobalSetup]
    public void Setup() => (_network, _circuit) = (Networks.Flow(Size, seed: 4), Networks.Circuit(Size, seed: 4));

    /// <summary>The same network closed, and full of glycol and water at 60 °C: a heating circuit.</summary>
    [Benchmark(Description = "flow of a circuit, edges"), Limit(3, AtSize = 60)]
    public FlowAnswer Circuit() => FlowSolver.Solve(_circuit);

    /// <summary>From a cold start.</summary>
    [Benchmark(Description = "flow, edges"), Limit(3, AtSize = 60)]
    public FlowAnswer Solve() => FlowSolver.Solve(_network);
}
