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

    // Over the step at hand: to outdoors, what the sky takes besides (W, below 0), and through links; and where the surfaces of films lie.
    private readonly double[] _outG, _skyW, _linkG, _outerShare, _linkShare;
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
        (_outdoorFactor, _linkFactor, _handedOnJ, _contactG) = (new double[zones.Count], new double[layout.Links.Length], [.. zones.Select(z => z.HandedOnJ)],
            new double[zones.Count]);
        (_outG, _skyW, _linkG) = (new double[zones.Count], new double[zones.Count], new double[layout.Links.Length]);
        (_outerShare, _linkShare) = (layout.OuterFilms.Shares(), layout.LinkFilms.Shares());
        Array.Fill(_outdoorFactor, 1);
        Array.Fill(_linkFactor, 1);
        _mostWind = layout.Network.WindMPerS.Value.Max();
        for (int c = 0; c < layout.ContactTo.Length; c++)
            if (layout.ContactTo[c] is >= 0 and int z) _contactG[z] += layout.ContactMostG[c];
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

    /// <summary>Works out what goes to outdoors, through links and through openings over a step for which <see cref="StepAir"/> is prepared.</summary>
    public void Prepare(in NightStep step)
    {
        double outdoorC = _air.MeanC(NightLayout.Outdoors), wind = _air.WindMPerS;
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            double g = _outdoorG[z] + _windG[z] * wind, sky = 0;
            if (_layout.OuterFilms.Has(z))
            {
                var (films, skyW) = _layout.OuterFilms.UnderSky(z, _air.ZoneStartC[z], outdoorC, _air.SkyC, wind, _outerShare);
                (g, sky) = (g + films, skyW);
            }
            (_outG[z], _skyW[z]) = (g * _outdoorFactor[z], sky * _outdoorFactor[z]);
        }
        for (int i = 0; i < _linkG.Length; i++)
            _linkG[i] = (_layout.Links[i].G + _layout.LinkFilms.WPerK(i, _air.ZoneStartC[_layout.Links[i].A], outdoorC, wind, _linkShare)) * _linkFactor[i];
        Openings.Prepare(step.Ahead);
    }

    /// <summary>All but bodies, openings and heaters.</summary>
    public void AddTo(ZoneEquations equations, double step)
    {
        Array.Clear(equations.Matrix);
        Array.Clear(equations.Side);
        double outdoorC = _air.MeanC(NightLayout.Outdoors);
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            double c = CapacityJPerK[z] / step, out_ = _outG[z];
            equations.Matrix[z, z] = c + out_ / 2;
            equations.Side[z] = (c - out_ / 2) * _air.ZoneStartC[z] + out_ * outdoorC + _skyW[z] + _handedOnJ[z] / step;
        }
        for (int i = 0; i < _linkG.Length; i++) equations.Join(_layout.Links[i].A, _layout.Links[i].B, _linkG[i], _air.ZoneStartC);
    }

    /// <summary>Books what outdoors gave over a step that is solved; what was handed on is now in the air.</summary>
    public void Account(double step)
    {
        double outdoorC = _air.MeanC(NightLayout.Outdoors);
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            _ledger.Boundary((_outG[z] * (outdoorC - _air.MeanC(z)) + _skyW[z]) * step);
            _handedOnJ[z] = 0;
        }
        Openings.Account(_ledger, step);
    }

    /// <summary>What a kelvin in the zone moves over the step at hand, W/K.</summary>
    public double ConductanceOf(int z)
    {
        double g = _contactG[z] + _outG[z];
        for (int i = 0; i < _linkG.Length; i++)
            if (_layout.Links[i].A == z || _layout.Links[i].B == z) g += _linkG[i];
        Openings.AddConductance(z, ref g);
        return g;
    }

    // The same in the strongest wind.
    private double MostConductanceOf(int z)
    {
        double g = _contactG[z] + (_outdoorG[z] + _windG[z] * _mostWind + _layout.OuterFilms.MostWPerK(z, _mostWind)) * _outdoorFactor[z];
        for (int i = 0; i < _linkG.Length; i++)
            if (_layout.Links[i].A == z || _layout.Links[i].B == z) g += (_layout.Links[i].G + _layout.LinkFilms.MostWPerK(i, _mostWind)) * _linkFactor[i];
        Openings.AddMostConductance(z, _mostWind, ref g);
        return g;
    }

    /// <summary>
    /// A zone that would answer within half a second, openings at their widest difference, is taken to answer in that from here on: no ice hangs on it, and the
    /// shortest step keeps up with it. What the zone then holds more was not brought by anything.
    /// </summary>
    public void RaiseCapacities()
    {
        for (int z = 0; z < CapacityJPerK.Length; z++)
        {
            double more = MostConductanceOf(z) * ShortestStepS / Answers - CapacityJPerK[z];
            if (more <= 0) continue;
            CapacityJPerK[z] += more;
            _raisedJ += more * _air.ZoneStartC[z];
        }
    }
}
