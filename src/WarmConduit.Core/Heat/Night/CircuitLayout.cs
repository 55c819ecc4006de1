namespace WarmConduit.Core.Heat.Night;

/// <summary>
/// A <see cref="NightCircuit"/> checked and laid out in arrays, without what carries nothing. Nodes stand in an order in which each comes after all that
/// feed it
/// but for a few, the cuts, at which every way round is opened.
/// </summary>
internal sealed class CircuitLayout
{
    public const int Nothing = int.MinValue;

    public readonly NightCircuit Circuit;

    // Of the reaches that carry something: their number in the circuit, their nodes, what they carry, W/K, and what they touch as in NightLayout.ContactTo, but
    // for bodies, which have a list of their own.
    public readonly int[] Reach, From, To;
    public readonly double[] CarriedWPerK;
    public readonly int[] Column;

    // What the circuit touches, each once: zones, bodies, boundaries.
    public readonly (char Kind, int Index)[] Targets;

    public readonly int NodeCount;
    public readonly int[] Order;
    public readonly int[] CutOf;
    public readonly int[] Cuts;
    public readonly int[][] Into;
    public readonly double[] IntoWPerK;

    /// <summary>Throws <see cref="HeatNetworkException"/> naming the place.</summary>
    public CircuitLayout(NightCircuit circuit, IReadOnlyDictionary<string, (char Kind, int Index)> index)
    {
        Circuit = circuit;
        HeatNumbers.Positive(circuit.Id, "heat capacity of its fluid", circuit.JPerKgK);
        Windows(circuit.Id, circuit.PumpOn);
        var node = new Dictionary<string, int>();
        int Node(string id) => node.TryGetValue(id, out int n) ? n : node[id] = node.Count;
        var (reach, from, to, carried, column) = (new List<int>(), new List<int>(), new List<int>(), new List<double>(), new List<int>());
        var targets = new List<(char Kind, int Index)>();
        for (int r = 0; r < circuit.Reaches.Count; r++)
        {
            var one = circuit.Reaches[r];
            Check(one, index);
            if (one.KgPerS == 0) continue;
            reach.Add(r);
            from.Add(Node(one.From));
            to.Add(Node(one.To));
            carried.Add(one.KgPerS * circuit.JPerKgK);
            if (one.Target is null)
            {
                column.Add(-1);
                continue;
            }
            var target = index[one.Target];
            int known = targets.IndexOf(target);
            if (known < 0)
            {
                known = targets.Count;
                targets.Add(target);
            }
            column.Add(known);
        }
        (Reach, From, To, CarriedWPerK, Column, Targets, NodeCount) = ([.. reach], [.. from], [.. to], [.. carried], [.. column], [.. targets], node.Count);
        Into = [.. Enumerable.Range(0, NodeCount).Select(n => Enumerable.Range(0, To.Length).Where(r => To[r] == n).ToArray())];
        IntoWPerK = [.. Into.Select(i => i.Sum(r => CarriedWPerK[r]))];
        foreach (var (id, n) in node)
        {
            double out_ = Enumerable.Range(0, From.Length).Where(r => From[r] == n).Sum(r => CarriedWPerK[r]);
            if (Math.Abs(out_ - IntoWPerK[n]) > 1e-6 * (out_ + IntoWPerK[n]))
                throw new HeatNetworkException(circuit.Id, $"what comes to '{id}' must leave it");
        }
        (Order, Cuts) = Ordered();
        CutOf = new int[NodeCount];
        Array.Fill(CutOf, -1);
        for (int c = 0; c < Cuts.Length; c++) CutOf[Cuts[c]] = c;
    }

    /// <summary>Whether a window of <paramref name="windows"/>, which are in order and apart, holds <paramref name="atS"/>. O(log windows).</summary>
    public static bool On(IReadOnlyList<NightWindow> windows, double atS)
    {
        // The last that has begun by then.
        int low = 0, high = windows.Count;
        while (low < high)
        {
            int middle = (low + high) / 2;
            if (atS >= windows[middle].FromS - 1e-6) low = middle + 1;
            else high = middle;
        }
        return low > 0 && atS < windows[low - 1].ToS - 1e-6;
    }

    /// <summary>Times at which a pump or a heater goes on or off.</summary>
    public IEnumerable<double> Edges() =>
        Circuit.PumpOn.Concat(Circuit.Reaches.SelectMany(r => r.Heater?.On ?? [])).SelectMany(w => (double[])[w.FromS, w.ToS]);

    private void Check(NightReach reach, IReadOnlyDictionary<string, (char Kind, int Index)> index)
    {
        string place = $"{Circuit.Id}: {reach.Id}";
        HeatNumbers.NotNegative(place, "flow", reach.KgPerS);
        HeatNumbers.NotNegative(place, "conductance", reach.ConductanceWPerK);
        if (reach.Target is { } target && !index.ContainsKey(target)) throw new HeatNetworkException(place, $"it touches an unknown body '{target}'");
        if (reach.Heater is { } heater)
        {
            if (reach.Target is not null || reach.Emission is not null) throw new HeatNetworkException(place, "a heater touches nothing but its fluid");
            HeatNumbers.NotNegative(place, "power of its heater", heater.PowerW);
            HeatNumbers.Temperature(place, heater.LimitC);
            Windows(place, heater.On);
        }
        HeatNumbers.Positive(place, "band", reach.BandK);
        HeatNumbers.Temperature(place, reach.SetpointC ?? 0);
        if (reach.SetpointC is not null && reach.Target is null) throw new HeatNetworkException(place, "a thermostat must sit on what it touches");
        if (reach.Emission is not { } emission) return;
        if (reach.Target is null || index[reach.Target].Kind != 'z') throw new HeatNetworkException(place, "what gives heat to a room must name its zone");
        HeatNumbers.NotNegative(place, "rated output", emission.RatedW);
        HeatNumbers.Positive(place, "rated difference", emission.RatedK);
        if (!(emission.StillShare is >= 0 and <= 1)) throw new HeatNetworkException(place, "its share without a fan must be from 0 to 1");
    }

    private static void Windows(string place, IReadOnlyList<NightWindow> windows)
    {
        foreach (var window in windows)
            if (double.IsNaN(window.FromS) || double.IsNaN(window.ToS)) throw new HeatNetworkException(place, "its times must be numbers");
        for (int w = 1; w < windows.Count; w++)
            if (windows[w].FromS < windows[w - 1].ToS) throw new HeatNetworkException(place, "its times must be in order and apart");
    }

    // Nodes that all have been fed come next; where every one waits for another, the one with the most before it done is cut open.
    private (int[] Order, int[] Cuts) Ordered()
    {
        var (order, cuts, done) = (new List<int>(), new List<int>(), new bool[NodeCount]);
        var waits = new int[NodeCount];
        for (int r = 0; r < To.Length; r++) waits[To[r]]++;
        void Take(int n)
        {
            done[n] = true;
            order.Add(n);
            for (int r = 0; r < From.Length; r++)
                if (From[r] == n) waits[To[r]]--;
        }
        while (order.Count < NodeCount)
        {
            int next = Array.FindIndex(waits, 0, NodeCount, w => w == 0);
            while (next >= 0 && done[next]) next = next + 1 < NodeCount ? Array.FindIndex(waits, next + 1, w => w == 0) : -1;
            if (next < 0)
            {
                next = Enumerable.Range(0, NodeCount).Where(n => !done[n]).MaxBy(n => IntoWPerK[n])!;
                cuts.Add(next);
            }
            Take(next);
        }
        return ([.. order], [.. cuts]);
    }
}
