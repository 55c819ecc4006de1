using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Logbook;

/// <summary>Care that is due again and again.</summary>
/// <param name="Id">Its id: one of <see cref="CareCalendar.Usual"/>, or the builder's own.</param>
/// <param name="Name">What is to be done, 1 to 80 characters.</param>
/// <param name="EveryMonths">How often, months, 1 to 120; 0: never.</param>
/// <param name="LaidUpOnly">Only while the rig is laid up.</param>
public sealed record Reminder(string Id, string Name, int EveryMonths, bool LaidUpOnly = false) : IIdentified
{
    /// <summary>Reminders of one rig at the most.</summary>
    public const int Most = 50;

    /// <summary>What is out of range or missing, by field.</summary>
    public IReadOnlyList<RigFault> Check() => FieldChecker.Of(c =>
    {
        c.Id("id", Id);
        c.Name("name", Name);
        c.Range("everyMonths", EveryMonths, "log.everyMonths");
    });
}

/// <summary>Something that is due.</summary>
/// <param name="Id">The reminder's id.</param>
/// <param name="Name">What is to be done.</param>
/// <param name="EveryMonths">How often, months; 0: once.</param>
/// <param name="LastAt">When it was done last; null: it is not in the logbook.</param>
/// <param name="DueOn">The day on which it is due.</param>
/// <param name="IsDue">That day has come.</param>
/// <param name="LaidUpOnly">It counts only while the rig is laid up.</param>
public sealed record CareDue(string Id, string Name, int EveryMonths, DateTimeOffset? LastAt, DateOnly DueOn, bool IsDue, bool LaidUpOnly);

/// <summary>What the calendar of a rig goes by.</summary>
/// <param name="Since">When the rig came onto the shelf: care that was never logged counts from then.</param>
/// <param name="Now">Now.</param>
/// <param name="Wet">It holds water that ice does harm to.</param>
/// <param name="LastBackup">When all data were backed up last; null: never.</param>
/// <param name="HasFilter">There is a filter in the rig.</param>
/// <param name="Heated">It is kept warm all winter: no frost is waited for.</param>
public sealed record CareState(DateTimeOffset Since, DateTimeOffset Now, bool Wet, DateTimeOffset? LastBackup, bool HasFilter = true, bool Heated = false);

/// <summary>What is due next.</summary>
public static class CareCalendar
{
    /// <summary>Ids of what answers itself: a backup, and the first frost.</summary>
    public const string Backup = "backup", FirstFrost = "first-frost";

    private const string Filter = "filter";

    /// <summary>Usual care with usual intervals. Each is the builder's to change.</summary>
    public static IReadOnlyList<Reminder> Usual { get; } =
    [
        new("tank-clean", "Clean the tank", 6),
        new(Filter, "Change the filter", 6),
        new("leak-look", "Look for leaks", 12),
        new(Backup, "Save a backup", 1),
        new("battery", "Charge the battery, above 0 °C only", 1, LaidUpOnly: true),
    ];

    // A walk-through is care too.
    private static readonly Dictionary<string, ProcedureKind> Walked = new()
    {
        ["tank-clean"] = ProcedureKind.TankClean,
        [Filter] = ProcedureKind.FilterChange,
    };

    /// <summary>The care that walking a procedure to its end answers; null: none.</summary>
    public static string? OfWalk(ProcedureKind kind) => Walked.Where(w => w.Value == kind).Select(w => w.Key).FirstOrDefault();

    /// <summary>The usual reminders with the builder's in the place of those of the same id, and the builder's own after them.</summary>
    public static IReadOnlyList<Reminder> With(IReadOnlyList<Reminder> own) =>
        [.. Usual.Select(u => own.LastOrDefault(o => o.Id == u.Id) ?? u), .. own.Where(o => Usual.All(u => u.Id != o.Id))];

    /// <summary>
    /// Everything that is due or will be, the next first. Care that was never logged counts from when the rig came onto the shelf. The first frost is due while
    /// the rig is wet and not kept warm. Pure. O(reminders · entries).
    /// </summary>
    public static IReadOnlyList<CareDue> Of(IReadOnlyList<Reminder> own, IReadOnlyList<LogEntry> entries, CareState state, WeatherPlace place)
    {
        var standing = LogEntry.Standing(entries);
        var due = new List<CareDue>();
        bool Idle(Reminder r) => r.EveryMonths == 0 || (r.LaidUpOnly && state.Wet) || (r.Id == Filter && !state.HasFilter && own.All(o => o.Id != Filter));
        foreach (var reminder in With(own).Where(r => !Idle(r)))
        {
            var last = standing.Where(e => e.Care == reminder.Id && e.At <= state.Now).Select(e => (DateTimeOffset?)e.At)
                .Append(reminder.Id == Backup ? state.LastBackup : null).Max();
            var on = Day((last ?? state.Since).AddMonths(reminder.EveryMonths));
            due.Add(new CareDue(reminder.Id, reminder.Name, reminder.EveryMonths, last, on, on <= Day(state.Now), reminder.LaidUpOnly));
        }
        if (state.Wet && !state.Heated)
        {
            var frost = Frost.Next(place, Day(state.Now));
            due.Add(new CareDue(FirstFrost, "Drain before the first frost", 0, null, frost, frost <= Day(state.Now), false));
        }
        return [.. due.OrderBy(d => d.DueOn).ThenBy(d => d.Id, StringComparer.Ordinal)];
    }

    private static DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(at.Date);
}
