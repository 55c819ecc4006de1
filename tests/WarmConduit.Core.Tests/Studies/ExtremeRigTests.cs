using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Rigs.Edits;
using Xunit;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Rigs that nobody would build and the rules allow, in nights that no place has: whatever is asked of them is answered, or refused by what is wrong, and every figure of an answer can be written down.</summary>
public class ExtremeRigTests
{
    private static readonly double[] Figures = [0, 1e-9, 1e-6, 0.001, 0.5, 1, 3, 15, 30, 100, 1000, 1e4, 1e6, -1e-6, -0.3, -30];

    /// <summary>How many; the long campaign takes more.</summary>
    private static int Rigs => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_EXTREME_RIGS"), out int n) ? n : 8;

    private static readonly IReadOnlyList<Study> All =
    [
        .. Study.All, Study.Of("advice", Adviser.Ask), Study.Of("fixes", Fixer.Ask), Study.Of("mendAll", MendAll.Ask), Study.Of("autoFall", HeightFinder.Ask), Study.Of("insulation", InsulationFinder.Ask),
        Study.Of("places", PlaceFinder.Ask),
    ];

    // Studies that may be asked of one thing.
    private static readonly HashSet<string> OfSomething = ["afterStep", "proof", "rungWhy", "calibration", "season", "autoFall", "fixes", "places"];

    // Edits by chance, then figures of the file set to the ends of what is allowed and beyond; what the rules refuse is left as it was.
    private static Rig Any(int seed)
    {
        var random = new Random(seed);
        var rig = seed % 5 == 0 ? DemoRigs.Of("sparrow") : AnyRig.Of(seed);
        for (int n = random.Next(25); n > 0; n--)
        {
            try
            {
                rig = Editor.Apply(rig, [EditGen.On(rig).Generate(new PCG((uint)random.Next(1, 1000), (ulong)random.NextInt64()), null, out _)]).Rig;
            }
            catch (RigFileException)
            {
            }
        }
        for (int n = random.Next(40); n > 0; n--)
        {
            var node = JsonNode.Parse(RigFile.Write(rig))!;
            var numbers = Numbers(node).ToList();
            var (parent, key) = numbers[random.Next(numbers.Count)];
            double figure = Figures[random.Next(Figures.Length)];
            if (parent is JsonObject values) values[(string)key] = figure;
            else ((JsonArray)parent)[(int)key] = figure;
            try
            {
                rig = RigFile.Read(JsonSerializer.SerializeToUtf8Bytes(node));
            }
            catch (RigFileException)
            {
            }
        }
        return rig;
    }

    private static IEnumerable<(JsonNode Parent, object Key)> Numbers(JsonNode node) => node switch
    {
        JsonObject values => values.ToList().SelectMany(v => v.Value is JsonValue n && n.GetValueKind() == JsonValueKind.Number ? [(node, v.Key)] : v.Value is null ? [] : Numbers(v.Value)),
        JsonArray list => list.SelectMany((v, i) => v is JsonValue n && n.GetValueKind() == JsonValueKind.Number ? [(node, (object)i)] : v is null ? [] : Numbers(v)),
        _ => [],
    };

    private static Conditions Night(Random random, Rig rig)
    {
        T OneOf<T>(params T[] all) => all[random.Next(all.Length)];
        return new(
            OneOf(-60.0, -18, -0.01, 0, 0.01, 3, 50), OneOf(0.0, 4, 60), random.Next(2) == 0, OneOf(0.0, 0.01, 12, 95), OneOf(WaterState.Wet, WaterState.Drained), OneOf(0.0, 22, 24), OneOf(0.5, 8, 72),
            new Attitude(OneOf(0, 0, -15, 3, 15), OneOf(0, 0, 2, -15, 15)), rig.Scenarios[random.Next(rig.Scenarios.Count)].Id, InsideC: OneOf<double?>(null, -40, 0, 40), Cloud: OneOf(0.0, 1));
    }

    [Fact]
    public void Whatever_the_rules_allow_is_answered_in_figures_that_can_be_written_down()
    {
        var failed = new System.Collections.Concurrent.ConcurrentBag<string>();
        int answered = 0, stopped = 0, many = Rigs;
        Parallel.For(0, many, seed =>
        {
            var rig = Any(seed);
            var random = new Random(seed);
            var night = Night(random, rig);
            if (night.Check(rig).Count > 0) return;
            string? finding = null;
            using var enough = new CancellationTokenSource(TimeSpan.FromMinutes(2));
            // Answers build on one another, as for a screen that wants them all.
            var whole = new Question(rig, night, null, enough.Token);
            foreach (var study in All)
            {
                // What takes long is left to the campaign; a set of fixes tries what all the others answer, a thousand times.
                if (study.Name == "mendAll" || (many < 100 && study.Name is "season" or "fixes")) continue;
                string? one = study.Name == "fixes" ? finding : rig.Parts.Count > 0 ? rig.Parts[random.Next(rig.Parts.Count)].Id : "none";
                foreach (string? about in OfSomething.Contains(study.Name) ? [null, one] : (string?[])[null])
                {
                    try
                    {
                        object answer = study.Ask(about is null ? whole : new Question(rig, night, about, enough.Token));
                        JsonSerializer.Serialize(answer, study.Answer, RigFile.Compact);
                        if (answer is AdviceAnswer { Findings.Count: > 0 } advice) finding = advice.Findings[0].Id;
                        Interlocked.Increment(ref answered);
                    }
                    catch (Exception e) when (e is RigFileException or TooLargeException or OperationCanceledException)
                    {
                        // Refused by name; or stopped, as whoever asks would be told.
                        if (e is OperationCanceledException) Interlocked.Increment(ref stopped);
                    }
                    catch (Exception e)
                    {
                        failed.Add($"rig {seed}, {study.Name} of {about ?? "all"}: {e.GetType().Name} {e.Message} {e.StackTrace?.Split('\n').FirstOrDefault(l => l.Contains("WarmConduit", StringComparison.Ordinal))}");
                    }
                }
            }
        });
        Assert.True(failed.IsEmpty, string.Join("\n", failed.Order().Take(40)));
        Assert.True(answered > 12 * many);
        CampaignTable.Row($"| {many} | {answered} | {stopped} | 0 |");
    }
}
