using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Server.Tests;

/// <summary>What the server says of itself, and what the front end builds on.</summary>
public class ContractTests(SharedHost shared) : IClassFixture<SharedHost>
{
    [Fact]
    public async Task Every_address_is_described_and_says_what_it_answers_when_it_refuses()
    {
        var host = shared.Host;
        var api = await host.Get("/openapi/v1.json");
        var names = new HashSet<string>();
        foreach (var (path, methods) in api["paths"]!.AsObject())
        {
            foreach (var (method, operation) in methods!.AsObject())
            {
                string at = $"{method} {path}";
                Assert.True(names.Add((string)operation!["operationId"]!), at);
                Assert.NotEmpty((string)operation["summary"]!);
                var answers = operation["responses"]!.AsObject();
                Assert.True(answers.ContainsKey("400") && answers.ContainsKey("403") && answers.ContainsKey("503"), at);
                if (operation["requestBody"] is not null)
                    Assert.True(answers.ContainsKey("413") && answers.ContainsKey("415") && answers.ContainsKey("507"), at);
                if (path.Contains("{id}", StringComparison.Ordinal) && !path.EndsWith("/revisions", StringComparison.Ordinal))
                    Assert.True(answers.ContainsKey("404"), at);
            }
        }
        Assert.True(names.IsSupersetOf(["saveEdits", "askAnswers", "listenChanges", "getShelf", "openRigFile", "bringRigBack"]));
        Assert.True(api["paths"]!["/api/rigs/{id}/edits"]!["post"]!["responses"]!.AsObject().ContainsKey("409"));
    }

    [Fact]
    public async Task Fields_are_described_with_their_units_from_the_code_and_answers_do_not_leak_the_stores_types()
    {
        var host = shared.Host;
        var schemas = (await host.Get("/openapi/v1.json"))["components"]!["schemas"]!.AsObject();
        Assert.Equal("Outdoor temperature, °C, all night; -60 to 50.", (string)schemas["Conditions"]!["properties"]!["outdoorC"]!["description"]!);
        Assert.Contains("litres", (string)schemas["DrainDownAnswer"]!["description"]! + (string)schemas["Stays"]!["description"]!, StringComparison.Ordinal);
        Assert.Equal(["EditAddThing", "EditChangeThing", "EditCopyPart", "EditDrawFaces", "EditGradeThings", "EditInsertBend", "EditInsertFragment",
            "EditMirrorPart", "EditMoveThings", "EditPlacePart", "EditPlaceSet", "EditPutTee", "EditRemoveThing", "EditResizePart", "EditRestore",
            "EditRouteRun", "EditSetPosition", "EditTurnPart"],
            schemas["Edit"]!["anyOf"]!.AsArray().Select(e => ((string)e!["$ref"]!).Split('/')[^1]).Order(StringComparer.Ordinal));
        // Every field, but for those of problem details, which a standard describes.
        Assert.Empty(schemas.Where(s => !s.Key.EndsWith("ProblemDetails", StringComparison.Ordinal))
            .SelectMany(s => (s.Value!["properties"]?.AsObject() ?? []).Where(p => p.Value!["description"] is null).Select(p => $"{s.Key}.{p.Key}")));
        Assert.DoesNotContain(schemas, s => s.Key.EndsWith("Row", StringComparison.Ordinal) || s.Key == "ShelvedRig");
    }

    [Fact]
    public async Task Numbers_are_numbers_and_what_is_always_there_is_required()
    {
        var host = shared.Host;
        var schemas = (await host.Get("/openapi/v1.json"))["components"]!["schemas"]!;
        Assert.Equal("number", (string)schemas["Point3"]!["properties"]!["xM"]!["type"]!);
        Assert.Equal(["xM", "yM", "zM"], schemas["Point3"]!["required"]!.AsArray().Select(n => (string)n!));
        Assert.Contains("null", schemas["Station"]!["properties"]!["levelM"]!["type"]!.ToJsonString());
    }

    [Fact]
    public async Task The_schema_of_the_rig_file_knows_the_demo_rigs_shape()
    {
        var host = shared.Host;
        var schema = await host.Get("/api/schema/rig");
        Assert.Equal(2, (int)schema["properties"]!["formatVersion"]!["const"]!);
        Assert.Equal(
            ["brief", "byHand", "formatVersion", "id", "name", "note", "parts", "prices", "runs", "scenarios", "shell"],
            schema["required"]!.AsArray().Select(n => (string)n!).Order());
    }

    [Theory]
    [InlineData("13 3/8 in", "length", "metric", 0.339725, "340 mm")]
    [InlineData("-4 F", "temperature", "metric", -20, "−20.0 °C")]
    [InlineData("2.07 bar", "pressure", "usCustomary", 207000, "30.0 psi")]
    [InlineData("3 gal", "volume", "metric", 11.356235, "11.4 L")]
    public async Task Quantities_are_read_in_either_system_and_printed_in_the_readers(string text, string quantity, string system, double value, string printed)
    {
        var host = shared.Host;
        var (status, answer) = await host.Send(HttpMethod.Post, "/api/units/parse", new { text, quantity, system });
        Assert.Equal(200, status);
        Assert.Equal(value, (double)answer["value"]!, Math.Abs(value) * 1e-6);
        Assert.Equal(printed, (string)answer["printed"]!);
    }

    [Fact]
    public async Task The_printing_rules_cover_every_quantity_in_both_systems()
    {
        var host = shared.Host;
        var rules = (await host.Get("/api/units")).AsArray().Select(r => ((string)r!["quantity"]!, (string)r["system"]!)).ToHashSet();
        foreach (var quantity in Enum.GetNames<Quantity>())
            foreach (string system in (string[])["metric", "usCustomary"])
                Assert.Contains((char.ToLowerInvariant(quantity[0]) + quantity[1..], system), rules);
    }

    [Fact]
    public async Task The_catalogue_is_served_with_its_sources()
    {
        var host = shared.Host;
        var catalogue = await host.Get("/api/catalogue");
        foreach (string kind in (string[])["pipes", "solids", "parts"])
            Assert.All(catalogue[kind]!.AsArray(), item => Assert.NotEmpty((string)item!["source"]!));
        Assert.Equal("keeps its water", catalogue["parts"]!.AsArray().Any(p => (bool)p!["keepsWater"]!) ? "keeps its water" : "");
    }

    [Theory]
    [InlineData("/api/units")]
    [InlineData("/api/rigs/nobody")]
    [InlineData("/nowhere/at/all.css")]
    public async Task Every_answer_errors_too_carries_the_headers_that_keep_other_pages_out(string path)
    {
        var host = shared.Host;
        using var answer = await host.Http.GetAsync(path);
        string policy = string.Join(' ', answer.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("default-src 'self'", policy, StringComparison.Ordinal);
        Assert.Contains("form-action 'self'", policy, StringComparison.Ordinal);
        string[] headers = ["X-Content-Type-Options", "Referrer-Policy", "Cross-Origin-Opener-Policy", "Cross-Origin-Resource-Policy"];
        Assert.Equal(["nosniff", "no-referrer", "same-origin", "same-origin"], headers.Select(h => answer.Headers.GetValues(h).Single()));
        Assert.False(answer.Headers.Contains("Server"));
    }

    [Fact]
    public async Task A_text_out_of_a_save_is_the_text_that_went_in_to_the_letter()
    {
        var host = shared.Host;
        const string note = "Ü ß 日本 \" \\ </script> {0}";
        var edit = new ChangeThing("rig", new JsonObject { ["note"] = note });
        Assert.Equal(200, (await host.Save(1, edit)).Status);
        var rig = await host.Rig();
        Assert.Equal(note, rig.Note);
        Assert.Equal(RigFile.Write(rig), await host.Http.GetStringAsync("/api/rigs/sparrow/file"));
    }
}
