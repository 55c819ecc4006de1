using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice;

/// <summary>What a finding is about.</summary>
public enum FindingKind
{
    /// <summary>Water stays in a pool.</summary>
    Pool,

    /// <summary>A part keeps its water by design.</summary>
    KeepsWater,

    /// <summary>Ice before morning.</summary>
    FirstIce,

    /// <summary>A run flatter than the least fall.</summary>
    FlatRun,
}

/// <summary>How much a finding weighs by the rules of the school the rig has chosen.</summary>
public enum Weight
{
    /// <summary>The design fails by it.</summary>
    Fault,

    /// <summary>It needs a hand, or luck.</summary>
    Warning,

    /// <summary>Worth knowing.</summary>
    Note,
}

/// <summary>Something the studies found, with its place, its number and its reason.</summary>
/// <param name="Id">Stable as long as the cause is.</param>
/// <param name="Kind">What it is about.</param>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Title">What, where.</param>
/// <param name="Number">The number that measures it.</param>
/// <param name="Reason">Why, with values.</param>
/// <param name="Place">Where to look.</param>
/// <param name="RunIds">Runs it concerns.</param>
/// <param name="Why">How the number came about.</param>
public sealed record Finding(
    string Id, FindingKind Kind, Weight Weight, string Title, Measure Number, Sentence Reason, Place Place, IReadOnlyList<string> RunIds, Why Why);
