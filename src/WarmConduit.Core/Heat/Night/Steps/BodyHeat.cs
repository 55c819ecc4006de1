namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>Bodies through a step: what they tell the zones before it is solved, and where they come to once it is.</summary>
internal sealed partial class BodyHeat
{
    private readonly NightLayout _layout;
    private readonly BodyContacts _contacts;
    private readonly BodyExtras _extras;
    private readonly BodyFollower _follower;
    private readonly BodyState _state;
    private readonly HeatLedger _ledger;
    private readonly StepAir _air;

    // What a body's surroundings come to at the start, and at the end but for the zones.
    private readonly double[] _startC, _fixedEndC;

    // The answer of a body over the step at hand, and the x it was worked out for.
    private readonly BodyStep[] _answer;
    private readonly double[] _answerX;

    // Conductance of each contact through the ice in the middle of the step; how fast ice is drawn to a balance, 1/s; and the mean of each body over the step.
    private readonly double[] _iceG, _stiff, _meanC;

    public BodyHeat(NightLayout layout, StepAir air, Zones zones, BodyState state, BodyExtras extras, BodyContacts contacts, HeatLedger ledger)
    {
        (_layout, _air, _state, _extras, _contacts, _ledger) = (layout, air, state, extras, contacts, ledger);
        _follower = new BodyFollower(air, zones, state, extras, contacts, ledger);
        int n = layout.BodyCount;
        (_startC, _fixedEndC, _answer, _answerX) = (new double[n], new double[n], new BodyStep[n], new double[n]);
        (_stiff, _meanC, _iceG) = (new double[n], new double[n], new double[layout.ContactG.Length]);
        Array.Fill(_answerX, double.NaN);
    }

    /// <summary>Heat in the bodies, and on its way there, J.</summary>
    public double StoredJ()
    {
        double sum = 0;
        for (int b = 0; b < _meanC.Length; b++) sum += _state.H[b] + _extras.HandedOnJ(b);
        return sum;
    }

    /// <summary>Mean of each body over the step that was gone.</summary>
    public ReadOnlySpan<double> MeansC => _meanC;

    /// <summary>Folds all bodies into the zones' equations, but for those that circuits touch.</summary>
    public void AddTo(ZoneEquations equations, double step)
    {
        for (int b = 0; b < _meanC.Length; b++)
        {
            if (_layout.TouchedAt[b] >= 0) continue;
            int phase = _state.Phase(b);
            if (_contacts.OnlyZone(b) is >= 0 and int zone) AddSimple(equations, b, phase, zone, step);
            else if (phase == 0) AddIce(equations, b, step);
            else AddPlain(equations, b, phase, step);
        }
    }

    /// <summary>Takes all bodies to the end of the step, with the zones' air known.</summary>
    public void Advance(in NightStep step)
    {
        _state.Remember();
        for (int b = 0; b < _meanC.Length; b++)
        {
            bool done = _contacts.OnlyZone(b) is >= 0 and int zone ? AdvanceSimple(b, zone, step) : AdvancePlain(b, step);
            if (!done) Follow(b, step);
        }
        _extras.SettleNeighbours(step.LengthS, _meanC);
    }

    /// <summary>Heat into a body in which ice grows, over a step, J.</summary>
    public double IntoIceJ(int b, double step)
    {
        double watt = _extras.Watt(b);
        for (int c = _contacts.First(b); c < _contacts.End(b); c++) watt += _iceG[c] * _air.MeanC(_contacts.To(c));
        return watt * step;
    }

    /// <summary>Where a body that is all water or all ice comes to, if it stays so.</summary>
    public double EndC(int b, double step)
    {
        if (_contacts.OnlyZone(b) is >= 0 and int zone) return SimpleEndC(b, zone);
        ref readonly var s = ref _answer[b];
        double end = s.E * _state.C[b] + s.Start * _startC[b] + s.End * SurroundingsEndC(b);
        return _extras.Any(b) && AllWPerK(b) == 0 ? end + _extras.PlainWatt(b) * step / _state.CapacityJPerK(b, _state.Phase(b)) : end;
    }

    private void AddSimple(ZoneEquations equations, int b, int phase, int zone, double step)
    {
        double g = _contacts.SumWPerK(b), t = _air.ZoneStartC[zone];
        if (phase == 0)
        {
            int c = _contacts.First(b);
            double ice = _state.Ice(b), before = _iceG[c] > 0 ? _iceG[c] : _state.ThroughIce(b, g, ice);
            _stiff[b] = t < 0 ? _state.IceSlope(b, ice) * before * before * -t : 0;
            double half = 0.5 * (_iceG[c] = _state.ThroughIce(b, g, Math.Clamp(ice - before * t * _state.PerLatent[b] * HalfStep(b, step), 0, 1)));
            equations.Matrix[zone, zone] += half;
            equations.Side[zone] -= half * t;
            return;
        }
        ref readonly var s = ref Answer(b, g, phase, step);
        equations.Matrix[zone, zone] += g * (0.5 - s.MeanEnd);
        equations.Side[zone] += g * (s.Phi * _state.C[b] + (s.MeanStart - 0.5) * t);
    }

    private void AddIce(ZoneEquations equations, int b, double step)
    {
        // Ice in the middle of the step, by half an explicit step: enough for second order.
        double ice = _state.Ice(b), watt = _contacts.IntoIceW(b, 0, ice, _extras.Watt(b), out _stiff[b]);
        double middle = Math.Clamp(ice - watt * _state.PerLatent[b] * HalfStep(b, step), 0, 1);
        for (int c = _contacts.First(b); c < _contacts.End(b); c++)
        {
            double g = _iceG[c] = _state.ThroughIce(b, _contacts.WPerK(c), middle);
            int z = _contacts.To(c);
            if (z < 0) continue;
            equations.Matrix[z, z] += g / 2;
            equations.Side[z] -= g / 2 * _air.ZoneStartC[z];
        }
    }

    private void AddPlain(ZoneEquations equations, int b, int phase, double step)
    {
        int first = _contacts.First(b), end = _contacts.End(b);
        double all = AllWPerK(b);
        ref readonly var s = ref Answer(b, all, phase, step);
        if (all == 0)
        {
            (_startC[b], _fixedEndC[b]) = (0, 0);
            return;
        }
        Surround(b, all, _extras.Watt(b));
        double known = s.Phi * _state.C[b] + s.MeanStart * _startC[b] + s.MeanEnd * _fixedEndC[b];
        for (int c = first; c < end; c++)
        {
            int z = _contacts.To(c);
            if (z < 0) continue;
            double g = _contacts.WPerK(c);
            equations.Side[z] += g * (known - _air.ZoneStartC[z] / 2);
            equations.Matrix[z, z] += g / 2;
            for (int d = first; d < end; d++)
                if (_contacts.To(d) is >= 0 and int j) equations.Matrix[z, j] -= g * s.MeanEnd * _contacts.WPerK(d) / all;
        }
    }

    // What it would come to by what it touches, at the start and, but for the zones, at the end.
    private void Surround(int b, double all, double watt)
    {
        double start = watt / all, fixedEnd = start;
        for (int c = _contacts.First(b); c < _contacts.End(b); c++)
        {
            int to = _contacts.To(c);
            double w = _contacts.WPerK(c) / all;
            start += w * _air.StartC(to);
            if (to < 0) fixedEnd += w * _air.BoundaryEndC(to);
        }
        (_startC[b], _fixedEndC[b]) = (start, fixedEnd);
    }

    private ref readonly BodyStep Answer(int b, double g, int phase, double step)
    {
        double x = g * step / _state.CapacityJPerK(b, phase);
        if (_answerX[b] != x) (_answer[b], _answerX[b]) = (BodyStep.Of(x), x);
        return ref _answer[b];
    }

    // Half a step, in effect: ice that is nearly all there grows towards a balance, and would be carried beyond it.
    private double HalfStep(int b, double step)
    {
        double x = _stiff[b] * step / 2;
        return x > 1e-3 ? (1 - Math.Exp(-x)) / _stiff[b] : step / 2;
    }

    // Both are false when the body changes state within the step, or its ice grows so fast in it that it has to be followed.
    private bool AdvanceSimple(int b, int zone, in NightStep step)
    {
        int phase = _state.Phase(b);
        double before = _state.H[b], after, celsius = 0;
        if (phase == 0)
        {
            double heat = _iceG[_contacts.First(b)] * (_air.ZoneStartC[zone] + _air.ZoneEndC[zone]) / 2 * step.LengthS;
            after = before + heat;
            if (IceIsToBeFollowed(b, after, heat, step.LengthS)) return false;
        }
        else
        {
            celsius = SimpleEndC(b, zone);
            if (phase > 0 ? celsius <= 0 : celsius >= 0) return false;
            after = _state.EnthalpyAt(b, phase, celsius);
        }
        (_state.H[b], _state.C[b]) = (after, celsius);
        _state.Mark(b, step.AtS, step.LengthS, before);
        return true;
    }

    private bool AdvancePlain(int b, in NightStep step)
    {
        int phase = _state.Phase(b);
        double before = _state.H[b], after, mean = 0;
        if (phase == 0)
        {
            double heat = IntoIceJ(b, step.LengthS);
            after = before + heat;
            if (IceIsToBeFollowed(b, after, heat, step.LengthS)) return false;
        }
        else
        {
            double end = EndC(b, step.LengthS);
            mean = MeanC(b);
            if (phase > 0 ? end <= 0 : end >= 0) return false;
            after = _state.EnthalpyAt(b, phase, end);
        }
        _state.H[b] = after;
        if (_contacts.TouchesBoundary(b)) AccountBoundaries(b, phase == 0, mean, step.LengthS);
        Settle(b, mean);
        _state.Mark(b, step.AtS, step.LengthS, before);
        _state.C[b] = _state.CelsiusAt(b, after);
        return true;
    }

    private bool IceIsToBeFollowed(int b, double after, double heat, double step) =>
        after > 0 || after < -_state.Latent[b]
        || (_state.GrowsFromWall(b) && (Math.Abs(heat) > 0.05 * _state.Latent[b] || _stiff[b] * step > BodyFollower.MostStiff));

    private void AccountBoundaries(int b, bool ice, double mean, double step)
    {
        for (int c = _contacts.First(b); c < _contacts.End(b); c++)
            if (_contacts.To(c) is < 0 and int to) _ledger.Boundary((ice ? _iceG[c] : _contacts.WPerK(c)) * (_air.MeanC(to) - mean) * step);
    }

    private void Follow(int b, in NightStep step)
    {
        bool ice = _state.Phase(b) == 0;
        int alone = _contacts.OnlyZone(b), first = _contacts.First(b);
        if (alone >= 0 && !ice) (_startC[b], _fixedEndC[b]) = (_air.ZoneStartC[alone], 0);
        ReadOnlySpan<double> toldG = ice ? _iceG.AsSpan(first, _contacts.End(b) - first) : [];
        Settle(b, _follower.Follow(b, step, toldG, ice ? 0 : MeanC(b)));
        if (alone >= 0) _iceG[first] = 0;
    }

    private void Settle(int b, double mean)
    {
        _meanC[b] = mean;
        _extras.SettleHeaters(b, mean);
    }

    private double SimpleEndC(int b, int zone)
    {
        ref readonly var s = ref _answer[b];
        return s.E * _state.C[b] + s.Start * _air.ZoneStartC[zone] + s.End * _air.ZoneEndC[zone];
    }

    // Its mean on the way to where it comes to.
    private double MeanC(int b)
    {
        ref readonly var s = ref _answer[b];
        return s.Phi * _state.C[b] + s.MeanStart * _startC[b] + s.MeanEnd * SurroundingsEndC(b);
    }

    private double SurroundingsEndC(int b)
    {
        double c = _fixedEndC[b], all = AllWPerK(b);
        for (int i = _contacts.First(b); i < _contacts.End(b); i++)
            if (_contacts.To(i) is >= 0 and int z) c += _contacts.WPerK(i) / all * _air.ZoneEndC[z];
        return c;
    }

    private double AllWPerK(int b) => _contacts.SumWPerK(b) + _extras.WPerK(b);
}
