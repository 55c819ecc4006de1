using System.Net.Http.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Tests;

/// <summary>Walk-throughs and the logbook over HTTP.</summary>
public class WalkTests(SharedHost shared) : IClassFixture<SharedHost>
{
    // A rig of a test's own, as it ships.
    private static async Task<string> Copy(Host host, string rig) =>
        (string)(await host.Post($"/api/rigs/{rig}/revisions/1/copy", new { })).Body["id"]!;

    private static async Task<JsonNode> Begin(Host host, string rig, string kind, string id = "walk-1")
    {
        var (status, walk) = await host.Post($"/api/rigs/{rig}/walks", new { id, procedure = new { kind }, who = "Ann", outdoorC = -2.5 });
        Assert.Equal(200, status);
        return walk;
    }

    private static async Task<JsonNode> Say(Host host, string walk, params object[] acts)
    {
        var (status, answer) = await host.Post($"/api/walks/{walk}/acts", new { acts });
        Assert.True(status == 200, answer.ToJsonString());
        return answer;
    }

    private static object Act(string id, string kind, string? stepId = null, string? who = null, double? litres = null, string? reason = null) =>
        new { id, kind, at = DateTimeOffset.UtcNow, stepId, who, litres, reason };

    private static IEnumerable<string> StepIds(JsonNode walk) => walk["procedure"]!["steps"]!.AsArray().Select(s => (string)s!["id"]!);

    private static string Stand(JsonNode walk, string step) => (string)walk["steps"]!.AsArray().Single(s => (string)s!["stepId"]! == step)!["stand"]!;

    private static async Task<IReadOnlyList<LeftAct>> Left(Host host, string rig) => (await host.Rig(rig)).Left ?? [];

    [Fact]
    public async Task A_walk_through_is_remembered_by_the_rig_and_goes_on_after_a_kill_with_nothing_twice()
    {
        string data = await Host.PreparedFolder();
        string[] steps;
        string drain;
        await using (var host = await Host.Start(data))
        {
            var walk = await Begin(host, "sparrow", "weekendDrain");
            // Sent again it is the same one.
            Assert.Equal(walk["startedAt"]!.ToString(), (await Begin(host, "sparrow", "weekendDrain"))["startedAt"]!.ToString());
            steps = [.. StepIds(walk)];
            drain = (string)walk["procedure"]!["steps"]!.AsArray().First(s => s!["outL"] is not null && s["marks"]!.AsArray().Count == 1)!["id"]!;
            await Say(host, "walk-1", Act("t1", "timer", steps[1]));
            await Say(host, "walk-1", Act("m1", "measured", drain, litres: 0.5), Act("d1", "done", drain));
            await Say(host, "walk-1", Act("d1", "done", drain));
            var done = Assert.Single(await Left(host, "sparrow"));
            Assert.Equal((LeftActKind.Done, 0.5), (done.Kind, done.OutL));
            host.Kill();
        }
        await using var again = await Host.Start(data);
        var back = await again.Get("/api/walks/walk-1");
        Assert.Equal(("done", "open"), (Stand(back, drain), Stand(back, steps[1])));
        Assert.NotNull(back["steps"]!.AsArray().Single(s => (string)s!["stepId"]! == steps[1])!["timerAt"]);
        Assert.Equal((1, 0), ((int)(await again.Get("/api/rigs/sparrow/walks"))[0]!["done"]!,
            (int)(await again.Get("/api/rigs/sparrow/walks"))[0]!["skipped"]!));
        // The jug once more: the rig has the new reading, and in the logbook it stands in the place of the old one.
        await Say(again, "walk-1", Act("m2", "measured", drain, litres: 2.4));
        Assert.Equal(2.4, Assert.Single(await Left(again, "sparrow")).OutL);
        var entries = (await again.Get("/api/rigs/sparrow/log"))["entries"]!.AsArray();
        Assert.Equal("m1", (string?)entries.Single(e => (string)e!["id"]! == "m2")!["corrects"]);
        Assert.Equal((-2.5, "litres"), ((double)entries[0]!["outdoorC"]!, (string)entries[0]!["kind"]!));
        // Not done after all: the rig forgets it.
        await Say(again, "walk-1", Act("r1", "reopened", drain));
        Assert.Empty(await Left(again, "sparrow"));
        await Say(again, "walk-1", Act("s1", "skipped", drain, reason: "frozen"), Act("e1", "ended"));
        var last = (await again.Get("/api/rigs/sparrow/log"))["entries"]!.AsArray().Single(e => (string)e!["id"]! == "e1")!;
        Assert.Contains("(frozen)", (string)last["words"]!, StringComparison.Ordinal);
        Assert.Contains("Not drained: ", (string)last["words"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_two_devices_on_one_step_the_first_wins_and_the_other_is_told()
    {
        var host = shared.Host;
        string tern = await Copy(host, "tern");
        var walk = await Begin(host, tern, "airLayUp", "walk-two");
        string step = StepIds(walk).First();
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(n => Say(host, "walk-two", Act($"act-{n}", n % 2 == 0 ? "done" : "skipped", step,
            $"device {n}",
            reason: n % 2 == 0 ? null : "no"))));
        var counted = answers.Select(a => a["results"]![0]!).Where(r => (bool)r["counts"]!).ToList();
        string winner = (string)Assert.Single(counted)["id"]!;
        Assert.All(answers.Select(a => a["results"]![0]!).Where(r => !(bool)r["counts"]!), r => Assert.Equal(winner, (string)r["first"]!["id"]!));
        // Who did not hear that asks again, and is told the same.
        string late = Enumerable.Range(0, 8).Select(n => $"act-{n}").First(a => a != winner);
        Assert.Equal(winner, (string)(await Say(host, "walk-two", Act(late, "done", step)))["results"]![0]!["first"]!["id"]!);
        // It goes on as it was begun, and says what has changed since.
        await host.Post($"/api/rigs/{tern}/edits", new { @base = 1, edits = new object[] { Host.Raise("parts/drain-b", 0.01) } });
        var after = await host.Get("/api/walks/walk-two");
        Assert.Equal(1, (int)after["revision"]!);
        Assert.Contains("drain B", after["changed"]!.AsArray().Select(c => (string)c!));
        Assert.Equal(StepIds(walk), StepIds(after));
    }

    [Fact]
    public async Task Filling_forgets_what_was_left_and_air_and_antifreeze_are_remembered()
    {
        var host = shared.Host;
        string tern = await Copy(host, "tern");
        var air = await Begin(host, tern, "airLayUp", "walk-air");
        foreach (string step in StepIds(air)) await Say(host, "walk-air", Act($"done-{StepIds(air).ToList().IndexOf(step)}", "done", step));
        var left = await Left(host, tern);
        Assert.Contains(left, a => a is { Kind: LeftActKind.Blown, Film: > 0 and < 0.1 });
        Assert.Contains(left, a => a.Kind == LeftActKind.Done);
        Assert.Empty(RigCheck.Check(await host.Rig(tern)));
        var open = await Begin(host, tern, "reopen", "walk-open");
        await Say(host, "walk-open", Act("f1", "done", "flush"));
        Assert.Equal(LeftActKind.Filled, Assert.Single(await Left(host, tern)).Kind);
        Assert.Contains(StepIds(open), s => s == "contact");
    }

    [Fact]
    public async Task A_jug_read_under_drain_is_in_the_logbook_and_a_new_reading_stands_in_its_place()
    {
        var host = shared.Host;
        string sparrow = await Copy(host, "sparrow");
        object Jug(int at, object edit) => new { @base = at, key = $"key-{at}", edits = new[] { edit } };
        var first = Jug(1, new
        {
            kind = "add",
            list = "left",
            value = new
            {
                id = "act-1",
                kind = "done",
                at = DateTimeOffset.UtcNow,
                thing = "parts/drain-a",
                outL = 0.4
            }
        });
        for (int n = 0; n < 2; n++)
        {
            var (status, answer) = await host.Post($"/api/rigs/{sparrow}/edits", first);
            Assert.True(status == 200, answer.ToJsonString());
        }
        Assert.Equal(200, (await host.Post($"/api/rigs/{sparrow}/edits", Jug(2, new
        {
            kind = "change",
            thing = "left/act-1",
            values = new { outL = 0.9 }
        }))).Status);
        var entries = (await host.Get($"/api/rigs/{sparrow}/log"))["entries"]!.AsArray();
        Assert.Equal(["jug-act-1-2", "jug-act-1-3"], entries.Select(e => (string)e!["id"]!).Order());
        var last = entries.Single(e => (string)e!["id"]! == "jug-act-1-3")!;
        Assert.Equal(("jug-act-1-2", 0.9, "parts/drain-a"), ((string)last["corrects"]!, (double)last["collectedL"]!, (string)last["thing"]!));
        Assert.True((double)last["expectedL"]! > 0);
    }

    [Fact]
    public async Task What_is_wrong_is_named_and_nothing_is_written()
    {
        var host = shared.Host;
        await Begin(host, "lantern", "reopen", "walk-wrong");
        async Task Refused(string path, object body, string field)
        {
            var (status, answer) = await host.Post(path, body);
            Assert.Equal(400, status);
            Assert.Contains(field, answer["errors"]!.AsObject().Select(e => e.Key));
        }
        await Refused("/api/walks/walk-wrong/acts", new { acts = new[] { Act("a", "done", "no-such") } }, "stepId");
        await Refused("/api/walks/walk-wrong/acts", new { acts = new[] { Act("a", "skipped", "close") } }, "reason");
        await Refused("/api/walks/walk-wrong/acts", new { acts = Array.Empty<object>() }, "acts");
        await Refused("/api/rigs/tern/walks", new { id = "Walk", procedure = new { kind = "reopen", dose = new { strength = 0 } }, outdoorC = 99 },
            "procedure.dose.strength");
        await Refused("/api/rigs/sparrow/walks", new { id = "walk-wrong", procedure = new { kind = "reopen" } }, "id");
        await Refused("/api/rigs/tern/log", new { id = "x", kind = "note", at = DateTimeOffset.UtcNow, words = "" }, "words");
        await Refused("/api/rigs/tern/log", new { id = "x", kind = "note", at = DateTimeOffset.UtcNow, words = "a", corrects = "none" }, "corrects");
        await Refused("/api/rigs/tern/log", new { id = "x", kind = "note", at = DateTimeOffset.UtcNow, words = "a", pictures = new[] { new string('0', 64) } },
            "pictures");
        await Refused("/api/rigs/tern/log/table", new { text = "at,words\nyesterday,x" }, "line 2, column at");
        Assert.Equal(404, (await host.Post("/api/walks/none/acts", new { acts = new[] { Act("a", "ended") } })).Status);
        Assert.Equal(404, (await host.Post("/api/rigs/none/walks", new { id = "w", procedure = new { kind = "reopen" } })).Status);
        Assert.DoesNotContain((await host.Get("/api/rigs/tern/log"))["entries"]!.AsArray(), e => (string)e!["id"]! == "x");
    }

    [Fact]
    public async Task A_logbook_goes_out_as_a_table_and_comes_back_once_and_what_is_due_is_a_calendar()
    {
        var host = shared.Host;
        string sparrow = await Copy(host, "sparrow");
        var ask = TestContext.Current.CancellationToken;
        await host.Post("/api/rigs/tern/log", new { id = "formula", kind = "note", at = "2026-11-01T08:00:00+00:00", words = "=1+1, \"quoted\"\nsecond line" });
        string table = await host.Http.GetStringAsync("/api/rigs/tern/log.csv", ask);
        Assert.Contains("'=1+1", table, StringComparison.Ordinal);
        var tern = (await host.Get("/api/rigs/tern/log"))["entries"]!.AsArray();
        Assert.Equal(0, (int)(await host.Post("/api/rigs/tern/log/table", new { text = table })).Body["added"]!);
        Assert.Equal(tern.Count, (int)(await host.Post($"/api/rigs/{sparrow}/log/table", new { text = table })).Body["added"]!);
        var read = (await host.Get($"/api/rigs/{sparrow}/log"))["entries"]!.AsArray();
        Assert.Equal(tern.Select(e => e!.ToJsonString()), read.Select(e => e!.ToJsonString()));
        // Without ids, lines are known by what they say; a table with semicolons has commas for decimals.
        const string bare = "at;words;outdoor_c\n2025-10-01;first frost;-1,5\n2025-10-01;first frost;-1,5\n";
        Assert.Equal(2, (int)(await host.Post($"/api/rigs/{sparrow}/log/table", new { text = bare })).Body["added"]!);
        Assert.Equal(0, (int)(await host.Post($"/api/rigs/{sparrow}/log/table", new { text = bare })).Body["added"]!);
        // A day for each thing that is due, with an id that stays.
        async Task<(string[] Ids, string[] Days)> Calendar()
        {
            string[] lines = (await host.Http.GetStringAsync("/api/rigs/tern/calendar.ics?place=osmerPlain", ask)).ReplaceLineEndings("\n").Split('\n');
            Assert.Equal(("BEGIN:VCALENDAR", 1), (lines[0], lines.Count(l => l == "END:VCALENDAR")));
            return ([.. lines.Where(l => l.StartsWith("UID:", StringComparison.Ordinal))], [.. lines.Where(l => l.StartsWith("DTSTART",
                StringComparison.Ordinal))]);
        }
        var before = await Calendar();
        Assert.Contains(before.Ids, i => i.Contains("tank-clean.tern@", StringComparison.Ordinal));
        Assert.Contains(before.Ids, i => i.Contains("first-frost.tern@", StringComparison.Ordinal));
        await host.Post("/api/rigs/tern/log", new { id = "changed", kind = "care", at = DateTimeOffset.UtcNow, words = "Changed", care = "tank-clean" });
        var after = await Calendar();
        Assert.Equal(before.Ids.Order(), after.Ids.Order());
        Assert.NotEqual(before.Days.Order(), after.Days.Order());
        // Every 0 months is never.
        using var put = await host.Http.PutAsJsonAsync("/api/rigs/tern/reminders", new
        {
            id = "tank-clean",
            name = "Clean it",
            everyMonths = 0,
            laidUpOnly = false
        },
            ask);
        Assert.Equal(204, (int)put.StatusCode);
        Assert.DoesNotContain((await Calendar()).Ids, i => i.Contains("tank-clean.tern@", StringComparison.Ordinal));
    }
}
