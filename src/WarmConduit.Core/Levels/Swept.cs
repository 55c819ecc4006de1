namespace WarmConduit.Core.Levels;

/// <summary>An element that air may pass: from node to node, one way, both or not.</summary>
public sealed record SweepEdge(string Id, string From, string To, Passes Passes);

/// <summary>What an open outlet sweeps.</summary>
/// <param name="Edges">Numbers of the edges on some path without repeated nodes from port to outlet, rising.</param>
/// <param name="Exact">False when the search for some edge of a part with one-way elements was cut short: then the list is an upper estimate, it may name too
/// many.</param>
public sealed record SweptAnswer(IReadOnlyList<int> Edges, bool Exact);

/// <summary>
/// Which runs the air from a port sweeps while one outlet is open. The graph is cut into blocks; between port and outlet they form a chain, and a path without
/// repeated nodes takes them one by one. In a block where everything passes both ways every edge is on some such path; where there are one-way parts each edge
/// is searched for, within a bound.
/// </summary>
public static class Swept
{
    /// <summary>Edge visits the searches of one call may take by default: some 3 ms.</summary>
    public const int DefaultBound = 250_000;

    /// <summary>
    /// Asks it of <paramref name="edges"/>. Blocks: O(edges). Searches: at most <paramref name="bound"/> edge visits in all. Throws
    /// <see cref="LevelNetworkException"/> for doubled edge ids, unknown ways to pass, and for a port or outlet that no edge touches.
    /// </summary>
    public static SweptAnswer Find(IReadOnlyList<SweepEdge> edges, string port, string outlet, int bound = DefaultBound)
    {
        var nodes = new Dictionary<string, int>();
        int Node(string id) => nodes.TryGetValue(id, out int n) ? n : nodes[id] = nodes.Count;
        var ids = new HashSet<string>();
        var ends = new (int A, int B)[edges.Count + 1];
        for (int e = 0; e < edges.Count; e++)
        {
            if (!ids.Add(edges[e].Id)) throw new LevelNetworkException(edges[e].Id, "this edge id is used twice");
            if (!Enum.IsDefined(edges[e].Passes)) throw new LevelNetworkException(edges[e].Id, "the direction it passes must be one of the known ones");
            ends[e] = (Node(edges[e].From), Node(edges[e].To));
            // A shut element is no way; as a loop of its own it belongs to no block.
            if (edges[e].Passes == Passes.None) ends[e] = (ends[e].A, ends[e].A);
        }
        int from = nodes.TryGetValue(port, out int p) ? p : throw new LevelNetworkException(port, "no edge joins the port");
        int to = nodes.TryGetValue(outlet, out int o) ? o : throw new LevelNetworkException(outlet, "no edge joins the outlet");
        if (from == to) return new SweptAnswer([], true);

        // An edge lies on a path between the two exactly when it shares a block with an extra edge that joins them.
        ends[^1] = (from, to);
        var whole = Blocks.Of(nodes.Count, ends);
        bool[] candidate = [.. Enumerable.Range(0, edges.Count).Select(e => whole[e] >= 0 && whole[e] == whole[^1])];
        var oneWay = Enumerable.Range(0, edges.Count).Any(e => candidate[e] && edges[e].Passes == Passes.Forward);
        if (!oneWay) return new SweptAnswer(Chosen(candidate), true);

        var search = new Search(nodes.Count, edges, ends, candidate, bound);
        return search.Run(from, to);
    }

    private static int[] Chosen(bool[] marks) => [.. Enumerable.Range(0, marks.Length).Where(e => marks[e])];

    private sealed class Search
    {
        private readonly (int A, int B)[] _ends;
        private readonly bool[] _candidate, _one, _marked;
        private readonly int[] _start, _row, _by;
        private readonly int[] _stamp;
        private readonly bool[] _taken;
        private readonly Queue<int> _queue = new();
        private readonly int _nodes;
        private int _time;
        private long _left;
        private int[] _block = [];

        public Search(int nodes, IReadOnlyList<SweepEdge> edges, (int, int)[] ends, bool[] candidate, int bound)
        {
            (_nodes, _ends, _candidate, _left) = (nodes, ends, candidate, bound);
            _one = [.. edges.Select(e => e.Passes == Passes.Forward)];
            _marked = new bool[edges.Count];
            _start = new int[nodes + 1];
            for (int e = 0; e < edges.Count; e++)
            {
                if (!candidate[e]) continue;
                _start[_ends[e].A + 1]++;
                _start[_ends[e].B + 1]++;
            }
            for (int n = 0; n < nodes; n++) _start[n + 1] += _start[n];
            var fill = _start[..^1];
            _row = new int[_start[nodes]];
            for (int e = 0; e < edges.Count; e++)
            {
                if (!candidate[e]) continue;
                _row[fill[_ends[e].A]++] = e;
                _row[fill[_ends[e].B]++] = e;
            }
            (_by, _stamp, _taken) = (new int[nodes], new int[nodes], new bool[nodes]);
        }

        public SweptAnswer Run(int from, int to)
        {
            // The blocks proper, without the extra edge, and where the chain enters and leaves each: any path shows it.
            _block = Blocks.Of(_nodes, _ends.AsSpan(0, _candidate.Length));
            for (int e = 0; e < _candidate.Length; e++)
                if (!_candidate[e]) _block[e] = -1;
            var path = PathOf(from, to, respectOneWay: false, block: -1);
            var gates = new List<(int Block, int In, int Out)>();
            int at = from;
            foreach (int e in path!)
            {
                int next = Other(e, at);
                if (gates.Count > 0 && gates[^1].Block == _block[e]) gates[^1] = gates[^1] with { Out = next };
                else gates.Add((_block[e], at, next));
                at = next;
            }
            bool exact = true;
            var members = Enumerable.Range(0, _candidate.Length).Where(e => _candidate[e]).ToLookup(e => _block[e]);
            foreach (var (block, gateIn, gateOut) in gates)
            {
                // No way against the arrows through one block: no way at all.
                if (PathOf(gateIn, gateOut, respectOneWay: true, block) is not { } through) return new SweptAnswer([], true);
                if (!members[block].Any(e => _one[e]))
                {
                    foreach (int e in members[block]) _marked[e] = true;
                    continue;
                }
                foreach (int e in through) _marked[e] = true;
                exact &= SearchBlock([.. members[block]], block, gateIn, gateOut);
            }
            return new SweptAnswer(Chosen(_marked), exact);
        }

        private int Other(int e, int node) => _ends[e].A == node ? _ends[e].B : _ends[e].A;

        private bool SearchBlock(int[] members, int block, int gateIn, int gateOut)
        {
            bool exact = true;
            var fromIn = Reach(gateIn, block, forward: true);
            var toOut = Reach(gateOut, block, forward: false);
            foreach (int e in members)
            {
                if (_marked[e]) continue;
                var (a, b) = _ends[e];
                bool found = false, possible = false, finished = true;
                foreach (var (u, v) in _one[e] ? ((int, int)[])[(a, b)] : [(a, b), (b, a)])
                {
                    if (found || !fromIn[u] || !toOut[v] || v == gateIn || u == gateOut) continue;
                    possible = true;
                    if (_left <= 0)
                    {
                        finished = false;
                        break;
                    }
                    var way = Through(gateIn, u, v, gateOut, e, block, out bool complete);
                    finished &= complete;
                    if (way is null) continue;
                    found = true;
                    foreach (int x in way) _marked[x] = true;
                }
                if (found || !possible || finished) continue;
                // Cut short: it may lie on a path, so it stays in the answer, and the answer says so.
                _marked[e] = true;
                exact = false;
            }
            return exact;
        }

        // A path in → u, the edge, and a path v → out that share no node. First two cheap tries, then all paths in → u one by one.
        private List<int>? Through(int gateIn, int u, int v, int gateOut, int edge, int block, out bool complete)
        {
            complete = true;
            Array.Clear(_taken);
            foreach (bool headFirst in (ReadOnlySpan<bool>)[true, false])
            {
                Array.Clear(_taken);
                _taken[v] = _taken[gateOut] = headFirst;
                _taken[u] |= !headFirst;
                _taken[gateIn] |= !headFirst;
                var first = headFirst ? PathOf(gateIn, u, true, block) : PathOf(v, gateOut, true, block);
                if (first is null) continue;
                Array.Clear(_taken);
                TakeNodes(first, headFirst ? gateIn : v);
                var second = headFirst ? PathOf(v, gateOut, true, block) : PathOf(gateIn, u, true, block);
                if (second is not null) return [.. first, edge, .. second];
            }
            Array.Clear(_taken);
            _taken[v] = _taken[gateOut] = true;
            var head = new List<int>();
            var found = Extend(gateIn, u, v, gateOut, block, head);
            if (found is null && _left <= 0) complete = false;
            return found is null ? null : [.. head, edge, .. found];
        }

        private void TakeNodes(List<int> path, int at)
        {
            _taken[at] = true;
            foreach (int e in path) _taken[at = Other(e, at)] = true;
        }

        // Depth first over paths to u; a branch is left when u cannot be reached any more, or the rest of the way cannot.
        private List<int>? Extend(int at, int u, int v, int gateOut, int block, List<int> head)
        {
            if (_left <= 0) return null;
            bool wasTaken = _taken[at];
            _taken[at] = true;
            if (at == u)
            {
                (_taken[v], _taken[gateOut]) = (false, false);
                var tail = v == gateOut ? [] : PathOf(v, gateOut, true, block);
                (_taken[v], _taken[gateOut]) = (true, true);
                if (tail is not null) return tail;
                _taken[at] = wasTaken;
                return null;
            }
            (_taken[v], _taken[gateOut]) = (false, false);
            bool restOpen = v == gateOut || PathOf(v, gateOut, true, block) is not null;
            (_taken[v], _taken[gateOut]) = (true, true);
            if (restOpen)
            {
                for (int i = _start[at]; i < _start[at + 1]; i++)
                {
                    int e = _row[i], next = Other(e, at);
                    _left--;
                    if (_block[e] != block || (_one[e] && _ends[e].A != at) || _taken[next]) continue;
                    head.Add(e);
                    if ((next == u || PathOf(next, u, true, block) is not null) && Extend(next, u, v, gateOut, block, head) is { } tail) return tail;
                    head.RemoveAt(head.Count - 1);
                    if (_left <= 0) break;
                }
            }
            _taken[at] = wasTaken;
            return null;
        }

        // Shortest path that keeps off taken nodes (its own ends may be taken); null when there is none.
        private List<int>? PathOf(int from, int to, bool respectOneWay, int block)
        {
            if (from == to) return [];
            _time++;
            _queue.Clear();
            _queue.Enqueue(from);
            _stamp[from] = _time;
            while (_queue.TryDequeue(out int at))
            {
                for (int i = _start[at]; i < _start[at + 1]; i++)
                {
                    int e = _row[i], next = Other(e, at);
                    _left--;
                    if (_stamp[next] == _time || (block >= 0 && _block[e] != block) || (respectOneWay && _one[e] && _ends[e].A != at)) continue;
                    if (_taken[next] && next != to) continue;
                    _stamp[next] = _time;
                    _by[next] = e;
                    if (next == to) return Back(from, to);
                    _queue.Enqueue(next);
                }
            }
            return null;
        }

        private List<int> Back(int from, int to)
        {
            var path = new List<int>();
            for (int at = to; at != from; at = Other(_by[at], at)) path.Add(_by[at]);
            path.Reverse();
            return path;
        }

        private bool[] Reach(int from, int block, bool forward)
        {
            var reached = new bool[_nodes];
            reached[from] = true;
            var stack = new Stack<int>([from]);
            while (stack.TryPop(out int at))
            {
                for (int i = _start[at]; i < _start[at + 1]; i++)
                {
                    int e = _row[i], next = Other(e, at);
                    if (_block[e] != block || reached[next] || (_one[e] && (forward ? _ends[e].A != at : _ends[e].B != at))) continue;
                    reached[next] = true;
                    stack.Push(next);
                }
            }
            return reached;
        }
    }
}
