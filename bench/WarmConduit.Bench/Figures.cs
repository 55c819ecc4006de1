using System.Globalization;
using System.Reflection;
using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Diagnosers;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Loggers;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;

namespace WarmConduit.Bench;

/// <summary>What a benchmark must stay within.</summary>
[AttributeUsage(AttributeTargets.Method)]
public sealed class LimitAttribute(double ms, double kilobytes = double.PositiveInfinity) : Attribute
{
    /// <summary>Mean time, ms.</summary>
    public double Ms { get; } = ms;

    /// <summary>Allocation a call, kB.</summary>
    public double Kilobytes { get; } = kilobytes;

    /// <summary>The size at which the limit holds, where the benchmark has several.</summary>
    public int AtSize { get; init; }
}

/// <summary>Marks the benchmarks of the engines.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class EngineAttribute : Attribute;

/// <summary>A measured number, with its limit where it has one.</summary>
public sealed record Figure(string Name, double Value, string Unit, double? Limit)
{
    /// <summary>Whether it is at or under its limit.</summary>
    public bool Within => Limit is not { } limit || Value <= limit;
}

/// <summary>Runs benchmarks and collects their figures.</summary>
internal sealed class Figures
{
    private readonly List<Figure> _all = [];

    public bool AllWithin => _all.All(f => f.Within);

    public void Add(string name, double value, string unit, double? limit = null) => _all.Add(new Figure(name, value, unit, limit));

    public void Run(string filter)
    {
        // In this process: a second build for every benchmark would need the network and minutes.
        var config = ManualConfig.CreateEmpty()
            .AddJob(Job.ShortRun.WithToolchain(InProcessEmitToolchain.Instance).WithIterationCount(5))
            .AddDiagnoser(MemoryDiagnoser.Default)
            .AddLogger(NullLogger.Instance)
            .WithOptions(ConfigOptions.DisableLogFile);
        foreach (var type in typeof(Figures).Assembly.GetTypes().Where(t => Wanted(t, filter)).OrderBy(t => t.Name, StringComparer.Ordinal))
        {
            var summary = BenchmarkRunner.Run(type, config);
            foreach (var report in summary.Reports.Where(r => r.ResultStatistics is not null)) Take(report);
            if (summary.HasCriticalValidationErrors || summary.Reports.Any(r => r.ResultStatistics is null)) Add($"{type.Name} failed", 1, "", 0);
            AddGrowth(summary.Reports.Where(r => r.ResultStatistics is not null).ToList());
            type.GetMethod("Accuracy", BindingFlags.Public | BindingFlags.Static)?.Invoke(null,
                [new Action<string, double, string, double>((n, v, u, l) => Add(n, v, u, double.IsNaN(l) ? null : l))]);
        }
    }

    private static bool Wanted(Type type, string filter)
    {
        if (!type.GetMethods().Any(m => m.GetCustomAttribute<BenchmarkAttribute>() is not null)) return false;
        return filter switch
        {
            "" => true,
            "engines" => type.GetCustomAttribute<EngineAttribute>() is not null,
            _ => type.Name.Contains(filter, StringComparison.OrdinalIgnoreCase),
        };
    }

    private static string NameOf(BenchmarkDotNet.Reports.BenchmarkReport report) => report.BenchmarkCase.Descriptor.WorkloadMethodDisplayInfo.Trim('\'');

    private static int SizeOf(BenchmarkDotNet.Reports.BenchmarkReport report) =>
        report.BenchmarkCase.Parameters.Items.FirstOrDefault(p => p.Name == "Size")?.Value as int? ?? 0;

    private void Take(BenchmarkDotNet.Reports.BenchmarkReport report)
    {
        int size = SizeOf(report);
        string name = size > 0 ? $"{NameOf(report)}, {size}" : NameOf(report);
        var limit = report.BenchmarkCase.Descriptor.WorkloadMethod.GetCustomAttribute<LimitAttribute>();
        if (limit is not null && limit.AtSize != 0 && limit.AtSize != size) limit = null;
        Add(name, report.ResultStatistics!.Mean / 1e6, "ms", limit?.Ms);
        double bytes = report.GcStats.GetBytesAllocatedPerOperation(report.BenchmarkCase) ?? 0;
        Add($"{name}, allocated", bytes / 1024.0, "kB", limit is { } l && double.IsFinite(l.Kilobytes) ? l.Kilobytes : null);
    }

    // Time ~ size^p: the slope of a straight line through the logarithms.
    private void AddGrowth(List<BenchmarkDotNet.Reports.BenchmarkReport> reports)
    {
        foreach (var family in reports.Where(r => SizeOf(r) > 0).GroupBy(NameOf))
        {
            var points = family.Select(r => (X: Math.Log(SizeOf(r)), Y: Math.Log(r.ResultStatistics!.Mean))).ToList();
            if (points.Count < 3) continue;
            double mx = points.Average(p => p.X), my = points.Average(p => p.Y);
            Add($"{family.Key}, growth", points.Sum(p => (p.X - mx) * (p.Y - my)) / points.Sum(p => (p.X - mx) * (p.X - mx)), "exponent");
        }
    }

    public void Print(TextWriter to)
    {
        foreach (var f in _all)
        {
            string limit = f.Limit is { } l ? string.Create(CultureInfo.InvariantCulture, $"   (limit {l:G4}{(f.Within ? "" : ", EXCEEDED")})") : "";
            to.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{f.Name}: {f.Value:G4} {f.Unit}{limit}"));
        }
    }

    public void WriteTable(string path)
    {
        using var table = new StreamWriter(path);
        table.WriteLine("# Figures of the engines\n\nPrinted by `./warm-conduit bench engines`, one core unless said.\n\n| figure | value | limit " +
            "|\n|---|---:|---:|");
        foreach (var f in _all)
            table.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {f.Name} | {f.Value:G3} {f.Unit} | {(f.Limit is { } l ? $"{l:G4}" : "")} |"));
    }
}
