using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>What ideas do to the water that stays, and to that alone: many are looked at so, and the best tried on the whole rig.</summary>
internal static class QuickLook
{
    /// <summary>How many are worth a trial.</summary>
    private const int Worthwhile = 8, Paired = 12;

    // A trial costs some hundred times the points of the rig.
    private const int MostPoints = 300_000;

    /// <summary>Litres that stay with <paramref name="edits"/> done; null: they cannot be done.</summary>
    public static double? Litres(Question question, IReadOnlyList<Edit> edits) => After(question, edits)?.Ask(DrainDownStudy.Ask).Stays.TotalL;

    /// <summary>How many looks a rig is given, so that a large one is answered in time as well.</summary>
    public static int Looks(Question question) => Math.Clamp(MostPoints / Math.Max(1,
        question.Rig.Runs.Sum(r => r.Bends.Count + 2) + question.Rig.Parts.Count), 150, 3000);

    /// <summary>The ideas that leave least, least first, and the others.</summary>
    public static (List<Idea> First, List<Idea> Others) Order(Question question, List<Idea> ideas)
    {
        if (ideas.Count <= Worthwhile) return (ideas, []);
        double now = question.Ask(DrainDownStudy.Ask).Stays.TotalL;
        // Those that come to the same stay in the order in which they were thought of, the plainest first.
        var looked = ideas.Take(Looks(question)).Select((idea, n) => (idea, n, Litres: Litres(question, idea.Edits) ?? now))
            .OrderBy(i => Math.Round(i.Litres, 3)).ThenBy(i => i.n).Select(i => i.idea).ToList();
        return (looked[..Math.Min(looked.Count, Worthwhile)], looked[Math.Min(looked.Count, Worthwhile)..]);
    }

    /// <summary>Pairs: each of the first few ideas, and on top of it each that then comes to mind about water, with the litres that then stay. Takes from
    /// <paramref name="looks"/> while there are any.</summary>
    public static List<(string About, Idea Idea, double Litres)> Pairs(Question question, IEnumerable<(string About, Idea Idea)> ideas, ref int looks)
    {
        var pairs = new List<(string, Idea, double)>();
        foreach (var (about, first) in ideas.Take(Paired))
        {
            if (After(question, first.Edits) is not { } then) continue;
            foreach (var (_, second) in new Ideas(then).OfWater())
            {
                if (looks-- <= 0) return pairs;
                if (Litres(then, second.Edits) is { } litres) pairs.Add((about, first.With(second), litres));
            }
        }
        return pairs;
    }

    /// <summary>The question of the rig with <paramref name="edits"/> done; null: they cannot be done.</summary>
    public static Question? After(Question question, IReadOnlyList<Edit> edits)
    {
        question.Cancel.ThrowIfCancellationRequested();
        try
        {
            return question.On(Editor.Apply(question.Rig, edits).Rig, question.Cancel);
        }
        catch (RigFileException)
        {
            return null;
        }
    }
}
