using System.Text;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>A rig as it stands on the shelf.</summary>
/// <param name="Rig">The document of the current revision.</param>
/// <param name="Revision">Its number; a save carries it back.</param>
/// <param name="CanUndo">There is an earlier state.</param>
/// <param name="CanRedo">There is a state that was undone.</param>
/// <param name="What">What was done last.</param>
/// <param name="SavedAt">When.</param>
public sealed record ShelvedRig(Rig Rig, int Revision, bool CanUndo, bool CanRedo, string What, DateTimeOffset SavedAt);

/// <summary>A line of a rig's history.</summary>
public sealed record RevisionLine(int Number, int? Parent, bool Aside, bool Current, string What, DateTimeOffset SavedAt);

/// <summary>A save that started from an older revision than the current one. What was sent is kept as <see cref="KeptAs"/>.</summary>
public sealed class StaleSaveException(int current, int? keptAs) : Exception($"The rig has moved on to revision {current}.")
{
    /// <summary>The revision that is current.</summary>
    public int Current { get; } = current;

    /// <summary>The revision under which the refused save was kept beside the line; null for an undo or redo, which holds nothing to keep.</summary>
    public int? KeptAs { get; } = keptAs;
}

/// <summary>
/// Rigs with their revisions. Every method that writes has the write on disk before it returns. Undo and redo move the current revision along its line and
/// write nothing else. Not for use by two threads at once: one a request.
/// </summary>
public sealed class Shelf(ShelfContext db, TimeProvider time)
{
    /// <summary>All rigs, in the order they came.</summary>
    public async Task<IReadOnlyList<ShelvedRig>> All(CancellationToken cancel)
    {
        var ids = await db.Rigs.AsNoTracking().OrderBy(r => r.AddedAt).ThenBy(r => r.Id).Select(r => r.Id).ToListAsync(cancel);
        var all = new List<ShelvedRig>(ids.Count);
        foreach (string id in ids)
            if (await Find(id, cancel) is { } rig)
                all.Add(rig);
        return all;
    }

    /// <summary>The rig with this id as it stands, or null.</summary>
    public async Task<ShelvedRig?> Find(string id, CancellationToken cancel)
    {
        var rig = await db.Rigs.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel);
        return rig is null ? null : await State(id, rig.Head, cancel);
    }

    /// <summary>The document of one revision, or null.</summary>
    public async Task<Rig?> Revision(string id, int number, CancellationToken cancel)
    {
        var row = await db.Revisions.AsNoTracking().FirstOrDefaultAsync(r => r.RigId == id && r.Number == number, cancel);
        return row is null ? null : Read(row.Document);
    }

    /// <summary>The history of a rig, newest first; empty when there is no such rig.</summary>
    public async Task<IReadOnlyList<RevisionLine>> History(string id, CancellationToken cancel)
    {
        int head = await db.Rigs.Where(r => r.Id == id).Select(r => r.Head).FirstOrDefaultAsync(cancel);
        return await db.Revisions.AsNoTracking().Where(r => r.RigId == id).OrderByDescending(r => r.Number)
            .Select(r => new RevisionLine(r.Number, r.Parent, r.Aside, r.Number == head, r.What, r.SavedAt)).ToListAsync(cancel);
    }

    /// <summary>Puts a new rig on the shelf. Where its id is taken it gets another one, ending in -2, -3, …</summary>
    public async Task<ShelvedRig> Add(Rig rig, string what, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        string id = rig.Id;
        for (int n = 2; await db.Rigs.AnyAsync(r => r.Id == id, cancel); n++)
        {
            string tail = $"-{n}";
            id = rig.Id[..Math.Min(rig.Id.Length, 60 - tail.Length)] + tail;
        }
        var now = time.GetUtcNow();
        db.Rigs.Add(new RigRow { Id = id, Head = 1, AddedAt = now });
        db.Revisions.Add(new RevisionRow { RigId = id, Number = 1, What = what, SavedAt = now, Document = RigFile.Write(rig with { Id = id }) });
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return (await Find(id, cancel))!;
    }

    /// <summary>
    /// Saves <paramref name="rig"/>, edited from <paramref name="baseRevision"/>. Null when there is no such rig. Throws <see cref="StaleSaveException"/>
    /// when another revision is current by now: then both stay, the refused one beside the line.
    /// </summary>
    public async Task<ShelvedRig?> Save(Rig rig, int baseRevision, string what, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Rigs.FirstOrDefaultAsync(r => r.Id == rig.Id, cancel);
        if (row is null) return null;
        bool stale = row.Head != baseRevision;
        int number = 1 + await db.Revisions.Where(r => r.RigId == rig.Id).MaxAsync(r => r.Number, cancel);
        bool known = await db.Revisions.AnyAsync(r => r.RigId == rig.Id && r.Number == baseRevision, cancel);
        db.Revisions.Add(new RevisionRow
        {
            RigId = rig.Id,
            Number = number,
            Parent = known ? baseRevision : null,
            Aside = stale,
            What = what,
            SavedAt = time.GetUtcNow(),
            Document = RigFile.Write(rig),
        });
        if (!stale) row.Head = number;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        if (stale) throw new StaleSaveException(row.Head, number);
        return await State(rig.Id, number, cancel);
    }

    /// <summary>Goes back to the state before the current one. Null when there is no such rig; unchanged when there is nothing to undo.</summary>
    public Task<ShelvedRig?> Undo(string id, int baseRevision, CancellationToken cancel) =>
        Move(id, baseRevision, async head => (await db.Revisions.AsNoTracking().FirstAsync(r => r.RigId == id && r.Number == head, cancel)).Parent, cancel);

    /// <summary>Goes forward to the state that was undone last. Null when there is no such rig; unchanged when there is none.</summary>
    public Task<ShelvedRig?> Redo(string id, int baseRevision, CancellationToken cancel) =>
        Move(id, baseRevision, head => NextOf(id, head, cancel), cancel);

    /// <summary>Takes a rig and its history off the shelf; false when there is none.</summary>
    public async Task<bool> Remove(string id, CancellationToken cancel) => await db.Rigs.Where(r => r.Id == id).ExecuteDeleteAsync(cancel) > 0;

    private async Task<ShelvedRig?> Move(string id, int baseRevision, Func<int, Task<int?>> target, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Rigs.FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (row is null) return null;
        if (row.Head != baseRevision) throw new StaleSaveException(row.Head, null);
        if (await target(row.Head) is { } number) row.Head = number;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return await State(id, row.Head, cancel);
    }

    private async Task<ShelvedRig?> State(string id, int number, CancellationToken cancel)
    {
        var row = await db.Revisions.AsNoTracking().FirstAsync(r => r.RigId == id && r.Number == number, cancel);
        bool canRedo = await NextOf(id, number, cancel) is not null;
        return new ShelvedRig(Read(row.Document), number, row.Parent is not null, canRedo, row.What, row.SavedAt);
    }

    // Redo follows the newest state made from this one.
    private Task<int?> NextOf(string id, int number, CancellationToken cancel) =>
        db.Revisions.Where(r => r.RigId == id && r.Parent == number && !r.Aside).MaxAsync(r => (int?)r.Number, cancel);

    private static Rig Read(string document) => RigFile.Read(Encoding.UTF8.GetBytes(document));
}
