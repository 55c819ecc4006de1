using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainOrder;

namespace WarmConduit.Core.Studies.Left;

/// <summary>What was opened and handled since the last filling, in the order of time.</summary>
internal sealed class LeftActs
{
    private readonly Question _question;
    private readonly IReadOnlyList<LeftAct> _since;
    private readonly List<(string PartId, double? OutL)> _done;
    private readonly HashSet<string> _hands;

    public LeftActs(Question question)
    {
        (_question, _since) = (question, Since(question.Rig));
        _hands = [.. question.Rig.ByHand.Select(h => h.Id)];
        _done = [.. _since.Where(a => a.Kind == LeftActKind.Done).Select(a => (a.Thing!["parts/".Length..], a.OutL))
            .Where(a => _hands.Contains(a.Item1) || Stage.Opens(question.Index.Part(a.Item1))).DistinctBy(a => a.Item1)];
    }

    /// <summary>Nothing was.</summary>
    public bool Nothing => _done.Count == 0;

    /// <summary>All was that the scenario opens and the tasks ask for, and nothing else.</summary>
    public bool Everything => Wanted(_question).Select(p => p.Id).ToHashSet().SetEquals(_done.Select(d => d.PartId));

    /// <summary>The rig as it stands after all of it.</summary>
    public Stage All() => After(_done.Count);

    /// <summary>The rig before a part was opened or handled, and after.</summary>
    public (Stage Before, Stage After) Around(string partId) => (After(IndexOf(partId)), After(IndexOf(partId) + 1));

    /// <summary>What was opened and handled before <paramref name="partId"/> was; null: it was not.</summary>
    public IReadOnlyList<string>? Before(string partId) => IndexOf(partId) is >= 0 and int at ? [.. _done.Take(at).Select(d => d.PartId)] : null;

    /// <summary>What jugs took. O(drain-down) each.</summary>
    public IEnumerable<JugReading> Readings()
    {
        foreach (var (partId, out_) in _done)
        {
            if (out_ is not { } litres) continue;
            var (before, after) = Around(partId);
            yield return JugReading.Of(partId, Math.Max(0, before.StaysL() - after.StaysL()), litres);
        }
    }

    /// <summary>Glycol by thing: what was filled in last is what it has.</summary>
    public Dictionary<string, double> Glycol() => _since.Where(a => a.Kind == LeftActKind.Antifreeze).GroupBy(a => a.Thing!)
        .ToDictionary(a => a.Key, a => a.Last().Glycol ?? 0);

    /// <summary>What air left, share of the bore, by run: every round leaves less.</summary>
    public Dictionary<string, double> Films() => _since.Where(a => a.Kind == LeftActKind.Blown).GroupBy(a => a.Thing!["runs/".Length..])
        .ToDictionary(a => a.Key, a => a.Min(b => b.Film ?? 1));

    /// <summary>What was done since the last filling, in the order of time.</summary>
    public static IReadOnlyList<LeftAct> Since(Rig rig)
    {
        var acts = (rig.Left ?? []).OrderBy(a => a.At).ThenBy(a => a.Id, StringComparer.Ordinal).ToList();
        return acts[(acts.FindLastIndex(a => a.Kind == LeftActKind.Filled) + 1)..];
    }

    /// <summary>Parts that the drain scenario opens, and those that are handled on leaving.</summary>
    public static IEnumerable<Part> Wanted(Question question) =>
        question.Rig.Parts.Where(p => (Stage.Opens(p) && question.Scenario.PositionOf(p)?.Passes == true) || question.Rig.ByHand.Find(p.Id) is not null);

    private int IndexOf(string partId) => _done.FindIndex(d => d.PartId == partId);

    private Stage After(int count)
    {
        var done = _done.Take(count).Select(d => d.PartId).ToList();
        return new Stage(_question, done.Where(d => Stage.Opens(_question.Index.Part(d))).ToHashSet(), done.Where(_hands.Contains).ToHashSet());
    }
}
