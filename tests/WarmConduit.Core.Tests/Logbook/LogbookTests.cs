using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Logbook;

public class LogbookTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 30, 12, 0, 0, TimeSpan.Zero);

    private static ProcedureStep Step(string id) => new(id, id, [], [], null, null, null, null, false, null, null, null, []);

    private static readonly Walk Empty = new("w", "tern", 3, Now, null, null, Conditions.Of(DemoRigs.Of("tern").Brief),
        new ProcedureAnswer(ProcedureKind.AirLayUp, "Lay up", [], [], [Step("a"), Step("b")], [], 0, 0, 0, 0, 0, 0, []), []);

    [Fact]
    public void The_first_of_two_devices_wins_a_step_until_it_is_opened_again()
    {
        var walk = Empty;
        WalkAct? Take(WalkActKind kind, string? step, string who, string? reason = null)
        {
            var act = new WalkAct($"act-{walk.Acts.Count}-{who}", kind, Now.AddSeconds(walk.Acts.Count), step, who, null, reason);
            if (walk.Before(act) is { } first) return first;
            walk = walk with { Acts = [.. walk.Acts, act] };
            return null;
        }
        Assert.Null(Take(WalkActKind.Timer, "a", "ann"));
        Assert.Equal("ann", Take(WalkActKind.Timer, "a", "bo")!.Who);
        Assert.Null(Take(WalkActKind.Done, "a", "bo"));
        Assert.Equal("bo", Take(WalkActKind.Skipped, "a", "ann", "frozen")!.Who);
        Assert.Null(Take(WalkActKind.Skipped, "b", "ann", "frozen"));
        Assert.Equal([StepStand.Done, StepStand.Skipped], walk.Steps().Select(s => s.Stand));
        Assert.Equal(("frozen", "ann"), (walk.Steps()[1].Reason, walk.Steps()[1].Who));
        // Opened again it can be done by whoever comes first; its timer starts anew.
        Assert.Null(Take(WalkActKind.Reopened, "a", "ann"));
        Assert.NotNull(Take(WalkActKind.Reopened, "a", "bo"));
        Assert.Null(walk.Steps()[0].TimerAt);
        Assert.Null(Take(WalkActKind.Timer, "a", "bo"));
        Assert.Null(Take(WalkActKind.Done, "a", "ann"));
        Assert.Null(Take(WalkActKind.Ended, null, "ann"));
        Assert.Equal(walk.EndedAt, Take(WalkActKind.Reopened, "b", "bo")!.At);
        // What is missing or out of range is named.
        Assert.Equal(["stepId", "litres"], new WalkAct("x", WalkActKind.Measured, Now, "c").Check(walk.Procedure).Select(f => f.Path));
        Assert.Equal(["reason"], new WalkAct("x", WalkActKind.Skipped, Now, "a").Check(walk.Procedure).Select(f => f.Path));
    }

    [Fact]
    public void Care_is_due_by_hand()
    {
        var since = new DateTimeOffset(2026, 4, 10, 0, 0, 0, TimeSpan.Zero);
        LogEntry Done(string id, string care, DateTimeOffset at, string? corrects = null) => new(id, LogKind.Care, at, "done", Care: care, Corrects: corrects);
        LogEntry[] entries = [Done("e1", "tank-clean", new(2026, 8, 31, 0, 0, 0, TimeSpan.Zero)), Done("e2", "filter", new(2026, 11, 1, 0, 0, 0,
            TimeSpan.Zero)),
            new("e3", LogKind.Note, Now, "The filter was not changed after all", Corrects: "e2")];
        IReadOnlyList<CareDue> Due(bool wet, params Reminder[] own) =>
            CareCalendar.Of(own, entries, new CareState(since, Now, wet, new DateTimeOffset(2026, 11, 20, 0, 0, 0, TimeSpan.Zero)), WeatherPlace.BrennickQuay);
        DateOnly Of(IReadOnlyList<CareDue> due, string id) => due.Single(d => d.Id == id).DueOn;
        var wet = Due(true);
        // The end of a short month; what is corrected does not count, so the filter goes by the day the rig came.
        Assert.Equal(new DateOnly(2027, 2, 28), Of(wet, "tank-clean"));
        Assert.Equal(new DateOnly(2026, 10, 10), Of(wet, "filter"));
        Assert.Equal(new DateOnly(2027, 4, 10), Of(wet, "leak-look"));
        Assert.Equal(new DateOnly(2026, 12, 20), Of(wet, CareCalendar.Backup));
        Assert.Equal(wet.OrderBy(d => d.DueOn).Select(d => d.Id), wet.Select(d => d.Id));
        Assert.All(wet, d => Assert.Equal(d.DueOn <= new DateOnly(2026, 11, 30), d.IsDue));
        // Wet in the season of frost: now. Laid up, the battery counts instead.
        Assert.Equal(new DateOnly(2026, 11, 30), Of(wet, CareCalendar.FirstFrost));
        Assert.DoesNotContain(wet, d => d.Id == "battery");
        // Kept warm, it waits for no frost; without a filter none is changed, unless the builder says so.
        IReadOnlyList<CareDue> Warm(params Reminder[] own) => CareCalendar.Of(own, [], new CareState(since, Now, true, null, false, true),
            WeatherPlace.KettleFell);
        Assert.DoesNotContain(Warm(), d => d.Id is "filter" or CareCalendar.FirstFrost);
        Assert.Contains(Warm(new Reminder("filter", "The jug's filter", 2)), d => d.Id == "filter");
        var laidUp = Due(false, new Reminder("battery", "Charge it", 2), new Reminder("filter", "Filter", 0), new Reminder("roof", "Wash the roof", 12));
        Assert.DoesNotContain(laidUp, d => d.Id is CareCalendar.FirstFrost or "filter");
        Assert.Equal(new DateOnly(2026, 6, 10), Of(laidUp, "battery"));
        Assert.Equal(new DateOnly(2027, 4, 10), Of(laidUp, "roof"));
    }

    [Fact]
    public void The_first_frost_is_told_early()
    {
        foreach (var place in Enum.GetValues<WeatherPlace>())
        {
            var (first, last) = Frost.Season(place);
            // By hand, over other winters: no more than a few of twenty have an earlier frost.
            int earlier = Enumerable.Range(21, 20).Count(w => WeatherModel.Winter(place, w).Take(first * 24).Any(h => h.TemperatureC <= 0));
            Assert.InRange(earlier, 0, 6);
            Assert.InRange(last, first, WeatherModel.LastDay);
            Assert.Equal(new DateOnly(2027, 10, 1).AddDays(first), Frost.Next(place, new DateOnly(2027, 6, 1)));
            // Within the season it is any night now.
            var middle = new DateOnly(2027, 1, 15);
            Assert.Equal(middle, Frost.Next(place, middle));
        }
        Assert.True(Frost.Season(WeatherPlace.OsmerPlain).First <= Frost.Season(WeatherPlace.BrennickQuay).First);
    }

    [Fact]
    public void A_drain_that_clogs_shows_over_the_years()
    {
        LogEntry Jug(string id, int year, double came, string thing = "parts/drain-a", string? corrects = null) =>
            new(id, LogKind.Litres, new(year, 10, 5, 0, 0, 0, TimeSpan.Zero), "", Thing: thing, ThingName: thing[6..], ExpectedL: 2.6, CollectedL: came,
                Corrects: corrects);
        var clogs = Assert.Single(Collected.Of([Jug("c", 2026, 2.0), Jug("a", 2024, 2.5), Jug("b", 2025, 2.45)]));
        Assert.Equal(("drain-a", true), (clogs.Name, clogs.Clogs));
        Assert.Equal([2.5, 2.45, 2.0], clogs.Jugs.Select(j => j.CollectedL));
        // Misread, and corrected: it does not.
        Assert.False(Assert.Single(Collected.Of([Jug("c", 2026, 2.0), Jug("a", 2024, 2.5), Jug("d", 2026, 2.5, corrects: "c")])).Clogs);
        // Short from the first day is no clog: the drawing is wrong, or the slope.
        Assert.False(Assert.Single(Collected.Of([Jug("a", 2024, 1.9), Jug("c", 2026, 2.0)])).Clogs);
        Assert.Equal(["b", "a"], Collected.Of([Jug("1", 2024, 2.5, "parts/a"), Jug("2", 2024, 2.5, "parts/b"), Jug("3", 2025, 1, "parts/b")]).Select(c =>
            c.Name));
    }
}
