using System.Text;
using System.Text.Json.Nodes;

namespace WarmConduit.Server.Tests;

/// <summary>Documents and requests that are nearly right: one or a few things in them spoilt. The same seed makes the same ones.</summary>
internal sealed class Fuzz(int seed)
{
    private static readonly string[] Files = [.. new[] { "demo/sparrow.json", "tests/WarmConduit.Core.Tests/Data/sparrow-v1.json" }.Select(f =>
        File.ReadAllText(Path.Combine(Host.Root, f)))];

    private static readonly string[] Odd =
    [
        "null", "0", "-0", "-1", "1e308", "-1e308", "1e-320", "9999999999999999999", "true", "[]", "{}", "\"\"", "\"x\"", "\"a/b\"", "\"sparrow\\n\"",
        "\"#lone#\"", "\"{0}\"", "[null]", "[[]]", "{\"id\":null}",
        "1.5", "\"open\"", "\"1\"", "29", "\"runs/kitchen-cold\"", "\"../x\"", "\"\\u0000\"",
    ];

    private readonly Random _random = new(seed);

    /// <summary>A rig file with one to four places spoilt.</summary>
    public string Document()
    {
        var root = JsonNode.Parse(Pick(Files))!;
        for (int n = _random.Next(1, 5); n > 0; n--) Spoil(root);
        return Broken(root.ToJsonString());
    }

    /// <summary>Edits, right or nearly so, on a rig.</summary>
    public string Edits(int @base)
    {
        var edits = new JsonArray();
        for (int n = _random.Next(1, 4); n > 0; n--) edits.Add(JsonNode.Parse(Edit()));
        var root = new JsonObject { ["base"] = @base, ["edits"] = edits };
        if (_random.Next(3) > 0) Spoil(root);
        return Broken(root.ToJsonString());
    }

    /// <summary>A question, right or nearly so.</summary>
    public string Question(int @base)
    {
        var root = new JsonObject
        {
            ["wanted"] = new JsonArray("drainDown", "freezeLadder", "advice", "standing", "rungWhy"),
            ["edits"] = new JsonArray(JsonNode.Parse(Edit())),
            ["inputs"] = JsonNode.Parse("""{ "rungWhy": { "id": "pump" } }""")
        };
        if (_random.Next(2) == 0) root["rig"] = JsonNode.Parse(Files[0]);
        else (root["id"], root["base"]) = ("sparrow", @base);
        if (_random.Next(2) == 0)
            root["conditions"] = JsonNode.Parse("""{"outdoorC":-9,"windMPerS":4,"heatOn":true,"startWaterC":12,"water":"wet","startHour":22,"hours":8,"parked":{"pitchDeg":1,"rollDeg":-1},"tankLevels":[{"id":"tank","share":0.5}]}""");
        if (_random.Next(4) > 0) Spoil(root);
        return Broken(root.ToJsonString());
    }

    /// <summary>Words half typed, and places beyond all measure.</summary>
    public (string Path, object Body) Words(int @base)
    {
        string text = Pick("place ball valve 15 mm at 1, 2, 3 joining pump out", "at 4.2 m, 0.2; 1e308", "to pump out", "rear 300 m fall 2 %",
            "place at 1, 2, 3");
        text = text[_random.Next(3)..][.._random.Next(1, text.Length - 2)];
        object Far() => new { xM = Pick(0, 1, 1e308, -1e308), yM = Pick(0, 1e308), zM = Pick(0.5, -1e308) };
        return _random.Next(2) == 0
            ? ("/api/rigs/sparrow/words", new { @base, text, system = Pick("metric", "usCustomary"), partId = "p1", runId = "r1" })
            : ("/api/units/step", new { text, from = Far(), towards = Far(), obstacles = (object[])[], ports = (object[])[], system = "metric" });
    }

    private string Edit()
    {
        string part = Pick("pump", "tank", "filter", "tee-hot", "mixer", "ghost"), run = Pick("kitchen-cold", "cold-main", "ghost"),
            bend = Pick("b1", "b2", "b9"), id = $"n{_random.Next(1_000_000)}";
        string at = $$"""{"xM":{{_random.Next(-3, 4)}},"yM":{{_random.NextDouble()}},"zM":{{_random.NextDouble()}}}""";
        return Pick(
            $$"""{"kind":"place","partId":"{{id}}","stock":"{{Pick("tee", "pump", "tank", "cup")}}","name":"new","at":{{at}}}""",
            $$"""{"kind":"move","things":["parts/{{part}}","runs/{{run}}/bends/{{bend}}"],"by":{{at}}}""",
            $$"""{"kind":"turn","partId":"{{part}}","quarterTurns":{{_random.Next(-5, 9)}}}""",
            $$"""{"kind":"mirror","partId":"{{part}}","axis":"{{Pick("x", "y", "z")}}"}""",
            $$"""{"kind":"copy","partId":"{{part}}","newId":"{{id}}","name":"copy","by":{{at}}}""",
            $$"""{"kind":"change","thing":"parts/{{part}}","values":{"name":"{0} {{id}}","holdsL":{{_random.Next(-1, 30)}} } }""",
            $$"""{"kind":"change","thing":"{{Pick("brief", "rig", "shell", "shell/zones/garage", "runs/" + run, "nothing/x")}}","values":{"{{Pick("name", "people", "leastFall", "bends", "box", "to")}}":{{Pick(Odd)}} } }""",
            $$"""{"kind":"remove","thing":"{{Pick("parts/" + part, "runs/" + run, "shell/zones/garage", "scenarios/drain", "shell", "parts", $"runs/{run}/bends/{bend}", $"parts/{part}/ports/in")}}"}""",
            $$"""{"kind":"add","list":"{{Pick("parts", "runs", "shell/zones", "shell/keepOuts", "prices", "scenarios", "shell/zones/garage/openings", "shell/zones/garage/faces/floor/layers", "x")}}","value":{"id":"{{id}}","name":"n","box":{"at":{{at}},"size":{"xM":1,"yM":1,"zM":1} },"kind":"electrics"} }""",
            $$"""{"kind":"insertBend","runId":"{{run}}","bend":{"id":"{{id}}","at":{{at}}},"after":{{Pick("null", $"\"{bend}\"")}}}""",
            $$"""{"kind":"tee","runId":"{{run}}","after":{{Pick("null", $"\"{bend}\"")}},"at":{{at}},"teeId":"{{id}}","teeName":"tee","newRunId":"{{id}}-r"}""",
            $$"""{"kind":"route","runId":"{{run}}","bends":[{"id":"q","at":{{at}}}]}""",
            $$"""{"kind":"setPosition","scenarioId":"{{Pick("drain", "in-use", "x")}}","partId":"{{part}}","position":{{Pick("null", "\"open\"", "\"on\"", "\"half-open\"")}}}""",
            $$"""{"kind":"restore","what":{"text":"{0} {","values":[]},"effect":{"set":[{"path":"{{Pick($"parts/{part}/name", "name", "brief/people", $"runs/{run}/bends/#order", "parts", "x/y", "shell/zones/garage/box/at/xM")}}","before":null,"after":{{Pick(Odd)}} }],"added":[],"removed":[]} }""",
            $$"""{"kind":"restore","what":{"text":"t","values":[]},"effect":{"set":[{"path":"{{Pick($"runs/{run}/bends", $"parts/{part}/ports", "shell/zones/garage/faces", "shell/zones")}}","before":null,"after":[{{Pick(Odd)}},{"id":{{Pick(Odd)}} }] },{"path":"{{Pick($"runs/{run}/bends/#order", $"runs/{run}/bends/{bend}/at/zM")}}","before":null,"after":{{Pick("[\"b1\",3,{}]", "1")}} }],"added":[],"removed":[{"list":"{{Pick("parts", $"runs/{run}/bends")}}","thing":{"id":{{Pick("\"pump\"", "\"b1\"", "7")}} } }] } }""");
    }

    // A value anywhere becomes an odd one, goes, comes twice, or changes places.
    private void Spoil(JsonNode root)
    {
        var places = new List<(JsonNode Holder, string? Field, int Index)>();
        Collect(root, places);
        if (places.Count == 0) return;
        var (holder, field, index) = places[_random.Next(places.Count)];
        var odd = JsonNode.Parse(Pick(Odd));
        if (holder is JsonObject fields)
        {
            if (_random.Next(4) == 0) fields.Remove(field!);
            else if (_random.Next(6) == 0) fields["colour"] = odd;
            else fields[field!] = odd;
        }
        else if (holder is JsonArray list)
        {
            if (_random.Next(3) == 0) list.RemoveAt(index);
            else if (_random.Next(2) == 0) list.Add(list[index]?.DeepClone());
            else list[index] = odd;
        }
    }

    private static void Collect(JsonNode? node, List<(JsonNode, string?, int)> places)
    {
        if (node is JsonObject fields)
        {
            foreach (var (name, value) in fields)
            {
                places.Add((fields, name, 0));
                Collect(value, places);
            }
        }
        else if (node is JsonArray list)
        {
            for (int i = 0; i < list.Count; i++)
            {
                places.Add((list, null, i));
                Collect(list[i], places);
            }
        }
    }

    // Now and then the text itself is cut or a letter changes.
    private string Broken(string text)
    {
        // Half a character, which the writer would not write.
        text = text.Replace("#lone#", "\\ud800", StringComparison.Ordinal);
        // A field that comes twice: the reader may find it out late.
        if (_random.Next(10) == 0 && text.IndexOf("\"name\":", StringComparison.Ordinal) is > 0 and var twice) text = text.Insert(twice, "\"name\":\"x\",");
        if (_random.Next(12) == 0) return text[.._random.Next(text.Length)];
        if (_random.Next(12) > 0) return text;
        var letters = new StringBuilder(text);
        letters[_random.Next(letters.Length)] = (char)_random.Next(1, 0x250);
        return letters.ToString();
    }

    private T Pick<T>(params T[] of) => of[_random.Next(of.Length)];
}

/// <summary>What users and their programs may send: nothing makes a 500, and what is refused changes nothing.</summary>
public class FuzzTests
{
    [Fact]
    public async Task Documents_edits_and_questions_by_chance_never_make_a_500_and_what_is_refused_changes_nothing()
    {
        await using var host = await Host.Start();
        var counts = await Run(host, 2026, 700);
        // The test is worth something only while a good part of it gets in.
        Assert.InRange(counts[200] + counts.GetValueOrDefault(201), 47, 665);
        Assert.Equal(0, counts.Where(c => c.Key >= 500).Sum(c => c.Value));
    }

    /// <summary>Sends so many requests; answers how many came back with each status.</summary>
    internal static async Task<Dictionary<int, int>> Run(Host host, int seed, int many)
    {
        var fuzz = new Fuzz(seed);
        var counts = new Dictionary<int, int>();
        var before = await State(host);
        for (int n = 0; n < many; n++)
        {
            int head = before.Revision;
            var (path, body) = (n % 3) switch
            {
                0 => ("/api/rigs", fuzz.Document()),
                1 => ("/api/rigs/sparrow/edits", fuzz.Edits(head)),
                _ => ("/api/answers", fuzz.Question(head)),
            };
            var (status, said) = await host.Post(path, Host.Json(body));
            counts[status] = counts.GetValueOrDefault(status) + 1;
            Assert.True(status < 500, $"{n}: {path} {status} {said.ToJsonString()} for {body[..Math.Min(body.Length, 3000)]}");
            if (n % 5 == 0)
            {
                var (asked, words) = fuzz.Words(head);
                Assert.True((await host.Post(asked, words)).Status < 500, $"{asked} {System.Text.Json.JsonSerializer.Serialize(words)}");
            }
            if (status == 201) await host.Send(HttpMethod.Delete, $"/api/rigs/{said["id"]}?revision=1", null);
            var after = n % 3 == 1 || n % 50 == 0 ? await State(host) : before;
            if (status >= 400) Assert.Equal(before, after);
            else if (n % 3 == 1) Assert.True(after.Revision > before.Revision);
            // Back to where it was, so that there is always something to spoil.
            if (after.Revision > 1 && n % 30 == 1) await host.Post("/api/rigs/sparrow/revisions/1/go-back", new { @base = after.Revision });
            before = await State(host);
        }
        return counts;
    }

    private static async Task<(int Revision, string File)> State(Host host) =>
        ((int)(await host.Get("/api/rigs/sparrow"))["revision"]!, await host.Http.GetStringAsync("/api/rigs/sparrow/file"));
}
