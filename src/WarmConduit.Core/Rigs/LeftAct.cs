namespace WarmConduit.Core.Rigs;

/// <summary>What was done to the water system.</summary>
public enum LeftActKind
{
    /// <summary>It was filled: what was done before counts no more.</summary>
    Filled,

    /// <summary>A drain or a tap was opened, or a part handled as its task says.</summary>
    Done,

    /// <summary>Antifreeze stands in a run or part.</summary>
    Antifreeze,

    /// <summary>A run was blown out with air.</summary>
    Blown,
}

/// <summary>One thing that was done to the water system since it was last full: with the others, how it was left.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What was done.</param>
/// <param name="At">When.</param>
/// <param name="Thing">To what: <c>parts/drain-a</c>, <c>runs/main</c>; left out for a filling.</param>
/// <param name="OutL">Volume measured there, L, 0 to 10,000; left out: not measured.</param>
/// <param name="Glycol">Propylene glycol in its water, share of the volume, 0 to 0.6; for antifreeze only.</param>
/// <param name="Film">Water that air left in it, share of its bore, 0 to 1; for what was blown out only.</param>
public sealed record LeftAct(
    string Id, LeftActKind Kind, DateTimeOffset At, string? Thing = null, double? OutL = null, double? Glycol = null, double? Film = null) : IIdentified
{
    /// <summary>Acts at the most.</summary>
    public const int Most = 2000;

    /// <summary>The strongest antifreeze that is read, share of the volume: stronger ones freeze no later.</summary>
    public const double MostGlycol = 0.6;

    /// <summary>Whether what it was done to is in <paramref name="rig"/>.</summary>
    public bool IsIn(Rig rig) => Thing?.Split('/') switch
    {
        null => true,
        ["parts", var id] => rig.Parts.Find(id) is not null,
        ["runs", var id] => rig.Runs.Find(id) is not null,
        _ => false,
    };

    /// <summary>What is out of range or missing, by field below <paramref name="at"/>.</summary>
    internal void Check(FieldChecker c, string at, Rig rig)
    {
        if (!Enum.IsDefined(Kind)) c.Add($"{at}.kind", "this is not known");
        if (Kind == LeftActKind.Filled && Thing is not null) c.Add($"{at}.thing", "a filling is of the whole system");
        if (Kind != LeftActKind.Filled && (Thing is null || !IsIn(rig))) c.Add($"{at}.thing", $"there is no '{Thing}' in this rig");
        else if (Kind == LeftActKind.Done && !Thing!.StartsWith("parts/", StringComparison.Ordinal)) c.Add($"{at}.thing", "a part is opened or handled");
        if (OutL is { } litres) c.Range($"{at}.outL", litres, "left.outL");
        if (Kind == LeftActKind.Antifreeze && Glycol is null) c.Add($"{at}.glycol", "a share belongs here");
        if (Glycol is { } share) c.Range($"{at}.glycol", share, "left.glycol");
        if (Kind != LeftActKind.Antifreeze && Glycol is not null) c.Add($"{at}.glycol", "only antifreeze has it");
        if (Kind == LeftActKind.Blown && Thing?.StartsWith("runs/", StringComparison.Ordinal) != true) c.Add($"{at}.thing", "a run is blown out");
        if (Kind == LeftActKind.Blown && Film is null) c.Add($"{at}.film", "a share belongs here");
        if (Film is { } film) c.Range($"{at}.film", film, "left.film");
        if (Kind != LeftActKind.Blown && Film is not null) c.Add($"{at}.film", "only what was blown out has it");
    }
}
