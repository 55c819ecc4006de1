using System.Text.RegularExpressions;
using System.Xml.Linq;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace WarmConduit.Server.Hosting;

/// <summary>Describes types and fields by the documentation of the code: units and ranges stand there once.</summary>
internal static partial class DocWords
{
    private static readonly Lazy<Dictionary<string, XElement>> Members = new(Load);

    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancel)
    {
        var type = context.JsonTypeInfo.Type;
        if (type.FullName is not { } name || !Members.Value.TryGetValue($"T:{name.Replace('+', '.')}", out var member)) return Task.CompletedTask;
        schema.Description ??= Plain(member.Element("summary"));
        if (schema.Properties is null) return Task.CompletedTask;
        foreach (var (field, property) in schema.Properties)
        {
            string code = char.ToUpperInvariant(field[0]) + field[1..];
            var words = member.Elements("param").FirstOrDefault(p => (string?)p.Attribute("name") == code) ?? Members.Value.GetValueOrDefault($"P:{name}.{code}")?.Element("summary");
            if (words is null) continue;
            if (property is OpenApiSchema plain) plain.Description ??= Plain(words);
            else if (property is OpenApiSchemaReference reference) reference.Description ??= Plain(words);
        }
        return Task.CompletedTask;
    }

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
