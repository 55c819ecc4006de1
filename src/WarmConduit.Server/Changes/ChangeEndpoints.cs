using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using WarmConduit.Store;

namespace WarmConduit.Server.Changes;

/// <summary>Live updates.</summary>
internal static class ChangeEndpoints
{
    public static void Map(IEndpointRouteBuilder api) => api.MapGet("/changes", (ChangeFeed feed, IHostApplicationLifetime life, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(Until(feed, life.ApplicationStopping, cancel)))
        .WithName("listenChanges").WithTags("Changes").WithSummary("Server-sent events of every change on the shelf, of all rigs: one stream is enough for all windows of a browser.")
        .Produces<ShelfChange>(contentType: "text/event-stream");

    private static async IAsyncEnumerable<SseItem<ShelfChange?>> Until(ChangeFeed feed, CancellationToken stopping, [EnumeratorCancellation] CancellationToken gone)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(gone, stopping);
        var changes = feed.Listen(either.Token).GetAsyncEnumerator(either.Token);
        await using (changes.ConfigureAwait(false))
        {
            var next = changes.MoveNextAsync().AsTask();
            // The stream is open once something has come over it.
            yield return new SseItem<ShelfChange?>(null, "ready");
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
                yield return new SseItem<ShelfChange?>(changes.Current, "change");
                next = changes.MoveNextAsync().AsTask();
            }
        }
    }
}
