using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace WarmConduit.Core.Rigs;

/// <summary>
/// Writes a thing from the bytes of the last time. Things of a rig never change and edited rigs share those that an edit leaves alone, so a save writes only
/// what it touched. Safe for many threads.
/// </summary>
/// <param name="plain">How it is written the first time, and read.</param>
internal sealed class WrittenOnce<T>(JsonSerializerOptions plain) : JsonConverter<T>
    where T : class
{
    private readonly ConditionalWeakTable<T, byte[]> _written = [];

    public override T? Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => JsonSerializer.Deserialize<T>(ref reader, plain);

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteRawValue(_written.GetValue(value, v => JsonSerializer.SerializeToUtf8Bytes(v, plain)), skipInputValidation: true);
}
