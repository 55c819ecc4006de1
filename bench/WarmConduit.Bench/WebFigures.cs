using System.Diagnostics;
using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Server.Hosting;

namespace WarmConduit.Bench;

/// <summary>What a drag costs over HTTP, and what a first visit loads.</summary>
internal static class WebFigures
{
    public static async Task Add(Figures figures)
    {
        await AddHttp(figures);
        AddFirstLoad(figures);
    }

    private static ByteArrayContent Body(byte[] json) => new(json) { Headers = { ContentType = new("application/json") } };

    // In ms, sorted, of those after the first few.
    private static async Task<List<double>> Times(HttpClient http, int count, int first, Func<int, byte[]> ask, Action<int>? down = null)
    {
        var times = new List<double>();
        for (int n = 0; n < count; n++)
        {
            byte[] body = ask(n);
            long start = Stopwatch.GetTimestamp();
            using var answer = await http.PostAsync("/api/answers", Body(body));
            answer.EnsureSuccessStatusCode();
            down?.Invoke((await answer.Content.ReadAsByteArrayAsync()).Length);
            if (n >= first) times.Add(Stopwatch.GetElapsedTime(start).TotalMilliseconds);
        }
        times.Sort();
        return times;
    }

    // The pump of Lantern's circuits stops, each time at another quarter of an hour.
    private static async Task AddFailure(Figures figures, HttpClient http)
    {
        var lantern = Repository.Lantern();
        (await http.PostAsync("/api/rigs", Body(RigFile.WriteCompact(lantern)))).EnsureSuccessStatusCode();
        var night = Conditions.Of(lantern.Brief) with { PlanId = "fuel-out", HeatOn = true };
        byte[] Ask(int n) => JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                id = lantern.Id,
                @base = 1,
                edits = (Edit[])[new ChangeThing("plans/fuel-out/events/fuel", new JsonObject { ["kind"] = "pumpFails", ["atH"] = n % 40 / 4.0 })],
                conditions = night,
                wanted = (string[])["freezeLadder", "outlook"],
                since = 1,
            },
            RigFile.Compact);
        var times = await Times(http, 240, 120, Ask);
        figures.Add("a pump that stops at an hour over HTTP, Lantern, p95", times[(int)(times.Count * 0.95)], "ms", 100);
    }

    private static async Task AddHttp(Figures figures)
    {
        string data = Directory.CreateTempSubdirectory("warm-conduit-").FullName;
        var app = ServerHost.Build(["--port", "0", "--data", data, "--web", Path.Combine(Repository.Root, "web", "dist")]);
        await ServerHost.Prepare(app);
        await app.StartAsync();
        using var http = new HttpClient { BaseAddress = new Uri(app.Urls.First()) };
        foreach (var (name, rig, limit) in ((string, Rig, double?)[])[("32 runs", Repository.Sparrow(), 40), ("416 runs", Repository.Times(13), 20)])
        {
            (await http.PostAsync("/api/rigs", Body(RigFile.WriteCompact(rig)))).EnsureSuccessStatusCode();
            byte[] ask = JsonSerializer.SerializeToUtf8Bytes(
                new
                {
                    id = rig.Id,
                    @base = 1,
                    edits = (Edit[])[new MoveThings(["runs/kitchen-cold/bends/b2"], new Point3(0, 0, 0.005))],
                    conditions = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = true },
                    wanted = (string[])["drainDown", "freezeLadder", "advice", "tanks", "outlook"],
                    since = 1,
                },
                RigFile.Compact);
            long down = 0;
            var times = await Times(http, 800, 500, _ => ask, bytes => down = bytes);
            figures.Add($"a drag's answer over HTTP at {name}, p95", times[(int)(times.Count * 0.95)], "ms", limit);
            figures.Add($"bytes up a drag's answer at {name}", ask.Length, "B", 2000);
            figures.Add($"bytes down a drag's answer at {name}", down / 1000.0, "kB");
        }
        await AddFailure(figures, http);
        await AddLargest(figures, http);
        await AddBrowser(figures, http);
        await app.StopAsync();
        Directory.Delete(data, recursive: true);

        static async Task AddLargest(Figures figures, HttpClient http)
        {
            byte[] body = JsonSerializer.SerializeToUtf8Bytes(new
            {
                rig = SizedRigs.Largest(Repository.Sparrow()),
                wanted = (string[])["drainDown", "freezeLadder", "advice", "standing"]
            }, RigFile.Compact);
            (await http.PostAsync("/api/answers", Body(body))).EnsureSuccessStatusCode();
            long start = Stopwatch.GetTimestamp();
            using var answer = await http.PostAsync("/api/answers", Body(body));
            double bytes = (await answer.Content.ReadAsByteArrayAsync()).Length;
            figures.Add("the largest rig, sent whole and answered whole", Stopwatch.GetElapsedTime(start).TotalSeconds, "s", 2);
            figures.Add("bytes down of that answer", bytes / 1e6, "MB", 10);
        }
    }

    // What a reader waits for, in a browser, at growing sizes.
    private static async Task AddBrowser(Figures figures, HttpClient http)
    {
        string ids = "";
        foreach (int copies in (int[])[1, 3, 6, 12])
        {
            var rig = Repository.Times(copies) with { Id = $"speed-{copies}", Name = $"Speed {copies}" };
            using var body = new ByteArrayContent(RigFile.WriteCompact(rig)) { Headers = { ContentType = new("application/json") } };
            (await http.PostAsync("/api/rigs", body)).EnsureSuccessStatusCode();
            ids += $" {rig.Id}";
        }
        using var lantern = new ByteArrayContent(File.ReadAllBytes(Path.Combine(Repository.Root, "demo", "lantern.json")))
        {
            Headers =
            { ContentType = new("application/json") }
        };
        (await http.PostAsync("/api/rigs", lantern)).EnsureSuccessStatusCode();
        using var node = Process.Start(new ProcessStartInfo("node", $"speed.mjs {http.BaseAddress!.ToString().TrimEnd('/')} lantern{ids}")
        {
            WorkingDirectory = Path.Combine(Repository.Root, "e2e"),
            RedirectStandardOutput = true,
        })!;
        while (await node.StandardOutput.ReadLineAsync() is { } line)
        {
            if (line.LastIndexOf(": ", StringComparison.Ordinal) is not (> 0 and int colon)
                || line[(colon + 2)..].Split(' ') is not [var number, .. var unit]) continue;
            double? limit = line.StartsWith("nudge to painted", StringComparison.Ordinal)
                || line.StartsWith("tap opened", StringComparison.Ordinal) || line.StartsWith("paced", StringComparison.Ordinal) ? 100
                : line.StartsWith("opening", StringComparison.Ordinal) ? 1000 : line.StartsWith("longest task", StringComparison.Ordinal) ? 50
                : line.StartsWith("fixes of", StringComparison.Ordinal) ? 300 : line.StartsWith("Lantern's night", StringComparison.Ordinal) ? 100 : null;
            figures.Add(line[..colon], double.Parse(number, System.Globalization.CultureInfo.InvariantCulture), string.Join(' ', unit), limit);
        }
        await node.WaitForExitAsync();
    }

    // What index.html asks for at once: its scripts and what they import before they run.
    private static void AddFirstLoad(Figures figures)
    {
        string dist = Path.Combine(Repository.Root, "web", "dist");
        using var manifest = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(dist, ".vite", "manifest.json")));
        var seen = new HashSet<string>();
        double bytes = Load("index.html");
        foreach (string script in Directory.GetFiles(dist, "*.js")) bytes += Gzipped(script);
        figures.Add("JavaScript and styles of a first load, gzipped", bytes / 1000, "kB", 300);

        double Load(string entry)
        {
            if (!seen.Add(entry)) return 0;
            var chunk = manifest.RootElement.GetProperty(entry);
            double sum = Gzipped(Path.Combine(dist, chunk.GetProperty("file").GetString()!));
            if (chunk.TryGetProperty("css", out var styles))
                foreach (var style in styles.EnumerateArray()) sum += Gzipped(Path.Combine(dist, style.GetString()!));
            if (chunk.TryGetProperty("imports", out var imports))
                foreach (var import in imports.EnumerateArray()) sum += Load(import.GetString()!);
            return sum;
        }
        static double Gzipped(string file)
        {
            using var packed = new MemoryStream();
            using (var gzip = new GZipStream(packed, CompressionLevel.Optimal, leaveOpen: true)) gzip.Write(File.ReadAllBytes(file));
            return packed.Length;
        }
    }
}
