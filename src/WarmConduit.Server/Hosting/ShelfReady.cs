using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>Where the data lies, and the folder of demo rigs if there is one.</summary>
internal sealed record DataSettings(string Folder, string? Demo)
{
    public string Database => Path.Combine(Folder, ShelfSetup.FileName);
}

/// <summary>Marks endpoints that read or write the shelf.</summary>
internal sealed class NeedsShelf;

/// <summary>Prepares the database before the first request that wants it, and again after each trouble, so that the program goes on once the trouble is cured.</summary>
internal sealed partial class ShelfReady(DataSettings settings, Connections connections, TimeProvider time, ILogger<ShelfReady> log) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);
    private volatile bool _ready;

    /// <summary>Prepares it unless that is done. Throws <see cref="TroubleException"/> when it cannot be used.</summary>
    public async Task Prepare(CancellationToken cancel)
    {
        if (_ready && File.Exists(settings.Database)) return;
        await _one.WaitAsync(cancel);
        try
        {
            if (_ready && File.Exists(settings.Database)) return;
            // The file may be another one than before.
            connections.Clear();
            await ShelfSetup.Prepare(settings.Folder, settings.Demo, time, words => Console.WriteLine(words), cancel);
            _ready = true;
        }
        catch (TroubleException e)
        {
            LogTrouble(log, settings.Folder, e.Message);
            throw;
        }
        finally
        {
            _one.Release();
        }
    }

    public void Dispose() => _one.Dispose();

    [LoggerMessage(LogLevel.Warning, "The data folder {Folder} cannot be used: {Reason}")]
    private static partial void LogTrouble(ILogger log, string folder, string reason);
}
