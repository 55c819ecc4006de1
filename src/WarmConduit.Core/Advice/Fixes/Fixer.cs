using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>The finding to fix.</summary>
/// <param name="FindingId">Its id; one that the rig does not have gives no fixes.</param>
public sealed record FixesInput(string FindingId) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => [];
}

/// <summary>Tries what a builder might do about a finding on the whole rig, and keeps what mends it.</summary>
public static class Fixer
{
    /// <summary>Most fixes offered for one finding.</summary>
    public const int Most = 6;

    // Heights of larger rigs take longer than a person waits for a list.
    private const int MostRuns = 80, MostPairs = 3;

    /// <summary>
    /// Fixes of one finding, the best first: those that make it go and bring no new fault. Pure. O(ideas · all studies). What is not a finding of the rig has
    /// none.
    /// </summary>
    public static FixesAnswer Ask(Question question, FixesInput input)
    {
        var finding = question.Ask(Adviser.Ask).Findings.FirstOrDefault(f => f.Id == input.FindingId);
        return finding is null ? new FixesAnswer(input.FindingId, [], 0, "This issue is gone.") : Of(question, finding, question.GoOn);
    }

    /// <summary>Fixes of <paramref name="finding"/>.</summary>
    internal static FixesAnswer Of(Question question, Finding finding, Action<double, double>? told = null)
    {
        var fixes = new Dictionary<string, (double Worth, bool Gone, Fix Fix)>();
        var seen = new HashSet<string>();
        string? refused = null;
        int tried = 0;
        var ideas = new Ideas(question).For(finding).ToList();
        void Try(Idea idea)
        {
            question.Cancel.ThrowIfCancellationRequested();
            told?.Invoke(tried, ideas.Count);
            if (!seen.Add(Key(idea.Edits))) return;
            tried++;
            if (Trial.Of(question, idea.Edits, out string? why) is not { } trial)
            {
                refused ??= why;
                return;
            }
            if (trial.NoRoom() is { } full)
            {
                refused ??= $"{idea.Words.Print(UnitSystem.Metric)}: {full}";
                return;
            }
            var gain = trial.Gain();
            if (Worth(question, finding, trial, gain, out bool gone) is not { } worth)
            {
                string lacking = trial.NewFault() is { } made ? $"then {made} is a new fault"
                    : gain.Litres < -0.001 ? $"then {(gain.Worse.Count > 0 ? gain.Worse[0].Words : "the rig")} keeps more water" : "it does not help enough";
                refused ??= $"{idea.Words.Print(UnitSystem.Metric)}: {lacking}";
                return;
            }
            var cost = trial.Cost();
            worth -= 25 * cost.Parts + 10 * Math.Max(0, cost.PipeM) + 40 * cost.FarthestM + 2 * cost.Moved + cost.StorageL + 20 * cost.OutOfReach
                + 0.1 * (cost.Money ?? 0);
            string sort = idea.Sort ?? idea.Words.Print(UnitSystem.Metric);
            // One cure has one height: the first that mends it, however else it is come by.
            if (fixes.TryGetValue(sort, out var known) && (known.Gone || (!gone && known.Worth >= worth))) return;
            fixes[sort] = (worth, gone, new Fix(sort, idea.Words, idea.Edits, trial.Edited.Effect, gain, cost, idea.Band));
        }
        bool water = Adviser.RuleOf(finding.Kind).Harm.IsWater;
        var (first, rest) = water ? QuickLook.Order(question, ideas) : (ideas, []);
        foreach (var idea in first) Try(idea);
        // Where none alone does, two of them may.
        if (water && !fixes.Values.Any(f => f.Gone))
        {
            int looks = QuickLook.Looks(question);
            foreach (var (_, pair, _) in QuickLook.Pairs(question, first.Concat(rest).Select(i => ("", i)), ref looks).OrderBy(p => Math.Round(p.Litres, 3))
                .Take(MostPairs)) Try(pair);
        }
        // Water that stands in many low places at once, on a slope above all, is mended by all heights together.
        if (water && fixes.Count == 0 && question.Rig.Runs.Count <= MostRuns)
            foreach (var idea in new Ideas(question).OfAllHeights()) Try(idea);
        return new FixesAnswer(
            finding.Id, [.. fixes.Values.OrderByDescending(f => f.Worth).Take(Most).Select(f => f.Fix)], tried + rest.Count,
            fixes.Count > 0 ? null : finding is { Kind: FindingKind.KeepsWater, Severity: Severity.Note }
            ? "This is done by hand when you leave." : tried == 0 ? "No one-click fix."
            : $"{Tried(tried + rest.Count)} {Sentence(refused)}");
    }

    // What it wins, in millilitres or the like; null where the finding stays as it is or a fault comes. An order among fixes, not a measure.
    private static double? Worth(Question question, Finding finding, Trial trial, FixGain gain, out bool gone)
    {
        gone = trial.Compared.IsGone(finding);
        if (trial.NewFault() is not null) return null;
        var after = trial.After.Ask(Adviser.Ask).Findings;
        var harm = Adviser.RuleOf(finding.Kind).Harm;
        double was = finding.Number?.Value ?? 0;
        double? now = after.FirstOrDefault(f => f.Id == finding.Id)?.Number?.Value;
        double less = harm.IsWater ? Math.Min(gain.Litres, trial.Compared.WaterWas(finding) - trial.Compared.WaterAt(finding)) : harm.Less(was, now);
        // What is about water must not leave more of it; what is about people or joints may cost a cupful.
        bool retains = gain.Litres < (harm.OfWater ? -0.001 : -0.1);
        if ((!gone && !harm.Helps(was, less, now)) || retains || (harm.IsWater && gain.Litres < 0.5 * was)) return null;
        int notes = after.Count - question.Ask(Adviser.Ask).Findings.Count;
        return 1000 * Math.Min(Math.Max(gain.Litres, less), 1) + (10 * gain.HoursWon) + (gone ? 100 : 0)
            + 30 * gain.Gone.Count - 60 * gain.Made.Count - 10 * notes;
    }

    private static string Key(IReadOnlyList<Edit> edits) => System.Text.Json.JsonSerializer.Serialize(edits, Rigs.RigFile.Compact);

    private static string? Sentence(string? reason) => reason is null ? null : $"{char.ToUpperInvariant(reason[0])}{reason[1..]}.";

    private static string Tried(int count) => count == 1 ? "Tried one fix; it doesn't help." : $"Tried {count} fixes; none of them helps.";
}
