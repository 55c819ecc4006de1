using System.Text;
using System.Text.Json.Nodes;

namespace WarmConduit.Server.Tests;

/// <summary>Weather over HTTP: read from text, sent out as a table, and asked about.</summary>
public class WeatherTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private static StringContent Json(JsonNode body) => new(body.ToJsonString(), Encoding.UTF8, "application/json");

    [Fact]
    public async Task A_winter_comes_out_as_a_table_that_is_read_again_and_a_broken_one_is_told_by_line_and_column()
    {
        var host = shared.Host;
        string table = await host.Http.GetStringAsync("/api/weather/brennickQuay/3.csv");
        var (status, read) = await host.Post("/api/weather", Json(new JsonObject { ["text"] = table }));
        Assert.Equal(200, status);
        Assert.Equal(table.Trim().Split('\n').Length - 1, read["hours"]!.AsArray().Count);
        Assert.Equal(0, (int)read["missing"]!);
        foreach (var (text, where) in ((string?, string)[])[("temp,wind\n-3,2\n-4,a lot", "line 3, column 2"), ("", "line 1"), (null, "text")])
        {
            var (refused, said) = await host.Post("/api/weather", Json(new JsonObject { ["text"] = text }));
            Assert.Equal(400, refused);
            Assert.NotNull(said["errors"]![where]);
        }
        foreach (string nowhere in (string[])["brennickQuay/0.csv", "brennickQuay/10000.csv", "atlantis/1.csv"])
            Assert.InRange((int)(await host.Http.GetAsync($"/api/weather/{nowhere}")).StatusCode, 400, 404);
    }

    [Theory]
    [InlineData("""{ }""", "conditions.weather")]
    [InlineData("""{ "place": "kettleFell", "hours": [] }""", "conditions.weather")]
    [InlineData("""{ "place": "kettleFell", "day": 182 }""", "conditions.weather.day")]
    [InlineData("""{ "place": "kettleFell", "winter": -1 }""", "conditions.weather.winter")]
    [InlineData("""{ "hours": [] }""", "conditions.weather.hours")]
    [InlineData("""{ "hours": [ { "temperatureC": -900, "windMPerS": 0, "cloud": 0 } ] }""", "conditions.weather.hours[0]")]
    [InlineData("""{ "hours": [ null ] }""", null)]
    [InlineData("""{ "place": "atlantis" }""", null)]
    public async Task A_night_whose_weather_is_none_is_refused_at_its_field_and_never_breaks(string weather, string? field)
    {
        var host = shared.Host;
        var rig = (await host.Get("/api/rigs/sparrow"))["rig"]!;
        var conditions = JsonNode.Parse("""{ "outdoorC": -9, "windMPerS": 4, "heatOn": false, "startWaterC": 12, "water": "wet", "startHour": 22, "hours": 8, "parked": { "pitchDeg": 0, "rollDeg": 0 } }""")!;
        conditions["weather"] = JsonNode.Parse(weather);
        var (status, said) = await host.Post("/api/answers", Json(new JsonObject
        {
            ["rig"] = rig.DeepClone(),
            ["conditions"] = conditions,
            ["wanted"] = new JsonArray("night")
        }));
        Assert.Equal(400, status);
        if (field is not null) Assert.NotNull(said["errors"]![field]);
    }

    [Fact]
    public async Task A_night_is_answered_for_every_question_about_it()
    {
        var host = shared.Host;
        foreach (string name in (string[])["night", "limit", "guess", "season"])
        {
            var inputs = name == "season" ? JsonNode.Parse("""{ "season": { "place": "osmerPlain", "winters": 1 } }""") : null;
            var (status, said) = await host.Post("/api/answers", Json(new JsonObject
            {
                ["id"] = "sparrow",
                ["base"] = 1,
                ["wanted"] = new JsonArray(name),
                ["inputs"] = inputs
            }));
            Assert.Equal(200, status);
            Assert.NotNull(said["answers"]![name]);
        }
    }

    [Theory]
    [InlineData("""[ { "id": "a", "kind": "setBack", "atH": 1 } ]""", "conditions.events[0].holdC")]
    [InlineData("""[ { "id": "a", "kind": "away", "atH": 1 }, { "id": "b", "kind": "open", "atH": 1, "zoneId": "attic", "areaM2": 1, "heightM": 1 } ]""",
        "conditions.events[1].zoneId")]
    [InlineData("""[ { "id": "a", "kind": "drive", "atH": 5, "untilH": 2, "speedMPerS": 20 } ]""", "conditions.events[0].untilH")]
    [InlineData("""[ { "id": "a", "kind": "drive", "atH": 1e300, "speedMPerS": 20 } ]""", "conditions.events[0].atH")]
    [InlineData("""[ { "id": "a", "kind": "party", "atH": 1 } ]""", null)]
    [InlineData("""[ null ]""", null)]
    public async Task What_cannot_happen_in_a_night_is_refused_at_its_field(string events, string? field)
    {
        var conditions = JsonNode.Parse("""{ "outdoorC": -9, "windMPerS": 4, "heatOn": false, "startWaterC": 12, "water": "wet", "startHour": 22, "hours": 8, "parked": { "pitchDeg": 0, "rollDeg": 0 } }""")!;
        conditions["events"] = JsonNode.Parse(events);
        var (status, said) = await shared.Host.Post("/api/answers", Json(new JsonObject
        {
            ["id"] = "sparrow",
            ["base"] = 1,
            ["conditions"] = conditions,
            ["wanted"] = new JsonArray("night")
        }));
        Assert.Equal(400, status);
        if (field is not null) Assert.NotNull(said["errors"]![field]);
    }

    [Fact]
    public async Task Readings_are_fitted_or_told_by_line_and_column_and_advice_against_the_cold_answers()
    {
        async Task<JsonNode> Ask(string wanted, JsonNode? input)
        {
            var inputs = input is null ? null : new JsonObject { [wanted] = input };
            var (status, told) = await shared.Host.Post("/api/answers",
                Json(new JsonObject { ["id"] = "sparrow", ["base"] = 1, ["wanted"] = new JsonArray(wanted), ["inputs"] = inputs }));
            return status == 200 ? told["answers"]![wanted]! : told["errors"]!;
        }
        async Task<(int Status, JsonNode Said)> Read(string text) =>
            await shared.Host.Post("/api/thermometers", Json(new JsonObject
            {
                ["text"] = text,
                ["rooms"] = JsonNode.Parse("""[{ "id": "living", "name": "living space" }]""")
            }));
        string readings = "hour,outdoors,living space\n" + string.Join('\n',
            Enumerable.Range(0, 1500).Select(n => FormattableString.Invariant($"{n / 100.0},-5,{-5 + (20 * Math.Exp(-n / 300.0)):0.00}")));
        var (_, read) = await Read(readings);
        var fit = await Ask("calibration", new JsonObject { ["readings"] = read.DeepClone() });
        Assert.Equal(1500, fit["series"]![0]!["fitted"]!.AsArray().Count);
        Assert.True((bool)fit["figures"]![0]!["determined"]!);
        foreach (string broken in (string[])["", "hour", "hour,outdoors,living space\n\0", readings.Replace("3.00", "3,00", StringComparison.Ordinal),
            "hour;hour;hour\n1;2;3"])
            Assert.Equal(400, (await Read(broken)).Status);
        Assert.NotEmpty((await Ask("insulation", null))["options"]!.AsArray());
        Assert.Equal("tank", (string)(await Ask("places", null))["partId"]!);
        // Inputs are checked like edits, at their fields; what nothing reads is refused.
        foreach (var (wanted, input, field) in ((string, string?, string)[])
                 [
                     ("proof", null, "inputs.proof"), ("places", """{ "partId": "none" }""", "inputs.places.partId"),
                     ("season", """{ "winters": 0 }""", "inputs.season.winters"),
                     ("afterStep", """{ "steps": "x" }""", "inputs.afterStep.steps"), ("fixes", "{}", "inputs.fixes"), ("night", "{}", "inputs.night"),
                     ("calibration", """{ "readings": { } }""", "inputs.calibration.readings"),
                 ])
            Assert.NotNull((await Ask(wanted, input is null ? null : JsonNode.Parse(input)))[field]);
    }
}
