using System.Text.Json;
using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Standing;

namespace WarmConduit.Bench;

/// <summary>The questions that a drag on the bench asks: the edit applied, and all that the bench shows.</summary>
public class RigBenchmarks
{
    private static readonly Edit[] Nudge = [new MoveThings(["runs/kitchen-cold/bends/b2"], new Point3(0, 0, 0.005))];
    private readonly Rig _sparrow = Repository.Sparrow();
    private readonly Rig _large = Repository.Times(13);
    private Question _base = null!, _largeBase = null!;

    /// <summary>The harder night: full of water.</summary>
    [GlobalSetup]
    public void Setup()
    {
        _base = new Question(_sparrow, Wet(_sparrow)).Warm();
        _largeBase = new Question(_large, Wet(_large)).Warm();
    }

    /// <summary>All that the bench shows of the demo rig after a nudge.</summary>
    [Benchmark(Description = "a nudge of Sparrow answered"), Limit(10)]
    public object Sparrow() => Ask(_base, _sparrow);

    /// <summary>The same at the size to work at.</summary>
    [Benchmark(Description = "a nudge of 416 runs answered"), Limit(20)]
    public object Large() => Ask(_largeBase, _large);

    /// <summary>The same as it is sent.</summary>
    [Benchmark(Description = "a nudge of 416 runs answered and written as JSON")]
    public byte[] LargeWritten() => JsonSerializer.SerializeToUtf8Bytes(Ask(_largeBase, _large), RigFile.Compact);

    /// <summary>The verdict of a card on the shelf, when it is not known yet.</summary>
    [Benchmark(Description = "the verdict on 416 runs")]
    public StandingAnswer Verdict() => new Question(_large, Conditions.Of(_large.Brief)).Ask(StandingStudy.Ask);

    /// <summary>A save of 416 runs as far as the document goes: edited, checked, its effect found, written.</summary>
    [Benchmark(Description = "an edit of 416 runs applied and packed")]
    public int Saved() => WarmConduit.Store.Documents.Pack(Editor.Apply(_large, Nudge).Rig).Content.Length;

    private static Conditions Wet(Rig rig) => Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = true };

    private static object Ask(Question earlier, Rig rig)
    {
        var question = earlier.On(Editor.Apply(rig, Nudge).Rig, CancellationToken.None);
        return new { Drain = question.Ask(DrainDownStudy.Ask), Ladder = question.Ask(FreezeLadderStudy.Ask), Advice = question.Ask(Adviser.Ask) };
    }
}
