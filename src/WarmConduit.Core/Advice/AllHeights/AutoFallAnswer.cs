using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>A point that goes up or down.</summary>
/// <param name="Id">Its path in the rig: <c>runs/main/bends/b2</c>, <c>parts/tee-1</c>.</param>
/// <param name="Words">The point, in words.</param>
/// <param name="FromM">Invert now, m.</param>
/// <param name="ToM">Invert then, m.</param>
public sealed record HeightChange(string Id, string Words, double FromM, double ToM);

/// <summary>Points, in the direction of the water, that allow no more fall.</summary>
/// <param name="Points">In words, from the top.</param>
/// <param name="Places">Where they are.</param>
/// <param name="AvailableM">Height between the limits of its ends, m.</param>
/// <param name="LengthM">Its length, m.</param>
/// <param name="ForParkingM">Height that the parking slope takes from it, m.</param>
public sealed record HeightChain(IReadOnlyList<string> Points, IReadOnlyList<Place> Places, double AvailableM, double LengthM, double ForParkingM);

/// <summary>All heights at once: every line with as much fall as the rig allows.</summary>
/// <param name="SlopeDeg">The parking slope on which they must still fall, degrees.</param>
/// <param name="MarginBefore">Least fall on that slope now, of the lengths that heights can help, m/m; negative where one climbs; null where no line
/// has a way out.</param>
/// <param name="MarginAfter">The same with the heights that are given, m/m; null likewise.</param>
/// <param name="Feasible">Every length then falls on that slope.</param>
/// <param name="Verdict">The reading in words.</param>
/// <param name="Changes">Points that go up or down, those that go farthest first.</param>
/// <param name="Edits">The edits that do it; empty where nothing is won.</param>
/// <param name="Effect">What they do to the document; null where there are none.</param>
/// <param name="BeforeL">Retained when level now, L.</param>
/// <param name="AfterL">Retained when level then, L.</param>
/// <param name="ShareBefore">Share of the parking slopes on which it drains now.</param>
/// <param name="ShareAfter">Share then.</param>
/// <param name="Chain">The chain that limits the fall; null where nothing limits it.</param>
/// <param name="ToHelp">The smallest changes to fixed points that would make it fall everywhere; empty where it does.</param>
/// <param name="DrainsNeeded">Drains that the lines fall to: the fewest that are enough.</param>
/// <param name="DrainsSpare">Drains that are not needed.</param>
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
