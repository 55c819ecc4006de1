using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using WarmConduit.Application.Backups;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>All data as one file while it runs, and back: all of it or none, and what is no backup is refused by what is wrong with it.</summary>
public class BackupTests
{
    private static async Task<(int Status, JsonNode Body)> Send(Host host, byte[] file)
    {
        using var body = new ByteArrayContent(file) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        using var answer = await host.Http.PostAsync("/api/backup", body);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static async Task<JsonNode> Restored(Host host, byte[] file)
    {
        var (status, found) = await Send(host, file);
        Assert.Equal(200, status);
        var (done, said) = await host.Post($"/api/backup/{found["id"]}/restore", new { });
        Assert.Equal(200, done);
        return said;
    }

    // The data of a program that was stopped, as a backup of it is.
    private static async Task<byte[]> Edited(byte[] file, string sql)
    {
        string path = Path.Combine(Host.NewFolder(), "any.db");
        await File.WriteAllBytesAsync(path, file);
        await using (var db = new SqliteConnection($"Data Source={path};Pooling=False"))
        {
            await db.OpenAsync();
            await using var command = db.CreateCommand();
            command.CommandText = sql;
            await command.ExecuteNonQueryAsync();
        }
        return await File.ReadAllBytesAsync(path);
    }

    [Fact]
    public async Task A_backup_brings_back_all_that_was_there_and_what_it_replaces_is_kept()
    {
        await using var host = await Host.Start();
        Assert.Null((string?)(await host.Get("/api/backup/state"))["lastAt"]);
        await host.Save(1, Host.Rename("Then"));
        byte[] file = await host.Http.GetByteArrayAsync("/api/backup");
        Assert.NotNull((string?)(await host.Get("/api/backup/state"))["lastAt"]);
        await host.Save(2, Host.Rename("Later"));
        using var gone = await host.Http.DeleteAsync("/api/rigs/tern?revision=1");
        using var stream = await host.Http.GetStreamAsync("/api/changes");
        using var reader = new StreamReader(stream);

        var restored = await Restored(host, file);
        Assert.Equal(("Then", 3), ((await host.Rig()).Name, (int)restored["content"]!["rigs"]!));
        Assert.Equal(3, (await host.Get("/api/rigs"))["rigs"]!.AsArray().Count);
        string? line;
        do line = await reader.ReadLineAsync().WaitAsync(TimeSpan.FromSeconds(20));
        while (line is not null && line != "event: replaced");
        Assert.NotNull(line);
        // It goes on from there, and what was replaced can be had back the same way.
        Assert.Equal(200, (await host.Save(2, Host.Rename("On from there"))).Status);
        await Restored(host, await File.ReadAllBytesAsync(Path.Combine(host.Data, (string)restored["keptAs"]!)));
        Assert.Equal("Later", (await host.Rig()).Name);
        Assert.Equal(2, (await host.Get("/api/rigs"))["rigs"]!.AsArray().Count);
        Assert.Empty(Directory.GetFiles(Path.Combine(host.Data, "backup-files")));
    }

    [Fact]
    public async Task What_was_restored_stands_after_a_kill_and_a_backup_is_a_database_of_its_own()
    {
        string data = Host.NewFolder();
        byte[] file;
        await using (var host = await Host.Start(data))
        {
            await host.Save(1, Host.Rename("Then"));
            file = await host.Http.GetByteArrayAsync("/api/backup");
            await host.Save(2, Host.Rename("Later"));
            await Restored(host, file);
            host.Kill();
        }
        await using (var host = await Host.Start(data)) Assert.Equal("Then", (await host.Rig()).Name);
        string other = Host.NewFolder();
        await File.WriteAllBytesAsync(Path.Combine(other, ShelfSetup.FileName), file);
        await using (var host = await Host.Start(other)) Assert.Equal("Then", (await host.Rig()).Name);
    }

    [Fact]
    public async Task What_is_no_backup_is_damaged_or_is_newer_is_refused_and_nothing_is_changed()
    {
        await using var host = await Host.Start();
        byte[] file = await host.Http.GetByteArrayAsync("/api/backup");
        byte[] torn = [.. file];
        Array.Fill(torn, (byte)0xAA, file.Length / 2, 8192);
        foreach (var (sent, words) in ((byte[], string)[])
                 [
                     ([], "not a backup"), ("no database at all, only words"u8.ToArray(), "not a backup"), (file[..(file.Length / 2)], "damaged"),
                     (torn, "damaged"),
                     (await Edited(file, "DROP TABLE \"Marks\""), "not a backup"),
                     (await Edited(file, "INSERT INTO \"__EFMigrationsHistory\" VALUES ('29990101000000_Later', '99')"), "newer version"),
                 ])
        {
            var (status, said) = await Send(host, sent);
            Assert.Equal(400, status);
            Assert.Contains(words, (string)said["errors"]!["file"]![0]!, StringComparison.Ordinal);
        }
        Assert.Equal(404, (await host.Post("/api/backup/none/restore", new { })).Status);
        Assert.Equal(3, (await host.Get("/api/rigs"))["rigs"]!.AsArray().Count);
        Assert.Empty(Directory.GetFiles(Path.Combine(host.Data, "backup-files")));
    }

    [Fact]
    public async Task A_backup_of_an_older_version_is_brought_up_to_date()
    {
        string path = Path.Combine(Host.NewFolder(), "old.db");
        await using (var old = new ShelfContext(ShelfContext.OptionsFor(path)))
        {
            await old.GetService<IMigrator>().MigrateAsync(old.Database.GetMigrations().Reverse().Skip(1).First());
            Assert.NotEmpty(await old.Database.GetPendingMigrationsAsync());
        }
        await using var host = await Host.Start();
        await Restored(host, await Edited(await File.ReadAllBytesAsync(path), "INSERT INTO \"Marks\" VALUES ('demo', 0)"));
        Assert.Empty((await host.Get("/api/rigs"))["rigs"]!.AsArray());
    }

    [Fact]
    public async Task One_is_due_after_a_month_without()
    {
        string data = Host.NewFolder();
        var clock = new Clock();
        await ShelfSetup.Prepare(data, Path.Combine(Host.Root, "demo"), clock, _ => { }, default);
        await using var db = new ShelfContext(ShelfContext.OptionsFor(Path.Combine(data, ShelfSetup.FileName)));
        using var line = new WriterLock();
        using var desk = new BackupDesk(new DataPlace(data, Path.Combine(data, ShelfSetup.FileName)), line, clock);
        foreach (var (days, due) in ((int, bool)[])[(29, false), (2, true)])
        {
            clock.Now += TimeSpan.FromDays(days);
            Assert.Equal(due, (await desk.State(db, default)).Due);
        }
        await (await desk.Take(db, default)).DisposeAsync();
        Assert.Equal((false, clock.Now), ((await desk.State(db, default)).Due, (await desk.State(db, default)).LastAt));
        clock.Now += TimeSpan.FromDays(31);
        Assert.True((await desk.State(db, default)).Due);
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 10, 1, 12, 0, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
