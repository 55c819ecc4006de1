using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace WarmConduit.Store;

/// <summary>The database: rigs and their revisions.</summary>
public sealed class ShelfContext(DbContextOptions<ShelfContext> options) : DbContext(options)
{
    /// <summary>Rigs.</summary>
    public DbSet<RigRow> Rigs => Set<RigRow>();

    /// <summary>Revisions of all rigs.</summary>
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();

    /// <summary>Options for a database in file <paramref name="path"/>: write-ahead log, and every commit on disk before it is acknowledged.</summary>
    public static void Configure(DbContextOptionsBuilder builder, string path) =>
        builder.UseSqlite($"Data Source={path}").AddInterceptors(new DurableConnections());

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<RigRow>(rig =>
        {
            rig.HasKey(r => r.Id);
            rig.HasMany(r => r.Revisions).WithOne().HasForeignKey(r => r.RigId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<RevisionRow>(revision => revision.HasKey(r => new { r.RigId, r.Number }));
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<DateTimeOffsetToBinaryConverter>();

    private sealed class DurableConnections : DbConnectionInterceptor
    {
        private const string Pragmas = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;";

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            if (!Writes(connection)) return;
            using var command = connection.CreateCommand();
            command.CommandText = Pragmas;
            command.ExecuteNonQuery();
        }

        public override async Task ConnectionOpenedAsync(DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            if (!Writes(connection)) return;
            await using var command = connection.CreateCommand();
            command.CommandText = Pragmas;
            await command.ExecuteNonQueryAsync(cancellationToken);
        }

        // EF looks whether the database is there by opening it read-only, and then it cannot be told anything.
        private static bool Writes(DbConnection connection) => new SqliteConnectionStringBuilder(connection.ConnectionString).Mode != SqliteOpenMode.ReadOnly;
    }

    /// <summary>Lets the migration tool make a context.</summary>
    public sealed class Factory : IDesignTimeDbContextFactory<ShelfContext>
    {
        /// <inheritdoc/>
        public ShelfContext CreateDbContext(string[] args)
        {
            var builder = new DbContextOptionsBuilder<ShelfContext>();
            Configure(builder, "design-time.db");
            return new ShelfContext(builder.Options);
        }
    }
}
