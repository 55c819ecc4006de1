using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Tests;

/// <summary>The application as its own process, over real HTTP and a database file in a folder of its own.</summary>
internal sealed class Host : IAsyncDisposable
{
    private Process _process;
    private readonly bool _ownsData;

    private Host(Process process, HttpClient http, string data, bool ownsData) => (_process, Http, Data, _ownsData) = (process, http, data, ownsData);

    public HttpClient Http { get; }

    public string Data { get; }

    public static string Root { get; } = FindRoot();

    public static async Task<Host> Start(string? data = null)
    {
        bool owns = data is null;
        data ??= Directory.CreateTempSubdirectory("warm-conduit-").FullName;
        var process = Process.Start(new ProcessStartInfo("dotnet", [typeof(Program).Assembly.Location, "--port", "0", "--data", data, "--demo", Path.Combine(Root, "demo")])
        {
            RedirectStandardOutput = true,
        })!;
        string? line;
        do line = await process.StandardOutput.ReadLineAsync();
        while (line is not null && !line.StartsWith("Warm Conduit answers at ", StringComparison.Ordinal));
        Assert.NotNull(line);
        return new Host(process, new HttpClient { BaseAddress = new Uri(line["Warm Conduit answers at ".Length..]) }, data, owns);
    }

    /// <summary>Ends the process with no chance to tidy up.</summary>
    public void Kill()
    {
        _process.Kill(entireProcessTree: true);
        _process.WaitForExit();
    }

    public async Task<JsonNode> Get(string path) => (await Http.GetFromJsonAsync<JsonNode>(path))!;

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body)
    {
        var content = body as HttpContent ?? JsonContent.Create(body, options: RigFile.Json);
        using var answer = await Http.SendAsync(new HttpRequestMessage(method, path) { Content = content });
        string text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, text.Length > 0 ? JsonNode.Parse(text)! : new JsonObject());
    }

    public async Task<Rig> Rig(string id = "sparrow") =>
        (await Get($"/api/rigs/{id}"))["shelved"]!["rig"].Deserialize<Rig>(RigFile.Json)!;

    public async ValueTask DisposeAsync()
    {
        if (!_process.HasExited) Kill();
        _process.Dispose();
        Http.Dispose();
        if (_ownsData) Directory.Delete(Data, recursive: true);
        await Task.CompletedTask;
    }

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "WarmConduit.slnx"))) folder = folder.Parent!;
        return folder.FullName;
    }
}
