using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Answers;

/// <summary>
/// Keeps, by id, revision and night, what questions have in common while a drag asks again and again, and whole answers about saved rigs. A revision never changes, so nothing here is
/// ever stale; what was not asked for longest goes first. Safe for many threads.
/// </summary>
internal sealed class QuestionCache : IDisposable
{
    // In points of runs and parts: an answer takes some hundred bytes for each.
    private const long MostPoints = 500_000;

    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostPoints, CompactionPercentage = 0.25 });

    /// <summary>Lets all go: the database has become another one.</summary>
    public void Clear() => _cache.Clear();

    /// <summary>A rig as saved, on one night.</summary>
    internal readonly record struct Key(string Id, int Revision, string Conditions)
    {
        public Key(string id, int revision, Conditions conditions)
            : this(id, revision, JsonSerializer.Serialize(conditions, RigFile.Compact))
        {
        }
    }

    /// <summary>A question about a saved rig, with what edited copies can share worked out.</summary>
    public Question Base(Key key, Rig rig, Conditions conditions)
    {
        if (_cache.TryGetValue(key, out Question? known)) return known!;
        return _cache.Set(key, new Question(rig, conditions).Warm(), Size(rig));
    }

    /// <summary>The answer of a study about a saved rig, if it is still here.</summary>
    public object? Answer(Key key, Study study) => _cache.Get((key, study.Name));

    /// <summary>The same, worked out when it is not.</summary>
    public object Answer(Key key, Study study, Question question) => Answer(key, study) ?? _cache.Set((key, study.Name), study.Ask(question), Size(question.Rig));

    /// <inheritdoc/>
    public void Dispose() => _cache.Dispose();

    private static MemoryCacheEntryOptions Size(Rig rig) => new() { Size = 1 + rig.Parts.Count + rig.Runs.Sum(r => r.Bends.Count + 2) };
}
