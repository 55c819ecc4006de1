namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>Follows a body through a step in which it changes state, in parts, with the zones' air known.</summary>
internal sealed class BodyFollower(StepAir air, Zones zones, BodyState state, BodyExtras extras, BodyContacts contacts, HeatLedger ledger)
{
    /// <summary>Steps longer than this share of the time ice takes to come to a balance are followed in parts.</summary>
    public const double MostStiff = 0.5;

    private const int MostParts = 200;

    /// <summary>
    /// Takes body <paramref name="b"/> to the end of the step; gives its mean. The zones were told that it was at <paramref name="toldC"/> on average, with
    /// contacts of
    /// <paramref name="toldG"/> W/K (empty: as they are); what that differs from what it took is handed on to them.
    /// </summary>
    public double Follow(int b, in NightStep step, ReadOnlySpan<double> toldG, double toldC)
    {
        int first = contacts.First(b), count = contacts.End(b) - first;
        Span<double> toldJ = count <= 16 ? stackalloc double[count] : new double[count];
        Span<double> gotJ = count <= 16 ? stackalloc double[count] : new double[count];
        gotJ.Clear();
        for (int c = 0; c < count; c++)
            toldJ[c] = (toldG.IsEmpty ? contacts.WPerK(first + c) : toldG[c]) * (air.MeanC(contacts.To(first + c)) - toldC) * step.LengthS;

        double startH = state.H[b], time = 0, meanJ = 0;
        for (int guard = 0; guard < MostParts && time < step.LengthS - 1e-9; guard++)
        {
            double before = state.H[b];
            int phase = PhaseAhead(b, time / step.LengthS);
            double used = phase == 0 ? GrowIce(b, time, step.LengthS, gotJ) : GoPlain(b, phase, time, step.LengthS, gotJ, ref meanJ);
            state.Mark(b, step.AtS + time, used, before);
            time += used;
        }
        state.C[b] = state.CelsiusAt(b, state.H[b]);

        double mean = meanJ / step.LengthS, brought = (extras.Watt(b) - (extras.WPerK(b) + contacts.NeighboursWPerK(b)) * mean) * step.LengthS;
        for (int c = 0; c < count; c++)
        {
            brought += gotJ[c];
            if (contacts.To(first + c) is >= 0 and int z) zones.HandOn(z, toldJ[c] - gotJ[c]);
            else ledger.Boundary(gotJ[c]);
        }
        // Edges are met to a millionth of the step; what that leaves goes where the balance sees it.
        double leftOver = brought - (state.H[b] - startH);
        if (count > 0 && contacts.To(first) is >= 0 and int zone) zones.HandOn(zone, leftOver);
        else ledger.Boundary(-leftOver);
        return mean;
    }

    // At an edge the way the heat goes decides.
    private int PhaseAhead(int b, double share)
    {
        double h = state.H[b];
        if (!(state.Latent[b] > 0 && (h == 0 || h == -state.Latent[b]))) return state.Phase(b);
        double heat = contacts.IntoIceW(b, share, state.Ice(b), extras.Watt(b), out _);
        return h == 0 ? (heat > 0 ? 1 : 0) : heat < 0 ? -1 : 0;
    }

    // A part of the step in which ice grows or melts; how long it is.
    private double GrowIce(int b, double time, double step, Span<double> gotJ)
    {
        int first = contacts.First(b);
        double before = state.H[b], ice = state.Ice(b), latent = state.Latent[b], left = step - time;
        double rate = contacts.IntoIceW(b, time / step, ice, extras.Watt(b), out double stiff);
        double used = stiff > 0 ? Math.Min(left, Math.Max(MostStiff / stiff, 1e-2 * step)) : left;
        if (rate != 0) used = Math.Min(used, Math.Max(0.02 * latent / Math.Abs(rate), 1e-3 * step));

        double middle = Math.Clamp(ice - rate * used / 2 * state.PerLatent[b], 0, 1), share = (time + used / 2) / step, sum = extras.Watt(b);
        Span<double> watt = gotJ.Length <= 16 ? stackalloc double[gotJ.Length] : new double[gotJ.Length];
        for (int c = 0; c < gotJ.Length; c++)
            sum += watt[c] = state.ThroughIce(b, contacts.WPerK(first + c), middle) * air.AtC(contacts.To(first + c), share);
        double toEdge = sum > 0 ? -before / sum : sum < 0 ? (-latent - before) / sum : double.PositiveInfinity;
        bool edge = toEdge <= used;
        if (edge) used = Math.Max(toEdge, 1e-12);
        for (int c = 0; c < gotJ.Length; c++) gotJ[c] += watt[c] * used;
        // Just over the edge, so that the next part begins beyond it.
        state.H[b] = !edge ? before + sum * used : sum > 0 ? 1e-12 * state.Wet[b] : -latent - 1e-12 * state.Frozen[b];
        return used;
    }

    // A part in which it is all water or all ice; how long it is.
    private double GoPlain(int b, int phase, double time, double step, Span<double> gotJ, ref double meanJ)
    {
        int first = contacts.First(b);
        double capacity = state.CapacityJPerK(b, phase), latent = state.Latent[b], g = contacts.SumWPerK(b) + extras.WPerK(b), left = step - time;
        double now = phase == 1 ? state.H[b] / capacity : (state.H[b] + latent) / capacity;
        double start = contacts.SurroundingsC(b, time / step, extras.Watt(b), g), end = contacts.SurroundingsC(b, 1, extras.Watt(b), g);
        double used = Crossing(now, start, end, g / capacity, left, phase);
        var s = BodyStep.Of(g * used / capacity);
        double usedEnd = start + (end - start) * used / left;
        double then = s.E * now + s.Start * start + s.End * usedEnd, mean = s.Phi * now + s.MeanStart * start + s.MeanEnd * usedEnd;
        for (int c = 0; c < gotJ.Length; c++)
        {
            int to = contacts.To(first + c);
            gotJ[c] += contacts.WPerK(first + c) * ((air.AtC(to, time / step) + air.AtC(to, (time + used) / step)) / 2 - mean) * used;
        }
        meanJ += mean * used;
        if (used >= left) state.H[b] = state.EnthalpyAt(b, phase, then);
        else if (latent > 0) state.H[b] = phase > 0 ? 0 : -latent;
        else state.H[b] = phase > 0 ? -1e-12 * state.Frozen[b] : 1e-12 * state.Wet[b];
        return used;
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
}
