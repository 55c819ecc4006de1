using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using Json.Pointer;
using Json.Schema;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Application.Reading;

/// <summary>Says what is wrong with JSON that could not be read, by the schema of what it was to be.</summary>
public static class SchemaFaults
{
    private const int Most = 20;
    private static readonly ConcurrentDictionary<Type, (JsonNode Node, JsonSchema Schema)> _schemas = new();

    /// <summary>All that is wrong with what was refused, up to 20 faults; what the refusal says itself where it was no matter of reading.</summary>
    public static IReadOnlyList<RigFault> Of(RigFileException refused)
    {
        if (refused.Misread is not { } misread) return refused.Faults;
        var found = Of(misread);
        return found.Count > 0 ? found : refused.Faults;
    }

    private static List<RigFault> Of(Misread misread)
    {
        var (node, schema) = _schemas.GetOrAdd(misread.Type, Exported);
        var result = schema.Evaluate(JsonSerializer.SerializeToElement(misread.Document), new EvaluationOptions { OutputFormat = OutputFormat.List });
        var faults = new HashSet<RigFault>();
        foreach (var detail in (result.Details ?? []).Prepend(result))
        {
            if (detail.Errors is not { Count: > 0 } errors) continue;
            var place = new Place(node, misread.Document, detail);
            if (!place.Counts) continue;
            foreach (string keyword in errors.Keys)
                if (place.Reason(keyword) is { } reason && faults.Count < Most) faults.Add(misread.Fault(place.Path, reason));
        }
        return [.. faults];
    }

    private static (JsonNode, JsonSchema) Exported(Type type)
    {
        var node = RigFile.Compact.GetJsonSchemaAsNode(type, new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true });
        return (node, JsonSchema.FromText(node.ToJsonString()));
    }

    /// <summary>Where the schema and the document disagree.</summary>
    private sealed class Place
    {
        private readonly JsonNode? _schema;
        private readonly JsonNode? _value;
        private readonly string _last = "";
        private readonly List<string>? _kinds;

        public Place(JsonNode schema, JsonNode? document, EvaluationResults detail)
        {
            var inside = new Queue<string>(Steps(detail.InstanceLocation));
            _schema = schema;
            _value = document;
            string[] way = Steps(detail.EvaluationPath);
            for (int i = 0; i < way.Length; i++)
            {
                // The package says "items" twice for one list.
                if (way[i] == "items" && i > 0 && way[i - 1] == "items" && _schema?["items"] is null) continue;
                // Of a thing of several kinds only the kind that it says it is counts.
                if (way[i] == "anyOf" && KindsOf(_schema) is { Count: > 0 } kinds)
                {
                    if (!kinds.Contains(KindIn(_value) ?? ""))
                    {
                        _kinds = kinds;
                        return;
                    }
                    Counts &= kinds[Number(way[i + 1])] == KindIn(_value);
                }
                if (way[i] is "properties" or "items" or "additionalProperties" && inside.TryDequeue(out string? step))
                {
                    _last = step;
                    Path += _value is JsonArray ? $"[{step}]" : Path.Length == 0 ? step : $".{step}";
                    _value = _value switch { JsonArray list => list[Number(step)], JsonObject fields => fields[step], _ => null };
                }
                _schema = way[i] == "$ref" ? Referred(schema, (string)_schema!["$ref"]!) : _schema is JsonArray some ? some[Number(way[i])] : _schema?[way[i]];
            }
        }

        public string Path { get; } = "";

        public bool Counts { get; } = true;

        public string? Reason(string keyword) => keyword switch
        {
            _ when _kinds is not null => $"its 'kind' is missing or not known; use one of {string.Join(", ", _kinds)}",
            "type" => $"it must be {string.Join(" or ", Names(_schema!["type"]).Where(t => t != "null").Select(InWords))}",
            "enum" => $"use one of {string.Join(", ", Names(_schema!["enum"]).Where(n => n.Length > 0).Take(15))}",
            "required" => Missing(),
            "" => $"there is no field '{_last}' here",
            _ => null,
        };

        private string? Missing()
        {
            var there = (_value as JsonObject)?.Select(f => f.Key).ToHashSet() ?? [];
            bool several = KindsOf(_schema).Count > 0;
            var missing = Names(_schema!["required"]).Where(n => !there.Contains(n) && !(several && n == "kind")).ToList();
            return missing.Count == 0 ? null : $"it lacks {string.Join(", ", missing.Select(n => $"'{n}'"))}";
        }

        private static string InWords(string type) => type switch
        {
            "number" => "a number",
            "integer" => "a whole number",
            "string" => "text",
            "boolean" => "true or false",
            "array" => "a list",
            _ => "an object with fields",
        };

        private static List<string> KindsOf(JsonNode? schema) => schema?["anyOf"] is JsonArray branches
            ? [.. branches.Select(b => (string?)b?["properties"]?["kind"]?["const"]).OfType<string>()] : [];

        private static string? KindIn(JsonNode? value) =>
            value is JsonObject fields && fields["kind"] is JsonValue kind && kind.TryGetValue(out string? text) ? text : null;

        private static IEnumerable<string> Names(JsonNode? node) => node is JsonArray list ? list.Select(n => (string?)n ?? "") : [(string)node!];

        private static int Number(string step) => int.Parse(step, CultureInfo.InvariantCulture);

        private static JsonNode? Referred(JsonNode root, string reference)
        {
            JsonNode? at = root;
            foreach (string step in Steps(JsonPointer.Parse(reference[1..]))) at = at is JsonArray list ? list[Number(step)] : at?[step];
            return at;
        }

        private static string[] Steps(JsonPointer pointer) => pointer.ToString() is { Length: > 0 } text
            ? [.. text[1..].Split('/').Select(s => s.Replace("~1", "/", StringComparison.Ordinal).Replace("~0", "~", StringComparison.Ordinal))] : [];
    }
}
