namespace WarmConduit.Core.Rigs;

/// <summary>Most air pressure when lines are blown out.</summary>
public enum AirSchool
{
    /// <summary>25 psi (1.7 bar).</summary>
    Psi25,

    /// <summary>30 psi (2.1 bar).</summary>
    Psi30,
}

/// <summary>Air in the accumulator.</summary>
public enum AccumulatorSchool
{
    /// <summary>0.2 bar below the pump's cut-in.</summary>
    BelowCutIn,

    /// <summary>At the pump's cut-in.</summary>
    AtCutIn,
}

/// <summary>How lines are laid out.</summary>
public enum PipingSchool
{
    /// <summary>One line with tees.</summary>
    Trunk,

    /// <summary>A line for each outlet from one manifold.</summary>
    HomeRuns,

    /// <summary>A hot loop with a return pump.</summary>
    Loop,
}

/// <summary>Whose readings are filtered.</summary>
public enum FilterSchool
{
    /// <summary>All water.</summary>
    Everything,

    /// <summary>A drinking tap only.</summary>
    DrinkingTap,

    /// <summary>Nothing.</summary>
    None,
}

/// <summary>What keeps smells out.</summary>
public enum TrapSchool
{
    /// <summary>Traps that hold water.</summary>
    Water,

    /// <summary>Traps that hold none.</summary>
    Waterless,
}

/// <summary>How pipe is joined.</summary>
public enum JointSchool
{
    /// <summary>Pushed in.</summary>
    PushFit,

    /// <summary>Crimped rings.</summary>
    Crimp,

    /// <summary>Barbs with hose clips.</summary>
    Barb,
}

/// <summary>How threads are sealed.</summary>
public enum ThreadSchool
{
    /// <summary>Tape.</summary>
    Tape,

    /// <summary>Paste.</summary>
    Paste,
}

/// <summary>Where grey water goes.</summary>
public enum GreySchool
{
    /// <summary>A tank built in.</summary>
    Fixed,

    /// <summary>A tank on wheels, outside.</summary>
    Wheeled,

    /// <summary>A bucket.</summary>
    Bucket,
}

/// <summary>Build preferences, and what a night may cost.</summary>
/// <param name="Air">Most air pressure when lines are blown out.</param>
/// <param name="Accumulator">Air in the accumulator.</param>
/// <param name="Piping">How lines are laid out.</param>
/// <param name="Filter">Whose readings are filtered.</param>
/// <param name="Traps">What keeps smells out.</param>
/// <param name="Joints">How pipe is joined.</param>
/// <param name="Threads">How threads are sealed.</param>
/// <param name="Grey">Where grey water goes.</param>
/// <param name="BatteryWh">Battery to spend on a night, Wh; 0 to 100,000.</param>
/// <param name="FuelL">Fuel to spend on a night, litres of diesel; 0 to 1000.</param>
/// <param name="CanL">Size of the can that water is fetched in, L; 1 to 100.</param>
/// <param name="LocalRules">Local rules to check, in the builder's words; at most 1000 characters.</param>
/// <param name="CoolantGlycol">Propylene glycol in the heating circuits, volume fraction; 0 to 0.6; left out: half.</param>
public sealed record BriefChoices(
    AirSchool Air,
    AccumulatorSchool Accumulator,
    PipingSchool Piping,
    FilterSchool Filter,
    TrapSchool Traps,
    JointSchool Joints,
    ThreadSchool Threads,
    GreySchool Grey,
    double BatteryWh,
    double FuelL,
    double CanL,
    string LocalRules,
    double? CoolantGlycol = null)
{
    /// <summary>Propylene glycol in heating circuits where it is not said, volume fraction. Estimate.</summary>
    public const double UsualCoolantGlycol = 0.5;

    /// <summary>What most begin with.</summary>
    public static readonly BriefChoices Usual = new(
        AirSchool.Psi30, AccumulatorSchool.BelowCutIn, PipingSchool.Trunk, FilterSchool.DrinkingTap, TrapSchool.Waterless, JointSchool.Crimp,
        ThreadSchool.Tape, GreySchool.Fixed, 600, 2, 15, "");
}

/// <summary>One school: its name, what it is good for, what is checked where it is chosen.</summary>
/// <param name="Id">The value that stands for it.</param>
/// <param name="Name">In words.</param>
/// <param name="GoodFor">What it is good for, and what it costs.</param>
/// <param name="Checks">What is checked where it is chosen; empty: nothing yet.</param>
public sealed record SchoolWay(string Id, string Name, string GoodFor, string Checks);

/// <summary>A question on which the trade disagrees, with its schools.</summary>
/// <param name="Field">The field of the brief that holds the choice.</param>
/// <param name="Name">What it is about.</param>
/// <param name="Ways">Its sides.</param>
public sealed record SchoolOf(string Field, string Name, IReadOnlyList<SchoolWay> Ways);

/// <summary>The schools that a brief chooses from. None is the one true way.</summary>
public static class Schools
{
    /// <summary>All of them, as the brief asks for them.</summary>
    public static IReadOnlyList<SchoolOf> All { get; } =
    [
        new("living", "Way of living",
        [
            new("livedIn", "lived in", "Heated all winter. What matters: what freezes if the heat fails, and what heating costs.",
            "Checked full and heated."),
            new("weekends", "weekends", "Used, left cold for days, used again. It must drain in minutes from one or two valves.",
            "Checked drained and unheated."),
            new("laidUp", "laid up", "Emptied in autumn, opened in spring. Work once a year.",
            "Checked drained and unheated."),
        ]),
        new("school", "Frost protection",
        [
            new("drain", "drain", "No fluid, no compressor, ready in minutes. Every line needs fall.",
            "Water left in dips is a fault; flat runs are reported."),
            new("air", "air", "Clears lines that don't drain. Needs a regulated compressor, an open outlet first, and eye protection.",
            "Checks for a blow-out port; dips matter less."),
            new("antifreeze", "antifreeze", "Protects traps and dead ends too. Costs fluid and rinsing. Only propylene glycol for drinking-water systems.",
            "Checks for a heater bypass; dips matter less."),
            new("heat", "heat", "Water all winter. Costs fuel or battery every night, and fails when they do.",
            "Anything ice breaks is a fault; dips matter less."),
        ]),
        new("choices/air", "Air pressure limit",
        [
            new("psi25", "25 psi", "Gentler on hoses, filters and toilet valves. Needs a second round.", "Never advises more."),
            new("psi30", "30 psi", "Clears risers faster. Never above the weakest part's rating.", "Never advises more."),
        ]),
        new("choices/accumulator", "Accumulator air pressure",
        [
            new("belowCutIn", "0.2 bar (3 psi) below cut-in", "The accumulator is never empty, so the flow stays even.",
            "Used for the water between pump starts."),
            new("atCutIn", "at cut-in", "Most water between pump starts.", "Used for the water between pump starts."),
        ]),
        new("choices/piping", "Lines",
        [
            new("trunk", "trunk and tees", "Least pipe. Joints are at the tees.", ""),
            new("homeRuns", "home runs", "All joints in one place you can reach. Most pipe.", "Checks for a manifold."),
            new("loop", "hot loop", "No wait for hot water. A second pump, and warm pipe all day.", "Checks for a return pump."),
        ]),
        new("choices/filter", "Filter",
        [
            new("everything", "all water", "Clean lines everywhere. But the part that leaks and cracks most is in the main line.",
            "Checks for a filter, and a bypass around it."),
            new("drinkingTap", "drinking tap only", "Cartridges last. Everything else is not for drinking.", "Checks for a drinking tap and a filter."),
            new("none", "none", "Nothing to crack and nothing to change. Only for water that is fit to drink.", ""),
        ]),
        new("choices/traps", "Traps",
        [
            new("water", "water traps", "Easy to get. Each holds water that freezes, so each needs a litre of antifreeze.",
            "Doesn't ask for waterless traps."),
            new("waterless", "waterless traps", "Nothing to freeze and nothing to slosh out.", "Reports water traps."),
        ]),
        new("choices/joints", "Joints",
        [
            new("pushFit", "push-fit", "Comes apart by hand. Needs square cuts and the insert pushed home.", "Pipe ends are counted."),
            new("crimp", "crimp", "Flat, cheap, checked with a gauge. Can't be undone.", "Rings are counted."),
            new("barb", "barb and clip", "For hose. Retighten clips after the first winter.", "Clips are counted."),
        ]),
        new("choices/threads", "Threads",
        [
            new("tape", "tape", "Clean, tight at once. Can't be turned back.", ""),
            new("paste", "paste", "Can be turned back a little. Must be approved for drinking water.", ""),
        ]),
        new("choices/grey", "Grey water",
        [
            new("fixed", "built-in tank", "Always with you. Under the floor it freezes first.", "Checks for a grey tank."),
            new("wheeled", "wheeled tank outside", "Rolled to the drain. Freezes overnight outside.", ""),
            new("bucket", "bucket", "Nothing to drain. Carried out every day.", ""),
        ]),
    ];
}
