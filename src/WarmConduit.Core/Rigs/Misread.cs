using System.Text.Json;
using System.Text.Json.Nodes;

namespace WarmConduit.Core.Rigs;

/// <summary>JSON that could not be read as what it was to be.</summary>
/// <param name="Type">What it was to be.</param>
/// <param name="Document">The JSON.</param>
/// <param name="At">Where it stands in what was sent; empty: it is all of it.</param>
public sealed record Misread(Type Type, JsonNode? Document, string At = "")
{
    /// <summary>What is wrong at a path of the document, with the path as seen from all that was sent.</summary>
    public RigFault Fault(string path, string reason) => new((At, path) switch
    {
        ("", "") => "file",
        ("", _) => path,
        (_, "") => At,
        _ => path[0] == '[' ? At + path : $"{At}.{path}",
    }, reason);

    /// <summary>The refusal of <paramref name="document"/> by the reader of JSON: where, as far as that says it.</summary>
    public static RigFileException Refused(Type type, JsonNode? document, JsonException e, string at = "")
    {
        var misread = new Misread(type, document, at);
        return new RigFileException([misread.Fault(PathOf(e), e is EmptyEntryException ? e.Message : "this value does not fit here")], misread);
    }

    /// <summary>The refusal of text by the reader of JSON. Text that is no JSON at all is told by line.</summary>
    public static RigFileException Refused(Type type, ReadOnlySpan<byte> utf8, JsonException e)
    {
        JsonNode? document;
        try
        {
            document = JsonNode.Parse(utf8, null, new JsonDocumentOptions { MaxDepth = 1000 });
            WholeNodes.Walk(document);
        }
        catch (JsonException bad)
        {
            bool twice = bad.LineNumber is null;
            string where = bad.LineNumber is { } line ? $" (line {line + 1}, byte {bad.BytePositionInLine + 1})" : "";
            return new RigFileException([new RigFault(PathOf(e) is { Length: > 0 } path ? path : "file",
                twice ? "this field appears twice" : $"this is not JSON that can be read{where}")]);
        }
        return Depth(document) > 32 ? new RigFileException([new RigFault("file", "it is nested too deep")]) : Refused(type, document, e);
    }

    // The reader stands at the list or behind its last entry when a gap is found.
    private static string PathOf(JsonException e)
    {
        string path = e.Path ?? "$";
        if (e is EmptyEntryException gap) path = $"{(path.EndsWith(']') ? path[..path.LastIndexOf('[')] : path)}[{gap.Index}]";
        return path.StartsWith("$.", StringComparison.Ordinal) ? path[2..] : path.TrimStart('$');
    }

    private static int Depth(JsonNode? node) => node switch
    {
        JsonObject fields => 1 + fields.Select(f => Depth(f.Value)).DefaultIfEmpty().Max(),
        JsonArray list => 1 + list.Select(Depth).DefaultIfEmpty().Max(),
        _ => 0,
    };
}
