namespace WarmConduit.Core.Levels;

/// <summary>A point whose height may be chosen between two limits, m; equal limits pin it.</summary>
public sealed record FallPoint(string Id, double LowestM, double HighestM);

/// <summary>
/// A length of pipe in the direction its water shall run, m along it, with its plan extents. Tilting by the tolerances must not turn it back.
/// </summary>
/// <param name="From">Id of its upper point.</param>
/// <param name="To">Id of its lower point.</param>
/// <param name="LengthM">Length, m.</param>
/// <param name="DxM">Extent along the vehicle, m.</param>
/// <param name="DyM">Extent across it, m.</param>
/// <param name="ToleranceDeg">Pitch and roll to stand on this length, degrees; null for those of the question.</param>
public sealed record FallLength(string From, string To, double LengthM, double DxM, double DyM, double? ToleranceDeg = null)
{
    /// <summary>Height that tilting takes of it, m, where the question asks these angles, degrees.</summary>
    public double ForToleranceM(double pitchDeg, double rollDeg)
    {
        return (Tan(ToleranceDeg ?? pitchDeg) * Math.Abs(DxM)) + (Tan(ToleranceDeg ?? rollDeg) * Math.Abs(DyM));

        static double Tan(double deg) => Math.Tan(Math.Abs(deg) * Math.PI / 180);
    }
}

/// <summary>What is asked of a set of heights.</summary>
/// <param name="Points">Points.</param>
/// <param name="Lengths">Lengths between them.</param>
/// <param name="PitchToleranceDeg">Pitch to stand, either way.</param>
/// <param name="RollToleranceDeg">Roll to stand, either way.</param>
/// <param name="LeastFall">Fall wanted beyond that, m/m.</param>
/// <param name="MostChanges">Changes that are told at the most: each is a chain of points, and a large rig has many.</param>
public sealed record FallQuestion(
    IReadOnlyList<FallPoint> Points, IReadOnlyList<FallLength> Lengths, double PitchToleranceDeg, double RollToleranceDeg, double LeastFall,
    int MostChanges = int.MaxValue);

/// <summary>
/// The chain that sets the margin: points in the direction of the water. Its first can stand no higher and its last no lower; a loop has the same point at both
/// ends and no heights can serve it.
/// </summary>
/// <param name="Points">Ids.</param>
/// <param name="AvailableM">Height between the limits of its ends; 0 for a loop.</param>
/// <param name="LengthM">Length of the chain.</param>
/// <param name="ForToleranceM">Height that the parking tolerance takes.</param>
public sealed record FallChain(IReadOnlyList<string> Points, double AvailableM, double LengthM, double ForToleranceM)
{
    /// <summary>Fall left over, m/m: what the chain allows.</summary>
    public double Margin() => (AvailableM - ForToleranceM) / LengthM;
}

/// <summary>A change that lifts one chain: raise the highest allowed height of its first point, or lower the lowest of its last, by <paramref
/// name="ByM"/>.</summary>
public sealed record FallChange(FallChain Chain, double ByM);

/// <summary>The greatest margin and what sets it.</summary>
/// <param name="Margin">Greatest fall that all lengths can have beyond the tolerance, m/m; infinite when nothing limits it under a million.</param>
/// <param name="Feasible">Whether it reaches the fall wanted.</param>
/// <param name="HeightM">Heights that have it, by point, midway between the highest and the lowest that do.</param>
/// <param name="Binding">The certificate: the chain that allows no more; null when nothing limits.</param>
/// <param name="Changes">What would make the wanted fall possible: the least change for each chain that forbids it, worst first; empty when feasible. A loop
/// cannot be helped.</param>
public sealed record FallAnswer(double Margin, bool Feasible, IReadOnlyList<double> HeightM, FallChain? Binding, IReadOnlyList<FallChange> Changes);

/// <summary>
/// Heights that make a whole system fall: difference constraints z(from) - z(to) ≥ margin · length + tan(pitch) |dx| + tan(roll) |dy| within each point's
/// limits. The greatest margin is a least ratio over chains from an upper limit to a lower one, found by Newton's method on the most violated chain
/// (Bellman-Ford finds it): exact to rounding.
/// </summary>
public static class AutoFall
{
    private const double Tiny = 1e-12, Steepest = 1e6;

    /// <summary>
    /// Solves <paramref name="question"/>. O(points · lengths) a round, a handful of rounds. Throws <see cref="LevelNetworkException"/> naming the place
    /// for unknown or doubled ids, limits the wrong way round, lengths not above 0 and numbers that are not finite.
    /// </summary>
    public static FallAnswer Solve(FallQuestion question, CancellationToken cancel = default)
    {
        var graph = new Graph(question, cancel);
        double margin = double.PositiveInfinity;
        FallChain? binding = null;
        // Each round the tightest chain so far sets the margin; a chain violated at that margin is tighter. Ratios only fall, so it ends.
        var start = graph.Violated(Steepest);
        for (int round = 0; start is not null && round < 1000; round++)
        {
            double tighter = start.Margin();
            if (tighter >= margin) break;
            (margin, binding) = (tighter, start);
            start = graph.Violated(margin - Tiny);
        }
        bool feasible = margin >= question.LeastFall - 1e-9;
        var heights = graph.Heights(double.IsInfinity(margin) ? question.LeastFall : margin - 1e-11);
        return new FallAnswer(margin, feasible, heights, binding, feasible ? [] : graph.Changes(question.LeastFall));
    }

    private sealed class Graph
    {
        private readonly FallQuestion _q;
        private readonly CancellationToken _cancel;
        private readonly int _n;
        private readonly double[] _lowest, _highest, _tolerance;
        private readonly (int From, int To)[] _ends;
        private readonly List<int>[] _out;

        public Graph(FallQuestion q, CancellationToken cancel)
        {
            (_q, _cancel) = (q, cancel);
            _n = q.Points.Count;
            var index = new Dictionary<string, int>();
            foreach (var p in q.Points)
            {
                if (!index.TryAdd(p.Id, index.Count)) throw new LevelNetworkException(p.Id, "this point id is used twice");
                if (!double.IsFinite(p.LowestM) || !double.IsFinite(p.HighestM) || p.LowestM > p.HighestM)
                    throw new LevelNetworkException(p.Id, "its lowest height must be finite and not above its highest");
            }
            _lowest = [.. q.Points.Select(p => p.LowestM)];
            _highest = [.. q.Points.Select(p => p.HighestM)];
            if (!(Math.Abs(q.PitchToleranceDeg) < 45) || !(Math.Abs(q.RollToleranceDeg) < 45) || !double.IsFinite(q.LeastFall))
                throw new LevelNetworkException("tolerance", "tolerances must be from 0 to 45 degrees, and the fall finite");
            _ends = new (int, int)[q.Lengths.Count];
            _tolerance = new double[q.Lengths.Count];
            _out = [.. Enumerable.Range(0, _n).Select(_ => new List<int>())];
            for (int e = 0; e < _ends.Length; e++)
            {
                var l = q.Lengths[e];
                string place = $"{l.From}-{l.To}";
                if (!index.TryGetValue(l.From, out int from) || !index.TryGetValue(l.To, out int to))
                    throw new LevelNetworkException(place, "an end is not a known point");
                if (!(l.LengthM > 0) || double.IsInfinity(l.LengthM) || !double.IsFinite(l.DxM) || !double.IsFinite(l.DyM))
                    throw new LevelNetworkException(place, "its length must be above 0 and its extents finite");
                if (l.ToleranceDeg is { } own && !(Math.Abs(own) < 45)) throw new LevelNetworkException(place, "its tolerance must be from 0 to 45 degrees");
                _ends[e] = (from, to);
                _out[from].Add(e);
                _tolerance[e] = l.ForToleranceM(q.PitchToleranceDeg, q.RollToleranceDeg);
            }
        }

        /// <summary>
        /// The most violated chain at <paramref name="margin"/>, or null. High[i] is the highest height still possible; a chain is violated when that falls
        /// under a lowest limit, or when heights keep falling around a loop.
        /// </summary>
        public FallChain? Violated(double margin)
        {
            var (high, by, loopAt) = HighestPossible(margin);
            if (loopAt >= 0) return Loop(by, loopAt);
            int worst = -1;
            double most = Tiny / 10;
            for (int p = 0; p < _n; p++)
                if (_lowest[p] - high[p] > most) (worst, most) = (p, _lowest[p] - high[p]);
            return worst < 0 ? null : Chain(by, worst);
        }

        /// <summary>Heights midway between the highest and the lowest that have <paramref name="margin"/>.</summary>
        public double[] Heights(double margin)
        {
            var high = HighestPossible(margin).High;
            var low = (double[])_lowest.Clone();
            for (int round = 0; round <= _n; round++)
            {
                _cancel.ThrowIfCancellationRequested();
                bool moved = false;
                for (int e = 0; e < _ends.Length; e++)
                {
                    double need = low[_ends[e].To] + margin * _q.Lengths[e].LengthM + _tolerance[e];
                    if (need <= low[_ends[e].From]) continue;
                    (low[_ends[e].From], moved) = (need, true);
                }
                if (!moved) break;
            }
            return [.. Enumerable.Range(0, _n).Select(p => (high[p] + low[p]) / 2)];
        }

        /// <summary>What would allow <paramref name="fall"/>: each offending chain in turn, its last point lowered by just what it lacks.</summary>
        public List<FallChange> Changes(double fall)
        {
            var changes = new List<FallChange>();
            var kept = (double[])_lowest.Clone();
            for (int round = 0; round < Math.Min(_n, _q.MostChanges); round++)
            {
                if (Violated(fall) is not { } chain || chain.Points[0] == chain.Points[^1]) break;
                double lacks = fall * chain.LengthM + chain.ForToleranceM - chain.AvailableM;
                changes.Add(new FallChange(chain, lacks));
                int last = Enumerable.Range(0, _n).First(p => _q.Points[p].Id == chain.Points[^1]);
                _lowest[last] -= lacks + 1e-9;
            }
            kept.CopyTo(_lowest, 0);
            return changes;
        }

        private (double[] High, int[] By, int LoopAt) HighestPossible(double margin)
        {
            var high = (double[])_highest.Clone();
            var by = new int[_n];
            Array.Fill(by, -1);
            // Only points that moved in the last round can move others; after as many rounds as points a loop must be at work.
            var (now, next) = (new List<int>(Enumerable.Range(0, _n)), new List<int>());
            var queued = new bool[_n];
            for (int round = 0; round <= _n && now.Count > 0; round++)
            {
                _cancel.ThrowIfCancellationRequested();
                foreach (int from in now)
                {
                    foreach (int e in _out[from])
                    {
                        int to = _ends[e].To;
                        double below = high[from] - margin * _q.Lengths[e].LengthM - _tolerance[e];
                        if (below >= high[to] - 1e-15) continue;
                        (high[to], by[to]) = (below, e);
                        if (queued[to]) continue;
                        queued[to] = true;
                        next.Add(to);
                    }
                }
                if (round == _n && next.Count > 0) return (high, by, next[0]);
                foreach (int p in next) queued[p] = false;
                (now, next) = (next, now);
                next.Clear();
            }
            return (high, by, -1);
        }

        private FallChain Chain(int[] by, int last)
        {
            var points = new List<int> { last };
            double length = 0, tolerance = 0;
            for (int e = by[last]; e >= 0; e = by[points[^1]])
            {
                length += _q.Lengths[e].LengthM;
                tolerance += _tolerance[e];
                points.Add(_ends[e].From);
            }
            points.Reverse();
            return new FallChain([.. points.Select(p => _q.Points[p].Id)], _highest[points[0]] - _lowest[last], length, tolerance);
        }

        private FallChain Loop(int[] by, int at)
        {
            for (int i = 0; i < _n; i++) at = _ends[by[at]].From;
            var points = new List<int> { at };
            double length = 0, tolerance = 0;
            do
            {
                int e = by[points[^1]];
                length += _q.Lengths[e].LengthM;
                tolerance += _tolerance[e];
                points.Add(_ends[e].From);
            }
            while (points[^1] != at);
            points.Reverse();
            return new FallChain([.. points.Select(p => _q.Points[p].Id)], 0, length, tolerance);
        }
    }
}
