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

    /// <summary>What has been done once.</summary>
    public DbSet<MarkRow> Marks => Set<MarkRow>();

    /// <summary>
    /// Options for a database in file <paramref name="path"/>: every commit is on disk before it is acknowledged. Connections are not pooled: while it grows, the client's pool may hand one
    /// handle to two requests at once ("cannot start a transaction within a transaction"), and a new handle costs a fraction of a millisecond.
    /// </summary>
    public static void Configure(DbContextOptionsBuilder builder, string path) =>
        builder.UseSqlite(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false, ForeignKeys = true, DefaultTimeout = 5 }.ConnectionString)
            .AddInterceptors(new DurableConnections());

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<RigRow>(rig =>
        {
            rig.HasKey(r => r.Id);
            rig.HasMany(r => r.Revisions).WithOne().HasForeignKey(r => r.RigId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<RevisionRow>(revision => revision.HasKey(r => new { r.RigId, r.Number }));
        modelBuilder.Entity<MarkRow>(mark => mark.HasKey(m => m.Name));
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<DateTimeOffsetToBinaryConverter>();

    private sealed class DurableConnections : DbConnectionInterceptor
    {
        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            if (!Writes(connection)) return;
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA synchronous=FULL;";
            command.ExecuteNonQuery();
        }

        public override async Task ConnectionOpenedAsync(DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            if (!Writes(connection)) return;
            await using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA synchronous=FULL;";
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
