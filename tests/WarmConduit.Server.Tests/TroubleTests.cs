using Microsoft.Data.Sqlite;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>Trouble with the machine: each is named on screen and in the log, nothing is lost, and work goes on when it is cured.</summary>
public class TroubleTests
{
    private static async Task Trouble(Host host, int status, string words)
    {
        var (answered, problem) = await host.Save(1, Host.Rename("Newer"));
        Assert.Equal(status, answered);
        Assert.Contains(words, (string)problem["title"]!, StringComparison.Ordinal);
        // The log is written a little after the answer.
        for (int waited = 0; waited < 100 && !host.Said.Contains(words, StringComparison.Ordinal); waited++)
            await Task.Delay(50, TestContext.Current.CancellationToken);
        Assert.Contains(words, host.Said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", host.Said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_lock_held_by_another_program_is_named_and_saving_goes_on_after_it()
    {
        await using var host = await Host.Start();
        await using (var other = new SqliteConnection($"Data Source={Path.Combine(host.Data, ShelfSetup.FileName)};Pooling=False"))
        {
            await other.OpenAsync(TestContext.Current.CancellationToken);
            await using var command = other.CreateCommand();
            command.CommandText = "BEGIN IMMEDIATE";
            await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
            await Trouble(host, 503, "Another program holds the database");
            Assert.Equal("Sparrow", (await host.Rig()).Name);
        }
        Assert.Equal(200, (await host.Save(1, Host.Rename("Newer"))).Status);
    }

    [Fact]
    public async Task The_database_file_alone_is_whole_once_the_program_has_stopped()
    {
        string data = await Host.PreparedFolder(), copy = Host.NewFolder();
        await using (var host = await Host.Start(data))
        {
            Assert.Equal(200, (await host.Save(1, Host.Rename("Newer"))).Status);
            await host.Stop();
        }
        Directory.CreateDirectory(copy);
        File.Copy(Path.Combine(data, ShelfSetup.FileName), Path.Combine(copy, ShelfSetup.FileName));
        await using var again = await Host.Start(copy);
        Assert.Equal("Newer", (await again.Rig()).Name);
    }

    [Fact]
    public async Task A_log_that_is_missing_or_of_another_database_is_named_and_not_opened()
    {
        string file = ShelfSetup.FileName, log = file + "-wal";
        void Put(string name, string from, string to) => File.Copy(Path.Combine(from, name), Path.Combine(to, name), overwrite: true);
        string one = await Host.PreparedFolder(), another = await Host.PreparedFolder();
        foreach (string data in (string[])[one, another])
        {
            await using var host = await Host.Start(data);
            Assert.Equal(200, (await host.Save(1, Host.Rename(data == one ? "One" : "Another"))).Status);
            host.Kill();
        }

        // Copied without its log, and with another's.
        string copy = Host.NewFolder();
        Directory.CreateDirectory(copy);
        Put(file, one, copy);
        byte[] before = await File.ReadAllBytesAsync(Path.Combine(copy, file), TestContext.Current.CancellationToken);
        await using var there = await Host.Start(copy);
        await Trouble(there, 503, $"{log}, is missing");
        Put(log, another, copy);
        await Trouble(there, 503, $"{log} belongs to another database");
        Assert.Equal(before, await File.ReadAllBytesAsync(Path.Combine(copy, file), TestContext.Current.CancellationToken));

        // With its own, what was saved is there; and a file at rest does not take a log that was left by its own later life either.
        Put(log, one, copy);
        Assert.Equal("One", (await there.Rig()).Name);
        await there.Stop();
        Assert.False(File.Exists(Path.Combine(copy, log)));
        byte[] rested = await File.ReadAllBytesAsync(Path.Combine(copy, file), TestContext.Current.CancellationToken);
        await using (var later = await Host.Start(copy))
        {
            await later.Save(2, Host.Rename("Later"));
            later.Kill();
        }
        await File.WriteAllBytesAsync(Path.Combine(copy, file), rested, TestContext.Current.CancellationToken);
        await using var back = await Host.Start(copy);
        await Trouble(back, 503, $"{log} belongs to another database");
        // An empty log says that the file alone is wanted.
        await File.WriteAllBytesAsync(Path.Combine(copy, log), [], TestContext.Current.CancellationToken);
        Assert.Equal("One", (await back.Rig()).Name);
    }

    [Fact]
    public async Task A_second_program_on_one_folder_is_refused_by_name_and_a_database_put_in_its_place_is_noticed()
    {
        await using var host = await Host.Start();
        await using (var second = await Host.Start(host.Data))
            Assert.Contains("Another Warm Conduit serves the data folder", (string)(await second.Save(1, Host.Rename("No"))).Body["title"]!,
                StringComparison.Ordinal);
        Assert.Equal(200, (await host.Save(1, Host.Rename("Newer"))).Status);

        await using var other = await Host.Start();
        Assert.Equal(200, (await other.Save(1, Host.Rename("Another"))).Status);
        await other.Stop();
        string here = Path.Combine(host.Data, ShelfSetup.FileName), fresh = here + ".new";
        File.Copy(Path.Combine(other.Data, ShelfSetup.FileName), fresh);
        foreach (string ending in (string[])["-wal", "-shm"]) File.Delete(here + ending);
        File.Move(fresh, here, overwrite: true);
        // What is read now, and what is saved, is of the new file; of the old one nothing comes back.
        Assert.Equal("Another", (await host.Rig()).Name);
        Assert.Equal(200, (await host.Save(2, Host.Rename("Newest"))).Status);
        host.Kill();
        await using var then = await Host.Start(host.Data);
        Assert.Equal("Newest", (await then.Rig()).Name);
    }

    [Fact]
    public async Task A_full_disk_is_named_and_what_was_saved_before_stands()
    {
        await using var host = await Host.Start();
        int revision = 1;
        // A limit on the size of files stands in for a full disk: 400 kB, and the signal that goes with it ignored.
        host.Kill();
        await using var tight = await Host.Start(host.Data, "trap '' XFSZ; export DOTNET_EnableWriteXorExecute=0; ulimit -f 400");
        (int Status, System.Text.Json.Nodes.JsonNode Body) answer;
        do
        {
            answer = await tight.Save(revision, new Core.Rigs.Edits.ChangeThing("rig",
                new() { ["note"] = $"{revision} {new string((char)('a' + revision % 26), 1900)}" }));
            if (answer.Status == 200) revision = (int)answer.Body["revision"]!;
        }
        while (answer.Status == 200 && revision < 500);
        Assert.Equal(507, answer.Status);
        Assert.Contains("full", (string)answer.Body["title"]!, StringComparison.Ordinal);
        tight.Kill();
        await using var cured = await Host.Start(host.Data);
        Assert.Equal(revision, (int)(await cured.Get("/api/rigs/sparrow"))["revision"]!);
        Assert.Equal(200, (await cured.Save(revision, Host.Rename("Newer"))).Status);
    }

    [Fact]
    public async Task A_damaged_database_is_named_left_as_it_is_and_work_goes_on_with_a_copy_from_a_backup()
    {
        string data = await Host.PreparedFolder();
        string file = Path.Combine(data, ShelfSetup.FileName);
        await using (var good = await Host.Start(data))
        {
            await good.Save(1, Host.Rename("Backed up"));
            await good.Stop();
        }
        byte[] backup = await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken);
        byte[] damaged = [.. Enumerable.Repeat((byte)7, backup.Length)];
        await File.WriteAllBytesAsync(file, damaged, TestContext.Current.CancellationToken);
        await using var host = await Host.Start(data);
        await Trouble(host, 503, "damaged");
        Assert.Equal(damaged, await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken));
        await File.WriteAllBytesAsync(file, backup, TestContext.Current.CancellationToken);
        Assert.Contains((await host.Get("/api/rigs"))["rigs"]!.AsArray(), r => (string)r!["id"]! == "sparrow");
        host.Kill();
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_data_folder_that_cannot_be_made_is_named_until_it_can()
    {
        string parent = Host.NewFolder(), blocked = Path.Combine(parent, "data");
        await File.WriteAllTextAsync(blocked, "a file where the folder should be", TestContext.Current.CancellationToken);
        await using var host = await Host.Start(blocked);
        var (status, problem) = await host.Save(1, Host.Rename("x"));
        Assert.Equal(503, status);
        Assert.Contains("folder", (string)problem["title"]!, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", host.Said, StringComparison.Ordinal);
        File.Delete(blocked);
        Assert.Equal(200, (await host.Save(1, Host.Rename("x"))).Status);
        host.Kill();
        Directory.Delete(parent, recursive: true);
    }
}
