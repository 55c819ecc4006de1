using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>Something new in the logbook of a rig, or on one of its walk-throughs.</summary>
/// <param name="RigId">The rig.</param>
/// <param name="WalkId">The walk-through; null: an entry or a reminder.</param>
public sealed record LogChange(string RigId, string? WalkId) : IChange;

/// <summary>The logbook of each rig: entries and reminders, appended to. What is written is on disk before a method returns.</summary>
public sealed class RigLog(ShelfContext db, WriterLock line, ChangeFeed feed, TimeProvider time)
{
    /// <summary>All entries of a rig, the newest first.</summary>
    public async Task<IReadOnlyList<LogEntry>> Entries(string rigId, CancellationToken cancel) =>
        [.. (await db.Log.AsNoTracking().Include(e => e.Pictures).Where(e => e.RigId == rigId).ToListAsync(cancel)).Select(Of)
            .OrderByDescending(e => e.At).ThenBy(e => e.Id, StringComparer.Ordinal)];

    /// <summary>Appends entries, all or none, and gives how many were new: one whose id is known is the same entry. Throws <see cref="RigFileException"/> where
    /// one corrects what is not there.</summary>
    public async Task<int> Append(string rigId, IReadOnlyList<LogEntry> entries, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        var known = (await db.Log.Where(e => e.RigId == rigId).Select(e => e.Id).ToListAsync(cancel)).ToHashSet();
        if (known.Count + entries.Count > LogEntry.Most) throw new RigFileException([new RigFault("entries", $"at most {LogEntry.Most} in a logbook")]);
        int added = 0;
        var now = time.GetUtcNow();
        var all = known.Concat(entries.Select(e => e.Id)).ToHashSet();
        foreach (var entry in entries)
        {
            if (!known.Add(entry.Id)) continue;
            if (entry.Corrects is { } old && !all.Contains(old)) throw new RigFileException([new RigFault("corrects", "there is no such entry")]);
            Add(db, rigId, entry, now);
            added++;
        }
        await db.SaveChangesAsync(CancellationToken.None);
        if (added > 0) feed.Tell(new LogChange(rigId, null));
        return added;
    }

    /// <summary>The reminders of a rig as they were set last.</summary>
    public async Task<IReadOnlyList<Reminder>> Reminders(string rigId, CancellationToken cancel) =>
        [.. (await db.Reminders.AsNoTracking().Where(r => r.RigId == rigId).OrderBy(r => r.Number).ToListAsync(cancel)).GroupBy(r => r.Id)
            .Select(r => LogJson.Read<Reminder>(r.Last().Content))];

    /// <summary>Sets a reminder.</summary>
    public async Task Set(string rigId, Reminder reminder, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        var ids = await db.Reminders.Where(r => r.RigId == rigId).Select(r => r.Id).Distinct().ToListAsync(cancel);
        if (!ids.Contains(reminder.Id) && ids.Count >= Reminder.Most) throw new RigFileException([new RigFault("reminders", $"at most {Reminder.Most}")]);
        db.Reminders.Add(new ReminderRow
        {
            RigId = rigId,
            Id = reminder.Id,
            SetAt = time.GetUtcNow(),
            Content = LogJson.Text(reminder),
        });
        await db.SaveChangesAsync(CancellationToken.None);
        feed.Tell(new LogChange(rigId, null));
    }

    /// <summary>When the rig came onto the shelf; null: there is no such rig.</summary>
    public async Task<DateTimeOffset?> Since(string rigId, CancellationToken cancel) =>
        await db.Rigs.AsNoTracking().Where(r => r.Id == rigId && r.RemovedAt == null).Select(r => (DateTimeOffset?)r.AddedAt).FirstOrDefaultAsync(cancel);

    internal static void Add(ShelfContext db, string rigId, LogEntry entry, DateTimeOffset now)
    {
        var row = new LogRow
        {
            RigId = rigId,
            Id = entry.Id,
            At = entry.At,
            RecordedAt = now,
            Content = LogJson.Text(entry with { Pictures = null })
        };
        row.Pictures.AddRange((entry.Pictures ?? []).Select((p, i) => new LogPictureRow { RigId = rigId, EntryId = entry.Id, Number = i + 1, Picture = p }));
        db.Log.Add(row);
    }

    private static LogEntry Of(LogRow row) => LogJson.Read<LogEntry>(row.Content) with
    {
        Pictures = row.Pictures.Count == 0 ? null : [.. row.Pictures.OrderBy(p => p.Number).Select(p => p.Picture)],
    };
}
