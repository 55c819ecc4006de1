using System.Text.Json.Nodes;
using WarmConduit.Application.Answers;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Weather;
using WarmConduit.Server.Answers;
using WarmConduit.Server.Jobs;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>Work that takes long goes on beside what is quick, is told as it goes, is stopped, and is fetched once.</summary>
public class JobTests
{
    private static readonly Rig Sparrow = RigFile.Read(File.ReadAllBytes(Path.Combine(Host.Root, "demo", "sparrow.json")));

    private static CheckedQuestion Asking(string study, IStudyInput? input = null, Rig? rig = null) =>
        new(new QuestionCache(), null, rig ?? Sparrow, null, Conditions.Of(Sparrow.Brief), [(StudyRegistry.Named(study)!, input)], null);

    private static JsonNode Season(int winters) =>
        JsonNode.Parse($$"""{ "id": "sparrow", "base": 1, "wanted": ["season"], "inputs": { "season": { "place": "osmerPlain", "winters": {{winters}} } } }""")!;

    [Fact]
    public async Task A_job_is_told_as_it_goes_on_and_fetched_once_while_small_questions_are_answered()
    {
        await using var host = await Host.Start();
        using var stream = await host.Http.GetStreamAsync("/api/changes");
        using var reader = new StreamReader(stream);
        var (status, started) = await host.Post("/api/jobs", Season(60));
        Assert.Equal(200, status);
        string id = (string)started["jobId"]!;
        Assert.False((bool)started["done"]!);
        // Asked after the job and answered before it.
        Assert.Equal(200, (await host.Post("/api/answers", JsonNode.Parse("""{ "id": "sparrow", "base": 1, "wanted": ["drainDown", "advice"] }""")!)).Status);
        Assert.False((bool)(await host.Get($"/api/jobs/{id}"))["progress"]!["done"]!);

        var shares = new List<double>();
        JsonNode? state = null;
        for (bool done = false; !done && state?["answers"] is null;)
        {
            string? line = await reader.ReadLineAsync().WaitAsync(TimeSpan.FromSeconds(60));
            if (line?.StartsWith("data: {", StringComparison.Ordinal) != true) continue;
            var progress = JsonNode.Parse(line["data:".Length..])!;
            Assert.Equal(id, (string)progress["jobId"]!);
            shares.Add((double)progress["share"]!);
            done = (bool)progress["done"]!;
            // Whoever waits asks now and then: on a slow machine it would be taken for left alone.
            if (!done) state = await host.Get($"/api/jobs/{id}");
        }
        Assert.Equal(shares.Order(), shares);
        Assert.True(shares.Count > 2 && (shares[^1] == 1 || state?["answers"] is not null));
        // Done is told a moment before it can be fetched.
        while (state?["answers"] is null) state = await host.Get($"/api/jobs/{id}");
        Assert.Equal(60, (int)state["answers"]!["answers"]!["season"]!["winters"]!);
        using var again = await host.Http.GetAsync($"/api/jobs/{id}");
        Assert.Equal(404, (int)again.StatusCode);
    }

    [Fact]
    public async Task What_is_wrong_is_refused_at_its_field_before_a_job_is_started_and_a_stopped_one_is_gone()
    {
        await using var host = await Host.Start();
        Assert.Equal(400, (await host.Post("/api/jobs", Season(0))).Status);
        var (_, started) = await host.Post("/api/jobs", Season(100));
        string path = $"/api/jobs/{started["jobId"]}";
        foreach (int status in (int[])[204, 404])
        {
            using var stopped = await host.Http.DeleteAsync(path);
            Assert.Equal(status, (int)stopped.StatusCode);
        }
        // The lane is free again.
        var (_, next) = await host.Post("/api/jobs", Season(1));
        JsonNode state;
        do state = await host.Get($"/api/jobs/{next["jobId"]}");
        while (state["answers"] is null);
    }

    [Fact]
    public async Task A_job_that_nobody_asks_after_is_stopped()
    {
        var clock = new Clock();
        using var lanes = new Lanes();
        using var board = new JobBoard(lanes, new ChangeFeed(), clock);
        var feed = board.Start(Asking("season", new SeasonInput(WeatherPlace.OsmerPlain, 100)));
        Assert.NotNull(await board.Fetch(feed.JobId));
        clock.RunOut();
        Assert.Null(await board.Fetch(feed.JobId));
    }

    [Fact]
    public async Task What_fails_tells_why_when_it_is_fetched()
    {
        using var lanes = new Lanes();
        using var board = new JobBoard(lanes, new ChangeFeed(), new Clock());
        var refused = new Study<NoInput, object>((_, _) => throw new TooLargeException("too large"), new NoInput()) { Name = "any" };
        string id = board.Start(new CheckedQuestion(new QuestionCache(), null, Sparrow, null, Conditions.Of(Sparrow.Brief), [(refused, null)], null)).JobId;
        await Assert.ThrowsAsync<TooLargeException>(async () =>
        {
            while (await board.Fetch(id) is { Answers: null }) await Task.Yield();
        });
    }

    [Fact]
    public async Task Large_rigs_and_jobs_fill_their_own_lanes_and_not_that_of_small_rigs()
    {
        using var lanes = new Lanes();
        CheckedQuestion large = Asking("drainDown", rig: SizedRigs.Times(Sparrow, 13)), job = Asking("fixes");
        var turns = Enumerable.Range(0, 50).SelectMany(_ => (Task<IDisposable>[])[lanes.Enter(large, default), lanes.Enter(job, default)]).ToList();
        Assert.Contains(turns, t => !t.IsCompleted);
        (await lanes.Enter(Asking("drainDown"), default)).Dispose();
        // What nobody can wait for is refused; all that wait have their turn in the end.
        using var leave = new CancellationTokenSource();
        var more = Enumerable.Range(0, 80).Select(_ => lanes.Enter(large, leave.Token)).ToList();
        await Assert.ThrowsAsync<LaneFullException>(() => more[^1]);
        await leave.CancelAsync();
        foreach (var turn in turns) (await turn).Dispose();
    }

    private sealed record NoInput : IStudyInput
    {
        public IReadOnlyList<RigFault> Check(Rig rig) => [];
    }

    // Time that passes when it is told to.
    private sealed class Clock : TimeProvider
    {
        private readonly List<(TimerCallback Call, object? State)> _timers = [];

        public void RunOut()
        {
            foreach (var (call, state) in _timers.ToList()) call(state);
        }

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            _timers.Add((callback, state));
            return new Still();
        }

        private sealed class Still : ITimer
        {
            public bool Change(TimeSpan dueTime, TimeSpan period) => true;

            public void Dispose()
            {
            }

            public ValueTask DisposeAsync() => ValueTask.CompletedTask;
        }
    }
}
