namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>The contacts of bodies: conductances, and what comes through them at a share of the step, straight between its ends.</summary>
internal sealed class BodyContacts
{
    private readonly NightLayout _layout;
    private readonly StepAir _air;
    private readonly BodyState _state;

    // All contacts of a body, those to neighbours too; and those alone.
    private readonly double[] _sum, _neighbours;

    // The zone of bodies that touch one zone and nothing else, -1 of others.
    private readonly int[] _onlyZone;
    private readonly bool[] _touchesBoundary;

    public BodyContacts(NightLayout layout, StepAir air, BodyState state, BodyExtras extras)
    {
        (_layout, _air, _state) = (layout, air, state);
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
    }

    public int First(int b) => _layout.ContactStart[b];

    public int End(int b) => _layout.ContactStart[b + 1];

    public int To(int contact) => _layout.ContactTo[contact];

    public double WPerK(int contact) => _layout.ContactG[contact];

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
