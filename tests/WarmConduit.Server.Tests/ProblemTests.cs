using System.Text;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Tests;

/// <summary>What users can send wrong, and what they are told.</summary>
public class ProblemTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private static readonly string[] Bench = ["drainDown", "freezeLadder", "advice", "standing"];

    [Fact]
    public async Task Questions_are_answered_without_saving_alike_for_a_saved_rig_with_edits_and_for_one_sent_whole()
    {
        var host = shared.Host;
        var rig = await host.Rig();
        Edit[] edits = [Host.Raise("runs/kitchen-cold/bends/b2", 0.1)];
        var (_, saved) = await host.Post("/api/answers", new { id = "sparrow", @base = 1, edits, wanted = Bench });
        var (_, whole) = await host.Post("/api/answers", new { rig = Editor.Apply(rig, edits).Rig, wanted = Bench });
        Assert.True(JsonNode.DeepEquals(saved["answers"], whole["answers"]));
        Assert.Equal(Bench.Order(), saved["answers"]!.AsObject().Select(a => a.Key).Order());
        Assert.Equal(1, (int)(await host.Get("/api/rigs/sparrow"))["revision"]!);
        // Only what is wanted is sent, and a drag sends its edits alone.
        var (_, one) = await host.Post("/api/answers", new
        {
            id = "sparrow",
            @base = 1,
            edits,
            wanted = (string[])["rungWhy"],
            inputs = new { rungWhy = new { id = "kitchen-cold#cupboard.1" } }
        });
        Assert.Contains("minute by minute", (string)one["answers"]!["rungWhy"]!["why"]!["formula"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Utf8_is_read_however_its_name_is_written_and_what_is_said_twice_is_told()
    {
        foreach (string type in (string[])["application/json", "application/json; charset=utf-8", "application/json; charset=\"utf-8\"",
            "application/json;charset=UTF-8"])
        {
            var body = new StringContent("""{"text":"0.3","quantity":"length","system":"metric","beside":"0.25 m"}""");
            body.Headers.ContentType = System.Net.Http.Headers.MediaTypeHeaderValue.Parse(type);
            var (status, said) = await shared.Host.Post("/api/units/parse", body);
            // A bare number has the unit of what stands beside it.
            Assert.Equal((200, 0.3), (status, (double)said["value"]!));
        }
        foreach (string values in (string[])["""{"name":"a","name":"b"}""", """{"box":{"at":{"xM":1,"xM":2}}}""", """{"name":"\ud800"}"""])
        {
            var (status, said) = await shared.Host.Post("/api/rigs/sparrow/edits",
                Host.Json($$"""{"base":1,"edits":[{"kind":"change","thing":"parts/pump","values":{{values}}}]}"""));
            Assert.Equal(400, status);
            Assert.Contains("values", said["errors"]!.ToJsonString(), StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData("""{"base":1,"edits":[{"kind":"change","thing":"runs/kitchen-cold","values":{"service":"tea","pipe":7}}]}""",
        "edits[0].service", "use one of cold, hot", "edits[0].pipe", "it must be text")]
    [InlineData("""{"base":1,"edits":[{"thing":"runs/kitchen-cold"},{"kind":"turn","partId":"pump","quarterTurns":0.5}]}""",
        "edits[0]", "its 'kind' is missing or not known; use one of place", "edits[1].quarterTurns", "it must be a whole number")]
    [InlineData("""{"base":"one","edits":[{"kind":"move","things":["parts/pump",null],"by":{"xM":1,"yM":0}}],"speed":1}""",
        "base", "it must be a whole number", "edits[0].by", "it lacks 'zM'", "edits[0].things[1]", "it must be text", "speed",
        "there is no field 'speed' here")]
    [InlineData("""{"base":1,"edits":[{"kind":"fly"}]}""", "edits[0]", "its 'kind' is missing or not known; use one of place")]
    [InlineData("""{"base":1,"edits":[}""", "edits[0]", "this is not JSON that can be read (line 1")]
    public async Task All_that_is_wrong_with_a_body_is_told_at_once_at_its_fields(string body, params string[] told)
    {
        var (status, said) = await shared.Host.Post("/api/rigs/sparrow/edits", Host.Json(body));
        Assert.Equal(400, status);
        var errors = said["errors"]!.AsObject();
        Assert.Equal(told.Where((_, i) => i % 2 == 0).Order(), errors.Select(e => e.Key).Order());
        for (int i = 0; i < told.Length; i += 2) Assert.StartsWith(told[i + 1], (string)errors[told[i]]![0]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Told_as_what_differs_from_the_base_an_answer_is_the_same_and_short()
    {
        var host = shared.Host;
        var large = SizedRigs.Times(await host.Rig(), 4) with { Id = "four" };
        Assert.Equal(201, (await host.Post("/api/rigs", large)).Status);
        var (_, held) = await host.Post("/api/answers", new { id = "four", @base = 1, wanted = Bench });
        // Raising changes a pool; a new name moves things in lists; a drain takes findings away.
        foreach (Edit[] edits in (Edit[][])[[Host.Raise("runs/kitchen-cold/bends/b2", 0.1)],
            [new ChangeThing("parts/grey-tank", new JsonObject { ["name"] = "Aaa" })], [new RemoveThing("runs/kitchen-cold")]])
        {
            var (_, whole) = await host.Post("/api/answers", new { id = "four", @base = 1, edits, wanted = Bench });
            var (_, told) = await host.Post("/api/answers", new { id = "four", @base = 1, edits, wanted = Bench, since = 1 });
            Assert.Empty(told["answers"]!.AsObject());
            Assert.True(told.ToJsonString().Length < whole.ToJsonString().Length / 4);
            foreach (string name in Bench)
                Assert.True(JsonNode.DeepEquals(whole["answers"]![name], Changed(held["answers"]![name]!, told["changed"]![name]!)), name);
        }
        static JsonObject Changed(JsonNode held, JsonNode change)
        {
            var made = held.DeepClone().AsObject();
            foreach (var (field, value) in change["values"]!.AsObject()) made[field] = value?.DeepClone();
            foreach (var (field, stretches) in change["lists"]!.AsObject())
                made[field] = new JsonArray([.. stretches!.AsArray().SelectMany(s => (int)s!["count"]! is > 0 and int count
                    ? held[field]!.AsArray().Skip((int)s["from"]!).Take(count).Select(i => i!.DeepClone()) : [s["item"]!.DeepClone()])]);
            return made;
        }
    }

    [Fact]
    public async Task Every_refusal_names_its_field_and_changes_nothing()
    {
        var host = shared.Host;
        var rig = await host.Rig();
        var conditions = Conditions.Of(rig.Brief);
        async Task Refused(string field, string path, object body)
        {
            var (status, problem) = await host.Post(path, body);
            Assert.Equal(400, status);
            Assert.True(problem["errors"]!.AsObject().ContainsKey(field), problem.ToJsonString());
            Assert.DoesNotContain("isFinalBlock", problem.ToJsonString(), StringComparison.Ordinal);
        }
        Task Ask(string field, object question) => Refused(field, "/api/answers", question);
        string[] wanted = ["standing"];
        await Ask("conditions.outdoorC", new { rig, wanted, conditions = conditions with { OutdoorC = -300 } });
        await Ask("conditions.parked.pitchDeg", new { rig, wanted, conditions = conditions with { Parked = new Attitude(80, 0) } });
        await Ask("conditions.scenarioId", new { id = "sparrow", @base = 1, wanted, conditions = conditions with { ScenarioId = "party" } });
        await Ask("rig.runs[0].pipe", new { rig = rig with { Runs = [rig.Runs[0] with { Pipe = "bamboo" }, .. rig.Runs.Skip(1)] }, wanted });
        await Ask("rig.runs[1]", new { rig = rig with { Runs = [rig.Runs[0], null!] }, wanted });
        await Ask("wanted[0]", new { rig, wanted = (string[])["fortune"] });
        await Ask("wanted", new { rig, wanted = (string[])[] });
        await Ask("rig", new { wanted });
        await Refused("edits[1].things[0]", "/api/rigs/sparrow/edits", new { @base = 1, edits = (Edit[])[Host.Rename("x"), Host.Raise("parts/ghost", 1)] });
        await Refused("edits[0].values.id", "/api/rigs/sparrow/edits", new
        {
            @base = 1,
            edits = (Edit[])[new ChangeThing("parts/pump", new JsonObject { ["id"] = "x" })]
        });
        await Refused("parts/pump.holdsL", "/api/rigs/sparrow/edits", new
        {
            @base = 1,
            edits = (Edit[])[new ChangeThing("parts/pump", new JsonObject { ["holdsL"] = -4 })]
        });
        await Refused("edits[0]", "/api/rigs/sparrow/edits", Host.Json("""{"base":1,"edits":[{"kind":"explode"}]}"""));
        // An empty key would make one save of all that have it.
        foreach (string key in (string[])["", new string('k', 41)])
            await Refused("key", "/api/rigs/sparrow/edits", new { @base = 1, edits = (Edit[])[Host.Rename("x")], key });
        await Refused("edits[0]", "/api/rigs/sparrow/edits", Host.Json("""{"base":1,"edits":[{"thing":"parts/pump"}]}"""));
        await Refused("edits[0]", "/api/rigs/sparrow/edits", Host.Json("""{"base":1,"edits":[null]}"""));
        await Refused("base", "/api/rigs/sparrow/edits", Host.Json("""{"base":1,"base":1,"edits":[]}"""));
        await Refused("formatVersion", "/api/rigs", Host.Json("""{"formatVersion":7}"""));
        await Refused("formatVersion", "/api/rigs", Host.Json("{\"formatVersion\":\"\\ud800\"}"));
        await Refused("file", "/api/rigs", Host.Json("{"));
        await Refused("text", "/api/units/parse", new { text = "12 parsecs", quantity = "length", system = "metric" });
        await Refused("text", "/api/units/parse", new { text = "1,200 mm", quantity = "length", system = "metric" });
        Assert.Single((await host.Get("/api/rigs/sparrow/revisions")).AsArray());
    }

    [Fact]
    public async Task Only_our_own_pages_are_answered_and_only_json_in_utf_8_is_read()
    {
        var host = shared.Host;
        string self = host.Http.BaseAddress!.GetLeftPart(UriPartial.Authority);
        async Task<int> Status(string header, string value, HttpMethod? method = null, HttpContent? content = null)
        {
            using var ask = new HttpRequestMessage(method ?? HttpMethod.Get, method is null ? "/api/rigs" : "/api/rigs/sparrow/edits") { Content = content };
            ask.Headers.TryAddWithoutValidation(header, value);
            using var answer = await host.Http.SendAsync(ask);
            if ((int)answer.StatusCode >= 400) Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
            return (int)answer.StatusCode;
        }
        Assert.Equal(403, await Status("Host", "rigs.example"));
        Assert.Equal(403, await Status("Origin", "https://rigs.example"));
        // A page on another port of this machine is another site.
        Assert.Equal(403, await Status("Origin", "http://127.0.0.1:1"));
        Assert.Equal(403, await Status("Sec-Fetch-Site", "cross-site"));
        Assert.Equal(403, await Status("Sec-Fetch-Site", "same-site"));
        Assert.Equal(200, await Status("Origin", self));
        Assert.Equal(200, await Status("Sec-Fetch-Site", "same-origin"));
        Assert.Equal(415, await Status("X-Nothing", "1", HttpMethod.Post, new StringContent("{}", Encoding.UTF8, "text/plain")));
        Assert.Equal(415, await Status("X-Nothing", "1", HttpMethod.Post, new FormUrlEncodedContent([])));
        var bogus = new ByteArrayContent("{}"u8.ToArray());
        bogus.Headers.TryAddWithoutValidation("Content-Type", "application/json; charset=bogus");
        Assert.Equal(415, await Status("X-Nothing", "1", HttpMethod.Post, bogus));
    }

    [Fact]
    public async Task A_body_that_is_too_large_is_answered_before_the_sender_gives_up()
    {
        var host = shared.Host;
        var big = Host.Json(new string(' ', 20_000_000));
        var (status, problem) = await host.Post("/api/rigs", big);
        Assert.Equal(413, status);
        Assert.Contains("14 MB", (string)problem["title"]!, StringComparison.Ordinal);
        // Without a length it is read as far as it may be.
        using var endless = new HttpRequestMessage(HttpMethod.Post, "/api/answers") { Content = new StreamContent(new MemoryStream(new byte[7_000_000])) };
        endless.Headers.TransferEncodingChunked = true;
        endless.Content.Headers.ContentType = new("application/json");
        try
        {
            using var answer = await host.Http.SendAsync(endless);
            Assert.InRange((int)answer.StatusCode, 400, 413);
        }
        catch (HttpRequestException)
        {
            // It was cut off.
        }
        Assert.Equal("Sparrow", (await host.Rig()).Name);
    }

    [Fact]
    public async Task A_client_that_goes_away_cancels_its_work_and_too_many_at_once_wait_or_are_refused_by_name()
    {
        var host = shared.Host;
        string body = System.Text.Json.JsonSerializer.Serialize(new { rig = SizedRigs.Times(await host.Rig(), 8), wanted = Bench }, RigFile.Compact);
        var asks = Enumerable.Range(0, 120).Select(async n =>
        {
            using var gone = new CancellationTokenSource();
            // A third of them go away at once; the others are more than may wait.
            if (n % 3 == 0) gone.CancelAfter(50);
            try
            {
                using var answer = await host.Http.PostAsync("/api/answers", Host.Json(body), gone.Token);
                return (int)answer.StatusCode;
            }
            catch (OperationCanceledException)
            {
                return 0;
            }
        });
        var statuses = await Task.WhenAll(asks);
        Assert.All(statuses, s => Assert.True(s is 0 or 200 or 503, $"{s}"));
        Assert.Contains(200, statuses);
        Assert.Contains(503, statuses);
        Assert.Equal(200, (await host.Post("/api/answers", new { id = "sparrow", @base = 1, wanted = Bench })).Status);
    }
}
