using System.Numerics;

namespace WarmConduit.Core.Levels;

/// <summary>
/// The levels of a <see cref="LevelGraph"/> as a straight list of steps that holds at every attitude: points are eliminated one after another, as in the
/// factorisation of a sparse matrix but with (min, max) for (+, ×), and then recovered backwards. A point that goes leaves behind, between each two of its
/// neighbours, a way with the crest that passing it would cost. Plumbing is nearly a tree, so hardly any new ways appear. Exact; least number of neighbours
/// goes first. Points with more than <see cref="MostNeighbours"/> are kept and relaxed until nothing moves, so that a dense network costs no cubes.
/// Immutable and safe to share between threads.
/// </summary>
internal sealed class Elimination
{
    private const int MostNeighbours = 12;

    // Crest numbers with a fixed value: a way straight to a neighbour has no crest between; no way has one without end.
    private const int Straight = 0, NoWay = 1;

    private readonly record struct Step(int To, int Old, int In, int Point, int Out);

    private readonly Step[] _steps;
    private readonly int _kept;
    private readonly int _ground;
    private readonly LevelGraph _graph;

    // Points in the order of recovery, the kept ones first; the ways out of each, compressed rows.
    private readonly int[] _order;
    private readonly int[] _rowStart;
    private readonly int[] _rowPoint;
    private readonly int[] _rowCrest;

    /// <summary>Crests in use, for <see cref="Levels"/>.</summary>
    public int Crests { get; private set; }

    /// <summary>Finds the steps. O(points · neighbours²).</summary>
    public Elimination(LevelGraph graph)
    {
        (_graph, _ground) = (graph, graph.Points.Length);
        var ways = new Ways(graph);
        var steps = new List<Step>();
        var gone = new List<(int Point, (int To, int Crest)[] Out)>(_ground);
        Crests = NoWay + 1;

        var queue = new PriorityQueue<int, int>();
        for (int p = 0; p < _ground; p++) queue.Enqueue(p, ways.Near(p).Count);
        while (queue.TryDequeue(out int p, out int count))
        {
            var near = ways.Near(p);
            // The count in the queue may be old: ways come and go. Counts that grew go back, those that shrank were put in again.
            if (ways.IsGone(p) || near.Count != count || count > MostNeighbours) continue;
            for (int i = 0; i < near.Count; i++)
            {
                for (int j = i + 1; j < near.Count; j++) Bridge(near[i], p, near[j]);
            }
            gone.Add((p, ways.Out(p)));
            ways.Remove(p);
            foreach (int q in near)
            {
                if (q != _ground) queue.Enqueue(q, ways.Near(q).Count);
            }
        }
        var kept = Enumerable.Range(0, _ground).Where(p => !ways.IsGone(p)).Select(p => (p, ways.Out(p))).ToList();
        gone.Reverse();
        _kept = kept.Count;
        _steps = [.. steps];
        (int Point, (int To, int Crest)[] Out)[] all = [.. kept, .. gone];
        _order = [.. all.Select(r => r.Point)];
        _rowStart = new int[all.Length + 1];
        for (int i = 0; i < all.Length; i++) _rowStart[i + 1] = _rowStart[i] + all[i].Out.Length;
        _rowPoint = [.. all.SelectMany(r => r.Out.Select(w => w.To))];
        _rowCrest = [.. all.SelectMany(r => r.Out.Select(w => w.Crest))];

        void Bridge(int a, int p, int b)
        {
            int ap = ways.Crest(a, p), pb = ways.Crest(p, b), bp = ways.Crest(b, p), pa = ways.Crest(p, a);
            int ab = ways.Crest(a, b), ba = ways.Crest(b, a);
            int there = Over(ab, ap, p, pb);
            // Where all is the same both ways, so is the new way: one step serves both.
            int back = (ab, ap, pb) == (ba, pa, bp) ? there : Over(ba, bp, p, pa);
            ways.Set(a, b, there);
            ways.Set(b, a, back);
        }

        int Over(int old, int into, int p, int outOf)
        {
            if (old == Straight || into == NoWay || outOf == NoWay) return old;
            steps.Add(new Step(Crests, old, into, p, outOf));
            return Crests++;
        }
    }

    /// <summary>Whether the steps hold for <paramref name="graph"/> as well: the same ways between its points, wherever these lie. O(segments).</summary>
    public bool Fits(LevelGraph graph) =>
        graph.Points.Length == _ground && graph.SegA.AsSpan().SequenceEqual(_graph.SegA) && graph.SegB.AsSpan().SequenceEqual(_graph.SegB)
        && graph.SegPasses.AsSpan().SequenceEqual(_graph.SegPasses) && graph.DrainPoints.AsSpan().SequenceEqual(_graph.DrainPoints);

    /// <summary>
    /// Levels of all points, metres, for as many attitudes as a vector has lanes, from their heights <paramref name="z"/>. <paramref name="level"/> has a place
    /// more than there are points; <paramref name="crest"/> has <see cref="Crests"/> places and is scratch.
    /// </summary>
    public void Levels(Vector<double>[] z, Vector<double>[] level, Vector<double>[] crest)
    {
        crest[Straight] = level[_ground] = new Vector<double>(double.NegativeInfinity);
        crest[NoWay] = new Vector<double>(double.PositiveInfinity);
        foreach (ref readonly var s in _steps.AsSpan())
            crest[s.To] = Vector.Min(crest[s.Old], Vector.Max(Vector.Max(crest[s.In], crest[s.Out]), z[s.Point]));

        for (int i = 0; i < _kept; i++) level[_order[i]] = crest[NoWay];
        for (bool moved = _kept > 0; moved;)
        {
            moved = false;
            for (int i = 0; i < _kept; i++) moved |= Recover(i, z, level, crest);
            for (int i = _kept - 1; moved && i >= 0; i--) Recover(i, z, level, crest);
        }
        for (int i = _kept; i < _order.Length; i++) Recover(i, z, level, crest);
    }

    // Whether any level moved.
    private bool Recover(int i, Vector<double>[] z, Vector<double>[] level, Vector<double>[] crest)
    {
        var least = crest[NoWay];
        for (int w = _rowStart[i]; w < _rowStart[i + 1]; w++) least = Vector.Min(least, Vector.Max(crest[_rowCrest[w]], level[_rowPoint[w]]));
        int p = _order[i];
        var was = level[p];
        level[p] = Vector.Max(z[p], least);
        return !Vector.EqualsAll(was, level[p]);
    }

    // Ways that are left, by the points they join. A way's crest number says what it costs beside its two ends.
    private sealed class Ways
    {
        private readonly Dictionary<int, int>?[] _out;
        private readonly Dictionary<int, int>?[] _in;

        public Ways(LevelGraph graph)
        {
            int ground = graph.Points.Length;
            (_out, _in) = (new Dictionary<int, int>[ground + 1], new Dictionary<int, int>[ground + 1]);
            for (int p = 0; p <= ground; p++) (_out[p], _in[p]) = ([], []);
            foreach (int d in graph.DrainPoints) Set(d, ground, Straight);
            for (int s = 0; s < graph.SegA.Length; s++)
            {
                int a = graph.SegA[s], b = graph.SegB[s];
                if (a == b || graph.SegPasses[s] == Passes.None) continue;
                Set(a, b, Straight);
                if (graph.SegPasses[s] == Passes.Both) Set(b, a, Straight);
            }
        }

        public bool IsGone(int p) => _out[p] is null;

        public int Crest(int from, int to) => _out[from]!.GetValueOrDefault(to, NoWay);

        public void Set(int from, int to, int crest)
        {
            if (crest == NoWay) return;
            _out[from]![to] = crest;
            _in[to]![from] = crest;
        }

        public (int To, int Crest)[] Out(int p) => [.. _out[p]!.Select(w => (w.Key, w.Value))];

        public List<int> Near(int p) => _out[p] is null ? [] : [.. _out[p]!.Keys.Union(_in[p]!.Keys)];

        public void Remove(int p)
        {
            foreach (int q in _out[p]!.Keys) _in[q]!.Remove(p);
            foreach (int q in _in[p]!.Keys) _out[q]!.Remove(p);
            (_out[p], _in[p]) = (null, null);
        }
    }
}
