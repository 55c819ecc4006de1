using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace WarmConduit.Store;

/// <summary>
/// Open connections to the database, each lent to one request at a time. The client's own pool is not used: while it grows it may hand one handle to two
/// requests at once ("cannot start a transaction within a transaction"). Here a handle is in the stock or with its one borrower, never both. Safe for many
/// threads.
/// </summary>
public sealed class Connections(string path) : IDisposable
{
    private const int MostKept = 16, KeepsLog = 10, HasMoved = 20;
    private const string Flush = "PRAGMA wal_checkpoint(TRUNCATE);";
    private readonly Lock _anchoring = new();
    private SqliteConnection? _anchor;
    private readonly ConcurrentStack<SqliteConnection> _stock = [];
    private int _cleared;

    /// <summary>Lends a connection; dispose the loan to give it back.</summary>
    public Loan Borrow()
    {
        int cleared = Volatile.Read(ref _cleared);
        return new Loan(this, _stock.TryPop(out var kept) ? kept : Open(), cleared);
    }

    /// <summary>Whether the database is still the file that <see cref="Anchor"/> opened, and not another in its place.</summary>
    public bool IsSameFile()
    {
        lock (_anchoring)
        {
            int moved = 0;
            // What the system cannot tell is taken as the same.
            return _anchor is { State: System.Data.ConnectionState.Open } anchor && (Control(anchor, HasMoved, ref moved) != 0 || moved == 0);
        }
    }

    /// <summary>Keeps one connection open, by which the file is known, and marks the file as one in use: from now on its log belongs to it.</summary>
    public void Anchor()
    {
        lock (_anchoring)
        {
            _anchor?.Dispose();
            _anchor = Open();
            Mark(_anchor, inUse: true);
        }
    }

    // At rest the file is whole without a log. Where it cannot be written, as while another program holds it, it stays what it was, and its log with it.
    private static void Mark(SqliteConnection anchor, bool inUse)
    {
        try
        {
            Run(anchor, LogCheck.Mark(inUse) + Flush);
            int keeps = inUse ? 1 : 0;
            Control(anchor, KeepsLog, ref keeps);
        }
        catch (SqliteException)
        {
        }
    }

    /// <summary>Writes what was logged into the database file, so that a copy of that file alone is whole.</summary>
    public void Checkpoint()
    {
        using var connection = Open();
        Run(connection, Flush);
    }

    /// <summary>What is wrong with the pages of the database, in the words of SQLite; null: nothing.</summary>
    public string? Damage()
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA quick_check(1);";
        return command.ExecuteScalar() is "ok" ? null : "a page is damaged";
    }

    [DllImport("e_sqlite3", CallingConvention = CallingConvention.Cdecl)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int sqlite3_file_control(IntPtr db, [MarshalAs(UnmanagedType.LPUTF8Str)] string name, int op, ref int value);

    private static int Control(SqliteConnection connection, int op, ref int value) =>
        sqlite3_file_control(connection.Handle!.DangerousGetHandle(), "main", op, ref value);

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    /// <summary>Closes all, those that are lent once they come back: after trouble, or when the file has become another one.</summary>
    public void Clear()
    {
        Interlocked.Increment(ref _cleared);
        bool same = IsSameFile();
        while (_stock.TryPop(out var connection)) connection.Dispose();
        lock (_anchoring)
        {
            if (same && _anchor is { } anchor) Mark(anchor, inUse: false);
            _anchor?.Dispose();
            _anchor = null;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => Clear();

    private SqliteConnection Open()
    {
        var connection = new SqliteConnection(ShelfContext.ConnectionString(path));
        try
        {
            connection.Open();
            // Every commit is on disk before it is acknowledged; a log that is in use is not removed by whoever closes last.
            Run(connection, ShelfContext.Durable);
            int keeps = 1;
            Control(connection, KeepsLog, ref keeps);
            return connection;
        }
        catch
        {
            connection.Dispose();
            throw;
        }
    }

    private void TakeBack(SqliteConnection connection, int cleared)
    {
        bool sound = cleared == Volatile.Read(ref _cleared);
        // One left in the middle of a transaction goes.
        if (sound && _stock.Count < MostKept && connection.State == System.Data.ConnectionState.Open
            && SQLitePCL.raw.sqlite3_get_autocommit(connection.Handle) != 0) _stock.Push(connection);
        else connection.Dispose();
    }

    /// <summary>A connection that is lent.</summary>
    public sealed class Loan : IDisposable
    {
        private readonly Connections _from;
        private readonly SqliteConnection _connection;
        private readonly int _cleared;
        private bool _back;

        internal Loan(Connections from, SqliteConnection connection, int cleared) => (_from, _connection, _cleared) = (from, connection, cleared);

        /// <summary>A context on it.</summary>
        public ShelfContext Context()
        {
            var builder = new DbContextOptionsBuilder<ShelfContext>();
            builder.UseSqlite(_connection);
            return new ShelfContext(builder.Options);
        }

        /// <inheritdoc/>
        public void Dispose()
        {
            if (_back) return;
            _back = true;
            _from.TakeBack(_connection, _cleared);
        }
    }
}
