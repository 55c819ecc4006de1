using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>One side of a tap, opened by itself.</summary>
/// <param name="Tap">The tap or appliance.</param>
/// <param name="Port">Its inlet.</param>
/// <param name="Name">Its name: "kitchen mixer, hot".</param>
internal sealed record Opening(Part Tap, string Port, string Name)
{
    /// <summary>Its id: <c>tap.port</c>.</summary>
    public string Id => RigFlow.Node(Tap.Id, Port);
}

/// <summary>What air or antifreeze passes on its way to one opening.</summary>
/// <param name="Runs">Runs on some way, those nearest to the source first.</param>
/// <param name="Only">Ids of the runs that are on every way.</param>
/// <param name="Parts">Parts on some way, without the tap.</param>
/// <param name="OnlyParts">Ids of the parts that are on every way.</param>
/// <param name="Forward">Whether each run of <paramref name="Runs"/> is passed from its start.</param>
/// <param name="Exact">False: the list may name too many.</param>
internal sealed record SweptWay(
    IReadOnlyList<Run> Runs, IReadOnlySet<string> Only, IReadOnlyList<Part> Parts, IReadOnlySet<string> OnlyParts, IReadOnlyList<bool> Forward, bool Exact);

/// <summary>The lines between gear that is joined and every outlet, with valves as a task has them.</summary>
internal sealed class SweepGraph
{
    private readonly RigIndex _index;
    private readonly List<SweepEdge> _edges = [];
    private readonly List<(Run? Run, Part? Part)> _of = [];
    private readonly string[] _sources;

    /// <summary>Lays a task out. O(parts + runs).</summary>
    public SweepGraph(Question question, FoundTask task)
    {
        _index = question.Index;
        var graph = question.Tasks.Graph;
        var gear = question.Tasks.Goals.GearOf(task.Kind, task.Scenario);
        _sources = [.. gear.Select(g => RigFlow.Node(g.PartId, g.Port))];
        Runs = [.. graph.Runs.Where(r => !gear.Any(g => RigFlow.TakenOff(r, g)))];
        foreach (var run in Runs) Add(new SweepEdge(run.Id, Node(run.From), Node(run.To), Passes.Both), run, null);
        for (int i = 0; i < graph.Parts.Count; i++)
        {
            var positions = graph.PositionsOf(i);
            AddPart(graph.Parts[i], positions.Count > 0 ? positions[task.Set[i]] : null);
        }
        Openings = [.. graph.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer)
            .SelectMany(p => p.Ports.Where(o => p.RoleOf(o) is PortRole.Cold or PortRole.Hot && _index.IsJoined(p.Id, o.Id)).Select(o => new Opening(p, o.Id,
                p.PortAt("hot") is not null && p.PortAt("cold") is not null ? $"{p.Name}, {o.Id}" : p.Name)))];
    }

    /// <summary>Runs that carry drinking water and are joined meanwhile.</summary>
    public IReadOnlyList<Run> Runs { get; }

    /// <summary>Every inlet of every outlet.</summary>
    public IReadOnlyList<Opening> Openings { get; }

    /// <summary>What is passed on the way to an opening, from the first source that gets there; empty: none does.</summary>
    public SweptWay WayTo(Opening opening)
    {
        string inlet = opening.Id, end = EndOf(opening.Tap);
        SweepEdge[] edges = [.. _edges, .. end == inlet ? [] : (SweepEdge[])[new SweepEdge($"{opening.Id}!", inlet, SpoutOf(opening.Tap) ?? inlet,
            Passes.Both)]];
        var nodes = edges.SelectMany(e => (string[])[e.From, e.To]).ToHashSet();
        if (nodes.Contains(end))
            foreach (string source in _sources.Where(nodes.Contains))
            {
                var swept = Swept.Find(edges, source, end);
                if (swept.Edges.Count == 0) continue;
                return Told(edges, [.. swept.Edges], source, end, opening, swept.Exact);
            }
        return new SweptWay([], new HashSet<string>(), [], new HashSet<string>(), [], true);
    }

    private SweptWay Told(SweepEdge[] edges, int[] on, string source, string end, Opening opening, bool exact)
    {
        var near = new Dictionary<string, List<int>>();
        foreach (int e in on)
            foreach (string node in (string[])[edges[e].From, edges[e].To])
            {
                if (!near.TryGetValue(node, out var list)) near[node] = list = [];
                list.Add(e);
            }
        var steps = Distances(edges, near, source, -1);
        bool Only(int e) => !Distances(edges, near, source, e).ContainsKey(end);
        // The extra edge of the opening has neither run nor part.
        int[] runs = [.. on.Where(e => e < _of.Count && _of[e].Run is not null)
            .OrderBy(e => Math.Min(steps.GetValueOrDefault(edges[e].From, int.MaxValue), steps.GetValueOrDefault(edges[e].To, int.MaxValue)))];
        int[] parts = [.. on.Where(e => e < _of.Count && _of[e].Part is not null)];
        return new SweptWay(
            [.. runs.Select(e => _of[e].Run!)], runs.Where(Only).Select(e => _of[e].Run!.Id).ToHashSet(),
            [.. parts.Select(e => _of[e].Part!).Distinct().Where(p => p.Id != opening.Tap.Id)], parts.Where(Only).Select(e => _of[e].Part!.Id).ToHashSet(),
            [.. runs.Select(e => steps.GetValueOrDefault(edges[e].From, int.MaxValue) <= steps.GetValueOrDefault(edges[e].To, int.MaxValue))], exact);
    }

    private static Dictionary<string, int> Distances(SweepEdge[] edges, Dictionary<string, List<int>> near, string source, int without)
    {
        var steps = new Dictionary<string, int> { [source] = 0 };
        var queue = new Queue<string>([source]);
        while (queue.TryDequeue(out string? at))
            foreach (int e in near.GetValueOrDefault(at) ?? [])
            {
                if (e == without || (edges[e].Passes == Passes.Forward && edges[e].To == at)) continue;
                string next = edges[e].From == at ? edges[e].To : edges[e].From;
                if (steps.TryAdd(next, steps[at] + 1)) queue.Enqueue(next);
            }
        return steps;
    }

    // Where it leaves: the spout, or the free end of what hangs on it.
    private string EndOf(Part tap)
    {
        if (SpoutOf(tap) is not { } spout) return tap.Ports.Where(o => tap.RoleOf(o) is PortRole.Cold or PortRole.Hot && _index.IsJoined(tap.Id, o.Id))
            .Select(o => RigFlow.Node(tap.Id, o.Id)).First();
        var seen = new HashSet<string> { spout };
        var queue = new Queue<string>(seen);
        string end = spout;
        while (queue.TryDequeue(out string? at))
        {
            end = at;
            foreach (var edge in _edges.Where(e => (e.From == at || e.To == at) && e.Passes != Passes.None))
                if (edge.From == at ? seen.Add(edge.To) : edge.Passes == Passes.Both && seen.Add(edge.From)) queue.Enqueue(edge.From == at ? edge.To
                    : edge.From);
        }
        return end;
    }

    private static string? SpoutOf(Part tap) => tap.Ports.Where(o => tap.RoleOf(o) == PortRole.Spout).Select(o => RigFlow.Node(tap.Id, o.Id)).FirstOrDefault();

    private void AddPart(Part part, StockPosition? position)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (TankStudy.IsTank(part) || stock.Passage is Passage.Mixer or Passage.Drain or Passage.OpenEnd or Passage.DeadEnd) return;
        if (stock.Passage == Passage.Vessel)
        {
            foreach (var port in part.Ports.Where(o => part.RoleOf(o) is PortRole.Cold or PortRole.Hot)) Star(part, part.Id, port.Id);
            return;
        }
        foreach (var (from, to, passes) in Inside.Ways(part, position).Where(w => w.Passes == Passes.Forward))
            Add(new SweepEdge($"{part.Id}>{from}>{to}", RigFlow.Node(part.Id, from), RigFlow.Node(part.Id, to), passes), null, part);
        // Where ports meet is passed once.
        foreach (var group in Inside.Meeting(part, position))
            foreach (string port in group) Star(part, $"{part.Id}*{group[0]}", port);
    }

    private void Star(Part part, string middle, string port) =>
        Add(new SweepEdge($"{part.Id}|{port}", RigFlow.Node(part.Id, port), middle, Passes.Both), null, part);

    private void Add(SweepEdge edge, Run? run, Part? part)
    {
        _edges.Add(edge);
        _of.Add((run, part));
    }

    private static string Node(RunEnd end) => RigFlow.Node(end.Part!, end.Port!);
}
