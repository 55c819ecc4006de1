using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Application.Answers;

/// <summary>
/// Keeps, by id, revision and night, what questions have in common while a drag asks again and again, and whole answers about saved rigs. A revision never changes, so nothing here is
/// ever stale; what was not asked for longest goes first, and what nobody asked for in some minutes. Safe for many threads.
/// </summary>
public sealed class QuestionCache : IDisposable
{
    private const long MostBytes = 120_000_000;

    // What a question works out ahead takes so much for each point of a run and each part, measured at 32 to 992 runs.
    private const long BytesAPoint = 6000;

    private static readonly TimeSpan Rests = TimeSpan.FromMinutes(5);

    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostBytes, CompactionPercentage = 0.25, ExpirationScanFrequency = TimeSpan.FromSeconds(30) });

    /// <summary>Lets all go: the database has become another one.</summary>
    public void Clear() => _cache.Clear();

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
        long points = rig.Parts.Count + rig.Runs.Sum(r => r.Bends.Count + 2);
        return Keep(key, new Question(rig, conditions).Warm(), (BytesAPoint * points) + Footprint.Of(conditions));
    }

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
