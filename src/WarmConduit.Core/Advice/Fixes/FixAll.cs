using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>What a set of fixes may take.</summary>
/// <param name="MostParts">The most new parts, 0 to 999; left out: no limit.</param>
/// <param name="MostMoney">At the rig's prices, 0 to 1,000,000; left out likewise. A fix with a part of unknown price exceeds any sum.</param>
public sealed record FixAllInput(int? MostParts = null, double? MostMoney = null) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c =>
    {
        c.Range("mostParts", MostParts ?? 0, 0, 999, "");
        c.Range("mostMoney", MostMoney ?? 0, 0, 1e6, "");
    });

    internal bool Allows(IReadOnlyList<FixCost> costs) =>
        (MostParts is not { } parts || costs.Sum(c => c.Parts) <= parts)
        && (MostMoney is not { } money || (costs.All(c => c.Money is not null || c is { Parts: 0, PipeM: <= 0 }) && costs.Sum(c => c.Money ?? 0) <= money));
}

/// <summary>One fix of a set, in its turn.</summary>
/// <param name="Finding">Title of the finding it is for.</param>
/// <param name="Words">What is done.</param>
/// <param name="Litres">Less water left, after those before it, L.</param>
/// <param name="Gone">Titles of faults and warnings that it also fixes.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Costs">What it costs.</param>
public sealed record SetFix(string Finding, Sentence Words, double Litres, IReadOnlyList<string> Gone, IReadOnlyList<Edit> Edits, FixCost Costs);

/// <summary>What is left, and why.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Title">Its title.</param>
/// <param name="Why">Results of the fixes that were tried.</param>
public sealed record NotMended(string FindingId, string Title, string Why);

/// <summary>A set of fixes that work together.</summary>
/// <param name="Fixes">In the order in which they are done; each is tried on top of those before it.</param>
/// <param name="BeforeL">Retained now, L.</param>
/// <param name="AfterL">Retained with the whole set, L.</param>
/// <param name="Wins">What the whole set makes better and worse; null where it is empty.</param>
/// <param name="Left">Faults and warnings that remain.</param>
/// <param name="Tried">How many trials it took.</param>
public sealed record FixAllAnswer(IReadOnlyList<SetFix> Fixes, double BeforeL, double AfterL, FixGain? Wins, IReadOnlyList<NotMended> Left, int Tried);

/// <summary>Finds a set of fixes: the best at each step, tried on top of the others, and what turns out not to be needed taken out again.</summary>
public static class FixAll
{
    /// <summary>Most fixes that are tried against each other.</summary>
    public const int MostTried = 20;

    private const int MostRounds = 3, Checked = 6;

    // What a fix must be worth beyond its price, mL.
    private const double LeastWorth = 0.5;

    // About how much of the work is water.
    private const double WaterShare = 0.6;

    private sealed record Step(string About, Sentence Words, IReadOnlyList<Edit> Edits, FixCost Costs);

    /// <summary>
    /// A set for the faults and warnings of a rig under the school it has chosen, within a budget. Water first: the best of all ideas about it, again and
    /// again, two at once where none alone helps; then the rest. Pure. O(fixes · steps · all studies).
    /// </summary>
    public static FixAllAnswer Ask(Question question, FixAllInput budget)
    {
        var refusals = new Dictionary<string, string>();
        var chosen = new List<Step>();
        int tried = 0;
        Dry(question, budget, chosen, ref tried);
        // What is mended shows what was behind it: a main that is too flat once its pool is gone.
        for (int round = 0, before = -1; round < MostRounds && chosen.Count > before; round++)
        {
            before = chosen.Count;
            var at = chosen.Count == 0 ? question : Together(question, chosen)!.After;
            question.GoOn(WaterShare + ((1 - WaterShare) * round / MostRounds), 1);
            Round(question, at, budget, chosen, refusals, ref tried);
        }
        Prune(question, chosen, ref tried);
        return Answer(question, chosen, refusals, tried);
    }

    // Water: the idea that is worth most on top of what is chosen, while there is one and time for it.
    private static void Dry(Question question, FixAllInput budget, List<Step> chosen, ref int tried)
    {
        var at = question;
        int all = QuickLook.Looks(question);
        for (int looks = all; looks > 0;)
        {
            double now = at.Ask(DrainDownStudy.Ask).Stays.TotalL;
            var looked = new List<(string About, Idea Idea, double Worth)>();
            foreach (var (about, idea) in new Ideas(at).OfWater())
            {
                if (looks-- <= 0) break;
                question.GoOn(WaterShare * (all - looks), all);
                tried++;
                if (QuickLook.Litres(at, idea.Edits) is { } litres) looked.Add((about, idea, 1000 * (now - litres) - PriceOf(idea.Edits)));
            }
            var next = Best(question, at, budget, chosen, looked.OrderByDescending(l => l.Worth).ToList(), ref tried);
            if (next is null && looks > 0)
            {
                // Two at once: those that are worth most, and each on top of them.
                int had = looks;
                var pairs = QuickLook.Pairs(at, looked.OrderByDescending(l => l.Worth).Select(l => (l.About, l.Idea)), ref looks)
                    .Select(p => (p.About, p.Idea, Worth: 1000 * (now - p.Litres) - PriceOf(p.Idea.Edits)));
                next = Best(question, at, budget, chosen, [.. pairs.OrderByDescending(p => p.Worth)], ref tried);
                tried += had - looks;
            }
            if (next is not { } step) return;
            chosen.Add(step.Step);
            at = step.After;
        }
    }

    // The first that can be done: room for it, no fault from it, the purse for it.
    private static (Step Step, Question After)? Best(Question question, Question at, FixAllInput budget, List<Step> chosen,
        List<(string About, Idea Idea, double Worth)> ideas, ref int tried)
    {
        foreach (var (about, idea, worth) in ideas.Where(i => i.Worth > LeastWorth).Take(Checked))
        {
            question.Cancel.ThrowIfCancellationRequested();
            tried++;
            if (Trial.Of(at, idea.Edits, out _) is not { } trial || trial.NoRoom() is not null) continue;
            var step = new Step(about, idea.Words, idea.Edits, trial.Cost());
            if (!budget.Allows([.. chosen.Select(c => c.Costs), step.Costs]) || trial.NewFault() is not null) continue;
            return (step, trial.After);
        }
        return null;
    }

    private static double PriceOf(IReadOnlyList<Edit> edits) => 4 * edits.Sum(e => e is PlacePart or PutTee ? 1 : 0);

    // The best fix on top of what is chosen, again and again, while it is worth its price.
    private static void Round(Question question, Question at, FixAllInput budget, List<Step> chosen, Dictionary<string, string> refusals, ref int tried)
    {
        var all = new List<(Finding Finding, Fix Fix)>();
        foreach (var finding in at.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note))
        {
            var answer = Fixer.Of(at, finding);
            tried += answer.Tried;
            if (answer.Refused is { } why) refusals[finding.Id] = why;
            all.AddRange(answer.Fixes.Where(f => budget.Allows([f.Costs])).Select(f => (finding, f)));
        }
        // Of each finding its best first, so that none is crowded out.
        var pool = all.GroupBy(f => f.Finding.Id).SelectMany(g => g.Select((f, rank) => (f, rank))).OrderBy(f => f.rank)
            .ThenByDescending(f => f.f.Fix.Wins.Litres).Select(f => new Step(f.f.Finding.Title, f.f.Fix.Words, f.f.Fix.Edits, f.f.Fix.Costs))
            .Take(MostTried).ToList();
        double now = Burden(at) + Price(chosen);
        while (true)
        {
            Step? best = null;
            double least = now - 1e-6;
            foreach (var candidate in pool)
            {
                question.Cancel.ThrowIfCancellationRequested();
                if (chosen.Contains(candidate) || !budget.Allows([.. chosen.Select(c => c.Costs), candidate.Costs])) continue;
                tried++;
                if (Together(question, [.. chosen, candidate]) is not { } trial) continue;
                double burden = Burden(trial.After) + Price(chosen) + Price([candidate]);
                if (burden < least) (best, least) = (candidate, burden);
            }
            if (best is null) break;
            chosen.Add(best);
            now = least;
        }
    }

    private static FixAllAnswer Answer(Question question, List<Step> chosen, Dictionary<string, string> refusals, int tried)
    {
        var fixes = new List<SetFix>();
        var at = question;
        for (int n = 0; n < chosen.Count; n++)
        {
            var trial = Trial.Of(at, chosen[n].Edits, out _)!;
            var gain = trial.Gain();
            fixes.Add(new SetFix(chosen[n].About, chosen[n].Words, gain.Litres, gain.Gone, chosen[n].Edits, trial.Cost()));
            at = trial.After;
        }
        var left = at.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note)
            .Select(f => new NotMended(f.Id, f.Title, refusals.GetValueOrDefault(f.Id)
                ?? "Every fix costs more than it helps, or is over the budget.")).ToList();
        double before = question.Ask(DrainDownStudy.Ask).Stays.TotalL;
        return new FixAllAnswer(fixes, before, at.Ask(DrainDownStudy.Ask).Stays.TotalL, Together(question, chosen)?.Gain(), left, tried);
    }

    // What another of the set does as well.
    private static void Prune(Question question, List<Step> chosen, ref int tried)
    {
        for (int n = chosen.Count - 2; n >= 0; n--)
        {
            var without = chosen.Where((_, i) => i != n).ToList();
            tried++;
            if (Together(question, without) is { } trial && Burden(trial.After) + Price(without) <= Burden(Together(question, chosen)!.After) + Price(chosen)
                + 1e-6) chosen.RemoveAt(n);
        }
    }

    private static Trial? Together(Question question, List<Step> fixes) =>
        fixes.Count == 0 ? null : Trial.Of(question, [.. fixes.SelectMany(f => f.Edits)], out _) is { } trial && trial.NoRoom() is null ? trial : null;

    // Millilitres that stay, half as much on a slope, and faults in their worth.
    private static double Burden(Question question) =>
        1000 * question.Ask(DrainDownStudy.Ask).Stays.TotalL
        + question.Ask(Adviser.Ask).Findings.Sum(f => f.Severity switch { Severity.Fault => 60, Severity.Warning => 20, _ => 2 }
            + (Adviser.RuleOf(f.Kind).Harm.PriceALitre is > 0 and var price ? price * f.Number!.Value!.Value : 0));

    private static double Price(List<Step> fixes) => fixes.Sum(f => 4 * f.Costs.Parts + f.Costs.FarthestM + (0.01 * (f.Costs.Money ?? 0)));
}
