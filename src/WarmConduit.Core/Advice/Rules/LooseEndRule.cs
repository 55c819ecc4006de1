using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Ends of runs that are joined to nothing yet.</summary>
internal sealed class LooseEndRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.LooseEnd];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(ideas.Routes.Capped);

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var run in question.Rig.Runs)
        {
            if (run.From.IsLoose()) yield return Of(question, run, 0);
            if (run.To.IsLoose()) yield return Of(question, run, run.Bends.Count + 1);
        }
    }

    private static Finding Of(Question question, Run run, int point)
    {
        string id = RunPoint.IdOf(run, point);
        var at = question.Index.PlaceOf(point == 0 ? run.From : run.To);
        return new Finding(
            $"loose:{run.Id}:{id}", FindingKind.LooseEnd, Severity.Warning, run.Name, "loose end", null,
            $"Its {(point == 0 ? "start" : "end")} isn't connected yet. Until then it counts as capped.", Place.OnRun(question.Index, run, point, at),
            [run.Id], null);
    }
}
