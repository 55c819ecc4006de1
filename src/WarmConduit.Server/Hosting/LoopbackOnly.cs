namespace WarmConduit.Server.Hosting;

/// <summary>
/// Keeps other sites' pages out: a request must be addressed to this machine by a loopback name, and one that changes something must come from our own page.
/// </summary>
internal static class LoopbackOnly
{
    private const string Policy = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'none'";

    public static void UseLoopbackOnly(this WebApplication app) => app.Use(async (context, next) =>
    {
        var request = context.Request;
        bool foreignHost = request.Host.Host is not ("localhost" or "127.0.0.1" or "[::1]");
        bool foreignOrigin = request.Headers.Origin is [{ } origin, ..] && !(Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.IsLoopback);
        if (foreignHost || foreignOrigin)
        {
            await Results.Problem(statusCode: 403, title: "This program answers only to pages of this machine.").ExecuteAsync(context);
            return;
        }
        context.Response.Headers.ContentSecurityPolicy = Policy;
        context.Response.Headers.XContentTypeOptions = "nosniff";
        await next(context);
    });
}
