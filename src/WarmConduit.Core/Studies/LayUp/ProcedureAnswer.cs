using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>Something that is done to the water system as a whole.</summary>
public enum ProcedureKind
{
    /// <summary>Drained between two trips.</summary>
    WeekendDrain,

    /// <summary>Laid up by draining.</summary>
    DrainLayUp,

    /// <summary>Laid up by draining and air.</summary>
    AirLayUp,

    /// <summary>Laid up with antifreeze.</summary>
    AntifreezeLayUp,

    /// <summary>Opened again in spring: flushed, sanitised, rinsed.</summary>
    Reopen,

    /// <summary>The tanks cleaned.</summary>
    TankClean,

    /// <summary>The filters changed.</summary>
    FilterChange,

    /// <summary>Filled for the first time.</summary>
    FirstFill,

    /// <summary>What is outdoors drained and shut off for winter, the rest in use.</summary>
    WinterUse,

    /// <summary>Filled in frost.</summary>
    FrostFill,

    /// <summary>The heat has failed.</summary>
    HeatFailed,

    /// <summary>Something is frozen.</summary>
    Thaw,

    /// <summary>Heaters, pads and thermostats tried in autumn.</summary>
    AutumnTrial,
}

/// <summary>A procedure that can be asked for.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
public sealed record ProcedureName(ProcedureKind Kind, string Name);

/// <summary>One step of a procedure.</summary>
/// <param name="Id">Its id within the procedure.</param>
/// <param name="Words">What to do.</param>
/// <param name="PartIds">The parts that are handled.</param>
/// <param name="Settings">Positions to leave them in.</param>
/// <param name="OutL">Water that comes out, L; null: none is expected or counted.</param>
/// <param name="InL">Fluid that goes in, L; null: none.</param>
/// <param name="ShortestS">How long it takes, s; null: no time to keep.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="Waits">The time is a wait: a timer runs.</param>
/// <param name="Reach">How the place is reached; null: no access is drawn.</param>
/// <param name="Wrong">What can go wrong; null: nothing worth a word.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
/// <param name="Marks">Parts of which the rig remembers that they were opened or handled.</param>
public sealed record ProcedureStep(
    string Id, Sentence Words, IReadOnlyList<string> PartIds, IReadOnlyList<Setting> Settings, double? OutL, double? InL, double? ShortestS, double? LongestS,
    bool Waits, string? Reach, Sentence? Wrong, string? Caution, IReadOnlyList<string> Marks);

/// <summary>A procedure made from this rig. Litres and times are estimates.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="Tools">What to have at hand.</param>
/// <param name="Supplies">What is used up.</param>
/// <param name="Steps">Steps in walking order.</param>
/// <param name="Ends">Position of every valve, drain, cap and switch at the end, by name.</param>
/// <param name="ShortestS">How long it takes, without waits, s.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="InL">Water in the rig before, L.</param>
/// <param name="OutL">What its steps let out, L.</param>
/// <param name="StaysL">What is left, L.</param>
/// <param name="FluidL">Antifreeze that it takes, L.</param>
/// <param name="All">Every procedure there is.</param>
public sealed record ProcedureAnswer(
    ProcedureKind Kind, string Name, IReadOnlyList<string> Tools, IReadOnlyList<Sentence> Supplies, IReadOnlyList<ProcedureStep> Steps,
    IReadOnlyList<Setting> Ends, double ShortestS, double LongestS, double InL, double OutL, double StaysL, double FluidL,
    IReadOnlyList<ProcedureName> All);
