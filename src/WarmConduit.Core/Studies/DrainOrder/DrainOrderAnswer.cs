using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>What kind of thing a step of the draining is.</summary>
public enum DrainStepKind
{
    /// <summary>A drain is opened.</summary>
    Drain,

    /// <summary>All taps are opened.</summary>
    Taps,

    /// <summary>Something is done by hand.</summary>
    Hand,
}

/// <summary>A step of the draining.</summary>
/// <param name="Id">Its id: that of its part, or "taps".</param>
/// <param name="Kind">What kind of thing it is.</param>
/// <param name="Words">What is done.</param>
/// <param name="PartIds">Parts that are opened or handled.</param>
/// <param name="OutL">What comes out, L.</param>
/// <param name="StaysL">What stays in the rig after it, L.</param>
/// <param name="ShortestS">How long it runs if only its own opening slows it, s; null where next to nothing comes.</param>
/// <param name="LongestS">How long with the friction of the whole way too, s. Estimate.</param>
/// <param name="Reach">How it is reached; null where no access is drawn in the rig.</param>
/// <param name="Needed">Something comes out, or stays, because of it.</param>
/// <param name="Why">Why it comes here.</param>
public sealed record DrainStep(
    string Id, DrainStepKind Kind, Sentence Words, IReadOnlyList<string> PartIds, double OutL, double StaysL, double? ShortestS, double? LongestS,
    string? Reach, bool Needed, string Why);

/// <summary>What stays when one thing is forgotten.</summary>
/// <param name="PartId">The part.</param>
/// <param name="Words">What is forgotten.</param>
/// <param name="MoreL">More than with nothing forgotten, L.</param>
/// <param name="Where">Where most of it stays; null where nothing more does.</param>
public sealed record Forgotten(string PartId, string Words, double MoreL, string? Where);

/// <summary>A draining order that works: each opening in turn, with what comes out and what stays.</summary>
/// <param name="Steps">In order.</param>
/// <param name="FullL">What is in the rig before the first, L.</param>
/// <param name="Stays">What stays after the last: what the drain-down tells.</param>
/// <param name="WalkM">Way from opening to opening, m, in a straight line each.</param>
/// <param name="ShortestS">How long it all takes, s, at least: water running, and 15 s of handling a step.</param>
/// <param name="LongestS">At most, s. Estimate.</param>
/// <param name="Air">Water that is airlocked even when all is open.</param>
/// <param name="Forgets">What each step leaves if it is forgotten, the worst first.</param>
public sealed record DrainOrderAnswer(
    IReadOnlyList<DrainStep> Steps, double FullL, Stays Stays, double WalkM, double ShortestS, double LongestS, IReadOnlyList<AirHold> Air,
    IReadOnlyList<Forgotten> Forgets);

/// <summary>The rig part way through its draining.</summary>
/// <param name="Count">After this many steps.</param>
/// <param name="DrainDown">What stays then, and where.</param>
public sealed record AfterStepAnswer(int Count, DrainDownAnswer DrainDown);
