using Microsoft.EntityFrameworkCore;
using WarmConduit.Application.Answers;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Weather;
using WarmConduit.Store;

namespace WarmConduit.Application.LayUp;

/// <summary>The season of frost, days since 1 October.</summary>
/// <param name="First">The first frost, as early as in one winter of ten.</param>
/// <param name="Last">The last, as late as in one of ten.</param>
public sealed record FrostSeason(int First, int Last);

/// <summary>The logbook of a rig.</summary>
/// <param name="Entries">All entries, the newest first; one that a later one corrects stands as it was written.</param>
/// <param name="Due">What is due or will be, the next first.</param>
/// <param name="Reminders">Every reminder, with its interval.</param>
/// <param name="Collected">Water collected against water expected, by opening.</param>
/// <param name="Place">The place whose frost it goes by.</param>
/// <param name="Frost">The season of frost there.</param>
public sealed record LogAnswer(
    IReadOnlyList<LogEntry> Entries, IReadOnlyList<CareDue> Due, IReadOnlyList<Reminder> Reminders, IReadOnlyList<CollectedAt> Collected, WeatherPlace Place,
    FrostSeason Frost);

/// <summary>Keeps the logbooks.</summary>
public sealed class LogDesk(Shelf shelf, RigLog log, ShelfContext db, QuestionCache cache, TimeProvider time)
{
    /// <summary>The logbook of a rig, or null. Wherever the rig is, the earliest frost counts unless a place is chosen.</summary>
    public async Task<LogAnswer?> Of(string rigId, WeatherPlace? place, CancellationToken cancel)
    {
        if (await log.Since(rigId, cancel) is not { } since || await shelf.Find(rigId, cancel) is not { } found) return null;
        var at = place ?? Enum.GetValues<WeatherPlace>().MinBy(p => Frost.Season(p).First);
        var (entries, own) = (await log.Entries(rigId, cancel), await log.Reminders(rigId, cancel));
        bool wet = found.Rig is not { } rig || LeftOf(found.Revision, rig, cancel).Word == LeftWord.Wet;
        var due = CareCalendar.Of(own, entries, new CareState(since, time.GetUtcNow(), wet, await BackupFiles.Last(db, cancel), HasFilter(found.Rig),
            found.Rig?.Brief.School == FreezeSchool.Heat), at);
        var (first, last) = Frost.Season(at);
        return new LogAnswer(entries, due, CareCalendar.With(own), Core.Logbook.Collected.Of(entries), at, new FrostSeason(first, last));
    }

    // The shelf asks the same of every rig.
    private LeftAnswer LeftOf(int revision, Rig rig, CancellationToken cancel)
    {
        var conditions = Conditions.Of(rig.Brief);
        var key = new QuestionCache.Key(rig.Id, revision, conditions);
        return (LeftAnswer)cache.Answer(key, StudyRegistry.Named("left")!, cache.Base(key, rig, conditions).On(rig, cancel));
    }

    private static bool HasFilter(Rig? rig) => rig?.Parts.Any(PartWater.HasCartridge) ?? true;

    /// <summary>What is due at a rig, the next first; null: there is no such rig.</summary>
    public async Task<IReadOnlyList<CareDue>?> Due(string rigId, CancellationToken cancel) => (await Of(rigId, null, cancel))?.Due;

    /// <summary>Writes down what jugs took that edits of a rig have read. Each change of a reading is an entry of its own; the last one stands.</summary>
    public async Task Jugs(string rigId, IReadOnlyList<Edit> edits, int revision, CancellationToken cancel)
    {
        var read = edits.Select(e => e switch
        {
            AddThing { List: "left" } added => ((string?)added.Value["id"], (double?)added.Value["outL"]),
            ChangeThing change when change.Thing.StartsWith("left/", StringComparison.Ordinal) => (change.Thing["left/".Length..],
                (double?)change.Values["outL"]),
            _ => (null, null),
        }).Where(r => r.Item1 is not null && r.Item2 is not null).ToList();
        if (read.Count == 0 || await shelf.Revision(rigId, revision, cancel) is not { } rig) return;
        var known = await log.Entries(rigId, cancel);
        var expected = LeftOf(revision, rig, cancel).Readings;
        foreach (var (act, litres) in read)
        {
            if (rig.Left?.Find(act!) is not { Thing: { } thing } left) continue;
            string stem = $"jug-{act}-";
            string? before = known.Where(e => e.Id.StartsWith(stem, StringComparison.Ordinal)).OrderBy(e => e.Revision).LastOrDefault()?.Id;
            // A save that is told again is written down already; a full logbook keeps no edit from being saved.
            if (known.Any(e => e.Id == $"{stem}{revision}") || known.Count + read.Count > LogEntry.Most) continue;
            await Write(rigId, new LogEntry($"{stem}{revision}", LogKind.Litres, left.At, "", Thing: thing, CollectedL: litres, Corrects: before,
                ExpectedL: expected.FirstOrDefault(r => $"parts/{r.PartId}" == thing)?.ExpectedL), cancel);
        }
    }

    /// <summary>Writes an entry. Null: there is no such rig. Throws <see cref="RigFileException"/> naming each field that is wrong.</summary>
    public async Task<LogEntry?> Write(string rigId, LogEntry entry, CancellationToken cancel)
    {
        if (await shelf.Find(rigId, cancel) is not { } found) return null;
        var faults = entry.Check();
        if (faults.Count > 0) throw new RigFileException(faults);
        // What it is about is called as it is called now.
        string? name = entry.Thing is { } thing && found.Rig is { } rig ? thing.Split('/') switch
        {
            ["parts", var id] => rig.Parts.Find(id)?.Name,
            ["runs", var id] => rig.Runs.Find(id)?.Name,
            _ => null,
        } : null;
        var written = entry with { ThingName = name ?? entry.ThingName, Revision = found.Revision };
        foreach (string picture in entry.Pictures ?? [])
            if (!await db.Pictures.AnyAsync(p => p.Hash == picture, cancel)) throw new RigFileException([new RigFault("pictures", "send the picture first")]);
        await log.Append(rigId, [written], cancel);
        return written;
    }

    /// <summary>Writes the entries of a table, all or none, and gives how many were new. Null: there is no such rig.</summary>
    public async Task<int?> Read(string rigId, string text, CancellationToken cancel) =>
        await log.Since(rigId, cancel) is null ? null : await log.Append(rigId, LogTable.Read(text), cancel);

    /// <summary>Sets a reminder. False: there is no such rig.</summary>
    public async Task<bool> Set(string rigId, Reminder reminder, CancellationToken cancel)
    {
        if (await log.Since(rigId, cancel) is null) return false;
        var faults = reminder.Check();
        if (faults.Count > 0) throw new RigFileException(faults);
        await log.Set(rigId, reminder, cancel);
        return true;
    }
}
