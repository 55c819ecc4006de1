using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Tests.Levels;

public class DrainingTests
{
    private static double StaysM3(LevelNetwork network, Attitude attitude) => Draining.Solve(network, attitude).EdgeM3.Sum();

    [Fact]
    public void One_more_drain_never_leaves_more_water() =>
        Gen.Select(LevelGen.Network, LevelGen.Attitude, Gen.Int[0, 99]).Sample((network, attitude, pick) =>
        {
            var more = network with { Drains = [.. network.Drains, network.Nodes[pick % network.Nodes.Count].Id] };
            return StaysM3(more, attitude) <= StaysM3(network, attitude) + 1e-12;
        });

    [Fact]
    public void Closing_a_valve_never_frees_water() =>
        Gen.Select(LevelGen.Network, LevelGen.Attitude, Gen.Int[0, 99]).Where(t => t.Item1.Edges.Count > 0).Sample((network, attitude, pick) =>
        {
            int closed = pick % network.Edges.Count;
            var shut = network with { Edges = [.. network.Edges.Select((e, i) => i == closed ? e with { Passes = Passes.None } : e)] };
            return StaysM3(shut, attitude) >= StaysM3(network, attitude) - 1e-12;
        });

    [Fact]
    public void Tilting_by_nothing_changes_nothing_and_a_raised_rig_holds_the_same() =>
        Gen.Select(LevelGen.Network, Gen.Double[-2, 2]).Sample((network, up) =>
        {
            var lift = new Point3(0, 0, up);
            var raised = network with
            {
                Nodes = [.. network.Nodes.Select(n => n with { At = n.At + lift })],
                Edges = [.. network.Edges.Select(e => e with { Via = [.. e.Via.Select(v => v + lift)] })],
            };
            double level = StaysM3(network, Attitude.Level);
            return level == StaysM3(network, new Attitude(0, 0)) && Math.Abs(level - StaysM3(raised, Attitude.Level)) < 1e-9;
        });

    [Fact]
    public void What_stays_is_what_an_exhaustive_search_of_all_ways_out_finds() =>
        Gen.Select(LevelGen.Network, LevelGen.Attitude).Sample((network, attitude) =>
        {
            var answer = Draining.Solve(network, attitude);
            var level = Exhaustive(answer);
            for (int p = 0; p < level.Length; p++)
                if (answer.LevelM[p] != level[p])
                    return false;
            return true;
        });

    [Fact]
    public void A_pool_names_its_crest_and_its_lowest_place()
    {
        var network = new LevelNetwork(
            [new("tap", new(0, 0, 0.8)), new("crest", new(2, 0, 0.36)), new("drain", new(3, 0, 0.1))],
            [new("dip", "tap", "crest", 0.0123, Passes.Both, [new(1, 0, 0.2)]), new("out", "crest", "drain", 0.0123, Passes.Both, [])],
            [],
            ["drain"]);
        var answer = Draining.Solve(network, Attitude.Level);
        var pool = Assert.Single(answer.Pools());
        Assert.Equal(0.36, pool.LevelM, 12);
        Assert.Equal(answer.Graph.PointOf("crest"), pool.CrestPoint);
        Assert.Equal(0.2, answer.HeightM[pool.LowestPoint], 12);
    }

    [Theory]
    [InlineData(0, 0, 0.25, 0.5)]
    [InlineData(0, 0, 2, 1)]
    [InlineData(0, 0, -1, 0)]
    [InlineData(10, 0, 0.1763, 0.339)] // the wedge reaches 0.4 of the way up a box that is 1 m long and 0.5 m high
    public void A_tank_holds_what_lies_below_the_level(double pitch, double roll, double level, double expected)
    {
        var box = new Box(new(0, 0, 0), new(1, 1, 0.5));
        double filled = VesselSlice.FilledFraction(box, level, new Attitude(pitch, roll));
        double wedge = pitch == 0 ? expected : level * level / (2 * Math.Tan(pitch * Math.PI / 180)) / 0.5;
        Assert.Equal(wedge, filled, 1e-9);
    }

    [Fact]
    public void A_network_that_makes_no_sense_is_refused_with_its_place()
    {
        var good = new LevelNetwork([new("a", new(0, 0, 0)), new("b", new(1, 0, 0))], [new("e", "a", "b", 0.01, Passes.Both, [])], [], ["a"]);
        string Refused(LevelNetwork network) => Assert.Throws<LevelNetworkException>(() => new LevelGraph(network)).Place;
        Assert.Equal("e", Refused(good with { Edges = [good.Edges[0] with { To = "c" }] }));
        Assert.Equal("e", Refused(good with { Edges = [good.Edges[0] with { InnerDiameterM = double.NaN }] }));
        Assert.Equal("e", Refused(good with { Edges = [good.Edges[0] with { Via = [new(0, double.PositiveInfinity, 0)] }] }));
        Assert.Equal("a", Refused(good with { Nodes = [good.Nodes[0], good.Nodes[0]] }));
        Assert.Equal("e", Refused(good with { Edges = [good.Edges[0], good.Edges[0]] }));
        Assert.Equal("drains", Refused(good with { Drains = [] }));
    }

    // Relaxes every way out over and over until nothing changes: slow and plain.
    private static double[] Exhaustive(LevelAnswer answer)
    {
        var graph = answer.Graph;
        var z = answer.HeightM;
        var level = Enumerable.Repeat(double.PositiveInfinity, z.Length).ToArray();
        foreach (string d in graph.Network.Drains) level[graph.PointOf(d)] = z[graph.PointOf(d)];
        for (bool moved = true; moved;)
        {
            moved = false;
            for (int e = 0; e < graph.Network.Edges.Count; e++)
            {
                var points = graph.PointsOfEdge(e);
                for (int k = 0; k + 1 < points.Length; k++)
                {
                    var (a, b) = (points[k], points[k + 1]);
                    var passes = graph.Network.Edges[e].Passes;
                    if (passes != Passes.None) Relax(a, b);
                    if (passes == Passes.Both) Relax(b, a);
                }
            }
            void Relax(int at, int over)
            {
                double through = Math.Max(z[at], level[over]);
                if (through >= level[at]) return;
                (level[at], moved) = (through, true);
            }
        }
        return level;
    }
}
