using System.Text.Json;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Rigs that nobody would build and the rules allow, in nights that no place has: whatever is asked of them is answered, or refused by what is wrong,
/// and every figure of an answer can be written down.</summary>
public class ExtremeRigTests
{
    /// <summary>How many; the long campaign takes more.</summary>
    private static int Rigs => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_EXTREME_RIGS"), out int n) ? n : 4;

    // Inputs of all kinds, those that no screen would send among them; what the rules of the input refuse is not asked.
    private static IStudyInput? Input(Study study, Rig rig, Random random, string? finding)
    {
        string part = rig.Parts.Count > 0 ? rig.Parts[random.Next(rig.Parts.Count)].Id : "none";
        double[] hours = [.. Enumerable.Range(0, 24).Select(h => 3600.0 * h)];
        return study.Name switch
        {
            "afterStep" => new AfterStepInput(random.Next(1001)),
            "proof" => new ProofInput(part, random.NextDouble() * Math.Pow(10, random.Next(5))),
            "rungWhy" => new RungWhyInput(part),
            "service" => new ServiceInput(part),
            "waterFlow" => new WaterFlowInput(
                Enum.GetValues<TaskKind>()[random.Next(10)], Open: [.. rig.Parts.Where(_ => random.Next(2) == 0).Select(p => p.Id).Take(100)]),
            "trial" => new TrialInput([new MoveThings([$"parts/{part}"], new(0.1, 0, 0.1))]),
            "blowOut" => Air(),
            "antifreeze" => new AntifreezeInput(0.1 + 0.5 * random.NextDouble(), 5 * random.NextDouble(), random.Next(2) == 0),
            "compressor" => new CompressorInput(Air(), random.Next(301), $"{part}.cold", 1 + random.Next(600)),
            "procedure" => new ProcedureInput(Enum.GetValues<ProcedureKind>()[random.Next(13)], Air()),
            "fixes" => new FixesInput(finding ?? part),
            "season" => new SeasonInput(Enum.GetValues<WeatherPlace>()[random.Next(3)], 1),
            "autoFall" => new AutoFallInput([$"parts/{part}"], [new($"parts/{part}", 0.1, 0.1)], random.Next(11)),
            "places" => new PlacesInput(part),
            "calibration" => new CalibrationInput(new Thermometers(
                hours, [.. hours.Select(_ => random.Next(-60, 51) + 0.0)], random.Next(2) == 0 ? null : hours.Select(_ => 100.0 * random.Next(500)).ToArray(),
                [new(rig.Shell.Zones.Count > 0 ? rig.Shell.Zones[0].Id : "none", [.. hours.Select(_ => random.Next(-60, 61) + 0.0)])])),
            _ => null,
        };

        BlowOutInput Air() => new((AirSource)random.Next(4), random.Next(2) == 0 ? null : random.Next(2001), random.Next(501), random.Next(301),
            random.Next(1, 5), random.Next(2) == 0);
    }

    [Fact]
    public void Whatever_the_rules_allow_is_answered_in_figures_that_can_be_written_down()
    {
        var failed = new System.Collections.Concurrent.ConcurrentBag<string>();
        int answered = 0, stopped = 0, many = Rigs;
        Parallel.For(0, many, seed =>
        {
            var rig = ExtremeRig.Of(seed);
            var random = new Random(seed);
            var night = ExtremeRig.Night(random, rig);
            if (night.Check(rig).Count > 0) return;
            string? finding = null;
            using var enough = new CancellationTokenSource(TimeSpan.FromMinutes(2));
            // Answers build on one another, as for a screen that wants them all.
            var whole = new Question(rig, night, enough.Token);
            foreach (var study in StudyRegistry.All)
            {
                // What takes long is left to the campaign; a set of fixes tries what all the others answer, a thousand times.
                if (study.Name == "fixAll" || (many < 100 && study.Name is "season" or "fixes")) continue;
                var own = Input(study, rig, random, finding);
                foreach (var input in study.Usual && own is not null ? [null, own] : (IStudyInput?[])[own])
                {
                    try
                    {
                        if (input?.Check(rig).Any() == true) continue;
                        object answer = study.Ask(whole, input);
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
                        failed.Add($"rig {seed}, {study.Name} of {input}: {e.GetType().Name} {e.Message} " +
                            $"{e.StackTrace?.Split('\n').FirstOrDefault(l => l.Contains("WarmConduit", StringComparison.Ordinal))}");
                    }
                }
            }
        });
        Assert.True(failed.IsEmpty, string.Join("\n", failed.Order().Take(40)));
        Assert.True(answered > 12 * many);
        CampaignTable.Row($"| {many} | {answered} | {stopped} | 0 |");
    }
}
