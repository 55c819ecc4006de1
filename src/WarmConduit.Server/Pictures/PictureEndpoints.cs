using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using WarmConduit.Core.Rigs;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;
using WarmConduit.Store;

namespace WarmConduit.Server.Pictures;

/// <summary>A stored picture.</summary>
/// <param name="Picture">Its name: SHA-256 of its bytes.</param>
/// <param name="Wide">Width, pixels.</param>
/// <param name="High">Height, pixels.</param>
public sealed record KeptPicture(string Picture, int Wide, int High);

/// <summary>Pictures under the drawings, over HTTP. None is sent anywhere.</summary>
internal static class PictureEndpoints
{
    /// <summary>Where they are sent to.</summary>
    public const string Path = "/api/pictures";

    /// <summary>Largest picture that is looked at, bytes.</summary>
    public const int MaxBody = 25_000_000;

    // A file carries pictures beside the rig, under this name.
    private const string InFile = "pictures";

    public static void Map(IEndpointRouteBuilder api)
    {
        var pictures = api.MapGroup("/pictures").WithTags("Pictures");
        pictures.MapPost("/", Keep).RequireRateLimiting(Limits.Work).Accepts<byte[]>("image/jpeg", "image/png").Produces<KeptPicture>()
            .WithMetadata(new GuestsToo())
            .WithName("keepPicture").WithSummary("Stores a JPEG or PNG, turned upright, without place or camera, of at most 2000 pixels and 500 kB. The same " +
                "picture is stored once.");
        pictures.MapGet("/{picture}", async Task<Results<FileContentHttpResult, NotFound>> (string picture, Attachments attachments, HttpResponse response,
            CancellationToken cancel) =>
            await attachments.Find(picture, cancel) is { } found ? Sent(response, found, "image/jpeg") : TypedResults.NotFound())
            .Produces(200, contentType: "image/jpeg").WithName("getPicture").WithSummary("A picture as stored.").ProducesProblem(404);
        pictures.MapGet("/{picture}/straight", async Task<Results<FileContentHttpResult, NotFound>> (string picture, [FromQuery] double[] x,
            [FromQuery] double[] y, [FromQuery] double ratio, Attachments attachments, HttpResponse response, CancellationToken cancel) =>
        {
            if (x.Length != 4 || y.Length != 4 || !x.Concat(y).Append(ratio).All(double.IsFinite))
                throw new RigFileException([new RigFault("corners", "four corners, each with x and y")]);
            return await attachments.Find(picture, cancel) is { } found
                ? Sent(response, PictureDesk.Straight(found, [.. x.Zip(y, (a, b) => new PicturePoint(a, b))], ratio), "image/png") : TypedResults.NotFound();
        })
            .RequireRateLimiting(Limits.Work).Produces(200, contentType: "image/png")
            .WithName("getStraightPicture").WithSummary("A picture seen square on: the rectangle of its four corners is the middle third of it both ways; " +
                "clear where the picture does not reach.").ProducesProblem(404);
    }

    /// <summary>Takes the pictures that a rig file carries out of it; gives the rig's own text, and them to be kept once that is read. A file without any is
    /// given back as it is.</summary>
    public static (ReadOnlyMemory<byte> File, IReadOnlyList<byte[]> Pictures) TakenOut(ReadOnlyMemory<byte> file)
    {
        // What some programs write before a text is no part of it.
        if (file.Span.StartsWith("\uFEFF"u8)) file = file[3..];
        if (file.Span.IndexOf("\"pictures\""u8) < 0) return (file, []);
        JsonObject? document;
        try
        {
            var whole = JsonNode.Parse(file.Span, null, new JsonDocumentOptions { AllowDuplicateProperties = false, MaxDepth = 32 });
            WholeNodes.Walk(whole);
            document = whole as JsonObject;
        }
        catch (JsonException e)
        {
            throw Misread.Refused(typeof(Rig), file.Span, e);
        }
        if (document is null || !document.TryGetPropertyValue(InFile, out var carried)) return (file, []);
        if (carried is not JsonObject pictures || pictures.Count > 12) throw new RigFileException([new RigFault(InFile, "at most 12 pictures by name")]);
        var kept = new List<byte[]>();
        foreach (var (name, value) in pictures)
        {
            byte[] bytes = new byte[PictureDesk.MostBytes];
            if (value is not JsonValue text || !text.TryGetValue(out string? base64) || !Convert.TryFromBase64String(base64, bytes, out int length)
                || PictureDesk.Kept(bytes[..length]) is not { } fit || PictureDesk.HashOf(fit) != name)
                throw new RigFileException([new RigFault($"{InFile}.{name}", "it is not the picture of that name")]);
            kept.Add(fit);
        }
        document.Remove(InFile);
        return (JsonSerializer.SerializeToUtf8Bytes(document), kept);
    }

    /// <summary>The file of a rig with the pictures that it names.</summary>
    public static async Task<byte[]> PutIn(Rig rig, byte[] file, Attachments attachments, CancellationToken cancel)
    {
        if (rig.Shell.Photos is not { Count: > 0 } photos) return file;
        var pictures = new JsonObject();
        foreach (string name in photos.Select(p => p.Picture).Distinct().Order(StringComparer.Ordinal))
            if (await attachments.Find(name, cancel) is { } bytes) pictures[name] = Convert.ToBase64String(bytes);
        var document = (JsonObject)JsonNode.Parse(file)!;
        document[InFile] = pictures;
        return JsonSerializer.SerializeToUtf8Bytes(document, RigFile.Json);
    }

    private static async Task<Ok<KeptPicture>> Keep(HttpRequest request, Attachments attachments, CancellationToken cancel)
    {
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancel);
        byte[] kept = PictureDesk.Kept(body.ToArray());
        string name = PictureDesk.HashOf(kept);
        await attachments.Keep(name, kept, cancel);
        var (wide, high) = PictureDesk.SizeOf(kept);
        return TypedResults.Ok(new KeptPicture(name, wide, high));
    }

    // A name is that of its bytes, so what is behind it never changes.
    private static FileContentHttpResult Sent(HttpResponse response, byte[] bytes, string type)
    {
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.File(bytes, type);
    }
}
