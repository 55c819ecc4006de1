using Microsoft.Data.Sqlite;

namespace WarmConduit.Store;

/// <summary>The data folder or the database cannot be used at the moment, in the words for a screen. Nothing was changed.</summary>
public sealed class TroubleException(string reason, bool full, Exception? inner) : Exception(reason, inner)
{
    /// <summary>The disk is full.</summary>
    public bool Full { get; } = full;

    /// <summary>Another program holds the database: what is open here stays good.</summary>
    public bool Held { get; private init; }

    /// <summary>The trouble behind <paramref name="exception"/>, or null when it is none of these.</summary>
    public static TroubleException? Of(Exception? exception)
    {
        for (var e = exception; e is not null; e = e.InnerException)
        {
            switch (e)
            {
                case TroubleException known:
                    return known;
                case SqliteException { SqliteErrorCode: 13 }:
                    return new TroubleException("The disk is full. Make room, and try again.", true, exception);
                case SqliteException { SqliteErrorCode: 5 or 6 }:
                    return new TroubleException("Another program holds the database. Close it, and try again.", false, exception) { Held = true };
                case SqliteException { SqliteErrorCode: 8 or 3 or 23 }:
                    return new TroubleException("The database cannot be written. See who may write to its file and folder, and try again.", false, exception);
                case SqliteException { SqliteErrorCode: 11 or 26 }:
                    return new TroubleException("The database is damaged. Put a copy of it from a backup into the data folder, and try again; what is there " +
                        "was left as it is.", false, exception);
                case SqliteException { SqliteErrorCode: 14 }:
                    return new TroubleException("The database cannot be opened. See that its folder is there and may be written to, and try again.",
                        false, exception);
                case SqliteException { SqliteErrorCode: 10 }:
                    return new TroubleException("The disk cannot be read or written, or is full. See to it, and try again.", true, exception);
                case UnauthorizedAccessException:
                    return new TroubleException("The data folder cannot be written. See who may write to it, and try again.", false, exception);
                case IOException { HResult: 28 or unchecked((int)0x80070070) }:
                    return new TroubleException("The disk is full. Make room, and try again.", true, exception);
                default:
                    break;
            }
        }
        return null;
    }
}
