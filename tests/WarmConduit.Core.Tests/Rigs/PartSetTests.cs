using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;

namespace WarmConduit.Core.Tests.Rigs;

public class PartSetTests
{
    private static readonly Rig Bare = Start.Make(new NewRig("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain, "long-van"));

    public static TheoryData<string> Ids() => [.. PartSets.All.Select(s => s.Id)];

    /// <summary>Placed in one step, joined, nothing in anything else, of the room it says, with the way through it in the right sense; undone in one
    /// step.</summary>
    [Theory]
    [MemberData(nameof(Ids))]
    public void A_set_is_placed_as_one_and_is_ordinary_parts_after(string id)
    {
        var set = PartSets.All.First(s => s.Id == id);
        var done = Editor.Apply(Bare, [new PlaceSet(id, "new", new Point3(1, 0.5, 0.2))]);
        Assert.Equal(set.Parts.Count, done.Rig.Parts.Count);
        Assert.Empty(RigCheck.Check(done.Rig));
        var index = new RigIndex(done.Rig);
        Assert.All(done.Rig.Runs, r => Assert.InRange(index.PlaceOf(r.From).DistanceM(index.PlaceOf(r.To)), 0.005, 0.75));
        // No port has two pipes.
        Assert.Equal(2 * done.Rig.Runs.Count, done.Rig.Runs.SelectMany(r => new[] { (r.From.Part, r.From.Port), (r.To.Part, r.To.Port) }).Distinct().Count());
        foreach (var a in done.Rig.Parts)
            foreach (var b in done.Rig.Parts.Where(b => string.CompareOrdinal(a.Id, b.Id) < 0))
                Assert.False(Meet(a.Box, b.Box), $"{a.Name} stands in {b.Name}");
        foreach (var run in done.Rig.Runs)
        {
            // Into an inlet, out of an outlet, wherever a part has a direction.
            if (Catalogue.Part(index.Part(run.From.Part!).Stock)!.Passage is Passage.Pump or Passage.OneWay) Assert.Equal("out", run.From.Port);
            if (Catalogue.Part(index.Part(run.To.Part!).Stock)!.Passage is Passage.Pump or Passage.OneWay) Assert.Equal("in", run.To.Port);
        }
        Assert.Equal(Bare, Editor.Apply(done.Rig, done.Inverse).Rig, (x, y) => RigFile.Write(x) == RigFile.Write(y));
        var again = Assert.Throws<RigFileException>(() => Editor.Apply(done.Rig, [new PlaceSet(id, "new", default)]));
        Assert.Equal("edits[0].stem", again.Faults.Single().Path);
    }

    [Fact]
    public void Every_stock_part_has_its_place_in_the_work()
    {
        Assert.Equal(Enum.GetValues<PartGroup>().ToHashSet(), Catalogue.Parts.Select(p => p.Group).ToHashSet());
        Assert.Equal(Catalogue.Parts.Count, Catalogue.Parts.Select(p => p.Id).Distinct().Count());
        // Within reach of its own box, as a rig file asks for.
        Assert.All(Catalogue.Parts, p => Assert.All(p.Ports, q => Assert.True(new Box(default, p.Size).OutsideM(q.Offset) < 0.001, $"{p.Name}, {q.Id}")));
    }

    private static bool Meet(Box a, Box b)
    {
        const double eps = 1e-6;
        var (af, bf) = (a.Far(), b.Far());
        return a.At.XM < bf.XM - eps && b.At.XM < af.XM - eps && a.At.YM < bf.YM - eps && b.At.YM < af.YM - eps && a.At.ZM < bf.ZM - eps
            && b.At.ZM < af.ZM - eps;
    }
}
