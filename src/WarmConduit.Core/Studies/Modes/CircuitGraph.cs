using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Modes;

/// <summary>
/// The heating circuits of a rig as what is joined to what, with valves and pumps in any position: fluid moves in what lies on a way round through a pump that
/// runs. Flows are not worked out, and check valves count as open both ways: <see cref="RigHeat"/> judges what is found.
/// </summary>
internal sealed class CircuitGraph
{
    private readonly Dictionary<string, int> _node = [];
    private readonly List<(int From, int To, int Run, int Part)> _fixed = [];
    private readonly List<(int From, int To, int Run, int Part)>[][] _ways;
    private readonly int _nodes;

    /// <summary>Lays the circuits out. O(parts + runs).</summary>
    public CircuitGraph(RigIndex index)
    {
        Runs = [.. index.Rig.Runs.Where(r => r.Service == Service.Coolant && !r.From.IsLoose() && !r.To.IsLoose())];
        var joined = Runs.SelectMany(r => (string[])[r.From.Part!, r.To.Part!]).ToHashSet();
        Parts = [.. index.Rig.Parts.Where(p => joined.Contains(p.Id))];
        for (int r = 0; r < Runs.Count; r++) _fixed.Add((Node(Runs[r].From.Part!, Runs[r].From.Port!), Node(Runs[r].To.Part!, Runs[r].To.Port!), r, -1));
        var turnable = new List<int>();
        var ways = new List<List<(int, int, int, int)>[]>();
        for (int p = 0; p < Parts.Count; p++)
        {
            var part = Parts[p];
            // A heater that does not drive the flow lets it through, on or off.
            if (PositionsOf(part) is { Count: > 1 } positions && (!part.Heats().HeatsFluid || part.Flows().ShutoffBar is not null))
            {
                turnable.Add(p);
                ways.Add([.. positions.Select(position => Ways(p, position))]);
            }
            else _fixed.AddRange(Ways(p, InUse(index.Rig).PositionOf(part)));
        }
        (Turnable, _ways, _nodes) = (turnable, [.. ways], _node.Count);
    }

    /// <summary>Joined runs of heating fluid.</summary>
    public IReadOnlyList<Run> Runs { get; }

    /// <summary>Parts that they join.</summary>
    public IReadOnlyList<Part> Parts { get; }

    /// <summary>Numbers of the parts that modes turn: valves and pumps.</summary>
    public IReadOnlyList<int> Turnable { get; }

    /// <summary>How valves and pumps stand in use.</summary>
    public static Scenario InUse(Rig rig) => rig.ScenarioOf(ScenarioKind.InUse);

    /// <summary>The positions that a mode may use of a part: a valve open, shut or turned to another way, a pump or a heater on or off. What lets fluid out
    /// stays shut.</summary>
    public static IReadOnlyList<StockPosition> PositionsOf(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        return stock.Passage is Passage.Drain or Passage.Mixer ? [] : [.. stock.Positions.Where(p => p.Id != Positions.HalfOpen)];
    }

    /// <summary>Number of the position of each turnable part in a scenario; half open counts as open.</summary>
    public int[] SetOf(Scenario scenario) => [.. Turnable.Select(p =>
    {
        var positions = PositionsOf(Parts[p]);
        string? id = scenario.PositionOf(Parts[p])?.Id;
        int at = positions.ToList().FindIndex(o => o.Id == id);
        return at >= 0 ? at : positions.ToList().FindIndex(o => o.Passes);
    })];

    /// <summary>The position of a turnable part, by its number among them.</summary>
    public StockPosition At(int[] set, int turnable) => PositionsOf(Parts[Turnable[turnable]])[set[turnable]];

    /// <summary>
    /// Which runs and parts have flow in a setting: those of a block, in which every two elements share a way round, with a pump that runs. Runs that are
    /// <paramref name="cut"/> let nothing through. Exact but where two ways to a cross-link balance. O(elements).
    /// </summary>
    public (bool[] Runs, bool[] Parts) Live(int[] set, IReadOnlySet<int>? cut = null)
    {
        var edges = _fixed.Where(e => cut is null || e.Run < 0 || !cut.Contains(e.Run)).ToList();
        for (int t = 0; t < _ways.Length; t++) edges.AddRange(_ways[t][set[t]]);
        var next = new List<int>[_nodes];
        for (int e = 0; e < edges.Count; e++)
        {
            if (edges[e].From == edges[e].To) continue;
            (next[edges[e].From] ??= []).Add(e);
            (next[edges[e].To] ??= []).Add(e);
        }
        bool[] runs = new bool[Runs.Count], parts = new bool[Parts.Count];
        foreach (var block in Blocks(edges, next))
        {
            if (block.Count < 2 || !block.Any(e => edges[e].Part >= 0 && Pumps(edges[e].Part))) continue;
            foreach (int e in block)
            {
                if (edges[e].Run >= 0) runs[edges[e].Run] = true;
                if (edges[e].Part >= 0) parts[edges[e].Part] = true;
            }
        }
        return (runs, parts);

        bool Pumps(int part) => Parts[part].Flows().ShutoffBar is not null && Turnable.ToList().IndexOf(part) is >= 0 and var t && At(set, t).Passes;
    }

    private int Node(string part, string port) => Node($"{part}.{port}");

    private int Node(string name)
    {
        if (!_node.TryGetValue(name, out int number)) _node[name] = number = _node.Count;
        return number;
    }

    // Ports that meet in a part do so in its middle.
    private List<(int, int, int, int)> Ways(int number, StockPosition? position)
    {
        var (part, ways) = (Parts[number], new List<(int, int, int, int)>());
        foreach (var group in Inside.Meeting(part, position))
            foreach (string port in group) ways.Add((Node(part.Id, port), Node($"{part.Id}/{group[0]}"), -1, number));
        foreach (var (from, to, _) in Inside.Ways(part, position).Where(w => w.Passes == Passes.Forward))
            ways.Add((Node(part.Id, from), Node(part.Id, to), -1, number));
        return ways;
    }

    // Blocks of the graph by edges, depth first without recursion: a way of 400 runs is long.
    private static IEnumerable<List<int>> Blocks(List<(int From, int To, int Run, int Part)> edges, List<int>[] next)
    {
        int time = 0;
        int[] seen = new int[next.Length], low = new int[next.Length], at = new int[next.Length];
        bool[] used = new bool[edges.Count];
        var stack = new Stack<int>();
        for (int root = 0; root < next.Length; root++)
        {
            if (seen[root] > 0 || next[root] is null) continue;
            var way = new Stack<(int Node, int By)>();
            way.Push((root, -1));
            seen[root] = low[root] = ++time;
            while (way.Count > 0)
            {
                var (node, by) = way.Peek();
                if (at[node] < next[node].Count)
                {
                    int edge = next[node][at[node]++];
                    if (used[edge]) continue;
                    used[edge] = true;
                    int other = edges[edge].From == node ? edges[edge].To : edges[edge].From;
                    stack.Push(edge);
                    if (seen[other] == 0)
                    {
                        seen[other] = low[other] = ++time;
                        way.Push((other, edge));
                    }
                    else low[node] = Math.Min(low[node], seen[other]);
                    continue;
                }
                way.Pop();
                if (by < 0) continue;
                int parent = way.Peek().Node;
                low[parent] = Math.Min(low[parent], low[node]);
                if (low[node] < seen[parent]) continue;
                var block = new List<int>();
                int edgeOut;
                do block.Add(edgeOut = stack.Pop());
                while (edgeOut != by);
                yield return block;
            }
        }
    }
}
