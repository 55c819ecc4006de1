using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Cold;

/// <summary>A measure that was tried, and what it gains.</summary>
/// <param name="Words">What is done.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Effect">What they do to the document; null where there are none.</param>
/// <param name="Event">What is planned for the night instead; null: nothing.</param>
/// <param name="For">What it keeps from freezing, the first to freeze leading.</param>
/// <param name="BeforeS">First ice there now, s.</param>
/// <param name="AfterS">First ice there then, s; null: none in the time calculated.</param>
/// <param name="HoursWon">Hours gained there, counted to the end of the calculation.</param>
/// <param name="HoursPerMm">Those over the insulation it adds, h/mm; null: it adds none.</param>
/// <param name="HoursPerL">Those over the room inside that it takes, h/L; null: it takes none.</param>
/// <param name="HoursPerMoney">Those over what it costs, in whatever money the builder counts; null: no price is known.</param>
public sealed record InsulationOption(
    Sentence Words, IReadOnlyList<Edit> Edits, Effect? Effect, PlanEvent? Event, string For, double BeforeS, double? AfterS, double HoursWon,
    double? HoursPerMm, double? HoursPerL, double? HoursPerMoney);

/// <summary>One of the best, in order, with those before it done.</summary>
/// <param name="Words">What is done.</param>
/// <param name="FirstBreakS">When ice then first breaks something, s; null: not within what is looked at.</param>
/// <param name="First">What that is; null: nothing.</param>
public sealed record InsulationStep(Sentence Words, double? FirstBreakS, string? First);

/// <summary>Insulation worth adding.</summary>
/// <param name="Options">Each measure alone, the largest gain first.</param>
/// <param name="FirstBreakS">When ice first breaks something now, s; null: not within what is looked at.</param>
/// <param name="First">What that is.</param>
/// <param name="Best">Up to five that together delay the ice longest, each with those before it.</param>
/// <param name="BestEdits">The edits of all of them.</param>
/// <param name="BestEffect">What they do to the document; null where there are none.</param>
/// <param name="EndS">The end of the calculation, s.</param>
/// <param name="Notes">What to know of thin sleeves, foil and damp.</param>
public sealed record InsulationAnswer(
    IReadOnlyList<InsulationOption> Options,
    double? FirstBreakS,
    string? First,
    IReadOnlyList<InsulationStep> Best,
    IReadOnlyList<Edit> BestEdits,
    Effect? BestEffect,
    double EndS,
    IReadOnlyList<Sentence> Notes);

/// <summary>Each sleeve, jacket, lining and louvre tried on the whole rig's night.</summary>
public static class InsulationFinder
{
    private const int MostThings = 9, MostOfRoom = 3, MostOptions = 40, MostBest = 5;
    private const double LookH = 72, WorthS = 900;

    /// <summary>
    /// Looks three days ahead at the least, so that what is won is not cut off by the morning. Pure. O(options + best · options of what then breaks first)
    /// nights.
    /// </summary>
    public static InsulationAnswer Ask(Question question)
    {
        var asked = question.With(question.Conditions with { Hours = Math.Max(LookH, question.Conditions.Hours) });
        var night = asked.Ask(RigNight.Of);
        double endS = night.Answer.ReportS[^1];
        var options = new List<InsulationOption>();
        var seen = new HashSet<string>();
        var ideas = new WarmIdeas(asked);
        foreach (var idea in Soonest(night, MostThings).SelectMany(f => ideas.Doors(f).Concat(ideas.For(f))))
        {
            question.GoOn(0.7 * seen.Count, MostOptions);
            if (options.Count == MostOptions || !seen.Add(idea.Sort) || Tried(asked, idea) is not { } tried) continue;
            var (before, name) = First(night, idea);
            double after = First(tried.After.Ask(RigNight.Of), idea).AtS, won = (Math.Min(after, endS) - Math.Min(before, endS)) / 3600;
            if (name is null || before >= endS || won * 3600 < WorthS) continue;
            options.Add(new InsulationOption(
                idea.Words, idea.Edits, tried.Effect, idea.Event, name, before, after < endS ? after : null, won, won / (idea.ThicknessM * 1000),
                idea.SpaceL > 0 ? won / idea.SpaceL : null, idea.Money is > 0 and var money ? won / money : null));
        }
        var (best, edits) = Best(asked, endS, done => question.GoOn(0.7 + (0.3 * done / MostBest), 1));
        var (breaks, first) = night.FirstBreak();
        return new InsulationAnswer(
            [.. options.OrderByDescending(o => o.HoursWon)], breaks < endS ? breaks : null, breaks < endS ? first : null, best, edits, edits.Count == 0 ? null
            : Editor.Apply(question.Rig, edits).Effect, endS, [.. Notes(question)]);
    }

    // One after another: of all that concerns what breaks first, what puts the first break off longest.
    private static (List<InsulationStep> Steps, List<Edit> Edits) Best(Question asked, double endS, Action<double> told)
    {
        var (steps, edits, done) = (new List<InsulationStep>(), new List<Edit>(), new HashSet<string>());
        for (var now = asked; steps.Count < MostBest;)
        {
            told(steps.Count);
            var night = now.Ask(RigNight.Of);
            var (at, name) = night.FirstBreak();
            if (name is null || at >= endS) break;
            int first = Enumerable.Range(0, night.Candidates.Count).MinBy(night.BreaksS);
            (WarmIdea Idea, Question Question, double AtS)? best = null;
            foreach (var idea in new WarmIdeas(now).For(night.Candidates[first]))
            {
                if (done.Contains(idea.Sort) || Tried(now, idea) is not { } tried) continue;
                double then = Math.Min(tried.After.Ask(RigNight.Of).FirstBreak().AtS, endS);
                if (best is null || then > best.Value.AtS) best = (idea, tried.After, then);
            }
            if (best is not { } chosen || chosen.AtS - at < WorthS / 3) break;
            edits.AddRange(chosen.Idea.Edits);
            done.Add(chosen.Idea.Sort);
            now = chosen.Question;
            var (then_, what) = now.Ask(RigNight.Of).FirstBreak();
            steps.Add(new InsulationStep(chosen.Idea.Words, then_ < endS ? then_ : null, then_ < endS ? what : null));
        }
        return (steps, edits);
    }

    private static (Question After, Effect? Effect)? Tried(Question question, WarmIdea idea)
    {
        question.Cancel.ThrowIfCancellationRequested();
        if (idea.Event is { } done) return (question.With(question.Conditions.Happening([.. question.Conditions.Events ?? [], done])), null);
        return Trial.Of(question, idea.Edits, out _) is { } tried ? (tried.After, tried.Edited.Effect) : null;
    }

    // Things, not pieces: of a run the piece that freezes first. A few of each room, so that the coldest does not hide the others.
    private static IEnumerable<FreezeCandidate> Soonest(RigNight night, int most) => Enumerable.Range(0, night.Candidates.Count)
        .Where(n => double.IsFinite(night.Marks(n).FirstIceS)).OrderByDescending(n => double.IsFinite(night.BreaksS(n))).ThenBy(n => night.Marks(n).FirstIceS)
        .Select(n => night.Candidates[n]).DistinctBy(f => (f.Thing, f.Zone?.Id))
        .Select((f, n) => (FreezeCandidate: f, Place: n)).GroupBy(f => f.FreezeCandidate.Zone?.Id).SelectMany(g => g.Take(MostOfRoom)).OrderBy(f => f.Place)
            .Select(f => f.FreezeCandidate).Take(most);

    // First ice of what an idea is about: a thing, or all that ice breaks in a room.
    private static (double AtS, string? Name) First(RigNight night, WarmIdea idea)
    {
        var (at, name) = (double.PositiveInfinity, (string?)null);
        for (int n = 0; n < night.Candidates.Count; n++)
        {
            var candidate = night.Candidates[n];
            bool about = idea.Thing is { } thing ? candidate.Thing == thing : candidate.Zone?.Id == idea.ZoneId;
            if (about && (name is null || night.Marks(n).FirstIceS < at)) (at, name) = (night.Marks(n).FirstIceS, candidate.Name);
        }
        return (at, name);
    }

    private static IEnumerable<Sentence> Notes(Question question)
    {
        yield return "Insulation only buys time: still water freezes under any thickness if the frost lasts. Heat protects while it runs; draining " +
            "always does.";
        var pipes = question.Rig.Runs.Where(r => r.Service is Service.Cold or Service.Hot).Select(r => Catalogue.Pipe(r.Pipe)!).ToList();
        if (pipes.MinBy(p => p.OuterDiameterM) is { } thinnest)
        {
            double critical = CriticalDiameterM();
            yield return thinnest.OuterDiameterM > critical
                ? Sentence.Of($"Pipe thinner than {Measure.Length(critical)} loses more in a thin sleeve than bare, as its surface grows faster than the " +
                    $"sleeve holds. The thinnest here, {thinnest.Name}, is {Measure.Length(thinnest.OuterDiameterM)} across: any sleeve helps.")
                : Sentence.Of($"{thinnest.Name} is {Measure.Length(thinnest.OuterDiameterM)} across: under {Measure.Length(critical)} a thin sleeve lets out " +
                    $"more than bare pipe, as its surface grows faster than it holds. Take a thick one.");
        }
        yield return "Bubble foil is some millimetres of air: about a tenth of m²K/W a sheet, whatever its print says. Its sheen counts only where it looks " +
            "at an air gap that stays clean and dry.";
        if (question.Rig.Shell.Zones.Any(z => z.Faces.Any(f => f.Layers.Any(l => Catalogue.Solid(l.Material)!.SoaksUpDamp))))
            yield return "Wool in a wall of this rig soaks up damp: wet it lets through twice as much. Keep the vapour out on the warm side; to see what it " +
                "costs, set the layer to damp.";
    }

    /// <summary>The outside diameter up to which a millimetre of elastomer in still air lets out more than none, m: twice its conductivity over the
    /// film.</summary>
    internal static double CriticalDiameterM()
    {
        const double mostM = 0.04, stepM = 0.0005, wallM = 0.001, thinM = 0.001, plasticWPerMK = 0.4;
        double conductivity = Catalogue.Usual(UsualFor.Sleeve).ConductivityWPerMK;
        double Loss(double acrossM, double thickM) => PipeHeat.Steady(new PipeSection(acrossM - (2 * wallM), acrossM, plasticWPerMK, thickM, conductivity), 6,
            0, 0).ConductanceWPerMK;
        double across = 0.003;
        while (across < mostM && Loss(across, thinM) > Loss(across, 0)) across += stepM;
        return across;
    }
}
