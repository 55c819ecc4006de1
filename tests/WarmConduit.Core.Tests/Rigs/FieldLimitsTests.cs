using System.Text.RegularExpressions;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Rigs;

/// <summary>Limits of figures: one table for checkers and screens.</summary>
public partial class FieldLimitsTests
{
    [Fact]
    public void Every_limit_that_a_screen_names_is_one_of_the_core()
    {
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "WarmConduit.slnx"))) root = Path.GetDirectoryName(root)!;
        string[] named = [.. Directory.EnumerateFiles(Path.Combine(root, "web/src"), "*.tsx", SearchOption.AllDirectories)
            .SelectMany(f => LimitPattern().Matches(File.ReadAllText(f))).Select(m => m.Groups[1].Value).Distinct()];
        Assert.True(named.Length > 20);
        Assert.Empty(named.Except(FieldLimits.All.Keys));
    }

    [Fact]
    public void What_lies_just_beyond_is_refused_with_what_is_allowed_and_the_limit_itself_is_taken()
    {
        foreach (var (name, (least, most, unit)) in FieldLimits.All)
        {
            Assert.True(least < most, name);
            Assert.Empty(FieldChecker.Of(c => c.Range(name, least)).Concat(FieldChecker.Of(c => c.Range(name, most))));
            double step = 1e-6 * (most - least);
            foreach (double beyond in (double[])[least - step, most + step, double.NaN, double.PositiveInfinity])
                Assert.Contains(FormattableString.Invariant($"between {least} and {most} {unit}").TrimEnd(),
                    FieldChecker.Of(c => c.Range(name, beyond)).Single().Reason);
        }
    }

    [GeneratedRegex("limit=\"([^\"]+)\"")]
    private static partial Regex LimitPattern();
}
