using Microsoft.AspNetCore.OpenApi;

namespace WarmConduit.Server.Hosting;

/// <summary>How the API describes itself.</summary>
internal static class OpenApiNames
{
    public static void Configure(OpenApiOptions options) => options.AddDocumentTransformer((document, _, _) =>
    {
        document.Info.Title = "Warm Conduit";
        document.Info.Version = "1";
        document.Servers?.Clear();
        return Task.CompletedTask;
    });
}
