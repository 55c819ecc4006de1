using System.Text.Json;

namespace WarmConduit.Core.Tests.Reference;

/// <summary>Rows of a family of reference cases: those beside the tests, or of the folder that REFERENCE_CASES names.</summary>
internal static class Cases
{
    public static IReadOnlyList<(JsonElement Input, JsonElement Expected)> Of(string family)
    {
        string beside = Path.Combine(AppContext.BaseDirectory, "Data", family + ".json");
        string path = Environment.GetEnvironmentVariable("REFERENCE_CASES") is { Length: > 0 } folder && Path.Combine(folder, family + ".json") is var other
            && File.Exists(other) ? other : beside;
        using var file = JsonDocument.Parse(File.ReadAllBytes(path));
        return [.. file.RootElement.EnumerateArray().Select(row => (row.GetProperty("input").Clone(), row.GetProperty("expected").Clone()))];
    }

    /// <summary>Runs every row; fails with all that were off.</summary>
    public static void Each(string family, Action<JsonElement, JsonElement, Checker> solve)
    {
        var rows = Of(family);
        Assert.NotEmpty(rows);
        var checker = new Checker();
        foreach (var (input, expected) in rows)
        {
            checker.Row = input.GetProperty("id").GetString()!;
            solve(input, expected, checker);
        }
        Assert.True(checker.Off.Count == 0, string.Join('\n', checker.Off));
    }

    public sealed class Checker
    {
        public string Row { get; set; } = "";

        public List<string> Off { get; } = [];

        /// <summary>Within a share of the expected value, or an absolute distance.</summary>
        public void Near(string what, double expected, double actual, double relative, double absolute = 0)
        {
            if (!(Math.Abs(actual - expected) <= Math.Max(relative * Math.Abs(expected), absolute)))
                Off.Add(FormattableString.Invariant($"{Row} {what}: {actual} instead of {expected}"));
        }

        public void Same<T>(string what, T expected, T actual)
        {
            if (!EqualityComparer<T>.Default.Equals(expected, actual)) Off.Add($"{Row} {what}: {actual} instead of {expected}");
        }
    }
}
