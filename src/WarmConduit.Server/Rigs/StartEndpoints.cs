using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Server.Hosting;
using WarmConduit.Store;

namespace WarmConduit.Server.Rigs;

/// <summary>What a new rig can start from.</summary>
/// <param name="Bodies">Bodies, generic.</param>
/// <param name="Shapes">The shell of each of them at its usual size, in the same order.</param>
/// <param name="Starters">Water systems to begin with.</param>
/// <param name="BuildUps">Ready-made build-ups of faces.</param>
public sealed record StartsAnswer(IReadOnlyList<BodyKind> Bodies, IReadOnlyList<Shell> Shapes, IReadOnlyList<Starter> Starters,
    IReadOnlyList<BuildUp> BuildUps);

/// <summary>New rigs over HTTP.</summary>
internal static class StartEndpoints
{
    private static readonly StartsAnswer Answer = new(Bodies.All, [.. Bodies.All.Select(b =>
        Bodies.Make(b, b.Length.Usual, b.Width.Usual, b.Height.Usual, heated: true))], Start.Starters, BuildUps.All);

    public static void Map(IEndpointRouteBuilder api)
    {
        var starts = api.MapGroup("/starts").WithTags("New rigs");
        starts.MapGet("/", () => TypedResults.Ok(Answer)).WithName("getStarts").WithSummary("Bodies, starters and build-ups for a new rig.");
        starts.MapPost("/draft", (NewRig ask) => TypedResults.Ok(Start.Make(ask))).RequireRateLimiting(Limits.Work)
            .WithName("draftRig").WithSummary("The rig that would be made. Nothing is saved.");
        starts.MapPost("/", async (NewRig ask, Shelf shelf, CancellationToken cancel) =>
            RigEndpoints.Created(await shelf.Add(Start.Make(ask), "New rig", cancel)))
            .RequireRateLimiting(Limits.Work).Produces<OpenRig>(201).WithName("startRig").WithSummary("Makes a new rig and puts it on the shelf.");
    }
}
