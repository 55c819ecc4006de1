using Microsoft.AspNetCore.Http.Features;
using Microsoft.Net.Http.Headers;
using WarmConduit.Core.Rigs;
using WarmConduit.Server.Backups;
using WarmConduit.Server.Pictures;
using WarmConduit.Server.Sharing;

namespace WarmConduit.Server.Hosting;

/// <summary>
/// The door: security headers on every answer; requests only to this machine by a loopback name or the shared address, and only from our own pages; bodies
/// only as JSON in UTF-8,
/// pictures and backups as such, and none larger than it can be.
/// </summary>
internal static class Guard
{
    private const string Policy =
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'none'; form-action 'self'; " +
            "object-src 'none'";

    // A refused body is read to its end up to here, so that the answer arrives before the client gives up writing.
    private const long MostThrownAway = 200_000_000;

    /// <summary>Largest request body, bytes: a rig, and what is said around it.</summary>
    public const int MaxBody = RigFile.MaxBytes + 100_000;

    // Twelve pictures in a rig's file.
    private const int MaxCarried = 9_000_000;

    public static void UseGuard(this WebApplication app) => app.Use(async (context, next) =>
    {
        context.Response.OnStarting(SetHeaders, context.Response);
        if (Refusal(context.Request, context.RequestServices.GetRequiredService<ShareDoor>()) is not { } refusal)
        {
            context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize = MostOf(context.Request);
            // UTF-8, however it was written: the reader takes quotes around its name for a part of it.
            if (IsJson(context.Request.ContentType)) context.Request.ContentType = "application/json";
            await next(context);
            return;
        }
        await Results.Problem(statusCode: refusal.Status, title: refusal.Title).ExecuteAsync(context);
        if (refusal.Status == StatusCodes.Status413PayloadTooLarge)
        {
            await context.Response.CompleteAsync();
            await ThrowAway(context);
        }
    });

    private static Task SetHeaders(object state)
    {
        var headers = ((HttpResponse)state).Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        return Task.CompletedTask;
    }

    private static (int Status, string Title)? Refusal(HttpRequest request, ShareDoor door)
    {
        const string foreign = "This program answers only to its own pages on this machine.";
        if (door.IsShared(request.HttpContext.Connection))
        {
            // By the shared address itself, and by no name: one could be made to lead here.
            if (request.Host.Host != ShareEndpoints.HostOf(door) || request.Host.Port != request.HttpContext.Connection.LocalPort)
                return (403, "This program answers only to the address that it is shared on.");
        }
        else if (request.Host.Host is not ("localhost" or "127.0.0.1" or "[::1]"))
        {
            return (403, foreign);
        }
        bool api = request.Path.StartsWithSegments("/api");
        // Another program's page on another port of this machine is another site, whatever it is called.
        if (request.Headers.Origin is [{ } origin, ..] && origin != $"{request.Scheme}://{request.Host}") return (403, foreign);
        if (api && request.Headers["Sec-Fetch-Site"] is [{ } site, ..] && site is not ("same-origin" or "none")) return (403, foreign);
        if (request.ContentLength > MostOf(request)) return (413, $"That is larger than {MostOf(request) / 1_000_000} MB.");
        bool writes = HttpMethods.IsPost(request.Method) || HttpMethods.IsPut(request.Method) || HttpMethods.IsPatch(request.Method)
            || (HttpMethods.IsDelete(request.Method) && request.ContentLength > 0);
        if (IsBackup(request)) return request.ContentType == BackupEndpoints.ContentType ? null : (415, $"A backup is sent as {BackupEndpoints.ContentType}.");
        if (IsPicture(request)) return request.ContentType is "image/jpeg" or "image/png" ? null : (415, "A picture is sent as image/jpeg or image/png.");
        if (api && writes && !IsJson(request.ContentType)) return (415, "A body is sent as application/json, in UTF-8.");
        return null;
    }

    private static bool IsPicture(HttpRequest request) => HttpMethods.IsPost(request.Method)
        && request.Path.Equals(PictureEndpoints.Path, StringComparison.Ordinal);

    private static bool IsBackup(HttpRequest request) => HttpMethods.IsPost(request.Method)
        && request.Path.Equals(BackupEndpoints.Path, StringComparison.Ordinal);

    private static long MostOf(HttpRequest request) =>
        IsBackup(request) ? BackupEndpoints.MaxBody : IsPicture(request) ? PictureEndpoints.MaxBody : HttpMethods.IsPost(request.Method)
            && request.Path.Equals("/api/rigs", StringComparison.Ordinal) ? MaxBody + MaxCarried : MaxBody;

    private static bool IsJson(string? contentType) =>
        MediaTypeHeaderValue.TryParse(contentType, out var type)
        && type.MediaType.Equals("application/json", StringComparison.OrdinalIgnoreCase)
        && (!type.Charset.HasValue || type.Charset.Value.Trim('"').Equals("utf-8", StringComparison.OrdinalIgnoreCase));

    private static async Task ThrowAway(HttpContext context)
    {
        context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize = null;
        try
        {
            byte[] buffer = new byte[65536];
            long all = 0;
            for (int read; all < MostThrownAway && (read = await context.Request.Body.ReadAsync(buffer, context.RequestAborted)) > 0;) all += read;
        }
        catch (Exception e) when (e is IOException or OperationCanceledException or BadHttpRequestException)
        {
            // It has gone; the answer was sent.
        }
    }
}
