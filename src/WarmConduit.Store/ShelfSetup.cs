using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>Brings the database of a data folder up to date and lays out the demo, once, whatever was killed in the middle of it and however many starts there
/// are at a time.</summary>
public static class ShelfSetup
{
    /// <summary>Name of the database in the data folder.</summary>
    public const string FileName = "warm-conduit.db";

    private const string DemoMark = "demo";

    /// <summary>
    /// Prepares the folder <paramref name="data"/>. The demo rigs come from the folder <paramref name="demo"/>; null for none. Says through <paramref
    /// name="tell"/> what it waits for. Throws
    /// <see cref="TroubleException"/> when the folder or the database cannot be used.
    /// </summary>
    public static async Task Prepare(string data, string? demo, TimeProvider time, Action<string> tell, CancellationToken cancel)
    {
        try
        {
            MakeFolder(data);
            using var mine = await Alone(Path.Combine(data, "starting.lock"), tell, cancel);
            LogCheck.Check(Path.Combine(data, FileName));
            await using var db = new ShelfContext(ShelfContext.OptionsFor(Path.Combine(data, FileName)));
            await Migrate(db, cancel);
            if (demo is not null) await LayOut(db, demo, time, cancel);
        }
        catch (Exception e) when (TroubleException.Of(e) is { } trouble)
        {
            throw trouble;
        }
    }

    /// <summary>Makes the folder <paramref name="data"/> where it is not there. Throws <see cref="TroubleException"/> where it cannot be made.</summary>
    public static void MakeFolder(string data)
    {
        try
        {
            Directory.CreateDirectory(data);
        }
        catch (IOException e) when (TroubleException.Of(e) is null)
        {
            throw new TroubleException("The data folder cannot be made: a file of that name, or its disk, is in the way.", false, e);
        }
    }

    // The system lets go of a file lock when its process ends, however it ends.
    private static async Task<FileStream> Alone(string path, Action<string> tell, CancellationToken cancel)
    {
        for (int attempt = 0; ; attempt++)
        {
            try
            {
                return new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            }
            catch (IOException e) when (e is not (DirectoryNotFoundException or FileNotFoundException) && TroubleException.Of(e) is null && attempt < 600)
            {
                if (attempt == 5) tell("Waiting for another start of Warm Conduit that is preparing the same data folder.");
                await Task.Delay(100, cancel);
            }
        }
    }

    private static async Task Migrate(ShelfContext db, CancellationToken cancel)
    {
        var pending = (await db.Database.GetPendingMigrationsAsync(cancel)).ToList();
        if (pending.Count > 0)
        {
            // No other start is at it, so a lock that is still there was left behind by one that was killed; it would be waited for without end.
            await db.Database.OpenConnectionAsync(cancel);
            await Run(db, "CREATE TABLE IF NOT EXISTS \"__EFMigrationsLock\" (\"Id\" INTEGER NOT NULL CONSTRAINT \"PK___EFMigrationsLock\" PRIMARY KEY, " +
                "\"Timestamp\" TEXT NOT NULL); DELETE FROM \"__EFMigrationsLock\";", cancel);
            await db.Database.MigrateAsync(cancel);
        }
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            // What a killed program logged goes into the file, so that it can rest without a log, and be given a new era.
            await Run(db, LogCheck.Mark(inUse: false) + "PRAGMA wal_checkpoint(TRUNCATE);", cancel);
            if (await JournalMode(db, "DELETE", cancel) == "delete") await Run(db, LogCheck.NewEra(), cancel);
        }
        catch (SqliteException e) when (e.SqliteErrorCode == 5)
        {
            // Somebody else reads it: it keeps its era.
        }
        await JournalMode(db, "WAL", cancel);
        await Run(db, ShelfContext.Durable, cancel);
    }

    private static async Task LayOut(ShelfContext db, string folder, TimeProvider time, CancellationToken cancel)
    {
        if (await db.Marks.AnyAsync(m => m.Name == DemoMark, cancel)) return;
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var now = time.GetUtcNow();
        if (!await db.Rigs.AnyAsync(cancel))
        {
            foreach (string file in Directory.GetFiles(folder, "*.json").Order(StringComparer.Ordinal))
            {
                var rig = RigFile.Read(await File.ReadAllBytesAsync(file, cancel));
                Shelf.AddRows(db, rig, rig.Id, StoredDocuments.Words("Demo rig"), now);
                // Years of use, for those that have some.
                string log = Path.Combine(folder, "logbook", Path.GetFileName(file));
                if (!File.Exists(log)) continue;
                foreach (var entry in LogJson.Read<List<LogEntry>>(await File.ReadAllTextAsync(log, cancel)))
                    RigLog.Add(db, rig.Id, entry, now);
            }
        }
        db.Marks.Add(new MarkRow { Name = DemoMark, At = now });
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
    }

    private static async Task Run(ShelfContext db, string sql, CancellationToken cancel)
    {
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(cancel);
    }

    private static async Task<string?> JournalMode(ShelfContext db, string wanted, CancellationToken cancel)
    {
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"PRAGMA journal_mode={wanted};";
        return await command.ExecuteScalarAsync(cancel) as string;
    }
}
