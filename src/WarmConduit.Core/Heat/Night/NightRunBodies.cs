namespace WarmConduit.Core.Heat.Night;

/// <content>The bodies: what they tell the zones, how they go through a step, and how one is followed through a change of state.</content>
internal sealed partial class NightRun
{
    // Steps longer than this share of the time ice takes to come to a balance are followed in parts.
    private const double MostStiff = 0.5;

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
        double gAll = _gSum[b] + (_special[b] ? _extraG[b] : 0);
        ref readonly var s = ref Use(b, gAll, phase, step);
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

    private ref readonly BodyStep Use(int b, double g, int phase, double step)
    {
        double x = g * step / (phase > 0 ? _wet[b] : _frozen[b]);
        if (_usedX[b] != x) (_used[b], _usedX[b]) = (BodyStep.Of(x), x);
        return ref _used[b];
    }

    private void AddSimple(int b, int phase, int zone, double step)
    {
        double g = _gSum[b], t = _zoneC[zone];
        if (phase == 0)
        {
            int c = _l.ContactStart[b];
            double ice = IceOf(b), before = _iceG[c] > 0 ? _iceG[c] : Growth(b, g, ice);
            _stiff[b] = t < 0 ? IceSlope(b, ice) * before * before * -t : 0;
            double half = 0.5 * (_iceG[c] = Growth(b, g, Math.Clamp(ice - before * t * _perLatent[b] * HalfStep(b, step), 0, 1)));
            _matrix[zone, zone] += half;
            _rhs[zone] -= half * t;
            return;
        }
        ref readonly var s = ref Use(b, g, phase, step);
        _matrix[zone, zone] += g * (0.5 - s.MeanEnd);
        _rhs[zone] += g * (s.Phi * _t[b] + (s.MeanStart - 0.5) * t);
    }

    // Ice in the middle of the step, by half an explicit step: enough for second order.
    private double MiddleIce(int b, double step)
    {
        double ice = IceOf(b), watt = HeatIntoIce(b, 0, ice, _special[b] ? _extraW[b] + _extraG[b] * _extraT[b] : 0, out _stiff[b]);
        return Math.Clamp(ice - watt * _perLatent[b] * HalfStep(b, step), 0, 1);
    }

    // How fast the resistance of ice grows with its share, over the latent heat.
    private double IceSlope(int b, double ice) => _annulus[b] * _perLatent[b] / (1 - Math.Min(ice, 0.9999));

    // Half a step, in effect: ice that is nearly all there grows towards a balance, and would be carried beyond it.
    private double HalfStep(int b, double step)
    {
        double x = _stiff[b] * step / 2;
        return x > 1e-3 ? (1 - Math.Exp(-x)) / _stiff[b] : step / 2;
    }

    private void Advance(int b, double at, double step)
    {
        if (_onlyZone[b] >= 0)
        {
            if (!AdvanceSimple(b, at, step)) Follow(b, at, step);
            return;
        }
        int phase = Phase(b);
        double before = _h[b], after, mean;
        if (phase == 0)
        {
            double heat = HeatOfIce(b, step);
            (after, mean) = (before + heat, 0);
            double change = Math.Abs(heat) * _perLatent[b];
            if (after > 0 || after < -_latent[b] || (_annulus[b] > 0 && (change > 0.05 || _stiff[b] * step > MostStiff)))
            {
                Follow(b, at, step);
                return;
            }
        }
        else
        {
            double t1 = EndC(b, step);
            mean = MeanC(b);
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

    // Heat into a body in which ice grows, over a step, J.
    private double HeatOfIce(int b, double step)
    {
        double watt = _special[b] ? _extraW[b] + _extraG[b] * _extraT[b] : 0;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++) watt += _iceG[c] * (Target0(_l.ContactTo[c]) + Target1(_l.ContactTo[c])) / 2;
        return watt * step;
    }

    // Where a body that is all water or all ice comes to, if it stays so.
    private double EndC(int b, double step)
    {
        if (_onlyZone[b] is >= 0 and int zone) return SimpleEndC(b, zone);
        ref readonly var s = ref _used[b];
        double end = s.E * _t[b] + s.Start * _te0[b] + s.End * SurroundingsAtEnd(b);
        return _special[b] && _gSum[b] + _extraG[b] == 0 ? end + _extraW[b] * step / (_h[b] > 0 ? _wet[b] : _frozen[b]) : end;
    }

    private double SimpleEndC(int b, int zone)
    {
        ref readonly var s = ref _used[b];
        return s.E * _t[b] + s.Start * _zoneC[zone] + s.End * _zone1[zone];
    }

    // Its mean on the way there.
    private double MeanC(int b)
    {
        ref readonly var s = ref _used[b];
        return s.Phi * _t[b] + s.MeanStart * _te0[b] + s.MeanEnd * SurroundingsAtEnd(b);
    }

    private double SurroundingsAtEnd(int b)
    {
        double te = _teFixed1[b], all = _gSum[b] + (_special[b] ? _extraG[b] : 0);
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++)
            if (_l.ContactTo[c] is >= 0 and int z) te += _l.ContactG[c] / all * _zone1[z];
        return te;
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
            if (after > 0 || after < -_latent[b] || (_annulus[b] > 0 && (Math.Abs(heat) > 0.05 * _latent[b] || _stiff[b] * step > MostStiff))) return false;
        }
        else
        {
            celsius = SimpleEndC(b, zone);
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
        SettleHeaters(b, mean);
    }

    // Follows a body through a step in which it changes state, with the zones' air known. What the zones were told of it is set right with the next step.
    private void Follow(int b, double at, double step)
    {
        int first = _l.ContactStart[b], end = _l.ContactStart[b + 1], startPhase = Phase(b);
        double toldMean = 0, startH = _h[b];
        if (_onlyZone[b] is >= 0 and int alone && startPhase != 0)
            (_te0[b], _teFixed1[b]) = (_zoneC[alone], 0);
        if (startPhase != 0) toldMean = MeanC(b);
        Span<double> toldJ = end - first <= 16 ? stackalloc double[end - first] : new double[end - first];
        Span<double> gotJ = end - first <= 16 ? stackalloc double[end - first] : new double[end - first];
        Span<double> watt = end - first <= 16 ? stackalloc double[end - first] : new double[end - first];
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
                double heat = HeatIntoIce(b, time / step, IceOf(b), extra, out _);
                phase = before == 0 ? (heat > 0 ? 1 : 0) : heat < 0 ? -1 : 0;
            }
            double used;
            if (phase == 0)
            {
                double ice = IceOf(b), rate = HeatIntoIce(b, time / step, ice, extra, out double stiff);
                used = stiff > 0 ? Math.Min(left, Math.Max(MostStiff / stiff, 1e-2 * step)) : left;
                if (rate != 0) used = Math.Min(used, Math.Max(0.02 * _latent[b] / Math.Abs(rate), 1e-3 * step));
                double middle = Math.Clamp(ice - rate * used / 2 * _perLatent[b], 0, 1), t = (time + used / 2) / step, sum = extra;
                for (int c = first; c < end; c++) sum += watt[c - first] = Growth(b, _l.ContactG[c], middle) * Between(c, t);
                double toEdge = sum > 0 ? -before / sum : sum < 0 ? (-_latent[b] - before) / sum : double.PositiveInfinity;
                bool edge = toEdge <= used;
                if (edge) used = Math.Max(toEdge, 1e-12);
                for (int c = first; c < end; c++) gotJ[c - first] += watt[c - first] * used;
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

    // Watts into a body with so much ice at a share of the step, and how fast they draw it to a balance, 1/s.
    private double HeatIntoIce(int b, double t, double ice, double extra, out double stiff)
    {
        double sum = extra, slope = 0;
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++)
        {
            double g = Growth(b, _l.ContactG[c], ice), watt = g * Between(c, t);
            sum += watt;
            slope -= g * watt;
        }
        stiff = Math.Max(0, slope * IceSlope(b, ice));
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
        double after = _h[b], latent = _latent[b];
        if (after < _lowestH[b]) _lowestH[b] = after;
        // All water or all ice throughout, or nothing that could freeze.
        if ((after > 0 && before > 0) || (after <= -latent && before <= -latent) || latent == 0) return;
        bool first = before >= 0 && after <= 0, blocked = before > -0.1 * latent && after <= -0.1 * latent, solid = before > -latent && after <= -latent, thawed = before < 0 && after >= 0;
        if (!(first || blocked || solid || thawed)) return;
        ref var m = ref _marks[b];
        double When(double level) => Math.Abs(after - before) < 1e-30 ? from + length : from + length * Math.Clamp((level - before) / (after - before), 0, 1);
        if (first) m = m with { FirstIceS = Math.Min(m.FirstIceS, after == 0 ? from + length : When(0)), ThawedS = double.PositiveInfinity };
        if (blocked) m = m with { BlockedS = Math.Min(m.BlockedS, When(-0.1 * latent)) };
        if (solid) m = m with { SolidS = Math.Min(m.SolidS, When(-latent)) };
        if (thawed) m = m with { ThawedS = When(0) };
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
