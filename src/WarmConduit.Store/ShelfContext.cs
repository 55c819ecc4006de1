using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
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

    /// <summary>Pictures under the drawings.</summary>
    public DbSet<PictureRow> Pictures => Set<PictureRow>();

    /// <summary>Walk-throughs.</summary>
    public DbSet<WalkRow> Walks => Set<WalkRow>();

    /// <summary>What happened on them.</summary>
    public DbSet<WalkActRow> WalkActs => Set<WalkActRow>();

    /// <summary>Entries of the logbooks.</summary>
    public DbSet<LogRow> Log => Set<LogRow>();

    /// <summary>Their pictures.</summary>
    public DbSet<LogPictureRow> LogPictures => Set<LogPictureRow>();

    /// <summary>Reminders as they were set.</summary>
    public DbSet<ReminderRow> Reminders => Set<ReminderRow>();

    /// <summary>What makes every commit be on disk before it is acknowledged.</summary>
    internal const string Durable = "PRAGMA synchronous=FULL;";

    /// <summary>How the database at <paramref name="path"/> is opened: <see cref="Connections"/> says why without the client's pool.</summary>
    public static string ConnectionString(string path) =>
        new SqliteConnectionStringBuilder { DataSource = path, Pooling = false, ForeignKeys = true, DefaultTimeout = 5 }.ConnectionString;

    /// <summary>Options for a context with connections of its own: for preparing the database, and for tests.</summary>
    public static DbContextOptions<ShelfContext> OptionsFor(string path) =>
        new DbContextOptionsBuilder<ShelfContext>().UseSqlite(ConnectionString(path)).Options;

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<RigRow>(rig =>
        {
            rig.HasKey(r => r.Id);
            rig.HasMany(r => r.Revisions).WithOne().HasForeignKey(r => r.RigId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<RevisionRow>(revision =>
        {
            revision.HasKey(r => new { r.RigId, r.Number });
            revision.HasIndex(r => new { r.RigId, r.Key }).IsUnique();
        });
        modelBuilder.Entity<MarkRow>(mark => mark.HasKey(m => m.Name));
        modelBuilder.Entity<PictureRow>(picture => picture.HasKey(p => p.Hash));
        // What belongs to a rig goes with it.
        modelBuilder.Entity<WalkRow>(walk =>
        {
            walk.HasKey(w => w.Id);
            walk.HasOne<RigRow>().WithMany().HasForeignKey(w => w.RigId).OnDelete(DeleteBehavior.Cascade);
            walk.HasMany(w => w.Acts).WithOne().HasForeignKey(a => a.WalkId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<WalkActRow>(act =>
        {
            act.HasKey(a => new { a.WalkId, a.Number });
            act.HasIndex(a => new { a.WalkId, a.Id }).IsUnique();
        });
        modelBuilder.Entity<LogRow>(entry =>
        {
            entry.HasKey(e => new { e.RigId, e.Id });
            entry.HasOne<RigRow>().WithMany().HasForeignKey(e => e.RigId).OnDelete(DeleteBehavior.Cascade);
            entry.HasMany(e => e.Pictures).WithOne().HasForeignKey(p => new { p.RigId, p.EntryId }).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<LogPictureRow>(picture => picture.HasKey(p => new { p.RigId, p.EntryId, p.Number }));
        modelBuilder.Entity<ReminderRow>(reminder =>
        {
            reminder.HasKey(r => r.Number);
            reminder.Property(r => r.Number).ValueGeneratedOnAdd();
            reminder.HasOne<RigRow>().WithMany().HasForeignKey(r => r.RigId).OnDelete(DeleteBehavior.Cascade);
        });
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<DateTimeOffsetToBinaryConverter>();

    /// <summary>Lets the migration tool make a context.</summary>
    public sealed class Factory : IDesignTimeDbContextFactory<ShelfContext>
    {
        /// <inheritdoc/>
        public ShelfContext CreateDbContext(string[] args) => new(OptionsFor("design-time.db"));
    }
}
