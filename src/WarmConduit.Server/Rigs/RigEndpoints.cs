using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Server.Hosting;
using WarmConduit.Store;

namespace WarmConduit.Server.Rigs;

/// <summary>A rig on the shelf with its verdict.</summary>
public sealed record ShelfCard(ShelvedRig Shelved, StandingAnswer Standing);

/// <summary>A save: the whole document, and the revision it was edited from.</summary>
public sealed record SaveRequest(int BaseRevision, string What, Rig Rig) : IChecked
{
    IEnumerable<RigFault> IChecked.Check()
    {
        if (string.IsNullOrWhiteSpace(What) || What.Length > 200) yield return new RigFault("what", "say in 1 to 200 characters what was done");
        foreach (var fault in CheckedBodies.Of(Rig)) yield return fault;
    }
}

/// <summary>An undo or redo, from the revision that is thought to be current.</summary>
public sealed record MoveRequest(int BaseRevision);

/// <summary>The shelf of rigs over HTTP.</summary>
internal static class RigEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/schema/rig", () => TypedResults.Ok(RigFile.Schema())).WithTags("Rigs").Produces<JsonNode>();
        var rigs = api.MapGroup("/rigs").WithTags("Rigs");
        rigs.MapGet("/", async (Shelf shelf, CancellationToken cancel) =>
            TypedResults.Ok((await shelf.All(cancel)).Select(Card).ToArray()));
        rigs.MapPost("/", Open).Accepts<Rig>("application/json").Produces<ShelvedRig>(StatusCodes.Status201Created);
        rigs.MapGet("/{id}", async Task<Results<Ok<ShelfCard>, NotFound>> (string id, Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.Find(id, cancel) is { } rig ? Card(rig) : null));
        rigs.MapPut("/{id}", Save).ProducesProblem(StatusCodes.Status409Conflict);
        rigs.MapDelete("/{id}", async Task<Results<NoContent, NotFound>> (string id, Shelf shelf, CancellationToken cancel) =>
            await shelf.Remove(id, cancel) ? TypedResults.NoContent() : TypedResults.NotFound());
        rigs.MapPost("/{id}/undo", async Task<Results<Ok<ShelvedRig>, NotFound>> (string id, MoveRequest move, Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.Undo(id, move.BaseRevision, cancel))).ProducesProblem(StatusCodes.Status409Conflict);
        rigs.MapPost("/{id}/redo", async Task<Results<Ok<ShelvedRig>, NotFound>> (string id, MoveRequest move, Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.Redo(id, move.BaseRevision, cancel))).ProducesProblem(StatusCodes.Status409Conflict);
        rigs.MapGet("/{id}/revisions", async (string id, Shelf shelf, CancellationToken cancel) => TypedResults.Ok(await shelf.History(id, cancel)));
        rigs.MapGet("/{id}/revisions/{number:int}", async Task<Results<Ok<Rig>, NotFound>> (string id, int number, Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.Revision(id, number, cancel)));
        rigs.MapGet("/{id}/file", async Task<Results<FileContentHttpResult, NotFound>> (string id, Shelf shelf, CancellationToken cancel) =>
            await shelf.Find(id, cancel) is { } found
                ? TypedResults.File(System.Text.Encoding.UTF8.GetBytes(RigFile.Write(found.Rig)), "application/json", $"{id}.rig.json")
                : TypedResults.NotFound()).Produces(StatusCodes.Status200OK, contentType: "application/json");
    }

    private static ShelfCard Card(ShelvedRig shelved) => new(shelved, StandingStudy.Ask(shelved.Rig));

    private static async Task<IResult> Open(HttpRequest request, Shelf shelf, CancellationToken cancel)
    {
        // The raw bytes are read, so that the file is refused by the file's own reader and its version is seen first.
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        var rig = RigFile.Read(bytes.GetBuffer().AsSpan(0, (int)bytes.Length));
        var added = await shelf.Add(rig, "Opened from a file", cancel);
        return TypedResults.Created($"/api/rigs/{added.Rig.Id}", added);
    }

    private static async Task<Results<Ok<ShelvedRig>, NotFound, ValidationProblem>> Save(string id, SaveRequest save, Shelf shelf, CancellationToken cancel)
    {
        if (save.Rig.Id != id) throw new RigFileException([new RigFault("rig.id", "it is not the id in the address")]);
        return await shelf.Save(save.Rig, save.BaseRevision, save.What, cancel) is { } saved ? TypedResults.Ok(saved) : TypedResults.NotFound();
    }

    private static Results<Ok<T>, NotFound> Found<T>(T? value)
        where T : class => value is null ? TypedResults.NotFound() : TypedResults.Ok(value);
}
