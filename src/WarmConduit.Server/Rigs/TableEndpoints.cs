using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.Tables;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Tables;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Units;
using WarmConduit.Server.Hosting;
using WarmConduit.Store;

namespace WarmConduit.Server.Rigs;

/// <summary>A table to read for a rig.</summary>
/// <param name="Base">The revision of the rig.</param>
/// <param name="Text">The table, its first line naming the columns; divided by commas, semicolons or tabs.</param>
/// <param name="System">The system in which bare numbers are meant, where the heading names no unit.</param>
public sealed record TableRequest(int Base, string Text, UnitSystem System);

/// <summary>A part in words, to be read for a rig.</summary>
/// <param name="Base">The revision of the rig.</param>
/// <param name="Text">What was typed, at most 200 characters.</param>
/// <param name="System">The system in which a bare number is meant.</param>
/// <param name="PartId">Id of the new part.</param>
/// <param name="RunId">Id of the run that joins it.</param>
public sealed record PlaceRequest(int Base, string Text, UnitSystem System, string PartId, string RunId);

/// <summary>Parts and runs as tables and in words over HTTP.</summary>
internal static class TableEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var rigs = api.MapGroup("/rigs").WithTags("Tables");
        rigs.MapGet("/{id}/parts.csv", (string id, Shelf shelf, CancellationToken cancel) => Table(id, "parts", RigTables.Parts, shelf, cancel))
            .Produces(200, contentType: "text/csv").WithName("getPartsTable").WithSummary("The parts of a rig as a table.").ProducesProblem(404);
        rigs.MapGet("/{id}/runs.csv", (string id, Shelf shelf, CancellationToken cancel) => Table(id, "runs", RigTables.Runs, shelf, cancel))
            .Produces(200, contentType: "text/csv").WithName("getRunsTable").WithSummary("The runs of a rig as a table, a line for each point.")
                .ProducesProblem(404);
        rigs.MapPost("/{id}/table", async Task<Results<Ok<TableRead>, NotFound>> (string id, TableRequest ask, Shelf shelf, CancellationToken cancel) =>
            await shelf.Revision(id, ask.Base, cancel) is { } rig ? TypedResults.Ok(RigTableText.Read(rig, ask.Text, ask.System)) : TypedResults.NotFound())
            .RequireRateLimiting(Limits.Work).WithName("readTable").WithSummary("What a table of parts or runs would do to a rig. Nothing is saved.")
                .ProducesProblem(404);
        rigs.MapPost("/{id}/words", InWords).Produces<PlaceRead>().WithName("readPlace")
            .WithSummary("Reads a part with its place and what it joins in plain words, such as: place cold tap at 1.2 m, 30 cm, 40 cm joining fresh tank " +
                "outlet. Nothing is saved.").ProducesProblem(404);
    }

    private static async Task<IResult> InWords(string id, PlaceRequest ask, Shelf shelf, CancellationToken cancel)
    {
        if (ask.Text.Length > 200) return ProblemAnswers.Refused([new RigFault("text", "it is longer than 200 characters")]);
        if (await shelf.Revision(id, ask.Base, cancel) is not { } rig) return TypedResults.NotFound();
        try
        {
            return TypedResults.Ok(PlaceWords.Read(rig, ask.Text, ask.System, ask.PartId, ask.RunId));
        }
        catch (QuantityFormatException e)
        {
            return ProblemAnswers.Refused([new RigFault("text", $"{e.Message} (at character {e.Position + 1})")]);
        }
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> Table(string id, string what, Func<Rig, IEnumerable<IReadOnlyList<string>>> rows,
        Shelf shelf, CancellationToken cancel) =>
        await shelf.Find(id, cancel) is { Rig: { } rig } ? TypedResults.File(Encoding.UTF8.GetBytes(RigTableText.Write(rows(rig))), "text/csv; charset=utf-8",
            $"{id}.{what}.csv") : TypedResults.NotFound();
}
