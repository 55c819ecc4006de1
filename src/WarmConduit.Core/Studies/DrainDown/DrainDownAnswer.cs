using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>
/// Water retained after draining, once what is done by hand on leaving is done. Volumes in litres, heights over ground of the vehicle as parked, in metres.
/// </summary>
/// <param name="RetainedL">All retained water: in pools, in vessels and in parts that keep it.</param>
/// <param name="InRunsL">Of it, in pipes and hoses.</param>
/// <param name="InPoolsL">Of it, all that no part keeps by design: what the pools hold, and rests too small to name.</param>
/// <param name="ByDesignL">Of it, in parts that keep their water by design and are not emptied by hand.</param>
/// <param name="ByHandL">What is taken out by hand; not in the total.</param>
/// <param name="ResidualL">Residual water: beads and film in runs flatter than the least fall; an estimate, not in the total.</param>
/// <param name="Pools">Water that stays together in one place, most first; the 1000 largest.</param>
/// <param name="PoolCount">How many there are in all.</param>
/// <param name="Runs">Every run, in order of id.</param>
/// <param name="Parts">Every part that holds water when full, in order of id.</param>
/// <param name="Drains">Every opening that lets water out.</param>
public sealed record DrainDownAnswer(
    double RetainedL,
    double InRunsL,
    double InPoolsL,
    double ByDesignL,
    double ByHandL,
    double ResidualL,
    IReadOnlyList<PoolAnswer> Pools,
    int PoolCount,
    IReadOnlyList<RunDrain> Runs,
    IReadOnlyList<PartDrain> Parts,
    IReadOnlyList<Place> Drains);

/// <summary>Water of one pool in one run, litres.</summary>
/// <param name="RunId">The run.</param>
/// <param name="RetainedL">Litres in it.</param>
public sealed record PoolShare(string RunId, double RetainedL);

/// <summary>Water of one pool in one tank or other part, litres.</summary>
/// <param name="PartId">The part.</param>
/// <param name="RetainedL">Litres in it.</param>
public sealed record PoolPart(string PartId, double RetainedL);

/// <summary>A pool: in runs and the parts they meet, or in a tank alone.</summary>
/// <param name="Id">Stable as long as the same runs and parts hold it.</param>
/// <param name="Words">The runs and parts that hold it.</param>
/// <param name="RetainedL">Water in runs, vessels and parts of the pool.</param>
/// <param name="LevelM">Level over ground; null when nothing lets the water out.</param>
/// <param name="DepthM">How far its lowest place lies under that level; null likewise, and for a tank alone.</param>
/// <param name="Lowest">Its lowest place: where a drain would empty it.</param>
/// <param name="Crest">What it would have to climb over; null when nothing lets it out.</param>
/// <param name="ShutBy">The part that shuts it in, where one does.</param>
/// <param name="Shares">Runs and what each holds.</param>
/// <param name="Parts">Parts that stand in it and what each holds.</param>
/// <param name="Threatens">Ids of parts that stand in the pool and that ice breaks.</param>
public sealed record PoolAnswer(
    string Id,
    string Words,
    double RetainedL,
    double? LevelM,
    double? DepthM,
    Place Lowest,
    Place? Crest,
    Place? ShutBy,
    IReadOnlyList<PoolShare> Shares,
    IReadOnlyList<PoolPart> Parts,
    IReadOnlyList<string> Threatens);

/// <summary>A point along a run, with the straight length that follows it.</summary>
/// <param name="Id">The bend's id, or <c>from</c> or <c>to</c>.</param>
/// <param name="At">Place in the vehicle.</param>
/// <param name="DistanceM">Distance along the run from its start.</param>
/// <param name="HeightM">Invert over ground as parked.</param>
/// <param name="LevelM">Level at which water stands here; null without limit.</param>
/// <param name="Fall">Fall of the length after this point, positive when it falls the way its water leaves; null at the last point and where there is no way out.</param>
/// <param name="Direction">+1 when the water of that length leaves towards the run's end, -1 towards its start, 0 nowhere.</param>
/// <param name="WetFrom">Start of the wet part of that length, 0..1.</param>
/// <param name="WetTo">End of it; equal to the start when dry.</param>
/// <param name="StandsAtM">Level of the water that stays in that length; null when it is dry and where nothing lets it out.</param>
public sealed record Station(
    string Id, Point3 At, double DistanceM, double HeightM, double? LevelM, double? Fall, int Direction, double WetFrom, double WetTo, double? StandsAtM);

/// <summary>A run after draining.</summary>
/// <param name="RunId">Its id.</param>
/// <param name="BoreM">Inner diameter.</param>
/// <param name="LengthM">Length.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="RetainedL">What stays in pools.</param>
/// <param name="ResidualL">Film and beads where it is too flat; estimate.</param>
/// <param name="LeastFall">The least fall of its lengths; negative where water would have to climb; null with no way out.</param>
/// <param name="LeastFallAt">Id of the station where that length starts; null with no way out.</param>
/// <param name="Stations">Its points.</param>
/// <param name="Reversed">Its water leaves towards its start.</param>
/// <param name="LeadsTo">The run its water passes next on the way to a drain; null when it passes no other.</param>
/// <param name="Threatens">Its water stands in a pool with a part that ice breaks.</param>
/// <param name="RouteEnd">Where that way ends: a drain; null when there is no way out.</param>
public sealed record RunDrain(
    string RunId,
    double BoreM,
    double LengthM,
    double FullL,
    double RetainedL,
    double ResidualL,
    double? LeastFall,
    string? LeastFallAt,
    IReadOnlyList<Station> Stations,
    bool Reversed,
    string? LeadsTo,
    bool Threatens,
    Place? RouteEnd);

/// <summary>A part after draining.</summary>
/// <param name="PartId">Its id.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="RetainedL">What stays in it once what is done by hand is done.</param>
/// <param name="ByDesign">It keeps its water whatever the lines do.</param>
/// <param name="ByHandL">What is taken out of it by hand.</param>
/// <param name="Task">What is done to it by hand on leaving; null for nothing.</param>
/// <param name="Remedy">What would empty or protect it, when it keeps its water.</param>
public sealed record PartDrain(string PartId, double FullL, double RetainedL, bool ByDesign, double ByHandL, string? Task, string? Remedy);
