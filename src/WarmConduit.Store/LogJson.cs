using System.Text.Json;
using System.Text.Json.Serialization;

namespace WarmConduit.Store;

/// <summary>How what is appended is written: later versions read what earlier ones left out, and pass over what they do not know.</summary>
internal static class LogJson
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    /// <summary>As text.</summary>
    public static string Text<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>As UTF-8, into a stream.</summary>
    public static void Write<T>(Stream to, T value) => JsonSerializer.Serialize(to, value, Options);

    /// <summary>What was written.</summary>
    public static T Read<T>(string text) => JsonSerializer.Deserialize<T>(text, Options)!;

    /// <summary>What was written, from a stream.</summary>
    public static T Read<T>(Stream from) => JsonSerializer.Deserialize<T>(from, Options)!;
}
