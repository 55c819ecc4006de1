using System.Collections;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace WarmConduit.Core.Rigs;

/// <summary>Something wrong with a rig document: where (a path such as <c>parts[3].box.at.zM</c>), and why in words.</summary>
public sealed record RigFault(string Path, string Reason);

/// <summary>A document that was refused, with all that is wrong with it.</summary>
public sealed class RigFileException(IReadOnlyList<RigFault> faults)
    : FormatException(string.Join("; ", faults.Select(f => $"{f.Path}: {f.Reason}")))
{
    /// <summary>What is wrong; never empty.</summary>
    public IReadOnlyList<RigFault> Faults { get; } = faults;
}

/// <summary>The open rig file: versioned JSON in UTF-8, the same record as <see cref="Rig"/>. Metres, °C, litres, W/K as the names say.</summary>
public static class RigFile
{
    /// <summary>Largest file that is read, bytes.</summary>
    public const int MaxBytes = 5_000_000;

    /// <summary>How rigs are written and read everywhere: camel case, names for enums, nothing missing, nothing unknown.</summary>
    public static JsonSerializerOptions Json { get; } = MakeOptions();

    /// <summary>
    /// Reads and checks a file. Throws <see cref="RigFileException"/> naming field and reason for text over <see cref="MaxBytes"/>, bad JSON, an unknown
    /// version, missing or unknown fields, and all that <see cref="RigCheck"/> refuses.
    /// </summary>
    public static Rig Read(ReadOnlySpan<byte> utf8)
    {
        if (utf8.Length > MaxBytes) throw Refuse("file", $"it is larger than {MaxBytes / 1_000_000} MB");
        if (utf8.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF])) utf8 = utf8[3..];
        Rig rig;
        try
        {
            rig = JsonSerializer.Deserialize<Rig>(utf8, Json) ?? throw Refuse("file", "it holds no rig");
        }
        catch (JsonException e)
        {
            CheckVersion(utf8);
            throw new RigFileException([FaultOf(e)]);
        }
        RigCheck.Demand(rig);
        return rig;
    }

    /// <summary>Writes <paramref name="rig"/> as indented JSON, ending with a line feed.</summary>
    public static string Write(Rig rig) => JsonSerializer.Serialize(rig, Json) + "\n";

    /// <summary>The JSON Schema of the file.</summary>
    public static JsonNode Schema()
    {
        var schema = Json.GetJsonSchemaAsNode(typeof(Rig), new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true });
        schema["$schema"] = "https://json-schema.org/draft/2020-12/schema";
        schema["title"] = "Warm Conduit rig, format version 1";
        schema["properties"]!["formatVersion"] = new JsonObject { ["const"] = Rig.CurrentFormat };
        return schema;
    }

    /// <summary>What the reader objects to, at a path such as <c>parts[3].name</c>.</summary>
    public static RigFault FaultOf(JsonException e)
    {
        string path = e.Path ?? "$";
        // The reader stands at the list or behind its last entry when the gap is found.
        if (e is EmptyEntryException gap) path = $"{(path.EndsWith(']') ? path[..path.LastIndexOf('[')] : path)}[{gap.Index}]";
        if (path.StartsWith("$.", StringComparison.Ordinal)) path = path[2..];
        string reason = e.Message;
        int tail = reason.IndexOf(" Path: ", StringComparison.Ordinal);
        if (tail > 0) reason = reason[..tail];
        if (reason.StartsWith("The JSON value could not be converted", StringComparison.Ordinal)) reason = "this is not the kind of value that belongs here";
        return new RigFault(path is "$" or "" ? "file" : path, reason.Replace($"'{typeof(Rig).FullName}'", "the rig", StringComparison.Ordinal));
    }

    /// <summary>Sets <paramref name="options"/> to read as rig files are read, so that a rig means the same everywhere.</summary>
    public static void ReadStrictly(JsonSerializerOptions options)
    {
        options.PropertyNameCaseInsensitive = false;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.MaxDepth = 32;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.TypeInfoResolver = (options.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(RefuseEmptyEntries);
    }

    // A file of another version is refused for that, and not for the first field that is new in it.
    private static void CheckVersion(ReadOnlySpan<byte> utf8)
    {
        var reader = new Utf8JsonReader(utf8);
        try
        {
            using var document = JsonDocument.ParseValue(ref reader);
            if (document.RootElement.ValueKind != JsonValueKind.Object) throw Refuse("file", "it holds no rig");
            if (!document.RootElement.TryGetProperty("formatVersion", out var version)) throw Refuse("formatVersion", "it is missing");
            if (version.ValueKind != JsonValueKind.Number || !version.TryGetInt32(out int number) || number != Rig.CurrentFormat)
                throw Refuse("formatVersion", $"version {version} is not known; this program reads version {Rig.CurrentFormat}");
        }
        catch (JsonException)
        {
            // Not even JSON: the caller's reason says where.
        }
    }

    private static RigFileException Refuse(string path, string reason) => new([new RigFault(path, reason)]);

    private static JsonSerializerOptions MakeOptions()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web) { WriteIndented = true, DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };
        ReadStrictly(options);
        options.MakeReadOnly(populateMissingResolver: true);
        return options;
    }

    // The reader respects what may be null everywhere but among the entries of a list; no list here may have gaps.
    private static void RefuseEmptyEntries(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Enumerable) return;
        type.OnDeserialized = list =>
        {
            int index = 0;
            foreach (object? entry in (IEnumerable)list)
            {
                if (entry is null) throw new EmptyEntryException(index);
                index++;
            }
        };
    }

    private sealed class EmptyEntryException(int index) : JsonException("this entry of the list is empty")
    {
        public int Index => index;
    }
}
