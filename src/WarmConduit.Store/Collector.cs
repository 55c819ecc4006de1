using Microsoft.EntityFrameworkCore;

namespace WarmConduit.Store;

/// <summary>What one collection took.</summary>
/// <param name="Rigs">Rigs taken off the shelf so long ago that they cannot be brought back.</param>
/// <param name="Revisions">Revisions of an old history, where the same day has a later one.</param>
/// <param name="Attachments">Files that no rig has named for a month.</param>
public sealed record Collected(int Rigs, int Revisions, int Attachments);

/// <summary>Takes away what nobody can ask for any more, or will. What is large is looked through before the writers' turn.</summary>
public sealed class Collector(ShelfContext db, RigCache cache, WriterLock line, TimeProvider time)
{
    /// <summary>How long every revision is kept; of older days the last.</summary>
    public static readonly TimeSpan WholeFor = TimeSpan.FromDays(365);

    private readonly StoredDocuments _stored = new(db, cache);

    /// <summary>Collects. O(history).</summary>
    public async Task<Collected> Run(CancellationToken cancel) => new(await Rigs(cancel), await Revisions(cancel), await Attachments(cancel));

    // Their ids stay taken, so that no late save can reach another rig.
    private async Task<int> Rigs(CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        var over = (await db.Rigs.Where(r => r.RemovedAt != null && r.Head > 0).ToListAsync(cancel))
            .Where(r => r.RemovedAt < time.GetUtcNow() - Shelf.KeptFor).ToList();
        foreach (var gone in over)
        {
            gone.Head = 0;
            await db.Revisions.Where(v => v.RigId == gone.Id).ExecuteDeleteAsync(CancellationToken.None);
            // Its row stays, so nothing of these goes by itself.
            await db.Walks.Where(w => w.RigId == gone.Id).ExecuteDeleteAsync(CancellationToken.None);
            await db.Log.Where(e => e.RigId == gone.Id).ExecuteDeleteAsync(CancellationToken.None);
            await db.Reminders.Where(r => r.RigId == gone.Id).ExecuteDeleteAsync(CancellationToken.None);
        }
        await db.SaveChangesAsync(CancellationToken.None);
        return over.Count;
    }

    // The current one stays, and what was kept aside of a clash; nothing refers to the others but history.
    private async Task<int> Revisions(CancellationToken cancel)
    {
        var since = time.GetUtcNow() - WholeFor;
        var heads = await db.Rigs.AsNoTracking().ToDictionaryAsync(r => r.Id, r => r.Head, cancel);
        var old = (await db.Revisions.AsNoTracking().Where(v => !v.Aside).Select(v => new { v.RigId, v.Number, v.SavedAt }).ToListAsync(cancel))
            .Where(v => v.SavedAt < since);
        var thinned = old.GroupBy(v => (v.RigId, v.SavedAt.UtcDateTime.Date)).SelectMany(day => day.OrderByDescending(v => v.Number).Skip(1))
            .Where(v => heads[v.RigId] != v.Number).ToList();
        foreach (var batch in thinned.Chunk(200))
        {
            using var turn = await line.Turn(cancel);
            foreach (var revision in batch)
                await db.Revisions.Where(v => v.RigId == revision.RigId && v.Number == revision.Number).ExecuteDeleteAsync(CancellationToken.None);
        }
        return thinned.Count;
    }

    private async Task<int> Attachments(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        var since = now - Shelf.KeptFor;
        var unused = await Unused(since, cancel);
        if (unused.Count == 0) return 0;
        using var turn = await line.Turn(cancel);
        foreach (var late in (await db.Revisions.Select(v => new { v.RigId, v.Number, v.SavedAt }).ToListAsync(cancel)).Where(v => v.SavedAt >= now))
            unused.ExceptWith(((await _stored.Document(late.RigId, late.Number, cancel)).Rig?.Shell.Photos ?? []).Select(p => p.Picture));
        unused.ExceptWith(await db.LogPictures.Select(p => p.Picture).Distinct().ToListAsync(cancel));
        int taken = 0;
        foreach (string old in unused) taken += await db.Pictures.Where(p => p.Hash == old && p.AddedAt < since).ExecuteDeleteAsync(CancellationToken.None);
        return taken;
    }

    // Old enough, and named by no rig as it stood at any time since then: what was undone can be done again.
    private async Task<HashSet<string>> Unused(DateTimeOffset since, CancellationToken cancel)
    {
        var unused = (await db.Pictures.Select(p => new { p.Hash, p.AddedAt }).ToListAsync(cancel)).Where(p => p.AddedAt < since).Select(p => p.Hash)
            .ToHashSet();
        unused.ExceptWith(await db.LogPictures.Select(p => p.Picture).Distinct().ToListAsync(cancel));
        if (unused.Count == 0) return unused;
        var all = await db.Revisions.Select(v => new { v.RigId, v.Number, v.SavedAt }).ToListAsync(cancel);
        foreach (var rig in all.GroupBy(v => v.RigId))
        {
            foreach (var revision in rig.OrderByDescending(v => v.Number))
            {
                var (read, _) = await _stored.Document(revision.RigId, revision.Number, cancel);
                // What cannot be read may name any of them.
                if (read is null) return [];
                unused.ExceptWith((read.Shell.Photos ?? []).Select(p => p.Picture));
                if (revision.SavedAt < since) break;
            }
        }
        return unused;
    }
}
