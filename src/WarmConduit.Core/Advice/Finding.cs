using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice;

/// <summary>What a finding is about.</summary>
public enum FindingKind
{
    /// <summary>Nothing is open, so no water can leave.</summary>
    NothingOpen,

    /// <summary>Water stays in a pool.</summary>
    Pool,

    /// <summary>A part keeps its water by design.</summary>
    KeepsWater,

    /// <summary>Ice before morning.</summary>
    FirstIce,

    /// <summary>A run flatter than the least fall.</summary>
    FlatRun,

    /// <summary>An end of a run is joined to nothing.</summary>
    LooseEnd,

    /// <summary>A zone without faces.</summary>
    BareZone,

    /// <summary>A joint in a place that joints keep out of.</summary>
    JointInKeepOut,

    /// <summary>The document breaks a rule that new ones keep.</summary>
    DocumentRule,

    /// <summary>A part with a direction is joined the wrong way round.</summary>
    Backwards,

    /// <summary>Water hotter than skin stands can reach a tap.</summary>
    Scald,

    /// <summary>A vent or fill line has a dip, or an inlet is smaller than what is above it.</summary>
    Choked,

    /// <summary>A pipe is not made for its heat or pressure.</summary>
    PipeUnfit,

    /// <summary>A run passes through something solid, or out of the vehicle.</summary>
    InTheWay,

    /// <summary>Two runs lie in one place.</summary>
    SharedPlace,

    /// <summary>A joint that nobody reaches.</summary>
    OutOfReach,

    /// <summary>Something cannot be shut off.</summary>
    NoIsolator,

    /// <summary>The school that was chosen asks for something that is not there.</summary>
    SchoolLacks,

    /// <summary>A run hangs through between its clips.</summary>
    Sag,

    /// <summary>There is no room for a bend at the pipe's least radius.</summary>
    TightBend,

    /// <summary>A line lies against a skin without insulation.</summary>
    BareSkin,

    /// <summary>A tank does not breathe enough.</summary>
    NoAir,

    /// <summary>A tank of drinking water is in the light.</summary>
    Light,

    /// <summary>Water can be drawn back into the town's.</summary>
    Backflow,

    /// <summary>A relief valve cannot relieve.</summary>
    ReliefShut,

    /// <summary>It does not drain on the slope that the brief allows.</summary>
    Parking,

    /// <summary>A hump of a line that should be full catches air.</summary>
    CatchesAir,

    /// <summary>A line passes a wall with nothing between it and the edge of the hole.</summary>
    NoGrommet,

    /// <summary>Heat is on, and nothing heats, or a heater is too weak for the night.</summary>
    HeatShort,

    /// <summary>Water is airlocked: no air gets in behind it.</summary>
    Airlock,

    /// <summary>A heater that stores hot water lacks its relief valve, or the check valve on its cold feed.</summary>
    HeaterUnguarded,

    /// <summary>Hot and cold are exchanged at a tap, or joined past the heater.</summary>
    HotCold,

    /// <summary>Two tanks that pipes join level only above a hump.</summary>
    Levelling,

    /// <summary>No setting of the valves does what the rig is to do.</summary>
    TaskFails,

    /// <summary>No water gets to an inlet, however valves are set.</summary>
    Unfed,

    /// <summary>A pump runs against a closed valve in a scenario.</summary>
    PumpBlocked,

    /// <summary>In use, water goes past a filter as well as through it.</summary>
    TwoWays,

    /// <summary>Only the valves inside a pump keep town water out of a tank.</summary>
    TownHeld,

    /// <summary>Heat is more than a part bears.</summary>
    TooHot,

    /// <summary>The fluid of a heating circuit freezes on the coldest night.</summary>
    CoolantFreezes,

    /// <summary>One wall stands between heating fluid and drinking water.</summary>
    SingleWall,

    /// <summary>Batteries are colder than they may be charged.</summary>
    ColdBattery,
}

/// <summary>How severe a finding is by the rules of the school the rig has chosen.</summary>
public enum Severity
{
    /// <summary>The design fails by it.</summary>
    Fault,

    /// <summary>It needs a hand, or luck.</summary>
    Warning,

    /// <summary>Worth knowing.</summary>
    Note,
}

/// <summary>Something the rules found, with its place, its number and its reason.</summary>
/// <param name="Id">Stable as long as the cause is.</param>
/// <param name="Kind">What it is about.</param>
/// <param name="Severity">How severe it is.</param>
/// <param name="Title">What, where.</param>
/// <param name="Verb">The label of the number: "keeps", "ice in".</param>
/// <param name="Number">The number that measures it; null where there is none.</param>
/// <param name="Reason">Why, with values.</param>
/// <param name="Place">Where to look; null for the rig as a whole.</param>
/// <param name="RunIds">Runs it concerns.</param>
/// <param name="Why">How the number came about; null where there is nothing to work out.</param>
/// <param name="Mends">Edits that fix it, the simplest first; empty where the builder has to decide.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
public sealed record Finding(
    string Id,
    FindingKind Kind,
    Severity Severity,
    string Title,
    string Verb,
    Measure? Number,
    Sentence Reason,
    Place? Place,
    IReadOnlyList<string> RunIds,
    Why? Why,
    IReadOnlyList<Mend>? Mends = null,
    string? Caution = null);

/// <summary>A fix for a finding.</summary>
/// <param name="Words">What is done, as a button says it.</param>
/// <param name="Edits">The edits that do it.</param>
public sealed record Mend(Sentence Words, IReadOnlyList<Edit> Edits);
