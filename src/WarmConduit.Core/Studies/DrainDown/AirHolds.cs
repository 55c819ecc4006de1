using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>Water that is airlocked: it stays because no air gets in behind it.</summary>
/// <param name="Shares">Runs that keep it, and how much of it is in each.</param>
/// <param name="Words">The runs, in words.</param>
/// <param name="Litres">How much is in these runs, L. Estimate, erring towards more water left.</param>
/// <param name="OpenAt">Where a vent would release it: its highest place.</param>
/// <param name="Gulps">Its bore is wide enough for air to rise past the water, so it empties in gulps and does not stay.</param>
public sealed record AirHold(IReadOnlyList<PoolShare> Shares, string Words, double Litres, Place OpenAt, bool Gulps)
{
    /// <summary>Ids of those runs.</summary>
    public IReadOnlyList<string> RunIds => [.. Shares.Select(s => s.RunId)];
}

/// <summary>What stays for want of air in a rig.</summary>
internal sealed class AirHolds
{
    private const double LeastL = 0.002;

    private readonly double[] _runL, _share;

    private AirHolds(IReadOnlyList<AirHold> holds, double[] runL, double[] share, IReadOnlySet<int> vessels) =>
        (Holds, _runL, _share, Vessels) = (holds, runL, share, vessels);

    /// <summary>By place, largest first; also those that gulp.</summary>
    public IReadOnlyList<AirHold> Holds { get; }

    /// <summary>Numbers of the vessels that water cannot leave.</summary>
    public IReadOnlySet<int> Vessels { get; }

    /// <summary>What stays so in a run, L.</summary>
    public double InRunL(int run) => _runL[run];

    /// <summary>The upper share of a segment that it fills, 0..1.</summary>
    public double Share(int segment) => _share[segment];

    /// <summary>Asks how it is parked and how valves stand. Nothing where nothing is open. O(points log points).</summary>
    public static AirHolds Of(Question question)
    {
        var rig = question.Rig;
        if (question.Draining is not { } levels) return new AirHolds([], new double[rig.Runs.Count], [], new HashSet<int>());
        var graph = levels.Graph;
        // A bowl that is off, or a drain screw that is open, lets air in; so does a pump that is run dry, from one side to the other.
        string[] vents = [.. rig.Parts.Where(p => rig.ByHand.Find(p.Id) is not null && Catalogue.Part(p.Stock) is { KeepsWater: true, Protects: false })
            .SelectMany(p => p.Ports.Select(o => RigLevels.NodeId(p.Id, o.Id)))];
        var (basins, shares) = AirBasins.Find(graph, vents, question.Conditions.Parked);
        IReadOnlySet<int> driven = basins.Count == 0 ? new HashSet<int>() : question.DrivenRuns;
        var (holds, runL, counts) = (new List<AirHold>(), new double[rig.Runs.Count], new bool[rig.Runs.Count]);
        foreach (var basin in basins)
        {
            var edges = basin.Edges.Where(e => e.Edge < rig.Runs.Count && rig.Runs[e.Edge].Service is not (Service.Coolant or Service.Vent)
                && !driven.Contains(e.Edge)).ToList();
            double litres = 1000 * edges.Sum(e => e.VolumeM3);
            if (litres < LeastL) continue;
            bool gulps = basin.Edges.All(e => graph.SegBoreM[graph.EdgeFirst[e.Edge]] is 0 or >= VesselAir.GulpBoreM);
            var first = rig.Runs[edges.MaxBy(e => e.VolumeM3).Edge];
            holds.Add(new AirHold([.. edges.Select(e => new PoolShare(rig.Runs[e.Edge].Id, e.VolumeM3 * 1000))], edges.Count == 1 ? first.Name
                : $"{first.Name} and {edges.Count - 1} more", litres, question.Levels.PlaceAt(basin.OpenAt), gulps));
            if (gulps) continue;
            foreach (var (edge, m3) in edges) (runL[edge], counts[edge]) = (runL[edge] + (1000 * m3), true);
        }
        var share = new double[shares.Length];
        for (int r = 0; r < counts.Length; r++)
            if (counts[r]) Array.Copy(shares, graph.EdgeFirst[r], share, graph.EdgeFirst[r], graph.EdgeFirst[r + 1] - graph.EdgeFirst[r]);
        bool[] breathes = VesselAir.Breathes(levels);
        return new AirHolds(holds, runL, share, Enumerable.Range(0, breathes.Length).Where(v => !breathes[v]).ToHashSet());
    }

    /// <summary>
    /// Numbers of the runs through which a pump that is run dry by hand surely drives air: those on every way from its outlet to an opening, and from one to
    /// its inlet. Where ways part, air takes the easiest alone. They hang on what is joined, not on where it lies.
    /// </summary>
    public static HashSet<int> Driven(Question question, LevelGraph graph)
    {
        var driven = new HashSet<int>();
        foreach (var pump in question.Rig.Parts.Where(p => question.Rig.ByHand.Find(p.Id) is not null && Catalogue.Part(p.Stock)!.Passage == Passage.Pump))
        {
            driven.UnionWith(OnEveryWay(graph.Network, RigLevels.NodeId(pump.Id, "out"), outward: true));
            driven.UnionWith(OnEveryWay(graph.Network, RigLevels.NodeId(pump.Id, "in"), outward: false));
        }
        return driven;
    }

    // What air must pass between a node and the open, whichever way it takes: found by taking each piece of one way out.
    private static IEnumerable<int> OnEveryWay(LevelNetwork network, string from, bool outward)
    {
        var open = network.Drains.ToHashSet();
        var ways = new Dictionary<string, List<(string To, int Edge)>>();
        void Add(string a, string b, int edge) => (ways.TryGetValue(a, out var list) ? list : ways[a] = []).Add((b, edge));
        for (int e = 0; e < network.Edges.Count; e++)
        {
            var edge = network.Edges[e];
            if (edge.Passes == Passes.Both || (edge.Passes == Passes.Forward && outward)) Add(edge.From, edge.To, e);
            if (edge.Passes == Passes.Both || (edge.Passes == Passes.Forward && !outward)) Add(edge.To, edge.From, e);
        }
        // A tank without water is a way as well.
        foreach (var vessel in network.Vessels)
            foreach (string port in vessel.Ports)
            {
                Add(vessel.Id, port, -1);
                Add(port, vessel.Id, -1);
            }
        List<int>? Way(int without)
        {
            var came = new Dictionary<string, (string From, int Edge)> { [from] = ("", -1) };
            var queue = new Queue<string>([from]);
            while (queue.TryDequeue(out string? at))
            {
                if (open.Contains(at))
                {
                    var path = new List<int>();
                    for (string n = at; n != from; n = came[n].From) path.Add(came[n].Edge);
                    return path;
                }
                foreach (var (to, edge) in ways.GetValueOrDefault(at) ?? [])
                    if (edge != without || edge < 0)
                        if (came.TryAdd(to, (at, edge))) queue.Enqueue(to);
            }
            return null;
        }
        return Way(-2)?.Where(e => e >= 0 && Way(e) is null) ?? [];
    }
}
