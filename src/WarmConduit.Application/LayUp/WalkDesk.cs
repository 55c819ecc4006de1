using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Units;
using WarmConduit.Store;

namespace WarmConduit.Application.LayUp;

/// <summary>A walk-through that is to begin.</summary>
/// <param name="Id">Its id, made by the device: sent again, it is the same one.</param>
/// <param name="Procedure">What is walked through, and with what.</param>
/// <param name="Conditions">The night and the parking that it is made for; left out: those of the brief.</param>
/// <param name="Who">Who begins it, up to 60 characters; left out: not said.</param>
/// <param name="OutdoorC">Temperature outdoors, °C; left out: not known.</param>
public sealed record BeginWalk(string Id, ProcedureInput Procedure, Conditions? Conditions = null, string? Who = null, double? OutdoorC = null);

/// <summary>A walk-through as it stands.</summary>
/// <param name="Id">Its id.</param>
/// <param name="RigId">The rig.</param>
/// <param name="Revision">The revision that it was made from.</param>
/// <param name="StartedAt">When it was begun.</param>
/// <param name="EndedAt">When it was ended; null: it goes on.</param>
/// <param name="Who">Who began it; null: not said.</param>
/// <param name="OutdoorC">Temperature outdoors then, °C; null: not known.</param>
/// <param name="Conditions">The night and the parking that it was made for: how it ends is told of them.</param>
/// <param name="Procedure">The procedure, as it was begun.</param>
/// <param name="Steps">How every step stands.</param>
/// <param name="Changed">What of its parts and lines has changed in the drawing since, by name.</param>
public sealed record WalkView(
    string Id, string RigId, int Revision, DateTimeOffset StartedAt, DateTimeOffset? EndedAt, string? Who, double? OutdoorC,
    Conditions Conditions, ProcedureAnswer Procedure, IReadOnlyList<WalkStep> Steps, IReadOnlyList<string> Changed);

/// <summary>A walk-through in a list.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What was walked through.</param>
/// <param name="Name">Its name.</param>
/// <param name="StartedAt">When it was begun.</param>
/// <param name="EndedAt">When it was ended; null: it goes on.</param>
/// <param name="Who">Who began it; null: not said.</param>
/// <param name="Done">Steps done.</param>
/// <param name="Skipped">Steps skipped.</param>
/// <param name="Of">Steps in all.</param>
public sealed record WalkCard(string Id, ProcedureKind Kind, string Name, DateTimeOffset StartedAt, DateTimeOffset? EndedAt, string? Who, int Done, int Skipped,
    int Of);

/// <summary>What became of an act.</summary>
/// <param name="Id">The act.</param>
/// <param name="Counts">It counts; else another device was first.</param>
/// <param name="First">The act that was first; null: it counts.</param>
public sealed record ActResult(string Id, bool Counts, WalkAct? First);

/// <summary>A walk-through after some acts.</summary>
/// <param name="Walk">As it stands.</param>
/// <param name="Results">What became of each act, in their order.</param>
public sealed record ActsAnswer(WalkView Walk, IReadOnlyList<ActResult> Results);

/// <summary>Begins walk-throughs and takes what happens on them: the rig remembers what was done to its water, and the logbook what was read and how it
/// ended.</summary>
public sealed class WalkDesk(Shelf shelf, Walks walks, LogDesk log, TimeProvider time)
{
    private const int MostTries = 3;

    /// <summary>Begins one on the rig as it stands. Null: there is no such rig. Throws <see cref="RigFileException"/> naming each field that is
    /// wrong.</summary>
    public async Task<WalkView?> Begin(string rigId, BeginWalk ask, CancellationToken cancel)
    {
        if (await shelf.Find(rigId, cancel) is not { Rig: { } rig } found) return null;
        var conditions = ask.Conditions ?? Conditions.Of(rig.Brief);
        List<RigFault> faults =
        [
            .. ask.Procedure.Check(rig).Select(f => f with { Path = $"procedure.{f.Path}" }), .. conditions.Check(rig),
            .. Walk.Check(ask.Id, ask.Who, ask.OutdoorC),
        ];
        if (faults.Count > 0) throw new RigFileException(faults);
        if (await walks.Find(ask.Id, cancel) is { } known && known.RigId != rigId) throw new RigFileException([new RigFault("id",
            "it is that of another rig")]);
        var made = ProcedureStudy.Ask(new Question(rig, conditions, cancel), ask.Procedure);
        var walk = await walks.Begin(new Walk(ask.Id, rigId, found.Revision,
            DateTimeOffset.FromUnixTimeMilliseconds(time.GetUtcNow().ToUnixTimeMilliseconds()), ask.Who, ask.OutdoorC, conditions, made, []), cancel);
        return await View(walk, cancel);
    }

    /// <summary>The walk-through of this id as it stands, or null.</summary>
    public async Task<WalkView?> Find(string id, CancellationToken cancel) => await walks.Find(id, cancel) is { } walk ? await View(walk, cancel) : null;

    /// <summary>All of a rig, the newest first. Null: there is no such rig.</summary>
    public async Task<IReadOnlyList<WalkCard>?> All(string rigId, CancellationToken cancel) => await shelf.Find(rigId, cancel) is null ? null :
        [.. (await walks.All(rigId, cancel)).Select(w => (Walk: w, Steps: w.Steps())).Select(w => new WalkCard(
            w.Walk.Id, w.Walk.Procedure.Kind, w.Walk.Procedure.Name, w.Walk.StartedAt, w.Walk.EndedAt, w.Walk.Who,
            w.Steps.Count(s => s.Stand == StepStand.Done), w.Steps.Count(s => s.Stand == StepStand.Skipped), w.Steps.Count))];

    /// <summary>Takes acts in their order. One that is sent again does nothing twice. Null: there is no such walk-through. Throws
    /// <see cref="RigFileException"/> for an act that cannot be; those before it stand.</summary>
    public async Task<ActsAnswer?> Take(string id, IReadOnlyList<WalkAct> acts, CancellationToken cancel)
    {
        if (await walks.Find(id, cancel) is not { } walk) return null;
        if (acts.Count is 0 or > 200) throw new RigFileException([new RigFault("acts", "1 to 200 at a time")]);
        var results = new List<ActResult>();
        foreach (var sent in acts)
        {
            var faults = sent.Check(walk.Procedure);
            if (faults.Count > 0) throw new RigFileException(faults);
            var now = time.GetUtcNow();
            // A device whose clock is wrong moves nothing into the future, or before the beginning.
            var act = sent with { At = sent.At > now ? now : sent.At < walk.StartedAt ? walk.StartedAt : sent.At };
            var taken = (await walks.Append(id, act, cancel))!;
            walk = taken.Walk;
            results.Add(new ActResult(act.Id, taken.Counts, taken.First));
            if (taken.Counts) await Follow(walk, act, cancel);
        }
        return new ActsAnswer(await View(walk, cancel), results);
    }

    // What follows from an act goes by the act's own id, so that it is done once however often it is sent.
    private async Task Follow(Walk walk, WalkAct act, CancellationToken cancel)
    {
        if (act.Kind is WalkActKind.Done or WalkActKind.Reopened or WalkActKind.Measured) await Remember(walk, act, cancel);
        if (act.Kind == WalkActKind.Measured) await log.Write(walk.RigId, MeasuredEntry(walk, act), cancel);
        if (act.Kind == WalkActKind.Ended) await log.Write(walk.RigId, await EndedEntry(walk, act, cancel), cancel);
    }

    private async Task Remember(Walk walk, WalkAct act, CancellationToken cancel)
    {
        for (int attempt = 1; ; attempt++)
        {
            if (await shelf.Find(walk.RigId, cancel) is not { Rig: { } rig } found) return;
            var edits = WalkMarks.Edits(walk, act, rig);
            if (edits.Count == 0) return;
            try
            {
                await shelf.Save(walk.RigId, found.Revision, edits, act.Id, cancel);
                return;
            }
            catch (KeyUsedException)
            {
                return;
            }
            catch (StaleSaveException) when (attempt < MostTries)
            {
                // Somebody saved between: once more, on what stands now.
            }
        }
    }

    private static string Said(Sentence words) => words.Print(UnitSystem.Metric);

    private static LogEntry MeasuredEntry(Walk walk, WalkAct act)
    {
        var step = walk.Procedure.Steps.First(s => s.Id == act.StepId);
        // A jug that was read once more corrects what it said.
        string? before = walk.Acts.TakeWhile(a => a.Id != act.Id).LastOrDefault(a => a.Kind == WalkActKind.Measured && a.StepId == act.StepId)?.Id;
        return new LogEntry(act.Id, LogKind.Litres, act.At, Said(step.Words), walk.OutdoorC, act.Who ?? walk.Who,
            step.PartIds is [var part, ..] ? $"parts/{part}" : null, null, step.OutL, act.Litres, null, before, walk.Id, null, walk.Revision);
    }

    private async Task<LogEntry> EndedEntry(Walk walk, WalkAct act, CancellationToken cancel)
    {
        var steps = walk.Steps();
        var skipped = steps.Where(s => s.Stand == StepStand.Skipped).ToList();
        string words = $"{walk.Procedure.Name}: {steps.Count(s => s.Stand == StepStand.Done)} of {steps.Count} steps done";
        var left = skipped.Select(s => $"{Said(walk.Procedure.Steps.First(p => p.Id == s.StepId).Words)} ({s.Reason})");
        if (skipped.Count > 0) words += $"; skipped: {string.Join("; ", left)}";
        if (walk.Procedure.Steps.Any(s => s.Marks.Any(m => m.Kind != LeftActKind.Filled)) && await shelf.Find(walk.RigId, cancel) is { Rig: { } rig })
            words += $". {WalkEndStudy.Ask(new Question(rig, walk.Conditions, cancel)).Words().Print(UnitSystem.Metric)}";
        bool all = steps.All(s => s.Stand == StepStand.Done);
        return new LogEntry(act.Id, LogKind.Walk, act.At, Names.Cut(words, 2000), walk.OutdoorC, act.Who ?? walk.Who,
            Care: all ? CareCalendar.OfWalk(walk.Procedure.Kind) : null, WalkId: walk.Id, Revision: walk.Revision);
    }

    private async Task<WalkView> View(Walk walk, CancellationToken cancel) => new(
        walk.Id, walk.RigId, walk.Revision, walk.StartedAt, walk.EndedAt, walk.Who, walk.OutdoorC, walk.Conditions, walk.Procedure, walk.Steps(),
        await Changed(walk, cancel));

    // Names of what its steps are about that is no longer as it was.
    private async Task<IReadOnlyList<string>> Changed(Walk walk, CancellationToken cancel)
    {
        if (await shelf.Find(walk.RigId, cancel) is not { Rig: { } now } found || found.Revision == walk.Revision) return [];
        if (await shelf.Revision(walk.RigId, walk.Revision, cancel) is not { } then) return [];
        var effect = RigDiff.Between(then, now);
        var paths = effect.Set.Select(s => s.Path).Concat(effect.Added.Select(t => t.Path())).Concat(effect.Removed.Select(t => t.Path()));
        return [.. paths.Select(p => p.Split('/')).Where(p => p is ["parts" or "runs", _, ..])
            .Select(p => p[0] == "parts" ? now.Parts.Find(p[1])?.Name ?? then.Parts.Find(p[1])?.Name : now.Runs.Find(p[1])?.Name ?? then.Runs.Find(p[1])?.Name)
            .OfType<string>().Distinct().Order(StringComparer.Ordinal)];
    }
}
