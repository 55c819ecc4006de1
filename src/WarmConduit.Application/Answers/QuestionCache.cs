using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Application.Answers;

/// <summary>
/// Keeps, by id, revision and night, what questions have in common while a drag asks again and again, and whole answers about saved rigs. A revision never
/// changes, so nothing here is ever stale; what was not asked for longest goes first, and what nobody asked for in some minutes. Safe for many threads.
/// </summary>
public sealed class QuestionCache : IDisposable
{
    private const long MostBytes = 60_000_000;

    // What a question works out ahead takes so much for each point of a run and each part, measured at 32 to 992 runs.
    private const long BytesAPoint = 700;

    private static readonly TimeSpan Rests = TimeSpan.FromMinutes(5);

    // By rig, the revision and night that were asked about last.
    private readonly ConcurrentDictionary<string, Key> _newest = new();
    private readonly MemoryCache _cache = new(new MemoryCacheOptions
    {
        SizeLimit = MostBytes,
        CompactionPercentage = 0.25,
        ExpirationScanFrequency = TimeSpan.FromSeconds(30)
    });

    /// <summary>Lets all go: the database has become another one.</summary>
    public void Clear()
    {
        _newest.Clear();
        _cache.Clear();
    }

    /// <summary>A rig as saved, on one night.</summary>
    public readonly record struct Key
    {
        /// <summary>A revision on a night.</summary>
        public Key(string id, int revision, Conditions conditions)
        {
            (Id, Revision) = (id, revision);
            // A night with weather of its own is a year long: it is known by its hash.
            Night = Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(conditions, RigFile.Compact)));
        }

        /// <summary>The rig.</summary>
        public string Id { get; }

        /// <summary>Its revision.</summary>
        public int Revision { get; init; }

        /// <summary>Stands for the night.</summary>
        public string Night { get; }
    }

    /// <summary>A question about a saved rig, with what edited copies can share worked out.</summary>
    public Question Base(Key key, Rig rig, Conditions conditions)
    {
        if (_cache.TryGetValue(key, out Question? known)) return known!;
        // The revision before it has most of what this one shares with its edited copies.
        var made = (Newest(key.Id) is { } before && before.Key.Night == key.Night ? before.Question.On(rig, default) : new Question(rig, conditions)).Warm();
        _newest[key.Id] = key;
        return Keep(key, made, (BytesAPoint * rig.PointCount()) + Footprint.Of(conditions));
    }

    /// <summary>
    /// Works out ahead what edited copies of a new revision share, where the one before it was asked about: whoever saved it will ask again in a moment.
    /// </summary>
    public void Ahead(string id, int revision, Rig rig)
    {
        if (Newest(id) is { } before && before.Key.Revision < revision) Base(before.Key with { Revision = revision }, rig, before.Question.Conditions);
    }

    private (Key Key, Question Question)? Newest(string id) => _newest.TryGetValue(id, out var key) && _cache.TryGetValue(key, out Question? question)
        ? (key, question!) : null;

    /// <summary>The answer of a study about a saved rig, if it is still here.</summary>
    public object? Answer(Key key, Study study) => _cache.Get((key, study.Name));

    /// <summary>The same, worked out when it is not.</summary>
    public object Answer(Key key, Study study, Question question)
    {
        if (Answer(key, study) is { } known) return known;
        object answer = study.Ask(question);
        return Keep((key, study.Name), answer, Footprint.Of(answer));
    }

    /// <inheritdoc/>
    public void Dispose() => _cache.Dispose();

    private T Keep<T>(object key, T value, long bytes) => _cache.Set(key, value, new MemoryCacheEntryOptions { Size = 500 + bytes, SlidingExpiration = Rests });
}
