using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;
using WarmConduit.Core.Units;
using Xunit;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>All heights at once.</summary>
public class HeightFinderTests
{
    private static Question Ask(Rig rig, string? about = null) => new(rig, Conditions.Of(rig.Brief), about);

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    public void What_it_says_is_what_the_rig_does_with_the_new_heights(string name)
    {
        var rig = DemoRigs.Of(name);
        var told = HeightFinder.Ask(Ask(rig));
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
        Assert.Equal(told.MarginAfter!.Value, HeightFinder.Ask(after).MarginBefore!.Value, 1e-3);
    }

    [Fact]
    public void What_must_not_move_stays_and_is_told_where_it_forbids()
    {
        var rig = DemoRigs.Of("sparrow");
        Assert.True(HeightFinder.Ask(Ask(rig)).Feasible);
        var told = HeightFinder.Ask(Ask(rig, "runs/kitchen-cold"));
        Assert.DoesNotContain(told.Edits.OfType<RouteRun>(), e => e.RunId == "kitchen-cold");
        Assert.False(told.Feasible);
        Assert.Contains(told.Chain!.Points, p => p.StartsWith("kitchen cold", StringComparison.Ordinal));
    }

    [Fact]
    public void A_room_keeps_its_points_or_its_band_and_a_slope_of_its_own_is_asked()
    {
        var rig = DemoRigs.Of("sparrow");
        string[] Moved(string about) => [.. HeightFinder.Ask(Ask(rig, about)).Edits.OfType<RouteRun>().SelectMany(e => e.Bends.Where(b => rig.Runs.Find(e.RunId)!.Bends.Find(b.Id)!.At != b.At).Select(b => $"{new RigIndex(rig).ZoneAt(b.At)?.Id} {b.At.ZM}"))];
        string zone = Moved("")[0].Split(' ')[0];
        Assert.DoesNotContain(Moved($"zones/{zone}"), m => m.StartsWith($"{zone} ", StringComparison.Ordinal));
        Assert.All(Moved($"zones/{zone}=0.1..0.35").Where(m => m.StartsWith($"{zone} ", StringComparison.Ordinal)), m => Assert.InRange(double.Parse(m.Split(' ')[1], System.Globalization.CultureInfo.InvariantCulture), 0.1, 0.35));
        var steep = HeightFinder.Ask(Ask(rig, "slope=2,slope=99,zones/none=1..0,nonsense"));
        Assert.Equal(2, steep.SlopeDeg);
        Assert.True(steep.MarginAfter < HeightFinder.Ask(Ask(rig)).MarginAfter);
    }

    [Fact]
    public void A_point_is_held_has_its_own_band_and_its_own_slope()
    {
        var rig = DemoRigs.Of("sparrow");
        var free = HeightFinder.Ask(Ask(rig));
        var farthest = free.Changes[0];
        Assert.DoesNotContain(HeightFinder.Ask(Ask(rig, farthest.Id)).Changes, c => c.Id == farthest.Id);
        double low = Math.Min(farthest.FromM, farthest.ToM) + (0.5 * Math.Abs(farthest.ToM - farthest.FromM)), high = low + 0.01;
        var banded = HeightFinder.Ask(Ask(rig, FormattableString.Invariant($"{farthest.Id}={low}..{high}")));
        Assert.InRange(banded.Changes.Single(c => c.Id == farthest.Id).ToM, low - 1e-4, high + 1e-4);

        // A metre of line and 30 mm of height stand 1.7° and no more: asked of the point alone, of the room, or of the rig.
        var line = new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 0.33), ("spout", 0, 0, 0.53)).Part("drain", "drain-cock", ("in", 1, 0, 0.3)).Run("line", "tap.cold", "drain.in", new Point3(0.5, 0, 0.315)).Build();
        string bend = $"runs/line/bends/{line.Runs[0].Bends[0].Id}";
        Assert.True(HeightFinder.Ask(Ask(line, $"{bend}:slope=1.7")).Feasible);
        Assert.False(HeightFinder.Ask(Ask(line, $"{bend}:slope=1.8")).Feasible);
        Assert.True(HeightFinder.Ask(Ask(line, $"slope=3,{bend}:slope=1.7")).Feasible);
    }

    [Fact]
    public void The_smallest_change_that_would_help_is_enough()
    {
        // A metre between a tap and a drain that stand at one height: on one degree it wants 17.5 mm, and the height of the tap is what is missing.
        static Rig Level(double tapM) => new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, tapM), ("spout", 0, 0, tapM + 0.2)).Part("drain", "drain-cock", ("in", 1, 0, 0.3)).Run("line", "tap.cold", "drain.in").Build();
        var told = HeightFinder.Ask(Ask(Level(0.3)));
        Assert.False(told.Feasible);
        double by = Assert.Single(told.ToHelp).Values[0].Value!.Value;
        Assert.Equal(Math.Tan(Math.PI / 180), by, 1e-4);
        Assert.False(HeightFinder.Ask(Ask(Level(0.3 + by - 0.001))).Feasible);
        Assert.True(HeightFinder.Ask(Ask(Level(0.3 + by + 0.001))).Feasible);
    }
}
