using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>How far water is let in from its sources, at rest or not, and the parts that it stands at.</summary>
internal sealed class FlowReach
{
    private readonly HashSet<string> _wet;
    private readonly RigFlow _flow;

    private FlowReach(RigFlow flow, HashSet<string> wet, IReadOnlyList<string> shutAt) => (_flow, _wet, ShutAt) = (flow, wet, shutAt);

    /// <summary>Ids of shut parts with water at one side.</summary>
    public IReadOnlyList<string> ShutAt { get; }

    /// <summary>Whether water gets into a run.</summary>
    public bool Gets(Run run) => _wet.Contains(_flow.At(RigFlow.Node(run.From.Part!, run.From.Port!)))
        || _wet.Contains(_flow.At(RigFlow.Node(run.To.Part!, run.To.Port!)));

    /// <summary>Follows it along everything that lets it on. O(nodes + elements).</summary>
    public static FlowReach Of(Question question, RigFlow flow, FlowScene scene)
    {
        var net = flow.Network;
        var next = new Dictionary<string, List<string>>();
        void Lead(string a, string b)
        {
            if (!next.TryGetValue(a, out var list)) next[a] = list = [];
            list.Add(b);
        }
        foreach (var edge in net.Edges)
        {
            Lead(edge.From, edge.To);
            if (edge is not (FlowPump or FlowValve { OneWay: true })) Lead(edge.To, edge.From);
        }
        var wet = net.Nodes.Where(n => n.HeadM is not null).Select(n => n.Id).ToHashSet();
        var queue = new Queue<string>(wet);
        while (queue.TryDequeue(out string? at))
            foreach (string to in next.GetValueOrDefault(at) ?? [])
                if (wet.Add(to)) queue.Enqueue(to);
        bool StandsAt(Part part) => part.Ports.Any(o => question.Index.IsJoined(part.Id, o.Id) && wet.Contains(flow.At(RigFlow.Node(part.Id, o.Id))));
        string[] shut = [.. question.Rig.Parts
            .Where(p => Catalogue.Part(p.Stock)! is { Passage: Passage.Valve or Passage.Pump or Passage.Drain or Passage.Mixer }
                && scene.PositionOf(p) is not { Passes: true } && StandsAt(p))
            .Select(p => p.Id)];
        return new FlowReach(flow, wet, shut);
    }
}
