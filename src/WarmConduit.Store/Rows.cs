namespace WarmConduit.Store;

/// <summary>A rig on the shelf; <see cref="Head"/> is the number of the revision that is current.</summary>
public sealed class RigRow
{
    /// <summary>The rig's stable id.</summary>
    public required string Id { get; set; }

    /// <summary>Current revision.</summary>
    public int Head { get; set; }

    /// <summary>When it came onto the shelf.</summary>
    public DateTimeOffset AddedAt { get; set; }

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

    /// <summary>Saved from a state that was no longer current: kept, but not on the line that redo follows.</summary>
    public bool Aside { get; set; }

    /// <summary>What was done, in a few words.</summary>
    public required string What { get; set; }

    /// <summary>When it was saved.</summary>
    public DateTimeOffset SavedAt { get; set; }

    /// <summary>The rig file, JSON.</summary>
    public required string Document { get; set; }
}
