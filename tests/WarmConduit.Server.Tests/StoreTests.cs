using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Rigs;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>The shelf itself, on a database file, without HTTP between.</summary>
public sealed class StoreTests : IDisposable
{
    private readonly string _file = Path.GetTempFileName();
    private readonly Rig _rig = RigFile.Read(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")));
    private static CancellationToken Now => TestContext.Current.CancellationToken;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        File.Delete(_file);
    }

    private ShelfContext Context()
    {
        var builder = new DbContextOptionsBuilder<ShelfContext>();
        ShelfContext.Configure(builder, _file);
        var context = new ShelfContext(builder.Options);
        context.Database.Migrate();
        return context;
    }

    private static Shelf ShelfOf(ShelfContext context) => new(context, new FixedTime());

    private sealed class FixedTime : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new(2031, 2, 3, 4, 5, 6, TimeSpan.Zero);
    }

    [Fact]
    public async Task A_commit_is_on_disk_before_it_is_acknowledged()
    {
        await using var context = Context();
        await ShelfOf(context).Add(_rig, "first", Now);
        await context.Database.OpenConnectionAsync(Now);
        await using var command = context.Database.GetDbConnection().CreateCommand();
        command.CommandText = "PRAGMA journal_mode";
        Assert.Equal("wal", await command.ExecuteScalarAsync(Now));
        command.CommandText = "PRAGMA synchronous";
        Assert.Equal(2L, await command.ExecuteScalarAsync(Now));
    }

    [Fact]
    public async Task The_migrations_are_those_of_the_model()
    {
        await using var context = Context();
        Assert.False(context.Database.HasPendingModelChanges());
        Assert.Empty(await context.Database.GetPendingMigrationsAsync(Now));
    }

    [Fact]
    public async Task What_is_read_back_is_what_was_saved_with_who_when_and_what()
    {
        await using (var context = Context()) await ShelfOf(context).Add(_rig, "Brought in", Now);
        await using var again = Context();
        var found = (await ShelfOf(again).Find("sparrow", Now))!;
        Assert.Equal(RigFile.Write(_rig), RigFile.Write(found.Rig));
        Assert.Equal(("Brought in", 1, false, false), (found.What, found.Revision, found.CanUndo, found.CanRedo));
        Assert.Equal(new FixedTime().GetUtcNow(), found.SavedAt);
        Assert.Null(await ShelfOf(again).Find("nobody", Now));
        Assert.Null(await ShelfOf(again).Revision("sparrow", 2, Now));
    }

    [Fact]
    public async Task Ids_that_are_taken_are_counted_up_and_never_grow_too_long()
    {
        await using var context = Context();
        var shelf = ShelfOf(context);
        string longId = new('a', 60);
        var ids = new List<string>();
        for (int i = 0; i < 3; i++) ids.Add((await shelf.Add(_rig with { Id = longId }, "again", Now)).Rig.Id);
        Assert.Equal([longId, longId[..58] + "-2", longId[..58] + "-3"], ids);
        Assert.Equal(3, (await shelf.All(Now)).Count);
    }

    [Fact]
    public async Task Undo_at_the_first_state_and_redo_at_the_last_change_nothing()
    {
        await using var context = Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        Assert.Equal(1, (await shelf.Undo("sparrow", 1, Now))!.Revision);
        Assert.Equal(1, (await shelf.Redo("sparrow", 1, Now))!.Revision);
        Assert.Null(await shelf.Undo("nobody", 1, Now));
        Assert.Null(await shelf.Save(_rig with { Id = "nobody" }, 1, "x", Now));
        Assert.False(await shelf.Remove("nobody", Now));
    }

    [Fact]
    public async Task A_stale_save_is_kept_beside_the_line_where_redo_does_not_go()
    {
        await using var context = Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        await shelf.Save(_rig with { Name = "Second" }, 1, "second", Now);
        var stale = await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save(_rig with { Name = "Stale" }, 1, "stale", Now));
        Assert.Equal((2, 3), (stale.Current, stale.KeptAs));
        await shelf.Undo("sparrow", 2, Now);
        Assert.Equal("Second", (await shelf.Redo("sparrow", 1, Now))!.Rig.Name);
        var history = await shelf.History("sparrow", Now);
        Assert.Equal([(3, true, false), (2, false, true), (1, false, false)], history.Select(h => (h.Number, h.Aside, h.Current)));
        // A save from a revision that never was has no parent to go back to, and is kept as well.
        Assert.Equal(4, (await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save(_rig, 77, "lost", Now))).KeptAs);
        Assert.Null((await shelf.History("sparrow", Now))[0].Parent);
    }

    [Fact]
    public async Task Taking_a_rig_off_takes_its_history_with_it()
    {
        await using var context = Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        await shelf.Save(_rig, 1, "second", Now);
        Assert.True(await shelf.Remove("sparrow", Now));
        Assert.Empty(await shelf.History("sparrow", Now));
        Assert.Equal(0, await context.Revisions.CountAsync(Now));
    }
}
