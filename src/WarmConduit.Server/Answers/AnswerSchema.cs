using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using WarmConduit.Application.Answers;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Answers;

/// <summary>Describes answers and inputs by name: one optional field for each study.</summary>
internal static class AnswerSchema
{
    private static readonly (Type Type, Func<Study, Type?> Of)[] ByName = [(typeof(WantedAnswers), s => s.Answer), (typeof(StudyInputs), s => s.Input)];

    /// <summary>Both stand once, though they are dictionaries in code.</summary>
    public static bool IsByName(Type type) => ByName.Any(n => n.Type == type);

    /// <summary>Brings the types into the document where they are first met.</summary>
    public static async Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancel)
    {
        if (!IsByName(context.JsonTypeInfo.Type) || context.Document is not { } document) return;
        schema.Type = JsonSchemaType.Object;
        schema.AdditionalProperties = null;
        schema.AdditionalPropertiesAllowed = false;
        schema.Properties = new Dictionary<string, IOpenApiSchema>();
        // Of a type that stands already the framework follows no references.
        if (document.Components?.Schemas?.ContainsKey(context.JsonTypeInfo.Type.Name) == true) return;
        foreach (var (study, type) in Types(ByName.First(n => n.Type == context.JsonTypeInfo.Type).Of))
        {
            document.AddComponent(type.Name, await context.GetOrCreateSchemaAsync(type, null, cancel));
            schema.Properties[study.Name] = new OpenApiSchemaReference(type.Name, document);
        }
    }

    /// <summary>Names the fields once the whole document stands.</summary>
    public static Task Complete(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancel)
    {
        foreach (var (byName, of) in ByName)
            if (document.Components?.Schemas?.TryGetValue(byName.Name, out var schema) == true && schema is OpenApiSchema whole)
                whole.Properties = Types(of).ToDictionary(t => t.Study.Name, t => (IOpenApiSchema)new OpenApiSchemaReference(t.Type.Name, document));
        return Task.CompletedTask;
    }

    private static IEnumerable<(Study Study, Type Type)> Types(Func<Study, Type?> of) =>
        StudyRegistry.All.Where(s => of(s) is not null).Select(s => (s, of(s)!));
}
