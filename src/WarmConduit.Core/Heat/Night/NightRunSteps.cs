namespace WarmConduit.Core.Heat.Night;

/// <content>How long a step may be, and where something happens that it should end at.</content>
internal sealed partial class NightRun
{
    // A step is at most so many times as long as a zone takes to answer, but need not be shorter than the least.
    private const double ZoneAnswers = 2, ShortestZoneStepS = 1;

    private const int MostCuts = 4;

    // What a zone may be told wrong by a body that changes state within a step, K; and the difference to it at which a body may come to that.
    private const double ToldWrongK = 0.05, HeavyK = 10;

    // A zone that would answer within half a second, openings at their widest difference, is taken to answer in that from here on: no ice hangs on it, and the shortest step
    // keeps up with it. What the zone then holds more was not brought by anything.
    private void RaiseCapacities()
    {
        for (int z = 0; z < _nz; z++)
        {
            double g = ConductanceOf(z);
            for (int o = 0; o < _l.Openings.Length; o++)
                if (_l.Openings[o].A == z || _l.Openings[o].B == z) g += 1.5 * OpeningWPerK(o, 100, 0);
            double more = g * ShortestZoneStepS / ZoneAnswers - _capacity[z];
            if (more <= 0) continue;
            _capacity[z] += more;
            _raisedJ += more * _zoneC[z];
        }
    }

    // What a kelvin in the zone moves, W/K, as things stand; the exchange of an opening goes with the power 3/2 of the difference.
    private double ConductanceOf(int z)
    {
        double g = _contactG[z] + OutdoorG(z, _mostWind);
        for (int i = 0; i < _l.Links.Length; i++)
            if (_l.Links[i].A == z || _l.Links[i].B == z) g += _l.Links[i].G * _linkFactor[i];
        for (int o = 0; o < _l.Openings.Length; o++)
            if (_l.Openings[o].A == z || _l.Openings[o].B == z) g += 1.5 * _openingG[o];
        return g;
    }

    // The trapezoidal rule would swing about a zone's answer with steps much longer than that takes.
    private double GreatestStep()
    {
        double step = _bodiesStepS;
        for (int z = 0; z < _nz; z++) step = Math.Min(step, Math.Max(ShortestZoneStepS, ZoneAnswers * _capacity[z] / Math.Max(ConductanceOf(z), 1e-9)));
        // Openings change all the time; by halves the step does so now and then.
        return _l.Openings.Length == 0 ? step : _bodiesStepS / Math.Pow(2, Math.Ceiling(Math.Log2(_bodiesStepS / step)));
    }

    // Share of the step to the first event in it that matters; null when there is none, or it is as good as at an end.
    private (double Share, bool Turns)? EventWithin(double at, double step)
    {
        // A body is to be over its edge at the end, a heater that is about to turn anyhow is mended.
        double heater = ZoneHeaterEvent(at, step);
        if (heater * step < ShortestZoneStepS) heater = 1;
        var (body, neighbours) = BodyEvent(step);
        body = Math.Max(1.005 * Math.Min(body, BodyHeaterEvent(at, step)), ShortestZoneStepS / step);
        double share = Math.Min(heater, body);
        return share <= 0.98 ? (share, neighbours || heater <= body) : null;
    }

    private (double Share, bool Neighbours) BodyEvent(double step)
    {
        double share = 1;
        bool neighbours = false;
        foreach (int b in _heavy)
        {
            int phase = Phase(b);
            double at, off;
            if (phase == 0)
            {
                double heat = HeatOfIce(b, step);
                (at, off) = (heat > 0 ? -_h[b] / heat : heat < 0 ? (-_latent[b] - _h[b]) / heat : 1, double.NaN);
            }
            else
            {
                // Neither warm water in warm air nor ice in frost changes.
                if (_onlyZone[b] is >= 0 and int z && _zoneC[z] * phase > 0 && _zone1[z] * phase > 0) continue;
                double end = EndC(b, step);
                (at, off) = (phase > 0 ? end > 0 : end < 0) ? (1, 0) : (_t[b] / (_t[b] - end), end);
            }
            bool seen = phase == 0 && _joined[b];
            if (at < share && (seen || MovesAZone(b, off, (1 - at) * step))) (share, neighbours) = (at, seen);
        }
        return (share, neighbours);
    }

    // Whether a body can move a zone more than is to be told wrong, when it is `offK` from what it was taken for (NaN: from the zone's own temperature) for a time.
    private bool MovesAZone(int b, double offK, double time)
    {
        for (int c = _l.ContactStart[b]; c < _l.ContactStart[b + 1]; c++)
        {
            if (_l.ContactTo[c] is not (>= 0 and int z)) continue;
            double joule = _l.ContactG[c] * Math.Abs(double.IsNaN(offK) ? _zone1[z] : offK) * time;
            if (joule > ToldWrongK * (_capacity[z] + ConductanceOf(z) * time / 2)) return true;
        }
        return false;
    }
}
