using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Rigs;
using WarmConduit.Store;

namespace WarmConduit.Application.Backups;

/// <summary>Where the data lies.</summary>
/// <param name="Folder">The data folder.</param>
/// <param name="Database">The database in it.</param>
public sealed record DataPlace(string Folder, string Database);

/// <summary>A backup that was read and checked, and can be restored.</summary>
/// <param name="Id">The key to restore it with; valid for a quarter of an hour.</param>
/// <param name="Content">What it holds.</param>
public sealed record CheckedBackup(string Id, BackupContent Content);

/// <summary>What was done.</summary>
/// <param name="Content">What is here now.</param>
/// <param name="KeptAs">The file in the data folder with what was here before.</param>
public sealed record RestoredBackup(BackupContent Content, string KeptAs);

/// <summary>Whether a backup was taken lately.</summary>
/// <param name="LastAt">When the last one was taken; null: never.</param>
/// <param name="Due">None was taken for a month, and there is data older than that.</param>
public sealed record BackupState(DateTimeOffset? LastAt, bool Due);

/// <summary>Takes backups while the program runs, checks those that come back, and puts them in the place of what is there.</summary>
public sealed class BackupDesk : IDisposable
{
    private static readonly TimeSpan Kept = TimeSpan.FromMinutes(15), Month = TimeSpan.FromDays(30);

    private readonly DataPlace _place;
    private readonly WriterLock _line;
    private readonly TimeProvider _time;
    private readonly string _files;
    private readonly ConcurrentDictionary<string, (string Path, BackupContent Content, DateTimeOffset At)> _checked = new();

    /// <summary>Takes care of the data at <paramref name="place"/>. Files that a killed program was taking or receiving go: one program serves a
    /// folder.</summary>
    public BackupDesk(DataPlace place, WriterLock line, TimeProvider time)
    {
        (_place, _line, _time, _files) = (place, line, time, Path.Combine(place.Folder, "backup-files"));
        if (Directory.Exists(_files)) Directory.Delete(_files, recursive: true);
    }

    /// <summary>Whether one is due.</summary>
    public async Task<BackupState> State(ShelfContext db, CancellationToken cancel)
    {
        var last = await BackupFiles.Last(db, cancel);
        return new BackupState(last, (last ?? await BackupFiles.Since(db, cancel)) is { } since && _time.GetUtcNow() - since > Month);
    }

    /// <summary>All data as one file, which is gone once the stream is closed. Notes that a backup was taken.</summary>
    public async Task<FileStream> Take(ShelfContext db, CancellationToken cancel)
    {
        string path = NewFile();
        try
        {
            await BackupFiles.Write(db, path, cancel);
            using (await _line.Turn(cancel)) await BackupFiles.Note(db, _time.GetUtcNow(), cancel);
            return new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read, 65536, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
    }

    /// <summary>Reads a file and checks it; nothing is changed yet. Throws <see cref="RigFileException"/> where it is no backup, is damaged, or is of a newer
    /// version.</summary>
    public async Task<CheckedBackup> Receive(Stream sent, CancellationToken cancel)
    {
        foreach (var (id, old) in _checked)
            if (_time.GetUtcNow() - old.At > Kept) Forget(id);
        string path = NewFile();
        try
        {
            await using (var file = new FileStream(path, FileMode.CreateNew)) await sent.CopyToAsync(file, cancel);
            var content = BackupFiles.Check(path);
            string id = Guid.NewGuid().ToString("N");
            _checked[id] = (path, content, _time.GetUtcNow());
            return new CheckedBackup(id, content);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
    }

    /// <summary>
    /// Puts a checked backup in the place of all that is here; null: there is none of that id (any more). What was here is kept as a file beside the database.
    /// <paramref name="prepare"/> opens the database anew.
    /// </summary>
    public async Task<RestoredBackup?> Restore(string id, ShelfContext db, Func<Task> prepare, CancellationToken cancel)
    {
        if (!_checked.TryGetValue(id, out var file)) return null;
        using (await _line.Turn(cancel))
        {
            string kept = string.Create(CultureInfo.InvariantCulture, $"before-restore-{_time.GetUtcNow():yyyyMMdd-HHmmss-fff}.db");
            await BackupFiles.Write(db, Path.Combine(_place.Folder, kept), cancel);
            // Whoever has the database open keeps it from being prepared anew.
            await db.Database.GetDbConnection().CloseAsync();
            BackupFiles.Restore(file.Path, _place.Database);
            await prepare();
            Forget(id);
            return new RestoredBackup(file.Content, kept);
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (string id in _checked.Keys) Forget(id);
    }

    private void Forget(string id)
    {
        if (_checked.TryRemove(id, out var file)) File.Delete(file.Path);
    }

    private string NewFile()
    {
        Directory.CreateDirectory(_files);
        return Path.Combine(_files, $"{Guid.NewGuid():N}.db");
    }
}
