using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What touches what: lines against faces of their room, and lines beside one another.</summary>
public class ContactTests
{
    private static readonly Conditions Frost = new(-10, 2, true, 12, WaterState.Wet, 22, 48, Attitude.Level);

    [Fact]
    public void A_line_against_a_bare_skin_looks_at_outdoors_with_half_of_its_surface()
    {
        // Along the far wall of a room of one steel skin: 10 mm off it, 60 mm off it, and 10 mm off it behind foam.
        NightContactsOf Line(double offM, string wall, double thickM)
        {
            var room = new Zone("room", "room", ZoneKind.Living, new Box(new(0, 0, 0), new(3, 2, 2)), 0.5,
                [new("far-side", "far side", FaceSide.Wall, 6, [new(wall, thickM)], 0, [])], []);
            var rig = new RigBuilder().Part("tap", "mixer", ("cold", 0.5, 2 - offM, 1), ("spout", 0.5, 1.9, 1.2))
                .Part("drain", "drain-cock", ("in", 2.5, 2 - offM, 0.9)).Run("line", "tap.cold", "drain.in").Build();
            rig = rig with { Shell = rig.Shell with { Body = room.Box, Zones = [room] } };
            var contacts = FreezeLadderStudy.Candidates(new Question(rig, Frost)).First(f => f.Id == "line#room.1").Body(Frost, z => z ?? "outdoor").Contacts;
            return new(RigBuilder.At5WPerK(contacts.Single(c => c.To == "room")), contacts.Where(c => c.To == "outdoor").Sum(c => RigBuilder.At5WPerK(c)));
        }
        var (on, off, behind) = (Line(0.01, "steel", 0.001), Line(0.06, "steel", 0.001), Line(0.01, "xps", 0.03));
        Assert.Equal(0.0, off.Outdoors);
        Assert.Equal(on.Room, on.Outdoors, 1e-9);
        Assert.Equal(off.Room, on.Room + on.Outdoors, 1e-9);
        // Behind 30 mm of XPS the face is colder than the room by its inner film's share of the resistance in the strongest wind; half of the line looks at it.
        // In hundredths.
        double share = Math.Round(0.5 * 0.13 / (0.13 + (0.03 / 0.034)), 2);
        Assert.InRange(share, 0.05, 0.08);
        Assert.Equal(share * off.Room, behind.Outdoors, 1e-9);
        Assert.Equal(off.Room, behind.Room + behind.Outdoors, 1e-9);
    }

    [Fact]
    public void Lines_side_by_side_look_at_one_another_with_a_quarter_of_their_surface()
    {
        // Two lines of 2 m at one height, so far apart.
        Rig Pair(double apartM) => new RigBuilder()
            .Part("tap-a", "mixer", ("cold", 0.5, 1, 1), ("spout", 0.5, 1, 1.2)).Part("end-a", "drain-cock", ("in", 2.5, 1, 1))
                .Run("a", "tap-a.cold", "end-a.in")
            .Part("tap-b", "mixer", ("cold", 0.5, 1 + apartM, 1), ("spout", 0.5, 1 + apartM, 1.2)).Part("end-b", "drain-cock", ("in", 2.5, 1 + apartM, 1))
                .Run("b", "tap-b.cold", "end-b.in").Build();
        IReadOnlyDictionary<string, double> Losses(double apartM) => FreezeLadderStudy.Candidates(new Question(Pair(apartM), Frost))
            .First(f => f.Id == "a#room.1").Body(Frost, z => z ?? "outdoor").Contacts.ToDictionary(c => c.To, c => RigBuilder.At5WPerK(c));
        double alone = Losses(0.2)["room"];
        Assert.Equal(["room"], Losses(0.2).Keys);
        Assert.Equal(0.75 * alone, Losses(0.02)["room"], 1e-9);
        // A quarter of each, one after the other: half of a quarter of what one loses alone.
        Assert.Equal(0.125 * alone, Losses(0.02)["b#room.1"], 1e-6);
        double First(double apartM) => RigNight.Of(new Question(Pair(apartM), Frost)) is var night ? night.Marks(night.Numbers()["a#room.1"]).FirstIceS : 0;
        Assert.True(First(0.02) > First(0.2) + 120);
        // Drained at the start of the second hour, what is left goes on alone.
        Assert.InRange(RigNight.Of(new Question(Pair(0.02), Frost with
        {
            Events =
            [new PlanEvent("drain", PlanEventKind.Drained, 1)]
        })).Answer.Balance.Gap(), 0, 0.001);
    }

    private sealed record NightContactsOf(double Room, double Outdoors);

    private static readonly Gen<Point3> Place = Gen.Select(Gen.Double[0, 1.5], Gen.Double[0, 0.05], Gen.Double[0, 0.05], (x, y, z) => new Point3(x, y, z));
    private static readonly Gen<LineLaid> AnyLine = Gen.Select(Place.Array[2, 4], Gen.Double[0.005, 0.02], (course, radius) =>
        new LineLaid(null, course, radius));

    [Fact]
    public void Lines_are_side_by_side_where_a_walk_along_one_finds_the_other_within_reach_all_the_way()
    {
        int beside = 0;
        AnyLine.Array[2, 4].Sample(
            lines =>
            {
                var found = ParallelPipes.Of(lines).ToDictionary(f => (f.A, f.B), f => f.M);
                for (int a = 0; a < lines.Length; a++)
                    for (int b = a + 1; b < lines.Length; b++)
                    {
                        // Seen from either of the two: legs at an angle are not the same length along one another.
                        var (one, other) = (Walked(lines[a], lines[b]), Walked(lines[b], lines[a]));
                        if (one.Doubtful || other.Doubtful) continue;
                        double told = found.GetValueOrDefault((a, b));
                        if (told > 0) Interlocked.Increment(ref beside);
                        Assert.InRange(told, Math.Min(one.LeastM, other.LeastM) - 0.02, Math.Max(one.MostM, other.MostM) + 0.02);
                    }
            },
            iter: 3000);
        Assert.True(beside > 300, $"only {beside} pairs lay side by side");
    }

    // Each leg of a line walked in small steps, with each leg of the other straight across from it. Doubtful: so near a limit that a step decides.
    private static (double LeastM, double MostM, bool Doubtful) Walked(LineLaid along, LineLaid other)
    {
        const int steps = 400;
        double least = 0, most = 0, reach = along.RadiusM + other.RadiusM + 0.01;
        bool doubtful = false;
        for (int i = 0; i + 1 < along.Course.Count; i++)
            for (int j = 0; j + 1 < other.Course.Count; j++)
            {
                var (a, b, c, d) = (along.Course[i], along.Course[i + 1], other.Course[j], other.Course[j + 1]);
                var (length, across) = (a.DistanceM(b), c.DistanceM(d));
                if (length < 0.05 || across < 0.05) continue;
                var way = b - a;
                double On(Point3 p) => ((p.XM - a.XM) * way.XM + (p.YM - a.YM) * way.YM + (p.ZM - a.ZM) * way.ZM) / length;
                var (s, t) = (On(c), On(d));
                if (Math.Abs(t - s) < 0.06)
                {
                    doubtful |= Math.Abs(Math.Abs(t - s) - 0.05) < 0.01;
                    continue;
                }
                double beside = 0, farthest = 0;
                for (int k = 0; k <= steps; k++)
                {
                    double at = length * k / steps, share = (at - s) / (t - s);
                    if (share is < 0 or > 1) continue;
                    beside += length / steps;
                    farthest = Math.Max(farthest, a.Towards(b, at / length).DistanceM(c.Towards(d, share)));
                }
                doubtful |= beside > 0.03 && Math.Abs(farthest - reach) < 0.002;
                if (farthest > reach || beside < 0.04) continue;
                most += beside;
                if (beside > 0.06) least += beside;
            }
        return (least, most, doubtful);
    }

    [Theory]
    [InlineData("sparrow")]
    [InlineData("lantern")]
    public void A_vehicle_set_elsewhere_in_its_drawing_goes_through_the_same_night(string name)
    {
        var rig = DemoRigs.Of(name);
        var by = new Point3(0.5, -0.25, 0.125);
        Box Moved(Box box) => box with { At = box.At + by };
        var there = rig with
        {
            Shell = rig.Shell with { Body = Moved(rig.Shell.Body), Zones = [.. rig.Shell.Zones.Select(z => z with { Box = Moved(z.Box) })] },
            Parts = [.. rig.Parts.Select(p => p with { Box = Moved(p.Box) })],
            Runs = [.. rig.Runs.Select(r => r with { Bends = [.. r.Bends.Select(b => b with { At = b.At + by })] })],
        };
        var night = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = false, Cloud = 0.3 };
        var (here, moved) = (new Question(rig, night).Ask(FreezeLadderStudy.Ask).Rungs,
            new Question(there, night).Ask(FreezeLadderStudy.Ask).Rungs.ToDictionary(r => r.Id));
        Assert.Equal(here.Count, moved.Count);
        Assert.All(here, r =>
        {
            Assert.Equal(r.FirstIceS ?? -1, moved[r.Id].FirstIceS ?? -1, 2.0);
            Assert.Equal(r.BreaksS ?? -1, moved[r.Id].BreaksS ?? -1, 2.0);
            Assert.Equal(r.MorningC, moved[r.Id].MorningC, 0.01);
        });
    }

    [Fact]
    public void A_mirrored_vehicle_freezes_alike_on_either_side()
    {
        // One tap line along the far wall, one along the kerb wall, each 10 mm off it, of one room alike on both sides.
        Face Wall(string side) => new(side, side, FaceSide.Wall, 6, [new("xps", 0.02)], 0, []);
        var room = new Zone("room", "room", ZoneKind.Living, new Box(new(0, 0, 0), new(3, 2, 2)), 0.5, [Wall("far-side"), Wall("kerb-side")], []);
        var rig = new RigBuilder()
            .Part("tap-f", "mixer", ("cold", 0.5, 1.99, 1), ("spout", 0.5, 1.9, 1.2)).Part("end-f", "drain-cock", ("in", 2.5, 1.99, 0.9))
                .Run("far", "tap-f.cold", "end-f.in")
            .Part("tap-k", "mixer", ("cold", 0.5, 0.01, 1), ("spout", 0.5, 0.1, 1.2)).Part("end-k", "drain-cock", ("in", 2.5, 0.01, 0.9))
                .Run("kerb", "tap-k.cold", "end-k.in").Build();
        rig = rig with { Shell = rig.Shell with { Body = room.Box, Zones = [room] } };
        var rungs = new Question(rig, Frost with { HeatOn = false }).Ask(FreezeLadderStudy.Ask).Rungs;
        var (far, kerb) = (rungs.Single(r => r.RunId == "far"), rungs.Single(r => r.RunId == "kerb"));
        Assert.Equal(far.FirstIceS!.Value, kerb.FirstIceS!.Value, 1.0);
        // In the middle of the room it takes longer.
        var middle = rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id.EndsWith("-f", StringComparison.Ordinal)
            ? p with { Box = p.Box with { At = p.Box.At with { YM = 1.5 } } } : p)]
        };
        Assert.True(new Question(middle, Frost with { HeatOn = false }).Ask(FreezeLadderStudy.Ask).Rungs.Single(r =>
            r.RunId == "far").FirstIceS > far.FirstIceS + 60);
    }
}
