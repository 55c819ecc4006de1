namespace WarmConduit.Core.Heat.Night;

// Heaters: those of zones are part of the zones' equations, those of bodies stand still for a step. Zones' come first in the numbering.
internal sealed partial class NightRun
{
    private enum HeaterState
    {
        Off,

        // Between off and full, in proportion.
        InBand,
        Full,

        // What its limit leaves of a step.
        Rest,
    }

    private readonly double[] _givenJ, _powerW;
    private readonly HeaterState[] _state;
    private readonly double[][] _wh;

    // Off to full and back over the band, W/K, about the temperature at which it goes off.
    private static double BandWPerK(NightHeater heater) => heater.PowerW / heater.BandK;

    private static double OffC(NightHeater heater) => heater.SetpointC + heater.BandK / 2;

    private double LeftJ(int n) => _l.Heaters[n].Heater.LimitWh * 3600 - _givenJ[n];

    // Watts over a step in which what the heater senses was at `mean` on average; of a rest, what was set before.
    private double PowerW(int n, HeaterState state, double mean) => state switch
    {
        HeaterState.Off => 0,
        HeaterState.InBand => BandWPerK(_l.Heaters[n].Heater) * (OffC(_l.Heaters[n].Heater) - mean),
        HeaterState.Full => _l.Heaters[n].Heater.PowerW,
        _ => _powerW[n],
    };

    private HeaterState StateOf(NightHeater heater, int n, double at, double celsius)
    {
        if (!Runs(heater, n, at)) return HeaterState.Off;
        double share = (OffC(heater) - celsius) / heater.BandK;
        return share <= 0 ? HeaterState.Off : share >= 1 ? HeaterState.Full : HeaterState.InBand;
    }

    // Share of a step after which a zone comes to where its heater turns, or a heater's limit is spent; 1: not within it.
    private double ZoneHeaterEvent(double at, double step)
    {
        double share = 1;
        for (int n = 0; n < _l.BodyHeaterStart[0]; n++)
        {
            int z = _l.Heaters[n].Owner;
            double end = EndWeight(n, z, step);
            share = Math.Min(share, Turns(n, at, step, _zoneC[z], _zone1[z], (1 - end) * _zoneC[z] + end * _zone1[z], beyond: 0));
        }
        return share;
    }

    // The same of bodies, which are not mended: what goes beyond the edge by a fiftieth of the band counts.
    private double BodyHeaterEvent(double at, double step)
    {
        double share = 1;
        for (int n = _l.BodyHeaterStart[0]; n < _l.Heaters.Length; n++)
        {
            int b = _l.Heaters[n].Owner;
            double end = Phase(b) == 0 ? _t[b] : EndC(b, step);
            share = Math.Min(share, Turns(n, at, step, _t[b], end, (_t[b] + end) / 2, beyond: 0.02 * _l.Heaters[n].Heater.BandK));
        }
        return share;
    }

    // Of one heater, whose owner goes from one temperature to another, straight.
    private double Turns(int n, double at, double step, double from, double to, double mean, double beyond)
    {
        var heater = _l.Heaters[n].Heater;
        if (!Runs(heater, n, at)) return 1;
        double share = 1, given = PowerW(n, _state[n], mean) * step;
        if (_state[n] != HeaterState.Rest && given > LeftJ(n)) share = LeftJ(n) / given;
        foreach (double edge in (ReadOnlySpan<double>)[OffC(heater), OffC(heater) - heater.BandK])
            if ((from - edge) * (to - edge) < 0 && Math.Abs(to - edge) > beyond) share = Math.Min(share, (edge - from) / (to - from));
        return share;
    }

    private bool Runs(NightHeater heater, int n, double at) => at >= heater.FromS - 1e-6 && at < heater.ToS - 1e-6 && heater.PowerW > 0 && _givenJ[n] < heater.LimitWh * 3600;

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
            double end = EndWeight(n, z, step);
            double mean = (1 - end) * _zoneC[z] + end * _zone1[z];
            var state = _state[n] == HeaterState.Rest || keep ? _state[n] : StateOf(heater, n, at, mean);
            // From off to full and back a narrow band would be jumped over: it is tried first.
            if ((state, _state[n]) is (HeaterState.Off, HeaterState.Full) or (HeaterState.Full, HeaterState.Off) && StateOf(heater, n, at, heater.SetpointC) == HeaterState.InBand)
                state = HeaterState.InBand;
            _powerW[n] = PowerW(n, state, mean);
            double left = LeftJ(n);
            if (!keep && state is HeaterState.InBand or HeaterState.Full && _powerW[n] * step > left) (state, _powerW[n]) = (HeaterState.Rest, left / step);
            changed |= state != _state[n];
            _state[n] = state;
        }
        return changed;
    }

    private void AddZoneHeaters(double step)
    {
        for (int n = 0; n < _l.BodyHeaterStart[0]; n++)
        {
            var (_, z, _, heater) = _l.Heaters[n];
            double g = BandWPerK(heater);
            if (_state[n] == HeaterState.InBand)
            {
                double end = EndWeight(n, z, step);
                _matrix[z, z] += g * end;
                _rhs[z] += g * (OffC(heater) - (1 - end) * _zoneC[z]);
            }
            else if (_state[n] == HeaterState.Full) _rhs[z] += heater.PowerW;
            else if (_state[n] == HeaterState.Rest) _rhs[z] += _powerW[n];
        }
    }

    private void AddBodyHeaters(int b, double at, double step, double ahead)
    {
        for (int n = _l.BodyHeaterStart[b]; n < _l.BodyHeaterStart[b + 1]; n++)
        {
            var heater = _l.Heaters[n].Heater;
            _state[n] = StateOf(heater, n, at, ahead);
            // What it may come to give, with a fifth to spare for a guess that is off.
            double left = LeftJ(n), most = Math.Min(heater.PowerW, 1.2 * PowerW(n, _state[n], ahead));
            if (_state[n] != HeaterState.Off && left < most * step) (_state[n], _powerW[n]) = (HeaterState.Rest, left / step);
            if (_state[n] == HeaterState.Full) _extraW[b] += heater.PowerW;
            else if (_state[n] == HeaterState.Rest) _extraW[b] += _powerW[n];
            else if (_state[n] == HeaterState.InBand)
            {
                double g = BandWPerK(heater), t = OffC(heater);
                _extraT[b] = (_extraT[b] * _extraG[b] + t * g) / (_extraG[b] + g);
                _extraG[b] += g;
            }
        }
    }

    private void SettleHeaters(int b, double mean)
    {
        for (int n = _l.BodyHeaterStart[b]; n < _l.BodyHeaterStart[b + 1]; n++) _powerW[n] = PowerW(n, _state[n], mean);
    }

    // A thermostat with a narrow band answers faster than a step: then the end of the step counts for more than its start, or it would swing. A half otherwise.
    private double EndWeight(int n, int z, double step) =>
        _l.Heaters[n].Heater.PowerW > 0 ? Math.Max(0.5, 1 - _capacity[z] / (BandWPerK(_l.Heaters[n].Heater) * step)) : 0.5;

    private void AccountHeaters(double at, double step)
    {
        for (int n = 0; n < _powerW.Length; n++)
        {
            double joule = _powerW[n] * step;
            _givenJ[n] += joule;
            _heatersJ += joule;
            _turnoverJ += Math.Abs(joule);
            _wh[n][Math.Min((int)((at + step / 2) / 3600), _wh[n].Length - 1)] += joule / 3600;
        }
    }
}
