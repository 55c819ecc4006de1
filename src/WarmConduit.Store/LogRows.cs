namespace WarmConduit.Store;

/// <summary>A walk-through that was begun. Never changed once written: what happens on it is appended as acts.</summary>
public sealed class WalkRow
{
    /// <summary>Its id.</summary>
    public required string Id { get; set; }

    /// <summary>The rig.</summary>
    public required string RigId { get; set; }

    /// <summary>The revision of the rig that its procedure was made from.</summary>
    public int Revision { get; set; }

    /// <summary>When it was begun.</summary>
    public DateTimeOffset StartedAt { get; set; }

    /// <summary>Who began it.</summary>
    public string? Who { get; set; }

    /// <summary>Temperature outdoors, °C.</summary>
    public double? OutdoorC { get; set; }

    /// <summary>The procedure, and the night and parking that it was made for: JSON in UTF-8, Brotli.</summary>
    public required byte[] Procedure { get; set; }

    /// <summary>What happened on it.</summary>
    public List<WalkActRow> Acts { get; } = [];
}

/// <summary>Something that happened on a walk-through. Never changed once written.</summary>
public sealed class WalkActRow
{
    /// <summary>The walk-through.</summary>
    public required string WalkId { get; set; }

    /// <summary>Counts up from 1 within a walk-through.</summary>
    public int Number { get; set; }

    /// <summary>The device's own id for it, unique within a walk-through: sent again, it is the same act.</summary>
    public required string Id { get; set; }

    /// <summary>Whether it counts: null when it does, else the id of the act that came first.</summary>
    public string? After { get; set; }

    /// <summary>The act as JSON.</summary>
    public required string Content { get; set; }
}

/// <summary>An entry of the logbook. Never changed once written.</summary>
public sealed class LogRow
{
    /// <summary>The rig.</summary>
    public required string RigId { get; set; }

    /// <summary>The writer's own id for it, unique within a rig: sent again, it is the same entry.</summary>
    public required string Id { get; set; }

    /// <summary>When it was, as the writer says.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>When it was written down.</summary>
    public DateTimeOffset RecordedAt { get; set; }

    /// <summary>The entry as JSON, without its pictures.</summary>
    public required string Content { get; set; }

    /// <summary>Its pictures.</summary>
    public List<LogPictureRow> Pictures { get; } = [];
}

/// <summary>A picture of an entry.</summary>
public sealed class LogPictureRow
{
    /// <summary>The rig.</summary>
    public required string RigId { get; set; }

    /// <summary>The entry.</summary>
    public required string EntryId { get; set; }

    /// <summary>Counts up from 1 within an entry.</summary>
    public int Number { get; set; }

    /// <summary>The picture's name: SHA-256 of its bytes.</summary>
    public required string Picture { get; set; }
}

/// <summary>A reminder as it was set. The newest of an id counts.</summary>
public sealed class ReminderRow
{
    /// <summary>Counts up.</summary>
    public long Number { get; set; }

    /// <summary>The rig.</summary>
    public required string RigId { get; set; }

    /// <summary>The reminder's id.</summary>
    public required string Id { get; set; }

    /// <summary>When it was set.</summary>
    public DateTimeOffset SetAt { get; set; }

    /// <summary>The reminder as JSON.</summary>
    public required string Content { get; set; }
}
