using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Store;

/// <summary>Documents and words as they are stored, read back; each document once while it is in use.</summary>
internal sealed class StoredDocuments(ShelfContext db, RigCache cache)
{
    /// <summary>The document of a revision, or why it cannot be read.</summary>
    public async Task<(Rig? Rig, string? Unreadable)> Document(string id, int number, CancellationToken cancel)
    {
        if (cache.TryGet(id, number, out var rig, out string? unreadable)) return (rig, unreadable);
        var row = await db.Revisions.AsNoTracking().Where(r => r.RigId == id && r.Number == number).Select(r => new { r.Content, r.Packing })
            .FirstOrDefaultAsync(cancel);
        if (row is null) return (null, "its revision is missing");
        int bytes = row.Content.Length;
        try
        {
            byte[] json = Documents.Unpack(row.Content, row.Packing);
            bytes = json.Length;
            rig = RigFile.ReadStored(json);
            if (rig.Id != id) rig = rig with { Id = id };
        }
        catch (RigFileException e)
        {
            unreadable = $"{e.Faults[0].Path}: {e.Faults[0].Reason}";
        }
        cache.Put(id, number, rig, unreadable, bytes);
        return (rig, unreadable);
    }

    /// <summary>A sentence as it is stored.</summary>
    public static string Words(Sentence what) => JsonSerializer.Serialize(what, RigFile.Compact);

    /// <summary>A stored sentence; plain text from earlier versions as it is.</summary>
    public static Sentence WordsOf(string stored)
    {
        if (!stored.StartsWith('{')) return stored;
        try
        {
            return JsonSerializer.Deserialize<Sentence>(stored, RigFile.Compact) ?? stored;
        }
        catch (JsonException)
        {
            return stored;
        }
    }
}
