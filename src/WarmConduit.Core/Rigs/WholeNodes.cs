using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

namespace WarmConduit.Core.Rigs;

/// <summary>Reads values of any kind whole: fields named twice and text that is no text are refused where they are read, not found out later by whoever looks
/// at them.</summary>
public sealed class WholeNodes : JsonConverterFactory
{
    /// <inheritdoc/>
    public override bool CanConvert(Type typeToConvert) => typeof(JsonNode).IsAssignableFrom(typeToConvert);

    /// <inheritdoc/>
    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Of<>).MakeGenericType(typeToConvert))!;

    /// <summary>All of <paramref name="node"/>, or a <see cref="JsonException"/>.</summary>
    public static void Walk(JsonNode? node)
    {
        try
        {
            switch (node)
            {
                case JsonObject values:
                    foreach (var (_, value) in values) Walk(value);
                    break;
                case JsonArray list:
                    foreach (var value in list) Walk(value);
                    break;
                case JsonValue value when value.GetValueKind() == JsonValueKind.String:
                    value.GetValue<string>();
                    break;
                default:
                    break;
            }
        }
        catch (Exception e) when (e is InvalidOperationException or ArgumentException)
        {
            throw new JsonException("a field comes twice in it, or there is text in it that is no text", e);
        }
    }

    private sealed class Of<T> : JsonConverter<T>
        where T : JsonNode
    {
        public override T? Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            var node = JsonNode.Parse(ref reader);
            Walk(node);
            return node as T ?? throw new JsonException("a value of another kind belongs here");
        }

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => value.WriteTo(writer);
    }
}
