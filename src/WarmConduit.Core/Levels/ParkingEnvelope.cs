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

/// <summary>Something without bore that fills from its points: as full as water stands deep at one of them.</summary>
/// <param name="Points">Points of the graph.</param>
/// <param name="HoldsM3">Its content, m³.</param>
/// <param name="HeightM">How deep water stands in it when it is full, m.</param>
/// <param name="Breaks">Ice breaks it.</param>
public sealed record PatchPart(IReadOnlyList<int> Points, double HoldsM3, double HeightM, bool Breaks);

/// <summary>What is counted when a vehicle is parked.</summary>
/// <param name="Edges">Numbers of the edges whose bores count.</param>
/// <param name="Parts">Parts that count.</param>
/// <param name="Vessels">Numbers of the vessels that count, each for itself.</param>
/// <param name="EachVessel">The share of each vessel is told as well.</param>
public sealed record PatchQuestion(IReadOnlyList<int> Edges, IReadOnlyList<PatchPart> Parts, IReadOnlyList<int> Vessels, bool EachVessel = false);

/// <summary>What stays at every attitude of a grid: [pitch, roll].</summary>
/// <param name="PitchDeg">Pitches.</param>
/// <param name="RollDeg">Rolls.</param>
/// <param name="OutsideM3">In bores and parts, m³.</param>
/// <param name="BreakableM3">Most in a part that ice breaks, m³.</param>
/// <param name="VesselShare">Most of a vessel's content, 0..1.</param>
/// <param name="OfVessels">The same of each vessel that counts: [pitch, roll, number in the question]; null where it was not asked for.</param>
public sealed record PatchAnswer(IReadOnlyList<double> PitchDeg, IReadOnlyList<double> RollDeg, double[,] OutsideM3, double[,] BreakableM3,
    double[,] VesselShare, double[,,]? OfVessels);

/// <summary>The patch of pitch and roll over which a system empties itself.</summary>
public static class ParkingEnvelope
{
    /// <summary>Evenly spaced angles from -<paramref name="most"/> to +<paramref name="most"/>, degrees.</summary>
    public static double[] Angles(double most, int count) => [.. Enumerable.Range(0, count).Select(i => count == 1 ? 0 : most * (2.0 * i / (count - 1) - 1))];

    /// <summary>
    /// Solves <paramref name="graph"/> at every pitch and roll. <paramref name="watched"/> are edge numbers of parts that ice breaks. The levels are found for
    /// several rolls at once, in vectors, by the steps of <see cref="Elimination"/>: the same answer as <see cref="Draining"/> to the bit. O(attitudes ·
    /// segments) for a network that is nearly a tree. On <paramref name="threads"/> threads (0: all cores) the answer is the same. Throws <see
    /// cref="LevelNetworkException"/> for an edge number that is none and angles of 90 degrees and more.
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
            if ((uint)e >= isWatched.Length) throw new LevelNetworkException("watched", $"edge {e} is unknown");
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

    /// <summary>The same for what <paramref name="question"/> counts, parts and vessels apart. O(attitudes · segments). Throws <see
    /// cref="LevelNetworkException"/> for numbers that are none.</summary>
    public static PatchAnswer Patch(LevelGraph graph, IReadOnlyList<double> pitchDeg, IReadOnlyList<double> rollDeg, PatchQuestion question,
        CancellationToken cancel = default) =>
        Patch(graph, new Elimination(graph), pitchDeg, rollDeg, question, cancel);

    // With steps that were found before, for this graph or one that they fit.
    internal static PatchAnswer Patch(LevelGraph graph, Elimination elimination, IReadOnlyList<double> pitchDeg, IReadOnlyList<double> rollDeg,
        PatchQuestion question, CancellationToken cancel)
    {
        if (question.Edges.Any(e => (uint)e >= graph.Network.Edges.Count)) throw new LevelNetworkException("edges", "the edge is unknown");
        if (question.Vessels.Any(v => (uint)v >= graph.Network.Vessels.Count)) throw new LevelNetworkException("vessels", "the vessel is unknown");
        if (question.Parts.Any(p => p.Points.Any(q => (uint)q >= graph.Points.Length))) throw new LevelNetworkException("parts", "the point is unknown");
        foreach (double p in pitchDeg) LevelGraph.Demand(new Attitude(p, 0));
        foreach (double r in rollDeg) LevelGraph.Demand(new Attitude(0, r));
        var answer = new PatchAnswer(pitchDeg, rollDeg, new double[pitchDeg.Count, rollDeg.Count], new double[pitchDeg.Count, rollDeg.Count],
            new double[pitchDeg.Count, rollDeg.Count], question.EachVessel ? new double[pitchDeg.Count, rollDeg.Count, question.Vessels.Count] : null);
        var worker = new Worker(graph, elimination, []);
        for (int p = 0; p < pitchDeg.Count; p++)
        {
            cancel.ThrowIfCancellationRequested();
            worker.PatchRow(question, answer, p);
        }
        return answer;
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
                        sum[i] += vessel.HoldsM3 * VesselSlice.FilledFraction(vessel.Box, _level[graph.VesselPoint[v]][i],
                            new Attitude(pitchDeg, rollDeg[first + i]));
                    }
                    total[row, first + i] = sum[i];
                    worst[row, first + i] = most[i];
                }
            }
        }

        public void PatchRow(PatchQuestion question, PatchAnswer answer, int row)
        {
            var (pitch, rolls) = (answer.PitchDeg[row], answer.RollDeg);
            double tanPitch = new Attitude(pitch, 0).TanPitch();
            Span<double> tan = stackalloc double[Lanes];
            Span<double> sum = stackalloc double[Lanes];
            for (int first = 0; first < rolls.Count; first += Lanes)
            {
                int used = Math.Min(Lanes, rolls.Count - first);
                for (int i = 0; i < Lanes; i++) tan[i] = new Attitude(0, rolls[first + Math.Min(i, used - 1)]).TanRoll();
                Levels(tanPitch, new Vector<double>(tan));
                sum.Clear();
                foreach (int e in question.Edges)
                    for (int s = graph.EdgeFirst[e]; s < graph.EdgeFirst[e + 1]; s++) AddSegment(s, used, sum);
                for (int i = 0; i < used; i++)
                {
                    double broken = 0, share = 0;
                    foreach (var part in question.Parts)
                    {
                        double depth = 0;
                        for (int k = 0; k < part.Points.Count; k++) depth = Math.Max(depth, _level[part.Points[k]][i] - _z[part.Points[k]][i]);
                        if (depth <= 1e-6) continue;
                        double holds = part.HoldsM3 * Math.Min(1, depth / part.HeightM);
                        sum[i] += holds;
                        if (part.Breaks) broken = Math.Max(broken, holds);
                    }
                    for (int n = 0; n < question.Vessels.Count; n++)
                    {
                        int v = question.Vessels[n];
                        double own = VesselSlice.FilledFraction(graph.Network.Vessels[v].Box, _level[graph.VesselPoint[v]][i],
                            new Attitude(pitch, rolls[first + i]));
                        share = Math.Max(share, own);
                        if (answer.OfVessels is { } each) each[row, first + i, n] = own;
                    }
                    (answer.OutsideM3[row, first + i], answer.BreakableM3[row, first + i], answer.VesselShare[row, first + i]) = (sum[i], broken, share);
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
