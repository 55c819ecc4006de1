using System.Collections.Concurrent;
using System.Threading.Channels;

namespace WarmConduit.Store;

/// <summary>Something that those who listen are told of.</summary>
public interface IChange;

/// <summary>What happened to a rig on the shelf.</summary>
public enum ChangeKind
{
    /// <summary>It came onto the shelf, or back.</summary>
    Added,

    /// <summary>It has a new revision.</summary>
    Saved,

    /// <summary>It was taken off.</summary>
    Removed,
}

/// <summary>A change on the shelf: which rig, what, and the revision that is now current.</summary>
/// <param name="RigId">The rig.</param>
/// <param name="Kind">What happened to it.</param>
/// <param name="Revision">The revision that is now current.</param>
public sealed record ShelfChange(string RigId, ChangeKind Kind, int Revision) : IChange;

/// <summary>All rigs are others than before: a backup was restored.</summary>
public sealed record ShelfReplaced : IChange;

/// <summary>Tells those who listen of every change that is on disk, and of how far jobs have come. One that does not keep up loses the oldest: it is told of
/// the newest, and that is what counts.</summary>
public sealed class ChangeFeed
{
    private readonly ConcurrentDictionary<Channel<IChange>, byte> _listeners = new();

    /// <summary>Tells of a change.</summary>
    public void Tell(IChange change)
    {
        foreach (var listener in _listeners.Keys) listener.Writer.TryWrite(change);
    }

    /// <summary>All changes from now on, until cancelled.</summary>
    public async IAsyncEnumerable<IChange> Listen([System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        var channel = Channel.CreateBounded<IChange>(new BoundedChannelOptions(256) { FullMode = BoundedChannelFullMode.DropOldest });
        _listeners.TryAdd(channel, 0);
        try
        {
            await foreach (var change in channel.Reader.ReadAllAsync(cancel)) yield return change;
        }
        finally
        {
            _listeners.TryRemove(channel, out _);
        }
    }
}
