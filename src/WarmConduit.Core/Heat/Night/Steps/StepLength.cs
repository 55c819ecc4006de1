namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>How long a step may be, and where something happens that it should end at.</summary>
internal sealed class StepLength
{
    public const double ShortestS = 0.05;

    // What a zone may be told wrong by a body that changes state within a step, K; and the difference to it at which a body may come to that.
    private const double ToldWrongK = 0.05, HeavyK = 10;

    private const double HoverK = 0.5, HoverS = 112.5;

    private readonly StepAir _air;
    private readonly Zones _zones;
    private readonly ZoneHeaters _zoneHeaters;
    private readonly BodyState _state;
    private readonly BodyContacts _contacts;
    private readonly BodyExtras _extras;
    private readonly BodyHeat _bodies;
    private readonly Circuits _circuits;

    // Greatest step but for what zones ask.
    private readonly double _bodiesS;

    // Bodies that can matter to a zone when they change state within a step, and those that touch another.
    private readonly int[] _heavy;

    /// <summary>Throws <see cref="HeatNetworkException"/> for two bodies joined so closely that no step is short enough.</summary>
    public StepLength(NightLayout layout, double mostS, StepAir air, Zones zones, ZoneHeaters zoneHeaters, BodyState state, BodyContacts contacts,
        BodyExtras extras, BodyHeat bodies, Circuits circuits)
    {
        (_air, _zones, _zoneHeaters, _state, _contacts, _extras, _bodies, _circuits) = (air, zones, zoneHeaters, state, contacts, extras, bodies, circuits);
        _bodiesS = mostS;
        // Neighbours see each other's foreseen mean, which holds only while a step is short against the smaller one's answer.
        foreach (var (a, b, g) in layout.Neighbours)
        {
            if (g == 0) continue;
            double step = 0.4 * Math.Min(Math.Min(state.Wet[a], state.Wet[b]), Math.Min(state.Frozen[a], state.Frozen[b])) / g;
            if (step < ShortestS)
                throw new HeatNetworkException(layout.Network.Bodies[a].Id, "its conductance to its neighbour is too large: make the two one body");
            _bodiesS = Math.Min(_bodiesS, step);
        }
        _heavy = [.. Enumerable.Range(0, layout.BodyCount).Where(b => state.Latent[b] > 0 && (extras.Joined[b] || MovesAZone(b, HeavyK, _bodiesS)))];
    }

    /// <summary>The trapezoidal rule would swing about a zone's answer with steps much longer than that takes.</summary>
    public double GreatestS()
    {
        double step = _bodiesS;
        for (int z = 0; z < _zones.CapacityJPerK.Length; z++)
        {
            double g = Math.Max(_zones.ConductanceOf(z) + _circuits.ConductanceOf(z), 1e-9);
            step = Math.Min(step, Math.Max(Zones.ShortestStepS, Zones.Answers * _zones.CapacityJPerK[z] / g));
        }
        if (Hovers()) step = Math.Min(step, HoverS);
        step = Math.Min(step, Slush());
        // Wind and openings change all the time; by halves the step does so now and then.
        return _bodiesS / Math.Pow(2, Math.Ceiling(Math.Log2(_bodiesS / step)));
    }

    // Water just over 0 °C in air that is hardly colder or warmer: some hundredths of a kelvin decide whether it has ice now or hours later.
    private bool Hovers()
    {
        for (int b = 0; b < _state.C.Length; b++)
            if (_state.C[b] < HoverK && _state.Latent[b] > 0 && _state.Phase(b) == 1
                && Math.Abs(_contacts.SurroundingsC(b, 0, _extras.Watt(b), _contacts.SumWPerK(b) + _extras.WPerK(b))) < HoverK)
                return true;
        return false;
    }

    // Antifreeze comes to its edges in short steps.
    private double Slush()
    {
        double soonest = double.PositiveInfinity;
        for (int b = 0; b < _state.C.Length; b++)
        {
            double g = _contacts.SumWPerK(b) + _extras.WPerK(b);
            soonest = Math.Min(soonest, _state.SlushS(b, _contacts.SurroundingsC(b, 0, _extras.Watt(b), g), g));
        }
        return Math.Max(HoverS, soonest / 2);
    }

    /// <summary>Share of the step to the first event in it that matters, and whether to start small after it; null when there is none, or it is as good as at
    /// an end.</summary>
    public (double Share, bool Turns)? EventWithin(in NightStep step)
    {
        // A body is to be over its edge at the end, a heater that is about to turn anyhow is mended.
        double heater = _zoneHeaters.Event(step);
        if (heater * step.LengthS < Zones.ShortestStepS) heater = 1;
        var (body, neighbours) = BodyEvent(step.LengthS);
        body = Math.Max(1.005 * Math.Min(body, _extras.HeaterEvent(step, _bodies)), Zones.ShortestStepS / step.LengthS);
        double share = Math.Min(heater, body);
        return share <= 0.98 ? (share, neighbours || heater <= body) : null;
    }

    private (double Share, bool Neighbours) BodyEvent(double step)
    {
        double share = 1;
        bool neighbours = false;
        foreach (int b in _heavy)
        {
            int phase = _state.Phase(b);
            double at, off;
            if (phase == 0)
            {
                double heat = _bodies.IntoIceJ(b, step), h = _state.H[b];
                (at, off) = (heat > 0 ? -h / heat : heat < 0 ? (-_state.Latent[b] - h) / heat : 1, double.NaN);
            }
            else
            {
                // Neither warm water in warm air nor ice in frost changes.
                if (_contacts.OnlyZone(b) is >= 0 and int z && _air.ZoneStartC[z] * phase > 0 && _air.ZoneEndC[z] * phase > 0) continue;
                double end = _bodies.EndC(b, step), now = _state.C[b];
                (at, off) = (phase > 0 ? end > 0 : end < 0) ? (1, 0) : (now / (now - end), end);
            }
            bool seen = phase == 0 && _extras.Joined[b];
            if (at < share && (seen || MovesAZone(b, off, (1 - at) * step))) (share, neighbours) = (at, seen);
        }
        return (share, neighbours);
    }

    // Whether a body can move a zone more than is to be told wrong, when it is `offK` from what it was taken for (NaN: from the zone's own temperature) for a
    // time.
    private bool MovesAZone(int b, double offK, double time)
    {
        for (int c = _contacts.First(b); c < _contacts.End(b); c++)
        {
            if (_contacts.To(c) is not (>= 0 and int z)) continue;
            double joule = _contacts.WPerK(c) * Math.Abs(double.IsNaN(offK) ? _air.ZoneEndC[z] : offK) * time;
            if (joule > ToldWrongK * (_zones.CapacityJPerK[z] + _zones.ConductanceOf(z) * time / 2)) return true;
        }
        return false;
    }
}
