namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>
/// What acts on a body besides zones and boundaries, over the step at hand: its heaters (one more contact in their band, plain watts when full), its
/// neighbours, and what it was handed on. Heaters of bodies stand still for a step.
/// </summary>
internal sealed class BodyExtras
{
    private readonly NightLayout _layout;
    private readonly BodyState _state;
    private readonly HeaterBank _bank;
    private readonly Circuits _circuits;
    private readonly StepAir _air;
    private readonly double[] _handedOnJ, _g, _atC, _watt;
    private readonly bool[] _any;

    // What each of two neighbours was taken to be at on average.
    private readonly (double A, double B)[] _foreseen;

    /// <summary>Those that touch another body.</summary>
    public readonly bool[] Joined;

    public BodyExtras(NightLayout layout, BodyState state, StepAir air, HeaterBank bank, Circuits circuits)
    {
        (_layout, _state, _air, _bank, _circuits) = (layout, state, air, bank, circuits);
        int n = layout.BodyCount;
        (_handedOnJ, _g, _atC, _watt) = (new double[n], new double[n], new double[n], new double[n]);
        (_any, Joined) = (new bool[n], new bool[n]);
        _foreseen = new (double, double)[layout.Neighbours.Length];
        for (int b = 0; b < n; b++) _any[b] = layout.BodyHeaterStart[b + 1] > layout.BodyHeaterStart[b];
        foreach (var (a, b, _) in layout.Neighbours) _any[a] = _any[b] = Joined[a] = Joined[b] = true;
        foreach (int b in layout.Touched) _any[b] = Joined[b] = true;
    }

    /// <summary>Whether there is anything of the kind.</summary>
    public bool Any(int b) => _any[b];

    /// <summary>More conductance, to what its heaters hold and to its circuits, W/K.</summary>
    public double WPerK(int b) => !_any[b] ? 0 : _layout.TouchedAt[b] is >= 0 and int l ? _g[b] + _circuits.OwnWPerK(l) : _g[b];

    /// <summary>Watts into it were it at 0 °C.</summary>
    public double Watt(int b) => !_any[b] ? 0 : OwnWatt(b) + (_layout.TouchedAt[b] is >= 0 and int l ? _circuits.BroughtW(l) : 0);

    /// <summary>The same without what circuits bring.</summary>
    public double OwnWatt(int b) => _any[b] ? _watt[b] + _g[b] * _atC[b] : 0;

    /// <summary>Watts that do not depend on its temperature.</summary>
    public double PlainWatt(int b) => _watt[b];

    public double HandedOnJ(int b) => _handedOnJ[b];

    public void Prepare(in NightStep step)
    {
        for (int b = 0; b < _any.Length; b++)
        {
            if (!_any[b]) continue;
            (_g[b], _atC[b], _watt[b]) = (0, 0, _handedOnJ[b] / step.LengthS);
            // Just ahead, so that a heater at the edge of its band is taken for what it is about to be.
            double c = _state.C[b];
            SetHeaters(b, step, step.PreviousS > 0 ? c + (c - _state.BeforeC[b]) / step.PreviousS * Math.Min(step.LengthS / 2, Zones.ShortestStepS) : c);
        }
        // Each of two sees the other's mean as it can be foreseen.
        for (int n = 0; n < _foreseen.Length; n++)
        {
            var (a, b, g) = _layout.Neighbours[n];
            double ahead = step.Ahead;
            _foreseen[n] = (_state.C[a] + (_state.C[a] - _state.BeforeC[a]) * ahead, _state.C[b] + (_state.C[b] - _state.BeforeC[b]) * ahead);
            _watt[a] += g * _foreseen[n].B;
            _watt[b] += g * _foreseen[n].A;
        }
    }

    /// <summary>Share of the step after which a heater turns, given where its body comes to; 1: not within it.</summary>
    public double HeaterEvent(in NightStep step, BodyHeat bodies)
    {
        double share = 1;
        for (int n = _bank.ZoneHeaters; n < _layout.Heaters.Length; n++)
        {
            int b = _layout.Sensed[n] is (true, var other) ? other : _bank.Owner(n);
            double start, end;
            if (_layout.Sensed[n] is (false, var target)) (start, end) = (_air.StartC(target), _air.EndC(target));
            else (start, end) = (_state.C[b], _state.Phase(b) == 0 ? _state.C[b] : bodies.EndC(b, step.LengthS));
            // Not mended: what goes beyond the edge by a fiftieth of the band counts.
            share = Math.Min(share, _bank.Turns(n, step, start, end, (start + end) / 2, beyond: 0.02 * _bank[n].BandK));
        }
        return share;
    }

    /// <summary>The watts of its heaters over a step in which it was at <paramref name="mean"/> on average.</summary>
    public void SettleHeaters(int b, double mean)
    {
        for (int n = _layout.BodyHeaterStart[b]; n < _layout.BodyHeaterStart[b + 1]; n++) _bank.PowerW[n] = _bank.PowerAtW(n, _bank.State[n], mean);
    }

    /// <summary>What each is handed on with the next step, J: what is written here is kept.</summary>
    public double[] HandOnJ => _handedOnJ;

    /// <summary>What two neighbours together took too much, by having foreseen each other wrongly, each gives back half of with the next step.</summary>
    public void SettleNeighbours(double step, double[] meanC)
    {
        Array.Clear(_handedOnJ);
        for (int n = 0; n < _foreseen.Length; n++)
        {
            var (a, b, g) = _layout.Neighbours[n];
            double surplus = g * step * (_foreseen[n].A + _foreseen[n].B - meanC[a] - meanC[b]);
            _handedOnJ[a] -= surplus / 2;
            _handedOnJ[b] -= surplus / 2;
        }
    }

    private void SetHeaters(int b, in NightStep step, double aheadC)
    {
        for (int n = _layout.BodyHeaterStart[b]; n < _layout.BodyHeaterStart[b + 1]; n++)
        {
            var heater = _bank[n];
            double sensedC = _layout.Sensed[n] switch
            {
                null => aheadC,
                (true, var other) => _state.C[other] + (_state.C[other] - _state.BeforeC[other]) * step.Ahead,
                (false, var target) => _air.AheadC(target, step.Ahead),
            };
            var state = _bank.StateAt(n, step.AtS, sensedC);
            if (state == HeaterState.InBand && _layout.Sensed[n] is not null)
                (_bank.PowerW[n], state) = (_bank.PowerAtW(n, state, sensedC), HeaterState.Set);
            // What it may come to give, with a fifth to spare for a guess that is off.
            double left = _bank.LeftJ(n), most = Math.Min(heater.PowerW, 1.2 * _bank.PowerAtW(n, state, sensedC));
            if (state != HeaterState.Off && left < most * step.LengthS) (state, _bank.PowerW[n]) = (HeaterState.Rest, left / step.LengthS);
            _bank.State[n] = state;
            if (state == HeaterState.Full) _watt[b] += heater.PowerW;
            else if (state is HeaterState.Rest or HeaterState.Set) _watt[b] += _bank.PowerW[n];
            else if (state == HeaterState.InBand)
            {
                double g = HeaterBank.BandWPerK(heater);
                _atC[b] = (_atC[b] * _g[b] + HeaterBank.OffC(heater) * g) / (_g[b] + g);
                _g[b] += g;
            }
        }
    }
}
