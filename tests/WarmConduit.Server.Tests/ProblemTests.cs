using System.Text;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Tests;

/// <summary>What users can send wrong, and what they are told.</summary>
public class ProblemTests
{
    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    [Fact]
    public async Task Studies_answer_statelessly_and_alike()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        var conditions = Conditions.Of(rig.Brief);
        var (_, bench) = await host.Send(HttpMethod.Post, "/api/studies/bench", new { rig, conditions });
        var (_, drain) = await host.Send(HttpMethod.Post, "/api/studies/drain-down", new { rig, parked = conditions.Parked });
        var (_, ladder) = await host.Send(HttpMethod.Post, "/api/studies/freeze-ladder", new { rig, conditions });
        Assert.True(JsonNode.DeepEquals(bench["drain"], drain));
        Assert.True(JsonNode.DeepEquals(bench["ladder"], ladder));
        Assert.Equal(1, (int)(await host.Get("/api/rigs/sparrow"))["shelved"]!["revision"]!);
    }

    [Fact]
    public async Task Every_refusal_names_its_field_and_changes_nothing()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig();
        var conditions = Conditions.Of(rig.Brief);
        async Task Refused(string field, string path, object body, HttpMethod? method = null)
        {
            var (status, problem) = await host.Send(method ?? HttpMethod.Post, path, body);
            Assert.Equal(400, status);
            Assert.True(problem["errors"]!.AsObject().ContainsKey(field), problem.ToJsonString());
        }
        await Refused("conditions.outdoorC", "/api/studies/bench", new { rig, conditions = conditions with { OutdoorC = -300 } });
        await Refused("parked.pitchDeg", "/api/studies/drain-down", new { rig, parked = new { pitchDeg = 80, rollDeg = 0 } });
        await Refused("rig.runs[0].pipe", "/api/studies/bench", new { rig = rig with { Runs = [rig.Runs[0] with { Pipe = "bamboo" }, .. rig.Runs.Skip(1)] }, conditions });
        await Refused("rig.runs[1]", "/api/studies/bench", new { rig = rig with { Runs = [rig.Runs[0], null!] }, conditions });
        await Refused("rig.runs", "/api/studies/bench", Json("""{"rig":{"formatVersion":1,"id":"x","name":"x","note":"","runs":3},"conditions":null}"""));
        await Refused("what", "/api/rigs/sparrow", new { baseRevision = 1, what = "", rig }, HttpMethod.Put);
        await Refused("rig.id", "/api/rigs/sparrow", new { baseRevision = 1, what = "x", rig = rig with { Id = "other" } }, HttpMethod.Put);
        await Refused("formatVersion", "/api/rigs", Json("""{"formatVersion":7}"""));
        await Refused("text", "/api/units/parse", new { text = "12 parsecs", quantity = "length", system = "metric" });
        Assert.Single((await host.Get("/api/rigs/sparrow/revisions")).AsArray());
    }

    [Fact]
    public async Task Nothing_that_is_sent_makes_a_500()
    {
        await using var host = await Host.Start();
        string rig = RigFile.Write(await host.Rig());
        string[] bodies =
        [
            "", "null", "[]", "{", "{}", "\"text\"", "{\"rig\":null,\"conditions\":null}", "{\"text\":null}", "{\"baseRevision\":\"a\"}", "{\"baseRevision\":99999999999}",
            rig, rig.Replace("0.36", "1e999", StringComparison.Ordinal), new string('[', 100), $"{{\"rig\":{rig},\"conditions\":{{}}}}",
        ];
        string[] paths =
        [
            "POST /api/rigs", "PUT /api/rigs/sparrow", "PUT /api/rigs/nowhere", "POST /api/rigs/sparrow/undo", "POST /api/rigs/%2e%2e/redo", "POST /api/studies/bench",
            "POST /api/studies/drain-down", "POST /api/studies/freeze-ladder", "POST /api/units/parse", "DELETE /api/rigs/none", "GET /api/rigs/none", "GET /api/rigs/sparrow/revisions/99",
            "GET /api/rigs/x/file", "GET /api/nothing", "PATCH /api/rigs", "GET /api/rigs/%0A",
        ];
        foreach (string path in paths)
        {
            foreach (string body in bodies)
            {
                var parts = path.Split(' ');
                using var answer = await host.Http.SendAsync(new HttpRequestMessage(new HttpMethod(parts[0]), parts[1]) { Content = Json(body) });
                Assert.True((int)answer.StatusCode < 500, $"{path} {body[..Math.Min(40, body.Length)]}: {answer.StatusCode}");
                if ((int)answer.StatusCode >= 400) Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
            }
        }
        var big = Json(new string(' ', RigFile.MaxBytes + 1));
        Assert.InRange((await host.Send(HttpMethod.Post, "/api/rigs", big)).Status, 400, 413);
    }

    [Fact]
    public async Task Pages_of_other_sites_and_other_names_are_turned_away()
    {
        await using var host = await Host.Start();
        async Task<int> Status(string header, string value)
        {
            var ask = new HttpRequestMessage(HttpMethod.Get, "/api/rigs");
            ask.Headers.TryAddWithoutValidation(header, value);
            return (int)(await host.Http.SendAsync(ask)).StatusCode;
        }
        Assert.Equal(403, await Status("Host", "rigs.example"));
        Assert.Equal(403, await Status("Origin", "https://rigs.example"));
        Assert.Equal(200, await Status("Origin", "http://localhost:5173"));
    }
}
