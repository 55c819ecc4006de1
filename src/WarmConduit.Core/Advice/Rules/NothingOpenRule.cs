using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>A rig in which nothing is open keeps all its water.</summary>
internal sealed class NothingOpenRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.NothingOpen];

    public Harm Harm => Harm.Water;

    // What is there is opened; where nothing is, a drain is put in where water lies lowest.
    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => ideas.OpenDrains().Concat(ideas.Emptied());

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        if (drained.Drains.Count > 0 || drained.Stays.TotalL <= 0) yield break;
        yield return new Finding(
            "nothing-open", FindingKind.NothingOpen, School.OfRetainedWater(question.Rig), "Nothing is open", "keeps", Measure.Volume(drained.Stays.TotalL),
            $"In “{question.Scenario.Name}” no drain, tap or open end lets water out, so all of it stays. Add a drain at the lowest point, or open one.",
            null, [], null);
    }
}
