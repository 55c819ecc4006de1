using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Tests.Levels;

public class LevelExtrasTests
{
    private const double Bore = 0.0123;

    private static LevelEdge Edge(string id, string from, string to, params Point3[] via) => new(id, from, to, Bore, Passes.Both, via);

    private static double LitresPerMetre => Math.PI / 4 * Bore * Bore * 1000;

    [Fact]
    public void The_envelope_is_the_plain_answer_at_every_attitude_on_any_number_of_threads() =>
        Gen.Select(LevelGen.Network, Gen.Int[1, 9], Gen.Int[1, 9]).Sample((network, pitches, rolls) =>
        {
            var graph = new LevelGraph(network);
            double[] p = ParkingEnvelope.Angles(4, pitches), r = ParkingEnvelope.Angles(3, rolls);
            int[] watched = [.. Enumerable.Range(0, network.Edges.Count).Where(e => e % 2 == 0)];
            var one = ParkingEnvelope.Ask(graph, p, r, watched);
            var all = ParkingEnvelope.Ask(graph, p, r, watched, threads: 0);
            for (int i = 0; i < pitches; i++)
            {
                for (int j = 0; j < rolls; j++)
                {
                    var plain = Draining.Solve(graph, new Attitude(p[i], r[j]));
                    Assert.Equal(plain.EdgeM3.Sum(), one.TotalM3[i, j], 1e-15);
                    Assert.Equal(watched.Select(e => plain.EdgeM3[e]).DefaultIfEmpty(0).Max(), one.WorstM3[i, j], 1e-15);
                    Assert.Equal(one.TotalM3[i, j], all.TotalM3[i, j]);
                }
            }
        });

    [Fact]
    public void An_envelope_can_be_called_off()
    {
        using var cancel = new CancellationTokenSource();
        cancel.Cancel();
        var graph = new LevelGraph(new LevelNetwork([new("a", default), new("b", new(1, 0, 0.1))], [Edge("e", "b", "a")], [], ["a"]));
        Assert.Throws<OperationCanceledException>(() => ParkingEnvelope.Ask(graph, [0, 1], [0], threads: 1, cancel: cancel.Token));
        Assert.Equal("watched", Assert.Throws<LevelNetworkException>(() => ParkingEnvelope.Ask(graph, [0], [0], [graph.Network.Edges.Count])).Place);
    }

    [Fact]
    public void A_closed_tap_holds_its_riser_full_and_is_named()
    {
        // Main from an open tap to the drain, a riser with a shut tap, and a hanging leg that is only a pool.
        var network = new LevelNetwork(
            [new("open", new(0, 0, 0.9)), new("tee", new(1, 0, 0.3)), new("shut", new(1, 0, 0.8)), new("drain", new(2, 0, 0.1)), new("leg", new(1, 1, 0.1))],
            [Edge("main", "open", "tee"), Edge("riser", "tee", "shut"), Edge("out", "tee", "drain"), Edge("hanging", "tee", "leg")],
            [],
            ["drain"]);
        var graph = new LevelGraph(network);
        var basin = Assert.Single(AirBasins.Find(graph, ["open"], Attitude.Level).Basins);
        Assert.Equal(1, Assert.Single(basin.Edges).Edge);
        Assert.Equal(0.5 * LitresPerMetre, basin.VolumeM3 * 1000, 1e-9);
        Assert.Equal(graph.PointOf("shut"), basin.OpenAt);
        Assert.Empty(AirBasins.Find(graph, ["open", "shut"], Attitude.Level).Basins);
        // With every tap shut all that stands above the drain hangs.
        Assert.Equal(2, AirBasins.Find(graph, [], Attitude.Level).Basins.SelectMany(b => b.Edges).Select(e => e.Edge).Distinct().Count(e => e is 0 or 1));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void Air_comes_through_a_one_way_part_only_its_way(bool towardsTheTap)
    {
        var flap = Edge("flap", towardsTheTap ? "below" : "tap", towardsTheTap ? "tap" : "below") with { Passes = Passes.Forward };
        var network = new LevelNetwork([new("drain", default), new("below", new(0, 0, 0.5)), new("tap", new(0, 0, 1))],
            [Edge("riser", "below", "drain"), flap], [], ["drain"]);
        var basins = AirBasins.Find(new LevelGraph(network), ["tap"], Attitude.Level).Basins;
        // SurfaceContacts the flap no air comes behind the riser's water; what lies above the flap is a pool, and counted as one.
        if (towardsTheTap) Assert.Equal(0.5 * LitresPerMetre, Assert.Single(basins).VolumeM3 * 1000, 1e-9);
        else Assert.Empty(basins);
    }

    [Fact]
    public void A_hump_higher_than_both_its_openings_holds_its_top()
    {
        var network = new LevelNetwork([new("a", new(0, 0, 0.2)), new("b", new(2, 0, 0.1))], [Edge("over", "a", "b", new Point3(1, 0, 0.5))], [], ["b"]);
        var basin = Assert.Single(AirBasins.Find(new LevelGraph(network), ["a"], Attitude.Level).Basins);
        Assert.Equal(0.5, basin.TopM, 12);
    }

    [Fact]
    public void Drains_yield_all_that_leaves_together_and_in_turn() =>
        Gen.Select(LevelGen.Network, LevelGen.Attitude).Sample((network, attitude) =>
        {
            var answer = Draining.Solve(network, attitude);
            double full = network.Edges.Select((e, i) => (e, i)).Sum(t => Math.PI / 4 * Bore * Bore * Length(answer, t.i));
            var yields = DrainYields.Ask(network, attitude);
            Assert.Equal(full - answer.EdgeM3.Sum(), yields.Sum(y => y.TogetherM3), 1e-9);
            Assert.Equal(full - answer.EdgeM3.Sum(), yields.Sum(y => y.InTurnM3), 1e-9);
            Assert.All(yields, y => Assert.True(y.TogetherM3 >= 0 && y.InTurnM3 >= -1e-10));
        });

    private static double Length(LevelAnswer answer, int edge)
    {
        var points = answer.Graph.PointsOfEdge(edge);
        return Enumerable.Range(0, points.Length - 1).Sum(k => answer.Graph.Points[points[k]].DistanceM(answer.Graph.Points[points[k + 1]]));
    }

    [Fact]
    public void A_hump_without_a_bleed_catches_air_at_its_top()
    {
        var network = new LevelNetwork(
            [new("tank", new(0, 0, 0.6)), new("pump", new(2, 0, 0.1))], [Edge("suction", "tank", "pump", new Point3(0.5, 0, 0.2), new Point3(1, 0, 0.4))],
            [], ["tank"]);
        var air = AirLocks.Solve(network, Attitude.Level);
        var lock_ = Assert.Single(air.Pools());
        Assert.Equal(0.4, -air.HeightM[lock_.LowestPoint] - Bore, 9);
        Assert.True(air.EdgeM3[0] > 0.1 * LitresPerMetre / 1000);
        var rising = network with { Edges = [Edge("suction", "tank", "pump", new Point3(0.5, 0, 0.4))] };
        Assert.Empty(AirLocks.Solve(rising, Attitude.Level).Pools());
    }

    [Fact]
    public void A_span_pools_when_its_end_slope_passes_its_fall_and_not_before()
    {
        var pipe = new ClippedPipe(0.0123, 0.0159, 940, 1000, 250e6);
        double fall = 0.02, widest = pipe.SpacingForFallM(fall);
        double Held(double spacing)
        {
            var (a, b) = (new Point3(0, 0, 0.2), new Point3(5.99 * spacing, 0, 0.2 - 5.99 * spacing * fall));
            var edge = pipe.Sagged(Edge("run", "a", "b"), a, b, spacing, pointsASpan: 31);
            return Draining.Solve(new LevelNetwork([new("a", a), new("b", b)], [edge], [], ["b"]), Attitude.Level).EdgeM3[0];
        }
        Assert.Equal(0, Held(0.98 * widest), 12);
        Assert.True(Held(1.15 * widest) > 1e-9);
        Assert.True(Held(1.4 * widest) > Held(1.15 * widest));
    }

    [Fact]
    public void The_least_set_of_drains_is_least_and_greed_says_when_it_may_not_be()
    {
        // Two valleys with a ridge between them, and a point in the middle of a slope that adds nothing.
        var network = new LevelNetwork(
            [new("l", new(0, 0, 0.1)), new("ridge", new(2, 0, 0.4)), new("r", new(4, 0, 0.15)), new("mid", new(1, 0, 0.25))],
            [Edge("a", "ridge", "mid"), Edge("b", "mid", "l"), Edge("c", "ridge", "r")], [], []);
        var answer = DrainSet.Find(network, ["mid", "l", "r", "ridge"], 0.02, new Attitude(2, 0));
        Assert.Equal(["l", "r"], answer.Nodes);
        Assert.True(answer.Exact);
        Assert.Empty(answer.NotReached);
        Assert.Equal(["r"], DrainSet.Find(network, ["l", "ridge"], 0.02, Attitude.Level).NotReached);
        // Steeper ground than the lines: nothing falls to anything, so every point is named but the candidate's own.
        Assert.Equal(["ridge", "r", "mid"], DrainSet.Find(network, ["l"], 0.02, new Attitude(12, 0)).NotReached);
        string[] many = [.. Enumerable.Range(0, 14).Select(i => $"n{i}")];
        var wide = new LevelNetwork(
            [.. many.Select((id, i) => new LevelNode(id, new(i, 0, 0.1 * (i % 2))))], [.. many.Skip(1).Select((id, i) => Edge($"e{i}", many[i], id))], [], []);
        var greedy = DrainSet.Find(wide, many, 0.02, Attitude.Level);
        Assert.False(greedy.Exact);
        Assert.Equal(7, greedy.Nodes.Count);
    }
}
