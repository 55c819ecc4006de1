using System.Text.Json.Nodes;

namespace WarmConduit.Server.Tests;

/// <summary>Heating modes and what holds a night, over HTTP.</summary>
public class HeatModeTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private const string Lantern = """{ "outdoorC": -18, "windMPerS": 8, "heatOn": true, "startWaterC": 12, "water": "wet", "startHour": 22, "hours": 8, """
        + """ "parked": { "pitchDeg": 0, "rollDeg": 0 } """;

    private static JsonNode Night(string more) => JsonNode.Parse(Lantern + more + "}")!;

    private static JsonObject Asking(string wanted, string more, string inputs = "{}") => new()
    {
        ["id"] = "lantern",
        ["base"] = 1,
        ["conditions"] = Night(more),
        ["wanted"] = new JsonArray(wanted),
        ["inputs"] = JsonNode.Parse(inputs),
    };

    private async Task<JsonNode> Job(JsonObject asking)
    {
        var (status, started) = await shared.Host.Post("/api/jobs", asking);
        Assert.Equal(200, status);
        JsonNode state;
        do state = await shared.Host.Get($"/api/jobs/{started["jobId"]}");
        while (state["answers"] is null);
        return state["answers"]!["answers"]!;
    }

    [Fact]
    public async Task A_mode_of_the_answer_is_asked_with_and_its_night_is_another()
    {
        var modes = (await Job(Asking("modes", "")))["modes"]!["modes"]!.AsArray();
        var rooms = modes.First(m => (string)m!["name"]! == "Rooms alone")!;
        var (status, cold) = await shared.Host.Post("/api/answers", Asking("freezeLadder", $", \"heatSettings\": {rooms["settings"]!.ToJsonString()}"));
        Assert.Equal(200, status);
        Assert.Equal("fails", (string)cold["answers"]!["freezeLadder"]!["verdict"]!);
        var (_, warm) = await shared.Host.Post("/api/answers", Asking("freezeLadder", ", \"modeId\": \"mode-away\""));
        Assert.NotEqual("fails", (string)warm["answers"]!["freezeLadder"]!["verdict"]!);
    }

    [Theory]
    [InlineData(", \"modeId\": \"nowhere\"", "{}", "conditions.modeId")]
    [InlineData(", \"modeId\": \"drain\"", "{}", "conditions.modeId")]
    [InlineData(", \"heatSettings\": [ { \"id\": \"valve-coil\", \"position\": \"sideways\" } ]", "{}", "conditions.heatSettings[0].position")]
    [InlineData(", \"heatSettings\": [ null ]", "{}", null)]
    [InlineData("", """{ "balance": { "wishes": [ { "id": "rad-wet", "share": 0 } ] } }""", "inputs.balance.wishes[0].share")]
    [InlineData("", """{ "balance": { "wishes": [ { "id": "nobody", "share": 1 } ] } }""", "inputs.balance.wishes[0].id")]
    public async Task What_is_no_mode_and_no_share_is_refused_at_its_field_and_never_breaks(string more, string inputs, string? field)
    {
        var (status, said) = await shared.Host.Post("/api/answers", Asking("balance", more, inputs));
        Assert.Equal(400, status);
        if (field is not null) Assert.NotNull(said["errors"]![field]);
    }

    [Fact]
    public async Task What_holds_a_night_is_found_as_a_job_and_refused_at_its_field()
    {
        var (status, said) = await shared.Host.Post("/api/jobs", Asking("hold", "", """{ "hold": { "holdC": 99, "quick": true } }"""));
        Assert.Equal(400, status);
        Assert.NotNull(said["errors"]!["inputs.hold.holdC"]);
        var hold = (await Job(Asking("hold", "", """{ "hold": { "holdC": 5, "outdoorC": -25, "quick": true } }""")))["hold"]!;
        Assert.True((bool)hold["holds"]!);
        Assert.NotEmpty(hold["edits"]!.AsArray());
    }
}
