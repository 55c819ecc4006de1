using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Text.Json;
using WarmConduit.Core.Rigs;
using WarmConduit.Server.Jobs;
using WarmConduit.Store;

namespace WarmConduit.Server.Changes;

/// <summary>Live updates.</summary>
internal static class ChangeEndpoints
{
    public static void Map(IEndpointRouteBuilder api) => api.MapGet("/changes", (ChangeFeed feed, IHostApplicationLifetime life, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(Until(feed, life.ApplicationStopping, cancel)))
        .WithName("listenChanges").WithTags("Changes")
            .WithSummary("Server-sent events: “change” for every change on the shelf, of all rigs, “log” for the logbooks and walk-throughs, “job” for how " +
            "far jobs have come, and “replaced” where a backup was restored: one stream is enough for all windows of a browser.")
        .Produces<ShelfChange>(contentType: "text/event-stream");

    private static async IAsyncEnumerable<SseItem<string>> Until(ChangeFeed feed, CancellationToken stopping, [EnumeratorCancellation] CancellationToken gone)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(gone, stopping);
        var changes = feed.Listen(either.Token).GetAsyncEnumerator(either.Token);
        await using (changes.ConfigureAwait(false))
        {
            var next = changes.MoveNextAsync().AsTask();
            // The stream is open once something has come over it.
            yield return new SseItem<string>("null", "ready");
            while (true)
            {
                try
                {
                    if (!await next) yield break;
                }
                catch (OperationCanceledException)
                {
                    yield break;
                }
                yield return new SseItem<string>(JsonSerializer.Serialize(changes.Current, changes.Current.GetType(), RigFile.Compact),
                    changes.Current switch { JobProgress => "job", ShelfReplaced => "replaced", LogChange => "log", _ => "change" });
                next = changes.MoveNextAsync().AsTask();
            }
        }
    }
}
