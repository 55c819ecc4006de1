using CsCheck;
using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Tests.Flow;

public class FlowTests
{
    private static readonly FluidState Cold = new(1000, 1.3e-3, 4190);

    private static FlowPipe Pipe(string id, string from, string to, double length = 3, double bore = 0.0123) => new(id, from, to, length, bore, 1.5e-6, 4);

    private static FlowNetwork Network(IReadOnlyList<FlowNode> nodes, IReadOnlyList<FlowEdge> edges, params FlowOutlet[] outlets) =>
        new(Cold.DensityKgPerM3, Cold.ViscosityPaS, nodes, edges, outlets);

    /// <summary>Random networks: a tree with loops, pipes, valves in any position, pumps either way, one-way valves, outlets, reservoirs; some parts may be cut
    /// off.</summary>
    private static readonly Gen<FlowNetwork> Any =
        from n in Gen.Int[2, 14]
        from extra in Gen.Int[0, 5]
        from pick in Gen.Select(Gen.Int[0, 999], Gen.Int[0, 999], Gen.Int[0, 9], Gen.Double[0, 1]).Array[n + extra]
        from heads in Gen.Double[-2, 6].Array[2]
        from outlets in Gen.Select(Gen.Int[0, 999], Gen.Double[0, 2], Gen.Double[1e-8, 1e-6]).Array[0, 3]
        select Build(n, pick, heads, outlets);

    private static FlowNetwork Build(int n, (int A, int B, int Kind, double X)[] pick, double[] heads, (int Node, double Z, double K)[] outlets)
    {
        var edges = new List<FlowEdge>();
        for (int e = 1; e < pick.Length; e++)
        {
            int from = e < n ? e : pick[e].A % n, to = e < n ? pick[e].B % e : pick[e].B % n;
            if (from == to) continue;
            var (a, b, id, x) = ($"n{from}", $"n{to}", $"e{e}", pick[e].X);
            edges.Add(pick[e].Kind switch
            {
                0 => new FlowPump(id, a, b, 20 * x, 1e8),
                1 => new FlowValve(id, a, b, 0.0123, 0.2, x),
                2 => new FlowValve(id, a, b, 0.0123, 2, 1, OneWay: true),
                3 => new FlowValve(id, a, b, 0.0123, 0.2, 0),
                _ => Pipe(id, a, b, 0.1 + 10 * x),
            });
        }
        return Network(
            [.. Enumerable.Range(0, n).Select(i => new FlowNode($"n{i}", i < heads.Length && pick[i].Kind < 6 ? heads[i] : null))],
            edges,
            [.. outlets.Select(o => new FlowOutlet($"n{o.Node % n}", o.Z, o.K))]);
    }

    [Fact]
    public void Mass_closes_at_every_node_and_nothing_is_ever_nan() => Any.Sample(
        network =>
        {
            var answer = FlowSolver.Solve(network);
            Assert.All(answer.FlowM3PerS.Concat(answer.HeadM).Concat(answer.OutletM3PerS), v => Assert.True(double.IsFinite(v)));
            Assert.True(answer.Converged);
            Assert.InRange(answer.MassErrorM3PerS, 0, Math.Max(1e-12, 1e-8 * answer.FlowM3PerS.Max(Math.Abs)));
            for (int e = 0; e < network.Edges.Count; e++)
                if (network.Edges[e] is FlowValve { Opening: 0 } or FlowValve { OneWay: true }) Assert.True(answer.FlowM3PerS[e] >= -1e-12);
        },
        iter: 2000);

    [Fact]
    public void Every_pipe_loses_the_head_between_its_ends() => Any.Sample(network =>
    {
        var answer = FlowSolver.Solve(network);
        Assert.True(answer.Converged);
        var index = network.Nodes.Select((n, i) => (n.Id, i)).ToDictionary(t => t.Id, t => t.i);
        for (int e = 0; e < network.Edges.Count; e++)
        {
            if (network.Edges[e] is not FlowPipe p) continue;
            double loss = Friction.Pipe(answer.FlowM3PerS[e], p.LengthM, p.InnerDiameterM, p.RoughnessM, p.MinorLoss, network.DensityKgPerM3,
                network.ViscosityPaS).LossM;
            Assert.Equal(answer.HeadM[index[p.From]] - answer.HeadM[index[p.To]], loss, 1e-5 * Math.Max(1, Math.Abs(loss)));
        }
    });

    [Fact]
    public void A_pump_at_its_limits_a_shut_line_and_a_floating_loop_get_an_answer_and_a_name()
    {
        FlowNoteKind[] Notes(FlowNetwork network) => [.. FlowSolver.Solve(network).Notes.Select(n => n.Kind)];
        var pump = new FlowPump("pump", "tank", "o", 3, 1e8);
        Assert.Contains(FlowNoteKind.PumpDrivenBack, Notes(Network([new("tank", 0), new("o"), new("top", 10)], [pump, Pipe("p", "o", "top")])));
        Assert.Contains(FlowNoteKind.PumpPastItsEnd, Notes(Network([new("tank", 10), new("o"), new("low", 0)], [pump, Pipe("p", "o", "low")])));
        var shut = FlowSolver.Solve(Network([new("tank", 0), new("o")], [pump], []));
        Assert.Equal(3, shut.HeadM[1], 6);
        var loop = FlowSolver.Solve(Network([new("a"), new("b"), new("alone")], [new FlowPump("p", "a", "b", 3, 1e8), Pipe("r", "b", "a")]));
        Assert.Equal(2, loop.Notes.Count(n => n.Kind == FlowNoteKind.NoReference));
        Assert.Equal(loop.FlowM3PerS[0], loop.FlowM3PerS[1], 12);
        Assert.True(loop.FlowM3PerS[0] > 1e-5);
        var dry = Network([new("tank", 1), new("tap")], [Pipe("p", "tank", "tap")], new FlowOutlet("tap", 1.5, 1e-6));
        Assert.Contains(FlowNoteKind.OutletDry, Notes(dry));
        Assert.Contains(FlowNoteKind.OneWayShut, Notes(Network([new("tank", 1), new("top", 2)],
            [new FlowValve("c", "tank", "top", 0.01, 2, 1, OneWay: true)])));
    }

    [Fact]
    public void Networks_that_make_no_sense_are_refused_with_their_place()
    {
        string Refused(FlowNetwork network) => Assert.Throws<FlowNetworkException>(() => FlowSolver.Solve(network)).Place;
        FlowNode[] nodes = [new("a", 1), new("b")];
        Assert.Equal("p", Refused(Network(nodes, [Pipe("p", "a", "c")])));
        Assert.Equal("p", Refused(Network(nodes, [Pipe("p", "a", "b", -1)])));
        Assert.Equal("p", Refused(Network(nodes, [Pipe("p", "a", "b", double.NaN)])));
        Assert.Equal("p", Refused(Network(nodes, [Pipe("p", "a", "b"), Pipe("p", "a", "b")])));
        Assert.Equal("a", Refused(Network([nodes[0], nodes[0]], [])));
        Assert.Equal("fluid", Refused(Network(nodes, []) with { ViscosityPaS = 0 }));
    }

    /// <summary>Heater, pump, and parallel branches with radiator, coil and trace, back to the header tank.</summary>
    private static readonly FlowNetwork Loop = Network(
        [new("header", 0), new("pumped"), new("hot"), new("r1"), new("r2"), new("r3"), new("back")],
        [
            new FlowPump("pump", "header", "pumped", 3, 8e7), Pipe("heater", "pumped", "hot", 1, 0.016),
            new FlowValve("v1", "hot", "r1", 0.0123, 0.5), new FlowValve("v2", "hot", "r2", 0.0123, 0.5), new FlowValve("v3", "hot", "r3", 0.0123, 0.5),
            Pipe("radiator", "r1", "back", 6), Pipe("coil", "r2", "back", 3), Pipe("trace", "r3", "back", 12, 0.009),
            Pipe("return", "back", "header", 2, 0.016),
        ]);

    private static readonly HeatElement[] LoopHeat =
    [
        new HeatSource("heater", 5000, 80), new Emitter("radiator", 1500, 50, 18), new Losing("coil", 60, 35), new Losing("trace", 7, -10),
        new Losing("return", 1, 5),
    ];

    private static FluidState Glycol(double c) => new(GlycolWater.DensityKgPerM3(0.45, c), GlycolWater.ViscosityPaS(0.45, c),
        GlycolWater.HeatCapacityJPerKgK(0.45, c));

    [Fact]
    public void Heat_carried_round_a_loop_closes_and_each_element_keeps_its_law()
    {
        foreach (double power in (double[])[800, 5000, 20_000])
        {
            HeatElement[] heat = [LoopHeat[0] is HeatSource s ? s with { PowerW = power } : LoopHeat[0], .. LoopHeat[1..]];
            var answer = HeatCarried.Solve(Loop, heat, Glycol, new Dictionary<string, double>(), 5);
            Assert.InRange(answer.Gap, 0, 1e-6);
            Assert.Equal(0, answer.HeatW.Sum(), 1e-6 * power);
            double given = -answer.HeatW[1];
            Assert.True(given <= power * (1 + 1e-9) && answer.OutC[1] <= 80 + 1e-6);
            // A radiator's heat at its mean difference, as catalogues reckon it, within a few per cent.
            double mean = (answer.NodeC[3] + answer.OutC[5]) / 2 - 18;
            Assert.Equal(1500 * Math.Pow(mean / 50, 1.3), answer.HeatW[5], 0.03 * answer.HeatW[5]);
        }
    }

    [Fact]
    public void A_loop_with_nothing_to_lose_to_comes_to_its_heaters_limit_is_refused_without_one_and_stays_as_it_was_unheated()
    {
        HeatAnswer With(params HeatElement[] heat) => HeatCarried.Solve(Loop, heat, Glycol, new Dictionary<string, double>(), 5);
        foreach (double limit in (double[])[1e9, double.PositiveInfinity])
            Assert.Equal("heater", Assert.Throws<FlowNetworkException>(() => With(new HeatSource("heater", 100, limit))).Place);
        Assert.All(With(new HeatSource("heater", 100, 60)).NodeC, c => Assert.Equal(60, c, 6));
        Assert.All(With().NodeC, c => Assert.Equal(5, c, 6));
    }

    private static readonly Gen<(FlowNetwork Network, HeatElement[] Heat, Dictionary<string, double> Reservoirs)> AnyHeated =
        from network in Any
        from kinds in Gen.Select(Gen.Int[0, 3], Gen.Double[0, 1], Gen.Double[0, 1]).Array[network.Edges.Count]
        from warmth in Gen.Double[2, 60].Array[network.Nodes.Count]
        select (
            network,
            kinds.Select((k, e) => k switch
            {
                (0, var x, var y) => new Losing(network.Edges[e].Id, 0.1 + 60 * x, 45 * y - 15),
                (1, var x, var y) => new Emitter(network.Edges[e].Id, 50 + 2000 * x, 50, 20 * y),
                (2, var x, var y) => new HeatSource(network.Edges[e].Id, 50 + 6000 * x, 40 + 50 * y),
                _ => (HeatElement?)null,
            }).OfType<HeatElement>().ToArray(),
            network.Nodes.Select((n, i) => (n, i)).Where(t => t.n.HeadM is not null).ToDictionary(t => t.n.Id, t => warmth[t.i]));

    [Fact]
    public void Heat_carried_through_any_network_closes_and_nothing_is_warmer_or_colder_than_what_it_meets() => AnyHeated.Sample(
        q =>
        {
            var answer = HeatCarried.Solve(q.Network, q.Heat, Glycol, q.Reservoirs, 5);
            Assert.InRange(answer.Gap, 0, 1e-6);
            double[] met = [5, .. q.Reservoirs.Values, .. q.Heat.Select(h =>
                h switch { Losing l => l.ToC, Emitter r => r.RoomC, HeatSource s => s.LimitC, _ => 5 })];
            Assert.All(answer.NodeC.Concat(answer.OutC), c => Assert.InRange(c, met.Min() - 1e-4, met.Max() + 1e-4));
            Assert.All(q.Heat.OfType<HeatSource>(), s => Assert.InRange(-answer.HeatW[Edge(s)], -1e-4, s.PowerW + 1e-4));

            int Edge(HeatSource source) => Enumerable.Range(0, q.Network.Edges.Count).Single(e => q.Network.Edges[e].Id == source.Edge);
        },
        iter: 1000);

    [Fact]
    public void Mixing_at_a_tap_is_by_flow()
    {
        var network = Network(
            [new("cold", 5), new("hot", 5), new("tap")], [Pipe("c", "cold", "tap"), Pipe("h", "hot", "tap", 6)], new FlowOutlet("tap", 0.5, 1e-6));
        var answer = HeatCarried.Solve(network, [], _ => Cold, new Dictionary<string, double> { ["cold"] = 8, ["hot"] = 60 }, 20);
        double c = answer.Flow.FlowM3PerS[0], h = answer.Flow.FlowM3PerS[1];
        Assert.Equal((8 * c + 60 * h) / (c + h), answer.NodeC[2], 9);
        Assert.InRange(answer.Gap, 0, 1e-9);
    }

    [Fact]
    public void Balancing_gives_wanted_shares_and_leaves_the_worst_branch_open()
    {
        var answer = Balancing.Solve(Loop, ["v1", "v2", "v3"], [5, 3, 2]);
        Assert.True(answer.Reached);
        Assert.Equal([0.5, 0.3, 0.2], answer.Share.Select(s => Math.Round(s, 6)));
        Assert.Equal(1, answer.Opening.Max());
        Assert.All(answer.Opening, o => Assert.InRange(o, 1e-4, 1));
        // A branch that comes back above what the pump lifts cannot be had; valves in one line cannot be set apart.
        var high = Loop with { Nodes = [.. Loop.Nodes, new("roof", 50)], Edges = [.. Loop.Edges, new FlowValve("v4", "hot", "roof", 0.0123, 0.5)] };
        Assert.False(Balancing.Solve(high, ["v1", "v4"], [1, 1]).Reached);
        var inLine = Loop with { Edges = [.. Loop.Edges.Select(e => e is FlowPipe { Id: "radiator" } ? new FlowValve("v5", "r1", "back", 0.0123, 3) : e)] };
        Assert.Equal("r1", Assert.Throws<FlowNetworkException>(() => Balancing.Solve(inLine, ["v1", "v5"], [1, 1])).Place);
    }

    /// <summary>Branches off branches, each with its valve, and the shares wanted of them: up to some twenty to one.</summary>
    private static readonly Gen<(FlowNetwork Network, string[] Valves, double[] Shares)> AnyBranches =
        from branch in Gen.Select(Gen.Int[0, 99], Gen.Double[0.2, 4], Gen.Double[0.1, 5], Gen.Double[0.5, 15], Gen.Double[-1.5, 1.5]).Array[2, 8]
        from lift in Gen.Double[2, 10]
        select (
            Network(
                [new("tank", 0), new("s0"), new("r0"), .. branch.SelectMany((_, i) => (FlowNode[])[new($"s{i + 1}"), new($"m{i + 1}"), new($"r{i + 1}")])],
                [
                    new FlowPump("pump", "tank", "s0", lift, 1e8), Pipe("return", "r0", "tank", 3, 0.016),
                    .. branch.SelectMany((b, i) => (FlowEdge[])[
                        Pipe($"there{i}", $"s{b.Item1 % (i + 1)}", $"s{i + 1}", b.Item2), new FlowValve($"v{i}", $"s{i + 1}", $"m{i + 1}", 0.0123, b.Item3),
                        Pipe($"branch{i}", $"m{i + 1}", $"r{i + 1}", b.Item4, 0.009), Pipe($"back{i}", $"r{i + 1}", $"r{b.Item1 % (i + 1)}", b.Item2)]),
                ]),
            branch.Select((_, i) => $"v{i}").ToArray(),
            branch.Select(b => Math.Exp(b.Item5)).ToArray());

    [Fact]
    public void Balancing_reaches_whatever_shares_are_wanted_of_branches_off_branches() => AnyBranches.Sample(
        q =>
        {
            var answer = Balancing.Solve(q.Network, q.Valves, q.Shares);
            Assert.True(answer.Reached);
            Assert.Equal(1, answer.Opening.Max());
            Assert.All(answer.Share.Zip(q.Shares), t => Assert.Equal(t.Second / q.Shares.Sum(), t.First, 1e-6));
        },
        iter: 200);
}
