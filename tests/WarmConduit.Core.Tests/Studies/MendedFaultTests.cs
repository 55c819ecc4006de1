using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Answers that were wrong once.</summary>
public class MendedFaultTests
{
    private static readonly Conditions Night = new(-8, 4, true, 10, WaterState.Wet, 22, 8, Attitude.Level);

    private static Zone Room(string id, double x, params Face[] faces) => new(id, id, ZoneKind.Garage, new Box(new(x, 0, 0), new(1, 1, 1)), 0, faces, []);

    private static Face Wall(string id, double area, string? towards, string material = "xps", double thick = 0.03) =>
        new(id, id, FaceSide.Wall, area, [new FaceLayer(material, thick)], 0, [], towards);

    private static double AirOf(string zone, params Zone[] zones) =>
        ZoneBalance.Solve(new RigBuilder().Build() is var rig ? rig with { Shell = rig.Shell with { Zones = zones } } : rig, Night.Steady())
            .Single(z => z.ZoneId == zone).AirC;

    [Fact]
    public void A_wide_air_gap_resists_no_better_than_one_of_25_mm()
    {
        var solid = Catalogue.Solid("air-gap")!;
        Assert.Equal(0.18, 0.025 / solid.ConductivityAt(0.025), 0.002);
        Assert.Equal(0.025 / solid.ConductivityAt(0.025), 0.05 / solid.ConductivityAt(0.05), 9);
        Assert.Equal(
            ZoneBalance.Transmittance(Wall("a", 1, null, "air-gap", 0.025), Night.Steady(), true),
            ZoneBalance.Transmittance(Wall("b", 1, null, "air-gap", 0.05), Night.Steady(), true), 9);
    }

    [Fact]
    public void A_partition_or_opening_that_both_its_zones_list_counts_once()
    {
        var warm = Room("a-warm", 0, Wall("out", 5, null), Wall("between", 2, "b-cold")) with { Heater = new ZoneHeater(200, 18) };
        var cold = Room("b-cold", 1, Wall("out", 5, null));
        double once = AirOf("b-cold", warm, cold);
        Assert.Equal(once, AirOf("b-cold", warm, cold with { Faces = [.. cold.Faces, Wall("between", 2, "a-warm")] }), 9);
        // Another one of another size is another one.
        Assert.True(AirOf("b-cold", warm, cold with { Faces = [.. cold.Faces, Wall("hatch", 0.5, "a-warm")] }) > once + 0.1);
        Opening Door(string towards) => new("door", towards, 0.1, 0.5);
        double open = AirOf("b-cold", warm with { Openings = [Door("b-cold")] }, cold);
        Assert.True(open > once + 0.5);
        Assert.Equal(open, AirOf("b-cold", warm with { Openings = [Door("b-cold")] }, cold with { Openings = [Door("a-warm")] }), 9);
    }

    [Fact]
    public void A_floor_over_an_open_underfloor_is_in_the_wind_and_more_wind_never_warms_it()
    {
        var under = new Zone("under", "under", ZoneKind.OpenUnderfloor, new Box(new(0, 0, -0.4), new(3, 2, 0.4)), 20, [], []);
        Zone Living(string towards) => Room("living", 0, Wall("out", 8, null), Wall("floor", 5, towards)) with { Heater = new ZoneHeater(300, 18) };
        double Loss(double wind, ZoneKind kind) => ZoneBalance.Solve(new RigBuilder().Build() is var rig
            ? rig with { Shell = rig.Shell with { Zones = [Living("under"), under with { Kind = kind }] } } : rig, Night.Steady() with { WindMPerS = wind })
            .Single(z => z.ZoneId == "living").HeaterW;
        Assert.True(Loss(8, ZoneKind.OpenUnderfloor) > Loss(8, ZoneKind.EnclosedUnderfloor));
        double[] air = [.. new[] { 0, 1, 2, 4, 8, 16.0 }.Select(w => ZoneBalance.Solve(new RigBuilder().Build() is var rig
            ? rig with { Shell = rig.Shell with { Zones = [Living("under"), under] } } : rig, Night.Steady() with { WindMPerS = w })
            .Single(z => z.ZoneId == "under").AirC)];
        Assert.Equal(air.OrderDescending(), air);
    }

    [Fact]
    public void A_zone_without_faces_is_told_and_so_is_a_loose_end_and_a_joint_by_the_wiring()
    {
        var rig = new RigBuilder().Part("foot", "drain-cock", ("in", 2, 0, 0.1)).Loose("line", "foot.in", new Point3(0, 0, 0.5))
            .Zone("bare", ZoneKind.Cupboard, RigBuilder.Cube(0, 0, 0, 1)).Build();
        rig = rig with
        {
            Shell = rig.Shell with
            {
                Zones = [rig.Shell.Zones[0] with { Faces = [] }],
                KeepOuts = [new KeepOut("fuses", "fuse box", KeepOutKind.Electrics, RigBuilder.Cube(1.9, -0.1, 0, 0.3))]
            }
        };
        var findings = rig.Findings(Night);
        Assert.Equal(
            [(FindingKind.LooseEnd, Severity.Warning), (FindingKind.BareZone, Severity.Warning), (FindingKind.JointInKeepOut, Severity.Fault)],
            findings.Where(f => f.Kind is FindingKind.BareZone or FindingKind.LooseEnd or FindingKind.JointInKeepOut).OrderBy(f => f.Kind)
            .Select(f => (f.Kind, f.Severity)));
        Assert.Equal("to", findings.Single(f => f.Kind == FindingKind.LooseEnd).Place!.PointId);
    }

    [Fact]
    public void Of_two_parts_that_are_shut_the_one_is_named_that_would_let_the_water_out()
    {
        // A pump at one end and a closed valve at the other: behind the valve is the drain.
        var rig = new RigBuilder()
            .Part("pump", "pump", ("in", -0.1, 0, 0.62), ("out", 0, 0, 0.6))
            .Part("a-stub", "tee", ("x", -1, 0, 0.8))
            .Part("valve", "ball-valve", "closed", ("a", 2, 0, 0.5), ("b", 2.1, 0, 0.49))
            .Part("foot", "drain-cock", ("in", 3, 0, 0.1))
            .Run("suction", "a-stub.x", "pump.in").Run("line", "pump.out", "valve.a").Run("out", "valve.b", "foot.in").Build();
        Assert.Equal("valve", rig.Drained().Pools.Single(p => p.Shares.Any(s => s.RunId == "line")).ShutBy!.PartId);
        Assert.Equal(0, rig.Left("valve", "open").Drained().Runs.Single(r => r.RunId == "line").PoolL, 9);
    }

    [Fact]
    public void Each_dip_of_a_run_has_its_own_water()
    {
        // Two dips, 100 mm and 10 mm deep, as long as each other.
        var rig = new RigBuilder().Part("tap", "open-end", ("end", 0, 0, 0.6)).Part("foot", "drain-cock", ("in", 6, 0, 0.1))
            .Run("line", "tap.end", "foot.in", new Point3(1, 0, 0.3), new Point3(2, 0, 0.4), new Point3(3, 0, 0.39), new Point3(4, 0, 0.4),
                new Point3(5, 0, 0.2)).Build();
        var ladder = rig.Ladder(Night with { Water = WaterState.Drained });
        var drain = rig.Drained();
        var pieces = ladder.Rungs.Where(r => r.RunId == "line").ToList();
        Assert.Equal(drain.Runs[0].PoolL, pieces.Sum(p => p.WaterL), 6);
        Assert.Equal(drain.Pools.Select(p => Math.Round(p.RetainedL, 5)).Order(), pieces.Select(p => Math.Round(p.WaterL, 5)).Order());
    }

    [Fact]
    public void What_is_done_by_hand_is_obeyed_by_every_question_and_what_nobody_does_is_a_warning()
    {
        RigBuilder Rig() => new RigBuilder().Part("tap", "open-end", ("end", 0, 0, 0.6)).Part("foot", "drain-cock", ("in", 3, 0, 0.2))
            .Run("line", "tap.end", "foot.in").Part("filter", "filter", ("in", 1, 1, 0.5));
        var (left, done) = (Rig().Build(), Rig().ByHand("filter").Build());
        Assert.Equal((0.9, 0.0), (left.Drained().Stays.TotalL, left.Drained().Stays.ByHandL));
        Assert.Equal((0.0, 0.9), (done.Drained().Stays.TotalL, done.Drained().Stays.ByHandL));
        var drained = Night with { Water = WaterState.Drained, HeatOn = false };
        Assert.Equal(Verdict.Fails, left.Ladder(drained).Verdict);
        Assert.Equal(Verdict.Passes, done.Ladder(drained).Verdict);
        // One verdict, whoever asks.
        Assert.Equal((Verdict.Fails, Verdict.Passes), (left.Standing().Verdict, done.Standing().Verdict));
        Assert.Equal(Severity.Note, done.Findings(drained).Single(f => f.Title == "filter").Severity);
        Assert.Equal(Severity.Warning, left.Findings(drained with { OutdoorC = 5 }).Single(f => f.Title == "filter").Severity);
    }

    [Fact]
    public void Positions_of_a_scenario_make_its_ways_and_no_others()
    {
        Rig With(string position) => new RigBuilder()
            .Part("tap", "open-end", ("end", 0, 0, 0.9))
            .Part("three", "three-way-valve", position, ("common", 1, 0, 0.6), ("left", 1.05, 0.05, 0.59), ("right", 1.1, 0, 0.59))
            .Part("left", "drain-cock", ("in", 1, 2, 0.1)).Part("right", "drain-cock", "closed", ("in", 3, 0, 0.1))
            .Run("supply", "tap.end", "three.common").Run("to-left", "three.left", "left.in").Run("to-right", "three.right", "right.in").Build();
        Assert.Equal(0, With("left").Drained().Runs.Single(r => r.RunId == "supply").PoolL, 9);
        Assert.True(With("right").Drained().Runs.Single(r => r.RunId == "supply").PoolL > 0.05);
        Assert.Equal(0, With("all").Drained().Runs.Single(r => r.RunId == "supply").PoolL, 9);
    }

    [Fact]
    public void A_tank_is_as_full_at_the_start_as_the_conditions_say()
    {
        var rig = RigBuilderTank();
        double At(double? share) => rig.Ladder(Night with
        {
            HeatOn = false,
            TankLevels = share is { } s ? [new TankLevel("tank", s)]
            : null
        }).Rungs.Single(r => r.PartId == "tank").WaterL;
        Assert.Equal(50, At(null), 6);
        Assert.Equal(10, At(0.2), 6);
        Assert.DoesNotContain(rig.Ladder(Night with { TankLevels = [new TankLevel("tank", 0)] }).Rungs, r => r.PartId == "tank");
        Assert.Contains((Night with { TankLevels = [new TankLevel("nobody", 2)] }).Check(rig), f => f.Path == "conditions.tankLevels[0].share");

        static Rig RigBuilderTank() => new RigBuilder().Tank("tank", new Box(new(0, 0, 0.2), new(0.5, 0.5, 0.2)), ("outlet", 0.5, 0.25, 0.2))
            .Part("foot", "drain-cock", ("in", 1, 0.25, 0.02)).Run("out", "tank.outlet", "foot.in").Build();
    }
}
