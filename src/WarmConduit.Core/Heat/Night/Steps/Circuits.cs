namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>
/// All circuits over the step at hand. What they touch is part of the zones' equations: the air of zones at the end of the step, and the mean of each body that
/// a circuit touches, so that the fluid, which holds no heat, gives nowhere what it did not take.
/// </summary>
internal sealed class Circuits
{
    private readonly NightLayout _layout;
    private readonly StepAir _air;
    private readonly BodyState _state;
    private readonly HeatLedger _ledger;
    private readonly CircuitHeat[] _circuit;
    private readonly double[][] _touchedC, _givenWh;
    private readonly double[][][] _whByHour;
    private readonly double[] _ice, _iceBefore;

    // How much a watt over the step moves the mean of each, K/W.
    private readonly double[] _zoneAnswer, _bodyAnswer;

    // By body that is touched, the heaviest thing that its circuit touches: what the body did not take as it was solved for goes there, and moves it least.
    private readonly (char Kind, int Index)[] _heaviest;

    // By body that is touched: what its circuits take a kelvin of it for, W/K, and bring besides, W.
    private readonly double[] _ownWPerK, _broughtW;

    /// <summary>The mean of each touched body over the step, as it is solved for.</summary>
    public readonly double[] BodyMeanC;

    public Circuits(NightLayout layout, StepAir air, BodyState state, HeatLedger ledger)
    {
        (_layout, _air, _state, _ledger) = (layout, air, state, ledger);
        _circuit = [.. layout.Circuits.Select(c => new CircuitHeat(c))];
        _touchedC = [.. layout.Circuits.Select(c => new double[c.Targets.Length])];
        int hours = (int)Math.Ceiling(layout.Network.EndS / 3600);
        _givenWh = [.. layout.Circuits.Select(c => new double[c.Reach.Length])];
        _whByHour = [.. layout.Circuits.Select(c => c.Reach.Select(_ => new double[hours]).ToArray())];
        int bodies = layout.Touched.Length;
        (_ice, _iceBefore, _ownWPerK, _broughtW, BodyMeanC) =
            (new double[bodies], new double[bodies], new double[bodies], new double[bodies], new double[bodies]);
        (_zoneAnswer, _bodyAnswer) = (new double[layout.ZoneCount], new double[bodies]);
        double Capacity((char Kind, int Index) t) =>
            t.Kind switch { 'z' => layout.Network.Zones[t.Index].HeatCapacityJPerK, 'w' => state.Wet[t.Index], _ => 0 };
        _heaviest = [.. layout.Touched.Select(b => layout.Circuits.First(c => c.Targets.Contains(('w', b))).Targets.MaxBy(Capacity))];
        for (int l = 0; l < bodies; l++) (_ice[l], BodyMeanC[l]) = (_iceBefore[l] = state.Ice(layout.Touched[l]), state.C[layout.Touched[l]]);
    }

    public bool Any => _circuit.Length > 0;

    /// <summary>What a body's circuits take a kelvin of it for, W/K.</summary>
    public double OwnWPerK(int touched) => _ownWPerK[touched];

    /// <summary>What they bring it besides, W.</summary>
    public double BroughtW(int touched) => _broughtW[touched];

    /// <summary>What a kelvin of a zone moves into circuits, W/K.</summary>
    public double ConductanceOf(int z)
    {
        double g = 0;
        foreach (var circuit in _circuit)
            for (int t = 0; t < circuit.Plain.Length; t++)
                if (circuit.Layout.Targets[t] == ('z', z)) g -= circuit.PerK[t, t];
        return g;
    }

    /// <summary>Takes pumps, heaters and ice for a step, and everything touched as the last step foretells it.</summary>
    public void Prepare(in NightStep step)
    {
        if (!Any) return;
        for (int l = 0; l < _ice.Length; l++)
        {
            double ice = _state.Ice(_layout.Touched[l]), ahead = Math.Clamp(ice + (ice - _iceBefore[l]) * step.Ahead, 0, 1);
            // From one phase into another nothing is foretold.
            _ice[l] = ice is > 0 and < 1 ? ahead : ice;
        }
        for (int c = 0; c < _circuit.Length; c++)
        {
            var targets = _circuit[c].Layout.Targets;
            for (int t = 0; t < targets.Length; t++)
                _touchedC[c][t] = targets[t].Kind switch
                {
                    'z' => _air.AheadC(targets[t].Index, step.Ahead),
                    'w' => BodyAheadC(targets[t].Index, step.Ahead),
                    _ => _air.MeanC(-1 - targets[t].Index),
                };
            _circuit[c].Start(step.AtS);
        }
        Build();
    }

    /// <summary>Adds what passes between zones and bodies to the equations: of zones and, a share of it (<paramref name="bodyShare"/>), of bodies.</summary>
    public void AddTo(ZoneEquations equations, Func<int, double> bodyShare)
    {
        foreach (var circuit in _circuit)
        {
            if (!circuit.Runs) continue;
            var targets = circuit.Layout.Targets;
            for (int t = 0; t < targets.Length; t++)
            {
                if (targets[t].Kind == 'b') continue;
                bool body = targets[t].Kind == 'w';
                int row = body ? _layout.ZoneCount + _layout.TouchedAt[targets[t].Index] : targets[t].Index;
                double share = body ? bodyShare(targets[t].Index) : 1;
                if (share == 0) continue;
                equations.Side[row] += share * circuit.Plain[t];
                for (int u = 0; u < targets.Length; u++)
                {
                    // A body's own part is one of its contacts.
                    double g = body && t == u ? 0 : share * circuit.PerK[t, u];
                    if (g == 0) continue;
                    if (targets[u].Kind == 'z')
                    {
                        equations.Matrix[row, targets[u].Index] -= g / 2;
                        equations.Side[row] += g / 2 * _air.ZoneStartC[targets[u].Index];
                    }
                    else if (targets[u].Kind == 'w') equations.Matrix[row, _layout.ZoneCount + _layout.TouchedAt[targets[u].Index]] -= g;
                    else equations.Side[row] += g * _air.MeanC(-1 - targets[u].Index);
                }
            }
        }
    }

    /// <summary>Notes how zones and bodies answer, before the equations are solved.</summary>
    public void Note(ZoneEquations equations, Func<int, double> bodyShare)
    {
        int zones = _zoneAnswer.Length;
        for (int z = 0; z < zones; z++) _zoneAnswer[z] = 0.5 / equations.Matrix[z, z];
        for (int l = 0; l < _bodyAnswer.Length; l++) _bodyAnswer[l] = bodyShare(_layout.Touched[l]) / equations.Matrix[zones + l, zones + l];
    }

    /// <summary>Takes the solved step: fluid, and what bodies are brought.</summary>
    public void Take()
    {
        Array.Clear(_broughtW);
        for (int c = 0; c < _circuit.Length; c++)
        {
            var (circuit, touched) = (_circuit[c], _touchedC[c]);
            var targets = circuit.Layout.Targets;
            for (int t = 0; t < targets.Length; t++)
                touched[t] = targets[t].Kind switch
                {
                    'z' => _air.MeanC(targets[t].Index),
                    'w' => BodyMeanC[_layout.TouchedAt[targets[t].Index]],
                    _ => touched[t],
                };
            circuit.Take(touched);
            if (!circuit.Runs) continue;
            for (int t = 0; t < targets.Length; t++)
            {
                if (targets[t].Kind != 'w') continue;
                double watt = circuit.Plain[t];
                for (int u = 0; u < targets.Length; u++)
                    if (u != t) watt += circuit.PerK[t, u] * touched[u];
                _broughtW[_layout.TouchedAt[targets[t].Index]] += watt;
            }
        }
    }

    /// <summary>Sets heaters, fans and thermostats to what the solved step asks for; whether one changed.</summary>
    public bool Mend(in NightStep step, int attempt)
    {
        bool changed = false;
        Span<double> slopes = stackalloc double[64];
        for (int c = 0; c < _circuit.Length; c++)
        {
            var targets = _circuit[c].Layout.Targets;
            var own = targets.Length <= slopes.Length ? slopes[..targets.Length] : new double[targets.Length];
            for (int t = 0; t < targets.Length; t++) own[t] = SlopeOn(targets[t]);
            changed |= _circuit[c].Mend(step.AtS, _touchedC[c], own, attempt > 4);
        }
        if (changed) Build();
        return changed;
    }

    // Of all circuits' thermostats on one thing.
    private double SlopeOn((char Kind, int Index) target)
    {
        double slope = 0, answer = target.Kind switch
        {
            'z' => _zoneAnswer[target.Index],
            'w' => _bodyAnswer[_layout.TouchedAt[target.Index]],
            _ => 0,
        };
        for (int c = 0; c < _circuit.Length; c++)
            if (Array.IndexOf(_circuit[c].Layout.Targets, target) is >= 0 and int t) _circuit[c].AddSlopes(t, answer, _touchedC[c], ref slope);
        return slope;
    }

    /// <summary>Books a step; what bodies that came elsewhere than was solved for did not take is handed on.</summary>
    public void Account(in NightStep step, ReadOnlySpan<double> meanC, double[] handOnJ, Zones zones)
    {
        for (int l = 0; l < _ownWPerK.Length; l++)
        {
            int b = _layout.Touched[l];
            double joule = _ownWPerK[l] * step.LengthS * (meanC[b] - BodyMeanC[l]);
            if (_heaviest[l].Kind == 'z') zones.HandOn(_heaviest[l].Index, joule);
            else handOnJ[_heaviest[l].Index] += joule;
            _iceBefore[l] = _state.IceAtStart(b);
        }
        for (int c = 0; c < _circuit.Length; c++)
        {
            var (circuit, net) = (_circuit[c], _circuit[c].Layout);
            if (!circuit.Runs) continue;
            int hour = Math.Min((int)((step.AtS + step.LengthS / 2) / 3600), (int)Math.Ceiling(_layout.Network.EndS / 3600) - 1);
            for (int r = 0; r < net.Reach.Length; r++)
            {
                double watt = circuit.HeatW(r);
                _whByHour[c][r][hour] += watt * step.LengthS / 3600;
                if (net.Circuit.Reaches[net.Reach[r]].Heater is not null)
                {
                    _ledger.Heater(-watt * step.LengthS);
                    _givenWh[c][r] -= watt * step.LengthS / 3600;
                }
                else if (net.Column[r] is >= 0 and int t && net.Targets[t].Kind == 'b') _ledger.Boundary(-watt * step.LengthS);
            }
        }
    }

    /// <summary>A circuit with everything as it is now. A report changes nothing of the night.</summary>
    public NightCircuitRow Row(int c, double atS)
    {
        var (circuit, net) = (_circuit[c], _circuit[c].Layout);
        int all = net.Circuit.Reaches.Count;
        var row = new NightCircuitRow(new double[all], new double[all], new double[all], new double[all]);
        Array.Fill(row.InC, double.NaN);
        Array.Fill(row.OutC, double.NaN);
        for (int r = 0; r < net.Reach.Length; r++) row.GivenWh[net.Reach[r]] = _givenWh[c][r];
        var back = circuit.Remember();
        circuit.Start(atS);
        if (circuit.Runs) Fill(row, circuit, atS);
        back();
        return row;
    }

    private void Fill(NightCircuitRow row, CircuitHeat circuit, double atS)
    {
        var net = circuit.Layout;
        double[] now =
            [.. net.Targets.Select(t => t.Kind switch { 'z' => _air.ZoneStartC[t.Index], 'w' => _state.C[t.Index], _ => _air.NowC(-1 - t.Index, atS) })];
        var still = new double[now.Length];
        for (int attempt = 0; attempt < 20; attempt++)
        {
            circuit.Build(now, (t, g) => ThroughIce(net.Targets[t], g, now: true));
            circuit.Take(now);
            if (!circuit.Mend(atS, now, still, attempt > 4)) break;
        }
        for (int r = 0; r < net.Reach.Length; r++)
            (row.InC[net.Reach[r]], row.OutC[net.Reach[r]], row.HeatW[net.Reach[r]]) = (circuit.InC[r], circuit.OutC[r], circuit.HeatW(r));
    }

    /// <summary>By circuit, heat that each of its reaches gave off, Wh by hour.</summary>
    public IReadOnlyList<double[]> HeatWhByHour(int c)
    {
        var net = _circuit[c].Layout;
        var all = net.Circuit.Reaches.Select(_ => new double[_whByHour[c].Length > 0 ? _whByHour[c][0].Length : 0]).ToArray();
        for (int r = 0; r < net.Reach.Length; r++) all[net.Reach[r]] = _whByHour[c][r];
        return all;
    }

    private void Build()
    {
        Array.Clear(_ownWPerK);
        for (int c = 0; c < _circuit.Length; c++)
        {
            var (circuit, targets) = (_circuit[c], _circuit[c].Layout.Targets);
            circuit.Build(_touchedC[c], (t, g) => ThroughIce(targets[t], g, now: false));
            for (int t = 0; t < targets.Length; t++)
                if (targets[t].Kind == 'w') _ownWPerK[_layout.TouchedAt[targets[t].Index]] -= circuit.PerK[t, t];
        }
    }

    private double ThroughIce((char Kind, int Index) target, double g, bool now)
    {
        if (target.Kind != 'w') return g;
        double ice = now ? _state.Ice(target.Index) : _ice[_layout.TouchedAt[target.Index]];
        return ice < 1 ? _state.ThroughIce(target.Index, g, ice) : g;
    }

    private double BodyAheadC(int b, double ahead)
    {
        double c = _state.C[b] + (_state.C[b] - _state.BeforeC[b]) * ahead;
        return _state.Phase(b) switch { 0 => 0, > 0 => Math.Max(0, c), _ => Math.Min(0, c) };
    }
}
