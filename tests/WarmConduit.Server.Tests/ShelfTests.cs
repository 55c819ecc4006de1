using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Server.Tests;

/// <summary>Rigs come onto the shelf, are edited from several windows, and go.</summary>
public class ShelfTests
{
    private const string Bend = "runs/kitchen-cold/bends/b2";

    private static async Task<string> NameOf(Host host) => (await host.Rig()).Name;

    private static async Task<double> BendM(Host host) => (await host.Rig()).Runs.Find("kitchen-cold")!.Bends.Find("b2")!.At.ZM;

    private static Task<(int Status, JsonNode Body)> Send(Host host, JsonNode saved) =>
        host.Post("/api/rigs/sparrow/edits", new { @base = (int)saved["revision"]!, edits = saved["inverse"] });

    [Fact]
    public async Task The_demo_rigs_lie_on_a_new_shelf_with_their_verdict_and_only_once()
    {
        await using var host = await Host.Start();
        var cards = (await host.Get("/api/rigs"))["rigs"]!.AsArray();
        Assert.Equal([("lantern", 1, "Lantern"), ("sparrow", 1, "Sparrow"), ("tern", 1, "Tern")],
            cards.Select(c => ((string)c!["id"]!, (int)c["revision"]!, (string)c["name"]!)));
        var (_, asked) = await host.Post("/api/answers", new { id = "sparrow", @base = 1, wanted = (string[])["standing"] });
        Assert.Equal(0.129, (double)asked["answers"]!["standing"]!["stays"]!["poolsL"]!, 0.001);
        host.Kill();
        await using var again = await Host.Start(host.Data);
        Assert.Equal(3, (await again.Get("/api/rigs"))["rigs"]!.AsArray().Count);
    }

    [Fact]
    public async Task Edits_make_revisions_say_what_they_did_and_can_be_taken_back_one_by_one()
    {
        await using var host = await Host.Start();
        var (status, first) = await host.Save(1, Host.Raise(Bend, 0.1));
        Assert.Equal((200, 2, 1), (status, (int)first["revision"]!, (int)first["onto"]!));
        var set = Assert.Single(first["effect"]!["set"]!.AsArray())!;
        Assert.Equal((Bend + "/at/zM", 0.21, 0.31), ((string)set["path"]!, (double)set["before"]!, (double)set["after"]!));
        var (_, second) = await host.Save(2, new RemoveThing("parts/filter"));
        var gone = second["effect"]!["removed"]!.AsArray().Select(r => (string)r!["thing"]!["id"]!).ToList();
        // What hangs on it goes with it and is listed: two runs and what was done to it by hand.
        Assert.Equal(4, gone.Count);
        Assert.Contains("filter", gone);

        // The first again, though the second stands between: they touch different things.
        var (_, undone) = await Send(host, first);
        Assert.Equal(0.21, await BendM(host), 9);
        Assert.Null((await host.Rig()).Parts.Find("filter"));
        await Send(host, second);
        Assert.Equal(RigFile.Write(RigFile.Read(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")))), RigFile.Write(await host.Rig()));
        var (_, redone) = await Send(host, undone);
        Assert.Equal(0.31, await BendM(host), 9);
        var history = (await host.Get("/api/rigs/sparrow/revisions")).AsArray();
        Assert.Equal(["Done again: Raised kitchen cold, bend 2 by {0}", "Undone: Removed filter and 2 runs joined to it",
            "Undone: Raised kitchen cold, bend 2 by {0}"],
            history.Take(3).Select(h => (string)h!["what"]!["text"]!));
        Assert.Equal("length", (string)history[0]!["what"]!["values"]![0]!["quantity"]!);
        // Back to the first state, as a new revision.
        var (back, _) = await host.Post("/api/rigs/sparrow/revisions/1/go-back", new { @base = (int)redone["revision"]! });
        Assert.Equal(200, back);
        Assert.Equal(0.21, await BendM(host), 9);
    }

    [Fact]
    public async Task Two_windows_that_touch_different_things_are_merged_and_one_thing_is_a_clash_that_keeps_both()
    {
        await using var host = await Host.Start();
        await host.Save(1, Host.Raise(Bend, 0.1));
        var (merged, answer) = await host.Save(1, Host.Raise("parts/tee-hot", 0.02));
        Assert.Equal((200, 2, 3), (merged, (int)answer["onto"]!, (int)answer["revision"]!));
        // The effect leads from the older base to the new state: the other window's edit is in it.
        Assert.Equal(2, answer["effect"]!["set"]!.AsArray().Count);

        var (status, problem) = await host.Save(2, Host.Raise("parts/tee-hot", 0.05));
        Assert.Equal((409, 3), (status, (int)problem["current"]!));
        Assert.Contains("parts/tee-hot/box/at", string.Join(' ', problem["clash"]!.AsArray().Select(c => (string)c!)));
        int kept = (int)problem["keptAs"]!;
        var (made, copy) = await host.Post($"/api/rigs/sparrow/revisions/{kept}/copy", new { });
        Assert.Equal((201, "sparrow-2", "Sparrow (2)"), (made, (string)copy["id"]!, (string)copy["rig"]!["name"]!));
        // An undo never takes back another window's edit.
        var (_, mine) = await host.Save(3, Host.Raise(Bend, 0.01));
        await host.Save((int)mine["revision"]!, Host.Raise(Bend, 0.01));
        Assert.Equal(409, (await Send(host, mine)).Status);
        // What one side refers to and the other takes away.
        int head = (int)(await host.Get("/api/rigs/sparrow"))["revision"]!;
        await host.Save(head, new RemoveThing("parts/tee-hot"));
        var run = new JsonObject
        {
            ["id"] = "new-run",
            ["name"] = "new run",
            ["service"] = "hot",
            ["pipe"] = "pex-1/2",
            ["from"] = new JsonObject { ["part"] = "tee-hot", ["port"] = "a" },
            ["to"] = new JsonObject { ["at"] = JsonNode.Parse("""{"xM":1,"yM":1,"zM":1}""") },
            ["bends"] = new JsonArray()
        };
        Assert.Equal(409, (await host.Save(head, new AddThing("runs", run))).Status);
    }

    [Fact]
    public async Task Of_many_saves_at_once_from_one_revision_all_that_touch_other_things_stand_and_one_of_those_that_do_not()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        var apart = rig.Parts.Take(12).Select(p => host.Save(1, new ChangeThing($"parts/{p.Id}", new JsonObject { ["name"] = $"{p.Name} x" })));
        var same = Enumerable.Range(0, 6).Select(n => host.Save(1, Host.Rename($"Racer {n}")));
        var answers = await Task.WhenAll([.. apart, .. same]);
        Assert.Equal(13, answers.Count(a => a.Status == 200));
        Assert.Equal(5, answers.Count(a => a.Status == 409));
        Assert.All((await host.Rig()).Parts.Take(12), p => Assert.EndsWith(" x", p.Name));
        Assert.Equal(19, (await host.Get("/api/rigs/sparrow/revisions")).AsArray().Count);
    }

    [Fact]
    public async Task A_second_window_hears_of_a_save_and_can_follow_by_the_effect_alone()
    {
        await using var host = await Host.Start();
        using var stream = await host.Http.GetStreamAsync("/api/changes");
        using var reader = new StreamReader(stream);
        Assert.Equal("event: ready", await reader.ReadLineAsync());
        await reader.ReadLineAsync();
        await host.Save(1, Host.Raise(Bend, 0.1));
        string? line;
        do line = await reader.ReadLineAsync().WaitAsync(TimeSpan.FromSeconds(20));
        while (line is not null && !line.StartsWith("data:", StringComparison.Ordinal));
        var change = JsonNode.Parse(line!["data:".Length..])!;
        Assert.Equal(("sparrow", "saved", 2), ((string)change["rigId"]!, (string)change["kind"]!, (int)change["revision"]!));
        var since = await host.Get("/api/rigs/sparrow/since/1");
        Assert.Equal(2, (int)since["revision"]!);
        Assert.Single(since["effect"]!["set"]!.AsArray());
    }

    [Fact]
    public async Task A_killed_process_loses_no_acknowledged_save()
    {
        string data = await Host.PreparedFolder();
        int acknowledged = 1;
        for (int round = 0; round < 2; round++)
        {
            await using var host = await Host.Start(data);
            var killer = Task.CompletedTask;
            try
            {
                for (int n = 0; ; n++)
                {
                    var (status, body) = await host.Save(acknowledged, Host.Rename($"Save {acknowledged}"));
                    Assert.Equal(200, status);
                    acknowledged = (int)body["revision"]!;
                    // While the saves go on, so that it falls at any moment of one.
                    if (n == 4 + round) killer = Task.Run(host.Kill);
                }
            }
            catch (Exception e) when (e is HttpRequestException or IOException)
            {
                await killer;
            }
            await using var after = await Host.Start(data);
            int found = (int)(await after.Get("/api/rigs/sparrow"))["revision"]!;
            // The one under way may have been written and not acknowledged.
            Assert.InRange(found, acknowledged, acknowledged + 1);
            if (found > 1) Assert.Equal($"Save {found - 1}", await NameOf(after));
            acknowledged = found;
        }
        Assert.True(acknowledged > 9);
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_file_goes_out_and_comes_in_again_as_a_card_of_its_own_and_an_old_one_is_brought_up_to_date()
    {
        await using var host = await Host.Start();
        byte[] file = await host.Http.GetByteArrayAsync("/api/rigs/sparrow/file");
        Assert.Equal(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")), file);
        byte[] old = File.ReadAllBytes(Path.Combine(Host.Root, "tests", "WarmConduit.Core.Tests", "Data", "sparrow-v1.json"));
        string[] names = ["Sparrow (2)", "Sparrow (3)"];
        for (int n = 0; n < 2; n++)
        {
            var content = new ByteArrayContent(n == 0 ? file : old) { Headers = { ContentType = new("application/json") } };
            var (status, added) = await host.Post("/api/rigs", content);
            Assert.Equal((201, $"sparrow-{n + 2}", names[n]), (status, (string)added["id"]!, (string)added["rig"]!["name"]!));
        }
        Assert.Equal(Rig.CurrentFormat, (await host.Rig("sparrow-3")).FormatVersion);
    }

    [Fact]
    public async Task Taking_a_rig_off_wants_its_revision_can_be_undone_and_leaves_its_id_taken()
    {
        await using var host = await Host.Start();
        await host.Save(1, Host.Rename("Newer"));
        Assert.Equal(409, (await host.Send(HttpMethod.Delete, "/api/rigs/sparrow?revision=1", null)).Status);
        Assert.Equal(400, (await host.Send(HttpMethod.Delete, "/api/rigs/sparrow", null)).Status);
        Assert.Equal(204, (await host.Send(HttpMethod.Delete, "/api/rigs/sparrow?revision=2", null)).Status);
        Assert.Equal(404, (await host.Save(2, Host.Rename("Too late"))).Status);
        var shelf = await host.Get("/api/rigs");
        Assert.DoesNotContain(shelf["rigs"]!.AsArray(), r => (string)r!["id"]! == "sparrow");
        Assert.Equal("Newer", (string)shelf["removed"]![0]!["name"]!);
        // Another rig of the same file does not take the id, so that a stale window's save cannot reach it.
        var (_, other) = await host.Post("/api/rigs", new ByteArrayContent(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")))
        {
            Headers =
            { ContentType = new("application/json") }
        });
        Assert.Equal("sparrow-2", (string)other["id"]!);
        Assert.Equal(200, (await host.Post("/api/rigs/sparrow/bring-back", new { })).Status);
        Assert.Equal("Newer", await NameOf(host));
        Assert.Equal(404, (await host.Post("/api/rigs/sparrow/bring-back", new { })).Status);
    }

    [Fact]
    public async Task Deleting_against_saving_answers_each_by_name()
    {
        await using var host = await Host.Start();
        for (int round = 0; round < 10; round++)
        {
            int head = (int)(await host.Get("/api/rigs/sparrow"))["revision"]!;
            var saves = Enumerable.Range(0, 4).Select(n => host.Save(head, Host.Raise($"parts/{(n % 2 == 0 ? "tee-hot" : "tee-main")}", 0.001)));
            var deletes = Enumerable.Range(0, 2).Select(_ => host.Send(HttpMethod.Delete, $"/api/rigs/sparrow?revision={head}", null));
            var answers = await Task.WhenAll([.. saves, .. deletes]);
            Assert.All(answers, a => Assert.True(a.Status is 200 or 204 or 404 or 409, $"{a.Status}"));
            await host.Post("/api/rigs/sparrow/bring-back", new { });
        }
    }
}
