using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace WarmConduit.Store;

/// <summary>
/// Open connections to the database, each lent to one request at a time. The client's own pool is not used: while it grows it may hand one handle to two requests at once ("cannot start a transaction
/// within a transaction"). Here a handle is in the stock or with its one borrower, never both. Safe for many threads.
/// </summary>
public sealed class Connections(string path) : IDisposable
{
    private const int MostKept = 16;
    private readonly ConcurrentStack<SqliteConnection> _stock = [];
    private int _cleared;

    /// <summary>Lends a connection; dispose the loan to give it back.</summary>
    public Loan Borrow()
    {
        int cleared = Volatile.Read(ref _cleared);
        return new Loan(this, _stock.TryPop(out var kept) ? kept : Open(), cleared);
    }

    /// <summary>Closes all, those that are lent once they come back: after trouble, or when the file has become another one.</summary>
    public void Clear()
    {
        Interlocked.Increment(ref _cleared);
        while (_stock.TryPop(out var connection)) connection.Dispose();
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
