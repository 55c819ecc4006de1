namespace WarmConduit.Core.Heat.Night;

/// <summary>One run: the state and its stepping.</summary>
internal sealed partial class NightRun
{
    private const int Outdoors = 0;
    private const double ShortestS = 0.05;

    private const int MostAttempts = 8;
    private const double StepGrowth = 1.3;

    private readonly NightLayout _l;
    private readonly NightOptions _options;
    private readonly NightConstants _k;
    private readonly int _nz, _nb;

    // Zones.
    private readonly double[] _zoneC, _zone1, _zoneBefore, _capacity, _outdoorFactor, _linkFactor, _openingFactor, _openingG, _zoneCarryJ;
    private readonly double[,] _matrix, _plainMatrix;
    private readonly double[] _rhs, _plainRhs;

    // Bodies.
    private readonly double[] _h, _t, _tBefore, _wet, _frozen, _latent, _perLatent, _gSum, _carryJ, _extraG, _extraT, _extraW;
    private readonly double[] _te0, _teFixed1;

    // The answer of a body over the step at hand, and the x it was worked out for.
    private readonly BodyStep[] _used;
    private readonly double[] _usedX;
    private readonly double[] _iceG, _stiff;
    private readonly bool[] _special;
    private readonly double[] _mean;

    // 1/(4π k length) of bodies in which ice grows from the wall, 0 of others.
    private readonly double[] _annulus;
    private readonly double[] _outdoorG, _windG;

    // The zone of bodies that touch one zone and nothing else, -1 of others; and whether a body touches a boundary.
    private readonly int[] _onlyZone;
    private readonly bool[] _touchesBoundary;
    private readonly (double A, double B)[] _foreseen;
    private readonly double _mostWind;

    // Conductance of a zone to the bodies in it.
    private readonly double[] _contactG;

    // Greatest step but for what zones ask, and with it.
    private readonly double _bodiesStepS;
    private double _maxStepS;

    // Bodies that can matter to a zone when they change state within a step, and those that touch another.
    private readonly int[] _heavy;
    private readonly bool[] _joined;

    // Boundaries at the two ends of the step.
    private readonly double[] _b0, _b1;
    private readonly int[] _knot;
    private int _windKnot;

    private readonly BodyMilestones[] _marks;
    private readonly double[] _lowestH;
    private double _heatersJ, _boundaryJ, _turnoverJ, _raisedJ;
    private double _previousStepS, _wind;
    private int _event;

    public NightRun(NightLayout layout, NightOptions options)
    {
        (_l, _options, _k) = (layout, options, layout.Network.Constants);
        (_nz, _nb) = (layout.ZoneCount, layout.BodyCount);
        (_zoneC, _zone1, _capacity) = (new double[_nz], new double[_nz], new double[_nz]);
        (_outdoorFactor, _linkFactor, _zoneCarryJ) = (new double[_nz], new double[layout.Links.Length], new double[_nz]);
        (_matrix, _rhs) = (new double[_nz, _nz], new double[_nz]);
        (_plainMatrix, _plainRhs) = (new double[_nz, _nz], new double[_nz]);
        (_h, _t, _tBefore) = (new double[_nb], new double[_nb], new double[_nb]);
        (_wet, _frozen, _latent, _perLatent, _gSum) = (new double[_nb], new double[_nb], new double[_nb], new double[_nb], new double[_nb]);
        (_carryJ, _extraG, _extraT, _extraW) = (new double[_nb], new double[_nb], new double[_nb], new double[_nb]);
        (_te0, _teFixed1) = (new double[_nb], new double[_nb]);
        (_used, _usedX) = (new BodyStep[_nb], new double[_nb]);
        Array.Fill(_usedX, double.NaN);
        (_iceG, _stiff) = (new double[layout.ContactG.Length], new double[_nb]);
        (_special, _joined) = (new bool[_nb], new bool[_nb]);
        _mean = new double[_nb];
        _annulus = new double[_nb];
        _onlyZone = new int[_nb];
        _touchesBoundary = new bool[_nb];
        _outdoorG = [.. layout.Network.Zones.Select(z => z.OutdoorWPerK)];
        _windG = [.. layout.Network.Zones.Select(z => z.OutdoorWPerKPerMPerS)];
        _foreseen = new (double, double)[layout.Neighbours.Length];
        (_b0, _b1, _knot) = (new double[layout.Boundary.Length], new double[layout.Boundary.Length], new int[layout.Boundary.Length]);
        (_givenJ, _powerW, _state) = (new double[layout.Heaters.Length], new double[layout.Heaters.Length], new HeaterState[layout.Heaters.Length]);
        int hours = (int)Math.Ceiling(layout.Network.EndS / 3600);
        _wh = new double[layout.Heaters.Length][];
        for (int i = 0; i < _wh.Length; i++) _wh[i] = new double[hours];
        (_marks, _lowestH) = (new BodyMilestones[_nb], new double[_nb]);
        Array.Fill(_outdoorFactor, 1);
        Array.Fill(_linkFactor, 1);
        (_openingFactor, _openingG) = (new double[layout.Openings.Length], new double[layout.Openings.Length]);
        Array.Fill(_openingFactor, 1);
        _mostWind = layout.Network.WindMPerS.Value.Max();
        _contactG = new double[_nz];
        for (int c = 0; c < layout.ContactTo.Length; c++)
            if (layout.ContactTo[c] is >= 0 and int z) _contactG[z] += layout.ContactG[c];
        for (int z = 0; z < _nz; z++)
        {
            _zoneC[z] = layout.Network.Zones[z].StartC;
            _capacity[z] = layout.Network.Zones[z].HeatCapacityJPerK;
        }
        _zoneBefore = (double[])_zoneC.Clone();
        for (int b = 0; b < _nb; b++) StartBody(b);
        foreach (var (a, b, g) in layout.Neighbours)
        {
            _gSum[a] += g;
            _gSum[b] += g;
            _special[a] = _special[b] = _joined[a] = _joined[b] = true;
        }
        for (int b = 0; b < _nb; b++)
        {
            int first = layout.ContactStart[b], end = layout.ContactStart[b + 1];
            _onlyZone[b] = end - first == 1 && !_special[b] && layout.ContactTo[first] >= 0 ? layout.ContactTo[first] : -1;
            for (int c = first; c < end; c++) _touchesBoundary[b] |= layout.ContactTo[c] < 0;
        }
        _bodiesStepS = options.MaxStepS;
        // Neighbours see each other's foreseen mean, which holds only while a step is short against the smaller one's answer.
        foreach (var (a, b, g) in layout.Neighbours)
        {
            if (g == 0) continue;
            double step = 0.4 * Math.Min(Math.Min(_wet[a], _wet[b]), Math.Min(_frozen[a], _frozen[b])) / g;
            if (step < ShortestS) throw new HeatNetworkException(layout.Network.Bodies[a].Id, "it is joined to its neighbour so closely that the two are one body");
            _bodiesStepS = Math.Min(_bodiesStepS, step);
        }
        _heavy = [.. Enumerable.Range(0, _nb).Where(b => _latent[b] > 0 && (_joined[b] || MovesAZone(b, HeavyK, _bodiesStepS)))];
    }

    private void StartBody(int b)
    {
        var body = _l.Network.Bodies[b];
        _wet[b] = body.WaterKg * _k.WaterJPerKgK + body.DryJPerK;
        _frozen[b] = body.WaterKg * _k.IceJPerKgK + body.DryJPerK;
        _latent[b] = body.WaterKg * _k.LatentJPerKg;
        _perLatent[b] = _latent[b] > 0 ? 1 / _latent[b] : 0;
        _h[b] = body.StartC > 0 ? _wet[b] * body.StartC : body.StartC < 0 ? _frozen[b] * body.StartC - _latent[b] : 0;
        _t[b] = _tBefore[b] = body.StartC;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) _gSum[b] += _l.ContactG[c];
        if (body.Ice == IceGrowth.Cylinder) _annulus[b] = 1 / (4 * Math.PI * _k.IceWPerMK * body.LengthM);
        _special[b] = _l.BodyHeaterStart[b + 1] > _l.BodyHeaterStart[b];
        double never = double.PositiveInfinity;
        _lowestH[b] = _h[b];
        double ice = body.StartC < 0 && body.WaterKg > 0 ? 0 : never;
        _marks[b] = new BodyMilestones(ice, ice, ice, never, 0, 0);
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
                PrepareOpenings(0);
                RaiseCapacities();
                _maxStepS = GreatestStep();
            }
            double t1 = milestones[i + 1].TimeS, at = t0;
            while (t1 - at > 1e-9)
            {
                cancel.ThrowIfCancellationRequested();
                double left = t1 - at;
                // Equal steps to the next milestone, so that the bodies' exponentials are worked out once.
                double step = ramp < _maxStepS ? Math.Min(ramp, left) : left / Math.Ceiling(left / _maxStepS - 1e-9);
                if (left - step < 1e-3 * step) step = left;
                var (taken, turned) = Step(at, step);
                ramp = turned ? _options.FirstStepS : StepGrowth * ramp;
                if (_l.Openings.Length > 0) _maxStepS = GreatestStep();
                at = taken == left ? t1 : at + taken;
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
            Milestones = [.. _marks.Select((m, b) => m with { MostIce = IceAt(b, _lowestH[b]), LowestC = Temperature(b, _lowestH[b]) })],
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
        double sum = -_raisedJ;
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
            for (int o = 0; o < _l.Openings.Length; o++)
                if ((_l.Openings[o].A == a && _l.Openings[o].B == b) || (_l.Openings[o].A == b && _l.Openings[o].B == a))
                    _openingFactor[o] = factor;
        }
    }

    // Goes a step, or the part of it to something that happens on the way; whether that was a heater's doing.
    private (double TakenS, bool Turned) Step(double at, double step)
    {
        bool turned = false;
        Prepare(at, step);
        for (int cut = 0; cut < MostCuts && EventWithin(at, step) is { } part; cut++)
        {
            step *= part.Share;
            turned |= part.Turns;
            Prepare(at, step);
        }
        // Heater states are guessed, solved for and mended; a state that will not settle keeps its last guess.
        for (int attempt = 1; MendOpenings() | MendZoneHeaters(at, step, keep: attempt == MostAttempts) && attempt < MostAttempts; attempt++) Solve(step);

        Account(step);
        Array.Clear(_carryJ);
        Array.Copy(_t, _tBefore, _nb);
        for (int b = 0; b < _nb; b++) Advance(b, at, step);
        SettleNeighbours(step);
        AccountHeaters(at, step);
        Array.Copy(_zoneC, _zoneBefore, _nz);
        Array.Copy(_zone1, _zoneC, _nz);
        _previousStepS = step;
        // What is spent goes out with the step, however late in it that was.
        return (step, turned || Array.IndexOf(_state, HeaterState.Rest) >= 0);
    }

    // The zones' air at the end of the step, with heaters as they stand at its start.
    private void Prepare(double at, double step)
    {
        for (int k = 0; k < _b0.Length; k++)
        {
            _b0[k] = At(_l.BoundaryKnots[k], at, ref _knot[k]);
            _b1[k] = At(_l.BoundaryKnots[k], at + step, ref _knot[k]);
        }
        _wind = At(_l.Wind, at + step / 2, ref _windKnot);

        for (int b = 0; b < _nb; b++)
            if (_special[b]) PrepareSpecial(b, at, step);
        PrepareNeighbours(step);
        PrepareOpenings(step);
        ChooseZoneHeaters(at);
        Assemble(step);
        Solve(step);
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

    private double IceOf(int b) => IceAt(b, _h[b]);

    private double IceAt(int b, double h) => h >= 0 ? 0 : Math.Min(1, -h * _perLatent[b]);

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
        // Just ahead, so that a heater at the edge of its band is taken for what it is about to be.
        double ahead = _previousStepS > 0 ? _t[b] + (_t[b] - _tBefore[b]) / _previousStepS * Math.Min(step / 2, ShortestZoneStepS) : _t[b];
        AddBodyHeaters(b, at, step, ahead);
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

    // What heaters and openings do not change.
    private void Assemble(double step)
    {
        Array.Clear(_matrix);
        for (int z = 0; z < _nz; z++)
        {
            double c = _capacity[z] / step, out_ = OutdoorG(z, _wind);
            _matrix[z, z] = c + out_ / 2;
            _rhs[z] = (c - out_ / 2) * _zoneC[z] + out_ * (_b0[Outdoors] + _b1[Outdoors]) / 2 + _zoneCarryJ[z] / step;
        }
        for (int i = 0; i < _l.Links.Length; i++) Join(_l.Links[i].A, _l.Links[i].B, _l.Links[i].G * _linkFactor[i]);
        for (int b = 0; b < _nb; b++) AddBody(b, step);
        Array.Copy(_matrix, _plainMatrix, _matrix.Length);
        Array.Copy(_rhs, _plainRhs, _nz);
    }

    private void Join(int a, int b, double g)
    {
        double half = g / 2, flow = half * (_zoneC[a] - _zoneC[b]);
        _matrix[a, a] += half;
        _matrix[b, b] += half;
        _matrix[a, b] -= half;
        _matrix[b, a] -= half;
        _rhs[a] -= flow;
        _rhs[b] += flow;
    }

    // Openings as they stand in the middle of the step, so far as the last step foretells it.
    private void PrepareOpenings(double step)
    {
        double ahead = _previousStepS > 0 ? step / (2 * _previousStepS) : 0;
        for (int o = 0; o < _l.Openings.Length; o++)
        {
            var (a, b, _, _) = _l.Openings[o];
            _openingG[o] = OpeningWPerK(o, _zoneC[a] + (_zoneC[a] - _zoneBefore[a]) * ahead, _zoneC[b] + (_zoneC[b] - _zoneBefore[b]) * ahead);
        }
    }

    private double OpeningWPerK(int o, double ta, double tb) =>
        _openingFactor[o] * AirExchange.OpeningWPerK(_l.Openings[o].AreaM2, _l.Openings[o].HeightM, ta - tb, (ta + tb) / 2);

    // Openings as they stood in the middle of the step that was solved; whether that makes a difference.
    private bool MendOpenings()
    {
        bool changed = false;
        for (int o = 0; o < _openingG.Length; o++)
        {
            var (a, b, _, _) = _l.Openings[o];
            double ta = (_zoneC[a] + _zone1[a]) / 2, tb = (_zoneC[b] + _zone1[b]) / 2, g = OpeningWPerK(o, ta, tb);
            if (Math.Abs(g - _openingG[o]) * Math.Abs(ta - tb) <= 1e-3 * g * Math.Abs(ta - tb) + 1e-3) continue;
            (_openingG[o], changed) = (g, true);
        }
        return changed;
    }

    private double OutdoorG(int z, double wind) => (_outdoorG[z] + _windG[z] * wind) * _outdoorFactor[z];

    private void Solve(double step)
    {
        Array.Copy(_plainMatrix, _matrix, _matrix.Length);
        Array.Copy(_plainRhs, _rhs, _nz);
        for (int o = 0; o < _l.Openings.Length; o++) Join(_l.Openings[o].A, _l.Openings[o].B, _openingG[o]);
        AddZoneHeaters(step);
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

    private void Account(double step)
    {
        for (int z = 0; z < _nz; z++)
        {
            Boundary(OutdoorG(z, _wind) * ((_b0[Outdoors] + _b1[Outdoors]) / 2 - (_zoneC[z] + _zone1[z]) / 2) * step);
            _zoneCarryJ[z] = 0;
        }
    }

    private void Boundary(double joule)
    {
        _boundaryJ += joule;
        _turnoverJ += Math.Abs(joule);
    }
}
