using WarmConduit.Core.Studies.Left;

namespace WarmConduit.Core.Logbook;

/// <summary>One jug under an opening.</summary>
/// <param name="EntryId">The entry.</param>
/// <param name="At">When.</param>
/// <param name="ExpectedL">What should have come, L.</param>
/// <param name="CollectedL">What came, L.</param>
/// <param name="IsShort">Less than a jug's error explains.</param>
public sealed record Jugful(string EntryId, DateTimeOffset At, double ExpectedL, double CollectedL, bool IsShort);

/// <summary>What came out of one opening over the years.</summary>
/// <param name="Thing">The opening.</param>
/// <param name="Name">Its name, as last written.</param>
/// <param name="Jugs">Its readings, the oldest first.</param>
/// <param name="Clogs">It came short last, and did not before: a drain that clogs, or a line that has sagged.</param>
public sealed record CollectedAt(string Thing, string Name, IReadOnlyList<Jugful> Jugs, bool Clogs);

/// <summary>Water collected against water expected, over the years.</summary>
public static class Collected
{
    /// <summary>By opening, those that come short first. Each reading beside what was expected then, so that a changed drawing tells nothing wrong of old ones.
    /// Pure. O(n log n).</summary>
    public static IReadOnlyList<CollectedAt> Of(IReadOnlyList<LogEntry> entries) =>
        [.. LogEntry.Standing(entries).Where(e => e is { Thing: not null, ExpectedL: > 0, CollectedL: not null }).GroupBy(e => e.Thing!).Select(At)
            .OrderByDescending(c => c.Clogs).ThenBy(c => c.Name, StringComparer.Ordinal)];

    private static CollectedAt At(IGrouping<string, LogEntry> of)
    {
        var entries = of.OrderBy(e => e.At).ThenBy(e => e.Id, StringComparer.Ordinal).ToList();
        List<Jugful> jugs = [.. entries.Select(e => new Jugful(e.Id, e.At, e.ExpectedL!.Value, e.CollectedL!.Value,
            JugReading.Of(of.Key, e.ExpectedL.Value, e.CollectedL.Value).IsShort))];
        return new CollectedAt(of.Key, entries[^1].ThingName ?? of.Key, jugs, jugs[^1].IsShort && jugs.Any(j => !j.IsShort));
    }
}
