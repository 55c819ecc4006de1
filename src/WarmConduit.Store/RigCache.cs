using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>
/// Parsed documents by id and revision. A revision never changes, so nothing here is ever stale; what was not asked for longest goes when there is too much.
/// Safe for many threads.
/// </summary>
public sealed class RigCache(long mostBytes = 24_000_000)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<(string Id, int Revision), LinkedListNode<Entry>> _entries = [];
    private readonly LinkedList<Entry> _byUse = [];
    private long _bytes;

    private sealed record Entry((string Id, int Revision) Key, Rig? Rig, string? Unreadable, int Bytes);

    /// <summary>The document, or why it cannot be read; false when it is not here.</summary>
    public bool TryGet(string id, int revision, out Rig? rig, out string? unreadable)
    {
        lock (_lock)
        {
            if (!_entries.TryGetValue((id, revision), out var node))
            {
                (rig, unreadable) = (null, null);
                return false;
            }
            _byUse.Remove(node);
            _byUse.AddFirst(node);
            (rig, unreadable) = (node.Value.Rig, node.Value.Unreadable);
            return true;
        }
    }

    /// <summary>Lets all go: the database has become another one.</summary>
    public void Clear()
    {
        lock (_lock)
        {
            _entries.Clear();
            _byUse.Clear();
            _bytes = 0;
        }
    }

    /// <summary>Keeps a document that takes about <paramref name="bytes"/> as JSON.</summary>
    public void Put(string id, int revision, Rig? rig, string? unreadable, int bytes)
    {
        lock (_lock)
        {
            if (_entries.ContainsKey((id, revision))) return;
            _entries[(id, revision)] = _byUse.AddFirst(new Entry((id, revision), rig, unreadable, bytes));
            _bytes += bytes;
            while (_bytes > mostBytes && _byUse.Count > 1)
            {
                var oldest = _byUse.Last!.Value;
                _byUse.RemoveLast();
                _entries.Remove(oldest.Key);
                _bytes -= oldest.Bytes;
            }
        }
    }
}
