using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using WarmConduit.Core.Rigs;
using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>Turns what users can cause into problem details (RFC 9457) that name the field and the reason.</summary>
internal sealed class ProblemAnswers : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var answer = exception switch
        {
            RigFileException e => Refused(e.Faults),
            BadHttpRequestException { InnerException: JsonException e } => Refused([RigFile.FaultOf(e)]),
            BadHttpRequestException { StatusCode: 413 } => Results.Problem(statusCode: 413, title: $"That is larger than {RigFile.MaxBytes / 1_000_000} MB."),
            BadHttpRequestException e => Results.Problem(statusCode: e.StatusCode, title: "The request could not be read.", detail: e.Message),
            StaleSaveException e => Results.Problem(
                statusCode: 409,
                title: "Somebody else saved this rig meanwhile.",
                detail: e.KeptAs is { } kept ? $"It is at revision {e.Current}. What you sent is kept as revision {kept}." : $"It is at revision {e.Current}.",
                extensions: new Dictionary<string, object?> { ["current"] = e.Current, ["keptAs"] = e.KeptAs }),
            OperationCanceledException when httpContext.RequestAborted.IsCancellationRequested => Results.StatusCode(499),
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
}
