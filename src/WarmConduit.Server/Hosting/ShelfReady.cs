using Microsoft.Data.Sqlite;
using WarmConduit.Application.Answers;
using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>Where the data lies, and the folder of demo rigs if there is one.</summary>
internal sealed record DataSettings(string Folder, string? Demo)
{
    public string Database => Path.Combine(Folder, ShelfSetup.FileName);
}

/// <summary>Marks endpoints that read or write the shelf.</summary>
internal sealed class NeedsShelf;

/// <summary>Prepares the database before the first request that wants it, and again after each trouble, so that the program goes on once the trouble is
/// cured.</summary>
internal sealed partial class ShelfReady(DataSettings settings, Connections connections, RigCache documents, QuestionCache answers, WriterLock line,
    TimeProvider time, ILogger<ShelfReady> log) : BackgroundService
{
    private const int ADay = 288;
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(5);

    private readonly SemaphoreSlim _one = new(1);
    private volatile bool _ready;
    private FileStream? _serving;

    /// <summary>Prepares it unless that is done. Throws <see cref="TroubleException"/> when it cannot be used.</summary>
    public async Task Prepare(CancellationToken cancel)
    {
        if (_ready && connections.IsSameFile()) return;
        await _one.WaitAsync(cancel);
        try
        {
            if (_ready && connections.IsSameFile()) return;
            // The file may be another one than before: nothing of the old one counts.
            connections.Clear();
            documents.Clear();
            answers.Clear();
            ShelfSetup.MakeFolder(settings.Folder);
            _serving?.Dispose();
            _serving = Alone();
            await ShelfSetup.Prepare(settings.Folder, settings.Demo, time, words => Console.WriteLine(words), cancel);
            if (connections.Damage() is { } damage) throw new TroubleException($"The database is damaged: {damage}. Put a copy of it from a backup into the " +
                $"data folder, and try again; what is there was left as it is.", false, null);
            connections.Anchor();
            _ready = true;
        }
        catch (Exception e) when (TroubleException.Of(e) is { } trouble)
        {
            LogTrouble(log, settings.Folder, trouble.Message);
            throw trouble;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Opens the database anew: what it holds has become something else.</summary>
    public Task Reopen()
    {
        _ready = false;
        return Prepare(CancellationToken.None);
    }

    /// <summary>What was logged goes into the file every few minutes; once a day the pages are looked through, and what nobody can ask for any more is taken
    /// away.</summary>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        for (int n = 1; await timer.WaitForNextTickAsync(stoppingToken); n++)
        {
            // Another file in its place is opened by whoever has looked at it first.
            if (!_ready || !connections.IsSameFile()) continue;
            try
            {
                connections.Checkpoint();
                if (n % ADay != 1) continue;
                // The next request finds it out, and says so.
                if (connections.Damage() is not null) _ready = false;
                else await Collect(stoppingToken);
            }
            catch (SqliteException e)
            {
                LogTrouble(log, settings.Folder, e.Message);
            }
        }
    }

    private async Task Collect(CancellationToken cancel)
    {
        using var loan = connections.Borrow();
        await using var db = loan.Context();
        await new Collector(db, documents, line, time).Run(cancel);
    }

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        connections.Clear();
    }

    public override void Dispose()
    {
        _serving?.Dispose();
        _one.Dispose();
        base.Dispose();
    }

    // The system lets go of it when the process ends, however it ends.
    private FileStream Alone()
    {
        try
        {
            return new FileStream(Path.Combine(settings.Folder, "serving.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException e) when (e is not (DirectoryNotFoundException or FileNotFoundException) && TroubleException.Of(e) is null)
        {
            throw new TroubleException($"Another Warm Conduit serves the data folder {settings.Folder}. Stop it, or start this one with a folder of its own: " +
                $"--data.", false, e);
        }
    }

    [LoggerMessage(LogLevel.Warning, "The data folder {Folder} cannot be used: {Reason}")]
    private static partial void LogTrouble(ILogger log, string folder, string reason);
}
