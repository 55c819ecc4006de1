namespace WarmConduit.Store;

/// <summary>Lets one write go on at a time, so that writers wait in line here and not at the database.</summary>
public sealed class WriterLock : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Waits for the turn; dispose the answer to end it.</summary>
    public async Task<IDisposable> Turn(CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        return new Ending(_one);
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private sealed class Ending(SemaphoreSlim one) : IDisposable
    {
        public void Dispose() => one.Release();
    }
}
