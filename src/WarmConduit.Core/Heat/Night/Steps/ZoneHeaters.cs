namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>Heaters of zones, which are part of the zones' equations: their states are guessed, solved for and mended.</summary>
internal sealed class ZoneHeaters(HeaterBank bank, Zones zones, StepAir air)
{
    /// <summary>Share of a step after which a zone comes to where its heater turns, or a heater's limit is spent; 1: not within it.</summary>
    public double Event(in NightStep step)
    {
        double share = 1;
        for (int n = 0; n < bank.ZoneHeaters; n++)
        {
            int z = bank.Owner(n);
            share = Math.Min(share, bank.Turns(n, step, air.ZoneStartC[z], air.ZoneEndC[z], MeanC(n, z, step.LengthS), beyond: 0));
        }
        return share;
    }

    public void Guess(double at)
    {
        for (int n = 0; n < bank.ZoneHeaters; n++) bank.State[n] = bank.StateAt(n, at, air.ZoneStartC[bank.Owner(n)]);
    }

    /// <summary>Sets states to what the solved step asks for, or keeps them, and the watts of each; whether one changed.</summary>
    public bool Mend(in NightStep step, bool keep)
    {
        bool changed = false;
        for (int n = 0; n < bank.ZoneHeaters; n++)
        {
            double mean = MeanC(n, bank.Owner(n), step.LengthS);
            var was = bank.State[n];
            var state = was == HeaterState.Rest || keep ? was : bank.StateAt(n, step.AtS, mean);
            // From off to full and back a narrow band would be jumped over: it is tried first.
            if ((state, was) is (HeaterState.Off, HeaterState.Full) or (HeaterState.Full, HeaterState.Off)
                && bank.StateAt(n, step.AtS, bank[n].SetpointC) == HeaterState.InBand)
                state = HeaterState.InBand;
            bank.PowerW[n] = bank.PowerAtW(n, state, mean);
            double left = bank.LeftJ(n);
            if (!keep && state is HeaterState.InBand or HeaterState.Full && bank.PowerW[n] * step.LengthS > left)
                (state, bank.PowerW[n]) = (HeaterState.Rest, left / step.LengthS);
            changed |= state != was;
            bank.State[n] = state;
        }
        return changed;
    }

    public void AddTo(ZoneEquations equations, double step)
    {
        for (int n = 0; n < bank.ZoneHeaters; n++)
        {
            int z = bank.Owner(n);
            if (bank.State[n] == HeaterState.InBand)
            {
                double end = EndWeight(n, z, step), g = HeaterBank.BandWPerK(bank[n]);
                equations.Matrix[z, z] += g * end;
                equations.Side[z] += g * (HeaterBank.OffC(bank[n]) - (1 - end) * air.ZoneStartC[z]);
            }
            else if (bank.State[n] == HeaterState.Full) equations.Side[z] += bank[n].PowerW;
            else if (bank.State[n] == HeaterState.Rest) equations.Side[z] += bank.PowerW[n];
        }
    }

    private double MeanC(int n, int z, double step)
    {
        double end = EndWeight(n, z, step);
        return (1 - end) * air.ZoneStartC[z] + end * air.ZoneEndC[z];
    }

    // A thermostat with a narrow band answers faster than a step: then the end of the step counts for more than its start, or it would swing. A half otherwise.
    private double EndWeight(int n, int z, double step) =>
        bank[n].PowerW > 0 ? Math.Max(0.5, 1 - zones.CapacityJPerK[z] / (HeaterBank.BandWPerK(bank[n]) * step)) : 0.5;
}
