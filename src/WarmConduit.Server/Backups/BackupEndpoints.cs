using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.Backups;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;
using WarmConduit.Store;

namespace WarmConduit.Server.Backups;

/// <summary>Backups over HTTP.</summary>
internal static class BackupEndpoints
{
    /// <summary>Where a backup is sent to.</summary>
    public const string Path = "/api/backup";

    /// <summary>Largest backup that is taken, bytes.</summary>
    public const long MaxBody = 4_000_000_000;

    /// <summary>Its content type.</summary>
    public const string ContentType = "application/octet-stream";

    public static void Map(IEndpointRouteBuilder api)
    {
        var backup = api.MapGroup("/backup").WithMetadata(new HereOnly()).WithTags("Backup");
        backup.MapGet("/state", async (BackupDesk desk, ShelfContext db, CancellationToken cancel) => TypedResults.Ok(await desk.State(db, cancel)))
            .WithName("getBackupState").WithSummary("When the last backup was taken, and whether one is due.");
        backup.MapGet("/", async (BackupDesk desk, ShelfContext db, TimeProvider time, CancellationToken cancel) =>
                TypedResults.File(await desk.Take(db, cancel), ContentType,
                    string.Create(CultureInfo.InvariantCulture, $"warm-conduit-{time.GetLocalNow():yyyy-MM-dd}.backup")))
            .Produces(200, contentType: ContentType).WithName("takeBackup").WithSummary("All data as one file, at one moment, while the program runs.");
        backup.MapPost("/", async (HttpRequest request, BackupDesk desk, CancellationToken cancel) => TypedResults.Ok(await desk.Receive(request.Body, cancel)))
            .Accepts<Stream>(ContentType).WithName("checkBackup").WithSummary("Reads a backup and checks it. Nothing is changed yet.");
        backup.MapPost("/{id}/restore", async Task<Results<Ok<RestoredBackup>, NotFound>> (string id, BackupDesk desk, ShelfContext db, ShelfReady ready,
            ChangeFeed feed, CancellationToken cancel) =>
            {
                if (await desk.Restore(id, db, ready.Reopen, cancel) is not { } restored) return TypedResults.NotFound();
                feed.Tell(new ShelfReplaced());
                return TypedResults.Ok(restored);
            })
            .Accepts<object>("application/json").ProducesProblem(404).WithName("restoreBackup")
                .WithSummary("Replaces all data with a checked backup. What was there is saved as a file in the data folder.");
    }
}
