using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Metadata;
using WarmConduit.Application.Reading;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Server.Answers;
using WarmConduit.Server.Rigs;
using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>Turns what users and machines can cause into problem details (RFC 9457) that name the field and the reason.</summary>
internal sealed partial class ProblemAnswers(ILogger<ProblemAnswers> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var answer = exception switch
        {
            RigFileException e => Refused(SchemaFaults.Of(e)),
            BadHttpRequestException { InnerException: JsonException e } => Misread(httpContext, e),
            // A thing of several kinds that does not say which it is.
            NotSupportedException e when Sent(httpContext) is not null => Misread(httpContext, new JsonException(null, e)),
            // Half a character in a text, which the reader of JSON cannot name.
            BadHttpRequestException { InnerException: InvalidOperationException } => Refused([new RigFault("body", "it holds text that cannot be read")]),
            BadHttpRequestException { StatusCode: 413 } => Results.Problem(statusCode: 413, title: $"That is larger than {RigFile.MaxBytes / 1_000_000} MB."),
            BadHttpRequestException e => Results.Problem(statusCode: e.StatusCode, title: "The request could not be read.", detail: Plain(e.Message)),
            UnreadableException e => Results.Problem(statusCode: 422, title: "This rig cannot be read.", detail: e.Message),
            LaneFullException e => Results.Problem(statusCode: 503, title: e.Message, detail: "Try again in a moment."),
            TooLargeException e => Results.Problem(statusCode: 422, title: "That question is too large.", detail: e.Message),
            StaleSaveException e => Stale(e),
            KeyUsedException e => Results.Problem(
                statusCode: 409, title: "This save has the name of another.",
                detail: $"What came first under that name stands as revision {e.Revision}; the rig is at revision {e.Current}.",
                extensions: new Dictionary<string, object?> { ["current"] = e.Current, ["revision"] = e.Revision, ["edits"] = e.Edits }),
            OperationCanceledException when httpContext.RequestAborted.IsCancellationRequested => Results.StatusCode(499),
            OperationCanceledException => Results.Problem(statusCode: 503, title: "That question took too long.",
            detail: "It was stopped. Ask for less at a time."),
            _ when TroubleException.Of(exception) is { } trouble => Trouble(trouble, httpContext),
            _ => null,
        };
        if (answer is null) return false;
        await answer.ExecuteAsync(httpContext);
        return true;
    }

    /// <summary>400 with every fault under its field.</summary>
    public static IResult Refused(IReadOnlyList<RigFault> faults) => Results.ValidationProblem(
        faults.GroupBy(f => f.Path).ToDictionary(g => g.Key, g => g.Select(f => f.Reason).ToArray()),
        title: "Refused; nothing was changed.",
        detail: $"{faults[0].Path}: {faults[0].Reason}");

    private static IResult Misread(HttpContext context, JsonException e) => Refused(Sent(context) is { } sent
        ? SchemaFaults.Of(Core.Rigs.Misread.Refused(sent.Type, sent.Body, e)) : [new RigFault("body", "it does not fit what is read here")]);

    // What was sent, where it was to be a record.
    private static (Type Type, byte[] Body)? Sent(HttpContext context) =>
        context.Request.Body is MemoryStream body && context.Features.Get<IExceptionHandlerFeature>()?.Endpoint?.Metadata.GetMetadata<IAcceptsMetadata>() is
        { RequestType: { } type } ? (type, body.ToArray()) : null;

    private static IResult Stale(StaleSaveException e) => Results.Problem(
        statusCode: 409,
        title: e.Clash.Count > 0 ? "Somebody else changed the same thing meanwhile." : "The rig has moved on meanwhile.",
        detail: e.KeptAs is { } kept ? $"It is at revision {e.Current}. What you sent is kept as revision {kept}." : $"It is at revision {e.Current}.",
        extensions: new Dictionary<string, object?> { ["current"] = e.Current, ["keptAs"] = e.KeptAs, ["clash"] = e.Clash.Take(20).ToArray() });

    private IResult Trouble(TroubleException e, HttpContext context)
    {
        LogTrouble(log, e.Message);
        // A handle that met trouble may be on a file that is cured by putting another in its place.
        var connections = context.RequestServices.GetRequiredService<Connections>();
        if (!e.Held) connections.Clear();
        return Results.Problem(statusCode: e.Full ? 507 : 503, title: e.Message, detail: "Nothing was changed.");
    }

    [LoggerMessage(LogLevel.Warning, "{Reason}")]
    private static partial void LogTrouble(ILogger log, string reason);

    // The framework names its own types.
    private static string? Plain(string message) => message.Contains('"') || message.Contains("Microsoft", StringComparison.Ordinal) ? null : message;
}
