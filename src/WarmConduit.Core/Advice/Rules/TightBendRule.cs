using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Bends for which there is no room at the pipe's least radius: a hose kinks there, a pipe takes an elbow.</summary>
internal sealed class TightBendRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.TightBend];

    private const double LeastTurn = 10 * Math.PI / 180;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place is { RunId: { } run, PointId: { } bend }
        ? ideas.Routes.Unbent(run, bend) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var run in question.Rig.Runs)
        {
            if (run.Bends.Count == 0 || Catalogue.Pipe(run.Pipe) is not { BendRadiusM: { } radius } pipe) continue;
            var course = question.Index.CourseOf(run);
            // The length of straight pipe that each bend takes up on either side.
            var takes = new double[course.Length];
            for (int i = 1; i + 1 < course.Length; i++)
            {
                var (a, b) = (course[i] - course[i - 1], course[i + 1] - course[i]);
                double la = a.DistanceM(default), lb = b.DistanceM(default);
                if (la < 1e-6 || lb < 1e-6) continue;
                double turn = Math.Acos(Math.Clamp((a.XM * b.XM + a.YM * b.YM + a.ZM * b.ZM) / (la * lb), -1, 1));
                if (turn > LeastTurn) takes[i] = turn > 3 ? double.PositiveInfinity : radius * Math.Tan(turn / 2);
            }
            // Neighbours share a leg in proportion to what they need.
            double Room(int i, int leg) => course[leg].DistanceM(course[leg + 1]) * takes[i] / (takes[leg] + takes[leg + 1]);
            var tight = Enumerable.Range(1, course.Length - 2).Where(i => takes[i] > 0
                && (double.IsInfinity(takes[i]) || Math.Min(Room(i, i - 1), Room(i, i)) < takes[i] - 1e-3)).ToList();
            if (tight.Count == 0) continue;
            string where = tight.Count == 1 ? $"bend {tight[0]}" : $"bends {string.Join(", ", tight.SkipLast(1))} and {tight[^1]}";
            yield return new Finding(
                $"tight:{run.Id}", FindingKind.TightBend, pipe.Kinks ? Severity.Warning : Severity.Note, run.Name,
                pipe.Kinks ? "kinks" : "bend too tight, least", Measure.Length(radius),
                Sentence.Of($"It needs a bend of {Measure.Length(radius)} at least, and there is no room for it at {where}.")
                    .And(pipe.Kinks ? " A hose kinks there: route it wider, or add an elbow."
                        : " It needs an elbow there: one more joint to reach and to keep from freezing."),
                Place.OnRun(question.Index, run, tight[0], course[tight[0]]), [run.Id], null);
        }
    }
}
