using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace WarmConduit.Server.Answers;

/// <summary>Describes the answers by name: one optional field for each that can be wanted.</summary>
internal static class AnswerSchema
{
    public static async Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancel)
    {
        if (context.JsonTypeInfo.Type != typeof(WantedAnswers)) return;
        schema.Type = JsonSchemaType.Object;
        schema.AdditionalProperties = null;
        schema.AdditionalPropertiesAllowed = false;
        schema.Properties = new Dictionary<string, IOpenApiSchema>();
        foreach (var wanted in Wanted.All)
        {
            var answer = await context.GetOrCreateSchemaAsync(wanted.Answer, null, cancel);
            context.Document?.AddComponent(wanted.Answer.Name, answer);
            schema.Properties[wanted.Name] = new OpenApiSchemaReference(wanted.Answer.Name, context.Document);
        }
    }
}
