using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using WarmConduit.Application.LayUp;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Pictures;
using WarmConduit.Store;

namespace WarmConduit.Server.Rigs;

/// <summary>A card on the shelf. A rig that cannot be read has its reason, and no name of its own.</summary>
/// <param name="Id">The rig.</param>
/// <param name="Revision">Its current revision.</param>
/// <param name="Name">Its name; its id when it cannot be read.</param>
/// <param name="Unreadable">Why it cannot be read; null when it can.</param>
/// <param name="Living">Way of living; null when it cannot be read.</param>
/// <param name="School">Freeze school; null when it cannot be read.</param>
/// <param name="What">What was done last.</param>
/// <param name="SavedAt">When.</param>
public sealed record ShelfCard(string Id, int Revision, string Name, string? Unreadable, WayOfLiving? Living, FreezeSchool? School, Sentence What,
    DateTimeOffset SavedAt);

/// <summary>The rigs on the shelf, and the deleted ones that can still be restored.</summary>
/// <param name="Rigs">Rigs, in the order they came.</param>
/// <param name="Removed">Rigs that can be restored, newest first.</param>
public sealed record ShelfAnswer(IReadOnlyList<ShelfCard> Rigs, IReadOnlyList<RemovedRig> Removed);

/// <summary>The builder's own part, and the rig it is in.</summary>
/// <param name="Part">As it is there.</param>
/// <param name="RigName">Name of that rig.</param>
public sealed record OwnPart(Part Part, string RigName);

/// <summary>A rig with its current revision.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Revision">Number of the current revision.</param>
/// <param name="Rig">The document.</param>
/// <param name="What">What was done last.</param>
/// <param name="SavedAt">When.</param>
public sealed record OpenRig(string Id, int Revision, Rig Rig, Sentence What, DateTimeOffset SavedAt);

/// <summary>Edits, and the revision they were made on.</summary>
/// <param name="Base">That revision.</param>
/// <param name="Edits">1 to 1000 edits, done in their order, all or none.</param>
/// <param name="Key">The sender's own name for this save, 1 to 40 characters, unique: sent again, it is the same save. Left out: none.</param>
public sealed record EditsRequest(int Base, IReadOnlyList<Edit> Edits, string? Key = null);

/// <summary>The revision the sender has as current.</summary>
/// <param name="Base">Its number.</param>
public sealed record BaseRequest(int Base);

/// <summary>What differs between a revision and the current one.</summary>
/// <param name="Revision">The current revision.</param>
/// <param name="Effect">The edits that make it.</param>
/// <param name="What">What was done last.</param>
/// <param name="SavedAt">When.</param>
public sealed record Since(int Revision, Effect Effect, Sentence What, DateTimeOffset SavedAt);

/// <summary>A rig whose stored document cannot be read, and why.</summary>
internal sealed class UnreadableException(string reason) : Exception(reason);

/// <summary>The shelf of rigs over HTTP.</summary>
internal static class RigEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/schema/rig", () => TypedResults.Ok(RigFile.Schema())).WithName("getRigSchema").WithTags("Rigs").WithSummary("JSON Schema of the rig file.")
            .Produces<JsonNode>();
        api.MapGet("/own-parts", async (Shelf shelf, CancellationToken cancel) => TypedResults.Ok(OwnParts(await shelf.All(cancel))))
            .WithName("getOwnParts").WithTags("Rigs").WithSummary("The builder's own parts, from every rig on the shelf; the first of each name and " +
                "kind.");
        var rigs = api.MapGroup("/rigs").WithTags("Rigs");
        rigs.MapGet("/", async (Shelf shelf, CancellationToken cancel) =>
            TypedResults.Ok(new ShelfAnswer([.. (await shelf.All(cancel)).Select(Card)], await shelf.Removed(cancel))))
            .WithName("getShelf").WithSummary("Every rig on the shelf as a card, and those that can be brought back.");
        rigs.MapPost("/", Open).RequireRateLimiting(Limits.Work).Accepts<Rig>("application/json").Produces<OpenRig>(201)
            .WithName("openRigFile").WithSummary("Puts the rig of a file on the shelf. Files of older versions are brought up to date.");
        rigs.MapGet("/{id}", async Task<Results<Ok<OpenRig>, NotFound>> (string id, Shelf shelf, CancellationToken cancel) =>
            await shelf.Find(id, cancel) is { } found ? TypedResults.Ok(Opened(found)) : TypedResults.NotFound())
            .WithName("getRig").WithSummary("A rig with its current revision.").ProducesProblem(404).ProducesProblem(422);
        rigs.MapPost("/{id}/edits", Save)
            .WithName("saveEdits").WithSummary("Saves edits. On an older base they are carried over where nothing that they touch has changed; else 409 " +
                "names the clash, and both are kept.")
            .ProducesProblem(404).ProducesProblem(409);
        rigs.MapGet("/{id}/since/{revision:int}", SinceRevision).WithName("getSince").WithSummary("The edits from a revision to the current one.")
            .ProducesProblem(404);
        rigs.MapDelete("/{id}", async Task<Results<NoContent, NotFound>> (string id, [FromQuery] int revision, Shelf shelf, CancellationToken cancel) =>
            await shelf.Remove(id, revision, cancel) is true ? TypedResults.NoContent() : TypedResults.NotFound())
            .WithName("removeRig").WithSummary("Deletes a rig, if the revision is still current. It can be restored for 30 days.")
                .ProducesProblem(404).ProducesProblem(409);
        rigs.MapPost("/{id}/bring-back", async Task<Results<Ok<OpenRig>, NotFound>> (string id, Shelf shelf, CancellationToken cancel) =>
            await shelf.BringBack(id, cancel) is { } back ? TypedResults.Ok(Opened(back)) : TypedResults.NotFound())
            .WithName("bringRigBack").WithSummary("Restores a deleted rig.").Accepts<object>("application/json").ProducesProblem(404);
        rigs.MapGet("/{id}/revisions", async (string id, Shelf shelf, CancellationToken cancel) => TypedResults.Ok(await shelf.History(id, cancel)))
            .WithName("getRevisions").WithSummary("The history of a rig, newest first.");
        rigs.MapGet("/{id}/revisions/{number:int}", async Task<Results<Ok<Rig>, NotFound>> (string id, int number, Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.Revision(id, number, cancel)))
            .WithName("getRevision").WithSummary("The document of one revision.").ProducesProblem(404);
        rigs.MapPost("/{id}/revisions/{number:int}/go-back", async Task<Results<Ok<SavedEdits>, NotFound>> (string id, int number, BaseRequest ask,
            Shelf shelf, CancellationToken cancel) =>
            Found(await shelf.GoBack(id, number, ask.Base, cancel)))
            .WithName("goBack").WithSummary("Makes an older revision current again, as a new one.").ProducesProblem(404).ProducesProblem(409);
        rigs.MapPost("/{id}/revisions/{number:int}/copy", Copy).WithName("copyRevision").WithSummary("Makes a new rig of a revision.")
            .Accepts<object>("application/json").Produces<OpenRig>(201).ProducesProblem(404);
        rigs.MapGet("/{id}/file", File).Produces(200, contentType: "application/json").WithName("getRigFile")
            .WithSummary("The rig as a file; one that cannot be read, just as it is stored.").ProducesProblem(404);
    }

    private static async Task<Results<Ok<SavedEdits>, NotFound>> Save(string id, EditsRequest ask, Shelf shelf, LogDesk log, CancellationToken cancel)
    {
        if (ask.Key is { Length: 0 or > 40 }) throw new RigFileException([new RigFault("key", "1 to 40 characters, or left out")]);
        if (await shelf.Save(id, ask.Base, ask.Edits, ask.Key, cancel) is not { } saved) return TypedResults.NotFound();
        await log.Jugs(id, ask.Edits, saved.Revision, CancellationToken.None);
        return TypedResults.Ok(saved);
    }

    private static IReadOnlyList<OwnPart> OwnParts(IEnumerable<ShelvedRig> shelf) =>
        [.. shelf.SelectMany(s => s.Rig is { } rig ? rig.Parts.Where(p => p.Own == true).Select(p => new OwnPart(p, rig.Name)) : [])
            .DistinctBy(o => (o.Part.Stock, o.Part.Name))];

    private static ShelfCard Card(ShelvedRig s) => new(s.Id, s.Revision, s.Rig?.Name ?? s.Id, s.Unreadable, s.Rig?.Brief.Living, s.Rig?.Brief.School,
        s.What, s.SavedAt);

    private static OpenRig Opened(ShelvedRig s) =>
        new(s.Id, s.Revision, s.Rig ?? throw new UnreadableException(s.Unreadable ?? "its document is missing"), s.What, s.SavedAt);

    private static async Task<IResult> Open(HttpRequest request, Shelf shelf, Attachments attachments, CancellationToken cancel)
    {
        // The raw bytes are read, so that the file is refused by the file's own reader and its version is seen first.
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        var (file, pictures) = PictureEndpoints.TakenOut(bytes.GetBuffer().AsMemory(0, (int)bytes.Length));
        var rig = RigFile.Read(file.Span);
        foreach (byte[] picture in pictures) await attachments.Keep(PictureDesk.HashOf(picture), picture, cancel);
        return Created(await shelf.Add(rig, "Opened from a file", cancel));
    }

    private static async Task<IResult> Copy(string id, int number, Shelf shelf, CancellationToken cancel) =>
        await shelf.Revision(id, number, cancel) is { } rig ? Created(await shelf.Add(rig, $"Copied from revision {number} of {rig.Name}", cancel))
            : Results.NotFound();

    internal static Created<OpenRig> Created(ShelvedRig added) => TypedResults.Created($"/api/rigs/{added.Id}", Opened(added));

    private static async Task<Results<Ok<Since>, NotFound>> SinceRevision(string id, int revision, Shelf shelf, CancellationToken cancel)
    {
        if (await shelf.Find(id, cancel) is not { } now || await shelf.Revision(id, revision, cancel) is not { } then) return TypedResults.NotFound();
        return TypedResults.Ok(new Since(now.Revision, RigDiff.Between(then, Opened(now).Rig), now.What, now.SavedAt));
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> File(string id, Shelf shelf, Attachments attachments, CancellationToken cancel)
    {
        if (await shelf.Find(id, cancel) is not { } found) return TypedResults.NotFound();
        byte[] bytes = found.Rig is { } rig ? await PictureEndpoints.PutIn(rig, Encoding.UTF8.GetBytes(RigFile.Write(rig)), attachments, cancel)
            : (await shelf.Raw(id, cancel))!;
        return TypedResults.File(bytes, "application/json", $"{id}.rig.json");
    }

    private static Results<Ok<T>, NotFound> Found<T>(T? value)
        where T : class => value is null ? TypedResults.NotFound() : TypedResults.Ok(value);
}
