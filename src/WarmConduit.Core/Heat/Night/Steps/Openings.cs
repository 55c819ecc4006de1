namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>Openings between zones, W/K: guessed from the last step, mended once the step is solved.</summary>
internal sealed class Openings(NightLayout layout, StepAir air)
{
    // Exchange goes with the power 3/2 of the difference.
    private const double Slope = 1.5, WidestK = 100;

    private readonly double[] _g = new double[layout.Openings.Length], _factor = [.. layout.Openings.Select(_ => 1.0)];

    public bool Any => _g.Length > 0;

    public void SetFactor(int a, int b, double factor)
    {
        for (int o = 0; o < _g.Length; o++)
            if ((layout.Openings[o].A == a && layout.Openings[o].B == b) || (layout.Openings[o].A == b && layout.Openings[o].B == a))
                _factor[o] = factor;
    }

    /// <summary>As they stand in the middle of the step, so far as the last step foretells it.</summary>
    public void Prepare(double ahead)
    {
        for (int o = 0; o < _g.Length; o++)
        {
            var (a, b, _, _, _, _) = layout.Openings[o];
            _g[o] = WPerK(o, air.AheadC(a, ahead), air.AheadC(b, ahead));
        }
    }

    /// <summary>As they stood in the middle of the step that was solved; whether that makes a difference.</summary>
    public bool Mend()
    {
        bool changed = false;
        for (int o = 0; o < _g.Length; o++)
        {
            var (a, b, _, _, _, _) = layout.Openings[o];
            double ta = air.MeanC(a), tb = air.MeanC(b), g = WPerK(o, ta, tb);
            if (Math.Abs(g - _g[o]) * Math.Abs(ta - tb) <= 1e-3 * g * Math.Abs(ta - tb) + 1e-3) continue;
            (_g[o], changed) = (g, true);
        }
        return changed;
    }

    public void AddTo(ZoneEquations equations)
    {
        for (int o = 0; o < _g.Length; o++)
        {
            var (a, b, _, _, _, _) = layout.Openings[o];
            if (b < 0) equations.Expose(a, _g[o], air.MeanC(b), air.ZoneStartC);
            else equations.Join(a, b, _g[o], air.ZoneStartC);
        }
    }

    /// <summary>Books what outdoors gave through them over a step that is solved.</summary>
    public void Account(HeatLedger ledger, double step)
    {
        for (int o = 0; o < _g.Length; o++)
            if (layout.Openings[o].B is < 0 and var out_) ledger.Boundary(_g[o] * (air.MeanC(out_) - air.MeanC(layout.Openings[o].A)) * step);
    }

    /// <summary>Adds what a kelvin in the zone moves through them as they stand, W/K.</summary>
    public void AddConductance(int z, ref double g)
    {
        for (int o = 0; o < _g.Length; o++)
            if (layout.Openings[o].A == z || layout.Openings[o].B == z) g += Slope * _g[o];
    }

    /// <summary>The same at the widest difference there may be, and in the strongest wind.</summary>
    public void AddMostConductance(int z, double wind, ref double g)
    {
        for (int o = 0; o < _g.Length; o++)
            if (layout.Openings[o].A == z || layout.Openings[o].B == z)
                g += Slope * WPerK(o, layout.Openings[o].Above < 0 ? 0 : WidestK, layout.Openings[o].Above < 0 ? WidestK : 0, wind);
    }

    private double WPerK(int o, double ta, double tb, double? wind = null)
    {
        var (_, _, area, height, share, above) = layout.Openings[o];
        return _factor[o] * AirExchange.OpeningWPerK(area, height, ta - tb, (ta + tb) / 2, share * (wind ?? air.WindMPerS), still: above * (tb - ta) > 0);
    }
}
