using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Logbook;

/// <summary>What an entry of the logbook is about.</summary>
public enum LogKind
{
    /// <summary>A procedure that was walked through.</summary>
    Walk,

    /// <summary>Water that came out of an opening, beside what was expected.</summary>
    Litres,

    /// <summary>Something that was read off: a thermometer, a gauge.</summary>
    Reading,

    /// <summary>A leak.</summary>
    Leak,

    /// <summary>A repair or a change.</summary>
    Repair,

    /// <summary>Care that is due again after a time.</summary>
    Care,

    /// <summary>A note.</summary>
    Note,
}

/// <summary>One entry of the logbook of a rig. Never changed once written: a later entry corrects it.</summary>
/// <param name="Id">Its id, made by the writer: sent again, it is the same entry.</param>
/// <param name="Kind">What it is about.</param>
/// <param name="At">When it was, as the writer says.</param>
/// <param name="Words">What was done, seen or read; up to 2000 characters.</param>
/// <param name="OutdoorC">Temperature outdoors, °C, -60 to 60; left out: not known.</param>
/// <param name="Who">Who did it, up to 60 characters; left out: not said.</param>
/// <param name="Thing">What it is about: <c>parts/drain-a</c>, <c>runs/main</c>; left out: the whole.</param>
/// <param name="ThingName">What that was called then; left out likewise.</param>
/// <param name="ExpectedL">Water that should have come, L; left out: not known.</param>
/// <param name="CollectedL">Water that came, L; left out: not measured.</param>
/// <param name="Care">The reminder that it answers: its id; left out: none.</param>
/// <param name="Corrects">The entry that it stands in the place of; left out: none.</param>
/// <param name="WalkId">The walk-through that it is of; left out: none.</param>
/// <param name="Pictures">Pictures, by their names; left out: none.</param>
/// <param name="Revision">The revision of the rig that it was written at; 0: not known.</param>
public sealed record LogEntry(
    string Id, LogKind Kind, DateTimeOffset At, string Words, double? OutdoorC = null, string? Who = null, string? Thing = null, string? ThingName = null,
    double? ExpectedL = null, double? CollectedL = null, string? Care = null, string? Corrects = null, string? WalkId = null,
    IReadOnlyList<string>? Pictures = null, int Revision = 0) : IIdentified
{
    /// <summary>Entries of one rig at the most.</summary>
    public const int Most = 20_000;

    /// <summary>The longest name of who wrote it, characters.</summary>
    public const int MostWho = 60;

    /// <summary>Pictures of an entry at the most.</summary>
    public const int MostPictures = 8;

    /// <summary>What is out of range or missing, by field.</summary>
    public IReadOnlyList<RigFault> Check() => FieldChecker.Of(c =>
    {
        c.Id("id", Id);
        if (!Enum.IsDefined(Kind)) c.Add("kind", "this is not known");
        if (Words.Length > 2000) c.Add("words", "it is longer than 2000 characters");
        if (string.IsNullOrWhiteSpace(Words) && CollectedL is null && OutdoorC is null && (Pictures?.Count ?? 0) == 0) c.Add("words", "write what it is");
        if (At.Year is < 1970 or > 2200) c.Add("at", "a year from 1970 to 2200");
        if (OutdoorC is { } outdoors) c.Range("outdoorC", outdoors, "log.outdoorC");
        if (Who?.Length > MostWho) c.Add("who", $"it is longer than {MostWho} characters");
        if (Thing?.Length > 120 || ThingName?.Length > 80) c.Add("thing", "it is too long");
        if (ExpectedL is { } expected) c.Range("expectedL", expected, "left.outL");
        if (CollectedL is { } collected) c.Range("collectedL", collected, "left.outL");
        if (Care is { } care) c.Id("care", care);
        if (Corrects is { } old) c.Id("corrects", old);
        if (Corrects == Id) c.Add("corrects", "an entry can't correct itself");
        if (WalkId is { } walk) c.Id("walkId", walk);
        c.Count("pictures", Pictures?.Count ?? 0, 0, MostPictures);
        foreach (string picture in Pictures ?? [])
            if (picture.Length != 64 || !picture.All(char.IsAsciiHexDigitLower)) c.Add("pictures", "a picture is named by its 64 digits");
        if (Revision < 0) c.Add("revision", "it is not a revision");
    });

    /// <summary>Entries that nothing later corrects. O(n).</summary>
    public static IReadOnlyList<LogEntry> Standing(IReadOnlyList<LogEntry> entries)
    {
        var corrected = entries.Select(e => e.Corrects).OfType<string>().ToHashSet();
        return [.. entries.Where(e => !corrected.Contains(e.Id))];
    }
}
