using Microsoft.EntityFrameworkCore;

namespace WarmConduit.Store;

/// <summary>Files that rigs name by the SHA-256 of what they hold, each stored once. Pictures are the first kind. <see cref="Collector"/> takes those that no
/// rig names any more.</summary>
public sealed class Attachments(ShelfContext db, WriterLock line, TimeProvider time)
{
    /// <summary>The file of this name, or null.</summary>
    public async Task<byte[]?> Find(string hash, CancellationToken cancel) =>
        await db.Pictures.AsNoTracking().Where(p => p.Hash == hash).Select(p => p.Content).FirstOrDefaultAsync(cancel);

    /// <summary>Keeps a file under its name, once. One that is sent again is wanted again, however old it is.</summary>
    public async Task Keep(string hash, byte[] bytes, CancellationToken cancel)
    {
        using var turn = await line.Turn(cancel);
        var now = time.GetUtcNow();
        if (await db.Pictures.Where(p => p.Hash == hash).ExecuteUpdateAsync(p => p.SetProperty(x => x.AddedAt, now), CancellationToken.None) > 0) return;
        db.Pictures.Add(new PictureRow { Hash = hash, Content = bytes, AddedAt = now });
        await db.SaveChangesAsync(CancellationToken.None);
    }
}
