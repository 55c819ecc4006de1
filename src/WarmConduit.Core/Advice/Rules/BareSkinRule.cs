using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Lines with water in them that lie against a skin without insulation: they have its temperature, not the room's.</summary>
internal sealed class BareSkinRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.BareSkin];

    private const double ClearM = 0.04, LeastM = 0.1;

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        for (int r = 0; r < rig.Runs.Count; r++)
        {
            var run = rig.Runs[r];
            if (run.Service is not (Service.Cold or Service.Hot or Service.Waste)) continue;
            var course = question.Index.CourseOf(run);
            double along = 0;
            (int Segment, Zone Zone, Point3 Out)? first = null;
            var cuts = question.Cuts.Of(r);
            var behind = question.SurfaceContacts.Of(cuts, k => course[k]);
            for (int i = 0; i < cuts.Length; i++)
            {
                var cut = cuts[i];
                if (cut.Zone is null || run.SleeveOn(cut.Segment) is not null || behind[i] is not { IsBareSkin: true, Out: var outward }) continue;
                along += (cut.To - cut.From) * course[cut.Segment].DistanceM(course[cut.Segment + 1]);
                first ??= (cut.Segment, cut.Zone, outward);
            }
            if (along < LeastM || first is not { } at) continue;
            // What can be moved: bends that lie against that skin.
            var by = at.Out * -ClearM;
            var near = run.Bends.Where(bend => at.Zone.Box.Holds(bend.At) && SurfaceContacts.FromSide(at.Zone.Box, bend.At, at.Out) <= SurfaceContacts.NearM)
                .Select(bend => $"runs/{run.Id}/bends/{bend.Id}").ToList();
            yield return new Finding(
                $"skin:{run.Id}", FindingKind.BareSkin, Severity.Note, run.Name, "on bare metal", Measure.Length(along),
                Sentence.Of($"It runs on bare sheet metal for {Measure.Length(along)}: it gets as cold as the metal, not as the room. Keep " +
                $"{Measure.Length(ClearM)} off it, or insulate behind it."),
                Place.OnRun(question.Index, run, at.Segment, course[at.Segment]), [run.Id], null, near.Count == 0 ? null
                : [new Mend("Move its bends off the metal", [new MoveThings(near, by)])]);
        }
    }
}
