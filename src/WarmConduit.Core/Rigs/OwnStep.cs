namespace WarmConduit.Core.Rigs;

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

    /// <summary>Antifreeze between two trips.</summary>
    AntifreezeBetween,

    /// <summary>One cold trip in a rig that is laid up.</summary>
    ColdTrip,
}

/// <summary>What a builder's own step is.</summary>
public enum OwnStepKind
{
    /// <summary>One more step.</summary>
    Step,

    /// <summary>The steps of a part's maker, in the place of ours.</summary>
    Maker,

    /// <summary>Something that goes home on lay-up, and comes back in spring.</summary>
    Home,
}

/// <summary>A step that the builder adds to the procedures of a rig, or something that goes home.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Words">What to do, or what goes home; 1 to 300 characters.</param>
/// <param name="On">The procedures that it belongs to; empty: every lay-up.</param>
/// <param name="Thing">The part that it is about, <c>parts/pump</c>; left out: none. A maker's step has one.</param>
/// <param name="First">It comes before all others; else after them.</param>
public sealed record OwnStep(string Id, OwnStepKind Kind, string Words, IReadOnlyList<ProcedureKind> On, string? Thing = null, bool First = false) : IIdentified
{
    /// <summary>Own steps at the most.</summary>
    public const int Most = 100;

    private static readonly ProcedureKind[] LayUps = [ProcedureKind.DrainLayUp, ProcedureKind.AirLayUp, ProcedureKind.AntifreezeLayUp];

    /// <summary>Whether a procedure is one that lays a rig up.</summary>
    public static bool IsLayUp(ProcedureKind kind) => LayUps.Contains(kind);

    /// <summary>The part that it is about; null: none.</summary>
    public string? PartId() => Thing?.StartsWith("parts/", StringComparison.Ordinal) == true ? Thing["parts/".Length..] : null;

    /// <summary>Whether it is a step of <paramref name="kind"/>.</summary>
    public bool IsOn(ProcedureKind kind) => On.Count == 0 ? IsLayUp(kind) : On.Contains(kind);

    /// <summary>Whether what it is about is in <paramref name="rig"/>.</summary>
    public bool IsIn(Rig rig) => Thing is null || (PartId() is { } part && rig.Parts.Find(part) is not null);

    /// <summary>What is out of range or missing, by field below <paramref name="at"/>.</summary>
    internal void Check(FieldChecker c, string at, Rig rig)
    {
        if (!Enum.IsDefined(Kind)) c.Add($"{at}.kind", "this is not known");
        if (string.IsNullOrWhiteSpace(Words) || Words.Length > 300) c.Add($"{at}.words", "write 1 to 300 characters");
        c.Count($"{at}.on", On.Count, 0, 20);
        if (On.Any(k => !Enum.IsDefined(k))) c.Add($"{at}.on", "this procedure is not known");
        if (!IsIn(rig)) c.Add($"{at}.thing", $"there is no '{Thing}' in this rig");
        if (Kind == OwnStepKind.Maker && Thing is null) c.Add($"{at}.thing", "choose the part whose maker says so");
    }
}
