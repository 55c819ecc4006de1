namespace WarmConduit.Store;

/// <summary>A rig on the shelf; <see cref="Head"/> is the number of the revision that is current.</summary>
public sealed class RigRow
{
    /// <summary>The rig's stable id; never used again for another.</summary>
    public required string Id { get; set; }

    /// <summary>Current revision.</summary>
    public int Head { get; set; }

    /// <summary>When it came onto the shelf.</summary>
    public DateTimeOffset AddedAt { get; set; }

    /// <summary>When it was taken off; null while it is there. It can be brought back for <see cref="Shelf.KeptFor"/>; then its revisions go.</summary>
    public DateTimeOffset? RemovedAt { get; set; }

    /// <summary>All its revisions.</summary>
    public List<RevisionRow> Revisions { get; } = [];
}

/// <summary>One saved state of a rig. Never changed once written.</summary>
public sealed class RevisionRow
{
    /// <summary>The rig.</summary>
    public required string RigId { get; set; }

    /// <summary>Counts up from 1 within a rig.</summary>
    public int Number { get; set; }

    /// <summary>The revision it was made from; null for the first.</summary>
    public int? Parent { get; set; }

    /// <summary>Refused since it clashed with what was saved meanwhile: kept, but never current.</summary>
    public bool Aside { get; set; }

    /// <summary>Name that the sender gave to this save, unique within a rig; null for none. Sent again, it is the same save.</summary>
    public string? Key { get; set; }

    /// <summary>What that save was: how many edits, a colon, and the SHA-256 of them. Null for none, and in rows from earlier versions.</summary>
    public string? KeyOf { get; set; }

    /// <summary>What was done: a sentence as JSON, or plain text from earlier versions.</summary>
    public required string What { get; set; }

    /// <summary>When it was saved.</summary>
    public DateTimeOffset SavedAt { get; set; }

    /// <summary>The document, as <see cref="Packing"/> says.</summary>
    public required byte[] Content { get; set; }

    /// <summary>How <see cref="Content"/> is packed.</summary>
    public Packing Packing { get; set; }
}

/// <summary>How a stored document is packed.</summary>
public enum Packing
{
    /// <summary>JSON in UTF-8.</summary>
    Plain,

    /// <summary>The same, Brotli.</summary>
    Brotli,

    /// <summary>JSON in UTF-8 behind the first 8 bytes of its SHA-256: a page that went bad is noticed.</summary>
    SealedPlain,

    /// <summary>The same, Brotli; the sum is of what is packed.</summary>
    SealedBrotli,
}

/// <summary>Something that is done once in the life of a database.</summary>
public sealed class MarkRow
{
    /// <summary>What.</summary>
    public required string Name { get; set; }

    /// <summary>When it was done.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A picture, stored once under the SHA-256 of its bytes.</summary>
public sealed class PictureRow
{
    /// <summary>SHA-256 of the bytes, 64 hexadecimal digits in lower case.</summary>
    public required string Hash { get; set; }

    /// <summary>The picture, JPEG.</summary>
    public required byte[] Content { get; set; }

    /// <summary>When it was stored first.</summary>
    public DateTimeOffset AddedAt { get; set; }
}
