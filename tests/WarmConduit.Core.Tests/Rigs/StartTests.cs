using CsCheck;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Tests.Rigs;

public class StartTests
{
    private static readonly NewRig Van = new("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain, "long-van");

    public static TheoryData<string, double, double> Plumbed()
    {
        var data = new TheoryData<string, double, double>();
        foreach (string body in Start.Starters[0].Bodies)
            foreach (var (length, width) in ((double, double)[])[(0, 0), (0.5, 0.5), (1, 1)])
                data.Add(body, length, width);
        return data;
    }

    /// <summary>At any size every body's starters hold no pool, no fault, and every part stands in the vehicle.</summary>
    [Theory]
    [MemberData(nameof(Plumbed))]
    public void Every_starter_drains(string body, double length, double width)
    {
        var kind = Bodies.All.First(b => b.Id == body);
        double At(BodyMeasure m, double share) => m.Least + share * (m.Most - m.Least);
        foreach (var starter in Start.Starters)
        {
            double least = body switch { "short-van" or "box-body" => 2.7, "trailer" => 3.05, _ => 0 };
            if (At(kind.Length, length) < least)
            {
                var ask = new NewRig("Test", At(kind.Length, length), At(kind.Width, width), kind.Height.Usual, starter.Living, starter.School,
                    body, starter.Id);
                Assert.Equal("starter", Assert.Throws<RigFileException>(() => Start.Make(ask)).Faults.Single().Path);
                continue;
            }
            var rig = Start.Make(new NewRig("Test", At(kind.Length, length), At(kind.Width, width), kind.Height.Usual, starter.Living, starter.School, body,
                starter.Id));
            var question = new Question(rig, Conditions.Of(rig.Brief) with { Water = WaterState.Drained });
            var drained = question.Ask(DrainDownStudy.Ask);
            Assert.Empty(drained.Pools.Select(p => $"{p.Words} {p.RetainedL}"));
            Assert.Empty(Adviser.Ask(question).Findings.Where(f => f.Severity == Severity.Fault).Select(f => $"{f.Title}: {f.Reason.Text}"));
            Assert.DoesNotContain(Adviser.Ask(question).Findings, f =>
                f.Kind is FindingKind.LooseEnd or FindingKind.BareZone or FindingKind.Backwards or FindingKind.Choked or FindingKind.NoIsolator);
            Assert.All(rig.Parts, p => Assert.InRange(p.Box.Centre().XM, -0.05, rig.Shell.Body.Size.XM + 0.05));
            Assert.Equal(starter.School == FreezeSchool.Air, rig.Parts.Any(p => p.Stock == "air-port"));
        }
    }

    [Fact]
    public void A_refusal_names_each_field()
    {
        var refused = Assert.Throws<RigFileException>(() => Start.Make(Van with { Name = " ", LengthM = 9, Body = "long-van", Starter = "bath" }));
        Assert.Equal(["lengthM", "name", "starter"], refused.Faults.Select(f => f.Path).Order());
        Assert.Equal("starter", Assert.Throws<RigFileException>(() => Start.Make(Van with
        {
            Body = "cabin",
            LengthM = 2.6,
            WidthM = 1.9,
            Starter = "lived-in"
        })).Faults.Single().Path);
        Assert.Equal("lengthM", Assert.Throws<RigFileException>(() => Start.Make(Van with { Body = null, LengthM = double.NaN })).Faults.Single().Path);
    }

    [Fact]
    public void From_ones_own_tape_it_is_a_box_and_nothing_more()
    {
        var rig = Start.Make(Van with { Body = null, Name = "Été 2!" });
        Assert.Equal((new Point3(3.7, 1.75, 1.9), 0, 0, "t-2"), (rig.Shell.Body.Size, rig.Shell.Zones.Count, rig.Parts.Count, rig.Id));
    }

    /// <summary>Of rooms within a body, however they lie: what faces outdoors one way sums to the body's face that way, and partitions stand once.</summary>
    [Fact]
    public void Outward_faces_sum_to_those_of_the_body() =>
        Gen.Select(Gen.Double[0, 1].Array[6], Gen.Double[0, 1].Array[6], Gen.Double[0, 1].Array[6]).Sample((a, b, c) =>
        {
            var body = new Box(default, new Point3(4, 2, 1.8));
            Zone Room(string id, double[] t)
            {
                static (double, double) Span(double u, double v, double most) => (Math.Min(u, v) * most, Math.Max(0.01, Math.Abs(u - v) * most));
                var ((x, dx), (y, dy), (z, dz)) = (Span(t[0], t[1], 3.9), Span(t[2], t[3], 1.9), Span(t[4], t[5], 1.7));
                return new Zone(id, id, ZoneKind.Cupboard, new Box(new Point3(x, y, z), new Point3(dx, dy, dz)), 1, [], []);
            }
            Zone[] zones = [new("body", "body", ZoneKind.Living, body, 1, [], []), Room("a", a), Room("b", b), Room("c", c)];
            var skin = Skin.Of(zones);
            double Outward(Facing facing) => skin.Where(p => p.Towards is null && p.Facing == facing).Sum(p => p.AreaM2);
            foreach (var (facing, area) in ((Facing, double)[])[(Facing.Up, 8), (Facing.Down, 8), (Facing.Rear, 3.6), (Facing.Forward, 3.6),
                (Facing.KerbSide, 7.2), (Facing.FarSide, 7.2)])
                Assert.Equal(area, Outward(facing), 9);
            var pairs = skin.Where(p => p.Towards is not null).Select(p => (p.ZoneId, p.Towards)).ToHashSet();
            Assert.DoesNotContain(pairs, p => pairs.Contains((p.Towards!, p.ZoneId)));
        }, iter: 300);

    [Fact]
    public void A_room_is_its_box_less_the_rooms_in_it()
    {
        Zone Of(string id, Point3 at, Point3 size) => new(id, id, ZoneKind.Garage, new Box(at, size), 1, [], []);
        var skin = Skin.Of([Of("body", default, new(4, 2, 2)), Of("garage", default, new(1, 2, 1)), Of("locker", default, new(0.5, 0.5, 0.5))]);
        double Area(string zone, Facing facing, string? towards) => skin.Single(p => (p.ZoneId, p.Facing, p.Towards) == (zone, facing, towards)).AreaM2;
        Assert.Equal(2 * 2 - 1 * 2, Area("body", Facing.Rear, null), 9);
        Assert.Equal(1 * 2 - 0.25, Area("garage", Facing.Rear, null), 9);
        Assert.Equal(2, Area("garage", Facing.Up, "body"), 9);
        Assert.Equal(0.25, Area("locker", Facing.Forward, "garage"), 9);
    }
}
