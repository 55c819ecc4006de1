namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>The contacts of bodies: conductances, and what comes through them at a share of the step, straight between its ends.</summary>
internal sealed class BodyContacts
{
    private readonly NightLayout _layout;
    private readonly StepAir _air;
    private readonly BodyState _state;
    private readonly BodyExtras _extras;

    // Each contact over the step at hand, and where the surfaces of its films lie; bodies that have films, and what their other contacts come to.
    private readonly double[] _g, _surfaceShare, _plain;
    private readonly int[] _filmed;

    // All contacts of a body, those to neighbours too; and those alone.
    private readonly double[] _sum, _neighbours;

    // The zone of bodies that touch one zone and nothing else, -1 of others.
    private readonly int[] _onlyZone;
    private readonly bool[] _touchesBoundary;

    public BodyContacts(NightLayout layout, StepAir air, BodyState state, BodyExtras extras)
    {
        (_layout, _air, _state, _extras) = (layout, air, state, extras);
        int n = layout.BodyCount;
        (_sum, _neighbours, _onlyZone, _touchesBoundary) = (new double[n], new double[n], new int[n], new bool[n]);
        for (int b = 0; b < n; b++)
        {
            for (int c = First(b); c < End(b); c++)
            {
                _sum[b] += layout.ContactG[c];
                _touchesBoundary[b] |= layout.ContactTo[c] < 0;
            }
            _onlyZone[b] = End(b) - First(b) == 1 && !extras.Any(b) && layout.ContactTo[First(b)] >= 0 ? layout.ContactTo[First(b)] : -1;
        }
        foreach (var (a, b, g) in layout.Neighbours)
        {
            _sum[a] += g;
            _sum[b] += g;
            _neighbours[a] += g;
            _neighbours[b] += g;
        }
        (_g, _surfaceShare, _plain) = ((double[])layout.ContactMostG.Clone(), layout.ContactFilms.Shares(), (double[])_sum.Clone());
        for (int b = 0; b < n; b++)
            for (int c = First(b); c < End(b); c++) _sum[b] += layout.ContactMostG[c] - layout.ContactG[c];
        _filmed = [.. Enumerable.Range(0, n).Where(b => Enumerable.Range(First(b), End(b) - First(b)).Any(layout.ContactFilms.Has))];
    }

    /// <summary>
    /// Works out films for a step for which <see cref="StepAir"/> and <see cref="BodyExtras"/> are prepared: as they are in the middle of it, the body having
    /// gone there by what its contacts were before.
    /// </summary>
    public void Prepare(in NightStep step)
    {
        double wind = _air.WindMPerS;
        foreach (int b in _filmed)
        {
            int first = First(b), end = End(b), phase = _state.Phase(b);
            double celsius = _state.C[b];
            if (phase != 0 && step.LengthS > 0)
            {
                if (step.PreviousS == 0) Take(b, first, end, celsius, step.Ahead, wind);
                double all = _sum[b] + _extras.WPerK(b);
                double x = all * step.LengthS / 2 / _state.CapacityJPerK(b, phase);
                if (x > 0)
                {
                    double around = _extras.Watt(b);
                    for (int c = first; c < end; c++) around += _g[c] * _air.AheadC(To(c), step.Ahead);
                    // About e^-x: where it will be halfway is a guess anyhow.
                    celsius = around / all + (celsius - around / all) / (1 + x * (1 + x / 2));
                    // At the edge it stays until all of it has changed.
                    celsius = phase > 0 ? Math.Max(0, celsius) : Math.Min(0, celsius);
                }
            }
            Take(b, first, end, celsius, step.Ahead, wind);
        }
    }

    private void Take(int b, int first, int end, double celsius, double ahead, double wind)
    {
        double sum = _plain[b];
        for (int c = first; c < end; c++)
        {
            if (!_layout.ContactFilms.Has(c)) continue;
            double films = _layout.ContactFilms.WPerK(c, celsius, _air.AheadC(To(c), ahead), wind, _surfaceShare);
            _g[c] = _layout.ContactG[c] + films;
            sum += films;
        }
        _sum[b] = sum;
    }

    public int First(int b) => _layout.ContactStart[b];

    public int End(int b) => _layout.ContactStart[b + 1];

    public int To(int contact) => _layout.ContactTo[contact];

    /// <summary>Over the step at hand.</summary>
    public double WPerK(int contact) => _g[contact];

    /// <summary>All of a body's, neighbours included.</summary>
    public double SumWPerK(int b) => _sum[b];

    public double NeighboursWPerK(int b) => _neighbours[b];

    /// <summary>By far the commonest: one zone and nothing else. -1 for others.</summary>
    public int OnlyZone(int b) => _onlyZone[b];

    public bool TouchesBoundary(int b) => _touchesBoundary[b];

    /// <summary>Watts into a body at 0 °C with so much ice, and how fast they draw it to a balance, 1/s.</summary>
    public double IntoIceW(int b, double share, double ice, double extraW, out double stiff)
    {
        double sum = extraW, slope = 0;
        for (int c = First(b); c < End(b); c++)
        {
            double g = _state.ThroughIce(b, WPerK(c), ice), watt = g * _air.AtC(To(c), share);
            sum += watt;
            slope -= g * watt;
        }
        stiff = Math.Max(0, slope * _state.IceSlope(b, ice));
        return sum;
    }

    /// <summary>What a body with <paramref name="g"/> W/K in all would come to.</summary>
    public double SurroundingsC(int b, double share, double extraW, double g)
    {
        double sum = extraW;
        for (int c = First(b); c < End(b); c++) sum += WPerK(c) * _air.AtC(To(c), share);
        return sum / g;
    }
}
