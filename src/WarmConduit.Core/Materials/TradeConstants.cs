namespace WarmConduit.Core.Materials;

/// <summary>Numbers of the trade that more than one question uses. Each stands here once.</summary>
public static class TradeConstants
{
    /// <summary>Standard gravity, m/s².</summary>
    public const double GravityMPerS2 = 9.80665;

    /// <summary>Heat in a litre of diesel, Wh.</summary>
    public const double DieselWhPerL = 10_000;

    /// <summary>What of a fuel's heat a heater gives, where nothing better is known. Estimate.</summary>
    public const double HeaterEfficiency = 0.8;

    /// <summary>Temperature that water is kept at or above to be safe from frost, °C.</summary>
    public const double HoldC = 5;

    /// <summary>Hottest water at an outlet without a scald risk, °C.</summary>
    public const double HottestOutletC = 49;

    /// <summary>Pressure at which a pump for 12 V usually starts, bar. Estimate.</summary>
    public const double PumpCutInBar = 1.4;

    /// <summary>Pressure at which it usually stops, bar. Estimate.</summary>
    public const double PumpCutOutBar = 2.0;

    /// <summary>How far below cut-in one school sets the air of an accumulator, bar.</summary>
    public const double PrechargeBelowBar = 0.2;

    /// <summary>Near freezing: water colder than this is close to its first ice, °C.</summary>
    public const double NearFreezingC = 4;

    /// <summary>Warm water begins here, °C.</summary>
    public const double WarmC = 25;

    /// <summary>Hot water begins here, °C.</summary>
    public const double HotC = 45;

    /// <summary>A pool with less than this is not named, litres.</summary>
    public const double LeastPoolL = 0.002;

    /// <summary>A cup left in a tank has room to freeze: less than this in a vessel is not named, litres.</summary>
    public const double LeastInVesselL = 0.25;

    /// <summary>A run that keeps less than this runs dry, litres.</summary>
    public const double DryRunL = 0.0005;

    /// <summary>Less than this share of what a part holds is what clings to its walls, and harms nothing.</summary>
    public const double DryShare = 0.01;

    /// <summary>Ice breaks a vessel that is fuller than this share.</summary>
    public const double FullShare = 0.9;

    /// <summary>Least fall that is tolerated where the brief's own is not reached, m/m.</summary>
    public const double ToleratedFall = 0.01;
}
