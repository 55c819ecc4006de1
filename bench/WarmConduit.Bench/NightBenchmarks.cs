using System.Text.Json;
using BenchmarkDotNet.Attributes;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Tests.Heat;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Bench;

/// <summary>72 h, 6 zones, 202 bodies, solved elsewhere to 1e-8: time, and error against step.</summary>
[Engine]
public class NightBenchmarks
{
    private static readonly JsonElement Row = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(Repository.Root, "bench", "cases",
        "night-200.json"))).RootElement[0];
    private readonly NightNetwork _night = NightCase.Read(Row.GetProperty("input"));
    private readonly NightOptions _options = new(ReportS: NightCase.Reports(Row.GetProperty("input")));

    /// <summary>The whole of it.</summary>
    [Benchmark(Description = "night of 72 h, 202 bodies"), Limit(10, 1024)]
    public NightAnswer Night() => NightEngine.Run(_night, _options);

    /// <summary>Worst errors at the default step, and at others.</summary>
    public static void Accuracy(Action<string, double, string, double> add)
    {
        var night = NightCase.Read(Row.GetProperty("input"));
        foreach (double step in (double[])[0, 3600, 1800, 900, 450, 225, 112.5])
        {
            var options = step > 0 ? new NightOptions(step, ReportS: NightCase.Reports(Row.GetProperty("input")))
                : new NightOptions(ReportS: NightCase.Reports(Row.GetProperty("input")));
            var answer = NightEngine.Run(night, options);
            var (kelvin, ice) = Worst(night, answer);
            string at = step > 0 ? FormattableString.Invariant($"steps of {step} s at most ({answer.Steps})") : "default steps";
            add($"night-200, worst temperature, {at}", kelvin, "K", step > 0 ? double.NaN : 0.10);
            add($"night-200, worst ice fraction, {at}", ice, "", step > 0 ? double.NaN : 0.01);
            if (step == 0) add("night-200, heat balance, gap", answer.Balance.Gap(), "", 1e-3);
        }
    }

    private static (double Kelvin, double Ice) Worst(NightNetwork night, NightAnswer answer)
    {
        double kelvin = 0, ice = 0;
        int row = 0;
        foreach (var r in Row.GetProperty("expected").Rows("rows"))
        {
            for (int z = 0; z < night.Zones.Count; z++)
                kelvin = Math.Max(kelvin, Math.Abs(answer.ZoneC[row, z] - r.GetProperty("zones_C").Num(night.Zones[z].Id)));
            for (int b = 0; b < night.Bodies.Count; b++)
            {
                var body = r.GetProperty("bodies").GetProperty(night.Bodies[b].Id);
                kelvin = Math.Max(kelvin, Math.Abs(answer.BodyC[row, b] - body.Num("temperature_C")));
                ice = Math.Max(ice, Math.Abs(answer.IceFraction[row, b] - body.Num("iceFraction")));
            }
            row++;
        }
        return (kelvin, ice);
    }
}

/// <summary>How a night grows with its bodies.</summary>
[Engine]
public class NightGrowthBenchmarks
{
    private NightNetwork _night = null!;

    /// <summary>Bodies.</summary>
    [Params(50, 100, 200, 400)]
    public int Size { get; set; }

    /// <summary>Three days of frost.</summary>
    [GlobalSetup]
    public void Setup() => _night = Networks.Night(Size, 72, seed: 5);

    /// <summary>72 h.</summary>
    [Benchmark(Description = "night of 72 h, bodies")]
    public NightAnswer Night() => NightEngine.Run(_night);
}

/// <summary>A winter hour by hour.</summary>
[Engine]
public class SeasonBenchmarks
{
    private NightNetwork _winter = null!;

    /// <summary>Hours.</summary>
    [Params(540, 1080, 2160, 4320)]
    public int Size { get; set; }

    /// <summary>120 bodies.</summary>
    [GlobalSetup]
    public void Setup() => _winter = Networks.Night(120, Size, seed: 9);

    /// <summary>All of it.</summary>
    [Benchmark(Description = "winter with 120 bodies, hours"), Limit(500, AtSize = 4320)]
    public NightAnswer Winter() => NightEngine.Run(_winter);
}
