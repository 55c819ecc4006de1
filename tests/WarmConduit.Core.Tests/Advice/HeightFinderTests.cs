using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>All heights at once.</summary>
public class HeightFinderTests
{
    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    private static AutoFallAnswer Heights(Rig rig, AutoFallInput? input = null) => HeightFinder.Ask(Ask(rig), input ?? new AutoFallInput());

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    public void What_it_says_is_what_the_rig_does_with_the_new_heights(string name)
    {
        var rig = DemoRigs.Of(name);
        var told = Heights(rig);
        Assert.NotEmpty(told.Edits);
        var after = Ask(Editor.Apply(rig, told.Edits).Rig);
        foreach (var (drawn, litres) in ((Rig, double)[])[(rig, told.BeforeL), (after.Rig, told.AfterL)])
        {
            Assert.Equal(PlainDraining.RetainedL(drawn), drawn.Drained().BelowCrestsL(), 0.001);
            Assert.Equal(drawn.Drained().Stays.TotalL, litres, 1e-6);
        }
        Assert.Equal(ParkingStudy.Ask(after).Share, told.ShareAfter, 1e-9);
        Assert.True(told.MarginAfter > told.MarginBefore && told.MarginAfter >= 0);
        Assert.True(after.Rig.Drained().Stays.PoolsL < 0.01 && told.ShareAfter > told.ShareBefore);
        // The same question of the mended rig has nothing left to win.
        Assert.Equal(told.MarginAfter!.Value, Heights(after.Rig).MarginBefore!.Value, 1e-3);
    }

    [Fact]
    public void What_must_not_move_stays_and_is_told_where_it_forbids()
    {
        var rig = DemoRigs.Of("sparrow");
        Assert.True(Heights(rig).Feasible);
        var told = Heights(rig, new(["runs/kitchen-cold"]));
        Assert.DoesNotContain(told.Edits.OfType<RouteRun>(), e => e.RunId == "kitchen-cold");
        Assert.False(told.Feasible);
        Assert.Contains(told.Chain!.Points, p => p.StartsWith("kitchen cold", StringComparison.Ordinal));
    }

    [Fact]
    public void A_room_keeps_its_points_or_its_band_and_a_slope_of_its_own_is_asked()
    {
        var rig = DemoRigs.Of("sparrow");
        string[] Moved(AutoFallInput asked) => [.. Heights(rig, asked).Edits.OfType<RouteRun>()
            .SelectMany(e => e.Bends.Where(b => rig.Runs.Find(e.RunId)!.Bends.Find(b.Id)!.At != b.At)
            .Select(b => $"{new RigIndex(rig).ZoneAt(b.At)?.Id} {b.At.ZM}"))];
        string zone = Moved(new())[0].Split(' ')[0];
        Assert.DoesNotContain(Moved(new([$"zones/{zone}"])), m => m.StartsWith($"{zone} ", StringComparison.Ordinal));
        Assert.All(Moved(new(Bands: [new($"zones/{zone}", 0.1, 0.35)])).Where(m => m.StartsWith($"{zone} ", StringComparison.Ordinal)), m =>
            Assert.InRange(double.Parse(m.Split(' ')[1], System.Globalization.CultureInfo.InvariantCulture), 0.1, 0.35));
        var steep = Heights(rig, new(SlopeDeg: 2));
        Assert.True(steep.MarginAfter < Heights(rig).MarginAfter);
    }

    [Fact]
    public void A_point_is_held_has_its_own_band_and_its_own_slope()
    {
        var rig = DemoRigs.Of("sparrow");
        var free = Heights(rig);
        var farthest = free.Changes[0];
        Assert.DoesNotContain(Heights(rig, new([farthest.Id])).Changes, c => c.Id == farthest.Id);
        double low = Math.Min(farthest.FromM, farthest.ToM) + (0.5 * Math.Abs(farthest.ToM - farthest.FromM)), high = low + 0.01;
        var banded = Heights(rig, new(Bands: [new(farthest.Id, low, high)]));
        Assert.InRange(banded.Changes.Single(c => c.Id == farthest.Id).ToM, low - 1e-4, high + 1e-4);

        // A metre of line and 30 mm of height stand 1.7° and no more: asked of the point alone, of the room, or of the rig.
        var line = new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 0.33), ("spout", 0, 0, 0.53)).Part("drain", "drain-cock", ("in", 1, 0, 0.3))
            .Run("line", "tap.cold", "drain.in", new Point3(0.5, 0, 0.315)).Build();
        string bend = $"runs/line/bends/{line.Runs[0].Bends[0].Id}";
        Assert.True(Heights(line, new(Slopes: [new(bend, 1.7)])).Feasible);
        Assert.False(Heights(line, new(Slopes: [new(bend, 1.8)])).Feasible);
        Assert.True(Heights(line, new(SlopeDeg: 3, Slopes: [new(bend, 1.7)])).Feasible);
    }

    [Fact]
    public void What_is_asked_of_nothing_in_the_rig_or_beyond_its_limits_is_refused_at_its_field()
    {
        var rig = DemoRigs.Of("sparrow");
        string[] Wrong(AutoFallInput input) => [.. input.Check(rig).Select(f => f.Path)];
        Assert.Empty(Wrong(new(["runs/kitchen-cold", "parts/tee-drain-a.a", "zones/living"], [new("zones/living", 0.1)], 10,
            [new("runs/kitchen-cold/from", 0)])));
        Assert.Equal(["locked[0]", "locked[1]"], Wrong(new(["runs/none", "kitchen-cold"])));
        Assert.Equal(["slopeDeg", "bands[0].highestM", "slopes[0].thing", "slopes[0].slopeDeg"],
            Wrong(new(Bands: [new("zones/living", 1, 0)], SlopeDeg: 11, Slopes: [new("zones/none", double.NaN)])));
    }

    [Fact]
    public void The_smallest_change_that_would_help_is_enough()
    {
        // A metre between a tap and a drain that stand at one height: on one degree it wants 17.5 mm, and the height of the tap is what is missing.
        static Rig Level(double tapM) => new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, tapM), ("spout", 0, 0, tapM + 0.2))
            .Part("drain", "drain-cock", ("in", 1, 0, 0.3)).Run("line", "tap.cold", "drain.in").Build();
        var told = Heights(Level(0.3));
        Assert.False(told.Feasible);
        double by = Assert.Single(told.ToHelp).Values[0].Value!.Value;
        Assert.Equal(Math.Tan(Math.PI / 180), by, 1e-4);
        Assert.False(Heights(Level(0.3 + by - 0.001)).Feasible);
        Assert.True(Heights(Level(0.3 + by + 0.001)).Feasible);
    }
}
