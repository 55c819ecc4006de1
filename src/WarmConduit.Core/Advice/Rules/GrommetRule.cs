using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Lines that pass the floor, the skin or the lining of a wall with nothing between them and the edge of the hole. One finding for all, since one
/// drill and one bag of grommets mends them.</summary>
internal sealed class GrommetRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.NoGrommet];

    // A grommet that is drawn this near holds the hole.
    private const double NearM = 0.04;

    public IEnumerable<Finding> Find(Question question)
    {
        var bare = question.Rig.Runs.SelectMany((run, r) => Bare(question, run, r)).ToList();
        if (bare.Count == 0) yield break;
        string[] runs = [.. bare.Select(b => b.Run.Id).Distinct()];
        var first = bare[0];
        yield return new Finding(
            "grommets", FindingKind.NoGrommet, Severity.Note, runs.Length == 1 ? first.Run.Name : $"{runs.Length} runs", "missing grommet",
            Measure.Length(Catalogue.Pipe(first.Run.Pipe)!.OuterDiameterM),
            Sentence.Of($"{(bare.Count == 1 ? "A hole has" : $"{bare.Count} holes have")} no grommet, the first where {first.Run.Name} passes {first.Words}. " +
            $"Sheet metal cuts through hose and pipe as the vehicle shakes, and an open hole lets cold in."),
            Place.OnRun(question.Index, first.Run, first.Leg, first.At), runs, null,
            [new Mend(bare.Count == 1 ? "Add a grommet" : $"Add grommets at all {bare.Count}", [.. bare.Select(b => b.Mend)])]);
    }

    private sealed record Hole(Run Run, int Leg, Point3 At, string Words, Edit Mend);

    private static IEnumerable<Hole> Bare(Question question, Run run, int number)
    {
        var course = question.Index.CourseOf(run);
        var ids = new HashSet<string>(run.Bends.Select(b => b.Id));
        CutLength? before = null;
        string? after = null;
        int leg = 0, made = 0;
        foreach (var length in question.Cuts.Of(number))
        {
            var (from, was) = (length, before);
            before = length;
            if (length.Segment != leg) (leg, after) = (length.Segment, run.Bends[length.Segment - 1].Id);
            if (was is not { } earlier || Wall(earlier.Zone, from.Zone) is not { } wall) continue;
            var at = Turning.Micro(course[leg].Towards(course[leg + 1], from.From));
            if (run.Bends.Any(b => b.Fixing == Fixing.Grommet && b.At.DistanceM(at) <= NearM)) continue;
            string id = Enumerable.Range(++made, 100).Select(n => $"grommet-{n}").First(ids.Add);
            yield return new Hole(run, leg, at, wall, new InsertBend(run.Id, new Bend(id, at, null, Fixing.Grommet), after));
            after = id;
        }
    }

    // What stands between two rooms, where it is more than a panel of furniture.
    private static string? Wall(Zone? a, Zone? b)
    {
        int Depth(Zone? zone) => zone?.Kind switch
        {
            null or ZoneKind.OpenUnderfloor => 0,
            ZoneKind.EnclosedUnderfloor or ZoneKind.WheelArch or ZoneKind.WallCavity => 1,
            _ => 2,
        };
        if (Depth(a) == Depth(b)) return null;
        var (inner, outer) = Depth(a) > Depth(b) ? (a!, b) : (b!, a);
        return outer is null ? $"from “{inner.Name}” to the outside" : $"from “{inner.Name}” to “{outer.Name}”";
    }
}
