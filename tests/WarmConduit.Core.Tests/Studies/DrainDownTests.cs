using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>How each kind of part lets water by, on rigs small enough to reckon by hand.</summary>
public class DrainDownTests
{
    private static DrainDownAnswer Ask(RigBuilder rig) => rig.Build().Drained();

    private static double Held(DrainDownAnswer answer, string run) => answer.Runs.Single(r => r.RunId == run).PoolL;

    /// <summary>An open tap at the top, the part in the middle, a drain at the foot, all falling.</summary>
    private static RigBuilder Line(string stock, string state = "open", bool backwards = false) => new RigBuilder()
        .Part("top", "open-end", ("end", 0, 0, 1.0))
        .Part("middle", stock, state, backwards ? [("out", 1, 0, 0.6), ("in", 1.1, 0, 0.59)] : [("in", 1, 0, 0.6), ("out", 1.1, 0, 0.59)])
        .Part("foot", "drain-cock", ("in", 2, 0, 0.1))
        .Run("above", "top.end", backwards ? "middle.out" : "middle.in")
        .Run("below", backwards ? "middle.in" : "middle.out", "foot.in");

    [Fact]
    public void Ports_may_be_called_anything()
    {
        var rig = new RigBuilder()
            .Part("top", "open-end", ("end", 0, 0, 1.0))
            .Part("cross", "tee", ("a", 1, 0, 0.6), ("b-c", 1.1, 0, 0.59), ("a-b", 1, 0.1, 0.59), ("c", 1.1, 0.1, 0.58))
            .Part("foot", "drain-cock", ("in", 2, 0, 0.1))
            .Run("above", "top.end", "cross.a-b")
            .Run("below", "cross.c", "foot.in");
        Assert.Equal(0, Held(Ask(rig), "above"), 9);
    }

    [Theory]
    [InlineData("tee", "open", false, true)]
    [InlineData("strainer", "open", false, true)]
    [InlineData("ball-valve", "open", false, true)]
    [InlineData("ball-valve", "half-open", false, true)]
    [InlineData("ball-valve", "closed", false, false)]
    [InlineData("check-valve", "open", false, true)]
    [InlineData("check-valve", "open", true, false)]
    [InlineData("waterless-trap", "open", false, true)]
    [InlineData("pump", "open", false, false)]
    [InlineData("mixer", "open", false, true)]
    [InlineData("mixer", "closed", false, false)]
    public void A_part_lets_water_by_or_holds_what_is_above_it(string stock, string state, bool backwards, bool passes)
    {
        var answer = Ask(Line(stock, state, backwards));
        double above = RigBuilder.BoreL(new Point3(0, 0, 1).DistanceM(new(1, 0, 0.6)));
        Assert.Equal(passes ? 0 : above, Held(answer, "above"), passes ? 1e-9 : 0.005);
        Assert.Equal(0, Held(answer, "below"), 1e-9);
        if (!passes) Assert.Equal("middle", answer.Pools[0].ShutBy?.PartId ?? answer.Pools[0].Lowest.PartId);
    }

    [Fact]
    public void A_closed_drain_cock_lets_nothing_out_and_an_open_one_is_where_routes_end()
    {
        var open = Ask(Line("tee"));
        Assert.Equal("foot", open.Runs[0].RouteEnd!.PartId);
        Assert.Equal(["above", "below"], open.Route("above"));
        var closed = Line("tee").Build().Left("foot", "closed").Drained();
        // The only way out now is the open end at the top: everything below it stays.
        Assert.Equal(closed.Runs.Sum(r => r.FullL), closed.Stays.PoolsL, 0.01);
        Assert.Equal("top", closed.Runs[1].RouteEnd!.PartId);
    }

    [Theory]
    [InlineData("filter", 0.9)]
    [InlineData("trap", 0.3)]
    [InlineData("shower-hose", 0.09)]
    public void Bowls_traps_and_hanging_hoses_keep_their_water_and_say_what_to_do(string stock, double litres)
    {
        var part = Ask(Line(stock)).Parts.Single(p => p.PartId == "middle");
        Assert.True(part.ByDesign);
        Assert.Equal(litres, part.RetainedL, 9);
        Assert.NotEmpty(part.Remedy!);
    }

    [Fact]
    public void A_builder_who_knows_better_replaces_the_figures_of_stock()
    {
        var rig = Line("filter").Build();
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "middle" ? p with { HoldsL = 0.4 } : p)] };
        Assert.Equal(0.4, rig.Drained().Stays.ByDesignL, 9);
    }

    [Fact]
    public void An_accumulator_empties_when_its_leg_drains_and_stays_full_when_it_does_not()
    {
        RigBuilder With(double height) => Line("tee").Part("cell", "accumulator", ("port", 1, 1, height)).Run("leg", "middle.in", "cell.port");
        Assert.Equal(0, Ask(With(0.7)).Parts.Single(p => p.PartId == "cell").RetainedL, 9);
        Assert.Equal(0.5, Ask(With(0.3)).Parts.Single(p => p.PartId == "cell").RetainedL, 9);
    }

    [Theory]
    [InlineData(0.10, 0)]
    [InlineData(0.15, 0.25)]
    [InlineData(0.20, 0.5)]
    public void A_tank_keeps_what_lies_under_its_outlet(double outlet, double share)
    {
        var rig = new RigBuilder()
            .Tank("tank", new Box(new(0, 0, 0.1), new(0.5, 0.5, 0.2)), ("vent", 0.1, 0.1, 0.3), ("outlet", 0.5, 0.25, outlet))
            .Part("air", "open-end", ("end", 0.1, 0.1, 0.8))
            .Part("foot", "drain-cock", ("in", 1, 0.25, 0.02))
            .Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end")
            .Run("out", "tank.outlet", "foot.in");
        Assert.Equal(share * 50, Ask(rig).Parts.Single(p => p.PartId == "tank").RetainedL, 0.05);
    }

    [Fact]
    public void A_dipped_vent_holds_water_below_its_lower_shoulder()
    {
        var rig = new RigBuilder()
            .Tank("tank", new Box(new(0, 0, 0.1), new(0.5, 0.5, 0.2)), ("vent", 0.1, 0.1, 0.3), ("outlet", 0.5, 0.25, 0.1))
            .Part("air", "open-end", ("end", 1, 0.1, 0.5))
            .Part("foot", "drain-cock", ("in", 1, 0.25, 0.02))
            .Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end", new Point3(0.3, 0.1, 0.4), new Point3(0.6, 0.1, 0.2))
            .Run("out", "tank.outlet", "foot.in");
        var answer = Ask(rig);
        // It seals the tank: 200 mm of water above the outlet do not draw air through 200 mm of dip.
        Assert.Equal((50, StayCause.Airlock), (answer.Stays.TanksL, answer.Parts.Single(p => p.PartId == "tank").Cause));
        var pool = Assert.Single(answer.Pools, p => p.Shares.Count > 0);
        Assert.Equal(0.4, pool.LevelM!.Value, 9);
        Assert.Equal("b1", pool.Crest!.PointId);
        Assert.Equal("b2", pool.Lowest.PointId);
    }

    [Fact]
    public void Stations_tell_falls_the_way_the_water_leaves_and_where_it_is_wet()
    {
        var rig = new RigBuilder()
            .Part("tap", "open-end", ("end", 0, 0, 0.5))
            .Part("foot", "drain-cock", ("in", 4, 0, 0.1))
            .Run("line", "tap.end", "foot.in", new Point3(1, 0, 0.2), new Point3(2, 0, 0.3));
        var run = Ask(rig).Runs[0];
        double climb = 0.1 / Math.Sqrt(1.01);
        Assert.Equal([1, 1, 1, 0], run.Stations.Select(s => s.Direction));
        Assert.Equal(-climb, run.Stations[1].Fall!.Value, 1e-9);
        Assert.Equal(run.LeastFall, run.Stations[1].Fall);
        Assert.Equal("b1", run.LeastFallAt);
        // The first length is wet below 0.3: its last third.
        Assert.Equal(2.0 / 3, run.Stations[0].WetFrom, 1e-9);
        Assert.Equal((0, 1), (run.Stations[1].WetFrom, run.Stations[1].WetTo));
        Assert.Equal((0, 0), (run.Stations[2].WetFrom, run.Stations[2].WetTo));
        Assert.Null(run.Stations[3].Fall);
    }

    [Theory]
    [InlineData(0.0, 0.25)]
    [InlineData(0.01, 0.125)]
    [InlineData(0.02, 0)]
    [InlineData(-0.05, 0.25)]
    public void Residual_water_is_a_quarter_of_the_bore_dead_level_and_nothing_at_the_least_fall(double fall, double share) =>
        Assert.Equal(share * 2e-4 * 3 * 1000, DrainDownStudy.FilmL(2e-4, 3, fall, 0.02), 1e-12);

    [Fact]
    public void Tilting_the_rig_turns_a_gentle_line_back()
    {
        var rig = new RigBuilder().Part("tap", "tee", ("end", 0, 0, 0.26)).Part("foot", "drain-cock", ("in", 3, 0, 0.2))
            .Run("line", "tap.end", "foot.in").Build();
        Assert.Equal(0, rig.Drained().Stays.PoolsL, 1e-9);
        var nose = rig.Drained(new Attitude(3, 0));
        // The high end is now the drain's: the whole run stands full up to it.
        Assert.Equal(RigBuilder.BoreL(3), nose.Stays.PoolsL, 0.03);
        Assert.True(nose.Runs[0].LeastFall < 0);
    }

    [Fact]
    public void Two_pools_with_a_ridge_between_them_are_two_and_have_their_own_ids()
    {
        var rig = new RigBuilder()
            .Part("tap", "open-end", ("end", 0, 0, 0.6))
            .Part("foot", "drain-cock", ("in", 5, 0, 0.1))
            .Part("tee", "tee", ("a", 2.4, 0, 0.5), ("b", 2.6, 0, 0.49))
            .Run("first", "tap.end", "tee.a", new Point3(1, 0, 0.2))
            .Run("second", "tee.b", "foot.in", new Point3(3, 0, 0.25), new Point3(4, 0, 0.4));
        var pools = Ask(rig).Pools;
        Assert.Equal(["pool:first", "pool:second"], pools.Select(p => p.Id).Order());
        Assert.Equal([0.4, 0.5], pools.Select(p => Math.Round(p.LevelM!.Value, 6)).Order());
    }
}
