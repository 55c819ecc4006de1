using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Studies.WaterFlow;

namespace WarmConduit.Bench;

/// <summary>The water lens: what comes out of a tap, and how valves are set.</summary>
public class WaterBenchmarks
{
    private readonly Rig _lantern = RigFile.Read(File.ReadAllBytes(Path.Combine(Repository.Root, "demo", "lantern.json")));
    private Question _asked = null!;
    private WaterFlowInput _one = null!, _all = null!;

    /// <summary>The positions are known, as they are on the screen.</summary>
    [GlobalSetup]
    public void Setup()
    {
        _asked = new Question(_lantern, Conditions.Of(_lantern.Brief)).Warm();
        string[] taps = [.. _lantern.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer).Select(p => p.Id)];
        var set = WaterFlowStudy.Ask(_asked, new WaterFlowInput(Compare: false)).Settings.ToDictionary(s => s.Id, s => s.Position);
        WaterFlowInput With(IReadOnlyList<string> open) =>
            new(Positions: [.. set.Select(s => new Setting(s.Key, open.Contains(s.Key) ? Positions.Open : s.Value))], Compare: false);
        (_one, _all) = (With([taps[0]]), With(taps));
    }

    /// <summary>One tap open.</summary>
    [Benchmark(Description = "supply of Lantern, one tap open"), Limit(5)]
    public WaterFlowAnswer One() => WaterFlowStudy.Ask(_asked, _one);

    /// <summary>All taps open.</summary>
    [Benchmark(Description = "supply of Lantern, every tap open"), Limit(5)]
    public WaterFlowAnswer All() => WaterFlowStudy.Ask(_asked, _all);

    /// <summary>What air sweeps at every outlet.</summary>
    [Benchmark(Description = "sweep of all outlets of Lantern"), Limit(20)]
    public BlowOutAnswer Sweep() => BlowOutStudy.Ask(_asked, new BlowOutInput());

    /// <summary>A lay-up with air, step by step.</summary>
    [Benchmark(Description = "a procedure of Lantern"), Limit(50)]
    public ProcedureAnswer Procedure() => ProcedureStudy.Ask(new Question(_lantern, Conditions.Of(_lantern.Brief)), new ProcedureInput(ProcedureKind.AirLayUp));

    /// <summary>The positions of every scenario, found anew.</summary>
    [Benchmark(Description = "the scenarios of Lantern"), Limit(200)]
    public TasksAnswer Tasks() => TaskStudy.Ask(new Question(_lantern, Conditions.Of(_lantern.Brief)));
}

/// <summary>Supply at growing sizes: the demo rig side by side, one tap open.</summary>
public class WaterGrowthBenchmarks
{
    private Question _asked = null!;
    private WaterFlowInput _input = null!;

    /// <summary>Runs, about.</summary>
    [Params(70, 280, 980)]
    public int Runs { get; set; }

    /// <summary>As many demo rigs as have so many runs.</summary>
    [GlobalSetup]
    public void Setup()
    {
        var rig = Repository.Times(Runs / 35);
        _asked = new Question(rig, Conditions.Of(rig.Brief)).Warm();
        string tap = rig.Parts.First(p => p.Stock == "mixer").Id;
        var set = WaterFlowStudy.Ask(_asked, new WaterFlowInput(Compare: false)).Settings;
        _input = new WaterFlowInput(Positions: [.. set.Select(s => s.Id == tap ? s with { Position = Positions.Open } : s)], Compare: false);
    }

    /// <summary>One tap open.</summary>
    [Benchmark(Description = "supply by runs")]
    public WaterFlowAnswer One() => WaterFlowStudy.Ask(_asked, _input);
}
