using System.Collections;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using WarmConduit.Core.Rigs.Upgrades;

namespace WarmConduit.Core.Rigs;

/// <summary>Something wrong with a rig document: where (a path such as <c>parts[3].box.at.zM</c>), and why in words.</summary>
/// <param name="Path">Where.</param>
/// <param name="Reason">Why.</param>
/// <param name="Essential">No study could work with it; false for a rule of sense that an older document may break.</param>
public sealed record RigFault(string Path, string Reason, bool Essential = true);

/// <summary>A document that was refused, with all that is wrong with it.</summary>
/// <param name="faults">What is wrong; never empty.</param>
/// <param name="misread">What the reader of JSON was given, where it was that which refused.</param>
public sealed class RigFileException(IReadOnlyList<RigFault> faults, Misread? misread = null)
    : FormatException(string.Join("; ", faults.Select(f => $"{f.Path}: {f.Reason}")))
{
    /// <summary>What is wrong; never empty.</summary>
    public IReadOnlyList<RigFault> Faults { get; } = faults;

    /// <summary>What the reader of JSON was given, so that its schema can say all that is wrong with it; else null.</summary>
    public Misread? Misread { get; } = misread;
}

/// <summary>The open rig file: versioned JSON in UTF-8, the same record as <see cref="Rig"/>. Metres, °C, litres, W/K as the names say.</summary>
public static class RigFile
{
    /// <summary>Largest file that is read and largest document that is kept, bytes of compact JSON.</summary>
    public const int MaxBytes = 5_000_000;

    /// <summary>How rigs are written and read everywhere: camel case, names for enums, nothing missing, nothing unknown, nothing named twice.</summary>
    public static JsonSerializerOptions Json { get; } = MakeOptions(indented: true);

    /// <summary>The same without white space: for what is stored and sent.</summary>
    public static JsonSerializerOptions Compact { get; } = MakeOptions(indented: false);

    private static JsonSerializerOptions Stored { get; } = MakeStored();

    /// <summary>
    /// Reads and checks a file, of this version or an older one. Throws <see cref="RigFileException"/> naming field and reason for text over
    /// <see cref="MaxBytes"/>, bad JSON, an unknown version, missing or unknown fields, and all that <see cref="RigCheck"/> refuses.
    /// </summary>
    public static Rig Read(ReadOnlySpan<byte> utf8)
    {
        var rig = Parse(utf8);
        RigCheck.Demand(rig);
        return rig.InOrder();
    }

    /// <summary>
    /// Reads a document that was accepted once. Only what no study could work with is refused; rules that came later make a finding
    /// (<see cref="RigCheck.Check(Rig)"/> tells them).
    /// </summary>
    public static Rig ReadStored(ReadOnlySpan<byte> utf8)
    {
        var rig = Parse(utf8);
        var broken = RigCheck.Check(rig).Where(f => f.Essential).ToList();
        return broken.Count == 0 ? rig.InOrder() : throw new RigFileException(broken);
    }

    /// <summary>Writes <paramref name="rig"/> as indented JSON, ending with a line feed.</summary>
    public static string Write(Rig rig) => JsonSerializer.Serialize(rig, Json) + "\n";

    /// <summary>
    /// Writes <paramref name="rig"/> compact, as it is stored. Throws <see cref="RigFileException"/> when that is more than <see cref="MaxBytes"/>, so that
    /// what was accepted can always be read back.
    /// </summary>
    public static byte[] WriteCompact(Rig rig)
    {
        byte[] bytes = JsonSerializer.SerializeToUtf8Bytes(rig, Stored);
        return bytes.Length <= MaxBytes ? bytes : throw Refuse("file", $"it is larger than {MaxBytes / 1_000_000} MB as it would be stored");
    }

    /// <summary>The JSON Schema of the file.</summary>
    public static JsonNode Schema()
    {
        var schema = Json.GetJsonSchemaAsNode(typeof(Rig), new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true });
        schema["$schema"] = "https://json-schema.org/draft/2020-12/schema";
        schema["title"] = $"Warm Conduit rig, format version {Rig.CurrentFormat}";
        schema["properties"]!["formatVersion"] = new JsonObject { ["const"] = Rig.CurrentFormat };
        return schema;
    }

    private static Rig Parse(ReadOnlySpan<byte> utf8)
    {
        if (utf8.Length > MaxBytes) throw Refuse("file", $"it is larger than {MaxBytes / 1_000_000} MB");
        if (utf8.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF])) utf8 = utf8[3..];
        try
        {
            int version = VersionOf(utf8);
            if (version == Rig.CurrentFormat) return JsonSerializer.Deserialize<Rig>(utf8, Json) ?? throw Refuse("file", "it holds no rig");
            var document = (JsonObject)JsonNode.Parse(utf8, null, new JsonDocumentOptions { AllowDuplicateProperties = false, MaxDepth = 32 })!;
            UpgradeChain.Upgrade(document, version);
            return document.Deserialize<Rig>(Json) ?? throw Refuse("file", "it holds no rig");
        }
        catch (JsonException e)
        {
            throw Misread.Refused(typeof(Rig), utf8, e);
        }
        catch (InvalidOperationException)
        {
            // Half a character, as no text has it.
            throw Refuse("file", "it holds text that cannot be read");
        }
    }

    /// <summary>Sets <paramref name="options"/> to read as rig files are read, so that a rig means the same everywhere.</summary>
    public static void ReadStrictly(JsonSerializerOptions options)
    {
        options.PropertyNameCaseInsensitive = false;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.AllowDuplicateProperties = false;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.MaxDepth = 32;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.Converters.Add(new WholeNodes());
        options.TypeInfoResolver = (options.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(RefuseEmptyEntries);
    }

    // A file of another version is refused for that, and not for the first field that is new in it.
    private static int VersionOf(ReadOnlySpan<byte> utf8)
    {
        var reader = new Utf8JsonReader(utf8);
        if (!reader.Read() || reader.TokenType != JsonTokenType.StartObject) throw Refuse("file", "it holds no rig");
        while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
        {
            bool here = reader.ValueTextEquals("formatVersion");
            reader.Read();
            if (!here)
            {
                reader.Skip();
                continue;
            }
            if (reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out int version) && version is >= 1 and <= Rig.CurrentFormat) return version;
            string said = reader.TokenType == JsonTokenType.Number ? $"version {Encoding.UTF8.GetString(reader.ValueSpan)}" : "this version";
            throw Refuse("formatVersion", $"{said} is not known; this program reads versions 1 to {Rig.CurrentFormat}");
        }
        throw Refuse("formatVersion", "it is missing");
    }

    private static RigFileException Refuse(string path, string reason) => new([new RigFault(path, reason)]);

    private static JsonSerializerOptions MakeOptions(bool indented)
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            WriteIndented = indented,
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull
        };
        ReadStrictly(options);
        options.MakeReadOnly(populateMissingResolver: true);
        return options;
    }

    private static JsonSerializerOptions MakeStored() => new(Compact) { Converters = { new WrittenOnce<Part>(Compact), new WrittenOnce<Run>(Compact) } };

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
}

/// <summary>A gap in a list.</summary>
internal sealed class EmptyEntryException(int index) : JsonException("this entry of the list is empty")
{
    public int Index => index;
}
