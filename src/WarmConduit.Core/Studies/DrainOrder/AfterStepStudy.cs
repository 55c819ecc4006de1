using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>How far the draining has come.</summary>
/// <param name="Steps">How many steps are done, 0 to 1000; more than there are: all.</param>
public sealed record AfterStepInput(int Steps) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c => c.Range("steps", Steps, 0, 1000, ""));
}

/// <summary>The rig part way through its draining.</summary>
public static class AfterStepStudy
{
    /// <summary>The rig after so many steps, as the drain-down tells it. Pure.</summary>
    public static AfterStepAnswer Ask(Question question, AfterStepInput input)
    {
        var (opened, done) = (new HashSet<string>(), new HashSet<string>());
        foreach (var (id, parts, kind, _) in DrainOrderStudy.Order(question, new Stage(question, opened, done)).Take(input.Steps))
        {
            if (kind == DrainStepKind.Hand) done.Add(id);
            else opened.UnionWith(parts);
        }
        return new AfterStepAnswer(input.Steps, new Stage(question, opened, done).Drained);
    }
}
