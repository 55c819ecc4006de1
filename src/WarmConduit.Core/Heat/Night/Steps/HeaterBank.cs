namespace WarmConduit.Core.Heat.Night.Steps;

internal enum HeaterState
{
    Off,

    /// <summary>Between off and full, in proportion.</summary>
    InBand,
    Full,

    /// <summary>What its limit leaves of a step.</summary>
    Rest,

    /// <summary>In proportion to what it senses elsewhere, as that is foreseen.</summary>
    Set,
}

/// <summary>All heaters, those of zones first: the state each has over the step at hand, and what it gave.</summary>
internal sealed class HeaterBank
{
    private readonly NightLayout _layout;
    private readonly HeatLedger _ledger;
    private readonly double[] _givenJ;

    public readonly HeaterState[] State;
    public readonly double[] PowerW;

    public HeaterBank(NightLayout layout, HeatLedger ledger)
    {
        (_layout, _ledger) = (layout, ledger);
        int count = layout.Heaters.Length, hours = (int)Math.Ceiling(layout.Network.EndS / 3600);
        (_givenJ, PowerW, State) = (new double[count], new double[count], new HeaterState[count]);
        WhByHour = [.. layout.Heaters.Select(_ => new double[hours])];
    }

    public double[][] WhByHour { get; }

    public int ZoneHeaters => _layout.BodyHeaterStart[0];

    public bool AnySpent => Array.IndexOf(State, HeaterState.Rest) >= 0;

    public NightHeater this[int n] => _layout.Heaters[n].Heater;

    /// <summary>The zone or body it heats, and senses where <see cref="NightLayout.Sensed"/> does not say otherwise.</summary>
    public int Owner(int n) => _layout.Heaters[n].Owner;

    /// <summary>Off to full and back over the band, W/K, about the temperature at which it goes off.</summary>
    public static double BandWPerK(NightHeater heater) => heater.PowerW / heater.BandK;

    public static double OffC(NightHeater heater) => heater.SetpointC + heater.BandK / 2;

    public double LeftJ(int n) => this[n].LimitWh * 3600 - _givenJ[n];

    /// <summary>Watts over a step in which what the heater senses was at <paramref name="mean"/> on average; of a rest, and of one that senses
    /// elsewhere, what was set before.</summary>
    public double PowerAtW(int n, HeaterState state, double mean) => state switch
    {
        HeaterState.Off => 0,
        HeaterState.InBand => BandWPerK(this[n]) * (OffC(this[n]) - mean),
        HeaterState.Full => this[n].PowerW,
        _ => PowerW[n],
    };

    public HeaterState StateAt(int n, double at, double celsius)
    {
        if (!Runs(n, at)) return HeaterState.Off;
        double share = (OffC(this[n]) - celsius) / this[n].BandK;
        return share <= 0 ? HeaterState.Off : share >= 1 ? HeaterState.Full : HeaterState.InBand;
    }

    /// <summary>
    /// Share of a step after which its limit is spent, or what it senses, going straight from one temperature to another, comes to where it turns (and goes
    /// <paramref name="beyond"/> K past); 1: not within it.
    /// </summary>
    public double Turns(int n, in NightStep step, double from, double to, double mean, double beyond)
    {
        if (!Runs(n, step.AtS)) return 1;
        double share = 1, given = PowerAtW(n, State[n], mean) * step.LengthS;
        if (State[n] != HeaterState.Rest && given > LeftJ(n)) share = LeftJ(n) / given;
        foreach (double edge in (ReadOnlySpan<double>)[OffC(this[n]), OffC(this[n]) - this[n].BandK])
            if ((from - edge) * (to - edge) < 0 && Math.Abs(to - edge) > beyond) share = Math.Min(share, (edge - from) / (to - from));
        return share;
    }

    /// <summary>Books a step.</summary>
    public void Account(in NightStep step)
    {
        for (int n = 0; n < PowerW.Length; n++)
        {
            double joule = PowerW[n] * step.LengthS;
            _givenJ[n] += joule;
            _ledger.Heater(joule);
            WhByHour[n][Math.Min((int)((step.AtS + step.LengthS / 2) / 3600), WhByHour[n].Length - 1)] += joule / 3600;
        }
    }

    private bool Runs(int n, double at) => at >= this[n].FromS - 1e-6 && at < this[n].ToS - 1e-6 && this[n].PowerW > 0 && _givenJ[n] < this[n].LimitWh * 3600;
}
