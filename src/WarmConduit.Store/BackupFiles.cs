using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>What a backup holds.</summary>
/// <param name="Rigs">Rigs on the shelf in it.</param>
/// <param name="Revisions">Saved states of all rigs in it.</param>
/// <param name="SavedAt">When its newest was saved; null: it holds none.</param>
public sealed record BackupContent(int Rigs, int Revisions, DateTimeOffset? SavedAt);

/// <summary>All data as one file while the program runs, and back. A backup is a SQLite database that is whole by itself.</summary>
public static class BackupFiles
{
    private const string Mark = "backup", NewestMigration = "SELECT \"MigrationId\" FROM \"__EFMigrationsHistory\"";

    /// <summary>Writes all data of <paramref name="db"/> into a new file at <paramref name="path"/>, as of one moment, while others read and write.</summary>
    public static async Task Write(ShelfContext db, string path, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"VACUUM INTO {path}", cancel);
        // It rests: put in the place of the database it needs no log.
        await using var copy = Open(path);
        Run(copy, LogCheck.Mark(inUse: false));
    }

    /// <summary>When the last backup was taken; null: never.</summary>
    public static async Task<DateTimeOffset?> Last(ShelfContext db, CancellationToken cancel) =>
        await db.Marks.AsNoTracking().Where(m => m.Name == Mark).Select(m => (DateTimeOffset?)m.At).FirstOrDefaultAsync(cancel);

    /// <summary>When the oldest rig came onto the shelf; null: there is none.</summary>
    public static async Task<DateTimeOffset?> Since(ShelfContext db, CancellationToken cancel) =>
        await db.Rigs.AsNoTracking().OrderBy(r => r.AddedAt).Select(r => (DateTimeOffset?)r.AddedAt).FirstOrDefaultAsync(cancel);

    /// <summary>Notes that one was taken.</summary>
    public static async Task Note(ShelfContext db, DateTimeOffset at, CancellationToken cancel)
    {
        if (await db.Marks.Where(m => m.Name == Mark).ExecuteUpdateAsync(m => m.SetProperty(x => x.At, at), cancel) > 0) return;
        db.Marks.Add(new MarkRow { Name = Mark, At = at });
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>What the file at <paramref name="path"/> holds. Throws <see cref="RigFileException"/> where it is no backup, is damaged, or is of a newer
    /// version.</summary>
    public static BackupContent Check(string path)
    {
        try
        {
            using var file = Open(path);
            if (Text(file, "PRAGMA integrity_check(1)") is not "ok") throw Refused("it is damaged: a page of it cannot be read. Use another backup");
            if (Text(file, "SELECT count(*) FROM sqlite_master WHERE name IN ('__EFMigrationsHistory', 'Rigs', 'Revisions', 'Marks')") is not "4")
                throw Refused("it is not a backup of Warm Conduit");
            var known = Known();
            if (List(file, NewestMigration).FirstOrDefault(m => !known.Contains(m)) is not null)
                throw Refused("it was made by a newer version of Warm Conduit. Update this one first");
            string? newest = Text(file, "SELECT max(\"SavedAt\") FROM \"Revisions\"");
            return new BackupContent(
                int.Parse(Text(file, "SELECT count(*) FROM \"Rigs\" WHERE \"RemovedAt\" IS NULL")!, CultureInfo.InvariantCulture),
                int.Parse(Text(file, "SELECT count(*) FROM \"Revisions\"")!, CultureInfo.InvariantCulture),
                newest is null ? null : (DateTimeOffset)new DateTimeOffsetToBinaryConverter()
                .ConvertFromProvider(long.Parse(newest, CultureInfo.InvariantCulture))!);
        }
        catch (SqliteException e) when (e.SqliteErrorCode is 11 or 26)
        {
            throw Refused(e.SqliteErrorCode == 26 ? "it is not a backup of Warm Conduit" : "it is damaged: a page of it cannot be read. Use another backup");
        }
    }

    /// <summary>
    /// Puts what the checked file at <paramref name="path"/> holds in the place of all that the database at <paramref name="database"/> holds, in one
    /// transaction: all of it, or, whatever stops it, none. The database is to be prepared anew afterwards: the file may be of an older version.
    /// </summary>
    public static void Restore(string path, string database)
    {
        using var live = Open(database);
        using var file = Open(path);
        // The log goes on belonging to its database.
        Run(file, $"PRAGMA application_id={Text(live, "PRAGMA application_id")};{LogCheck.Mark(inUse: true)}");
        file.BackupDatabase(live);
    }

    private static HashSet<string> Known()
    {
        using var any = new ShelfContext(ShelfContext.OptionsFor(":memory:"));
        return [.. any.Database.GetMigrations()];
    }

    private static SqliteConnection Open(string path)
    {
        var connection = new SqliteConnection(ShelfContext.ConnectionString(path));
        connection.Open();
        return connection;
    }

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static string? Text(SqliteConnection connection, string sql) => List(connection, sql).FirstOrDefault();

    private static List<string> List(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var found = new List<string>();
        while (reader.Read())
            if (!reader.IsDBNull(0)) found.Add(reader.GetString(0));
        return found;
    }

    private static RigFileException Refused(string reason) => new([new RigFault("file", reason)]);
}
