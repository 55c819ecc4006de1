using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Application.Answers;
using WarmConduit.Server.Sharing;

namespace WarmConduit.Server.Answers;

/// <summary>Answers without saving.</summary>
internal static class AnswerEndpoints
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(10);

    public static void Map(IEndpointRouteBuilder api) => api.MapPost("/answers", Ask)
        .WithMetadata(new GuestsToo()).WithName("askAnswers").WithTags("Answers")
            .WithSummary("Answers without saving: what the edits would do, and what the studies then give. " +
            "Work longer than ten seconds is stopped: start it as a job.")
        .ProducesProblem(404).ProducesProblem(422).Produces<AnswersAnswer>();

    private static async Task<Results<Ok<AnswersAnswer>, NotFound>> Ask(AnswersRequest ask, AnswerDesk desk, Lanes lanes, CancellationToken cancel)
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(Longest);
        if (await desk.Check(ask, limited.Token) is not { } question) return TypedResults.NotFound();
        using var turn = await lanes.Enter(question, limited.Token);
        return TypedResults.Ok(question.Answer(limited.Token));
    }
}
