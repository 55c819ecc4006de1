using System.Collections.Concurrent;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace WarmConduit.Server.Hosting;

/// <summary>Describes types and fields by the documentation of the code: units and ranges stand there once.</summary>
internal static partial class DocWords
{
    private static readonly Lazy<Dictionary<string, XElement>> Members = new(Load);

    // Types by the names of their schemas; one of several kinds carries the name of what they all are in front.
    private static readonly ConcurrentDictionary<string, Type> Named = new();

    /// <summary>Describes a type.</summary>
    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancel)
    {
        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
        if (WordsOf(type) is not { } words) return Task.CompletedTask;
        Named[KindOf(type)?.Name + type.Name] = type;
        schema.Description ??= Plain(words.Element("summary"));
        return Task.CompletedTask;
    }

    /// <summary>Describes the fields of all types, once what they refer to stands apart.</summary>
    public static Task DescribeFields(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancel)
    {
        foreach (var (name, schema) in document.Components?.Schemas ?? new Dictionary<string, IOpenApiSchema>())
        {
            if (schema.Properties is null || !Named.TryGetValue(name, out var type)) continue;
            foreach (var (field, property) in schema.Properties)
            {
                string? said = field == "kind" && KindOf(type) is not null ? "Its kind."
                    : FieldWords(type, char.ToUpperInvariant(field[0]) + field[1..]);
                if (property is OpenApiSchema plain) plain.Description = said ?? plain.Description;
                else if (property is OpenApiSchemaReference reference) reference.Description = said ?? reference.Description;
            }
        }
        return Task.CompletedTask;
    }

    // What it is one of several kinds of.
    private static Type? KindOf(Type type) => type is { IsClass: true, BaseType: { IsAbstract: true } kind } ? kind : null;

    private static XElement? WordsOf(Type type) => type.FullName is { } name ? Members.Value.GetValueOrDefault($"T:{name.Replace('+', '.')}") : null;

    private static string? FieldWords(Type type, string field) =>
        Plain(WordsOf(type)?.Elements("param").FirstOrDefault(p => (string?)p.Attribute("name") == field)
            ?? Members.Value.GetValueOrDefault($"P:{type.FullName}.{field}")?.Element("summary"));

    private static Dictionary<string, XElement> Load()
    {
        var members = new Dictionary<string, XElement>();
        foreach (string file in Directory.GetFiles(AppContext.BaseDirectory, "WarmConduit.*.xml"))
            foreach (var member in XDocument.Load(file).Descendants("member"))
                members[(string)member.Attribute("name")!] = member;
        return members;
    }

    private static string? Plain(XElement? words)
    {
        if (words is null) return null;
        var copy = new XElement(words);
        // References stand as the last part of the name they refer to.
        foreach (var reference in copy.Descendants().Where(e => e.Attribute("cref") is not null || e.Attribute("name") is not null).ToList())
            reference.ReplaceWith(((string?)reference.Attribute("cref") ?? (string?)reference.Attribute("name"))!.Split('.', ':')[^1]);
        return SpacePattern().Replace(copy.Value, " ").Trim();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex SpacePattern();
}
