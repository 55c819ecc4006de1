using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Tests;

public class ShelfTests
{
    private static object Save(Rig rig, int baseRevision, string name) => new { baseRevision, what = $"Named {name}", rig = rig with { Name = name } };

    private static async Task<string> NameOf(Host host) => (string)(await host.Get("/api/rigs/sparrow"))["shelved"]!["rig"]!["name"]!;

    [Fact]
    public async Task The_demo_rig_lies_on_a_new_shelf_with_its_verdict_and_only_once()
    {
        await using var host = await Host.Start();
        var cards = (await host.Get("/api/rigs")).AsArray();
        var standing = Assert.Single(cards)!["standing"]!;
        Assert.Equal(2, (int)standing["poolCount"]!);
        Assert.Equal(1, (int)cards[0]!["shelved"]!["revision"]!);
        host.Kill();
        await using var again = await Host.Start(host.Data);
        Assert.Single((await again.Get("/api/rigs")).AsArray());
    }

    [Fact]
    public async Task Saves_make_revisions_and_undo_and_redo_walk_them()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        for (int n = 1; n <= 3; n++) Assert.Equal(200, (await host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, n, $"Name {n}"))).Status);

        async Task<JsonNode> Move(string way, int from)
        {
            var (status, body) = await host.Send(HttpMethod.Post, $"/api/rigs/sparrow/{way}", new { baseRevision = from });
            Assert.Equal(200, status);
            return body;
        }
        Assert.Equal("Name 2", (string)(await Move("undo", 4))["rig"]!["name"]!);
        Assert.Equal("Name 1", (string)(await Move("undo", 3))["rig"]!["name"]!);
        Assert.Equal("Name 2", (string)(await Move("redo", 2))["rig"]!["name"]!);
        await Move("undo", 3);
        // An edit from an earlier state begins a new line; redo then has nothing to go to.
        var (_, edited) = await host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, 2, "Branch"));
        Assert.False((bool)edited["canRedo"]!);
        await Move("undo", 5);
        Assert.Equal("Branch", (string)(await Move("redo", 2))["rig"]!["name"]!);
        var history = (await host.Get("/api/rigs/sparrow/revisions")).AsArray();
        Assert.Equal(5, history.Count);
        Assert.Equal("Name 3", (string)(await host.Get("/api/rigs/sparrow/revisions/4"))["name"]!);
    }

    [Fact]
    public async Task A_save_from_an_old_revision_is_refused_with_409_and_both_are_kept()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        await host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, 1, "First"));
        var (status, problem) = await host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, 1, "Second"));
        Assert.Equal(409, status);
        Assert.Equal("First", await NameOf(host));
        Assert.Equal("Second", (string)(await host.Get($"/api/rigs/sparrow/revisions/{problem["keptAs"]}"))["name"]!);
        Assert.Equal(409, (await host.Send(HttpMethod.Post, "/api/rigs/sparrow/undo", new { baseRevision = 1 })).Status);
        Assert.False((bool)(await host.Get("/api/rigs/sparrow"))["shelved"]!["canRedo"]!);
    }

    [Fact]
    public async Task Of_many_saves_at_once_from_one_revision_exactly_one_goes_on()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        var answers = await Task.WhenAll(Enumerable.Range(0, 12).Select(n => host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, 1, $"Racer {n}"))));
        Assert.Single(answers, a => a.Status == 200);
        Assert.Equal(11, answers.Count(a => a.Status == 409));
        Assert.Equal(13, (await host.Get("/api/rigs/sparrow/revisions")).AsArray().Count);
    }

    [Fact]
    public async Task A_killed_process_loses_no_acknowledged_save()
    {
        string data = Directory.CreateTempSubdirectory("warm-conduit-").FullName;
        int acknowledged = 1;
        for (int round = 0; round < 3; round++)
        {
            await using var host = await Host.Start(data);
            var rig = await host.Rig();
            var killer = Task.CompletedTask;
            try
            {
                for (int n = 0; ; n++)
                {
                    var (status, body) = await host.Send(HttpMethod.Put, "/api/rigs/sparrow", Save(rig, acknowledged, $"Save {acknowledged}"));
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
            int found = (int)(await after.Get("/api/rigs/sparrow"))["shelved"]!["revision"]!;
            // The one under way may have been written and not acknowledged.
            Assert.InRange(found, acknowledged, acknowledged + 1);
            if (found > 1) Assert.Equal($"Save {found - 1}", await NameOf(after));
            acknowledged = found;
        }
        Assert.True(acknowledged > 15);
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_file_goes_out_and_comes_in_again_under_an_id_of_its_own()
    {
        await using var host = await Host.Start();
        byte[] file = await host.Http.GetByteArrayAsync("/api/rigs/sparrow/file");
        Assert.Equal(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")), file);
        var content = new ByteArrayContent(file) { Headers = { ContentType = new("application/json") } };
        var (status, added) = await host.Send(HttpMethod.Post, "/api/rigs", content);
        Assert.Equal(201, status);
        Assert.Equal("sparrow-2", (string)added["rig"]!["id"]!);
        Assert.Equal(204, (await host.Send(HttpMethod.Delete, "/api/rigs/sparrow-2", null)).Status);
        Assert.Equal(404, (await host.Send(HttpMethod.Delete, "/api/rigs/sparrow-2", null)).Status);
    }
}
