using System.Diagnostics;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using WarmConduit.Core.Rigs;
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

    private static async Task AddHttp(Figures figures)
    {
        string data = Directory.CreateTempSubdirectory("warm-conduit-").FullName;
        var app = Application.Build(["--port", "0", "--data", data]);
        await app.StartAsync();
        using var http = new HttpClient { BaseAddress = new Uri(app.Urls.First()) };
        var rig = Repository.Sparrow();
        string body = JsonSerializer.Serialize(new { rig, conditions = Conditions.Of(rig.Brief) }, RigFile.Json);
        var times = new List<double>();
        for (int n = 0; n < 500; n++)
        {
            long start = Stopwatch.GetTimestamp();
            using var content = new StringContent(body, Encoding.UTF8, "application/json");
            using var answer = await http.PostAsync("/api/studies/bench", content);
            await answer.Content.ReadAsByteArrayAsync();
            if (n >= 100) times.Add(Stopwatch.GetElapsedTime(start).TotalMilliseconds);
        }
        await app.StopAsync();
        Directory.Delete(data, recursive: true);
        times.Sort();
        figures.Add("stateless bench call over HTTP, p95", times[(int)(times.Count * 0.95)], "ms", 40);
    }

    // What index.html asks for at once: its scripts and what they import before they run.
    private static void AddFirstLoad(Figures figures)
    {
        string dist = Path.Combine(Repository.Root, "web", "dist");
        using var manifest = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(dist, ".vite", "manifest.json")));
        var seen = new HashSet<string>();
        double bytes = Load("index.html");
        foreach (string script in Directory.GetFiles(dist, "*.js")) bytes += Gzipped(script);
        figures.Add("JavaScript of a first load, gzipped", bytes / 1000, "kB", 300);

        double Load(string entry)
        {
            if (!seen.Add(entry)) return 0;
            var chunk = manifest.RootElement.GetProperty(entry);
            double sum = Gzipped(Path.Combine(dist, chunk.GetProperty("file").GetString()!));
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
