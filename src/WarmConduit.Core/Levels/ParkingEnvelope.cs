using System.Numerics;
using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>What stays at every attitude of a grid, m³: [pitch, roll].</summary>
/// <param name="PitchDeg">Pitches.</param>
/// <param name="RollDeg">Rolls.</param>
/// <param name="TotalM3">In all.</param>
/// <param name="WorstM3">In the watched edge that keeps most.</param>
public sealed record EnvelopeAnswer(IReadOnlyList<double> PitchDeg, IReadOnlyList<double> RollDeg, double[,] TotalM3, double[,] WorstM3)
{
    /// <summary>Default limit in all, m³.</summary>
    public const double DefaultTotalM3 = 50e-6;

    /// <summary>Default limit in any part that ice breaks, m³.</summary>
    public const double DefaultWorstM3 = 10e-6;

    /// <summary>Whether the vehicle may stand so.</summary>
    public bool Within(int pitch, int roll, double totalM3 = DefaultTotalM3, double worstM3 = DefaultWorstM3) =>
        TotalM3[pitch, roll] <= totalM3 && WorstM3[pitch, roll] <= worstM3;
}

/// <summary>The patch of pitch and roll over which a system empties itself.</summary>
public static class ParkingEnvelope
{
    /// <summary>Evenly spaced angles from -<paramref name="most"/> to +<paramref name="most"/>, degrees.</summary>
    public static double[] Angles(double most, int count) => [.. Enumerable.Range(0, count).Select(i => count == 1 ? 0 : most * (2.0 * i / (count - 1) - 1))];

    /// <summary>
    /// Solves <paramref name="graph"/> at every pitch and roll. <paramref name="watched"/> are edge numbers of parts that ice breaks. The levels are found for
    /// several rolls at once, in vectors, by the steps of <see cref="Elimination"/>: the same answer as <see cref="Draining"/> to the bit. O(attitudes · segments)
    /// for a network that is nearly a tree. On <paramref name="threads"/> threads (0: all cores) the answer is the same. Throws <see cref="LevelNetworkException"/> for an edge
    /// number that is none and angles of 90 degrees and more.
    /// </summary>
    public static EnvelopeAnswer Ask(
        LevelGraph graph,
        IReadOnlyList<double> pitchDeg,
        IReadOnlyList<double> rollDeg,
        IReadOnlyList<int>? watched = null,
        int threads = 1,
        IProgress<int>? progress = null,
        CancellationToken cancel = default)
    {
        var total = new double[pitchDeg.Count, rollDeg.Count];
        var worst = new double[pitchDeg.Count, rollDeg.Count];
        var elimination = new Elimination(graph);
        var isWatched = new bool[graph.Network.Edges.Count];
        foreach (int e in watched ?? [])
        {
            if ((uint)e >= isWatched.Length) throw new LevelNetworkException("watched", $"there is no edge {e}");
            isWatched[e] = true;
        }
        foreach (double p in pitchDeg) LevelGraph.Demand(new Attitude(p, 0));
        foreach (double r in rollDeg) LevelGraph.Demand(new Attitude(0, r));
        int done = 0;
        Worker Row(int p, Worker worker)
        {
            worker.Row(pitchDeg[p], rollDeg, p, total, worst);
            progress?.Report(Interlocked.Increment(ref done));
            return worker;
        }
        Worker New() => new(graph, elimination, isWatched);
        if (threads == 1)
        {
            var worker = New();
            for (int p = 0; p < pitchDeg.Count; p++)
            {
                cancel.ThrowIfCancellationRequested();
                Row(p, worker);
            }
        }
        else
        {
            var options = new ParallelOptions { CancellationToken = cancel, MaxDegreeOfParallelism = threads > 0 ? threads : Environment.ProcessorCount };
            Parallel.For(0, pitchDeg.Count, options, New, (p, _, worker) => Row(p, worker), _ => { });
        }
        return new EnvelopeAnswer(pitchDeg, rollDeg, total, worst);
    }

    private sealed class Worker(LevelGraph graph, Elimination elimination, bool[] watched)
    {
        private static readonly int Lanes = Vector<double>.Count;
        private readonly Vector<double>[] _z = new Vector<double>[graph.Points.Length];
        private readonly Vector<double>[] _level = new Vector<double>[graph.Points.Length + 1];
        private readonly Vector<double>[] _crest = new Vector<double>[elimination.Crests];

        public void Row(double pitchDeg, IReadOnlyList<double> rollDeg, int row, double[,] total, double[,] worst)
        {
            double tanPitch = new Attitude(pitchDeg, 0).TanPitch();
            Span<double> tan = stackalloc double[Lanes];
            Span<double> sum = stackalloc double[Lanes];
            Span<double> most = stackalloc double[Lanes];
            Span<double> edge = stackalloc double[Lanes];
            for (int first = 0; first < rollDeg.Count; first += Lanes)
            {
                int used = Math.Min(Lanes, rollDeg.Count - first);
                for (int i = 0; i < Lanes; i++) tan[i] = new Attitude(0, rollDeg[first + Math.Min(i, used - 1)]).TanRoll();
                Levels(tanPitch, new Vector<double>(tan));
                sum.Clear();
                most.Clear();
                for (int e = 0; e < watched.Length; e++)
                {
                    edge.Clear();
                    for (int s = graph.EdgeFirst[e]; s < graph.EdgeFirst[e + 1]; s++) AddSegment(s, used, edge);
                    for (int i = 0; i < used; i++)
                    {
                        sum[i] += edge[i];
                        if (watched[e] && edge[i] > most[i]) most[i] = edge[i];
                    }
                }
                for (int i = 0; i < used; i++)
                {
                    for (int v = 0; v < graph.VesselPoint.Length; v++)
                    {
                        var vessel = graph.Network.Vessels[v];
                        sum[i] += vessel.HoldsM3 * VesselSlice.FilledFraction(vessel.Box, _level[graph.VesselPoint[v]][i], new Attitude(pitchDeg, rollDeg[first + i]));
                    }
                    total[row, first + i] = sum[i];
                    worst[row, first + i] = most[i];
                }
            }
        }

        private void Levels(double tanPitch, Vector<double> tanRoll)
        {
            var points = graph.Points;
            for (int p = 0; p < points.Length; p++) _z[p] = new Vector<double>(points[p].ZM + points[p].XM * tanPitch) + points[p].YM * tanRoll;
            foreach (int v in graph.VesselPoint) _z[v] = new Vector<double>(double.NegativeInfinity);
            elimination.Levels(_z, _level, _crest);
        }

        private void AddSegment(int s, int used, Span<double> sum)
        {
            double bore = graph.SegBoreM[s];
            if (bore == 0) return;
            int a = graph.SegA[s], b = graph.SegB[s];
            var level = graph.SegPasses[s] switch
            {
                Passes.Both => Vector.Min(_level[a], _level[b]),
                Passes.Forward => _level[b],
                _ => new Vector<double>(double.PositiveInfinity),
            };
            var depthA = level - _z[a];
            var depthB = level - _z[b];
            if (!Vector.GreaterThanAny(Vector.Max(depthA, depthB), Vector<double>.Zero)) return;
            double whole = bore * bore * graph.SegLengthM[s];
            if (Vector.GreaterThanOrEqualAll(Vector.Min(depthA, depthB), new Vector<double>(bore)))
            {
                for (int i = 0; i < used; i++) sum[i] += whole * (Math.PI / 4);
                return;
            }
            for (int i = 0; i < used; i++) sum[i] += whole * BoreSegment.MeanUnitArea(depthA[i] / bore, depthB[i] / bore);
        }
    }
}
