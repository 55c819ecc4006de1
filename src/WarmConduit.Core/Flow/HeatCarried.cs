using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Flow;

/// <summary>What happens to the heat of the fluid along an edge.</summary>
public abstract record HeatElement(string Edge);

/// <summary>
/// Loses to something of one temperature: a pipe in air, a coil in a tank, a trace line (its loss per metre times its length). W/K over the whole edge.
/// </summary>
public sealed record Losing(string Edge, double ConductanceWPerK, double ToC) : HeatElement(Edge);

/// <summary>
/// A radiator or convector: <paramref name="RatedW"/> at <paramref name="RatedDifferenceK"/> over the room, going with the difference to the power 1.3 at every place along it.
/// </summary>
public sealed record Emitter(string Edge, double RatedW, double RatedDifferenceK, double RoomC) : HeatElement(Edge);

/// <summary>A heater that gives <paramref name="PowerW"/>, but no more than brings the fluid to <paramref name="LimitC"/>.</summary>
public sealed record HeatSource(string Edge, double PowerW, double LimitC) : HeatElement(Edge);

/// <summary>The fluid at a temperature: density kg/m³, viscosity Pa·s, heat capacity J/kgK.</summary>
public readonly record struct FluidState(double DensityKgPerM3, double ViscosityPaS, double HeatCapacityJPerKgK);

/// <summary>Temperatures and heat. By node and by edge, in the network's order.</summary>
/// <param name="Flow">The flows they go with.</param>
/// <param name="NodeC">Fluid leaving each node, °C.</param>
/// <param name="OutC">Fluid leaving each edge, °C.</param>
/// <param name="HeatW">Heat each edge gives off, W; negative where the fluid is heated.</param>
/// <param name="Gap">What heat given and taken differ by, as a share of what was given.</param>
/// <param name="Rounds">Rounds of flow and temperature.</param>
public sealed record HeatAnswer(FlowAnswer Flow, IReadOnlyList<double> NodeC, IReadOnlyList<double> OutC, IReadOnlyList<double> HeatW, double Gap, int Rounds);

/// <summary>
/// Heat carried along the branches of a flow network, and the flow that goes with it: warm fluid is thinner. Along each edge the exact answer for its element; nodes
/// mix; one linear system for the nodes, repeated with the elements' new shares and the fluid's new state until no temperature moves by a millionth of a kelvin.
/// </summary>
public static class HeatCarried
{
    private const double AtRest = 1e-9;
    private const double MostW = 1e12;
    private const string NoTemperature = "its temperature is no sensible number";

    /// <summary>
    /// Solves flow and heat together. <paramref name="fluid"/> gives the fluid's state by its mean temperature, °C; <paramref name="reservoirC"/> the temperature of what
    /// comes from nodes of fixed head. Nodes and edges at rest stand at <paramref name="restC"/>. O(nodes³) a round, 5 to 40 rounds. Throws
    /// <see cref="FlowNetworkException"/> for elements, reservoirs and numbers that make no sense, and when a closed loop is heated and can lose to nothing.
    /// </summary>
    public static HeatAnswer Solve(
        FlowNetwork network, IReadOnlyList<HeatElement> elements, Func<double, FluidState> fluid, IReadOnlyDictionary<string, double> reservoirC, double restC)
    {
        var index = new Dictionary<string, int>();
        foreach (var place in network.Nodes) index.TryAdd(place.Id, index.Count);
        if (!Sensible(restC)) throw new FlowNetworkException("rest", NoTemperature);
        foreach (var (name, c) in reservoirC)
        {
            if (!index.ContainsKey(name)) throw new FlowNetworkException(name, "a temperature is given for a node that is not there");
            if (!Sensible(c)) throw new FlowNetworkException(name, NoTemperature);
        }
        var byEdge = new HeatElement?[network.Edges.Count];
        foreach (var element in elements)
        {
            int e = Array.FindIndex([.. network.Edges], x => x.Id == element.Edge);
            if (e < 0) throw new FlowNetworkException(element.Edge, "heat is lost along an edge that is not there");
            if (byEdge[e] is not null) throw new FlowNetworkException(element.Edge, "it has two heat elements");
            byEdge[e] = Checked(element);
        }
        int n = network.Nodes.Count, m = network.Edges.Count;
        var ends = network.Edges.Select(e => (From: index[e.From], To: index[e.To])).ToArray();
        var node = Enumerable.Repeat(restC, n).ToArray();
        var outC = Enumerable.Repeat(restC, m).ToArray();
        var heat = new double[m];
        var heaters = new SourceState[m];
        FlowAnswer flow = null!;
        FluidState state = fluid(restC);
        int round = 0;
        for (double moved = double.PositiveInfinity; round < 100 && moved > 1e-6; round++)
        {
            double mean = node.Average();
            state = fluid(mean);
            if (state.HeatCapacityJPerKgK is not (>= 1e-3 and <= MostW)) throw new FlowNetworkException("fluid", "its heat capacity must be a number above 0");
            flow = FlowSolver.Solve(network with { DensityKgPerM3 = state.DensityKgPerM3, ViscosityPaS = state.ViscosityPaS });
            // Elements first settle at this flow; the fluid's state follows in the next round.
            moved = 0;
            for (int inner = 0; inner < 200; inner++)
            {
                var next = Nodes(network, ends, byEdge, heaters, flow, state, node, reservoirC, restC);
                double step = next.Zip(node, (a, b) => Math.Abs(a - b)).DefaultIfEmpty(0).Max();
                moved = Math.Max(moved, step);
                node = next;
                if (!SwitchSources(ends, byEdge, heaters, flow, state, node) && step < 1e-9) break;
            }
        }
        for (int e = 0; e < m; e++)
        {
            double q = flow.FlowM3PerS[e], carried = Math.Abs(q) * state.DensityKgPerM3 * state.HeatCapacityJPerKgK;
            if (Math.Abs(q) < AtRest) continue;
            double inlet = node[q > 0 ? ends[e].From : ends[e].To];
            var (a, b) = Share(byEdge[e], heaters[e], carried, inlet);
            outC[e] = a * inlet + b;
            heat[e] = carried * (inlet - outC[e]);
        }
        double turned = heat.Sum(Math.Abs);
        double gap = turned > 0 ? Math.Abs(Closure(network, ends, flow, state, node, outC, reservoirC)) / turned : 0;
        return new HeatAnswer(flow, node, outC, heat, gap, round);
    }

    // Heat that enters all nodes less heat that leaves them, outlets and reservoirs included: nothing, when all is right.
    private static double Closure(
        FlowNetwork network, (int From, int To)[] ends, FlowAnswer flow, FluidState state, double[] node, double[] outC,
        IReadOnlyDictionary<string, double> reservoirC)
    {
        var net = new double[node.Length];
        double open = 0;
        for (int e = 0; e < ends.Length; e++)
        {
            double q = Math.Abs(flow.FlowM3PerS[e]);
            if (q < AtRest) continue;
            var (up, down) = flow.FlowM3PerS[e] > 0 ? (ends[e].From, ends[e].To) : (ends[e].To, ends[e].From);
            net[up] -= q;
            net[down] += q;
            open += q * (outC[e] - node[up]);
        }
        for (int i = 0; i < node.Length; i++)
        {
            // What a node has over leaves at its temperature; what a reservoir adds comes at the reservoir's.
            double from = net[i] < 0 && network.Nodes[i].HeadM is not null ? reservoirC.GetValueOrDefault(network.Nodes[i].Id, node[i]) : node[i];
            open -= net[i] * from;
        }
        return open * state.DensityKgPerM3 * state.HeatCapacityJPerKgK;
    }

    private static double[] Nodes(
        FlowNetwork network, (int From, int To)[] ends, HeatElement?[] byEdge, SourceState[] heaters, FlowAnswer flow, FluidState state, double[] node,
        IReadOnlyDictionary<string, double> reservoirC, double restC)
    {
        int n = node.Length;
        var matrix = new double[n, n + 1];
        var into = new double[n];
        for (int e = 0; e < ends.Length; e++)
        {
            double q = flow.FlowM3PerS[e];
            if (Math.Abs(q) < AtRest) continue;
            var (up, down) = q > 0 ? (ends[e].From, ends[e].To) : (ends[e].To, ends[e].From);
            var (a, b) = Share(byEdge[e], heaters[e], Math.Abs(q) * state.DensityKgPerM3 * state.HeatCapacityJPerKgK, node[up]);
            into[down] += Math.Abs(q);
            matrix[down, down] += Math.Abs(q);
            matrix[down, up] -= Math.Abs(q) * a;
            matrix[down, n] += Math.Abs(q) * b;
        }
        for (int i = 0; i < n; i++)
        {
            // A reservoir that feeds gives its own temperature; a node at rest stands at rest's.
            double made = network.Nodes[i].HeadM is not null ? Math.Max(0, Enumerable.Range(0, ends.Length).Sum(e => (ends[e].From == i ? 1 : ends[e].To == i ? -1 : 0) * flow.FlowM3PerS[e])) : 0;
            if (made > AtRest && reservoirC.TryGetValue(network.Nodes[i].Id, out double own))
            {
                matrix[i, i] += made;
                matrix[i, n] += made * own;
                into[i] += made;
            }
            if (into[i] > 0) continue;
            for (int c = 0; c < n; c++) matrix[i, c] = c == i ? 1 : 0;
            matrix[i, n] = reservoirC.GetValueOrDefault(network.Nodes[i].Id, restC);
        }
        return Dense.Solve(matrix, n) ?? throw new FlowNetworkException("heat", "a closed loop is heated and can lose to nothing, or has no temperature of its own");
    }

    // Temperature out of an element = a · in + b, for the state in which it is at this inlet temperature.
    private static (double A, double B) Share(HeatElement? element, SourceState source, double carriedWPerK, double inletC)
    {
        switch (element)
        {
            case Losing l:
                double e = Math.Exp(-l.ConductanceWPerK / carriedWPerK);
                return (e, (1 - e) * l.ToC);
            case Emitter r:
                // d(T - room)/dx ∝ -(T - room)^1.3, integrated.
                double over = Math.Abs(inletC - r.RoomC), k = r.RatedW / Math.Pow(r.RatedDifferenceK, 1.3) / carriedWPerK;
                double left = over < 1e-9 ? Math.Exp(-k) : Math.Pow(1 + 0.3 * k * Math.Pow(over, 0.3), -1 / 0.3);
                return (left, (1 - left) * r.RoomC);
            case HeatSource s:
                return source switch
                {
                    SourceState.Full => (1, s.PowerW / carriedWPerK),
                    SourceState.AtLimit => (0, s.LimitC),
                    _ => (1, 0),
                };
            default:
                return (1, 0);
        }
    }

    private enum SourceState
    {
        Full,
        AtLimit,
        Off,
    }

    // Full until that would pass the limit, at the limit while that neither takes more than its power nor cools, off where the fluid comes hotter than the limit.
    private static bool SwitchSources(
        (int From, int To)[] ends, HeatElement?[] byEdge, SourceState[] heaters, FlowAnswer flow, FluidState state, double[] node)
    {
        bool changed = false;
        for (int e = 0; e < ends.Length; e++)
        {
            if (byEdge[e] is not HeatSource s || Math.Abs(flow.FlowM3PerS[e]) < AtRest) continue;
            double inlet = node[flow.FlowM3PerS[e] > 0 ? ends[e].From : ends[e].To];
            double lift = s.PowerW / (Math.Abs(flow.FlowM3PerS[e]) * state.DensityKgPerM3 * state.HeatCapacityJPerKgK);
            var next = heaters[e] switch
            {
                SourceState.Full when inlet + lift > s.LimitC + 1e-9 => SourceState.AtLimit,
                SourceState.AtLimit when inlet + lift < s.LimitC - 1e-9 => SourceState.Full,
                SourceState.AtLimit when inlet > s.LimitC + 1e-9 => SourceState.Off,
                SourceState.Off when inlet < s.LimitC - 1e-9 => SourceState.AtLimit,
                _ => heaters[e],
            };
            changed |= next != heaters[e];
            heaters[e] = next;
        }
        return changed;
    }

    private static HeatElement Checked(HeatElement element)
    {
        bool sound = element switch
        {
            Losing l => l.ConductanceWPerK is >= 0 and <= MostW && Sensible(l.ToC),
            Emitter r => r.RatedW is >= 0 and <= MostW && r.RatedDifferenceK is >= 1e-3 and <= MostW && Sensible(r.RoomC),
            HeatSource s => s.PowerW is >= 0 and <= MostW && s.LimitC > -10_000,
            _ => false,
        };
        return sound ? element : throw new FlowNetworkException(element.Edge, "its heat figures must be sensible numbers, powers and conductances not below 0");
    }

    private static bool Sensible(double celsius) => Math.Abs(celsius) < 10_000;
}
