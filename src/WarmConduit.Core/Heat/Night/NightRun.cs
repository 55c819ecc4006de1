namespace WarmConduit.Core.Heat.Night;

/// <summary>One run: the state and its stepping.</summary>
internal sealed class NightRun
{
    private const int Outdoors = 0;

    private readonly NightLayout _l;
    private readonly NightOptions _options;
    private readonly NightConstants _k;
    private readonly int _nz, _nb;

    // Zones.
    private readonly double[] _zoneC, _zone1, _capacity, _outdoorFactor, _linkFactor, _zoneCarryJ;
    private readonly double[,] _matrix;
    private readonly double[] _rhs;

    // Bodies.
    private readonly double[] _h, _t, _tBefore, _water, _wet, _frozen, _latent, _gSum, _carryJ, _extraG, _extraT, _extraW;
    private readonly double[] _te0, _teFixed1;
    private readonly BodyStep[] _liquid, _solid, _used;
    private readonly double[] _iceG;
    private readonly bool[] _special;
    private readonly double[] _mean;

    // 1/(4π k length) of bodies in which ice grows from the wall, 0 of others.
    private readonly double[] _annulus;
    private readonly double[] _outdoorG, _windG;

    // The zone of bodies that touch one zone and nothing else, -1 of others; and whether a body touches a boundary.
    private readonly int[] _onlyZone;
    private readonly bool[] _touchesBoundary;
    private readonly (double A, double B)[] _foreseen;
    private readonly double _maxStepS;

    // Boundaries at the two ends of the step.
    private readonly double[] _b0, _b1;
    private readonly int[] _knot;
    private int _windKnot;

    // Heaters.
    private readonly double[] _givenJ, _powerW;
    private readonly int[] _state;
    private readonly double[][] _wh;

    private readonly BodyMilestones[] _marks;
    private double _heatersJ, _boundaryJ, _turnoverJ;
    private double _stepS = double.NaN, _previousStepS;
    private int _event;

    public NightRun(NightLayout layout, NightOptions options)
    {
        (_l, _options, _k) = (layout, options, layout.Network.Constants);
        (_nz, _nb) = (layout.ZoneCount, layout.BodyCount);
        (_zoneC, _zone1, _capacity) = (new double[_nz], new double[_nz], new double[_nz]);
        (_outdoorFactor, _linkFactor, _zoneCarryJ) = (new double[_nz], new double[layout.Links.Length], new double[_nz]);
        (_matrix, _rhs) = (new double[_nz, _nz], new double[_nz]);
        (_h, _t, _tBefore, _water) = (new double[_nb], new double[_nb], new double[_nb], new double[_nb]);
        (_wet, _frozen, _latent, _gSum) = (new double[_nb], new double[_nb], new double[_nb], new double[_nb]);
        (_carryJ, _extraG, _extraT, _extraW) = (new double[_nb], new double[_nb], new double[_nb], new double[_nb]);
        (_te0, _teFixed1) = (new double[_nb], new double[_nb]);
        (_liquid, _solid, _used) = (new BodyStep[_nb], new BodyStep[_nb], new BodyStep[_nb]);
        _iceG = new double[layout.ContactG.Length];
        _special = new bool[_nb];
        _mean = new double[_nb];
        _annulus = new double[_nb];
        _onlyZone = new int[_nb];
        _touchesBoundary = new bool[_nb];
        _outdoorG = [.. layout.Network.Zones.Select(z => z.OutdoorWPerK)];
        _windG = [.. layout.Network.Zones.Select(z => z.OutdoorWPerKPerMPerS)];
        _foreseen = new (double, double)[layout.Neighbours.Length];
        (_b0, _b1, _knot) = (new double[layout.Boundary.Length], new double[layout.Boundary.Length], new int[layout.Boundary.Length]);
        (_givenJ, _powerW, _state) = (new double[layout.Heaters.Length], new double[layout.Heaters.Length], new int[layout.Heaters.Length]);
        int hours = (int)Math.Ceiling(layout.Network.EndS / 3600);
        _wh = new double[layout.Heaters.Length][];
        for (int i = 0; i < _wh.Length; i++) _wh[i] = new double[hours];
        _marks = new BodyMilestones[_nb];
        Array.Fill(_outdoorFactor, 1);
        Array.Fill(_linkFactor, 1);
        for (int z = 0; z < _nz; z++)
        {
            _zoneC[z] = layout.Network.Zones[z].StartC;
            _capacity[z] = layout.Network.Zones[z].HeatCapacityJPerK;
        }
        for (int b = 0; b < _nb; b++) StartBody(b);
        foreach (var (a, b, g) in layout.Neighbours)
        {
            _gSum[a] += g;
            _gSum[b] += g;
            _special[a] = _special[b] = true;
        }
        for (int b = 0; b < _nb; b++)
        {
            int first = layout.ContactStart[b], end = layout.ContactStart[b + 1];
            _onlyZone[b] = end - first == 1 && !_special[b] && layout.ContactTo[first] >= 0 ? layout.ContactTo[first] : -1;
            for (int c = first; c < end; c++) _touchesBoundary[b] |= layout.ContactTo[c] < 0;
        }
        // Neighbours see each other's foreseen mean, which holds only while a step is short against the smaller one's answer.
        _maxStepS = options.MaxStepS;
        for (int z = 0; z < _nz; z++) _maxStepS = Math.Min(_maxStepS, Math.Max(1, 3 / ZoneRate(z)));
        // A body's heater is in or out of its band for a whole step: full power must not carry it across.
        foreach (var (ofZone, b, _, heater) in layout.Heaters)
            if (!ofZone && heater.PowerW > 0) _maxStepS = Math.Min(_maxStepS, Math.Max(1, 0.5 * heater.BandK * _wet[b] / heater.PowerW));
        foreach (var (a, b, g) in layout.Neighbours)
            if (g > 0) _maxStepS = Math.Min(_maxStepS, 0.4 * Math.Min(Math.Min(_wet[a], _wet[b]), Math.Min(_frozen[a], _frozen[b])) / g);
    }

    // How fast a zone answers, 1/s: the trapezoidal rule would swing about it with steps much longer than its inverse.
    private double ZoneRate(int z)
    {
        double g = _outdoorG[z] + _windG[z] * _l.Network.WindMPerS.Value.Max();
        foreach (var (a, b, link) in _l.Links) g += a == z || b == z ? link : 0;
        for (int c = 0; c < _l.ContactTo.Length; c++) g += _l.ContactTo[c] == z ? _l.ContactG[c] : 0;
        return Math.Max(g, 1e-9) / _capacity[z];
    }

    private void StartBody(int b)
    {
        var body = _l.Network.Bodies[b];
        _water[b] = body.WaterKg;
        _wet[b] = body.WaterKg * _k.WaterJPerKgK + body.DryJPerK;
        _frozen[b] = body.WaterKg * _k.IceJPerKgK + body.DryJPerK;
        _latent[b] = body.WaterKg * _k.LatentJPerKg;
        _h[b] = body.StartC > 0 ? _wet[b] * body.StartC : body.StartC < 0 ? _frozen[b] * body.StartC - _latent[b] : 0;
        _t[b] = _tBefore[b] = body.StartC;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) _gSum[b] += _l.ContactG[c];
        if (body.Ice == IceGrowth.Cylinder) _annulus[b] = 1 / (4 * Math.PI * _k.IceWPerMK * body.LengthM);
        _special[b] = _l.BodyHeaterStart[b + 1] > _l.BodyHeaterStart[b];
        double never = double.PositiveInfinity;
        _marks[b] = body.StartC < 0 && body.WaterKg > 0
            ? new BodyMilestones(0, 0, 0, never, 1, body.StartC)
            : new BodyMilestones(never, never, never, never, 0, body.StartC);
    }

    public NightAnswer Go(CancellationToken cancel)
    {
        var reports = _options.ReportS ?? [];
        var milestones = _l.Milestones(reports);
        var zoneC = new double[reports.Count, _nz];
        var bodyC = new double[reports.Count, _nb];
        var ice = new double[reports.Count, _nb];
        double stored = Stored();
        int report = 0, steps = 0;
        double ramp = _options.FirstStepS;

        for (int i = 0; i < milestones.Count; i++)
        {
            var (t0, jump) = milestones[i];
            while (report < reports.Count && reports[report] <= t0 + 1e-6) Report(report++, zoneC, bodyC, ice);
            if (i + 1 == milestones.Count) break;
            if (jump)
            {
                ramp = _options.FirstStepS;
                ApplyEvents(t0);
            }
            double t1 = milestones[i + 1].TimeS, at = t0;
            while (t1 - at > 1e-9)
            {
                cancel.ThrowIfCancellationRequested();
                double left = t1 - at;
                // Equal steps to the next milestone, so that the bodies' exponentials are worked out once.
                double step = ramp < _maxStepS ? Math.Min(ramp, left) : left / Math.Ceiling(left / _maxStepS - 1e-9);
                if (left - step < 1e-3 * step) step = left;
                Step(at, step);
                ramp *= 2;
                at += step;
                steps++;
            }
        }
        while (report < reports.Count) Report(report++, zoneC, bodyC, ice);
        return new NightAnswer
        {
            ReportS = reports,
            ZoneC = zoneC,
            BodyC = bodyC,
            IceFraction = ice,
            Milestones = _marks,
            Energy = [.. _l.Heaters.Select((h, n) => new HeaterEnergy(h.OfZone ? _l.Network.Zones[h.Owner].Id : _l.Network.Bodies[h.Owner].Id, h.Index, _wh[n]))],
            Balance = new HeatBalance(_heatersJ, _boundaryJ, Stored() - stored, _turnoverJ),
            Steps = steps,
        };
    }

    private void Report(int row, double[,] zoneC, double[,] bodyC, double[,] ice)
    {
        for (int z = 0; z < _nz; z++) zoneC[row, z] = _zoneC[z];
        for (int b = 0; b < _nb; b++) (bodyC[row, b], ice[row, b]) = (_t[b], IceOf(b));
    }

    private double Stored()
    {
        double sum = 0;
        for (int z = 0; z < _nz; z++) sum += _capacity[z] * _zoneC[z] + _zoneCarryJ[z];
        for (int b = 0; b < _nb; b++) sum += _h[b] + _carryJ[b];
        return sum;
    }

    private void ApplyEvents(double t)
    {
        for (; _event < _l.Events.Length && _l.Events[_event].TimeS <= t + 1e-6; _event++)
        {
            var (_, a, b, factor) = _l.Events[_event];
            if (b < 0) _outdoorFactor[a] = factor;
            for (int link = 0; link < _l.Links.Length; link++)
                if ((_l.Links[link].A == a && _l.Links[link].B == b) || (_l.Links[link].A == b && _l.Links[link].B == a))
                    _linkFactor[link] = factor;
        }
    }

    private void Step(double at, double step)
    {
        if (step != _stepS)
        {
            for (int b = 0; b < _nb; b++)
            {
                _liquid[b] = BodyStep.Of(_gSum[b] * step / _wet[b]);
                _solid[b] = BodyStep.Of(_gSum[b] * step / _frozen[b]);
            }
            _stepS = step;
        }
        for (int k = 0; k < _b0.Length; k++)
        {
            _b0[k] = At(_l.BoundaryKnots[k], at, ref _knot[k]);
            _b1[k] = At(_l.BoundaryKnots[k], at + step, ref _knot[k]);
        }
        double wind = At(_l.Wind, at + step / 2, ref _windKnot);

        for (int b = 0; b < _nb; b++)
            if (_special[b]) PrepareSpecial(b, at, step);
        PrepareNeighbours(step);
        ChooseZoneHeaters(at);
        // Heater states are guessed, solved for and mended; a state that will not settle keeps its last guess.
        for (int attempt = 0, last = 4; attempt <= last; attempt++)
        {
            Assemble(step, wind);
            Solve();
            if (!MendZoneHeaters(at, step, keep: attempt == last)) break;
        }
        Account(step, wind);
        Array.Copy(_t, _tBefore, _nb);
        for (int b = 0; b < _nb; b++) Advance(b, at, step);
        SettleNeighbours(step);
        for (int n = 0; n < _powerW.Length; n++)
        {
            double joule = _powerW[n] * step;
            _givenJ[n] += joule;
            _heatersJ += joule;
            _turnoverJ += Math.Abs(joule);
            _wh[n][Math.Min((int)((at + step / 2) / 3600), _wh[n].Length - 1)] += joule / 3600;
        }
        Array.Copy(_zone1, _zoneC, _nz);
        _previousStepS = step;
    }

    private static double At((double[] TimeS, double[] Value) series, double t, ref int knot)
    {
        var (times, values) = series;
        if (times.Length == 1 || t <= times[0]) return values[0];
        if (t >= times[^1]) return values[^1];
        while (times[knot + 1] < t) knot++;
        while (times[knot] > t) knot--;
        double f = (t - times[knot]) / (times[knot + 1] - times[knot]);
        return values[knot] + f * (values[knot + 1] - values[knot]);
    }

    private double IceOf(int b) => _h[b] >= 0 || _latent[b] == 0 ? 0 : Math.Min(1, -_h[b] / _latent[b]);

    // 1: water, 0: ice growing, -1: all ice.
    private int Phase(int b) => _h[b] > 0 ? 1 : _h[b] <= -_latent[b] ? -1 : 0;

    private double Temperature(int b, double h) => h > 0 ? h / _wet[b] : h < -_latent[b] ? (h + _latent[b]) / _frozen[b] : 0;

    private double Growth(int b, double g, double ice) =>
        ice <= 0 || _annulus[b] == 0 ? g : g / (1 - g * _annulus[b] * Math.Log(1 - Math.Min(ice, 0.9999)));

    private double Target0(int target) => target >= 0 ? _zoneC[target] : _b0[-1 - target];

    private double Target1(int target) => target >= 0 ? _zone1[target] : _b1[-1 - target];

    // Heaters of a body act as one more contact (in band) or as plain watts (full); so does what was handed on.
    private void PrepareSpecial(int b, double at, double step)
    {
        _extraG[b] = 0;
        _extraT[b] = 0;
        _extraW[b] = _carryJ[b] / step;
        double guess = _previousStepS > 0 ? _t[b] + (_t[b] - _tBefore[b]) * step / (2 * _previousStepS) : _t[b];
        for (int n = _l.BodyHeaterStart[b]; n < _l.BodyHeaterStart[b + 1]; n++)
        {
            var heater = _l.Heaters[n].Heater;
            _state[n] = StateOf(heater, n, at, guess);
            double left = heater.LimitWh * 3600 - _givenJ[n];
            if (_state[n] != 0 && left < heater.PowerW * step) (_state[n], _powerW[n]) = (3, Math.Min(left / step, heater.PowerW));
            if (_state[n] == 2) _extraW[b] += heater.PowerW;
            else if (_state[n] == 3) _extraW[b] += _powerW[n];
            else if (_state[n] == 1)
            {
                double g = heater.PowerW / heater.BandK, t = heater.SetpointC + heater.BandK / 2;
                _extraT[b] = (_extraT[b] * _extraG[b] + t * g) / (_extraG[b] + g);
                _extraG[b] += g;
            }
        }
        _carryJ[b] = 0;
    }

    // Each of two sees the other's mean as it can be foreseen; their conductance is in gSum already.
    private void PrepareNeighbours(double step)
    {
        double ahead = _previousStepS > 0 ? step / (2 * _previousStepS) : 0;
        for (int n = 0; n < _foreseen.Length; n++)
        {
            var (a, b, g) = _l.Neighbours[n];
            _foreseen[n] = (_t[a] + (_t[a] - _tBefore[a]) * ahead, _t[b] + (_t[b] - _tBefore[b]) * ahead);
            _extraW[a] += g * _foreseen[n].B;
            _extraW[b] += g * _foreseen[n].A;
        }
    }

    // 0 off, 1 in its band, 2 full, 3 what its limit leaves.
    private int StateOf(NightHeater heater, int n, double at, double celsius)
    {
        if (at < heater.FromS - 1e-6 || at >= heater.ToS - 1e-6 || heater.PowerW == 0 || _givenJ[n] >= heater.LimitWh * 3600) return 0;
        double share = (heater.SetpointC + heater.BandK / 2 - celsius) / heater.BandK;
        return share <= 0 ? 0 : share >= 1 ? 2 : 1;
    }

    private void ChooseZoneHeaters(double at)
    {
        for (int n = 0; n < _l.BodyHeaterStart[0]; n++) _state[n] = StateOf(_l.Heaters[n].Heater, n, at, _zoneC[_l.Heaters[n].Owner]);
    }

    private bool MendZoneHeaters(double at, double step, bool keep)
    {
        bool changed = false;
        for (int n = 0; n < _l.BodyHeaterStart[0]; n++)
        {
            var heater = _l.Heaters[n].Heater;
            int z = _l.Heaters[n].Owner;
            double end = heater.PowerW > 0 ? EndWeight(heater.PowerW / heater.BandK, z, step) : 0.5;
            double mean = (1 - end) * _zoneC[z] + end * _zone1[z];
            int state = _state[n] == 3 || keep ? _state[n] : StateOf(heater, n, at, mean);
            // From off to full and back a narrow band would be jumped over: it is tried first.
            if ((state, _state[n]) is (0, 2) or (2, 0) && StateOf(heater, n, at, heater.SetpointC) == 1) state = 1;
            _powerW[n] = state switch
            {
                0 => 0,
                1 => heater.PowerW / heater.BandK * (heater.SetpointC + heater.BandK / 2 - mean),
                2 => heater.PowerW,
                _ => _powerW[n],
            };
            double left = heater.LimitWh * 3600 - _givenJ[n];
            if (!keep && state is 1 or 2 && _powerW[n] * step > left) (state, _powerW[n]) = (3, left / step);
            changed |= state != _state[n];
            _state[n] = state;
        }
        return changed;
    }

    private void Assemble(double step, double wind)
    {
        Array.Clear(_matrix);
        for (int z = 0; z < _nz; z++)
        {
            double c = _capacity[z] / step, out_ = OutdoorG(z, wind);
            _matrix[z, z] = c + out_ / 2;
            _rhs[z] = (c - out_ / 2) * _zoneC[z] + out_ * (_b0[Outdoors] + _b1[Outdoors]) / 2 + _zoneCarryJ[z] / step;
        }
        for (int i = 0; i < _l.Links.Length; i++)
        {
            var (a, b, g) = _l.Links[i];
            double half = g * _linkFactor[i] / 2, flow = half * (_zoneC[a] - _zoneC[b]);
            _matrix[a, a] += half;
            _matrix[b, b] += half;
            _matrix[a, b] -= half;
            _matrix[b, a] -= half;
            _rhs[a] -= flow;
            _rhs[b] += flow;
        }
        for (int n = 0; n < _l.BodyHeaterStart[0]; n++)
        {
            var (_, z, _, heater) = _l.Heaters[n];
            double g = heater.PowerW / heater.BandK;
            if (_state[n] == 1)
            {
                double end = EndWeight(g, z, step);
                _matrix[z, z] += g * end;
                _rhs[z] += g * (heater.SetpointC + heater.BandK / 2 - (1 - end) * _zoneC[z]);
            }
            else if (_state[n] == 2) _rhs[z] += heater.PowerW;
            else if (_state[n] == 3) _rhs[z] += _powerW[n];
        }
        for (int b = 0; b < _nb; b++) AddBody(b, step);
    }

    // A thermostat with a narrow band answers faster than a step: then the end of the step counts for more than its start, or it would swing. A half otherwise.
    private double EndWeight(double g, int z, double step) => Math.Max(0.5, 1 - _capacity[z] / (g * step));

    private double OutdoorG(int z, double wind) => (_outdoorG[z] + _windG[z] * wind) * _outdoorFactor[z];

    private void AddBody(int b, double step)
    {
        int phase = Phase(b), only = _onlyZone[b];
        if (only >= 0)
        {
            // One zone and nothing else: by far the commonest.
            AddSimple(b, phase, only, step);
            return;
        }
        int first = _l.ContactStart[b], end = _l.ContactStart[b + 1];
        if (phase == 0)
        {
            double ice = MiddleIce(b, step);
            for (int c = first; c < end; c++)
            {
                double g = _iceG[c] = Growth(b, _l.ContactG[c], ice);
                int z = _l.ContactTo[c];
                if (z < 0) continue;
                _matrix[z, z] += g / 2;
                _rhs[z] -= g / 2 * _zoneC[z];
            }
            return;
        }
        double gAll = _gSum[b];
        ref var s = ref _used[b];
        s = phase > 0 ? _liquid[b] : _solid[b];
        if (_special[b] && _extraG[b] > 0)
        {
            gAll += _extraG[b];
            s = BodyStep.Of(gAll * step / (phase > 0 ? _wet[b] : _frozen[b]));
        }
        if (gAll == 0)
        {
            (_te0[b], _teFixed1[b]) = (0, 0);
            return;
        }
        double fixed_ = (_special[b] ? _extraG[b] * _extraT[b] + _extraW[b] : 0) / gAll, te0 = fixed_, te1 = fixed_;
        for (int c = first; c < end; c++)
        {
            int to = _l.ContactTo[c];
            double w = _l.ContactG[c] / gAll;
            te0 += w * Target0(to);
            if (to < 0) te1 += w * _b1[-1 - to];
        }
        (_te0[b], _teFixed1[b]) = (te0, te1);
        double known = s.Phi * _t[b] + s.MeanStart * te0 + s.MeanEnd * te1;
        for (int c = first; c < end; c++)
        {
            int z = _l.ContactTo[c];
            if (z < 0) continue;
            double g = _l.ContactG[c];
            _rhs[z] += g * (known - _zoneC[z] / 2);
            _matrix[z, z] += g / 2;
            for (int d = first; d < end; d++)
                if (_l.ContactTo[d] is >= 0 and int j) _matrix[z, j] -= g * s.MeanEnd * _l.ContactG[d] / gAll;
        }
    }

    private void AddSimple(int b, int phase, int zone, double step)
    {
        double g = _gSum[b], t = _zoneC[zone];
        if (phase == 0)
        {
            int c = _l.ContactStart[b];
            double ice = IceOf(b), before = _iceG[c] > 0 ? _iceG[c] : Growth(b, g, ice);
            double half = 0.5 * (_iceG[c] = Growth(b, g, Math.Clamp(ice - before * t * step / (2 * _latent[b]), 0, 1)));
            _matrix[zone, zone] += half;
            _rhs[zone] -= half * t;
            return;
        }
        ref readonly var s = ref (phase > 0 ? ref _liquid[b] : ref _solid[b]);
        _matrix[zone, zone] += g * (0.5 - s.MeanEnd);
        _rhs[zone] += g * (s.Phi * _t[b] + (s.MeanStart - 0.5) * t);
    }

    // Ice in the middle of the step, by half an explicit step: enough for second order.
    private double MiddleIce(int b, double step)
    {
        double ice = IceOf(b), heat = (_special[b] ? _extraW[b] + _extraG[b] * _extraT[b] : 0) * step / 2;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) heat += Growth(b, _l.ContactG[c], ice) * Target0(_l.ContactTo[c]) * step / 2;
        return Math.Clamp(ice - heat / _latent[b], 0, 1);
    }

    private void Solve()
    {
        // Diagonally dominant: no pivoting is needed.
        for (int k = 0; k < _nz; k++)
        {
            for (int r = k + 1; r < _nz; r++)
            {
                double f = _matrix[r, k] / _matrix[k, k];
                if (f == 0) continue;
                for (int c = k; c < _nz; c++) _matrix[r, c] -= f * _matrix[k, c];
                _rhs[r] -= f * _rhs[k];
            }
        }
        for (int r = _nz - 1; r >= 0; r--)
        {
            double s = _rhs[r];
            for (int c = r + 1; c < _nz; c++) s -= _matrix[r, c] * _zone1[c];
            _zone1[r] = s / _matrix[r, r];
        }
    }

    private void Account(double step, double wind)
    {
        for (int z = 0; z < _nz; z++)
        {
            Boundary(OutdoorG(z, wind) * ((_b0[Outdoors] + _b1[Outdoors]) / 2 - (_zoneC[z] + _zone1[z]) / 2) * step);
            _zoneCarryJ[z] = 0;
        }
    }

    private void Boundary(double joule)
    {
        _boundaryJ += joule;
        _turnoverJ += Math.Abs(joule);
    }

    private void Advance(int b, double at, double step)
    {
        if (_onlyZone[b] >= 0)
        {
            if (!AdvanceSimple(b, at, step)) Follow(b, at, step);
            return;
        }
        int first = _l.ContactStart[b], end = _l.ContactStart[b + 1], phase = Phase(b);
        double before = _h[b], after, mean;
        if (phase == 0)
        {
            double heat = _special[b] ? (_extraW[b] + _extraG[b] * _extraT[b]) * step : 0;
            for (int c = first; c < end; c++) heat += _iceG[c] * (Target0(_l.ContactTo[c]) + Target1(_l.ContactTo[c])) / 2 * step;
            (after, mean) = (before + heat, 0);
            double change = Math.Abs(heat) / _latent[b];
            if (after > 0 || after < -_latent[b] || (change > 0.05 && _annulus[b] > 0))
            {
                Follow(b, at, step);
                return;
            }
        }
        else
        {
            ref var s = ref _used[b];
            double te1 = _teFixed1[b], gAll = _gSum[b] + (_special[b] ? _extraG[b] : 0);
            for (int c = first; c < end; c++)
                if (_l.ContactTo[c] is >= 0 and int z) te1 += _l.ContactG[c] / gAll * _zone1[z];
            double t1 = s.E * _t[b] + s.Start * _te0[b] + s.End * te1;
            mean = s.Phi * _t[b] + s.MeanStart * _te0[b] + s.MeanEnd * te1;
            if (gAll == 0 && _special[b]) t1 += _extraW[b] * step / (phase > 0 ? _wet[b] : _frozen[b]);
            if (phase > 0 ? t1 <= 0 : t1 >= 0)
            {
                Follow(b, at, step);
                return;
            }
            after = phase > 0 ? t1 * _wet[b] : t1 * _frozen[b] - _latent[b];
        }
        _h[b] = after;
        Settle(b, step, mean);
        Mark(b, at, step, before);
        _t[b] = Temperature(b, after);
    }

    // False when the body changes state within the step and has to be followed.
    private bool AdvanceSimple(int b, double at, double step)
    {
        int phase = Phase(b), zone = _onlyZone[b];
        double before = _h[b], after, celsius = 0;
        if (phase == 0)
        {
            double heat = _iceG[_l.ContactStart[b]] * (_zoneC[zone] + _zone1[zone]) / 2 * step;
            after = before + heat;
            if (after > 0 || after < -_latent[b] || (Math.Abs(heat) > 0.05 * _latent[b] && _annulus[b] > 0)) return false;
        }
        else
        {
            ref readonly var s = ref (phase > 0 ? ref _liquid[b] : ref _solid[b]);
            celsius = s.E * _t[b] + s.Start * _zoneC[zone] + s.End * _zone1[zone];
            if (phase > 0 ? celsius <= 0 : celsius >= 0) return false;
            after = phase > 0 ? celsius * _wet[b] : celsius * _frozen[b] - _latent[b];
        }
        (_h[b], _t[b]) = (after, celsius);
        Mark(b, at, step, before);
        return true;
    }

    // What boundaries and heaters gave a body over a step in which it was at `mean` on average.
    private void Settle(int b, double step, double mean)
    {
        bool ice = mean == 0 && Phase(b) == 0;
        for (int c = _l.ContactStart[b]; _touchesBoundary[b] && c < _l.ContactStart[b + 1]; c++)
        {
            int to = _l.ContactTo[c];
            if (to < 0) Boundary((ice ? _iceG[c] : _l.ContactG[c]) * ((_b0[-1 - to] + _b1[-1 - to]) / 2 - mean) * step);
        }
        _mean[b] = mean;
        if (_special[b]) SettleHeaters(b, mean);
    }

    private void SettleHeaters(int b, double mean)
    {
        for (int n = _l.BodyHeaterStart[b]; n < _l.BodyHeaterStart[b + 1]; n++)
        {
            var heater = _l.Heaters[n].Heater;
            _powerW[n] = _state[n] switch
            {
                0 => 0,
                1 => heater.PowerW / heater.BandK * (heater.SetpointC + heater.BandK / 2 - mean),
                2 => heater.PowerW,
                _ => _powerW[n],
            };
        }
    }

    // Follows a body through a step in which it changes state, with the zones' air known. What the zones were told of it is set right with the next step.
    private void Follow(int b, double at, double step)
    {
        int first = _l.ContactStart[b], end = _l.ContactStart[b + 1], startPhase = Phase(b);
        double toldMean = 0, startH = _h[b];
        if (_onlyZone[b] is >= 0 and int alone && startPhase != 0)
            (_used[b], _te0[b], _teFixed1[b]) = (startPhase > 0 ? _liquid[b] : _solid[b], _zoneC[alone], 0);
        if (startPhase != 0)
        {
            double te = _teFixed1[b], all = _gSum[b] + (_special[b] ? _extraG[b] : 0);
            for (int c = first; c < end; c++)
                if (_l.ContactTo[c] is >= 0 and int z) te += _l.ContactG[c] / all * _zone1[z];
            ref var s = ref _used[b];
            toldMean = s.Phi * _t[b] + s.MeanStart * _te0[b] + s.MeanEnd * te;
        }
        Span<double> toldJ = end - first <= 16 ? stackalloc double[end - first] : new double[end - first];
        Span<double> gotJ = end - first <= 16 ? stackalloc double[end - first] : new double[end - first];
        gotJ.Clear();
        for (int c = first; c < end; c++)
            toldJ[c - first] = (startPhase == 0 ? _iceG[c] : _l.ContactG[c]) * ((Target0(_l.ContactTo[c]) + Target1(_l.ContactTo[c])) / 2 - toldMean) * step;

        double extraG = _special[b] ? _extraG[b] : 0, extra = _special[b] ? _extraW[b] + _extraG[b] * _extraT[b] : 0;
        double time = 0, meanJ = 0;
        for (int guard = 0; guard < 200 && time < step - 1e-9; guard++)
        {
            double left = step - time, before = _h[b];
            int phase = Phase(b);
            if (_latent[b] > 0 && (before == 0 || before == -_latent[b]))
            {
                // At an edge the way the heat goes decides.
                double heat = HeatAt0(b, time / step, extra);
                phase = before == 0 ? (heat > 0 ? 1 : 0) : heat < 0 ? -1 : 0;
            }
            double used;
            if (phase == 0)
            {
                double ice = IceOf(b), rate = HeatAt0(b, time / step, extra);
                used = left;
                if (rate != 0) used = Math.Min(used, Math.Max(0.02 * _latent[b] / Math.Abs(rate), 1e-3 * step));
                double middle = Math.Clamp(ice - rate * used / 2 / _latent[b], 0, 1), t = (time + used / 2) / step, sum = extra;
                for (int c = first; c < end; c++) sum += Growth(b, _l.ContactG[c], middle) * Between(c, t);
                double toEdge = sum > 0 ? -before / sum : sum < 0 ? (-_latent[b] - before) / sum : double.PositiveInfinity;
                bool edge = toEdge <= used;
                if (edge) used = Math.Max(toEdge, 1e-12);
                for (int c = first; c < end; c++) gotJ[c - first] += Growth(b, _l.ContactG[c], middle) * Between(c, t) * used;
                _h[b] = edge ? (sum > 0 ? 0 : -_latent[b]) : before + sum * used;
                if (edge && sum > 0) _h[b] = 1e-12 * _wet[b];
                if (edge && sum < 0) _h[b] = -_latent[b] - 1e-12 * _frozen[b];
            }
            else
            {
                double capacity = phase > 0 ? _wet[b] : _frozen[b], g = _gSum[b] + extraG;
                double now = phase == 1 ? before / capacity : (before + _latent[b]) / capacity;
                double te0 = Surroundings(b, time / step, extra, g), te1 = Surroundings(b, 1, extra, g);
                used = Crossing(now, te0, te1, g / capacity, left, phase);
                var s = BodyStep.Of(g * used / capacity);
                double teEnd = te0 + (te1 - te0) * used / left;
                double then = s.E * now + s.Start * te0 + s.End * teEnd, mean = s.Phi * now + s.MeanStart * te0 + s.MeanEnd * teEnd;
                bool crossed = used < left;
                for (int c = first; c < end; c++) gotJ[c - first] += _l.ContactG[c] * ((Between(c, time / step) + Between(c, (time + used) / step)) / 2 - mean) * used;
                meanJ += mean * used;
                _h[b] = crossed ? (phase > 0 ? 0 : -_latent[b]) : phase > 0 ? then * capacity : then * capacity - _latent[b];
                if (crossed && _latent[b] == 0) _h[b] = phase > 0 ? -1e-12 * _frozen[b] : 1e-12 * _wet[b];
            }
            Mark(b, at + time, used, before);
            time += used;
        }

        double bodyMean = meanJ / step, brought = (extra - (extraG + NeighbourG(b)) * bodyMean) * step;
        for (int c = first; c < end; c++)
        {
            int to = _l.ContactTo[c];
            brought += gotJ[c - first];
            if (to < 0) Boundary(gotJ[c - first]);
            else _zoneCarryJ[to] += toldJ[c - first] - gotJ[c - first];
        }
        // Edges are met to a millionth of the step; what that leaves goes where the balance sees it.
        double leftOver = brought - (_h[b] - startH);
        if (end > first && _l.ContactTo[first] is >= 0 and int zone) _zoneCarryJ[zone] += leftOver;
        else Boundary(-leftOver);
        _mean[b] = bodyMean;
        if (_special[b]) SettleHeaters(b, bodyMean);
        _t[b] = Temperature(b, _h[b]);
        if (_onlyZone[b] >= 0) _iceG[first] = 0;
    }

    private double NeighbourG(int b)
    {
        if (!_special[b]) return 0;
        double g = _gSum[b];
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) g -= _l.ContactG[c];
        return g;
    }

    private double HeatAt0(int b, double t, double extra)
    {
        double ice = IceOf(b), sum = extra;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) sum += Growth(b, _l.ContactG[c], ice) * Between(c, t);
        return sum;
    }

    private double Between(int contact, double t) => Target0(_l.ContactTo[contact]) * (1 - t) + Target1(_l.ContactTo[contact]) * t;

    private double Surroundings(int b, double t, double extra, double g)
    {
        double sum = extra;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) sum += _l.ContactG[c] * Between(c, t);
        return sum / g;
    }

    // When the exact answer first reaches 0 °C, or `left` when it does not: bisection mended by false position, to a millionth of the time left.
    private static double Crossing(double now, double te0, double te1, double rate, double left, int phase)
    {
        double At(double time)
        {
            var s = BodyStep.Of(rate * time);
            return s.E * now + s.Start * te0 + s.End * (te0 + (te1 - te0) * time / left);
        }
        double end = At(left);
        if (phase > 0 ? end > 0 : end < 0) return left;
        double low = 0, high = left, atLow = now, atHigh = end;
        if (phase > 0 ? now <= 0 : now >= 0)
        {
            // From the very edge away from it and back again: look for a time at which it is away.
            double away = At(left / 2);
            if (phase > 0 ? away <= 0 : away >= 0) return left / 1000;
            (low, atLow) = (left / 2, away);
        }
        for (int i = 0; i < 60 && high - low > 1e-6 * left; i++)
        {
            double mid = i % 3 == 2 ? (low + high) / 2 : low + (high - low) * atLow / (atLow - atHigh), atMid = At(mid);
            if ((atMid > 0) == (atLow > 0)) (low, atLow) = (mid, atMid);
            else (high, atHigh) = (mid, atMid);
        }
        return Math.Max(high, 1e-12);
    }

    // Milestones within a stretch, straight between its ends.
    private void Mark(int b, double from, double length, double before)
    {
        double after = _h[b];
        double celsius = Temperature(b, after);
        if (after > 0 && before > 0 && celsius >= _marks[b].LowestC) return;
        ref var m = ref _marks[b];
        double When(double level) => Math.Abs(after - before) < 1e-30 ? from + length : from + length * Math.Clamp((level - before) / (after - before), 0, 1);
        double ice = IceOf(b), iceBefore = _latent[b] == 0 ? 0 : Math.Clamp(-before / _latent[b], 0, 1);
        m = m with { LowestC = Math.Min(m.LowestC, celsius), MostIce = Math.Max(m.MostIce, ice) };
        if (after <= 0 && before >= 0 && double.IsInfinity(m.FirstIceS) && _latent[b] > 0) m = m with { FirstIceS = after == 0 ? from + length : When(0) };
        if (ice >= 0.1 && iceBefore < 0.1 && double.IsInfinity(m.BlockedS)) m = m with { BlockedS = When(-0.1 * _latent[b]) };
        if (ice >= 1 && iceBefore < 1 && double.IsInfinity(m.SolidS)) m = m with { SolidS = When(-_latent[b]) };
        if (before < 0 && after >= 0) m = m with { ThawedS = When(0) };
        else if (before < 0 && after < 0) m = m with { ThawedS = double.PositiveInfinity };
    }

    // What two neighbours together took too much, by having foreseen each other wrongly, each gives back half of with the next step.
    private void SettleNeighbours(double step)
    {
        for (int n = 0; n < _foreseen.Length; n++)
        {
            var (a, b, g) = _l.Neighbours[n];
            double surplus = g * step * (_foreseen[n].A + _foreseen[n].B - _mean[a] - _mean[b]);
            _carryJ[a] -= surplus / 2;
            _carryJ[b] -= surplus / 2;
        }
    }
}
