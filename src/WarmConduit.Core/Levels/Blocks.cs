namespace WarmConduit.Core.Levels;

/// <summary>
/// Blocks (two-connected pieces) of an undirected graph: two edges are in one block exactly when some loop without repeated nodes runs through both.
/// </summary>
internal static class Blocks
{
    /// <summary>
    /// Number of the block of each edge; -1 for an edge that ends where it starts. Tarjan's search with its own stack, so that long chains cannot overflow.
    /// O(nodes + edges).
    /// </summary>
    public static int[] Of(int nodes, ReadOnlySpan<(int A, int B)> edges)
    {
        var start = new int[nodes + 1];
        foreach (var (a, b) in edges)
        {
            start[a + 1]++;
            start[b + 1]++;
        }
        for (int n = 0; n < nodes; n++) start[n + 1] += start[n];
        var fill = start[..^1];
        var row = new int[start[nodes]];
        for (int e = 0; e < edges.Length; e++)
        {
            row[fill[edges[e].A]++] = e;
            row[fill[edges[e].B]++] = e;
        }

        var block = new int[edges.Length];
        Array.Fill(block, -1);
        var found = new int[nodes];
        var low = new int[nodes];
        var cursor = start[..^1];
        var seen = new bool[edges.Length];
        var open = new Stack<int>();
        var path = new Stack<(int Node, int Edge)>();
        int time = 0, count = 0;
        for (int root = 0; root < nodes; root++)
        {
            if (found[root] != 0) continue;
            found[root] = low[root] = ++time;
            path.Push((root, -1));
            while (path.Count > 0)
            {
                var (at, by) = path.Peek();
                if (cursor[at] < start[at + 1])
                {
                    int e = row[cursor[at]++];
                    if (seen[e]) continue;
                    seen[e] = true;
                    var (a, b) = edges[e];
                    if (a == b) continue;
                    int next = a == at ? b : a;
                    open.Push(e);
                    if (found[next] == 0)
                    {
                        found[next] = low[next] = ++time;
                        path.Push((next, e));
                    }
                    else low[at] = Math.Min(low[at], found[next]);
                    continue;
                }
                path.Pop();
                if (path.Count == 0) break;
                int before = path.Peek().Node;
                low[before] = Math.Min(low[before], low[at]);
                if (low[at] < found[before]) continue;
                // Nothing below reaches above `before`: what was opened since is one block.
                int last;
                do block[last = open.Pop()] = count;
                while (last != by);
                count++;
            }
        }
        return block;
    }
}
