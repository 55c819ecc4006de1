using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Cold;

/// <summary>What a set of measures is to spare.</summary>
public enum HoldBy
{
    /// <summary>Hours of work.</summary>
    Effort,

    /// <summary>Money, at the builder's prices.</summary>
    Money,

    /// <summary>Heat that the night takes, of whatever kind, Wh.</summary>
    Energy,
}

/// <summary>What is to be held, and on which night.</summary>
/// <param name="HoldC">All that holds water stays at this or above, °C, 0 to 30.</param>
/// <param name="OutdoorC">Outdoors, °C; left out: the brief's lowest.</param>
/// <param name="WindMPerS">Wind, m/s; left out: the brief's.</param>
/// <param name="Hours">For how long, h; left out: as the night that is asked about.</param>
/// <param name="By">What is spared.</param>
/// <param name="Quick">A first answer, with less looked at.</param>
public sealed record HoldInput(
    double HoldC = TradeConstants.HoldC, double? OutdoorC = null, double? WindMPerS = null, double? Hours = null, HoldBy By = HoldBy.Effort,
    bool Quick = false) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c =>
    {
        c.Range("holdC", HoldC, "hold.holdC");
        c.Range("outdoorC", OutdoorC, "night.outdoorC");
        c.Range("windMPerS", WindMPerS, "night.windMPerS");
        c.Range("hours", Hours, "night.hours");
        if (!Enum.IsDefined(By)) c.Add("by", "this is not known");
    });

    /// <summary>The night: full, with heat, in steady weather, and nothing planned.</summary>
    internal Conditions Night(Question question) => question.Conditions.Happening(null) with
    {
        OutdoorC = OutdoorC ?? question.Rig.Brief.LowestC,
        WindMPerS = WindMPerS ?? question.Rig.Brief.WindMPerS,
        Hours = Hours ?? question.Conditions.Hours,
        Weather = null,
        HeatOn = true,
        Water = WaterState.Wet,
    };
}

/// <summary>A measure of the set.</summary>
/// <param name="Words">What is done.</param>
/// <param name="Why">What falls below, and how far, where it alone is left out.</param>
/// <param name="EffortH">Work, h. Estimate.</param>
/// <param name="Money">At the builder's prices; null: no price is known.</param>
public sealed record HeldBy(Sentence Words, Sentence Why, double EffortH, double? Money);

/// <summary>The cheapest set of measures found that holds all that holds water. All figures are estimates.</summary>
/// <param name="Holds">It holds; else it is what comes nearest.</param>
/// <param name="Words">How it stands, in words.</param>
/// <param name="Pieces">The measures; without any one of them it does not hold.</param>
/// <param name="Cost">What they cost by what is spared: h, money, or Wh of the night.</param>
/// <param name="Bound">No set of what was tried costs less, as long as no measure harms another; null: not known.</param>
/// <param name="Band">How cold the coldest gets, with what is guessed on its cold and its warm side, in words.</param>
/// <param name="HeatBeforeWh">Heat that the night takes now, Wh.</param>
/// <param name="HeatAfterWh">And with them.</param>
/// <param name="Left">What they do not hold, in words.</param>
/// <param name="Edits">The edits of all of them.</param>
/// <param name="Effect">What they do to the document; null: nothing.</param>
/// <param name="Tried">How many nights were tried.</param>
public sealed record HoldAnswer(
    bool Holds, Sentence Words, IReadOnlyList<HeldBy> Pieces, double Cost, double? Bound, Sentence Band, double HeatBeforeWh, double HeatAfterWh,
    IReadOnlyList<Sentence> Left, IReadOnlyList<Edit> Edits, Effect? Effect, int Tried);
