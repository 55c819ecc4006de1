using System.Threading.RateLimiting;
using Microsoft.AspNetCore.RateLimiting;

namespace WarmConduit.Server.Hosting;

/// <summary>How many requests that cost something go on at once. More wait in line; beyond the line they are refused by name.</summary>
internal static class Limits
{
    /// <summary>Policy of requests that compute or read a whole document.</summary>
    public const string Work = "work";

    // One core is left for saves and for the shelf, however many ask.
    private static readonly int AtOnce = Math.Max(1, Environment.ProcessorCount - 1);
    private const int InLine = 64;

    /// <summary>Reads a body before its request waits in line: one that comes slowly holds nobody up. JSON is read whole, so that what is wrong with it can be
    /// told.</summary>
    public static void UseWholeBodies(this IApplicationBuilder app) => app.Use(async (context, next) =>
    {
        var request = context.Request;
        bool waits = context.GetEndpoint()?.Metadata.GetMetadata<EnableRateLimitingAttribute>() is not null;
        if (request.ContentLength != 0 && (waits || request.HasJsonContentType()))
        {
            var body = new MemoryStream();
            await request.Body.CopyToAsync(body, context.RequestAborted);
            body.Position = 0;
            request.Body = body;
        }
        await next(context);
    });

    public static void Configure(RateLimiterOptions options)
    {
        options.AddConcurrencyLimiter(Work, work =>
        {
            work.PermitLimit = AtOnce;
            work.QueueLimit = InLine;
            work.QueueProcessingOrder = QueueProcessingOrder.OldestFirst;
        });
        options.OnRejected = async (context, _) => await Results.Problem(
            statusCode: 503, title: "Too many questions at once.", detail: $"{AtOnce} are being answered and {InLine} wait in line. Try again in a moment.")
            .ExecuteAsync(context.HttpContext);
    }
}
