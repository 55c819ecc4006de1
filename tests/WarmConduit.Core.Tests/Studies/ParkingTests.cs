using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>How a rig may stand and still drain.</summary>
public class ParkingTests
{
    private static Question Ask(Rig rig, Attitude? parked = null) => new(rig, Conditions.Of(rig.Brief) with { Parked = parked ?? Attitude.Level });

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    [InlineData("lantern")]
    public void The_map_and_the_drain_down_judge_by_one_rule(string name)
    {
        // With wide limits, so that each of them is met and missed somewhere.
        var rig = DemoRigs.Of(name) is var r ? r with { Brief = r.Brief with { Parking = new ParkingLimits(1, 0.44, 0.02, 0.03) } } : null!;
        var map = ParkingStudy.Ask(Ask(rig));
        double[] angles = ParkingEnvelope.Angles(map.MostDeg, ParkingStudy.Count);
        var seen = new HashSet<char>();
        for (int p = 20; p < 61; p += 4)
        {
            for (int q = 20; q < 61; q += 5)
            {
                var drained = Ask(rig, new Attitude(angles[p], angles[q])).Ask(DrainDownStudy.Ask);
                double outside = drained.Stays.PoolsL, broken = 0, share = 0;
                foreach (var part in drained.Parts.Where(d => d.Cause == StayCause.Crest))
                {
                    var stock = Catalogue.Part(rig.Parts.First(o => o.Id == part.PartId).Stock)!;
                    if (stock.Passage == Passage.Vessel)
                    {
                        // A tank that starts half full keeps no more than it had.
                        share = Math.Max(share, part.RetainedL / part.FullL);
                        continue;
                    }
                    outside += part.RetainedL;
                    if (stock.IceBreaks == IceBreaks.Yes) broken = Math.Max(broken, part.RetainedL);
                }
                char expected = outside > 0.44 ? 'p' : broken > 0.02 ? 'b' : share > 0.03 ? 't' : 'o';
                seen.Add(expected);
                Assert.Equal((angles[p], angles[q], expected), (angles[p], angles[q], map.Rows[p][q]));
            }
        }
        Assert.True(seen.Count > 1, string.Concat(seen));
    }

    [Fact]
    public void Blocks_follow_from_wheelbase_and_track()
    {
        // Half a degree of nose over a wheelbase of 4.8 m is 42 mm under each front wheel.
        var lantern = DemoRigs.Of("lantern");
        var told = ParkingStudy.Ask(Ask(lantern));
        double high = Math.Tan(told.Best!.Value.PitchDeg * Math.PI / 180) * lantern.Shell.Axles!.WheelbaseM;
        Assert.All(told.Blocks, b => Assert.Equal(high, b.BlockM, 0.001));
        Assert.Equal(["front wheel, kerb side", "front wheel, far side"], told.Blocks.Select(b => b.Wheel));
        Assert.Contains("under each front wheel", told.BestWords.Print(UnitSystem.Metric), StringComparison.Ordinal);
        // Standing so, there is nothing more to do; on a yard that tips the other way, more.
        Assert.Equal(ParkingLimit.None, ParkingStudy.Ask(Ask(lantern, told.Best)).Now);
        Assert.True(ParkingStudy.Ask(Ask(lantern, new Attitude(-1, 0))).Blocks[0].BlockM > 2 * high);
    }

    [Fact]
    public void The_edge_of_the_patch_is_where_a_pool_begins()
    {
        // A metre that falls 2 % drains until its end is tipped up by more than that: 1.15 degrees.
        var rig = new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 0.52), ("spout", 0, 0, 0.72))
            .Run("line", "tap.cold", "drain.in", new Point3(0, 0, 0.5), new Point3(1, 0, 0.48)).Part("drain", "drain-cock", ("in", 1, 0, 0.2)).Build();
        rig = rig with { Brief = rig.Brief with { Parking = new ParkingLimits(1, 0.001, 0.001, 0.03) } };
        var told = ParkingStudy.Ask(Ask(rig));
        var best = told.Best!.Value;
        var up = told.Sides.First(s => s.Side == "nose up");
        Assert.Equal(1.2, best.PitchDeg + up.FarDeg!.Value, 0.15);
        Assert.Equal("line", up.Words);
        Assert.Contains(Adviser.Ask(Ask(rig with { Brief = rig.Brief with { Parking = new ParkingLimits(3, 0.02, 0.005, 0.03) } })).Findings, f =>
            f.Id == "parking:outside");
        Assert.DoesNotContain(Adviser.Ask(Ask(rig with { Brief = rig.Brief with { Parking = new ParkingLimits(1, 0.05, 0.01, 0.03) } })).Findings, f =>
            f.Kind == FindingKind.Parking);
    }
}
