using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Units;

namespace WarmConduit.Store;

/// <summary>
/// Rigs with their revisions. Every method that writes has the write on disk before it returns, and once it has begun to write it is not cancelled. Not for use
/// by two threads at once: one a request.
/// </summary>
public sealed class Shelf(ShelfContext db, RigCache cache, WriterLock line, ChangeFeed feed, TimeProvider time)
{
    private readonly StoredDocuments stored = new(db, cache);

    /// <summary>How long a rig that was taken off can be brought back.</summary>
    public static readonly TimeSpan KeptFor = TimeSpan.FromDays(30);

    /// <summary>All rigs, in the order they came. One that cannot be read harms no other.</summary>
    public async Task<IReadOnlyList<ShelvedRig>> All(CancellationToken cancel)
    {
        var heads = await db.Rigs.AsNoTracking().Where(r => r.RemovedAt == null).OrderBy(r => r.AddedAt).ThenBy(r => r.Id)
            .Join(db.Revisions, r => new { r.Id, Number = r.Head }, v => new { Id = v.RigId, v.Number }, (r, v) => new { r.Id, r.Head, v.What, v.SavedAt })
                .ToListAsync(cancel);
        var all = new List<ShelvedRig>(heads.Count);
        foreach (var head in heads)
        {
            var (rig, unreadable) = await stored.Document(head.Id, head.Head, cancel);
            all.Add(new ShelvedRig(head.Id, head.Head, rig, unreadable, StoredDocuments.WordsOf(head.What), head.SavedAt));
        }
        return all;
    }

    /// <summary>Rigs that can be restored, newest first.</summary>
    public async Task<IReadOnlyList<RemovedRig>> Removed(CancellationToken cancel)
    {
        var rows = await db.Rigs.AsNoTracking().Where(r => r.RemovedAt != null && r.Head > 0).Select(r => new { r.Id, r.Head, r.RemovedAt })
            .ToListAsync(cancel);
        var removed = new List<RemovedRig>();
        foreach (var row in rows.OrderByDescending(r => r.RemovedAt))
            removed.Add(new RemovedRig(row.Id, (await stored.Document(row.Id, row.Head, cancel)).Rig?.Name ?? row.Id, row.RemovedAt!.Value));
        return removed;
    }

    /// <summary>The rig with this id as it stands, or null.</summary>
    public async Task<ShelvedRig?> Find(string id, CancellationToken cancel)
    {
        var head = await db.Rigs.AsNoTracking().Where(r => r.Id == id && r.RemovedAt == null)
            .Join(db.Revisions, r => new { r.Id, Number = r.Head }, v => new { Id = v.RigId, v.Number }, (r, v) => new { r.Head, v.What, v.SavedAt })
                .FirstOrDefaultAsync(cancel);
        if (head is null) return null;
        var (rig, unreadable) = await stored.Document(id, head.Head, cancel);
        return new ShelvedRig(id, head.Head, rig, unreadable, StoredDocuments.WordsOf(head.What), head.SavedAt);
    }

    /// <summary>The document of one revision, or null. Throws <see cref="RigFileException"/> when it cannot be read.</summary>
    public async Task<Rig?> Revision(string id, int number, CancellationToken cancel)
    {
        if (!cache.TryGet(id, number, out _, out _) && !await db.Revisions.AnyAsync(r => r.RigId == id && r.Number == number, cancel)) return null;
        var (rig, unreadable) = await stored.Document(id, number, cancel);
        return rig ?? throw new RigFileException([new RigFault("file", unreadable ?? "it cannot be read")]);
    }

    /// <summary>The stored JSON of the current revision just as it is, readable or not; null when there is no such rig.</summary>
    public async Task<byte[]?> Raw(string id, CancellationToken cancel)
    {
        var row = await db.Rigs.AsNoTracking().Where(r => r.Id == id && r.RemovedAt == null)
            .Join(db.Revisions, r => new { r.Id, Number = r.Head }, v => new { Id = v.RigId, v.Number }, (r, v) => v).FirstOrDefaultAsync(cancel);
        if (row is null) return null;
        try
        {
            return Documents.Unpack(row.Content, row.Packing);
        }
        catch (RigFileException)
        {
            return row.Content;
        }
    }

    /// <summary>The history of a rig, newest first; empty when there is no such rig.</summary>
    public async Task<IReadOnlyList<RevisionLine>> History(string id, CancellationToken cancel)
    {
        int head = await db.Rigs.Where(r => r.Id == id).Select(r => r.Head).FirstOrDefaultAsync(cancel);
        var rows = await db.Revisions.AsNoTracking().Where(r => r.RigId == id).OrderByDescending(r => r.Number)
            .Select(r => new { r.Number, r.Parent, r.Aside, r.What, r.SavedAt }).ToListAsync(cancel);
        return [.. rows.Select(r => new RevisionLine(r.Number, r.Parent, r.Aside, r.Number == head, StoredDocuments.WordsOf(r.What), r.SavedAt))];
    }

    /// <summary>Puts a new rig on the shelf. Where its id or name is taken it gets another one, so that no two cards look alike.</summary>
    public async Task<ShelvedRig> Add(Rig rig, Sentence what, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        string id = rig.Id;
        for (int n = 2; await db.Rigs.AnyAsync(r => r.Id == id, cancel); n++) id = Counted(rig.Id, 60, $"-{n}");
        var names = (await All(cancel)).Select(r => r.Rig?.Name).ToHashSet();
        string name = rig.Name;
        for (int n = 2; names.Contains(name); n++) name = Counted(rig.Name, 80, $" ({n})");
        rig = rig with { Id = id, Name = name };
        var row = AddRows(db, rig, id, StoredDocuments.Words(what), time.GetUtcNow());
        await Commit(transaction);
        cache.Put(id, 1, rig, null, row.Content.Length * 8);
        feed.Tell(new ShelfChange(id, ChangeKind.Added, 1));
        return (await Find(id, cancel))!;
    }

    /// <summary>
    /// Saves <paramref name="edits"/>, made on <paramref name="baseRevision"/>. When others have saved meanwhile they are carried over to the newest revision
    /// where nothing that they touch has changed; else both are kept and <see cref="StaleSaveException"/> is thrown. Null when there is no such rig. Throws
    /// <see cref="RigFileException"/> for edits that cannot be done.
    /// <para>
    /// A save with the <paramref name="key"/> of an earlier one is that one, told again: whoever did not hear the answer may ask once more without clashing
    /// with themselves.
    /// </para>
    /// </summary>
    public async Task<SavedEdits?> Save(string id, int baseRevision, IReadOnlyList<Edit> edits, string? key, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var found = await db.Rigs.Where(r => r.Id == id && r.RemovedAt == null).Select(r => new { Row = r, Last = r.Revisions.Max(v => v.Number) })
            .FirstOrDefaultAsync(cancel);
        if (found is null) return null;
        var row = found.Row;
        var now = await Revision(id, row.Head, cancel);
        var then = baseRevision == row.Head ? now : await Revision(id, baseRevision, cancel);
        if (then is null) throw new StaleSaveException(row.Head, null, []);
        if (key is not null && await db.Revisions.AsNoTracking().FirstOrDefaultAsync(r => r.RigId == id && r.Key == key, cancel) is { } earlier)
        {
            // A key answers for its first content; another window may have sent a part of what is sent now.
            if (earlier.KeyOf is { } sent && sent != KeyOf(edits))
                throw new KeyUsedException(row.Head, earlier.Number, int.Parse(sent[..sent.IndexOf(':', StringComparison.Ordinal)],
                CultureInfo.InvariantCulture));
            return await Again(earlier, then, row.Head, cancel);
        }
        int onto = row.Head;
        Edited edited;
        bool clashes = false;
        IReadOnlyList<string> clash = [];
        try
        {
            edited = Rebase.Over(then, edits, now!);
        }
        catch (ClashException e)
        {
            (clashes, clash) = (true, e.Paths);
            edited = Editor.Apply(then, edits);
        }
        int number = 1 + found.Last;
        var what = Editor.Summary(edited.Words);
        var (content, packing) = Documents.Pack(edited.Rig);
        db.Revisions.Add(new RevisionRow
        {
            RigId = id,
            Number = number,
            Parent = clashes ? baseRevision : onto,
            Aside = clashes,
            Key = key,
            KeyOf = key is null ? null : KeyOf(edits),
            What = StoredDocuments.Words(what),
            SavedAt = time.GetUtcNow(),
            Content = content,
            Packing = packing,
        });
        if (!clashes) row.Head = number;
        await Commit(transaction);
        cache.Put(id, number, edited.Rig, null, content.Length * 8);
        if (clashes) throw new StaleSaveException(onto, number, clash);
        feed.Tell(new ShelfChange(id, ChangeKind.Saved, number));
        return new SavedEdits(number, onto, onto == baseRevision ? edited.Effect : RigDiff.Between(then, edited.Rig), what, edited.Inverse);
    }

    private static string KeyOf(IReadOnlyList<Edit> edits) =>
        string.Create(CultureInfo.InvariantCulture,
            $"{edits.Count}:{Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(edits, RigFile.Compact)))}");

    private async Task<SavedEdits> Again(RevisionRow earlier, Rig then, int head, CancellationToken cancel)
    {
        if (earlier.Aside) throw new StaleSaveException(head, earlier.Number, []);
        int onto = earlier.Parent!.Value;
        // A history that is old enough is thinned out.
        var before = await Revision(earlier.RigId, onto, cancel) ?? throw new StaleSaveException(head, null, []);
        var after = (await Revision(earlier.RigId, earlier.Number, cancel))!;
        var what = StoredDocuments.WordsOf(earlier.What);
        return new SavedEdits(earlier.Number, onto, RigDiff.Between(then, after), what, [new Restore(what, RigDiff.Between(after, before))]);
    }

    /// <summary>Goes back to an earlier revision by edits on <paramref name="baseRevision"/>. Null when there is no such rig or revision.</summary>
    public async Task<SavedEdits?> GoBack(string id, int number, int baseRevision, CancellationToken cancel)
    {
        var then = await Revision(id, baseRevision, cancel);
        var wanted = await Revision(id, number, cancel);
        if (then is null || wanted is null) return null;
        return await Save(id, baseRevision, [new Restore($"all since revision {number}", RigDiff.Between(then, wanted))], null, cancel);
    }

    /// <summary>
    /// Takes a rig off the shelf, if <paramref name="revision"/> is still current; null when there is no such rig. It can be brought back for <see
    /// cref="KeptFor"/>; then <see cref="Collector"/> takes its revisions.
    /// </summary>
    public async Task<bool?> Remove(string id, int revision, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Rigs.FirstOrDefaultAsync(r => r.Id == id && r.RemovedAt == null, cancel);
        if (row is null) return null;
        if (row.Head != revision) throw new StaleSaveException(row.Head, null, []);
        row.RemovedAt = time.GetUtcNow();
        await Commit(transaction);
        feed.Tell(new ShelfChange(id, ChangeKind.Removed, revision));
        return true;
    }

    /// <summary>Brings a rig back that was taken off; null when there is none to bring back.</summary>
    public async Task<ShelvedRig?> BringBack(string id, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Rigs.FirstOrDefaultAsync(r => r.Id == id && r.RemovedAt != null && r.Head > 0, cancel);
        if (row is null) return null;
        row.RemovedAt = null;
        await Commit(transaction);
        feed.Tell(new ShelfChange(id, ChangeKind.Added, row.Head));
        return await Find(id, cancel);
    }

    internal static RevisionRow AddRows(ShelfContext db, Rig rig, string id, string what, DateTimeOffset now)
    {
        var (content, packing) = Documents.Pack(rig);
        var revision = new RevisionRow { RigId = id, Number = 1, What = what, SavedAt = now, Content = content, Packing = packing };
        db.Rigs.Add(new RigRow { Id = id, Head = 1, AddedAt = now });
        db.Revisions.Add(revision);
        return revision;
    }

    private static string Counted(string text, int most, string tail) => Names.Cut(text, most - tail.Length) + tail;

    // From here on the answer is owed: a client that goes away does not stop a write half way.
    private async Task Commit(Microsoft.EntityFrameworkCore.Storage.IDbContextTransaction transaction)
    {
        await db.SaveChangesAsync(CancellationToken.None);
        await transaction.CommitAsync(CancellationToken.None);
    }
}
