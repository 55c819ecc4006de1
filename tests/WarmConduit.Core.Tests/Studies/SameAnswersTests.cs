using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A fingerprint of each study's answers over random rigs and nights: what only tidies the code leaves it as it was.</summary>
public class SameAnswersTests
{
    private static int Rigs => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_SAME_RIGS"), out int n) ? n : 500;

    [Fact(Explicit = true)]
    public void Fingerprints()
    {
        var prints = new ConcurrentDictionary<string, byte[][]>();
        Parallel.For(0, Rigs, seed =>
        {
            var random = new Random(seed);
            // One in five is such as nobody would build.
            var rig = seed % 5 == 4 ? ExtremeRig.Of(seed) : AnyRig.Of(seed);
            var night = ExtremeRig.Night(random, rig);
            if (night.Check(rig).Count > 0 || rig.Runs.Count > 60) night = Conditions.Of(rig.Brief);
            var whole = new Question(rig, night);
            string finding = "", rung = "";
            foreach (var study in StudyRegistry.All)
            {
                // Dear ones of a few.
                if (study.Name is "season" or "fixes" or "insulation" or "places" or "autoFall" or "guess" or "limit" && seed % 20 != 0) continue;
                if (study.Name is "calibration" or "fixAll") continue;
                IStudyInput? input = study.Name switch
                {
                    "fixes" => new FixesInput(finding),
                    "rungWhy" => new RungWhyInput(rung),
                    "afterStep" => new AfterStepInput(2),
                    "proof" => new ProofInput(rig.Parts.FirstOrDefault(p => p.Stock.StartsWith("drain", StringComparison.Ordinal))?.Id ?? "none", 0.5),
                    "season" => new SeasonInput(WeatherPlace.OsmerPlain, 1),
                    "autoFall" => new AutoFallInput(SlopeDeg: 1),
                    _ => null,
                };
                string said;
                try
                {
                    object answer = study.Ask(whole, input);
                    if (answer is AdviceAnswer { Findings.Count: > 0 } advice) finding = advice.Findings[0].Id;
                    if (answer is FreezeLadderAnswer { Rungs.Count: > 0 } ladder) rung = ladder.Rungs[0].Id;
                    said = JsonSerializer.Serialize(answer, study.Answer, RigFile.Compact);
                }
                catch (TooLargeException)
                {
                    said = "too large";
                }
                prints.GetOrAdd(study.Name, _ => new byte[Rigs][])[seed] = SHA256.HashData(Encoding.UTF8.GetBytes(said));
            }
        });
        foreach (var (name, print) in prints.OrderBy(p => p.Key, StringComparer.Ordinal))
            CampaignTable.Row($"| {name} | {print.Count(p => p is not null)} | " +
                $"{Convert.ToHexStringLower(SHA256.HashData(print.SelectMany(p => p ?? []).ToArray()))[..12]} |");
    }
}
