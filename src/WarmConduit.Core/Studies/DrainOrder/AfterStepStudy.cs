namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>The rig part way through its draining.</summary>
public static class AfterStepStudy
{
    /// <summary>The rig after so many steps, as the drain-down tells it. The question is about that number; what is none counts as 0. Pure.</summary>
    public static AfterStepAnswer Ask(Question question)
    {
        int count = int.TryParse(question.About, out int asked) ? Math.Max(0, asked) : 0;
        var (opened, done) = (new HashSet<string>(), new HashSet<string>());
        foreach (var (id, parts, kind, _) in DrainOrderStudy.Order(question, new Stage(question, opened, done)).Take(count))
        {
            if (kind == DrainStepKind.Hand) done.Add(id);
            else opened.UnionWith(parts);
        }
        return new AfterStepAnswer(count, new Stage(question, opened, done).Drained);
    }
}
