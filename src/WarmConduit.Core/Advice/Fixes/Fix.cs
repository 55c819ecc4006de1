using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Heights between which a point of a run may lie for a fix to hold, in the vehicle.</summary>
/// <param name="RunId">The run.</param>
/// <param name="PointId">Id of the bend.</param>
/// <param name="LowestM">Lowest invert, m; null: as low as one likes.</param>
/// <param name="HighestM">Highest invert, m; null: as high as one likes.</param>
public sealed record Band(string RunId, string PointId, double? LowestM, double? HighestM);

/// <summary>What a fix wins, found by trying it on the whole rig.</summary>
/// <param name="Litres">Less water retained, L; negative: more.</param>
/// <param name="Gone">Titles of faults and warnings that go, the one it is for among them.</param>
/// <param name="Made">Titles of faults and warnings that come.</param>
/// <param name="Worse">Places that hold more than before, though all together hold less.</param>
/// <param name="HoursWon">Hours of the night until ice first breaks something, more than before; negative: fewer. Counted to the end of what is looked
/// at.</param>
public sealed record FixGain(double Litres, IReadOnlyList<string> Gone, IReadOnlyList<string> Made, IReadOnlyList<MoreWater> Worse, double HoursWon);

/// <summary>What a fix costs.</summary>
/// <param name="Parts">New parts.</param>
/// <param name="PipeM">New pipe, m; negative: less.</param>
/// <param name="Moved">Bends and parts that move.</param>
/// <param name="FarthestM">The farthest of them, m.</param>
/// <param name="StorageL">Living space that new parts take, L.</param>
/// <param name="Money">At the builder's prices, in whatever money they count; null where one of them is not known.</param>
/// <param name="OutOfReach">New parts that no access reaches.</param>
public sealed record FixCost(int Parts, double PipeM, int Moved, double FarthestM, double StorageL, double? Money, int OutOfReach);

/// <summary>A way to mend a finding that was tried on the whole rig and does so.</summary>
/// <param name="Id">Its id among the fixes of one finding.</param>
/// <param name="Words">What is done, as a button says it.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Effect">What they do to the document, to be drawn before it is done.</param>
/// <param name="Wins">What it wins.</param>
/// <param name="Costs">What it costs.</param>
/// <param name="Band">Where the point that it moves may lie; null where it moves none, or several.</param>
public sealed record Fix(string Id, Sentence Words, IReadOnlyList<Edit> Edits, Effect Effect, FixGain Wins, FixCost Costs, Band? Band);

/// <summary>Ways to mend one finding, the best first.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Fixes">What was tried and mends it.</param>
/// <param name="Tried">How many ideas were tried.</param>
/// <param name="Refused">Why there is none: what came of the ideas; null where there is one.</param>
public sealed record FixesAnswer(string FindingId, IReadOnlyList<Fix> Fixes, int Tried, string? Refused);
