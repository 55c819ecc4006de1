using System.Globalization;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>One fix of a set, in its turn.</summary>
/// <param name="Finding">Title of the finding it is for.</param>
/// <param name="Words">What is done.</param>
/// <param name="Litres">Less water retained once those before it are done, L.</param>
/// <param name="Gone">Titles of faults and warnings that go with it.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Costs">What it costs.</param>
public sealed record SetFix(string Finding, Sentence Words, double Litres, IReadOnlyList<string> Gone, IReadOnlyList<Edit> Edits, FixCost Costs);

/// <summary>What is left, and why.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Title">Its title.</param>
/// <param name="Why">What came of the ideas that were tried.</param>
public sealed record NotMended(string FindingId, string Title, string Why);

/// <summary>A set of fixes that mends a rig together.</summary>
/// <param name="Fixes">In the order in which they are done; each is tried on top of those before it.</param>
/// <param name="BeforeL">Retained now, L.</param>
/// <param name="AfterL">Retained with the whole set, L.</param>
/// <param name="Left">Faults and warnings that stay.</param>
/// <param name="Tried">How many trials it took.</param>
public sealed record MendAllAnswer(IReadOnlyList<SetFix> Fixes, double BeforeL, double AfterL, IReadOnlyList<NotMended> Left, int Tried);

/// <summary>Finds a set of fixes: the best at each step, tried on top of the others, and what turns out not to be needed taken out again.</summary>
public static class MendAll
{
    /// <summary>Most fixes that are tried against each other.</summary>
    public const int MostTried = 20;

    private const int MostRounds = 3;

    /// <summary>
    /// A set for the faults and warnings of a rig under the school it has chosen, within a budget: the question is about nothing, or about "parts 3" (new parts, 0 to 999) or "money 80" (at
    /// the rig's prices). Pure. O(fixes · steps · all studies).
    /// </summary>
    public static MendAllAnswer Ask(Question question)
    {
        var budget = Budget.Of(question.About);
        var refusals = new Dictionary<string, string>();
        var chosen = new List<(Finding Finding, Fix Fix)>();
        int tried = 0;
        // What is mended shows what was behind it: a main that is too flat once its pool is gone.
        for (int round = 0, before = -1; round < MostRounds && chosen.Count > before; round++)
        {
            before = chosen.Count;
            var at = chosen.Count == 0 ? question : Together(question, chosen)!.After;
            Round(question, at, budget, chosen, refusals, ref tried);
        }
        Prune(question, chosen, ref tried);
        return Answer(question, chosen, refusals, tried);
    }

    // The best fix on top of what is chosen, again and again, while it is worth its price.
    private static void Round(Question question, Question at, Budget budget, List<(Finding Finding, Fix Fix)> chosen, Dictionary<string, string> refusals, ref int tried)
    {
        var all = new List<(Finding Finding, Fix Fix)>();
        foreach (var finding in at.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note))
        {
            var answer = Fixer.Of(at, finding);
            tried += answer.Tried;
            if (answer.Refused is { } why) refusals[finding.Id] = why;
            all.AddRange(answer.Fixes.Where(f => budget.Allows([f])).Select(f => (finding, f)));
        }
        // Of each finding its best first, so that none is crowded out.
        var pool = all.GroupBy(f => f.Finding.Id).SelectMany(g => g.Select((f, rank) => (f, rank))).OrderBy(f => f.rank).ThenByDescending(f => f.f.Fix.Wins.Litres).Select(f => f.f).Take(MostTried).ToList();
        double now = Burden(at) + Price(chosen);
        while (true)
        {
            var best = ((Finding Finding, Fix Fix)?)null;
            double least = now - 1e-6;
            foreach (var candidate in pool)
            {
                question.Cancel.ThrowIfCancellationRequested();
                if (chosen.Contains(candidate) || !budget.Allows([.. chosen.Select(c => c.Fix), candidate.Fix])) continue;
                tried++;
                if (Together(question, [.. chosen, candidate]) is not { } trial) continue;
                double burden = Burden(trial.After) + Price(chosen) + Price([candidate]);
                if (burden < least) (best, least) = (candidate, burden);
            }
            if (best is not { } next) break;
            chosen.Add(next);
            now = least;
        }
    }

    private static MendAllAnswer Answer(Question question, List<(Finding Finding, Fix Fix)> chosen, Dictionary<string, string> refusals, int tried)
    {
        var fixes = new List<SetFix>();
        var at = question;
        for (int n = 0; n < chosen.Count; n++)
        {
            var trial = Trial.Of(at, chosen[n].Fix.Edits, out _)!;
            var gain = trial.Gain();
            fixes.Add(new SetFix(chosen[n].Finding.Title, chosen[n].Fix.Words, gain.Litres, gain.Gone, chosen[n].Fix.Edits, trial.Cost()));
            at = trial.After;
        }
        var left = at.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note)
            .Select(f => new NotMended(f.Id, f.Title, refusals.GetValueOrDefault(f.Id) ?? "What would mend it wins less than it costs, or lies beyond the budget.")).ToList();
        double before = question.Ask(DrainDownStudy.Ask).RetainedL;
        return new MendAllAnswer(fixes, before, at.Ask(DrainDownStudy.Ask).RetainedL, left, tried);
    }

    // What another of the set does as well.
    private static void Prune(Question question, List<(Finding Finding, Fix Fix)> chosen, ref int tried)
    {
        for (int n = chosen.Count - 2; n >= 0; n--)
        {
            var without = chosen.Where((_, i) => i != n).ToList();
            tried++;
            if (Together(question, without) is { } trial && Burden(trial.After) + Price(without) <= Burden(Together(question, chosen)!.After) + Price(chosen) + 1e-6) chosen.RemoveAt(n);
        }
    }

    private static Trial? Together(Question question, List<(Finding Finding, Fix Fix)> fixes) =>
        fixes.Count == 0 ? null : Trial.Of(question, [.. fixes.SelectMany(f => f.Fix.Edits)], out _) is { } trial && trial.NoRoom() is null ? trial : null;

    // What a set may take. A fix with a part of unknown price is beyond any sum.
    private sealed record Budget(int? Parts, double? Money)
    {
        public static Budget Of(string? about) => about?.Split(' ') switch
        {
            ["parts", var most] when int.TryParse(most, NumberStyles.None, CultureInfo.InvariantCulture, out int parts) => new(parts, null),
            ["money", var most] when double.TryParse(most, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out double money) => new(null, money),
            _ => new(null, null),
        };

        public bool Allows(IReadOnlyList<Fix> fixes) =>
            (Parts is not { } parts || fixes.Sum(f => f.Costs.Parts) <= parts)
            && (Money is not { } money || (fixes.All(f => f.Costs.Money is not null || f.Costs is { Parts: 0, PipeM: <= 0 }) && fixes.Sum(f => f.Costs.Money ?? 0) <= money));
    }

    // Millilitres that stay, half as much on a slope, and faults in their worth.
    private static double Burden(Question question) =>
        1000 * question.Ask(DrainDownStudy.Ask).RetainedL
        + question.Ask(Adviser.Ask).Findings.Sum(f => f.Severity switch { Severity.Fault => 60, Severity.Warning => 20, _ => 2 } + (f.Kind == FindingKind.Parking ? 500 * f.Number!.Value!.Value : 0));

    private static double Price(List<(Finding Finding, Fix Fix)> fixes) => fixes.Sum(f => 4 * f.Fix.Costs.Parts + f.Fix.Costs.FarthestM + (0.01 * (f.Fix.Costs.Money ?? 0)));
}
