using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>A point that goes up or down.</summary>
/// <param name="Id">Its path in the rig, as a limit names it: <c>runs/main/bends/b2</c>, <c>parts/tee-1</c>.</param>
/// <param name="Words">The point, in words.</param>
/// <param name="FromM">Invert now, m.</param>
/// <param name="ToM">Invert then, m.</param>
public sealed record HeightChange(string Id, string Words, double FromM, double ToM);

/// <summary>Points in the direction of the water that allow no more fall.</summary>
/// <param name="Points">In words, from the top.</param>
/// <param name="Places">Where they are.</param>
/// <param name="AvailableM">Height between the limits of its ends, m.</param>
/// <param name="LengthM">Its length, m.</param>
/// <param name="ForParkingM">Height that the slope of parking takes of it, m.</param>
public sealed record HeightChain(IReadOnlyList<string> Points, IReadOnlyList<Place> Places, double AvailableM, double LengthM, double ForParkingM);

/// <summary>All heights at once: every line with as much fall as the whole allows.</summary>
/// <param name="SlopeDeg">The slope of parking on which they shall still fall, degrees.</param>
/// <param name="MarginBefore">Least fall beyond that slope now, of the lengths that heights can help, m/m; negative where one climbs on it; null where no line
/// has a way out.</param>
/// <param name="MarginAfter">The same with the heights that are given, m/m; null likewise.</param>
/// <param name="Feasible">Every length falls on that slope then.</param>
/// <param name="Verdict">What that says.</param>
/// <param name="Changes">Points that go up or down, those that go farthest first.</param>
/// <param name="Edits">The edits that do it; empty where nothing is won.</param>
/// <param name="Effect">What they do to the document; null where there are none.</param>
/// <param name="BeforeL">Retained when level now, L.</param>
/// <param name="AfterL">Retained when level then, L.</param>
/// <param name="ShareBefore">Share of the slopes of parking on which it drains now.</param>
/// <param name="ShareAfter">Share then.</param>
/// <param name="Chain">The chain that allows no more; null where nothing limits.</param>
/// <param name="ToHelp">The smallest changes to what is fixed that would make it fall everywhere; empty where it does.</param>
/// <param name="DrainsNeeded">Drains that the lines fall to: the fewest that serve.</param>
/// <param name="DrainsSpare">Drains that the lines would do without.</param>
public sealed record AutoFallAnswer(
    double SlopeDeg,
    double? MarginBefore,
    double? MarginAfter,
    bool Feasible,
    Sentence Verdict,
    IReadOnlyList<HeightChange> Changes,
    IReadOnlyList<Edit> Edits,
    Effect? Effect,
    double BeforeL,
    double AfterL,
    double ShareBefore,
    double ShareAfter,
    HeightChain? Chain,
    IReadOnlyList<Sentence> ToHelp,
    IReadOnlyList<string> DrainsNeeded,
    IReadOnlyList<string> DrainsSpare);
