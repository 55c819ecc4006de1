using System.Diagnostics;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>The application as its own process, over real HTTP and a database file in a folder of its own.</summary>
internal sealed class Host : IAsyncDisposable
{
    private readonly Process _process;
    private readonly bool _ownsData;
    private readonly StringBuilder _said;

    private Host(Process process, HttpClient http, string data, bool ownsData, StringBuilder said) =>
        (_process, Http, Data, _ownsData, _said) = (process, http, data, ownsData, said);

    public HttpClient Http { get; }

    public string Data { get; }

    /// <summary>All that it printed so far.</summary>
    public string Said
    {
        get
        {
            lock (_said) return _said.ToString();
        }
    }

    public static string Root { get; } = FindRoot();

    public static Process Launch(string data, string? shellPrefix = null, params string[] more)
    {
        string[] arguments = [typeof(Program).Assembly.Location, "--port", "0", "--data", data, "--demo", Path.Combine(Root, "demo"), .. more];
        var start = shellPrefix is null
            ? new ProcessStartInfo("dotnet", arguments)
            : new ProcessStartInfo("bash", ["-c", $"{shellPrefix}; exec dotnet \"$@\"", "start", .. arguments]);
        start.RedirectStandardOutput = start.RedirectStandardError = true;
        return Process.Start(start)!;
    }

    public static async Task<Host> Start(string? data = null, string? shellPrefix = null, params string[] more)
    {
        bool owns = data is null;
        data ??= await PreparedFolder();
        var process = Launch(data, shellPrefix, more);
        var said = new StringBuilder();
        var address = new TaskCompletionSource<string>();
        void Hear(string? line)
        {
            if (line is null) return;
            lock (said) said.AppendLine(line);
            if (line.StartsWith("Warm Conduit answers at ", StringComparison.Ordinal)) address.TrySetResult(line["Warm Conduit answers at ".Length..]);
        }
        process.OutputDataReceived += (_, e) => Hear(e.Data);
        process.ErrorDataReceived += (_, e) => Hear(e.Data);
        process.EnableRaisingEvents = true;
        process.Exited += (_, _) => address.TrySetException(new TimeoutException());
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        try
        {
            string at = await address.Task.WaitAsync(TimeSpan.FromSeconds(60));
            return new Host(process, new HttpClient { BaseAddress = new Uri(at) }, data, owns, said);
        }
        catch (TimeoutException)
        {
            process.Kill(true);
            throw new InvalidOperationException($"It did not start, exit code {(process.WaitForExit(1000) ? process.ExitCode : -1)}: {said}");
        }
    }

    /// <summary>What the process has used of the processors.</summary>
    public TimeSpan ProcessorTime
    {
        get
        {
            _process.Refresh();
            return _process.TotalProcessorTime;
        }
    }

    /// <summary>Memory that the process has resident.</summary>
    public long MemoryBytes
    {
        get
        {
            _process.Refresh();
            return _process.WorkingSet64;
        }
    }

    // A first start prepares the database and lays out the demo; most tests are of what comes after it, and begin with a copy of that.
    private static readonly Lazy<Task<byte[]>> First = new(async () =>
    {
        string folder = NewFolder();
        try
        {
            await using var host = await Start(folder);
            await host.Stop();
            return await File.ReadAllBytesAsync(Path.Combine(folder, ShelfSetup.FileName));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    });

    /// <summary>A folder as the first start leaves it.</summary>
    public static async Task<string> PreparedFolder()
    {
        string folder = NewFolder();
        await File.WriteAllBytesAsync(Path.Combine(folder, ShelfSetup.FileName), await First.Value);
        return folder;
    }

    public static string NewFolder() => Directory.CreateTempSubdirectory("warm-conduit-").FullName;

    /// <summary>Asks it to stop, and waits until it has.</summary>
    public async Task Stop()
    {
        using var asked = Process.Start("kill", ["-TERM", _process.Id.ToString(System.Globalization.CultureInfo.InvariantCulture)]);
        await _process.WaitForExitAsync(TestContext.Current.CancellationToken);
    }

    /// <summary>Ends the process with no chance to tidy up.</summary>
    public void Kill()
    {
        _process.Kill(entireProcessTree: true);
        // With a time: without one it would also wait for the last of what was said.
        _process.WaitForExit(10_000);
    }

    public async Task<JsonNode> Get(string path) => (await Http.GetFromJsonAsync<JsonNode>(path))!;

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body)
    {
        var content = body as HttpContent ?? (body is null ? null : JsonContent.Create(body, options: RigFile.Json));
        using var answer = await Http.SendAsync(new HttpRequestMessage(method, path) { Content = content });
        string text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, text.Length > 0 ? JsonNode.Parse(text)! : new JsonObject());
    }

    public Task<(int Status, JsonNode Body)> Post(string path, object body) => Send(HttpMethod.Post, path, body);

    public async Task<Rig> Rig(string id = "sparrow") => (await Get($"/api/rigs/{id}"))["rig"].Deserialize<Rig>(RigFile.Json)!;

    /// <summary>Saves edits on a revision.</summary>
    public Task<(int Status, JsonNode Body)> Save(int @base, params Edit[] edits) => Post("/api/rigs/sparrow/edits", new { @base, edits });

    public static Edit Rename(string name) => new ChangeThing("rig", new JsonObject { ["name"] = name });

    public static Edit Raise(string thing, double byM) => new MoveThings([thing], new Point3(0, 0, byM));

    public static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

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

/// <summary>One application for the tests of a class that leave it as they found it, or do not mind.</summary>
public sealed class SharedHost : IAsyncLifetime
{
    internal Host Host { get; private set; } = null!;

    public async ValueTask InitializeAsync() => Host = await Host.Start();

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}
