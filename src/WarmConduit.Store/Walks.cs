using System.IO.Compression;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;

namespace WarmConduit.Store;

/// <summary>What became of an act.</summary>
/// <param name="Walk">The walk-through after it.</param>
/// <param name="Counts">It counts.</param>
/// <param name="First">The act that came first where it does not; else null.</param>
/// <param name="IsNew">It was not known before.</param>
public sealed record ActTaken(Walk Walk, bool Counts, WalkAct? First, bool IsNew);

/// <summary>Walk-throughs, appended to. What is written is on disk before a method returns.</summary>
public sealed class Walks(ShelfContext db, WriterLock line, ChangeFeed feed)
{
    /// <summary>Walk-throughs of one rig at the most.</summary>
    public const int Most = 2000;

    /// <summary>Writes one down that is begun. One that is sent again is the same one.</summary>
    public async Task<Walk> Begin(Walk walk, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        if (await Find(walk.Id, cancel) is { } known) return known;
        if (await db.Walks.CountAsync(w => w.RigId == walk.RigId, cancel) >= Most) throw new RigFileException([new RigFault("walks", $"at most {Most}")]);
        db.Walks.Add(new WalkRow
        {
            Id = walk.Id,
            RigId = walk.RigId,
            Revision = walk.Revision,
            StartedAt = walk.StartedAt,
            Who = walk.Who,
            OutdoorC = walk.OutdoorC,
            Procedure = Packed(new Begun(walk.Conditions, walk.Procedure)),
        });
        await db.SaveChangesAsync(CancellationToken.None);
        feed.Tell(new LogChange(walk.RigId, walk.Id));
        return walk;
    }

    /// <summary>The walk-through of this id, or null.</summary>
    public async Task<Walk?> Find(string id, CancellationToken cancel) =>
        await db.Walks.AsNoTracking().Include(w => w.Acts).FirstOrDefaultAsync(w => w.Id == id, cancel) is { } row ? Of(row) : null;

    /// <summary>All of a rig, the newest first.</summary>
    public async Task<IReadOnlyList<Walk>> All(string rigId, CancellationToken cancel) =>
        [.. (await db.Walks.AsNoTracking().Include(w => w.Acts).Where(w => w.RigId == rigId).ToListAsync(cancel)).Select(Of)
            .OrderByDescending(w => w.StartedAt).ThenBy(w => w.Id, StringComparer.Ordinal)];

    /// <summary>Appends an act: it counts unless another came first. One that is sent again is answered as it was. Null: there is no such
    /// walk-through.</summary>
    public async Task<ActTaken?> Append(string walkId, WalkAct act, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        var rows = await db.WalkActs.AsNoTracking().Where(a => a.WalkId == walkId).OrderBy(a => a.Number).ToListAsync(cancel);
        if (await Find(walkId, cancel) is not { } walk) return null;
        if (rows.FirstOrDefault(r => r.Id == act.Id) is { } sent)
            return new ActTaken(walk, sent.After is null, rows.Where(r => r.Id == sent.After).Select(ActOf).FirstOrDefault(), false);
        if (rows.Count >= WalkAct.Most) throw new RigFileException([new RigFault("acts", $"at most {WalkAct.Most}")]);
        var first = walk.Before(act);
        db.WalkActs.Add(new WalkActRow
        {
            WalkId = walkId,
            Number = rows.Count + 1,
            Id = act.Id,
            After = first?.Id,
            Content = LogJson.Text(act),
        });
        await db.SaveChangesAsync(CancellationToken.None);
        if (first is not null) return new ActTaken(walk, false, first, true);
        feed.Tell(new LogChange(walk.RigId, walkId));
        return new ActTaken(walk with { Acts = [.. walk.Acts, act] }, true, null, true);
    }

    // What it was begun with is written as one.
    private sealed record Begun(Conditions Conditions, ProcedureAnswer Procedure);

    private static Walk Of(WalkRow row)
    {
        using var brotli = new BrotliStream(new MemoryStream(row.Procedure), CompressionMode.Decompress);
        var (conditions, procedure) = LogJson.Read<Begun>(brotli);
        return new Walk(row.Id, row.RigId, row.Revision, row.StartedAt, row.Who, row.OutdoorC, conditions, procedure,
            [.. row.Acts.Where(a => a.After is null).OrderBy(a => a.Number).Select(ActOf)]);
    }

    private static WalkAct ActOf(WalkActRow row) => LogJson.Read<WalkAct>(row.Content);

    private static byte[] Packed(Begun begun)
    {
        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.Fastest)) LogJson.Write(brotli, begun);
        return packed.ToArray();
    }
}
