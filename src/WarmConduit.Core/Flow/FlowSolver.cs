namespace WarmConduit.Core.Flow;

/// <summary>
/// Flows and heads of a network of pipes, pumps, valves and outlets. Newton's method on heads and flows together (the global gradient form): every element
/// gives its own slope, the nodes' balance is one symmetric matrix, and each round solves it once. Losses rise with flow, so what is solved is the least of a
/// convex content; along each Newton step its least is searched for, which makes any start good. Outlets are elements to a place without pressure; they and
/// one-way valves answer flow the wrong way with an all but endless slope.
/// </summary>
public static partial class FlowSolver
{
    private const int MostRounds = 200;
    private const int WholeSteps = 15;
    private const double LeastSlope = 1;
    private const double ShutSlope = 1e13;
    private const double MostM = 1e6;

    // Heads to the nanometre: a pump against a dead end has no slope left to say more.
    private const double HeadToleranceM = 1e-9;

    /// <summary>
    /// Solves <paramref name="network"/> to a mass error of 1e-8 of the largest flow or 1e-12 m³/s, the greater, or says how far it got. Never NaN: shut
    /// valves, isolated parts, pumps at their limits and dry outlets are answers with a note. O(nodes · width² + edges) a round, some ten rounds. Throws <see
    /// cref="FlowNetworkException"/> for unknown or doubled ids and values that make no sense. From <paramref name="near"/>, the answer of a network that
    /// differs little, it is sooner there.
    /// </summary>
    public static FlowAnswer Solve(FlowNetwork network, FlowAnswer? near = null) => new Run(network).Solve(near);

    private sealed partial class Run
    {
        private readonly FlowNetwork _net;
        private readonly int _n, _m;

        // Elements: the edges, then the outlets, which end at the ground (-1).
        private readonly (int From, int To)[] _ends;
        private readonly double[] _head, _flow, _trial, _slope, _loss;
        private readonly bool[] _fixed, _shut;
        private readonly int[] _unknown;
        private readonly SkylineMatrix _matrix;
        private readonly double[] _right;
        private readonly List<FlowNote> _notes = [];

        public Run(FlowNetwork network)
        {
            _net = network;
            (_n, _m) = (network.Nodes.Count, network.Edges.Count);
            var index = Check();
            _ends = [.. network.Edges.Select(e => (index[e.From], index[e.To])), .. network.Outlets.Select(o => (index[o.Node], -1))];
            int all = _ends.Length;
            (_head, _flow, _trial, _slope, _loss) = (new double[_n], new double[all], new double[all], new double[all], new double[all]);
            _fixed = [.. network.Nodes.Select(n => n.HeadM is not null)];
            _shut = [.. network.Edges.Select(e => e is FlowValve { Opening: < FlowValve.LeastOpening } or FlowGiven),
                .. network.Outlets.Select(o => o.CoefficientM3PerSPerSqrtPa == 0)];
            Reference();
            _unknown = new int[_n];
            int unknowns = 0;
            for (int i = 0; i < _n; i++) _unknown[i] = _fixed[i] ? -1 : unknowns++;
            _right = new double[unknowns];
            _matrix = new SkylineMatrix(unknowns, Enumerable.Range(0, _m).Where(e => !_shut[e] && _unknown[_ends[e].From] >= 0 && _unknown[_ends[e].To] >= 0)
                .Select(e => (_unknown[_ends[e].From], _unknown[_ends[e].To])));
            for (int i = 0; i < _n; i++) _head[i] = network.Nodes[i].HeadM ?? 0;
        }

        public FlowAnswer Solve(FlowAnswer? near)
        {
            for (int e = 0; e < _ends.Length; e++)
                _flow[e] = e < _m && _net.Edges[e] is FlowGiven given ? given.M3PerS : _shut[e] ? 0
                    : near is null ? 1e-4 : e < _m ? near.FlowM3PerS[e] : near.OutletM3PerS[e - _m];
            var (converged, rounds) = Newton();
            // What is shut in one round can press its neighbour shut in the next.
            for (int i = 0; ShutWhatLeaks() && i < 4; i++) TakeUp();
            double imbalance = Imbalance();
            Note();
            return new FlowAnswer(_flow[.._m], _head, _flow[_m..], _notes, converged, rounds, imbalance);
        }

        private (bool Converged, int Rounds) Newton()
        {
            for (int round = 1; round <= MostRounds; round++)
            {
                Clear();
                for (int e = 0; e < _ends.Length; e++)
                {
                    if (_shut[e]) continue;
                    (_loss[e], double slope) = Loss(e, _flow[e]);
                    _slope[e] = Math.Max(slope, LeastSlope);
                    // q_new = q + (Ha - Hb - loss)/slope; its head parts go into the matrix.
                    Stamp(e, _flow[e] - _loss[e] / _slope[e]);
                }
                if (!_matrix.Solve(_right)) return (false, round);
                for (int i = 0; i < _n; i++)
                    if (_unknown[i] >= 0) _head[i] = _right[_unknown[i]];

                double moved = 0, size = 0, off = 0;
                for (int e = 0; e < _ends.Length; e++)
                {
                    if (_shut[e]) continue;
                    _trial[e] = (Drop(e) - _loss[e]) / _slope[e];
                    moved = Math.Max(moved, Math.Abs(_trial[e]));
                    off = Math.Max(off, Math.Abs(Drop(e) - _loss[e]));
                    size = Math.Max(size, Math.Abs(_flow[e] + _trial[e]));
                }
                // Flows are in balance since the first step; when their losses fit the heads as well, that is the answer.
                if (round > 1 && off <= HeadToleranceM) return (true, round);
                // The first step brings the nodes into balance and is taken whole; later ones keep it, however long they are.
                // Whole steps nearly always get there soonest; where they swing between two states the search along them ends it. Close to the end the slope of
                // the content is rounding.
                double along = round <= WholeSteps || moved <= 1e-6 * size + 1e-12 ? 1 : LeastAlong();
                for (int e = 0; e < _ends.Length; e++) _flow[e] += along * (_shut[e] ? 0 : _trial[e]);
                if (along == 1 && round > 1 && moved <= 1e-10 * size + 1e-12) return (true, round);
            }
            return (false, MostRounds);
        }

        // Where along the step the content is least: its slope there is the sum of (loss - head drop) · step over the elements.
        private double LeastAlong()
        {
            double SlopeAt(double t)
            {
                double sum = 0;
                for (int e = 0; e < _ends.Length; e++)
                    if (!_shut[e]) sum += (LossOnly(e, _flow[e] + t * _trial[e]) - Drop(e)) * _trial[e];
                return sum;
            }
            double atStart = SlopeAt(0), atEnd = SlopeAt(1);
            // A slope no greater than a quarter of the first is as good as the least.
            if (atEnd <= 0.25 * Math.Abs(atStart) || atStart >= 0) return 1;
            // Where an outlet dries up the slope leaps: then halving finds the place, and the side before it is taken.
            double low = 0, high = 1, slopeLow = atStart, slopeHigh = atEnd;
            for (int i = 0; i < 40; i++)
            {
                bool even = slopeHigh < -4 * slopeLow;
                double t = even ? low + (high - low) * slopeLow / (slopeLow - slopeHigh) : (low + high) / 2, slope = SlopeAt(t);
                if (Math.Abs(slope) <= 0.25 * Math.Abs(atStart)) return t;
                if (slope < 0) (low, slopeLow) = (t, slope);
                else (high, slopeHigh) = (t, slope);
                if (low > 0 && high - low < 0.1 * low) return low;
            }
            return high;
        }

        // Only given flows in the balance.
        private void Clear()
        {
            _matrix.Clear();
            Array.Clear(_right);
            for (int e = 0; e < _m; e++)
            {
                if (_net.Edges[e] is not FlowGiven) continue;
                if (_unknown[_ends[e].From] is >= 0 and int i) _right[i] -= _flow[e];
                if (_unknown[_ends[e].To] is >= 0 and int j) _right[j] += _flow[e];
            }
        }

        private double Drop(int e) => _head[_ends[e].From] - (_ends[e].To < 0 ? 0 : _head[_ends[e].To]);

        // An element whose flow is `rest` + drop / slope.
        private void Stamp(int e, double rest)
        {
            var (a, b) = _ends[e];
            int i = _unknown[a], j = b < 0 ? -1 : _unknown[b];
            double g = 1 / _slope[e];
            if (i >= 0)
            {
                _matrix.Add(i, i, g);
                _right[i] -= rest;
                if (j < 0 && b >= 0) _right[i] += g * _head[b];
            }
            if (j >= 0)
            {
                _matrix.Add(j, j, g);
                _right[j] += rest;
                if (i < 0) _right[j] += g * _head[a];
            }
            if (i >= 0 && j >= 0) _matrix.Add(i, j, -g);
        }

        private double LossOnly(int e, double q) => e < _m && _net.Edges[e] is FlowPipe p
            ? Friction.PipeLossM(q, p.LengthM, p.InnerDiameterM, p.RoughnessM, p.MinorLoss, _net.DensityKgPerM3, _net.ViscosityPaS)
            : Loss(e, q).Loss;

        // Head lost from → to at flow q, and its slope.
        private (double Loss, double Slope) Loss(int e, double q)
        {
            if (e >= _m)
            {
                // q = k √(ρ g (H - z)), turned round.
                var outlet = _net.Outlets[e - _m];
                double c = 1 / (outlet.CoefficientM3PerSPerSqrtPa * outlet.CoefficientM3PerSPerSqrtPa * _net.DensityKgPerM3 * Friction.Gravity);
                return q < 0 ? (outlet.HeightM + ShutSlope * q, ShutSlope) : (outlet.HeightM + c * q * q, 2 * c * q);
            }
            switch (_net.Edges[e])
            {
                case FlowPipe p:
                    return Friction.Pipe(q, p.LengthM, p.InnerDiameterM, p.RoughnessM, p.MinorLoss, _net.DensityKgPerM3, _net.ViscosityPaS);
                case FlowPump p:
                    return (p.CurveS2PerM5 * q * Math.Abs(q) - p.ShutoffHeadM, 2 * p.CurveS2PerM5 * Math.Abs(q));
                case FlowValve v:
                    double opens = v.OneWay ? v.OpensM : 0;
                    if (v.OneWay && q < 0) return (opens + ShutSlope * q, ShutSlope);
                    var (k, laminar) = Friction.Valve(v.OpenLoss / (v.Opening * v.Opening), v.InnerDiameterM, _net.DensityKgPerM3, _net.ViscosityPaS);
                    return (opens + k * q * Math.Abs(q) + laminar * q, 2 * k * Math.Abs(q) + laminar);
                default:
                    throw new FlowNetworkException(_net.Edges[e].Id, "this kind of element is unknown");
            }
        }

        // Parts without a reservoir or an open outlet have no level of their own: one node of each is taken as the datum.
        private void Reference()
        {
            var near = new List<int>[_n];
            for (int i = 0; i < _n; i++) near[i] = [];
            var levelled = (bool[])_fixed.Clone();
            for (int e = 0; e < _ends.Length; e++)
            {
                if (_shut[e]) continue;
                if (_ends[e].To < 0)
                {
                    levelled[_ends[e].From] = true;
                    continue;
                }
                near[_ends[e].From].Add(_ends[e].To);
                near[_ends[e].To].Add(_ends[e].From);
            }
            var seen = new bool[_n];
            for (int root = 0; root < _n; root++)
            {
                if (seen[root]) continue;
                var part = new List<int> { root };
                seen[root] = true;
                for (int k = 0; k < part.Count; k++)
                {
                    foreach (int j in near[part[k]])
                    {
                        if (seen[j]) continue;
                        seen[j] = true;
                        part.Add(j);
                    }
                }
                if (part.Any(i => levelled[i])) continue;
                _fixed[root] = true;
                _notes.Add(new FlowNote(FlowNoteKind.NoReference, _net.Nodes[root].Id));
            }
        }

        // What an all but endless slope lets by the wrong way is nothing. Whether there was any.
        private bool ShutWhatLeaks()
        {
            bool any = false;
            for (int e = 0; e < _ends.Length; e++)
            {
                if (_flow[e] >= 0 || !(e >= _m || _net.Edges[e] is FlowValve { OneWay: true })) continue;
                (_flow[e], _slope[e], any) = (0, ShutSlope, true);
            }
            return any;
        }

        // The others make up for what was shut, along their slopes; heads stay as they are.
        private void TakeUp()
        {
            Clear();
            for (int e = 0; e < _ends.Length; e++)
                if (!_shut[e]) Stamp(e, _flow[e] - Drop(e) / _slope[e]);
            if (!_matrix.Solve(_right)) return;
            double Moved(int node) => node < 0 || _unknown[node] < 0 ? 0 : _right[_unknown[node]] - _head[node];
            for (int e = 0; e < _ends.Length; e++)
                if (!_shut[e] && _slope[e] < ShutSlope) _flow[e] += (Moved(_ends[e].From) - Moved(_ends[e].To)) / _slope[e];
        }

    }
}
