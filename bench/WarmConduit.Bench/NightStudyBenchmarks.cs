using BenchmarkDotNet.Attributes;
using WarmConduit.Application.Tables;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Weather;

namespace WarmConduit.Bench;

/// <summary>The questions of the night.</summary>
public class NightStudyBenchmarks
{
    private readonly Rig _lantern = Repository.Lantern();
    private readonly Rig _tern = RigFile.Read(File.ReadAllBytes(Path.Combine(Repository.Root, "demo", "tern.json")));
    private readonly Thermometers _readings = ThermometerFiles.Read(Readings(),
        [new("living", "living space"), new("garage", "garage"), new("seat", "long seat")]);
    private readonly Rig _sparrow = Repository.Sparrow();
    private readonly Rig _timed = Repository.Lantern() with
    {
        Parts = [.. Repository.Lantern().Parts.Select(p => p.Stock == "circulator" ? p with { Heat = new PartHeat(Switch: PumpSwitch.UsualTimer) } : p)],
    };

    /// <summary>A night of the largest demo rig with its cold and its warm side: what a dragged temperature asks.</summary>
    [Benchmark(Description = "Lantern's night with its cold and its warm side"), Limit(15)]
    public NightHoursAnswer Night() => Ask(_lantern).Ask(NightStudy.Ask);

    /// <summary>Three days of the largest demo rig, and what its circuits do in them.</summary>
    [Benchmark(Description = "Lantern's 72 h with its circuits"), Limit(40)]
    public HeatingAnswer Circuits() => new Question(_lantern, Conditions.Of(_lantern.Brief) with { Hours = 72 }).Ask(HeatingStudy.Ask);

    /// <summary>Every position of its valves, and each mode tried on the night.</summary>
    [Benchmark(Description = "modes of Lantern"), Limit(1000)]
    public ModesAnswer Modes() => Ask(_lantern).Ask(ModesStudy.Ask);

    /// <summary>The cheapest set that holds all its water in a colder night.</summary>
    [Benchmark(Description = "what holds Lantern at -25 °C"), Limit(20_000)]
    public HoldAnswer Hold() => HoldFinder.Ask(Ask(_lantern), new HoldInput(OutdoorC: -25));

    /// <summary>What is shown until that is found.</summary>
    [Benchmark(Description = "a first answer on what holds Lantern at -25 °C"), Limit(3000)]
    public HoldAnswer FirstHold() => HoldFinder.Ask(Ask(_lantern), new HoldInput(OutdoorC: -25, Quick: true));

    /// <summary>Each unknown swung.</summary>
    [Benchmark(Description = "which guess matters, Lantern"), Limit(1000)]
    public GuessAnswer Guess() => Ask(_lantern).Ask(GuessStudy.Ask);

    /// <summary>The curve of hours against temperature.</summary>
    [Benchmark(Description = "the limit of Lantern"), Limit(1000)]
    public LimitAnswer Limit() => Ask(_lantern).Ask(LimitStudy.Ask);

    /// <summary>A hundred winters hour by hour, on all cores.</summary>
    [Benchmark(Description = "a hundred winters of Sparrow"), Limit(20_000)]
    public SeasonAnswer Season() => SeasonStudy.Ask(Ask(_sparrow), new(WeatherPlace.OsmerPlain, 100));

    /// <summary>A winter of the largest demo rig, hour by hour.</summary>
    [Benchmark(Description = "a winter of Lantern, 4,320 h, with its circuits"), Limit(1000)]
    public SeasonAnswer Winter() => SeasonStudy.Ask(Ask(_lantern), new(WeatherPlace.OsmerPlain, 1));

    /// <summary>The same with its circulator on a timer: two starts and stops an hour.</summary>
    [Benchmark(Description = "a winter of Lantern with its circulator on a timer"), Limit(4000)]
    public SeasonAnswer TimedWinter() => SeasonStudy.Ask(Ask(_timed), new(WeatherPlace.OsmerPlain, 1));

    /// <summary>A week with something happening every few hours: each event is a run of its own.</summary>
    [Benchmark(Description = "a week of Lantern with twelve events, with both sides"), Limit(500)]
    public NightHoursAnswer Week() => new Question(_lantern, Conditions.Of(_lantern.Brief) with
    {
        Hours = 168,
        Events = [.. Enumerable.Range(0, 12).Select(n => new PlanEvent($"e{n}", PlanEventKind.SetBack, 12 * n, (12 * n) + 6, HoldC: 8))],
    }).Ask(NightStudy.Ask);

    /// <summary>Three thermometers of a day, every ten minutes.</summary>
    [Benchmark(Description = "calibration of Lantern by three thermometers"), Limit(3000)]
    public CalibrationAnswer Calibration() => CalibrationStudy.Ask(Ask(_lantern), new(_readings));

    /// <summary>Each sleeve, lining and louvre tried, and the best together.</summary>
    [Benchmark(Description = "insulation that pays, Tern"), Limit(2000)]
    public InsulationAnswer Insulation() => Ask(_tern).Ask(InsulationFinder.Ask);

    private static string Readings() => "hour,outdoors,living space,garage,long seat,heater\n"
        + string.Join('\n', Enumerable.Range(0, 145).Select(n => FormattableString.Invariant(
        $"{n / 6.0},{-8 - (2 * Math.Sin(n / 40.0))},{-8 + (24 * Math.Exp(-n / 40.0))},{-8 + (14 * Math.Exp(-n / 25.0))},{-8 + (18 * Math.Exp(-n / 32.0))},0")));

    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief));
}
