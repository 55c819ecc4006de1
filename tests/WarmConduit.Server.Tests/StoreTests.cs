using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>The shelf itself, on a database file, without HTTP between.</summary>
public sealed class StoreTests : IDisposable
{
    private readonly string _folder = Host.NewFolder();
    private readonly Rig _rig = RigFile.Read(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")));
    private readonly RigCache _cache = new();
    private readonly WriterLock _line = new();
    private DateTimeOffset _now = new(2031, 2, 3, 4, 5, 6, TimeSpan.Zero);

    private static CancellationToken Now => TestContext.Current.CancellationToken;

    private string Database => Path.Combine(_folder, ShelfSetup.FileName);

    public void Dispose()
    {
        _line.Dispose();
        Directory.Delete(_folder, recursive: true);
    }

    private DbContextOptions<ShelfContext> Options => ShelfContext.OptionsFor(Database);

    private Task Prepare(string? demo = null, Action<string>? tell = null) => ShelfSetup.Prepare(_folder, demo, new Clock(this), tell ?? (_ => { }), Now);

    private async Task<ShelfContext> Context()
    {
        await Prepare();
        return new ShelfContext(Options);
    }

    private Shelf ShelfOf(ShelfContext context, RigCache? cache = null) => new(context, cache ?? _cache, _line, new ChangeFeed(), new Clock(this));

    private Collector CollectorOf(ShelfContext context) => new(context, _cache, _line, new Clock(this));

    private sealed class Clock(StoreTests test) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => test._now;
    }

    private async Task Sql(string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={Database};Pooling=False");
        await connection.OpenAsync(Now);
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(Now);
    }

    [Fact]
    public async Task A_commit_is_on_disk_before_it_is_acknowledged()
    {
        await Prepare();
        using var connections = new Connections(Database);
        using var loan = connections.Borrow();
        await using var context = loan.Context();
        await using var command = context.Database.GetDbConnection().CreateCommand();
        command.CommandText = "PRAGMA journal_mode";
        Assert.Equal("wal", await command.ExecuteScalarAsync(Now));
        command.CommandText = "PRAGMA synchronous";
        Assert.Equal(2L, await command.ExecuteScalarAsync(Now));
    }

    [Fact]
    public async Task A_picture_is_collected_once_no_rig_has_named_it_for_thirty_days()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        string Name(char digit) => new(digit, 64);
        var pictures = new Attachments(context, _line, new Clock(this));
        async Task<bool> Kept(char digit) => await pictures.Find(Name(digit), Now) is not null;
        foreach (char digit in "abc") await pictures.Keep(Name(digit), [1], Now);
        Photo Wall(char digit) => new("wall", "wall", Name(digit), PhotoView.Side, [new(0, 0), new(1, 0), new(1, 1), new(0, 1)], 1, 1, 0, 0);
        await shelf.Add(_rig with { Shell = _rig.Shell with { Photos = [Wall('a')] } }, "drawn", Now);
        _now += TimeSpan.FromDays(20);
        await shelf.Save(_rig.Id, 1, [new ChangeThing("shell/photos/wall", new System.Text.Json.Nodes.JsonObject { ["picture"] = Name('b') })], null, Now);
        _now += TimeSpan.FromDays(20);
        await shelf.Save(_rig.Id, 2, [new RemoveThing("shell/photos/wall")], null, Now);
        await pictures.Keep(Name('d'), [1], Now);
        Assert.Equal(1, (await CollectorOf(context).Run(Now)).Attachments);
        // What a rig named of late can come back; what none ever named goes.
        Assert.Equal((true, true, false, true), (await Kept('a'), await Kept('b'), await Kept('c'), await Kept('d')));
        _now += TimeSpan.FromDays(40);
        // One that is sent again is as good as new.
        foreach (char digit in "de") await pictures.Keep(Name(digit), [1], Now);
        await CollectorOf(context).Run(Now);
        Assert.Equal((false, false, true, true), (await Kept('a'), await Kept('b'), await Kept('d'), await Kept('e')));
    }

    [Fact]
    public async Task What_a_logbook_holds_is_kept_with_its_photos_and_goes_with_its_rig()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        var pictures = new Attachments(context, _line, new Clock(this));
        var (log, walks) = (new RigLog(context, _line, new ChangeFeed(), new Clock(this)), new Walks(context, _line, new ChangeFeed()));
        string picture = new('e', 64);
        await pictures.Keep(picture, [1], Now);
        await shelf.Add(_rig, "drawn", Now);
        await log.Append("sparrow", [new LogEntry("photo", LogKind.Leak, _now, "a drop", Pictures: [picture]), new LogEntry("note", LogKind.Note, _now, "n")],
            Now);
        await log.Set("sparrow", new Reminder("roof", "Wash the roof", 12), Now);
        await log.Set("sparrow", new Reminder("roof", "Wash the roof", 6), Now);
        var conditions = Conditions.Of(_rig.Brief) with { Parked = new Attitude(1, 0.5) };
        var made = ProcedureStudy.Ask(new Question(_rig, conditions), new ProcedureInput(ProcedureKind.AirLayUp));
        await walks.Begin(new Walk("walk-1", "sparrow", 1, _now, null, null, conditions, made, []), Now);
        var done = new WalkAct("act-1", WalkActKind.Done, _now, made.Steps[0].Id);
        Assert.Equal((true, true), (await walks.Append("walk-1", done, Now)) is { } taken ? (taken.Counts, taken.IsNew) : default);
        // Years later all of it is as it was written: the procedure to the last step, its night and parking, the photo with its entry.
        _now += TimeSpan.FromDays(900);
        Assert.Equal(0, (await CollectorOf(context).Run(Now)).Attachments);
        Assert.NotNull(await pictures.Find(picture, Now));
        Assert.Equal([picture], (await log.Entries("sparrow", Now)).Single(e => e.Id == "photo").Pictures!);
        Assert.Equal(6, Assert.Single(await log.Reminders("sparrow", Now)).EveryMonths);
        var walk = (await walks.Find("walk-1", Now))!;
        Assert.Equal((conditions.Parked, made.Steps.Count, made.Steps[^1].Words.Text), (walk.Conditions.Parked, walk.Procedure.Steps.Count,
            walk.Procedure.Steps[^1].Words.Text));
        Assert.Equal(made.Steps.SelectMany(s => s.Marks), walk.Procedure.Steps.SelectMany(s => s.Marks));
        Assert.Equal(StepStand.Done, walk.Steps()[0].Stand);
        // A backup has them too.
        string file = Path.Combine(_folder, "copy.db");
        await BackupFiles.Write(context, file, Now);
        await using (var copy = new ShelfContext(ShelfContext.OptionsFor(file)))
            Assert.Equal((1, 1, 2, 1, 2), (await copy.Walks.CountAsync(Now), await copy.WalkActs.CountAsync(Now), await copy.Log.CountAsync(Now),
                await copy.LogPictures.CountAsync(Now), await copy.Reminders.CountAsync(Now)));
        // With the rig it goes, once that can't be brought back, and then its photo.
        await shelf.Remove("sparrow", 1, Now);
        _now += TimeSpan.FromDays(31);
        await CollectorOf(context).Run(Now);
        Assert.Equal((0, 0, 0, 0, 0), (await context.Walks.CountAsync(Now), await context.WalkActs.CountAsync(Now), await context.Log.CountAsync(Now),
            await context.LogPictures.CountAsync(Now), await context.Reminders.CountAsync(Now)));
        Assert.Null(await pictures.Find(picture, Now));
    }

    [Fact]
    public async Task Of_days_longer_ago_than_a_year_the_last_revision_is_kept()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "drawn", Now);
        // Three days with four saves each, and one that was kept aside of a clash.
        for (int n = 1, day = 0; day < 3; day++, _now += TimeSpan.FromDays(1))
            for (int save = 0; save < 4; save++, n++) await shelf.Save(_rig.Id, n, [Host.Rename($"save {n}")], null, Now);
        await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save(_rig.Id, 3, [Host.Rename("clash")], null, Now));
        Assert.Equal(0, (await CollectorOf(context).Run(Now)).Revisions);
        _now += Collector.WholeFor + TimeSpan.FromDays(1);
        await shelf.Save(_rig.Id, 13, [Host.Rename("today")], "key", Now);
        Assert.Equal(10, (await CollectorOf(context).Run(Now)).Revisions);
        // 1 to 5 are of the first day (the first is that it was drawn), 6 to 9 of the second, 10 to 13 of the third; 14 is the clash, 15 of today.
        Assert.Equal([15, 14, 13, 9, 5], (await shelf.History(_rig.Id, Now)).Select(r => r.Number));
        Assert.Equal("save 8", (await shelf.Revision(_rig.Id, 9, Now))!.Name);
        // What was made on one that is gone is told to be old, and what is current goes on.
        await Assert.ThrowsAsync<StaleSaveException>(() => ShelfOf(context, new RigCache()).Save(_rig.Id, 7, [Host.Rename("late")], null, Now));
        Assert.Equal(16, (await shelf.Save(_rig.Id, 15, [Host.Rename("on")], null, Now))!.Revision);
        Assert.Equal(0, (await CollectorOf(context).Run(Now)).Revisions);
    }

    [Fact]
    public async Task The_migrations_are_those_of_the_model()
    {
        await using var context = await Context();
        Assert.False(context.Database.HasPendingModelChanges());
        Assert.Empty(await context.Database.GetPendingMigrationsAsync(Now));
    }

    [Fact]
    public async Task A_lock_left_by_a_killed_start_is_cleared_and_the_demo_is_laid_once_by_whoever_comes_first()
    {
        string demo = Path.Combine(Host.Root, "demo");
        // As a start leaves it that was killed while it migrated.
        await Sql("CREATE TABLE \"__EFMigrationsLock\" (\"Id\" INTEGER NOT NULL CONSTRAINT \"PK___EFMigrationsLock\" PRIMARY KEY, \"Timestamp\" TEXT NOT " +
            "NULL); INSERT INTO \"__EFMigrationsLock\" VALUES (1, '2031-02-03');");
        await Prepare().WaitAsync(TimeSpan.FromSeconds(20), Now);
        // As one leaves it that was killed between migrating and laying the demo; then several starts at once.
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Task.Run(() => Prepare(demo))));
        await using var context = new ShelfContext(Options);
        var shelf = ShelfOf(context);
        Assert.Equal(["lantern", "sparrow", "tern"], (await shelf.All(Now)).Select(r => r.Id));
        // Taken off, it does not come back by itself.
        await shelf.Remove("sparrow", 1, Now);
        await Prepare(demo);
        Assert.Equal(["lantern", "tern"], (await shelf.All(Now)).Select(r => r.Id));
    }

    [Fact]
    public async Task A_start_says_that_it_waits_for_another_one()
    {
        var heard = new List<string>();
        var held = new FileStream(Path.Combine(_folder, "starting.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        var start = Prepare(null, heard.Add);
        while (heard.Count == 0) await Task.Delay(20, Now);
        Assert.Contains("another start", heard[0], StringComparison.Ordinal);
        await held.DisposeAsync();
        await start;
    }

    [Fact]
    public async Task Rigs_stored_by_the_first_version_are_read_with_the_same_answers_and_what_cannot_be_read_harms_no_other()
    {
        // The first version's tables, with its own rig, one that a newer program wrote, and one that breaks a rule that came later.
        string old = await File.ReadAllTextAsync(Path.Combine(Host.Root, "tests", "WarmConduit.Core.Tests", "Data", "sparrow-v1.json"), Now);
        await using (var first = new ShelfContext(Options)) await first.Database.MigrateAsync("20261125004918_Start", Now);
        var tank = JsonNode.Parse(old)!;
        tank["parts"]![0]!["holdsL"] = 0;
        (string Id, string Text)[] stored = [("sparrow", old), ("newer",
            old.Replace("\"formatVersion\": 1", "\"formatVersion\": 9", StringComparison.Ordinal)), ("empty-tank", tank.ToJsonString()), ("torn", old[..500])];
        foreach (var (id, text) in stored)
            await Sql($"INSERT INTO Rigs VALUES ('{id}', 1, 0); INSERT INTO Revisions VALUES ('{id}', 1, NULL, 0, 'Saved before', 0, " +
                $"'{text.Replace("'", "''", StringComparison.Ordinal)}');");
        await using var context = await Context();
        var all = (await ShelfOf(context).All(Now)).ToDictionary(r => r.Id);
        Assert.Equal(4, all.Count);
        var unheated = _rig with { Parts = [.. _rig.Parts.Select(p => p with { Pad = null })] };
        Assert.Equal(RigFile.Write(Upgraded.Bare(unheated)), RigFile.Write(all["sparrow"].Rig!));
        Assert.Equal("Saved before", all["sparrow"].What.Text);
        Assert.Contains("version 9", all["newer"].Unreadable!, StringComparison.Ordinal);
        Assert.NotNull(all["torn"].Unreadable);
        Assert.Equal(old[..500], Encoding.UTF8.GetString((await ShelfOf(context).Raw("torn", Now))!));
        // It opens, and a finding tells what would be refused today.
        Assert.NotNull(all["empty-tank"].Rig);
        Assert.Contains(RigCheck.Check(all["empty-tank"].Rig!), f => !f.Essential && f.Path.EndsWith("holdsL", StringComparison.Ordinal));
        // An edit elsewhere is not refused for it.
        Assert.NotNull(await ShelfOf(context).Save("empty-tank", 1, [new MoveThings(["parts/tee-hot"], new Point3(0, 0, 0.01))], null, Now));
    }

    [Fact]
    public async Task What_was_accepted_can_always_be_read_back_at_the_limits_of_size_too()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        Rig Sized(int bends, string note) => _rig with
        {
            Note = note,
            Runs = [.. _rig.Runs.Select((r, i) => i == 0 ? r with { Bends =
            [.. Enumerable.Range(0, bends).Select(n => new Bend($"b{n}", new Point3(n * 1e-4 + 0.123456, 0.1, 0.2)))] } : r)],
        };
        await Gen.Select(Gen.Int[0, 15_000], Gen.String[Gen.Char["aé漢\"\\\n<"], 0, 2000]).SampleAsync(async (bends, note) =>
        {
            var rig = Sized(bends, note) with { Id = $"r{Guid.NewGuid():N}", Name = $"n{Guid.NewGuid():N}" };
            await shelf.Add(rig, "large", Now);
            await using var fresh = new ShelfContext(Options);
            var found = await ShelfOf(fresh, new RigCache()).Find(rig.Id, Now);
            Assert.Equal(RigFile.Write(rig.InOrder()), RigFile.Write(found!.Rig!));
        }, iter: 12, threads: 1);
        // 5 MB are checked as it is stored: what would not be read is not accepted.
        var most = _rig with
        {
            Parts = [.. Enumerable.Range(0, 1000).Select(p =>
            new Part($"p{p:0000}-{new string('x', 50)}", new string('n', 80), "tee", new Box(new(0.123456, 0.123456, 0.123456), new(0.1, 0.1, 0.1)),
            [.. Enumerable.Range(0, 16).Select(k => new Port($"p{k:00}{new string('y', 56)}", new Point3(0.012345, 0.012345, 0.012345)))]))],
            Runs = [],
            ByHand = [],
            Scenarios = []
        };
        Assert.Empty(RigCheck.Check(most));
        var bytes = RigFile.WriteCompact(most).Length;
        Assert.InRange(bytes, 1_500_000, RigFile.MaxBytes);
        Assert.True(Documents.Pack(most).Content.Length < bytes / 5);
        Assert.Equal(RigFile.Write(most), RigFile.Write(RigFile.ReadStored(Documents.Unpack(Documents.Pack(most).Content, Packing.SealedBrotli))));
        Assert.Throws<RigFileException>(() => RigFile.ReadStored(Documents.Unpack([1, 2, 3], Packing.Brotli)));
    }

    [Fact]
    public async Task Edits_that_cannot_be_done_change_nothing_and_an_unknown_base_is_a_clash()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        await Assert.ThrowsAsync<RigFileException>(() => shelf.Save("sparrow", 1, [new RemoveThing("parts/ghost")], null, Now));
        await using var second = new ShelfContext(Options);
        shelf = ShelfOf(second);
        Assert.Null((await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save("sparrow", 77, [Host.Rename("x")], null, Now))).KeptAs);
        Assert.Null(await shelf.Save("nobody", 1, [Host.Rename("x")], null, Now));
        Assert.Equal(1, (await shelf.Find("sparrow", Now))!.Revision);
        Assert.Single(await shelf.History("sparrow", Now));
    }

    [Fact]
    public async Task A_save_sent_again_is_the_same_save_also_when_it_clashed_or_others_have_saved_since()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        Edit[] mine = [Host.Raise("runs/kitchen-cold/bends/b2", 0.01)], theirs = [Host.Raise("runs/kitchen-cold/bends/b2", 0.5)];
        var first = await shelf.Save("sparrow", 1, mine, "k1", Now);
        Assert.Equal(3, (await shelf.Save("sparrow", 2, theirs, null, Now))!.Revision);
        var again = await shelf.Save("sparrow", 1, mine, "k1", Now);
        Assert.Equal((first!.Revision, first.Onto), (again!.Revision, again.Onto));
        Assert.Equal(System.Text.Json.JsonSerializer.Serialize(first.Effect, RigFile.Compact),
            System.Text.Json.JsonSerializer.Serialize(again.Effect, RigFile.Compact));
        // Its way back leads to where it came from.
        var rig = (await shelf.Revision("sparrow", 2, Now))!;
        Assert.Equal(RigFile.Write((await shelf.Revision("sparrow", 1, Now))!), RigFile.Write(Editor.Apply(rig, again.Inverse).Rig));
        int kept = (await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save("sparrow", 1, mine, "k2", Now))).KeptAs!.Value;
        Assert.Equal(kept, (await Assert.ThrowsAsync<StaleSaveException>(() => shelf.Save("sparrow", 1, mine, "k2", Now))).KeptAs);
        Assert.Equal(4, (await shelf.History("sparrow", Now)).Count);
        // The same name with other edits is refused, with what came first under it: nothing is taken as saved that is not.
        var used = await Assert.ThrowsAsync<KeyUsedException>(() => shelf.Save("sparrow", 1, [.. mine, .. theirs], "k1", Now));
        Assert.Equal((3, 2, 1), (used.Current, used.Revision, used.Edits));
    }

    [Fact]
    public void A_stored_document_that_went_bad_is_told_wherever_it_did()
    {
        var (content, packing) = Documents.Pack(_rig);
        for (int at = 0; at < content.Length; at += 1 + content.Length / 200)
        {
            byte[] bad = [.. content];
            bad[at] ^= 4;
            Assert.Throws<RigFileException>(() => Documents.Unpack(bad, packing));
        }
        Assert.Equal(RigFile.Write(_rig), RigFile.Write(RigFile.ReadStored(Documents.Unpack(content, packing))));
    }

    [Fact]
    public async Task A_rig_that_was_taken_off_goes_for_good_after_thirty_days_and_its_id_stays_taken()
    {
        await using var context = await Context();
        var shelf = ShelfOf(context);
        await shelf.Add(_rig, "first", Now);
        await shelf.Add(_rig with { Id = "other", Name = "Other" }, "first", Now);
        await shelf.Remove("sparrow", 1, Now);
        _now += TimeSpan.FromDays(29);
        Assert.Equal("Sparrow", Assert.Single(await shelf.Removed(Now)).Name);
        _now += TimeSpan.FromDays(2);
        await shelf.Remove("other", 1, Now);
        Assert.Equal(1, (await CollectorOf(context).Run(Now)).Rigs);
        Assert.Equal("other", Assert.Single(await shelf.Removed(Now)).Id);
        Assert.Null(await shelf.BringBack("sparrow", Now));
        Assert.Equal(0, await context.Revisions.CountAsync(r => r.RigId == "sparrow", Now));
        Assert.Equal("sparrow-2", (await shelf.Add(_rig, "again", Now)).Id);
    }

    [Fact]
    public async Task A_connection_is_lent_again_but_not_one_from_before_trouble()
    {
        await Prepare();
        using var connections = new Connections(Database);
        static SqliteConnection Of(Connections.Loan loan) => (SqliteConnection)loan.Context().Database.GetDbConnection();
        SqliteConnection first, second;
        using (var loan = connections.Borrow()) first = Of(loan);
        using (var loan = connections.Borrow())
        {
            second = Of(loan);
            connections.Clear();
        }
        Assert.Same(first, second);
        using var after = connections.Borrow();
        Assert.NotSame(first, Of(after));
        Assert.Equal(System.Data.ConnectionState.Closed, first.State);
    }

    [Fact]
    public async Task Many_first_requests_at_once_never_share_a_connection()
    {
        await Prepare();
        using var connections = new Connections(Database);
        for (int round = 0; round < 5; round++)
        {
            await Task.WhenAll(Enumerable.Range(0, 40).Select(n => Task.Run(async () =>
            {
                using var loan = connections.Borrow();
                await using var context = loan.Context();
                await using var transaction = await context.Database.BeginTransactionAsync(Now);
                await transaction.RollbackAsync(Now);
            })));
        }
    }
}
