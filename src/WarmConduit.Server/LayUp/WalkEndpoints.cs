using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.LayUp;
using WarmConduit.Core.Logbook;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;

namespace WarmConduit.Server.LayUp;

/// <summary>Acts on a walk-through.</summary>
/// <param name="Acts">1 to 200 acts, taken in their order.</param>
public sealed record ActsRequest(IReadOnlyList<WalkAct> Acts);

/// <summary>Walk-throughs over HTTP.</summary>
internal static class WalkEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var rigs = api.MapGroup("/rigs/{id}/walks").WithTags("Walk-throughs");
        rigs.MapGet("/", async Task<Results<Ok<IReadOnlyList<WalkCard>>, NotFound>> (string id, WalkDesk desk, CancellationToken cancel) =>
                await desk.All(id, cancel) is { } walks ? TypedResults.Ok(walks) : TypedResults.NotFound())
            .WithName("getWalks").WithSummary("The walk-throughs of a rig, the newest first.").ProducesProblem(404);
        rigs.MapPost("/", async Task<Results<Ok<WalkView>, NotFound>> (string id, BeginWalk ask, WalkDesk desk, CancellationToken cancel) =>
                await desk.Begin(id, ask, cancel) is { } walk ? TypedResults.Ok(walk) : TypedResults.NotFound())
            .RequireRateLimiting(Limits.Work).WithMetadata(new GuestsToo()).WithName("beginWalk")
                .WithSummary("Begins a walk-through of a procedure made from the rig as it stands.")
            .ProducesProblem(404);
        var walks = api.MapGroup("/walks/{id}").WithTags("Walk-throughs");
        walks.MapGet("/", async Task<Results<Ok<WalkView>, NotFound>> (string id, WalkDesk desk, CancellationToken cancel) =>
                await desk.Find(id, cancel) is { } walk ? TypedResults.Ok(walk) : TypedResults.NotFound())
            .WithName("getWalk").WithSummary("A walk-through as it stands.").ProducesProblem(404);
        walks.MapPost("/acts", async Task<Results<Ok<ActsAnswer>, NotFound>> (string id, ActsRequest ask, WalkDesk desk, CancellationToken cancel) =>
                await desk.Take(id, ask.Acts, cancel) is { } answer ? TypedResults.Ok(answer) : TypedResults.NotFound())
            .WithMetadata(new GuestsToo()).WithName("takeActs")
                .WithSummary("Says what happened. Of two devices that say one thing of a step, the first wins, and the other is told. What is " +
                "sent again does nothing twice.").ProducesProblem(404);
    }
}
