using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>A place that keeps more water than before.</summary>
/// <param name="Words">The run or part.</param>
/// <param name="Litres">How much more, L.</param>
public sealed record MoreWater(string Words, double Litres);

/// <summary>
/// A rig before edits and after them, place by place: water is known by where it lies, a finding by what it is and whom it is about. A run that a tee cuts in
/// two is still the place it was.
/// </summary>
internal sealed class Comparison
{
    // Less than this is a wet wall; more than this share of what is won is worse.
    private const double LeastL = 0.003, GoneShare = 0.05;

    private readonly Dictionary<string, string> _origin = [];
    private readonly Question _before, _after;
    private readonly Dictionary<string, double> _was, _is;

    public Comparison(Question before, Question after, IReadOnlyList<Edit> edits)
    {
        (_before, _after) = (before, after);
        foreach (var edit in edits)
        {
            if (edit is PutTee tee) _origin[tee.NewRunId] = OriginOf(tee.RunId);
            // What goes on behind a part that was put into a line ends where that line ended.
            foreach (var run in (edit as InsertFragment)?.Runs ?? [])
                if (before.Rig.Runs.FirstOrDefault(r => r.To == run.To) is { } cut) _origin[run.Id] = cut.Id;
        }
        (_was, _is) = (WaterOf(before), WaterOf(after));
    }

    /// <summary>Places that hold more than before, most first.</summary>
    public IReadOnlyList<MoreWater> Worse => field ??= [.. _is.Select(p => (p.Key, More: p.Value - _was.GetValueOrDefault(p.Key))).Where(p => p.More > LeastL)
        .OrderByDescending(p => p.More).Select(p => new MoreWater(NameOf(p.Key), p.More))];

    /// <summary>Litres after, where a finding's water lay before.</summary>
    public double WaterAt(Finding finding) => PlacesOf(_before, finding).Sum(p => _is.GetValueOrDefault(p));

    /// <summary>The same, before.</summary>
    public double WaterWas(Finding finding) => PlacesOf(_before, finding).Sum(p => _was.GetValueOrDefault(p));

    /// <summary>Faults and warnings that go, and that come.</summary>
    public (IReadOnlyList<Finding> Gone, IReadOnlyList<Finding> Made) Changes()
    {
        var (before, after) = (Heavy(_before), Heavy(_after));
        var known = before.Select(Key).ToHashSet();
        return (
            [.. before.Where(IsGone)],
            [.. after.Where(f => IsWater(f) ? IsMade(f, known) : !known.Contains(Key(f)))]);
    }

    /// <summary>Whether <paramref name="finding"/> of the rig before is told no more.</summary>
    public bool IsGone(Finding finding)
    {
        var after = _after.Ask(Adviser.Ask).Findings;
        if (after.Any(f => f.Id == finding.Id)) return false;
        if (!Adviser.RuleOf(finding.Kind).Harm.IsWater) return after.All(f => Key(f) != Key(finding));
        return WaterAt(finding) <= Math.Max(LeastL, GoneShare * WaterWas(finding)) || after.All(f => !Shares(finding, f));
    }

    // Water where there was none, or clearly more. What is new and full in a rig that is left full freezes as all of it does.
    private bool IsMade(Finding finding, HashSet<(FindingKind, string, string)> known)
    {
        if (finding.Kind == FindingKind.FirstIce && (known.Contains(Key(finding)) || _after.Conditions.Water != WaterState.Drained)) return false;
        var places = PlacesOf(_after, finding);
        return places.Sum(p => _is.GetValueOrDefault(p)) > (1.1 * places.Sum(p => _was.GetValueOrDefault(p))) + LeastL;
    }

    private bool Shares(Finding before, Finding after) => after.Kind == before.Kind && PlacesOf(_before, before).Overlaps(PlacesOf(_after, after));

    // What is told of water that stays, or follows from it.
    private static bool IsWater(Finding f) => Adviser.RuleOf(f.Kind).Harm.Follows;

    private static List<Finding> Heavy(Question question) => [.. question.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note)
        .DistinctBy(f => f.Id)];

    // What is told of a part is known by the part, of a line by the lines that it was made of.
    private (FindingKind, string, string) Key(Finding f) => f.Place is { RunId: null, PartId: { } part } ? (f.Kind, "", part)
        : (f.Kind, string.Join("+", f.RunIds.Select(OriginOf).Distinct().Order(StringComparer.Ordinal)), f.RunIds.Count == 0 ? f.Id : "");

    private HashSet<string> PlacesOf(Question question, Finding finding)
    {
        var places = finding.RunIds.Select(OriginOf).ToHashSet();
        var parts = question.Ask(DrainDownStudy.Ask).Pools.FirstOrDefault(p => p.Id == finding.Id)?.Parts.Select(p => p.PartId)
            ?? (finding.RunIds.Count == 0 && finding.Place?.PartId is { } only ? [only] : []);
        places.UnionWith(parts);
        return places;
    }

    private Dictionary<string, double> WaterOf(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        var litres = new Dictionary<string, double>();
        foreach (var run in drained.Runs) litres[OriginOf(run.RunId)] = litres.GetValueOrDefault(OriginOf(run.RunId)) + run.StaysL;
        foreach (var part in drained.Parts) litres[part.PartId] = part.RetainedL;
        return litres;
    }

    private string OriginOf(string run) => _origin.GetValueOrDefault(run, run);

    private string NameOf(string place) => _after.Rig.Parts.Find(place)?.Name ?? (_after.Rig.Runs.Find(place) ?? _before.Rig.Runs.Find(place))?.Name ?? place;
}
