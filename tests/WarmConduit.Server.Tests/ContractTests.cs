using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Server.Tests;

/// <summary>What the server says of itself, and what the front end builds on.</summary>
public class ContractTests
{
    [Fact]
    public async Task Every_address_is_described_and_says_what_it_answers_when_it_refuses()
    {
        await using var host = await Host.Start();
        var paths = (await host.Get("/openapi/v1.json"))["paths"]!.AsObject();
        string[] expected =
        [
            "/api/catalogue", "/api/rigs", "/api/rigs/{id}", "/api/rigs/{id}/file", "/api/rigs/{id}/redo", "/api/rigs/{id}/revisions", "/api/rigs/{id}/revisions/{number}",
            "/api/rigs/{id}/undo", "/api/schema/rig", "/api/studies/bench", "/api/studies/drain-down", "/api/studies/freeze-ladder", "/api/units", "/api/units/parse",
        ];
        Assert.Equal(expected, paths.Select(p => p.Key).Order());
        foreach (var (path, methods) in paths)
            foreach (var (method, operation) in methods!.AsObject())
                Assert.True(operation!["responses"]!.AsObject().ContainsKey("400"), $"{method} {path}");
        Assert.True(paths["/api/rigs/{id}"]!["put"]!["responses"]!.AsObject().ContainsKey("409"));
    }

    [Fact]
    public async Task Numbers_are_numbers_and_what_is_always_there_is_required()
    {
        await using var host = await Host.Start();
        var schemas = (await host.Get("/openapi/v1.json"))["components"]!["schemas"]!;
        Assert.Equal("number", (string)schemas["Point3"]!["properties"]!["xM"]!["type"]!);
        Assert.Equal(["xM", "yM", "zM"], schemas["Point3"]!["required"]!.AsArray().Select(n => (string)n!));
        Assert.Contains("null", schemas["Station"]!["properties"]!["levelM"]!["type"]!.ToJsonString());
    }

    [Fact]
    public async Task The_schema_of_the_rig_file_knows_the_demo_rigs_shape()
    {
        await using var host = await Host.Start();
        var schema = await host.Get("/api/schema/rig");
        Assert.Equal(1, (int)schema["properties"]!["formatVersion"]!["const"]!);
        Assert.Equal(
            ["brief", "formatVersion", "id", "name", "note", "parts", "runs", "shell"], schema["required"]!.AsArray().Select(n => (string)n!).Order());
    }

    [Theory]
    [InlineData("13 3/8 in", "length", "metric", 0.339725, "340 mm")]
    [InlineData("-4 F", "temperature", "metric", -20, "−20.0 °C")]
    [InlineData("2.07 bar", "pressure", "usCustomary", 207000, "30.0 psi")]
    [InlineData("3 gal", "volume", "metric", 11.356235, "11.4 L")]
    public async Task Quantities_are_read_in_either_system_and_printed_in_the_readers(string text, string quantity, string system, double value, string printed)
    {
        await using var host = await Host.Start();
        var (status, answer) = await host.Send(HttpMethod.Post, "/api/units/parse", new { text, quantity, system });
        Assert.Equal(200, status);
        Assert.Equal(value, (double)answer["value"]!, Math.Abs(value) * 1e-6);
        Assert.Equal(printed, (string)answer["printed"]!);
    }

    [Fact]
    public async Task The_printing_rules_cover_every_quantity_in_both_systems()
    {
        await using var host = await Host.Start();
        var rules = (await host.Get("/api/units")).AsArray().Select(r => ((string)r!["quantity"]!, (string)r["system"]!)).ToHashSet();
        foreach (var quantity in Enum.GetNames<Quantity>())
            foreach (string system in (string[])["metric", "usCustomary"])
                Assert.Contains((char.ToLowerInvariant(quantity[0]) + quantity[1..], system), rules);
    }

    [Fact]
    public async Task The_catalogue_is_served_with_its_sources()
    {
        await using var host = await Host.Start();
        var catalogue = await host.Get("/api/catalogue");
        foreach (string kind in (string[])["pipes", "solids", "parts"])
            Assert.All(catalogue[kind]!.AsArray(), item => Assert.NotEmpty((string)item!["source"]!));
        Assert.Equal("keeps its water", catalogue["parts"]!.AsArray().Any(p => (bool)p!["keepsWater"]!) ? "keeps its water" : "");
    }

    [Fact]
    public async Task Answers_carry_the_headers_that_keep_other_pages_out()
    {
        await using var host = await Host.Start();
        using var answer = await host.Http.GetAsync("/api/units");
        Assert.Contains("default-src 'self'", string.Join(' ', answer.Headers.GetValues("Content-Security-Policy")));
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.False(answer.Headers.Contains("Server"));
    }

    [Fact]
    public async Task A_rig_out_of_a_save_is_the_rig_that_went_in_to_the_letter()
    {
        await using var host = await Host.Start();
        var rig = await host.Rig() with { Note = "Ü ß 日本 \" \\ </script>" };
        var (status, saved) = await host.Send(HttpMethod.Put, "/api/rigs/sparrow", new { baseRevision = 1, what = "note", rig });
        Assert.Equal(200, status);
        Assert.Equal(rig.Note, (string)saved["rig"]!["note"]!);
        Assert.Equal(RigFile.Write(rig), await host.Http.GetStringAsync("/api/rigs/sparrow/file"));
        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(RigFile.Write(rig)), await host.Get("/api/rigs/sparrow/revisions/2") is var kept ? Without(kept) : null));
    }

    // Answers write what is null; files leave it out.
    private static JsonNode? Without(JsonNode? node)
    {
        if (node is JsonObject fields)
        {
            foreach (string name in fields.Where(f => f.Value is null).Select(f => f.Key).ToList()) fields.Remove(name);
            foreach (var (_, value) in fields) Without(value);
        }
        else if (node is JsonArray items)
        {
            foreach (var item in items) Without(item);
        }
        return node;
    }
}
