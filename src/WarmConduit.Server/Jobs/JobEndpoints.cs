using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.Answers;
using WarmConduit.Server.Sharing;

namespace WarmConduit.Server.Jobs;

/// <summary>Questions that take long.</summary>
internal static class JobEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var jobs = api.MapGroup("/jobs").WithTags("Jobs");
        jobs.MapPost("/", async Task<Results<Ok<JobProgress>, NotFound>> (AnswersRequest ask, AnswerDesk desk, JobBoard board, CancellationToken cancel) =>
                await desk.Check(ask, cancel) is { } question ? TypedResults.Ok(board.Start(question)) : TypedResults.NotFound())
            .ProducesProblem(404).WithMetadata(new GuestsToo()).WithName("startJob")
                .WithSummary("Starts long work. The change stream reports progress; it stops unless it is asked for at " +
                "least every 20 seconds.");
        jobs.MapGet("/{id}", async Task<Results<Ok<JobState>, NotFound>> (string id, JobBoard board) => await board.Fetch(id) is { } state
            ? TypedResults.Ok(state) : TypedResults.NotFound())
            .ProducesProblem(404).ProducesProblem(422).WithName("fetchJob")
                .WithSummary("How far a job has come, and its answers once it is done: those are handed out once.");
        jobs.MapDelete("/{id}", Results<NoContent, NotFound> (string id, JobBoard board) => board.Stop(id) ? TypedResults.NoContent() : TypedResults.NotFound())
            .ProducesProblem(404).WithMetadata(new GuestsToo()).WithName("stopJob").WithSummary("Stops a job.");
    }
}
