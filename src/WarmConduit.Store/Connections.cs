using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace WarmConduit.Store;

/// <summary>
/// Open connections to the database, each lent to one request at a time. The client's own pool is not used: while it grows it may hand one handle to two requests at once ("cannot start a transaction
/// within a transaction"). Here a handle is in the stock or with its one borrower, never both. Safe for many threads.
/// </summary>
public sealed class Connections(string path) : IDisposable
{
    private const int MostKept = 16, HasMoved = 20;
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
            // What the system cannot tell is taken as the same.
            return _anchor is { State: System.Data.ConnectionState.Open } anchor && (sqlite3_file_control(anchor.Handle!.DangerousGetHandle(), "main", HasMoved, out int moved) != 0 || moved == 0);
        }
    }

    /// <summary>Keeps one connection open, by which the file is known.</summary>
    public void Anchor()
    {
        lock (_anchoring)
        {
            _anchor?.Dispose();
            _anchor = Open();
        }
    }

    /// <summary>Writes what was logged into the database file, so that a copy of that file alone is whole.</summary>
    public void Checkpoint()
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE);";
        command.ExecuteNonQuery();
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
    private static extern int sqlite3_file_control(IntPtr db, [MarshalAs(UnmanagedType.LPUTF8Str)] string name, int op, out int moved);

    /// <summary>Closes all, those that are lent once they come back: after trouble, or when the file has become another one.</summary>
    public void Clear()
    {
        Interlocked.Increment(ref _cleared);
        while (_stock.TryPop(out var connection)) connection.Dispose();
        lock (_anchoring)
        {
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
            using var command = connection.CreateCommand();
            // Every commit is on disk before it is acknowledged.
            command.CommandText = ShelfContext.Durable;
            command.ExecuteNonQuery();
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
        if (sound && _stock.Count < MostKept && connection.State == System.Data.ConnectionState.Open && SQLitePCL.raw.sqlite3_get_autocommit(connection.Handle) != 0) _stock.Push(connection);
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
