namespace WarmConduit.Core.Advice;

/// <summary>How what is tried against a kind of finding is judged, and how much it weighs.</summary>
internal sealed record Harm
{
    /// <summary>No water is in it: it has to go, and may cost a cupful.</summary>
    public static readonly Harm Plain = new();

    /// <summary>It is about water: what mends it must not leave more of that.</summary>
    public static readonly Harm Water = new() { OfWater = true };

    /// <summary>It is water that stays, so many litres in so many places: half as much is help.</summary>
    public static readonly Harm Stays = new() { OfWater = true, IsWater = true, Follows = true, Helps = (was, less, _) => less > 0.5 * was };

    /// <summary>What mends it must not leave more water.</summary>
    public bool OfWater { get; private init; }

    /// <summary>It is water that stays, known by where it lies.</summary>
    public bool IsWater { get; private init; }

    /// <summary>It is water that stays, or follows from it: it is new where water is.</summary>
    public bool Follows { get; init; }

    /// <summary>Of its kind the smallest number leads, not the largest.</summary>
    public bool SoonestLeads { get; init; }

    /// <summary>How much better its number is, from what it was to what it is (null: gone), in litres.</summary>
    public Func<double, double?, double> Less { get; init; } = (_, _) => 0;

    /// <summary>Whether it is helped though it is still there: by what its number was, how much less it is, and what it is now.</summary>
    public Func<double, double, double?, bool> Helps { get; init; } = (_, _, _) => false;

    /// <summary>What each litre of its number weighs among sets of fixes, besides what it weighs by being there.</summary>
    public double PriceALitre { get; init; }
}
