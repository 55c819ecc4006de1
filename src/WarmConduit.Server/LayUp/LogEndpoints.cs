using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.LayUp;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;
using WarmConduit.Store;

namespace WarmConduit.Server.LayUp;

/// <summary>A logbook as text, to be read.</summary>
/// <param name="Text">The table, its first line naming the columns; divided by commas, semicolons or tabs.</param>
public sealed record LogText(string Text);

/// <summary>What reading a table did.</summary>
/// <param name="Added">Entries that were new.</param>
public sealed record LogRead(int Added);

/// <summary>Logbooks over HTTP.</summary>
internal static class LogEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var rigs = api.MapGroup("/rigs/{id}").WithTags("Logbook");
        rigs.MapGet("/log", async Task<Results<Ok<LogAnswer>, NotFound>> (string id, string? place, LogDesk desk, CancellationToken cancel) =>
                await desk.Of(id, PlaceOf(place), cancel) is { } log ? TypedResults.Ok(log) : TypedResults.NotFound())
            .WithName("getLog").WithSummary("The logbook of a rig: entries, what is due, and water collected against water expected.").ProducesProblem(404);
        rigs.MapGet("/due", async Task<Results<Ok<IReadOnlyList<CareDue>>, NotFound>> (string id, LogDesk desk, CancellationToken cancel) =>
                await desk.Due(id, cancel) is { } due ? TypedResults.Ok(due) : TypedResults.NotFound())
            .WithName("getDue").WithSummary("What is due at a rig, the next first.").ProducesProblem(404);
        rigs.MapPost("/log", async Task<Results<Ok<LogEntry>, NotFound>> (string id, LogEntry entry, LogDesk desk, CancellationToken cancel) =>
                await desk.Write(id, entry, cancel) is { } written ? TypedResults.Ok(written) : TypedResults.NotFound())
            .WithMetadata(new GuestsToo()).WithName("writeLog")
                .WithSummary("Writes an entry. None is ever changed: a later one corrects it.").ProducesProblem(404);
        rigs.MapGet("/log.csv", async Task<Results<FileContentHttpResult, NotFound>> (string id, LogDesk desk, CancellationToken cancel) =>
                await desk.Of(id, null, cancel) is { } log
                    ? TypedResults.File(Encoding.UTF8.GetBytes(LogTable.Write(log.Entries)), "text/csv; charset=utf-8", $"{id}.log.csv")
                        : TypedResults.NotFound())
            .Produces(200, contentType: "text/csv").WithName("getLogTable").WithSummary("The logbook as a table.").ProducesProblem(404);
        rigs.MapPost("/log/table", async Task<Results<Ok<LogRead>, NotFound>> (string id, LogText sent, LogDesk desk, CancellationToken cancel) =>
                await desk.Read(id, sent.Text, cancel) is { } added ? TypedResults.Ok(new LogRead(added)) : TypedResults.NotFound())
            .RequireRateLimiting(Limits.Work).WithName("readLogTable")
                .WithSummary("Writes the entries of a table, all or none; those known already stay as they " +
                "are.").ProducesProblem(404);
        rigs.MapGet("/calendar.ics", async Task<Results<FileContentHttpResult, NotFound>> (string id, string? place, LogDesk desk, Shelf shelf,
            TimeProvider time,
                CancellationToken cancel) =>
                await desk.Of(id, PlaceOf(place), cancel) is { } log && await shelf.Find(id, cancel) is { } rig ? TypedResults.File(
                    Encoding.UTF8.GetBytes(CareFile.Write(id, rig.Rig?.Name ?? id, log.Due, time.GetUtcNow())), "text/calendar; charset=utf-8", $"{id}.ics")
                    : TypedResults.NotFound())
            .Produces(200, contentType: "text/calendar").WithName("getCalendar").WithSummary("What is due next as a calendar file.").ProducesProblem(404);
        rigs.MapPut("/reminders", async Task<Results<NoContent, NotFound>> (string id, Reminder reminder, LogDesk desk, CancellationToken cancel) =>
                await desk.Set(id, reminder, cancel) ? TypedResults.NoContent() : TypedResults.NotFound())
            .WithName("setReminder").WithSummary("Sets a reminder; every 0 months: never.").ProducesProblem(404);
    }

    private static WeatherPlace? PlaceOf(string? place) => place is null ? null
        : WeatherModel.Named(place) ?? throw new RigFileException([new RigFault("place", "this place is not known")]);
}
