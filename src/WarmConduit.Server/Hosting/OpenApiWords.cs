using System.Text.Json.Nodes;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using WarmConduit.Server.Answers;

namespace WarmConduit.Server.Hosting;

/// <summary>How the API describes itself.</summary>
internal static class OpenApiWords
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Warm Conduit";
            document.Info.Version = "2";
            document.Info.Description = "Lengths in metres, temperatures in °C, volumes in litres, times in seconds, unless a name says otherwise. Errors " +
                "are problem details (RFC 9457).";
            document.Servers?.Clear();
            return Task.CompletedTask;
        });
        options.CreateSchemaReferenceId = type => AnswerSchema.IsByName(type.Type) ? type.Type.Name : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddDocumentTransformer(AnswerSchema.Complete);
        options.AddDocumentTransformer(DocWords.DescribeFields);
        options.AddSchemaTransformer(AnswerSchema.Describe);
        options.AddSchemaTransformer(DocWords.Describe);
        options.AddSchemaTransformer((schema, context, _) =>
        {
            // Fields of a thing, whatever they are.
            if (context.JsonTypeInfo.Type == typeof(JsonObject))
                (schema.AdditionalPropertiesAllowed, schema.AdditionalProperties) = (true, new OpenApiSchema());
            // What is worked out of the others is there whenever they are.
            foreach (var sum in context.JsonTypeInfo.Properties.Where(p => p is { Set: null, Get: not null, PropertyType: { IsValueType: true } type }
                && Nullable.GetUnderlyingType(type) is null && schema.Properties?.ContainsKey(p.Name) == true))
                (schema.Required ??= new HashSet<string>()).Add(sum.Name);
            return Task.CompletedTask;
        });
        // What can come to any request: a door that is shut, a body that is no JSON or too large, trouble with the disk.
        options.AddOperationTransformer(async (operation, context, cancel) =>
        {
            operation.Responses ??= [];
            var problem = await context.GetOrCreateSchemaAsync(typeof(Microsoft.AspNetCore.Mvc.ProblemDetails), null, cancel);
            context.Document?.AddComponent("ProblemDetails", problem);
            (string Status, string Words)[] always = operation.RequestBody is null
                ? [("403", "The request is not from this program's own page."), ("503", "The data cannot be used at the moment, or too many ask at once.")]
                : [("403", "The request is not from this program's own page."), ("413", "Larger than a rig may be."), ("415", "Not JSON in UTF-8."),
                    ("503", "The data cannot be used at the moment, or too many ask at once."), ("507", "The disk is full.")];
            foreach (var (status, words) in always)
            {
                operation.Responses.TryAdd(status, new OpenApiResponse
                {
                    Description = words,
                    Content = new Dictionary<string, OpenApiMediaType>
                    {
                        ["application/problem+json"] =
                    new() { Schema = new OpenApiSchemaReference("ProblemDetails", context.Document) }
                    },
                });
            }
        });
    }
}
