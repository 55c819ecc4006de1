namespace WarmConduit.Core.Flow;

/// <summary>Settings of balancing valves: openings 0..1 in the order asked, the shares that result, and whether they are those wanted.</summary>
public sealed record BalancingAnswer(IReadOnlyList<double> Opening, IReadOnlyList<double> Share, bool Reached, FlowAnswer Flow);

/// <summary>How far to close the valves of parallel branches so that each gets its share.</summary>
public static class Balancing
{
    /// <summary>
    /// Openings of <paramref name="valves"/> (ids of <see cref="FlowValve"/> edges, flow from → to) such that their flows are to each other as <paramref
    /// name="shares"/>
    /// (above 0). The branch that is worst off stays open, so that nothing is throttled for nothing. The flows wanted are put in place of the valves: the heads
    /// that then stand at a valve say what it has to take away, and their total is the greatest at which none would have to give. Some 15 network solutions,
    /// however many valves. Not reached, and all left open, where a branch is driven backwards or a valve would have to be all but shut. Throws
    /// <see cref="FlowNetworkException"/> for what is no valve, shares not above 0, and valves in line with each other.
    /// </summary>
    public static BalancingAnswer Solve(FlowNetwork network, IReadOnlyList<string> valves, IReadOnlyList<double> shares) =>
        new Run(network, valves, shares).Solve();

    private sealed class Run
    {
        private readonly FlowNetwork _net;
        private readonly int[] _edge;
        private readonly FlowValve[] _valve;
        private readonly double[] _want;
        private readonly Dictionary<string, int> _node;

        public Run(FlowNetwork network, IReadOnlyList<string> valves, IReadOnlyList<double> shares)
        {
            _net = network;
            int n = valves.Count;
            if (n != shares.Count || n == 0) throw new FlowNetworkException("shares", "there must be one share for each valve, and at least one valve");
            (_edge, _valve) = (new int[n], new FlowValve[n]);
            var number = network.Edges.Select((e, i) => (e.Id, i)).DistinctBy(t => t.Id).ToDictionary(t => t.Id, t => t.i);
            for (int i = 0; i < n; i++)
            {
                if (!number.TryGetValue(valves[i], out _edge[i]) || network.Edges[_edge[i]] is not FlowValve { OpenLoss: > 0 } valve)
                    throw new FlowNetworkException(valves[i], "it must be a valve with a loss coefficient");
                if (Array.IndexOf(_edge, _edge[i], 0, i) >= 0) throw new FlowNetworkException(valves[i], "its id is used twice");
                if (!(shares[i] > 0) || double.IsInfinity(shares[i])) throw new FlowNetworkException(valves[i], "its share must be finite and above 0");
                _valve[i] = valve;
            }
            double all = shares.Sum();
            _want = [.. shares.Select(s => s / all)];
            _node = network.Nodes.Select((p, i) => (p.Id, i)).DistinctBy(t => t.Id).ToDictionary(t => t.Id, t => t.i);
        }

        public BalancingAnswer Solve()
        {
            var open = With([.. _want.Select(_ => 1.0)]);
            double total = _edge.Sum(e => Math.Max(0, open.Flow.FlowM3PerS[e]));
            if (total == 0 || Spare(0, open.Flow.Notes).Min() <= 0) return open;
            total = GreatestTotal(total);
            double[] takes = Spare(total), opening = new double[_want.Length];
            for (int i = 0; i < opening.Length; i++)
            {
                double own = Own(i).PerSquare;
                opening[i] = Math.Sqrt(own / (own + Math.Max(0, takes[i]) / Math.Pow(total * _want[i], 2)));
            }
            // The worst off is open but for rounding.
            opening[Array.IndexOf(opening, opening.Max())] = 1;
            return opening.Min() < FlowValve.LeastOpening ? open : With(opening);
        }

        // Where the least spare head is gone: false position, halving the end that stays. With all open the branches get as much as they can, so they cannot
        // get more as wanted.
        private double GreatestTotal(double most)
        {
            const double enoughM = 1e-9;
            double low = 0, high = most, atLow = Spare(low).Min(), atHigh = Spare(high).Min();
            if (atHigh >= -enoughM) return high;
            int side = 0;
            for (int round = 0; round < 200; round++)
            {
                double between = (low * atHigh - high * atLow) / (atHigh - atLow), spare = Spare(between).Min();
                if (Math.Abs(spare) <= enoughM || high - low <= 1e-13 * high) return between;
                if (spare > 0)
                {
                    (low, atLow) = (between, spare);
                    if (side > 0) atHigh /= 2;
                    side = 1;
                }
                else
                {
                    (high, atHigh) = (between, spare);
                    if (side < 0) atLow /= 2;
                    side = -1;
                }
            }
            return low;
        }

        private BalancingAnswer With(double[] opening)
        {
            var edges = _net.Edges.ToArray();
            for (int i = 0; i < _edge.Length; i++) edges[_edge[i]] = _valve[i] with { Opening = opening[i] };
            var flow = FlowSolver.Solve(_net with { Edges = edges });
            double[] q = [.. _edge.Select(e => flow.FlowM3PerS[e])];
            double total = q.Sum();
            double[] share = [.. q.Select(v => total > 0 ? v / total : 0)];
            return new BalancingAnswer(opening, share, Enumerable.Range(0, share.Length).All(i => Math.Abs(share[i] - _want[i]) < 1e-4), flow);
        }

        // Head left at each valve beyond what it takes open, m, when all together get `total` as wanted. A part that the other valves leave without a head of
        // its own is in line.
        private double[] Spare(double total, IReadOnlyList<FlowNote>? notes = null)
        {
            var edges = _net.Edges.ToArray();
            for (int i = 0; i < _edge.Length; i++) edges[_edge[i]] = new FlowGiven(_valve[i].Id, _valve[i].From, _valve[i].To, total * _want[i]);
            var flow = FlowSolver.Solve(_net with { Edges = edges });
            if (notes is not null && flow.Notes.FirstOrDefault(n => n.Kind == FlowNoteKind.NoReference && !notes.Contains(n)) is { } cut)
                throw new FlowNetworkException(cut.Id, "only balanced valves lead here, so they cannot be set separately");
            return [.. _want.Select((w, i) => flow.HeadM[_node[_valve[i].From]] - flow.HeadM[_node[_valve[i].To]] - Own(i).PerSquare * Math.Pow(total * w,
                2) - Own(i).PerFlow * total * w)];
        }

        private (double PerSquare, double PerFlow) Own(int i) => Friction.Valve(_valve[i].OpenLoss, _valve[i].InnerDiameterM, _net.DensityKgPerM3,
            _net.ViscosityPaS);
    }
}
