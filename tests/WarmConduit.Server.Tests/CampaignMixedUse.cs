using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Tests;

/// <summary>Part of the campaign: ten minutes as several people use it at once. Memory stays bounded, and what is small is answered beside all that is
/// large.</summary>
public class CampaignMixedUse
{
    private const long MostBytes = 500_000_000;

    [Fact(Explicit = true)]
    public async Task Mixed_use()
    {
        await using var host = await Host.Start();
        var length = Campaign.Long(TimeSpan.FromMinutes(10));
        using var end = new CancellationTokenSource(length);
        var sparrow = await host.Rig();
        foreach (var rig in (Rig[])[SizedRigs.Times(sparrow, 13), SizedRigs.Largest(sparrow)])
        {
            using var put = await host.Http.PostAsync("/api/rigs", new ByteArrayContent(RigFile.WriteCompact(rig))
            {
                Headers =
                { ContentType = new("application/json") }
            });
            put.EnsureSuccessStatusCode();
        }
        string times = $"{sparrow.Id}-times-13", largest = (string)(await host.Get("/api/rigs"))["rigs"]!.AsArray()
            .First(r => ((string)r!["id"]!).Contains("largest", StringComparison.Ordinal))!["id"]!;
        var conditions = (await host.Post("/api/answers", JsonNode.Parse("""{ "id": "lantern", "base": 1, "wanted": ["tanks"] }""")!)).Body["conditions"]!;
        long peak = 0, asked = 0;
        var small = new List<double>();

        async Task Until(Func<int, Task> once)
        {
            for (int n = 0; !end.IsCancellationRequested; n++) await once(n);
        }
        async Task<int> Ask(string id, string[] wanted, JsonNode? night, JsonNode? edits = null)
        {
            var ask = new JsonObject
            {
                ["id"] = id,
                ["base"] = 1,
                ["wanted"] = new JsonArray([.. wanted.Select(w => (JsonNode)w)]),
                ["conditions"] = night?.DeepClone(),
                ["edits"] = edits
            };
            Interlocked.Increment(ref asked);
            return (await host.Post("/api/answers", ask)).Status;
        }
        JsonNode Night(Action<JsonNode> change)
        {
            var night = conditions.DeepClone();
            change(night);
            return night;
        }
        async Task Job(string id, string wanted, TimeSpan patience)
        {
            var (status, started) = await host.Post("/api/jobs", new JsonObject { ["id"] = id, ["base"] = 1, ["wanted"] = new JsonArray(wanted) });
            Assert.Equal(200, status);
            string path = $"/api/jobs/{started["jobId"]}";
            for (var since = Stopwatch.StartNew(); since.Elapsed < patience && !end.IsCancellationRequested; await Task.Delay(200))
            {
                using var state = await host.Http.GetAsync(path);
                if (!state.IsSuccessStatusCode || (await JsonNode.ParseAsync(await state.Content.ReadAsStreamAsync()))!["answers"] is not null) return;
            }
            using var gone = await host.Http.DeleteAsync(path);
        }
        await Task.WhenAll(
            // An event of ten days, dragged; weather of a year of one's own; a temperature.
            Until(async n => await Ask("lantern", ["night", "freezeLadder"], Night(c =>
            {
                (c["hours"], c["events"]) = (240,
                    JsonNode.Parse($$"""[{ "id": "e", "kind": "setBack", "atH": {{(n % 200 / 2.0).ToString(CultureInfo.InvariantCulture)}}, "untilH": 230, "holdC": 8 }]"""));
            }))),
            Until(async n => await Ask("tern", ["night"], Night(c => c["weather"] = new JsonObject
            {
                ["hours"] = new JsonArray([.. Enumerable.Range(0, 8760).Select(h =>
                    (JsonNode)new JsonObject { ["temperatureC"] = -5 + (0.001 * n), ["windMPerS"] = 3, ["cloud"] = 1 })]),
            }))),
            Until(async n => await Ask(times, ["drainDown", "freezeLadder", "advice", "tanks"], Night(c => c["outdoorC"] = -20 + (0.1 * (n % 300))))),
            Until(async n => await Job(n % 2 == 0 ? "lantern" : largest, ((string[])["season", "autoFall", "fixAll"])[n % 3], TimeSpan.FromSeconds(15))),
            // One who drags on a small rig all the while.
            Until(async n =>
            {
                var since = Stopwatch.StartNew();
                Assert.Equal(200, await Ask("sparrow", ["drainDown", "freezeLadder", "advice", "tanks"], null,
                    JsonNode.Parse($$"""[{ "kind": "move", "things": ["runs/kitchen-cold/bends/b2"], "by": { "xM": 0, "yM": 0, "zM": {{(0.001 * (n % 40)).ToString(CultureInfo.InvariantCulture)}} } }]""")));
                small.Add(since.Elapsed.TotalMilliseconds);
                peak = Math.Max(peak, host.MemoryBytes);
                await Task.Delay(250);
            }));
        small.Sort();
        Campaign.Report(
            $"mixed use for {length.TotalMinutes:0.#} min: ten-day events, a year of weather and 416 runs dragged without rest, seasons, proposals and " +
            $"heights of the largest rig as jobs; {asked:N0} questions",
            $"memory at most {peak / 1e6:N0} MB; a small question beside it all p99 {small[(int)(small.Count * 0.99)]:N0} ms, at most {small[^1]:N0} ms, " +
            $"{small.Count:N0} of them");
        Assert.True(peak < MostBytes, $"{peak / 1e6:N0} MB");
        Assert.True(small[^1] < 1000, $"{small[^1]:N0} ms");
    }
}
