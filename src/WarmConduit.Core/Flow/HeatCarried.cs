using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Flow;

/// <summary>What happens to the heat of the fluid along an edge.</summary>
public abstract record HeatElement(string Edge);

/// <summary>
/// Loses to something of one temperature: a pipe in air, a coil in a tank, a trace line (its loss per metre times its length). W/K over the whole edge.
/// </summary>
public sealed record Losing(string Edge, double ConductanceWPerK, double ToC) : HeatElement(Edge);

/// <summary>
/// A radiator or convector: <paramref name="RatedW"/> at <paramref name="RatedDifferenceK"/> over the room, going with the difference to the power 1.3 at every
/// place along it.
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
/// <param name="Gap">What heat given and taken differ by, as a share of what was given and what a kelvin of the largest flow carries.</param>
/// <param name="Rounds">Rounds of flow and temperature.</param>
/// <param name="Settled">False when flow and warmth still chased each other at the last round: a branch that is now at rest and now not. The heat closes all
/// the same.</param>
public sealed record HeatAnswer(
    FlowAnswer Flow, IReadOnlyList<double> NodeC, IReadOnlyList<double> OutC, IReadOnlyList<double> HeatW, double Gap, int Rounds, bool Settled);

/// <summary>
/// Heat carried along the branches of a flow network, and the flow that goes with it: warm fluid is thinner. Along each edge the exact answer for its element;
/// nodes mix; one linear system for the nodes, repeated with the elements' new shares and the fluid's new state until no temperature moves by a millionth of a
/// kelvin.
/// </summary>
public static class HeatCarried
{
    // Flows below this, m³/s, carry nothing.
    private const double AtRest = 1e-9;

    // Temperatures to a millionth of a kelvin.
    private const double Unmoved = 1e-6;
    private const double MostW = 1e12;

    /// <summary>
    /// Solves flow and heat together. <paramref name="fluid"/> gives the fluid's state by its mean temperature, °C; <paramref name="reservoirC"/> the
    /// temperature of what comes from nodes of fixed head. Nodes and edges at rest stand at <paramref name="restC"/>, and so does a loop that nothing heats or
    /// cools. O(nodes³) a round, 5 to 40 rounds. Throws <see cref="FlowNetworkException"/> for elements, reservoirs and numbers that make no sense, and naming
    /// the source where one without a limit heats a closed loop that can lose to nothing.
    /// </summary>
    public static HeatAnswer Solve(
        FlowNetwork network, IReadOnlyList<HeatElement> elements, Func<double, FluidState> fluid, IReadOnlyDictionary<string, double> reservoirC, double restC)
    {
        if (!Sensible(restC)) throw new FlowNetworkException("rest", "its temperature must be a number within the limits");
        // The network is checked where it is solved, before anything else is read off it.
        var state = fluid(restC);
        var flow = FlowSolver.Solve(network with { DensityKgPerM3 = state.DensityKgPerM3, ViscosityPaS = state.ViscosityPaS });
        return new Run(network, elements, reservoirC, restC).Solve(fluid, state, flow);
    }

    private static bool Sensible(double celsius) => Math.Abs(celsius) < 10_000;

    private enum SourceState
    {
        Full,
        AtLimit,
        Off,
    }

    private sealed class Run
    {
        private readonly FlowNetwork _net;
        private readonly (int From, int To)[] _ends;
        private readonly HeatElement?[] _element;
        private readonly SourceState[] _source;
        private readonly double?[] _reservoirC;
        private readonly double _restC;
        private readonly int _n;
        private double[] _nodeC;

        // As the flow stands: what an edge carries, m³/s and W/K (0 at rest), and where from and to.
        private readonly double[] _carried, _wPerK;
        private readonly (int Up, int Down)[] _way;

        public Run(FlowNetwork network, IReadOnlyList<HeatElement> elements, IReadOnlyDictionary<string, double> reservoirC, double restC)
        {
            (_net, _restC, _n) = (network, restC, network.Nodes.Count);
            var node = network.Nodes.Select((p, i) => (p.Id, i)).ToDictionary(t => t.Id, t => t.i);
            var edge = network.Edges.Select((e, i) => (e.Id, i)).ToDictionary(t => t.Id, t => t.i);
            int edges = network.Edges.Count;
            _ends = [.. network.Edges.Select(e => (node[e.From], node[e.To]))];
            (_element, _source) = (new HeatElement?[edges], new SourceState[edges]);
            foreach (var element in elements)
            {
                if (!edge.TryGetValue(element.Edge, out int e)) throw new FlowNetworkException(element.Edge, "a heat loss is set for an unknown edge");
                if (_element[e] is not null) throw new FlowNetworkException(element.Edge, "it has more than one heat element");
                _element[e] = Checked(element);
            }
            _reservoirC = new double?[_n];
            foreach (var (name, c) in reservoirC)
            {
                if (!node.TryGetValue(name, out int i)) throw new FlowNetworkException(name, "a temperature is set for an unknown node");
                _reservoirC[i] = Sensible(c) ? c : throw new FlowNetworkException(name, "its temperature must be a number within the limits");
            }
            _nodeC = [.. Enumerable.Repeat(restC, _n)];
            (_carried, _wPerK, _way) = (new double[edges], new double[edges], new (int, int)[edges]);
        }

        public HeatAnswer Solve(Func<double, FluidState> fluid, FluidState state, FlowAnswer flow)
        {
            double mean = _restC, moved = double.PositiveInfinity;
            int round = 0;
            for (; round < 100 && moved > Unmoved; round++)
            {
                if (round > 0)
                {
                    // Where warmth and flow chase each other, half-way is nearer.
                    double now = _nodeC.DefaultIfEmpty(_restC).Average();
                    mean = round < 20 ? now : (mean + now) / 2;
                    state = fluid(mean);
                    flow = FlowSolver.Solve(_net with { DensityKgPerM3 = state.DensityKgPerM3, ViscosityPaS = state.ViscosityPaS });
                }
                if (state.HeatCapacityJPerKgK is not (>= 1e-3 and <= MostW))
                    throw new FlowNetworkException("fluid", "its heat capacity must be a number above 0");
                Follow(flow, state.DensityKgPerM3 * state.HeatCapacityJPerKgK);
                // Elements first settle at this flow; the fluid's state follows in the next round.
                moved = Settle();
            }
            double[] outC = [.. Enumerable.Range(0, _ends.Length).Select(OutC)];
            double[] heatW = [.. outC.Select((c, e) => _wPerK[e] > 0 ? _wPerK[e] * (_nodeC[_way[e].Up] - c) : 0)];
            double turned = heatW.Sum(Math.Abs) + _wPerK.DefaultIfEmpty(0).Max();
            double gap = turned > 0 ? Math.Abs(OpenW(outC, state)) / turned : 0;
            return new HeatAnswer(flow, _nodeC, outC, heatW, gap, round, moved <= Unmoved);
        }

        private void Follow(FlowAnswer flow, double jPerM3K)
        {
            for (int e = 0; e < _ends.Length; e++)
            {
                double q = flow.FlowM3PerS[e];
                _carried[e] = Math.Abs(q) < AtRest ? 0 : Math.Abs(q);
                _wPerK[e] = _carried[e] * jPerM3K;
                _way[e] = q > 0 ? _ends[e] : (_ends[e].To, _ends[e].From);
            }
        }

        // Temperatures at this flow; how far they moved.
        private double Settle()
        {
            double moved = 0;
            for (int round = 0; round < 200; round++)
            {
                // A loop that nothing heats or cools, or all but nothing, is as it was: where that leaves the equations open, a trace of loss to rest closes
                // them.
                var next = Nodes(leak: 0, leastPivot: 1e-10 * _carried.DefaultIfEmpty(0).Max()) ?? Nodes(leak: 1e-9, leastPivot: 1e-30)
                    ?? throw new FlowNetworkException(Hottest(), "its loop has no fixed temperature");
                double step = next.Zip(_nodeC, (a, b) => Math.Abs(a - b)).DefaultIfEmpty(0).Max();
                moved = Math.Max(moved, step);
                _nodeC = next;
                if (TurnSources(oneOnly: round > 20)) continue;
                if (!next.All(Sensible)) throw new FlowNetworkException(Hottest(), "it heats a closed loop that cannot lose heat");
                if (step < 1e-9) break;
            }
            return moved;
        }

        private double[]? Nodes(double leak, double leastPivot)
        {
            var matrix = new double[_n, _n + 1];
            var (into, made) = (new double[_n], new double[_n]);
            for (int e = 0; e < _ends.Length; e++)
            {
                if (_carried[e] == 0) continue;
                var (up, down) = _way[e];
                var (a, b) = Share(e);
                into[down] += _carried[e];
                made[up] += _carried[e];
                made[down] -= _carried[e];
                matrix[down, down] += _carried[e];
                matrix[down, up] -= _carried[e] * a;
                matrix[down, _n] += _carried[e] * b;
            }
            for (int i = 0; i < _n; i++)
            {
                // A reservoir that feeds gives its own temperature; a node at rest stands at rest's.
                if (OwnC(i, made[i]) is { } own)
                {
                    matrix[i, i] += made[i];
                    matrix[i, _n] += made[i] * own;
                    into[i] += made[i];
                }
                matrix[i, i] += leak * into[i];
                matrix[i, _n] += leak * into[i] * _restC;
                if (into[i] > 0) continue;
                for (int c = 0; c < _n; c++) matrix[i, c] = c == i ? 1 : 0;
                matrix[i, _n] = _reservoirC[i] ?? _restC;
            }
            return Dense.Solve(matrix, _n, leastPivot);
        }

        private double? OwnC(int i, double made) => _net.Nodes[i].HeadM is not null && made > AtRest ? _reservoirC[i] : null;

        private double OutC(int e)
        {
            if (_carried[e] == 0) return _restC;
            var (a, b) = Share(e);
            return a * _nodeC[_way[e].Up] + b;
        }

        // Temperature out of an edge = a · in + b, for the state in which its element is at this inlet temperature.
        private (double A, double B) Share(int edge)
        {
            double inC = _nodeC[_way[edge].Up], wPerK = _wPerK[edge];
            switch (_element[edge])
            {
                case Losing l:
                    double e = Math.Exp(-l.ConductanceWPerK / wPerK);
                    return (e, (1 - e) * l.ToC);
                case Emitter r:
                    // d(T - room)/dx ∝ -(T - room)^1.3, integrated.
                    double over = Math.Abs(inC - r.RoomC), k = r.RatedW / Math.Pow(r.RatedDifferenceK, 1.3) / wPerK;
                    double left = over < 1e-9 ? Math.Exp(-k) : Math.Pow(1 + 0.3 * k * Math.Pow(over, 0.3), -1 / 0.3);
                    return (left, (1 - left) * r.RoomC);
                case HeatSource s when _source[edge] == SourceState.Full:
                    return (1, s.PowerW / wPerK);
                case HeatSource s when _source[edge] == SourceState.AtLimit:
                    return (0, s.LimitC);
                default:
                    return (1, 0);
            }
        }

        // Full until that would pass the limit, at the limit while that neither takes more than its power nor cools, off where the fluid comes hotter than the
        // limit. All at once is soonest; where sources then turn each other on and off for ever, only the one that is farthest out turns.
        private bool TurnSources(bool oneOnly)
        {
            const double tolerance = 1e-9;
            var (farthest, most, turned) = (-1, 0.0, SourceState.Full);
            for (int e = 0; e < _ends.Length; e++)
            {
                if (_element[e] is not HeatSource s || _carried[e] == 0) continue;
                double over = _nodeC[_way[e].Up] - s.LimitC, overFull = over + s.PowerW / _wPerK[e];
                var (next, by) = _source[e] switch
                {
                    SourceState.Full when overFull > tolerance => (SourceState.AtLimit, overFull),
                    SourceState.AtLimit when overFull < -tolerance => (SourceState.Full, -overFull),
                    SourceState.AtLimit when over > tolerance => (SourceState.Off, over),
                    SourceState.Off when over < -tolerance => (SourceState.AtLimit, -over),
                    _ => (_source[e], 0),
                };
                if (by > most) (farthest, most, turned) = (e, by, next);
                if (!oneOnly) _source[e] = next;
            }
            if (farthest >= 0) _source[farthest] = turned;
            return farthest >= 0;
        }

        // The source at work where it is hottest.
        private string Hottest() => Enumerable.Range(0, _ends.Length).Where(e => _element[e] is HeatSource && _carried[e] > 0)
            .OrderByDescending(e => Math.Abs(_nodeC[_way[e].Up])).Select(e => _element[e]!.Edge).FirstOrDefault("heat");

        // Heat that enters all nodes less heat that leaves them, outlets and reservoirs included: nothing, when all is right.
        private double OpenW(double[] outC, FluidState state)
        {
            var net = new double[_n];
            double open = 0;
            for (int e = 0; e < _ends.Length; e++)
            {
                net[_way[e].Up] -= _carried[e];
                net[_way[e].Down] += _carried[e];
                open += _carried[e] * (outC[e] - _nodeC[_way[e].Up]);
            }
            // What a node has over leaves at its temperature; what a reservoir adds comes at the reservoir's.
            for (int i = 0; i < _n; i++) open -= net[i] * (OwnC(i, -net[i]) ?? _nodeC[i]);
            return open * state.DensityKgPerM3 * state.HeatCapacityJPerKgK;
        }
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
        return sound ? element : throw new FlowNetworkException(element.Edge, "its heat figures must be finite, its powers and conductances 0 or more");
    }
}
