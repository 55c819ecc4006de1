using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Heights between which a point of a run may lie for a fix to hold, in the vehicle.</summary>
/// <param name="RunId">The run.</param>
/// <param name="PointId">Id of the bend.</param>
/// <param name="LowestM">Lowest invert, m; null: no limit.</param>
/// <param name="HighestM">Highest invert, m; null: no limit.</param>
public sealed record Band(string RunId, string PointId, double? LowestM, double? HighestM);

/// <summary>What a fix wins, found by trying it on the whole rig.</summary>
/// <param name="Litres">Less water left, L; negative: more.</param>
/// <param name="Gone">Titles of faults and warnings that it fixes, its own among them.</param>
/// <param name="Made">Titles of faults and warnings that are added.</param>
/// <param name="Worse">Places that keep more than before, though less stays in all.</param>
/// <param name="HoursWon">How many hours later ice first breaks something; negative: earlier. Counted to the end of the calculation.</param>
public sealed record FixGain(double Litres, IReadOnlyList<string> Gone, IReadOnlyList<string> Made, IReadOnlyList<MoreWater> Worse, double HoursWon);

/// <summary>What a fix costs.</summary>
/// <param name="Parts">New parts.</param>
/// <param name="PipeM">New pipe, m; negative: less.</param>
/// <param name="Moved">Bends and parts that move.</param>
/// <param name="FarthestM">The farthest of them, m.</param>
/// <param name="StorageL">Living space taken by new parts, L.</param>
/// <param name="Money">At the builder's prices, in whatever money they count; null where one of them is not known.</param>
/// <param name="OutOfReach">New parts that no access reaches.</param>
public sealed record FixCost(int Parts, double PipeM, int Moved, double FarthestM, double StorageL, double? Money, int OutOfReach);

/// <summary>A fix for a finding, tried on the whole rig.</summary>
/// <param name="Id">Its id among the fixes of one finding.</param>
/// <param name="Words">What is done, as a button says it.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Effect">What they do to the document, to draw it before it is applied.</param>
/// <param name="Wins">What it gains.</param>
/// <param name="Costs">What it costs.</param>
/// <param name="Band">Where the point that it moves may lie; null where it moves none, or several.</param>
public sealed record Fix(string Id, Sentence Words, IReadOnlyList<Edit> Edits, Effect Effect, FixGain Wins, FixCost Costs, Band? Band);

/// <summary>Ways to mend one finding, the best first.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Fixes">The fixes that work.</param>
/// <param name="Tried">How many fixes were tried.</param>
/// <param name="Refused">Why there is none: results of the fixes tried; null where there is one.</param>
public sealed record FixesAnswer(string FindingId, IReadOnlyList<Fix> Fixes, int Tried, string? Refused);
