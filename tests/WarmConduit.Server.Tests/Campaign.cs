using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Server.Hosting;

namespace WarmConduit.Server.Tests;

/// <summary>
/// The long tests, run by `./warm-conduit campaign` and not with the others. Each writes its lines into the table of docs/reliability.md. WARM_CONDUIT_CAMPAIGN
/// scales the counts (1: all of it).
/// </summary>
public class Campaign
{
    private static readonly double Scale = double.Parse(Environment.GetEnvironmentVariable("WARM_CONDUIT_CAMPAIGN") ?? "1", CultureInfo.InvariantCulture);
    private static readonly Lock Writing = new();

    private static int Times(int full) => Math.Max(1, (int)(full * Scale));

    internal static TimeSpan Long(TimeSpan full) => full * Math.Min(1, Scale);

    internal static void Report(string what, string found)
    {
        string path = Path.Combine(Host.Root, "artifacts", "campaign.txt");
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        lock (Writing) File.AppendAllText(path, $"| {what} | {found} |\n");
        Console.WriteLine($"{what}: {found}");
    }

    [Fact(Explicit = true)]
    public async Task Fuzz()
    {
        await using var host = await Host.Start();
        var all = new Dictionary<int, int>();
        for (int round = 0; round < 5; round++)
            foreach (var (status, count) in await FuzzTests.Run(host, 100 + round, Times(4000))) all[status] = all.GetValueOrDefault(status) + count;
        Report($"fuzz: {all.Values.Sum():N0} documents, edits and questions",
            $"{string.Join(", ", all.OrderBy(a => a.Key).Select(a => $"{a.Value:N0} × {a.Key}"))}; 0 × 500; nothing changed by what was refused");
    }

    [Fact(Explicit = true)]
    public async Task Kills_while_saving()
    {
        string data = Host.NewFolder();
        int acknowledged = 1, kills = Times(100);
        for (int round = 0; round < kills; round++)
        {
            await using var host = await Host.Start(data);
            int found = (int)(await host.Get("/api/rigs/sparrow"))["revision"]!;
            Assert.InRange(found, acknowledged, acknowledged + 1);
            if (found > 1) Assert.Equal($"Save {found - 1}", (await host.Rig()).Name);
            acknowledged = found;
            var killer = Task.CompletedTask;
            try
            {
                for (int n = 0; ; n++)
                {
                    var (status, body) = await host.Save(acknowledged, Host.Rename($"Save {acknowledged}"));
                    Assert.Equal(200, status);
                    acknowledged = (int)body["revision"]!;
                    if (n == round % 7) killer = Task.Run(host.Kill);
                }
            }
            catch (Exception e) when (e is HttpRequestException or IOException)
            {
                await killer;
            }
        }
        Directory.Delete(data, recursive: true);
        Report($"killed while saving, {kills} times", $"{acknowledged:N0} acknowledged saves, none lost");
    }

    [Fact(Explicit = true)]
    public async Task Kills_while_starting()
    {
        int kills = Times(100);
        var random = new Random(7);
        for (int round = 0; round < kills; round++)
        {
            string data = Host.NewFolder();
            // A folder is met in each state in which a kill can leave it: new, half prepared, in use.
            for (int kill = 0; kill <= round % 3; kill++)
            {
                var start = Host.Launch(data);
                await Task.Delay(random.Next(200, 2200));
                start.Kill();
                await start.WaitForExitAsync().WaitAsync(TimeSpan.FromSeconds(10));
            }
            await using (var host = await Host.Start(data)) Assert.Equal(["lantern", "sparrow", "tern"],
                (await host.Get("/api/rigs"))["rigs"]!.AsArray().Select(r => (string)r!["id"]!).Order());
            Directory.Delete(data, recursive: true);
        }
        Report($"killed while starting, one to three times, then started again, {kills} folders", "each answers, with each demo rig once");
    }

    [Fact(Explicit = true)]
    public async Task First_requests()
    {
        int starts = Times(1000), asked = 0;
        for (int n = 0; n < starts; n++)
        {
            string data = Host.NewFolder();
            var app = ServerHost.Build(["--port", "0", "--data", data, "--demo", Path.Combine(Host.Root, "demo")]);
            await ServerHost.Prepare(app);
            await app.StartAsync();
            using var http = new HttpClient { BaseAddress = new Uri(app.Urls.First()) };
            var answers = await Task.WhenAll(Enumerable.Range(0, 40).Select(async i =>
            {
                using var answer = i % 2 == 0
                    ? await http.GetAsync("/api/rigs")
                    : await http.PostAsync("/api/rigs/sparrow/edits",
                        Host.Json($$"""{"base":1,"edits":[{"kind":"change","thing":"parts/{{(i % 4 == 1 ? "pump" : "filter")}}","values":{"massKg":{{i}} } }]}"""));
                return (int)answer.StatusCode;
            }));
            Assert.All(answers, s => Assert.True(s is 200 or 409, $"{s}"));
            asked += answers.Length;
            await app.DisposeAsync();
            Directory.Delete(data, recursive: true);
        }
        Report($"{starts:N0} starts, each met by 40 first requests at once, half of them saves",
            $"{asked:N0} answered, each 200 or 409; 0 × \"cannot start a transaction within a transaction\"");
    }

    [Fact(Explicit = true)]
    public async Task Eight_writers()
    {
        await using var host = await Host.Start();
        int each = Times(200), clashes = 0;
        await Task.WhenAll(Enumerable.Range(0, 8).Select(async w =>
        {
            string part = (await host.Rig()).Parts[w].Id;
            int at = 1;
            for (int n = 0; n < each; n++)
            {
                var (status, body) = await host.Save(at, new ChangeThing($"parts/{part}", new JsonObject { ["massKg"] = n + 1 }));
                if (status == 409) Interlocked.Increment(ref clashes);
                else Assert.Equal(200, status);
                at = (int)(status == 409 ? body["current"]! : body["revision"]!);
            }
        }));
        var rig = await host.Rig();
        Assert.Equal(8, rig.Parts.Count(p => p.MassKg == each));
        Report($"8 writers, {each} saves each, each on its own part", $"all {8 * each:N0} stand, {clashes} clashes");
    }

    [Theory(Explicit = true)]
    [InlineData(1)]
    [InlineData(13)]
    public async Task Load(int copies)
    {
        await using var host = await Host.Start();
        var rig = SizedRigs.Times(await host.Rig(), copies);
        var (_, added) = await host.Post("/api/rigs", new ByteArrayContent(RigFile.WriteCompact(rig)) { Headers = { ContentType = new("application/json") } });
        string id = (string)added["id"]!;
        var times = new Dictionary<string, List<double>> { ["shelf"] = [], ["read"] = [], ["save"] = [], ["answer"] = [] };
        var length = TimeSpan.FromSeconds(90 * Scale);
        var clock = Stopwatch.StartNew();
        long early = 0;
        async Task Client(int c)
        {
            var random = new Random(c);
            int at = 1;
            string part = rig.Parts[c].Id;
            while (clock.Elapsed < length)
            {
                string kind = random.Next(10) switch { < 2 => "shelf", < 4 => "read", < 7 => "save", _ => "answer" };
                string move = $$"""[{"kind":"move","things":["parts/{{part}}"],"by":{"xM":0,"yM":0,"zM":{{(random.Next(2) == 0 ? "0.001" : "-0.001")}} } }]""";
                long start = Stopwatch.GetTimestamp();
                using var answer = kind switch
                {
                    "shelf" => await host.Http.GetAsync("/api/rigs"),
                    "read" => await host.Http.GetAsync($"/api/rigs/{id}"),
                    "save" => await host.Http.PostAsync($"/api/rigs/{id}/edits", Host.Json($$"""{"base":{{at}},"edits":{{move}}}""")),
                    _ => await host.Http.PostAsync("/api/answers",
                    Host.Json($$"""{"id":"{{id}}","base":{{at}},"edits":{{move}},"wanted":["drainDown","freezeLadder","advice"],"since":{{at}}}""")),
                };
                string text = await answer.Content.ReadAsStringAsync();
                double ms = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
                Assert.True(answer.IsSuccessStatusCode, $"{kind}: {answer.StatusCode} {text[..Math.Min(300, text.Length)]}");
                // The first seconds are those of a program that is still being compiled.
                if (clock.Elapsed > length / 9) lock (times) times[kind].Add(ms);
                // A hand on a tablet is not faster.
                await Task.Delay(10);
                if (kind == "save") at = (int)JsonNode.Parse(text)!["revision"]!;
                if (early == 0 && clock.Elapsed > length / 3) early = host.MemoryBytes;
            }
        }
        using var over = new CancellationTokenSource();
        var flushes = Task.Run(() => Flushes(over.Token));
        await Task.WhenAll(Enumerable.Range(0, 8).Select(Client));
        await over.CancelAsync();
        long late = host.MemoryBytes;
        times["the disk's own flush of 16 kB"] = await flushes;
        string P99(string kind)
        {
            var sorted = times[kind].Order().ToList();
            return string.Create(CultureInfo.InvariantCulture,
                $"{sorted[(int)(sorted.Count * 0.99)]:F0} ms (median {sorted[sorted.Count / 2]:F0}, {sorted.Count:N0} of them)");
        }
        Report($"load at {rig.Runs.Count} runs: 8 connections for {length.TotalSeconds:F0} s, 10 ms between an answer and the next request",
            string.Join("; ", times.Keys.Select(k => $"{k} p99 {P99(k)}")));
        Report($"memory under that load at {rig.Runs.Count} runs", $"{early / 1e6:F0} MB after a third, {late / 1e6:F0} MB at the end");
    }

    // What a save waits for whatever the program does: the disk, asked beside it.
    private static List<double> Flushes(CancellationToken over)
    {
        var times = new List<double>();
        string path = Path.GetTempFileName();
        using (var file = new FileStream(path, FileMode.Append, FileAccess.Write, FileShare.None, 1))
        {
            while (!over.WaitHandle.WaitOne(50))
            {
                file.Write(new byte[16384]);
                long start = Stopwatch.GetTimestamp();
                file.Flush(flushToDisk: true);
                times.Add(Stopwatch.GetElapsedTime(start).TotalMilliseconds);
            }
        }
        File.Delete(path);
        return times;
    }

    [Fact(Explicit = true)]
    public async Task Forty_largest_at_once()
    {
        await using var host = await Host.Start();
        string body = System.Text.Json.JsonSerializer.Serialize(new
        {
            rig = SizedRigs.Largest(await host.Rig()),
            wanted = (string[])["drainDown", "freezeLadder", "advice", "standing"]
        }, RigFile.Compact);
        long most = 0;
        using var done = new CancellationTokenSource();
        var watch = Task.Run(async () =>
        {
            while (!done.IsCancellationRequested)
            {
                most = Math.Max(most, host.MemoryBytes);
                await Task.Delay(20);
            }
        });
        var answers = await Task.WhenAll(Enumerable.Range(0, 40).Select(async _ =>
        {
            using var answer = await host.Http.PostAsync("/api/answers", Host.Json(body));
            return (Status: (int)answer.StatusCode, Bytes: (await answer.Content.ReadAsByteArrayAsync()).Length);
        }));
        await done.CancelAsync();
        await watch;
        Assert.All(answers, a => Assert.True(a.Status is 200 or 503, $"{a.Status}"));
        Assert.True(most < 1_000_000_000, $"{most}");
        Report("40 questions at once about the largest rig, each sent whole",
            $"{answers.Count(a => a.Status == 200)} answered with {answers.Max(a => a.Bytes) / 1e6:F1} MB each, {answers.Count(a => a.Status == 503)} " +
            $"refused by name; memory at most {most / 1e6:F0} MB");
    }

    [Fact(Explicit = true)]
    public async Task Nobody_waits_any_more()
    {
        await using var host = await Host.Start();
        string body = System.Text.Json.JsonSerializer.Serialize(new
        {
            rig = SizedRigs.Largest(await host.Rig()),
            wanted = (string[])["drainDown", "freezeLadder", "advice"]
        }, RigFile.Compact);
        // Once, so that the program is compiled.
        using (await host.Http.PostAsync("/api/answers", Host.Json(body)))
        {
        }
        using (var gone = new CancellationTokenSource(TimeSpan.FromSeconds(1)))
        {
            await Task.WhenAll(Enumerable.Range(0, 20).Select(async _ =>
            {
                try
                {
                    using var answer = await host.Http.PostAsync("/api/answers", Host.Json(body), gone.Token);
                }
                catch (OperationCanceledException)
                {
                    // That is what is tried.
                }
            }));
        }
        // Until it rests: the work goes on no longer than that.
        var left = Stopwatch.StartNew();
        for (double busy = 1; busy > 0.1;)
        {
            var before = host.ProcessorTime;
            await Task.Delay(200);
            busy = (host.ProcessorTime - before).TotalSeconds / 0.2;
            Assert.True(left.Elapsed < TimeSpan.FromSeconds(10), $"still {busy:P0} of a processor is busy");
        }
        Report("20 questions about the largest rig whose askers leave after a second", $"the processors rest {left.Elapsed.TotalSeconds - 0.2:F1} s later");
    }
}
