using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>
/// A rig's network at rest in its controls: mixers mix to their wish, pumps run on their curve or pulse between their switch's pressures, regulators hold.
/// </summary>
internal sealed class FlowState
{
    // Within a quarter of a kelvin, a hundredth of a metre, a hundredth of a bar.
    private const double NearK = 0.25, NearM = 0.01, NearBar = 0.01, LeastM3PerS = 1e-8;
    private const int MostRounds = 40;

    private readonly RigFlow _flow;
    private readonly FlowScene _scene;
    private readonly Dictionary<string, int> _node;
    private readonly (int From, int To)[] _ends;
    private readonly FlowEdge[] _edges;
    private readonly double[] _head, _q, _out;
    private readonly int[] _keptNodes, _keptEdges, _keptOutlets;
    private readonly Dictionary<string, Knob> _knobs = [];
    private readonly HashSet<int> _unlit = [];
    private FlowAnswer? _near;

    private FlowState(RigFlow flow, FlowScene scene)
    {
        (_flow, _scene) = (flow, scene);
        var net = flow.Network;
        _node = net.Nodes.Select((n, i) => (n.Id, i)).ToDictionary(t => t.Id, t => t.i);
        _ends = [.. net.Edges.Select(e => (_node[e.From], _node[e.To]))];
        _edges = [.. net.Edges];
        (_head, _q, _out, C) = (new double[net.Nodes.Count], new double[net.Edges.Count], new double[net.Outlets.Count], new double[net.Nodes.Count]);
        (_keptNodes, _keptEdges, _keptOutlets) = Kept();
    }

    /// <summary>Flow of each element, m³/s, positive from → to.</summary>
    public IReadOnlyList<double> FlowM3PerS => _q;

    /// <summary>Head of each node, m.</summary>
    public IReadOnlyList<double> HeadM => _head;

    /// <summary>What leaves by each outlet, m³/s.</summary>
    public IReadOnlyList<double> OutletM3PerS => _out;

    /// <summary>Water at each node, °C.</summary>
    public double[] C { get; }

    /// <summary>Pumps whose switch stops and starts them.</summary>
    public HashSet<string> Pulsing { get; } = [];

    /// <summary>Heaters that too little flows through to light, with that flow, L/min.</summary>
    public IEnumerable<(Rigs.Part Heater, double LPerMin)> Unlit =>
        _flow.HeaterAt.Where(h => _unlit.Contains(_node[h.Key])).Select(h => (h.Value, ThroughLPerMin(h.Key)));

    /// <summary>Greatest imbalance of a node, m³/s.</summary>
    public double MassErrorM3PerS { get; private set; }

    /// <summary>False where the network or its controls did not come to rest.</summary>
    public bool Settled { get; private set; }

    /// <summary>Solves a rig in a scene.</summary>
    public static FlowState Solve(RigFlow flow, FlowScene scene)
    {
        var state = new FlowState(flow, scene);
        state.Run();
        return state;
    }

    /// <summary>Whether there is a node: a part that no water line joins has none.</summary>
    public bool Has(string id) => _node.ContainsKey(_flow.At(id));

    /// <summary>Number of a node.</summary>
    public int NodeOf(string id) => _node[_flow.At(id)];

    /// <summary>The nodes that an element leads from and to.</summary>
    public (int From, int To) EndsOf(int edge) => _ends[edge];

    /// <summary>Gauge pressure at a part's port, bar.</summary>
    public double BarAt(Rigs.Part part, string port) => (_head[NodeOf(RigFlow.Node(part.Id, port))] - _flow.HeightM(part, port)) / _flow.HeadPerBar;

    // What leads from a source to an outlet or another source; the rest is at rest.
    private (int[] Nodes, int[] Edges, int[] Outlets) Kept()
    {
        var net = _flow.Network;
        var degree = new int[net.Nodes.Count];
        var near = new List<int>[net.Nodes.Count];
        for (int i = 0; i < near.Length; i++) near[i] = [];
        for (int e = 0; e < _ends.Length; e++)
        {
            near[_ends[e].From].Add(e);
            near[_ends[e].To].Add(e);
            degree[_ends[e].From]++;
            degree[_ends[e].To]++;
        }
        var ends = new bool[net.Nodes.Count];
        for (int i = 0; i < ends.Length; i++) ends[i] = net.Nodes[i].HeadM is not null;
        foreach (var outlet in net.Outlets) ends[_node[outlet.Node]] = true;
        var gone = new bool[_ends.Length];
        var queue = new Queue<int>(Enumerable.Range(0, degree.Length).Where(i => !ends[i] && degree[i] <= 1));
        while (queue.TryDequeue(out int i))
            foreach (int e in near[i].Where(e => !gone[e]))
            {
                gone[e] = true;
                int other = _ends[e].From == i ? _ends[e].To : _ends[e].From;
                degree[i]--;
                if (--degree[other] <= 1 && !ends[other]) queue.Enqueue(other);
            }
        // Only what a source reaches moves.
        var wet = new bool[net.Nodes.Count];
        var reach = new Queue<int>(Enumerable.Range(0, wet.Length).Where(i => net.Nodes[i].HeadM is not null));
        foreach (int i in reach) wet[i] = true;
        while (reach.TryDequeue(out int i))
            foreach (int e in near[i].Where(e => !gone[e]))
            {
                int other = _ends[e].From == i ? _ends[e].To : _ends[e].From;
                if (wet[other]) continue;
                wet[other] = true;
                reach.Enqueue(other);
            }
        int[] edges = [.. Enumerable.Range(0, _ends.Length).Where(e => !gone[e] && wet[_ends[e].From])];
        var used = edges.SelectMany(e => (int[])[_ends[e].From, _ends[e].To]).ToHashSet();
        return ([.. used.Order()], edges, [.. Enumerable.Range(0, net.Outlets.Count).Where(o => used.Contains(_node[net.Outlets[o].Node]))]);
    }

    private void Run()
    {
        Array.Fill(C, _scene.ColdC);
        for (int i = 0; i < _head.Length; i++) _head[i] = _flow.Network.Nodes[i].HeadM ?? 0;
        if (_keptEdges.Length == 0)
        {
            Settled = true;
            return;
        }
        bool converged = true;
        for (int round = 0; round < MostRounds && !Settled && converged; round++)
        {
            converged = SolveOnce();
            Warm();
            bool pumps = SetPumps(), mixed = SetSplits(), held = SetRegulators();
            Settled = converged && pumps && mixed && held && AllLit();
        }
    }

    private bool SolveOnce()
    {
        var net = _flow.Network;
        var answer = FlowSolver.Solve(net with
        {
            Nodes = [.. _keptNodes.Select(i => net.Nodes[i])],
            Edges = [.. _keptEdges.Select(e => _edges[e])],
            Outlets = [.. _keptOutlets.Select(o => net.Outlets[o])],
        }, _near);
        _near = answer;
        for (int k = 0; k < _keptNodes.Length; k++) _head[_keptNodes[k]] = answer.HeadM[k];
        for (int k = 0; k < _keptEdges.Length; k++) _q[_keptEdges[k]] = answer.FlowM3PerS[k];
        for (int k = 0; k < _keptOutlets.Length; k++) _out[_keptOutlets[k]] = answer.OutletM3PerS[k];
        MassErrorM3PerS = answer.MassErrorM3PerS;
        return answer.Converged;
    }

    // Each node is what flows into it, mixed; a heater gives its own warmth.
    private void Warm()
    {
        var net = _flow.Network;
        List<(int From, int To, double Q)> live = [.. _keptEdges.Where(e => Math.Abs(_q[e]) > LeastM3PerS)
            .Select(e => _q[e] > 0 ? (_ends[e].From, _ends[e].To, _q[e]) : (_ends[e].To, _ends[e].From, -_q[e]))];
        double[] sum = new double[C.Length], heat = new double[C.Length];
        for (int round = 0; round < 400; round++)
        {
            Array.Clear(sum);
            Array.Clear(heat);
            foreach (var (from, to, q) in live)
            {
                sum[to] += q;
                heat[to] += q * C[from];
            }
            double moved = 0;
            foreach (int i in _keptNodes)
            {
                double next = net.Nodes[i].HeadM is not null || sum[i] <= 0 ? _scene.ColdC : heat[i] / sum[i];
                if (sum[i] > 0 && _flow.HeaterAt.ContainsKey(net.Nodes[i].Id) && !_unlit.Contains(i)) next = Math.Max(next, _scene.HotC);
                moved = Math.Max(moved, Math.Abs(next - C[i]));
                C[i] = next;
            }
            if (moved < 1e-3) return;
        }
    }

    // A heater is taken to be lit until all else has settled and too little flows for it.
    private bool AllLit()
    {
        int before = _unlit.Count;
        foreach (var (node, heater) in _flow.HeaterAt)
        {
            if (heater.Flows().LightsLPerMin is { } lights && ThroughLPerMin(node) < lights) _unlit.Add(_node[node]);
        }
        return _unlit.Count == before;
    }

    private double ThroughLPerMin(string node) =>
        60e3 * _keptEdges.Where(e => _ends[e].To == _node[node] || _ends[e].From == _node[node]).Select(e => Math.Abs(_q[e])).DefaultIfEmpty(0).Max();

    // A switch stops its pump where it would press past its limit: then the pressure lies between both of its settings, half-way in the mean.
    private bool SetPumps()
    {
        bool rest = true;
        foreach (var drive in _flow.Drives)
        {
            var part = _flow.PartOf(drive.PartId);
            var figures = part.Flows();
            if (figures.CutOutBar is not { } cutOut || _edges[drive.Edge] is not FlowPump pump) continue;
            double outM = _flow.HeightM(part, "out"), bar = (_head[_node[drive.PartId]] - outM) / _flow.HeadPerBar;
            if (!Pulsing.Contains(drive.PartId) && bar <= cutOut) continue;
            Pulsing.Add(drive.PartId);
            double mean = (cutOut + Math.Min(cutOut, figures.CutInBar ?? cutOut)) / 2;
            double rise = Math.Max(0, outM + mean * _flow.HeadPerBar - _head[_ends[drive.Edge].From]);
            rest &= Math.Abs(rise - pump.ShutoffHeadM) < NearM;
            _edges[drive.Edge] = pump with { ShutoffHeadM = rise, CurveS2PerM5 = 1e-6 };
        }
        return rest;
    }

    // A lever opens one side as it shuts the other.
    private bool SetSplits()
    {
        bool rest = true;
        foreach (var split in _flow.Splits)
        {
            double cold = Math.Max(0, _q[split.ColdEdge]), hot = Math.Max(0, _q[split.HotEdge]);
            bool known = _knobs.TryGetValue(split.PartId, out var knob);
            if (!known) _knobs[split.PartId] = knob = new Knob();
            if (knob!.Done) continue;
            if (known && cold + hot < LeastM3PerS) continue;
            // Where no hot water comes yet, it will be as warm as its heater.
            double coldC = C[_ends[split.ColdEdge].From], hotC = hot < LeastM3PerS ? _scene.HotC : C[_ends[split.HotEdge].From];
            double wish = hotC - coldC < 1 ? 1 : Math.Clamp((split.ToC - coldC) / (hotC - coldC), 0, 1);
            double share = Math.Clamp(hot / Math.Max(cold + hot, LeastM3PerS), 1e-6, 1 - 1e-6), want = Math.Clamp(wish, 1e-6, 1 - 1e-6);
            double off = Math.Log(want / (1 - want)) - Math.Log(share / (1 - share));
            // All of one side: the other is shut. What one side does not give, the other does.
            double? all = wish is 0 or 1 ? wish : hot < LeastM3PerS && knob.At >= Knob.Enough ? 0 : cold < LeastM3PerS && knob.At <= -Knob.Enough ? 1 : null;
            if (all is { } one)
            {
                rest &= ((FlowValve)_edges[split.HotEdge]).Opening == one && ((FlowValve)_edges[split.ColdEdge]).Opening == 1 - one;
                Lever(split, one);
                knob.Done = wish is not (0 or 1);
                continue;
            }
            if (known && Math.Abs(wish - share) * (hotC - coldC) < NearK) continue;
            rest = false;
            Lever(split, 1 / (1 + Math.Exp(-(known ? knob.Turn(off, -Knob.Most, Knob.Most) : knob.Begin(Math.Log(want / (1 - want)))))));
        }
        return rest;
    }

    private void Lever(FlowSplit split, double hot)
    {
        Open(split.HotEdge, hot);
        Open(split.ColdEdge, 1 - hot);
    }

    private bool SetRegulators()
    {
        // One at a time: in line, each moves what the other sees.
        foreach (var (edge, holds) in _flow.Regulators)
        {
            var part = _flow.PartOf(_flow.Pieces[edge].PartId!);
            if (Math.Abs(_q[edge]) < LeastM3PerS) continue;
            double over = BarAt(part, "out") - holds;
            if (!_knobs.TryGetValue(part.Id, out var knob)) _knobs[part.Id] = knob = new Knob();
            if (Math.Abs(over) < NearBar || (over < 0 && knob.At <= 0)) continue;
            Open(edge, Math.Exp(-knob.Turn(over, 0, 9)));
            return false;
        }
        return true;
    }

    private void Open(int edge, double opening) => _edges[edge] = (FlowValve)_edges[edge] with { Opening = opening };
}
