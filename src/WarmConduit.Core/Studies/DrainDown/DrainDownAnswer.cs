using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>What stays after draining. Volumes in litres, heights over ground of the vehicle as parked, in metres.</summary>
/// <param name="TotalL">All that stays, in pools, in vessels and in parts that keep their water.</param>
/// <param name="InRunsL">Of it, in pipes and hoses.</param>
/// <param name="InPoolsL">Of it, all that no part keeps by design: what the pools hold, and rests too small to name.</param>
/// <param name="ByDesignL">Of it, in parts that keep their water by design.</param>
/// <param name="FilmL">Beads and film in runs flatter than the least fall; an estimate, not in the total.</param>
/// <param name="Pools">Water that stays together in one place, most first.</param>
/// <param name="Runs">Every run, in the rig's order.</param>
/// <param name="Parts">Every part that holds water when full, in the rig's order.</param>
/// <param name="Drains">Every opening that lets water out.</param>
public sealed record DrainDownAnswer(
    double TotalL,
    double InRunsL,
    double InPoolsL,
    double ByDesignL,
    double FilmL,
    IReadOnlyList<PoolAnswer> Pools,
    IReadOnlyList<RunDrain> Runs,
    IReadOnlyList<PartDrain> Parts,
    IReadOnlyList<Place> Drains);

/// <summary>Water of one pool in one run.</summary>
public sealed record PoolShare(string RunId, double HeldL);

/// <summary>Water of one pool in one tank or other part.</summary>
public sealed record PoolPart(string PartId, double HeldL);

/// <summary>A pool: in runs and the parts they meet, or in a tank alone.</summary>
/// <param name="Id">Stable as long as the same runs and parts hold it.</param>
/// <param name="Words">The runs and parts that hold it.</param>
/// <param name="HeldL">Water in runs, vessels and parts of the pool.</param>
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
    double HeldL,
    double? LevelM,
    double? DepthM,
    Place Lowest,
    Place? Crest,
    Place? ShutBy,
    IReadOnlyList<PoolShare> Shares,
    IReadOnlyList<PoolPart> Parts,
    IReadOnlyList<string> Threatens);

/// <summary>A point along a run, with the straight length that follows it.</summary>
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
    Point3 At, double DistanceM, double HeightM, double? LevelM, double? Fall, int Direction, double WetFrom, double WetTo, double? StandsAtM);

/// <summary>A run on the way to a drain; reversed when it is passed from its end to its start.</summary>
public sealed record RouteLeg(string RunId, bool Reversed);

/// <summary>A run after draining.</summary>
/// <param name="RunId">Its id.</param>
/// <param name="BoreM">Inner diameter.</param>
/// <param name="LengthM">Length.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="HeldL">What stays in pools.</param>
/// <param name="FilmL">Film and beads where it is too flat; estimate.</param>
/// <param name="LeastFall">The least fall of its lengths; negative where water would have to climb; null with no way out.</param>
/// <param name="LeastFallAt">Index of the station where that length starts.</param>
/// <param name="Stations">Its points.</param>
/// <param name="Route">The runs its water passes to a drain, itself first; only itself when there is no way out.</param>
/// <param name="RouteEnd">Where that route ends: a drain, or what shuts it in.</param>
public sealed record RunDrain(
    string RunId,
    double BoreM,
    double LengthM,
    double FullL,
    double HeldL,
    double FilmL,
    double? LeastFall,
    int LeastFallAt,
    IReadOnlyList<Station> Stations,
    IReadOnlyList<RouteLeg> Route,
    Place? RouteEnd);

/// <summary>A part after draining.</summary>
/// <param name="PartId">Its id.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="HeldL">What stays in it.</param>
/// <param name="ByDesign">It keeps its water whatever the lines do.</param>
/// <param name="Remedy">What empties or protects it, when it keeps its water.</param>
public sealed record PartDrain(string PartId, double FullL, double HeldL, bool ByDesign, string? Remedy);
