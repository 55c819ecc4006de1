using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Tests.Levels;

public class BoreAndBlocksTests
{
    [Theory]
    [InlineData(0, 0)]
    [InlineData(0.5, 0.5)]
    [InlineData(1, 1)]
    [InlineData(2, 1)]
    [InlineData(-1, 0)]
    [InlineData(0.25, 0.1955011)] // (acos(1/2) - √3/4)/π
    public void Area_of_a_bore_filled_to_a_depth(double depth, double share) =>
        Assert.Equal(share * Math.PI / 4 * 0.0123 * 0.0123, BoreSegment.AreaM2(0.0123, depth * 0.0123), 1e-10);

    [Fact]
    public void Volume_is_the_area_summed_along_the_pipe_and_never_below_nothing_or_above_full() =>
        Gen.Select(Gen.Double[-0.03, 0.03], Gen.Double[-0.03, 0.03], Gen.Double[0.001, 0.05]).Sample((from, to, bore) =>
        {
            const int steps = 4000;
            double sum = 0;
            for (int i = 0; i < steps; i++) sum += BoreSegment.AreaM2(bore, from + (to - from) * (i + 0.5) / steps) * 2.5 / steps;
            double volume = BoreSegment.VolumeM3(bore, 2.5, from, to), full = Math.PI / 4 * bore * bore * 2.5;
            Assert.Equal(sum, volume, 2e-6 * full);
            Assert.InRange(volume, 0, full * (1 + 1e-12));
            Assert.Equal(volume, BoreSegment.VolumeM3(bore, 2.5, to, from), 1e-12 * full);
        });

    [Fact]
    public void Very_flat_depths_give_no_noise() =>
        Gen.Select(Gen.Double[0, 1], Gen.Double[-1e-6, 1e-6]).Sample((depth, step) =>
        {
            double flat = BoreSegment.AreaM2(0.01, (depth + step / 2) * 0.01) * 3, near = BoreSegment.VolumeM3(0.01, 3, depth * 0.01, (depth + step) * 0.01);
            Assert.Equal(flat, near, 1e-9 * 1e-3);
        });

    [Fact]
    public void A_level_that_rises_by_however_little_never_leaves_less() =>
        Gen.Select(Gen.Double[-18, 0], Gen.Double[-18, 0], Gen.Double[-18, 0], Gen.Bool).Sample(
            (depth, slope, rise, crown) =>
            {
                double from = crown ? 1 - Math.Pow(10, depth) : Math.Pow(10, depth), to = from + Math.Pow(10, slope), up = Math.Pow(10, rise);
                Assert.InRange(BoreSegment.VolumeM3(1, 1, from + up, to + up) - BoreSegment.VolumeM3(1, 1, from, to), -2e-9, up + 2e-9);
            },
            iter: 20_000);

    [Fact]
    public void A_vessel_tilted_any_way_holds_what_a_fine_grid_says() =>
        Gen.Select(AnyTilt, AnyTilt, Gen.Double[-0.1, 0.6]).Sample((pitch, roll, level) =>
        {
            var box = new Box(new Point3(0.2, 0.1, 0.05), new Point3(0.6, 0.4, 0.3));
            var attitude = new Attitude(pitch, roll);
            const int n = 60;
            double sum = 0;
            for (int i = 0; i < n; i++)
            {
                for (int j = 0; j < n; j++)
                {
                    var floor = new Point3(0.2 + 0.6 * (i + 0.5) / n, 0.1 + 0.4 * (j + 0.5) / n, 0.05);
                    sum += Math.Clamp((level - attitude.HeightM(floor)) / 0.3, 0, 1) / (n * n);
                }
            }
            Assert.Equal(sum, VesselSlice.FilledFraction(box, level, attitude), 3e-4);
        });

    // Up to some 8 degrees either way, down to next to nothing.
    private static readonly Gen<double> AnyTilt = Gen.Select(Gen.Double[-9, 0.9], Gen.Bool, (power, up) => Math.Pow(10, power) * (up ? 1 : -1));

    private static readonly Gen<(int Nodes, (int A, int B)[] Edges)> Graph =
        from n in Gen.Int[2, 9]
        from edges in Gen.Select(Gen.Int[0, n - 1], Gen.Int[0, n - 1]).Array[1, 14]
        select (n, edges.Select(e => (e.Item1, e.Item2)).ToArray());

    [Fact]
    public void Two_edges_are_in_one_block_when_no_single_node_parts_them() => Graph.Sample(
        graph =>
        {
            var block = Blocks.Of(graph.Nodes, graph.Edges);
            for (int e = 0; e < graph.Edges.Length; e++)
            {
                if (graph.Edges[e].A == graph.Edges[e].B)
                {
                    Assert.Equal(-1, block[e]);
                    continue;
                }
                for (int f = e + 1; f < graph.Edges.Length; f++)
                    if (graph.Edges[f].A != graph.Edges[f].B) Assert.Equal(OnOneLoop(graph.Edges, e, f), block[e] == block[f]);
            }
        },
        iter: 1500);

    [Fact]
    public void A_chain_of_a_hundred_thousand_edges_does_not_overflow_the_stack()
    {
        (int, int)[] chain = [.. Enumerable.Range(0, 100_000).Select(i => (i, i + 1))];
        Assert.Equal(100_000, Blocks.Of(100_001, chain).Distinct().Count());
    }

    // Walks every loop without repeated nodes from one edge back to its start.
    private static bool OnOneLoop((int A, int B)[] edges, int e, int f)
    {
        var seen = new HashSet<int> { edges[e].B };
        bool Walk(int at, bool met)
        {
            if (at == edges[e].A) return met;
            for (int k = 0; k < edges.Length; k++)
            {
                if (k == e) continue;
                int next = edges[k].A == at ? edges[k].B : edges[k].B == at ? edges[k].A : -1;
                if (next < 0 || next == at || !seen.Add(next)) continue;
                if (Walk(next, met || k == f)) return true;
                seen.Remove(next);
            }
            return false;
        }
        return Walk(edges[e].B, false);
    }

    [Fact]
    public void A_tank_in_a_network_drains_over_its_lowest_port_and_keeps_the_rest()
    {
        var box = new Box(new Point3(0, 0, 0.2), new Point3(0.5, 0.4, 0.25));
        LevelNetwork With(double port) => new(
            [new("low", new(0.5, 0.2, port)), new("top", new(0, 0.2, 0.45)), new("drain", new(1.5, 0.2, 0.05)), new("air", new(0, 0.2, 0.9))],
            [new("out", "low", "drain", 0.0123, Passes.Both, []), new("vent", "top", "air", 0.01, Passes.Both, [])],
            [new("tank", box, 0.05, ["low", "top"])],
            ["drain"]);
        Assert.Equal(0, Draining.Solve(With(0.2), Attitude.Level).VesselM3(0), 9);
        Assert.Equal(0.02, Draining.Solve(With(0.3), Attitude.Level).VesselM3(0), 1e-4);
        var shut = With(0.2) with { Edges = [.. With(0.2).Edges.Select(e => e.Id == "out" ? e with { Passes = Passes.None } : e)] };
        Assert.Equal(0.05, Draining.Solve(shut, Attitude.Level).VesselM3(0), 9);
        var graph = new LevelGraph(With(0.3));
        var envelope = ParkingEnvelope.Ask(graph, [-2, 0, 2], [0]);
        Assert.Equal(Draining.Solve(graph, new Attitude(2, 0)).VesselM3(0),
            envelope.TotalM3[2, 0] - Draining.Solve(graph, new Attitude(2, 0)).EdgeM3.Sum(), 1e-9);
        Assert.False(envelope.Within(1, 0));
        Assert.Throws<LevelNetworkException>(() => new LevelGraph(With(0.3) with { Vessels = [new("tank", box, double.NaN, ["low"])] }));
        Assert.Throws<LevelNetworkException>(() => new LevelGraph(With(0.3) with { Vessels = [new("tank", box, 0.05, ["nowhere"])] }));
    }

    [Fact]
    public void The_order_of_opening_decides_what_each_drain_yields()
    {
        // One basin with a drain half-way up its side and one at its foot.
        var network = new LevelNetwork(
            [new("top", new(0, 0, 0.8)), new("side", new(0, 0, 0.4)), new("foot", new(0, 0, 0))],
            [new("upper", "top", "side", 0.02, Passes.Both, []), new("lower", "side", "foot", 0.02, Passes.Both, [])], [], ["side", "foot"]);
        double half = Math.PI / 4 * 0.02 * 0.02 * 0.4;
        double[] InTurn(params string[] order) => [.. DrainYields.Ask(network, Attitude.Level, order).Select(y => y.InTurnM3)];
        Assert.Equal([half, half], InTurn("side", "foot"), new Near(5e-6));
        Assert.Equal([2 * half, 0], InTurn("foot", "side"), new Near(5e-6));
        Assert.Equal("side", DrainYields.Ask(network, Attitude.Level)[0].Node);
        Assert.Throws<LevelNetworkException>(() => DrainYields.Ask(network, Attitude.Level, ["top"]));
    }

    private sealed class Near(double within) : IEqualityComparer<double>
    {
        public bool Equals(double x, double y) => Math.Abs(x - y) <= within;

        public int GetHashCode(double obj) => 0;
    }
}
