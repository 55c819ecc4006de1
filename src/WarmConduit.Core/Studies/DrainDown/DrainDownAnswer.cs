using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>What stays in a rig: every litre once, in one of five places. Litres.</summary>
/// <param name="PoolsL">In pipes, below a crest.</param>
/// <param name="PartsL">In parts other than tanks: what keeps its water by design, what is in a pool, what is shut in.</param>
/// <param name="TanksL">In tanks and heaters.</param>
/// <param name="AirlockedL">Airlocked in pipes. Estimate.</param>
/// <param name="FilmL">In pipes: film and beads where they are flat, and what sags between clips. Estimate.</param>
/// <param name="ByDesignL">Of that in parts: kept by design.</param>
/// <param name="ProtectedL">Of that: protected by antifreeze poured in on leaving.</param>
/// <param name="ByHandL">What is taken out by hand on leaving; in none of the others.</param>
public sealed record Stays(double PoolsL, double PartsL, double TanksL, double AirlockedL, double FilmL, double ByDesignL, double ProtectedL, double ByHandL)
{
    /// <summary>All that stays, L.</summary>
    public double TotalL => PoolsL + PartsL + TanksL + AirlockedL + FilmL;
}

/// <summary>
/// Water that stays after draining and what is done by hand. Volumes in litres, heights over ground of the vehicle as parked, in metres.
/// </summary>
/// <param name="Stays">The sums.</param>
/// <param name="Pools">Water that stays in one place, most first; the 1000 largest.</param>
/// <param name="PoolCount">How many there are in all.</param>
/// <param name="Runs">Every run, in order of id.</param>
/// <param name="Parts">Every part that holds water when full, in order of id.</param>
/// <param name="Airlocks">Airlocked water, largest first; where it gulps it does not stay.</param>
/// <param name="Drains">Every opening that lets water out.</param>
public sealed record DrainDownAnswer(
    Stays Stays,
    IReadOnlyList<PoolAnswer> Pools,
    int PoolCount,
    IReadOnlyList<RunDrain> Runs,
    IReadOnlyList<PartDrain> Parts,
    IReadOnlyList<AirHold> Airlocks,
    IReadOnlyList<Place> Drains);

/// <summary>One pool's water in one run, litres.</summary>
/// <param name="RunId">The run.</param>
/// <param name="RetainedL">Litres in it.</param>
public sealed record PoolShare(string RunId, double RetainedL);

/// <summary>One pool's water in one tank or other part, litres.</summary>
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
/// <param name="Crest">The high point it would have to climb; null when there is no way out.</param>
/// <param name="ShutBy">The part that shuts it in, where one does.</param>
/// <param name="Shares">Runs and what each keeps.</param>
/// <param name="Parts">Parts in it and what each keeps.</param>
/// <param name="Threatens">Ids of parts in the pool that ice breaks.</param>
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
/// <param name="LevelM">Water level here; null without limit.</param>
/// <param name="Fall">Fall of the length after this point, positive when it falls the way its water drains; null at the last point and where there
/// is no way out.</param>
/// <param name="Direction">+1 when the water of that length leaves towards the run's end, -1 towards its start, 0 nowhere.</param>
/// <param name="WetFrom">Start of the wet part of that length, 0..1.</param>
/// <param name="WetTo">End of it; equal to the start when dry.</param>
/// <param name="StandsAtM">Level of the water that stays in that length; null when it is dry and where nothing lets it out.</param>
/// <param name="AirlockedFrom">Start of the part of that length that is airlocked, 0..1.</param>
/// <param name="AirlockedTo">End of it; equal to the start where none is.</param>
public sealed record Station(
    string Id, Point3 At, double DistanceM, double HeightM, double? LevelM, double? Fall, int Direction, double WetFrom, double WetTo, double? StandsAtM,
    double AirlockedFrom, double AirlockedTo);

/// <summary>A run after draining.</summary>
/// <param name="RunId">Its id.</param>
/// <param name="BoreM">Inner diameter.</param>
/// <param name="LengthM">Length.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="PoolL">What stays in pools.</param>
/// <param name="AirlockedL">Airlocked water above that. Estimate.</param>
/// <param name="FilmL">What else stays, where it is too flat, and between its clips. Estimate.</param>
/// <param name="SagL">Of that, what sags between its clips.</param>
/// <param name="LeastFall">The least fall of its lengths; negative where water would have to climb; null with no way out.</param>
/// <param name="LeastFallAt">Id of the station where that length starts; null with no way out.</param>
/// <param name="Stations">Its points.</param>
/// <param name="Reversed">It drains towards its start.</param>
/// <param name="LeadsTo">The run its water passes next on the way to a drain; null when it passes no other.</param>
/// <param name="Threatens">It is in a pool with a part that ice breaks.</param>
/// <param name="RouteEnd">Where that way ends: a drain; null when there is no way out.</param>
public sealed record RunDrain(
    string RunId,
    double BoreM,
    double LengthM,
    double FullL,
    double PoolL,
    double AirlockedL,
    double FilmL,
    double SagL,
    double? LeastFall,
    string? LeastFallAt,
    IReadOnlyList<Station> Stations,
    bool Reversed,
    string? LeadsTo,
    bool Threatens,
    Place? RouteEnd)
{
    /// <summary>All that stays in it, L: never more than its content.</summary>
    public double StaysL => PoolL + AirlockedL + FilmL;

    /// <summary>The same after air has gone through it: a film of <paramref name="filmL"/> litres and nothing that stands.</summary>
    internal RunDrain Swept(double filmL) => this with
    {
        PoolL = 0,
        AirlockedL = 0,
        FilmL = filmL,
        SagL = 0,
        Threatens = false,
        Stations = [.. Stations.Select(s => s with { WetTo = s.WetFrom, StandsAtM = null, AirlockedTo = s.AirlockedFrom })],
    };
}

/// <summary>A part after draining.</summary>
/// <param name="PartId">Its id.</param>
/// <param name="FullL">Content when full.</param>
/// <param name="RetainedL">What stays in it once what is done by hand is done.</param>
/// <param name="ByDesign">It keeps its water whatever the lines do.</param>
/// <param name="Cause">What keeps it there; null: nothing stays.</param>
/// <param name="ProtectedL">Of that: protected by antifreeze poured in on leaving.</param>
/// <param name="ByHandL">What is taken out of it by hand.</param>
/// <param name="Task">What is done to it by hand on leaving; null for nothing.</param>
/// <param name="Remedy">What would empty or protect it, when it keeps its water.</param>
public sealed record PartDrain(string PartId, double FullL, double RetainedL, bool ByDesign, StayCause? Cause, double ProtectedL, double ByHandL, string? Task,
    string? Remedy)
{
    /// <summary>Water that can freeze, L.</summary>
    public double FreezesL => RetainedL - ProtectedL;
}

/// <summary>What keeps water in a part.</summary>
public enum StayCause
{
    /// <summary>It keeps its water by design.</summary>
    Design,

    /// <summary>Its outlet lies above it, or it stands in a pool.</summary>
    Crest,

    /// <summary>It is shut, with water inside.</summary>
    Shut,

    /// <summary>No air gets in behind it.</summary>
    Airlock,
}
