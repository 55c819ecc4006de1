namespace WarmConduit.Server.Sharing;

/// <summary>Marks what a guest may do beside looking.</summary>
internal sealed class GuestsToo;

/// <summary>Marks what is for this machine alone.</summary>
internal sealed class HereOnly;

/// <summary>Marks what is open before the code is entered.</summary>
internal sealed class BeforeCode;

/// <summary>Lets guests in who have entered the code: they look, and run procedures.</summary>
internal static class Guests
{
    /// <summary>The cookie of a guest.</summary>
    public const string Cookie = "warm-conduit-guest";

    public static void UseGuests(this WebApplication app) => app.Use(async (context, next) =>
    {
        var door = context.RequestServices.GetRequiredService<ShareDoor>();
        if (!door.IsShared(context.Connection))
        {
            await next(context);
            return;
        }
        if (Refusal(context, door) is { } refusal)
        {
            await Results.Problem(statusCode: refusal.Status, title: refusal.Title).ExecuteAsync(context);
            return;
        }
        // What is open when sharing ends, ends with it.
        using var linked = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, door.Ends);
        context.RequestAborted = linked.Token;
        await next(context);
    });

    private static (int Status, string Title)? Refusal(HttpContext context, ShareDoor door)
    {
        // The pages themselves hold nothing.
        if (!context.Request.Path.StartsWithSegments("/api")) return null;
        var marks = context.GetEndpoint()?.Metadata;
        if (marks?.GetMetadata<BeforeCode>() is not null) return null;
        if (!door.Knows(context.Request.Cookies[Cookie])) return (401, "Enter the code that the first machine shows.");
        bool looks = HttpMethods.IsGet(context.Request.Method) || HttpMethods.IsHead(context.Request.Method);
        return marks?.GetMetadata<HereOnly>() is not null || (!looks && marks?.GetMetadata<GuestsToo>() is null)
            ? (403, "From here you can look and run procedures. Change the rig on the first machine.") : null;
    }
}
