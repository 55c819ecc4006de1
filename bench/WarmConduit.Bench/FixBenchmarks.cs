using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.Parking;

namespace WarmConduit.Bench;

/// <summary>Findings with all that would mend them tried on the whole rig, and the questions of the drain-down.</summary>
public class FixBenchmarks
{
    private readonly Rig _lantern = Repository.Lantern();
    private readonly Rig _tern = RigFile.Read(File.ReadAllBytes(Path.Combine(Repository.Root, "demo", "tern.json")));

    /// <summary>Every finding of the largest demo rig, with its fixes.</summary>
    [Benchmark(Description = "Lantern's findings with all fixes tried"), Limit(1000)]
    public int Lantern() => AllFixes(_lantern);

    /// <summary>The fixes of one finding: what a reader waits for.</summary>
    [Benchmark(Description = "the fixes of Tern's first finding"), Limit(300)]
    public FixesAnswer First() => Fixer.Ask(Ask(_tern), new(Adviser.Ask(Ask(_tern)).Findings[0].Id));

    /// <summary>A set that mends a rig.</summary>
    [Benchmark(Description = "Tern mended as a whole")]
    public FixAllAnswer Mended() => FixAll.Ask(Ask(_tern), new());

    /// <summary>The map of attitudes.</summary>
    [Benchmark(Description = "Lantern's parking envelope, 81 × 81"), Limit(150)]
    public ParkingAnswer Parking() => ParkingStudy.Ask(Ask(_lantern));

    /// <summary>The order of draining, each step forgotten in turn.</summary>
    [Benchmark(Description = "Lantern's order of draining"), Limit(200)]
    public DrainOrderAnswer Order() => DrainOrderStudy.Ask(Ask(_lantern));

    internal static int AllFixes(Rig rig) => Adviser.Ask(Ask(rig)).Findings.Sum(f => Fixer.Ask(Ask(rig), new(f.Id)).Fixes.Count);

    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief));
}

/// <summary>How trying grows with the rig: one finding of rigs of more and more runs.</summary>
public class FixGrowthBenchmarks
{
    private Rig _rig = null!;

    /// <summary>Runs.</summary>
    [Params(96, 192, 416, 992)]
    public int Size { get; set; }

    /// <summary>Lays it out.</summary>
    [GlobalSetup]
    public void Setup() => _rig = Repository.Times(Size / 32);

    /// <summary>What would mend a pool.</summary>
    [Benchmark(Description = "fixes of one pool, runs")]
    public FixesAnswer Pool() => Fixer.Ask(new Question(_rig, Conditions.Of(_rig.Brief)), new("pool:kitchen-cold"));
}
