using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace WarmConduit.Server.Tests;

/// <summary>Sharing on one more address, behind a code.</summary>
public class ShareTests(SharedOnNetwork shared) : IClassFixture<SharedOnNetwork>
{
    private static readonly string[] Left = ["left"];

    private static HttpClient Phone(Uri shared) => new(new HttpClientHandler { CookieContainer = new CookieContainer() }) { BaseAddress = shared };

    private static async Task<(int Status, JsonNode? Body)> Send(HttpClient phone, HttpMethod method, string path, object? body = null, params (string,
        string)[] headers)
    {
        using var request = new HttpRequestMessage(method, path) { Content = body is null ? null : JsonContent.Create(body) };
        foreach (var (name, value) in headers) request.Headers.TryAddWithoutValidation(name, value);
        using var answer = await phone.SendAsync(request, TestContext.Current.CancellationToken);
        string text = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        return ((int)answer.StatusCode, text.StartsWith('{') || text.StartsWith('[') ? JsonNode.Parse(text) : null);
    }

    private static async Task<string> Code(Host host) => (string)(await host.Post("/api/share/code", new { })).Body["code"]!;

    [Fact]
    public async Task The_shared_address_refuses_without_its_code_which_is_valid_once_and_for_five_tries()
    {
        var (host, address) = (shared.Host, shared.Address);
        await host.Post("/api/share/end", new { });
        using var phone = Phone(address);
        foreach (string path in (string[])["/api/rigs", "/api/rigs/tern", "/api/changes", "/api/rigs/tern/log.csv", "/api/backup", "/api/catalogue"])
            Assert.Equal((path, 401), (path, (await Send(phone, HttpMethod.Get, path)).Status));
        Assert.Equal(401, (await Send(phone, HttpMethod.Post, "/api/share/code", new { })).Status);
        async Task<int> Enter(string typed) => (await Send(phone, HttpMethod.Post, "/api/share/enter", new { code = typed })).Status;
        // None was shown yet.
        Assert.Equal(400, await Enter("000000"));
        string code = await Code(host), wrong = code == "123456" ? "654321" : "123456";
        Assert.Matches(@"^\d{6}$", code);
        for (int n = 0; n < 5; n++) Assert.Equal(400, await Enter(wrong));
        // Five tries are over: the right one comes too late.
        Assert.Equal(400, await Enter(code));
        code = await Code(host);
        Assert.Equal(204, await Enter(code));
        Assert.Equal(200, (await Send(phone, HttpMethod.Get, "/api/rigs/tern")).Status);
        // Once only.
        using var second = Phone(address);
        Assert.Equal(400, (await Send(second, HttpMethod.Post, "/api/share/enter", new { code })).Status);
        Assert.Equal(401, (await Send(second, HttpMethod.Get, "/api/rigs/tern")).Status);
    }

    [Fact]
    public async Task A_guest_looks_and_runs_procedures_and_changes_nothing_else_until_sent_away()
    {
        var (host, address) = (shared.Host, shared.Address);
        await host.Post("/api/share/end", new { });
        using var phone = Phone(address);
        var entered = await phone.PostAsJsonAsync("/api/share/enter", new { code = await Code(host) }, TestContext.Current.CancellationToken);
        string cookie = Assert.Single(entered.Headers.GetValues("Set-Cookie"));
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("expires", cookie, StringComparison.OrdinalIgnoreCase);
        async Task<int> Status(HttpMethod method, string path, object? body = null, params (string, string)[] headers) =>
            (await Send(phone, method, path, body, headers)).Status;
        Assert.Equal(200, await Status(HttpMethod.Post, "/api/answers", new { id = "tern", @base = 1, wanted = Left }));
        Assert.Equal(200, await Status(HttpMethod.Post, "/api/rigs/tern/walks", new { id = "walk-1", procedure = new { kind = "weekendDrain" } }));
        Assert.Equal(200, await Status(HttpMethod.Post, "/api/walks/walk-1/acts", new
        {
            acts = new[] { new { id = "a", kind = "ended",
            at = DateTimeOffset.UtcNow } }
        }));
        foreach (var (method, path) in ((HttpMethod, string)[])
            [
                (HttpMethod.Delete, "/api/rigs/tern?revision=1"), (HttpMethod.Post, "/api/rigs/tern/edits"), (HttpMethod.Post, "/api/rigs"),
                (HttpMethod.Get, "/api/backup"), (HttpMethod.Post, "/api/rigs/tern/revisions/1/copy"), (HttpMethod.Put, "/api/rigs/tern/reminders"),
                (HttpMethod.Post, "/api/share/code"), (HttpMethod.Post, "/api/share/end"), (HttpMethod.Post, "/api/rigs/tern/log/table"),
            ])
            Assert.Equal((path, 403), (path, await Status(method, path, method == HttpMethod.Get || method == HttpMethod.Delete ? null : new { })));
        // Neither by another name nor from another page.
        Assert.Equal(403, await Status(HttpMethod.Get, "/api/rigs", null, ("Host", $"rigs.example:{address.Port}")));
        Assert.Equal(403, await Status(HttpMethod.Get, "/api/rigs", null, ("Origin", "http://rigs.example")));
        Assert.Equal(403, await Status(HttpMethod.Get, "/api/rigs", null, ("Sec-Fetch-Site", "cross-site")));
        Assert.Equal(1, (int)(await host.Get("/api/share"))["guests"]!);
        // What is open ends with it.
        using var stream = await phone.GetStreamAsync("/api/changes", TestContext.Current.CancellationToken);
        Assert.Equal(204, (await host.Post("/api/share/end", new { })).Status);
        await Assert.ThrowsAnyAsync<Exception>(async () =>
        {
            byte[] buffer = new byte[4096];
            while (await stream.ReadAsync(buffer, TestContext.Current.CancellationToken) > 0) { }
            throw new EndOfStreamException();
        });
        Assert.Equal(401, await Status(HttpMethod.Get, "/api/rigs"));
        // Here nothing of it is asked, and the shared name is not this machine's.
        Assert.Equal(200, (await host.Send(HttpMethod.Get, "/api/rigs", null)).Status);
    }

    [Fact]
    public async Task Unless_it_is_asked_for_nothing_is_shared_and_what_is_no_address_is_refused()
    {
        await using (var host = await Host.Start())
        {
            Assert.Null((await host.Get("/api/share"))["address"]);
            Assert.Equal(404, (await host.Post("/api/share/code", new { })).Status);
            int port = host.Http.BaseAddress!.Port;
            using var elsewhere = new HttpClient { BaseAddress = new Uri($"http://127.0.0.2:{port}") };
            await Assert.ThrowsAsync<HttpRequestException>(() => elsewhere.GetAsync("/api/share", TestContext.Current.CancellationToken));
        }
        foreach (string wrong in (string[])["everywhere", "0.0.0.0"])
            await Assert.ThrowsAnyAsync<Exception>(() => Host.Start(null, null, "--share", wrong));
    }
}

/// <summary>One application that answers on one more address.</summary>
public sealed class SharedOnNetwork : IAsyncLifetime
{
    internal Host Host { get; private set; } = null!;

    internal Uri Address { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Host = await Host.Start(null, null, "--share", "127.0.0.2");
        string at = (string)(await Host.Get("/api/share"))["address"]!;
        Assert.StartsWith("http://127.0.0.2:", at, StringComparison.Ordinal);
        Address = new Uri(at);
    }

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}
