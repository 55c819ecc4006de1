namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>The zones: heat capacities, what they exchange with outdoors and each other, and what bodies handed on to them.</summary>
internal sealed class Zones
{
    // A step is at most so many times as long as a zone takes to answer, but need not be shorter than the least.
    public const double Answers = 2, ShortestStepS = 1;

    private readonly NightLayout _layout;
    private readonly StepAir _air;
    private readonly HeatLedger _ledger;

    // As given: to outdoors, more by wind, and to the bodies in it.
    private readonly double[] _outdoorG, _windG, _contactG;
    private readonly double[] _outdoorFactor, _linkFactor, _handedOnJ;
    private readonly double _mostWind;
    private double _raisedJ;
    private int _event;

    public readonly double[] CapacityJPerK;
    public readonly Openings Openings;

    public Zones(NightLayout layout, StepAir air, HeatLedger ledger)
    {
        (_layout, _air, _ledger, Openings) = (layout, air, ledger, new Openings(layout, air));
        var zones = layout.Network.Zones;
        CapacityJPerK = [.. zones.Select(z => z.HeatCapacityJPerK)];
        _outdoorG = [.. zones.Select(z => z.OutdoorWPerK)];
        _windG = [.. zones.Select(z => z.OutdoorWPerKPerMPerS)];
        (_outdoorFactor, _linkFactor, _handedOnJ, _contactG) = (new double[zones.Count], new double[layout.Links.Length], [.. zones.Select(z => z.HandedOnJ)], new double[zones.Count]);
        Array.Fill(_outdoorFactor, 1);
        Array.Fill(_linkFactor, 1);
        _mostWind = layout.Network.WindMPerS.Value.Max();
        for (int c = 0; c < layout.ContactTo.Length; c++)
            if (layout.ContactTo[c] is >= 0 and int z) _contactG[z] += layout.ContactG[c];
    }

    /// <summary>Heat in the air and linings, and on its way there, less what <see cref="RaiseCapacities"/> added, J.</summary>
    public double StoredJ()
    {
        double sum = -_raisedJ;
        for (int z = 0; z < CapacityJPerK.Length; z++) sum += CapacityJPerK[z] * _air.ZoneStartC[z] + _handedOnJ[z];
        return sum;
    }

    public IReadOnlyList<double> HandedOnJ => _handedOnJ;

    /// <summary>Heat a zone is to be given with the next step.</summary>
    public void HandOn(int z, double joule) => _handedOnJ[z] += joule;

    /// <summary>Sets what events up to <paramref name="t"/> change.</summary>
    public void ApplyEvents(double t)
    {
        for (; _event < _layout.Events.Length && _layout.Events[_event].TimeS <= t + 1e-6; _event++)
        {
            var (_, a, b, factor) = _layout.Events[_event];
            if (b < 0) _outdoorFactor[a] = factor;
            for (int link = 0; link < _layout.Links.Length; link++)
                if ((_layout.Links[link].A == a && _layout.Links[link].B == b) || (_layout.Links[link].A == b && _layout.Links[link].B == a))
                    _linkFactor[link] = factor;
            Openings.SetFactor(a, b, factor);
        }
    }

    /// <summary>All but bodies, openings and heaters.</summary>
    public void AddTo(ZoneEquations equations, double step)
    {
        Array.Clear(equations.Matrix);
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            double c = CapacityJPerK[z] / step, out_ = OutdoorWPerK(z, _air.WindMPerS);
            equations.Matrix[z, z] = c + out_ / 2;
            equations.Side[z] = (c - out_ / 2) * _air.ZoneStartC[z] + out_ * _air.MeanC(_layout.OutdoorOf[z]) + _handedOnJ[z] / step;
        }
        for (int i = 0; i < _layout.Links.Length; i++) equations.Join(_layout.Links[i].A, _layout.Links[i].B, _layout.Links[i].G * _linkFactor[i], _air.ZoneStartC);
    }

    /// <summary>Books what outdoors gave over a step that is solved; what was handed on is now in the air.</summary>
    public void Account(double step)
    {
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            _ledger.Boundary(OutdoorWPerK(z, _air.WindMPerS) * (_air.MeanC(_layout.OutdoorOf[z]) - _air.MeanC(z)) * step);
            _handedOnJ[z] = 0;
        }
        Openings.Account(_ledger, step);
    }

    /// <summary>What a kelvin in the zone moves, W/K, as things stand.</summary>
    public double ConductanceOf(int z)
    {
        double g = _contactG[z] + OutdoorWPerK(z, _mostWind);
        for (int i = 0; i < _layout.Links.Length; i++)
            if (_layout.Links[i].A == z || _layout.Links[i].B == z) g += _layout.Links[i].G * _linkFactor[i];
        Openings.AddConductance(z, ref g);
        return g;
    }

    /// <summary>
    /// A zone that would answer within half a second, openings at their widest difference, is taken to answer in that from here on: no ice hangs on it, and the shortest step
    /// keeps up with it. What the zone then holds more was not brought by anything.
    /// </summary>
    public void RaiseCapacities()
    {
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            double g = ConductanceOf(z);
            Openings.AddMostConductance(z, _mostWind, ref g);
            double more = g * ShortestStepS / Answers - CapacityJPerK[z];
            if (more <= 0) continue;
            CapacityJPerK[z] += more;
            _raisedJ += more * _air.ZoneStartC[z];
        }
    }

    private double OutdoorWPerK(int z, double wind) => (_outdoorG[z] + _windG[z] * wind) * _outdoorFactor[z];
}
