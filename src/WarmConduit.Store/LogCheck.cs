using System.Buffers.Binary;
using System.Security.Cryptography;

namespace WarmConduit.Store;

/// <summary>
/// Whether the log beside a database (SQLite's write-ahead log, <c>-wal</c>) is the one that belongs to it. Opened with another's log, a database takes over
/// pages that were never its own; opened without its own, it forgets saves. Both are told before it is opened. Two numbers of the file's header tell: the
/// <em>era</em> (<c>application_id</c>), drawn anew at each start while there is no log, and whether the file is <em>in use</em> (<c>user_version</c>), so that
/// what it holds may stand in the log alone. See docs/decisions/11.
/// </summary>
internal static class LogCheck
{
    private const int HeaderBytes = 100, LogHeaderBytes = 32, FrameHeaderBytes = 24, EraAt = 68, InUseAt = 60;
    private static ReadOnlySpan<byte> Magic => "SQLite format 3\0"u8;

    /// <summary>SQL that makes the file one in use, or at rest.</summary>
    public static string Mark(bool inUse) => $"PRAGMA user_version={(inUse ? 1 : 0)};";

    /// <summary>SQL that draws a new era; only while there is no log.</summary>
    public static string NewEra() => $"PRAGMA application_id={RandomNumberGenerator.GetInt32(1, int.MaxValue)};";

    /// <summary>Throws <see cref="TroubleException"/> where the log of the database at <paramref name="path"/> is missing, or is of another. Opens neither with
    /// SQLite, and changes nothing.</summary>
    public static void Check(string path)
    {
        byte[] header = new byte[HeaderBytes];
        using (var database = Open(path))
            if (database is null || !Read(database, 0, header) || !header.AsSpan().StartsWith(Magic)) return;
        var (era, inUse) = Marks(header);
        // One from before eras were drawn says nothing of itself.
        if (era == 0) return;
        string log = path + "-wal", name = Path.GetFileName(log);
        if (inUse && !File.Exists(log))
            throw new TroubleException(
                $"The log of the database, {name}, is missing, and the latest saves with it: the database was copied or moved without it. Put {name} beside " +
                $"it and try again. To go on with what the database holds alone, put an empty file of that name there.",
                false,
                null);
        if (LastEra(log) is { } other && other != era)
            throw new TroubleException($"The log {name} belongs to another database than the one beside it; neither was opened. Put the database to which it " +
                $"belongs back, or move the log away, and try again.", false, null);
    }

    // The era in the newest first page that the log holds; null: it holds none.
    private static uint? LastEra(string log)
    {
        using var file = Open(log);
        byte[] head = new byte[LogHeaderBytes], frame = new byte[FrameHeaderBytes + HeaderBytes];
        if (file is null || !Read(file, 0, head) || BinaryPrimitives.ReadUInt32BigEndian(head) >> 1 != 0x377f0682u >> 1) return null;
        long page = BinaryPrimitives.ReadUInt32BigEndian(head.AsSpan(8));
        if (page is < 512 or > 65536) return null;
        uint? era = null;
        // Frames from before the log was last begun anew have other salts.
        for (long at = LogHeaderBytes; Read(file, at, frame) && frame.AsSpan(8, 8).SequenceEqual(head.AsSpan(16, 8)); at += FrameHeaderBytes + page)
            if (BinaryPrimitives.ReadUInt32BigEndian(frame) == 1) era = Marks(frame.AsSpan(FrameHeaderBytes)).Era;
        return era;
    }

    private static (uint Era, bool InUse) Marks(ReadOnlySpan<byte> header) =>
        (BinaryPrimitives.ReadUInt32BigEndian(header[EraAt..]), BinaryPrimitives.ReadUInt32BigEndian(header[InUseAt..]) != 0);

    private static FileStream? Open(string path) =>
        File.Exists(path) ? new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete) : null;

    private static bool Read(FileStream file, long at, byte[] into)
    {
        file.Position = at;
        return file.ReadAtLeast(into, into.Length, throwOnEndOfStream: false) == into.Length;
    }
}
