namespace WarmConduit.Core.Numerics;

/// <summary>How many cores long work takes.</summary>
internal static class CoreUse
{
    /// <summary>All but one: the last is left for whoever drags meanwhile.</summary>
    public static ParallelOptions Some(CancellationToken cancel) => new()
    {
        CancellationToken = cancel,
        MaxDegreeOfParallelism = Math.Max(1, Environment.ProcessorCount - 1)
    };
}
