using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Lines with water in them that lie against a skin without insulation: they have its temperature, not the room's.</summary>
internal sealed class BareSkinRule : IRule
{
    // Nearer than a hand is thick there is no room air around it. Less resistance than a finger of foam is none. Estimates.
    private const double NearM = 0.025, ClearM = 0.04, LeastM = 0.1, BareM2KPerW = 0.15;

    private static readonly (Facing Facing, Point3 Out)[] Ways =
    [
        (Facing.Rear, new(-1, 0, 0)), (Facing.Forward, new(1, 0, 0)), (Facing.KerbSide, new(0, -1, 0)), (Facing.FarSide, new(0, 1, 0)), (Facing.Down, new(0, 0, -1)), (Facing.Up, new(0, 0, 1)),
    ];

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
            foreach (var cut in question.Cuts.Of(r))
            {
                if (cut.Zone is null || run.SleeveOn(cut.Segment) is not null) continue;
                var (a, b) = (course[cut.Segment].Towards(course[cut.Segment + 1], cut.From), course[cut.Segment].Towards(course[cut.Segment + 1], cut.To));
                foreach (var (facing, outward) in Ways)
                {
                    if (Math.Max(FromSkin(cut.Zone.Box, a, outward), FromSkin(cut.Zone.Box, b, outward)) > NearM || !IsBare(question, cut.Zone, facing, a.Towards(b, 0.5), outward)) continue;
                    along += a.DistanceM(b);
                    first ??= (cut.Segment, cut.Zone, outward);
                    break;
                }
            }
            if (along < LeastM || first is not { } at) continue;
            // What can be moved: bends that lie against that skin.
            var by = at.Out * -ClearM;
            var near = run.Bends.Where(bend => at.Zone.Box.Holds(bend.At) && FromSkin(at.Zone.Box, bend.At, at.Out) <= NearM).Select(bend => $"runs/{run.Id}/bends/{bend.Id}").ToList();
            yield return new Finding(
                $"skin:{run.Id}", FindingKind.BareSkin, Severity.Note, run.Name, "on bare skin", Measure.Length(along),
                Sentence.Of($"It lies against a skin without insulation for {Measure.Length(along)}: the air there is the skin's, not the room's. Keep {Measure.Length(ClearM)} off it, or insulate behind it."),
                Place.OnRun(question.Index, run, at.Segment, course[at.Segment]), [run.Id], null, near.Count == 0 ? null : [new Mend("Move its bends off the skin", [new MoveThings(near, by)])]);
        }
    }

    private static double FromSkin(Box box, Point3 p, Point3 outward)
    {
        var (low, high) = (box.At, box.Far());
        return outward switch
        {
            { XM: < 0 } => p.XM - low.XM,
            { XM: > 0 } => high.XM - p.XM,
            { YM: < 0 } => p.YM - low.YM,
            { YM: > 0 } => high.YM - p.YM,
            { ZM: < 0 } => p.ZM - low.ZM,
            _ => high.ZM - p.ZM,
        };
    }

    // Outdoors behind it, and a face that says what it is made of.
    private static bool IsBare(Question question, Zone zone, Facing facing, Point3 at, Point3 outward)
    {
        if (question.Index.ZoneAt(at + outward * (FromSkin(zone.Box, at, outward) + 0.02)) is not null) return false;
        var face = zone.Faces.Find(Skin.FaceId(Skin.Words(facing), null)) ?? zone.Faces.FirstOrDefault(f => f.Towards is null && f.Side == Skin.SideOf(facing));
        return face is { Layers.Count: > 0 } && face.Layers.Sum(l => l.ThicknessM / Catalogue.Solid(l.Material)!.ConductivityAt(l.ThicknessM)) < BareM2KPerW;
    }
}
