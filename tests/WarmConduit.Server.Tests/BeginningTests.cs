using System.Net;
using System.Text.Json.Nodes;

namespace WarmConduit.Server.Tests;

/// <summary>New rigs, tables and steps in words, over HTTP.</summary>
public class BeginningTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private static object Ask(string name = "Hedge", double length = 3.7, string? body = "long-van", string? starter = "weekend-drain") =>
        new { name, lengthM = length, widthM = 1.75, heightM = 1.9, living = "weekends", school = "drain", body, starter };

    [Fact]
    public async Task A_draft_is_the_rig_that_is_then_made()
    {
        var host = shared.Host;
        var starts = await host.Get("/api/starts");
        Assert.Equal(starts["bodies"]!.AsArray().Count, starts["shapes"]!.AsArray().Count);
        var (drafted, draft) = await host.Post("/api/starts/draft", Ask());
        Assert.Equal(200, drafted);
        int before = (await host.Get("/api/rigs"))["rigs"]!.AsArray().Count;
        var (made, open) = await host.Post("/api/starts", Ask());
        Assert.Equal((201, before + 1), (made, (await host.Get("/api/rigs"))["rigs"]!.AsArray().Count));
        Assert.True(JsonNode.DeepEquals(draft["parts"], open["rig"]!["parts"]));
        // One of that name again has an id and a name of its own.
        var (_, second) = await host.Post("/api/starts", Ask());
        Assert.NotEqual((string)open["id"]!, (string)second["id"]!);
    }

    [Theory]
    [InlineData("", 3.7, "long-van", null, "name")]
    [InlineData("Hedge", 30, "long-van", null, "lengthM")]
    [InlineData("Hedge", 3.7, "balloon", null, "body")]
    [InlineData("Hedge", 3.7, null, "weekend-drain", "starter")]
    public async Task What_cannot_be_made_is_told_at_its_field(string name, double length, string? body, string? starter, string field)
    {
        foreach (string path in (string[])["/api/starts", "/api/starts/draft"])
        {
            var (status, problem) = await shared.Host.Post(path, Ask(name, length, body, starter));
            Assert.Equal((400, field), (status, problem["errors"]!.AsObject().Single().Key));
        }
    }

    [Fact]
    public async Task A_table_goes_out_and_comes_back_and_rubbish_is_told()
    {
        var host = shared.Host;
        string csv = await host.Http.GetStringAsync(new Uri("/api/rigs/sparrow/parts.csv", UriKind.Relative));
        var (status, read) = await host.Post("/api/rigs/sparrow/table", new { @base = 1, text = csv, system = "metric" });
        Assert.Equal((200, 0), (status, read["faults"]!.AsArray().Count));
        var (answered, _) = await host.Post("/api/answers", new { id = "sparrow", @base = 1, edits = read["edits"], wanted = (string[])["drainDown"] });
        Assert.Equal(200, answered);
        foreach (string text in (string[])["", "\0\0", "name,stock\n\"", new string(',', 5000), "run\n" + new string('x', 3000),
            "name,stock,from rear\n" + string.Concat(Enumerable.Repeat("a,b,c\n", 500))])
            Assert.Equal(200, (await host.Post("/api/rigs/sparrow/table", new { @base = 1, text, system = "usCustomary" })).Status);
        Assert.Equal(404, (await host.Post("/api/rigs/nowhere/table", new { @base = 1, text = "", system = "metric" })).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await host.Http.GetAsync(new Uri("/api/rigs/nowhere/runs.csv", UriKind.Relative))).StatusCode);
    }

    [Fact]
    public async Task A_step_in_words_is_read_or_told_where_it_is_not_understood()
    {
        object Step(string text) => new
        {
            text,
            from = new { xM = 2, yM = 0, zM = 0.5 },
            towards = new { xM = 1, yM = 0, zM = 0.5 },
            obstacles = (object[])[],
            ports = (object[])[],
            system = "metric"
        };
        var (status, read) = await shared.Host.Post("/api/units/step", Step("rear 1 m, fall 2 %"));
        Assert.Equal((200, 0.48), (status, (double)read["at"]!["zM"]!));
        var (refused, problem) = await shared.Host.Post("/api/units/step", Step("rear lots"));
        Assert.Equal(400, refused);
        Assert.Contains("rear", (string)problem["errors"]!["text"]![0]!, StringComparison.Ordinal);
        Assert.Equal(400, (await shared.Host.Post("/api/units/step", Step(new string('9', 200)))).Status);
    }
}
