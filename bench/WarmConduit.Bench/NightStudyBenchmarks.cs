using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Bench;

/// <summary>The questions of the night.</summary>
public class NightStudyBenchmarks
{
    private readonly Rig _lantern = RigFile.Read(File.ReadAllBytes(Path.Combine(Repository.Root, "demo", "lantern.json")));
    private readonly Rig _sparrow = Repository.Sparrow();

    /// <summary>A night of the largest demo rig with its cold and its warm side: what a dragged temperature asks.</summary>
    [Benchmark(Description = "Lantern's night with its cold and its warm side"), Limit(60)]
    public NightHoursAnswer Night() => Ask(_lantern).Ask(NightStudy.Ask);

    /// <summary>Each unknown swung.</summary>
    [Benchmark(Description = "which guess matters, Lantern"), Limit(1000)]
    public GuessAnswer Guess() => Ask(_lantern).Ask(GuessStudy.Ask);

    /// <summary>The curve of hours against temperature.</summary>
    [Benchmark(Description = "the limit of Lantern"), Limit(1000)]
    public LimitAnswer Limit() => Ask(_lantern).Ask(LimitStudy.Ask);

    /// <summary>A hundred winters hour by hour, on all cores.</summary>
    [Benchmark(Description = "a hundred winters of Sparrow"), Limit(20_000)]
    public SeasonAnswer Season() => Ask(_sparrow, "osmerPlain 100").Ask(SeasonStudy.Ask);

    private static Question Ask(Rig rig, string? about = null) => new(rig, Conditions.Of(rig.Brief), about);
}
