using System.Buffers.Binary;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using SkiaSharp;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Server.Tests;

/// <summary>Pictures under the drawings: checked, shrunk, stripped, straightened, and carried in the saved file.</summary>
public class PictureTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private static readonly PicturePoint[] Corners = [new(0.2, 0.3), new(0.8, 0.2), new(0.9, 0.9), new(0.1, 0.7)];

    // The sum that a PNG has behind each of its chunks.
    private static uint Crc(ReadOnlySpan<byte> bytes)
    {
        uint crc = uint.MaxValue;
        foreach (byte b in bytes)
        {
            crc ^= b;
            for (int n = 0; n < 8; n++) crc = (crc >> 1) ^ (0xEDB88320 & (uint)-(int)(crc & 1));
        }
        return ~crc;
    }

    // A red board on a white wall, seen askew.
    private static byte[] Wall(int wide, int high, SKEncodedImageFormat format)
    {
        using var wall = new SKBitmap(wide, high);
        using var canvas = new SKCanvas(wall);
        canvas.Clear(SKColors.White);
        using var board = new SKPath();
        board.AddPoly([.. Corners.Select(c => new SKPoint((float)(c.X * wide), (float)(c.Y * high)))]);
        using var red = new SKPaint { Color = SKColors.Red };
        canvas.DrawPath(board, red);
        using var made = wall.Encode(format, 95);
        return made.ToArray();
    }

    private static async Task<(int Status, JsonNode? Said)> Send(Host host, byte[] picture, string type = "image/png")
    {
        var answer = await host.Http.PostAsync("/api/pictures", new ByteArrayContent(picture) { Headers = { ContentType = new MediaTypeHeaderValue(type) } });
        string text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, text.Length > 0 ? JsonNode.Parse(text) : null);
    }

    [Fact]
    public async Task A_picture_is_shrunk_stripped_and_kept_once_and_what_is_none_is_refused()
    {
        var host = shared.Host;
        var (status, large) = await Send(host, Wall(3000, 2400, SKEncodedImageFormat.Png));
        Assert.Equal((200, 2000, 1600), (status, (int)large!["wide"]!, (int)large["high"]!));
        byte[] kept = await host.Http.GetByteArrayAsync($"/api/pictures/{(string)large["picture"]!}");
        Assert.InRange(kept.Length, 1, 500_000);
        // What is fit already keeps its name.
        Assert.Equal((string)large["picture"]!, (string)(await Send(host, kept, "image/jpeg")).Said!["picture"]!);

        // A segment that says where it was taken.
        byte[] place = [0xFF, 0xE1, 0, 18, .. Encoding.ASCII.GetBytes("Exif\0\0GPS52N13E")];
        byte[] jpeg = Wall(300, 200, SKEncodedImageFormat.Jpeg), told = [.. jpeg[..2], .. place, .. jpeg[2..]];
        var (_, small) = await Send(host, told, "image/jpeg");
        Assert.True((await host.Http.GetByteArrayAsync($"/api/pictures/{(string)small!["picture"]!}")).AsSpan().IndexOf("GPS"u8) < 0);

        using var huge = new SKBitmap(new SKImageInfo(8000, 5200, SKColorType.Gray8));
        using var encoded = huge.Encode(SKEncodedImageFormat.Png, 100);
        foreach (var (picture, type, expected) in ((byte[], string, int)[])[
            (encoded.ToArray(), "image/png", 400), (told[..(told.Length / 2)], "image/jpeg", 400), (Encoding.UTF8.GetBytes("<svg/>"), "image/png", 400),
            ([], "image/png", 400), (jpeg, "image/gif", 415)])
        {
            var (refused, said) = await Send(host, picture, type);
            Assert.Equal(expected, refused);
            if (expected == 400) Assert.NotNull(said!["errors"]!["picture"]);
        }
        Assert.Equal(404, (int)(await host.Http.GetAsync($"/api/pictures/{new string('0', 64)}")).StatusCode);
    }

    [Fact]
    public async Task What_says_where_it_was_taken_is_gone_wherever_it_stood()
    {
        var host = shared.Host;
        byte[] place = Encoding.ASCII.GetBytes("GPS52N13E"), comment = [0xFF, 0xFE, 0, 11, .. place];
        var sent = await Send(host, Wall(300, 200, SKEncodedImageFormat.Jpeg), "image/jpeg");
        byte[] clean = await host.Http.GetByteArrayAsync($"/api/pictures/{(string)sent.Said!["picture"]!}");
        int scan = clean.AsSpan().IndexOf((ReadOnlySpan<byte>)[0xFF, 0xDA]);
        byte[][] hidden =
        [
            [.. clean, .. place],
            [.. clean[..^2], .. comment, .. clean[^2..]],
            [.. clean[..scan], .. comment, .. clean[scan..]],
            // In the format's own mark, made longer.
            [.. clean[..2], 0xFF, 0xE0, 0, (byte)(16 + place.Length), .. Encoding.ASCII.GetBytes("JFIF\0"), 1, 1, 0, 0, 1, 0, 1, 0, 0, .. place,
                .. clean[20..]],
        ];
        foreach (byte[] told in hidden)
        {
            Assert.True(told.AsSpan().IndexOf(place) > 0);
            var (status, said) = await Send(host, told, "image/jpeg");
            Assert.Equal(200, status);
            Assert.True((await host.Http.GetByteArrayAsync($"/api/pictures/{(string)said!["picture"]!}")).AsSpan().IndexOf(place) < 0);
        }
    }

    [Fact]
    public async Task What_is_much_work_for_its_size_is_refused_before_it_is_done()
    {
        var host = shared.Host;
        byte[] png = Wall(3000, 2000, SKEncodedImageFormat.Png);
        // Sixteen bits and interlaced, as its head says; what follows is never looked at.
        (png[24], png[28]) = (16, 1);
        BinaryPrimitives.WriteUInt32BigEndian(png.AsSpan(29), Crc(png.AsSpan(12, 17)));
        var (status, said) = await Send(host, png);
        Assert.Equal(400, status);
        Assert.Contains("5 million", said!.ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_a_file_that_is_refused_no_picture_is_kept_and_a_byte_order_mark_is_no_part_of_one_that_is_taken()
    {
        await using var host = await Host.Start();
        string name = (string)(await Send(host, Wall(900, 600, SKEncodedImageFormat.Png))).Said!["picture"]!;
        var photo = new Photo("wall", "kitchen wall", name, PhotoView.Side, Corners, 1.2, 0.8, 2, 0.1);
        await host.Save(1, new AddThing("shell/photos", (JsonObject)System.Text.Json.JsonSerializer.SerializeToNode(photo, RigFile.Compact)!));
        byte[] file = await host.Http.GetByteArrayAsync("/api/rigs/sparrow/file");
        static ByteArrayContent Json(byte[] body) => new(body) { Headers = { ContentType = new("application/json") } };

        await using var other = await Host.Start();
        var bad = JsonNode.Parse(file)!;
        bad["brief"]!["people"] = -5;
        Assert.Equal(400, (await other.Post("/api/rigs", Json(Encoding.UTF8.GetBytes(bad.ToJsonString())))).Status);
        Assert.Equal(404, (int)(await other.Http.GetAsync($"/api/pictures/{name}")).StatusCode);
        Assert.Equal(201, (await other.Post("/api/rigs", Json([0xEF, 0xBB, 0xBF, .. file]))).Status);
        Assert.Equal(200, (int)(await other.Http.GetAsync($"/api/pictures/{name}")).StatusCode);
    }

    [Fact]
    public async Task Four_corners_straighten_it()
    {
        var host = shared.Host;
        string name = (string)(await Send(host, Wall(900, 600, SKEncodedImageFormat.Png))).Said!["picture"]!;
        string Ask(IEnumerable<PicturePoint> corners) => $"/api/pictures/{name}/straight?ratio=1.5&"
            + string.Join("&", corners.Select(c => FormattableString.Invariant($"x={c.X}&y={c.Y}")));
        using var straight = SKBitmap.Decode(await host.Http.GetByteArrayAsync(Ask(Corners)));
        Assert.Equal((1500, 1000), (straight.Width, straight.Height));
        static bool IsRed(SKColor c) => c is { Red: > 200, Green: < 60, Alpha: 255 };
        // The middle third is the board, up to a hair of its edge; around it is wall, and clear where the picture ends.
        foreach (var (x, y) in ((int, int)[])[(510, 345), (990, 345), (990, 655), (510, 655), (750, 500)])
            Assert.True(IsRed(straight.GetPixel(x, y)), $"{x},{y}");
        foreach (var (x, y) in ((int, int)[])[(490, 340), (1010, 500), (750, 322), (750, 678)]) Assert.False(IsRed(straight.GetPixel(x, y)), $"{x},{y}");
        Assert.Contains(straight.Pixels, c => c.Alpha == 0);
        var crossed = await host.Http.GetAsync(Ask([Corners[0], Corners[2], Corners[1], Corners[3]]));
        Assert.Equal(400, (int)crossed.StatusCode);
    }

    [Fact]
    public async Task It_travels_in_the_saved_file()
    {
        await using var host = await Host.Start();
        string name = (string)(await Send(host, Wall(900, 600, SKEncodedImageFormat.Png))).Said!["picture"]!;
        var photo = new Photo("wall", "kitchen wall", name, PhotoView.Side, Corners, 1.2, 0.8, 2, 0.1);
        var (status, saved) = await host.Save(1, new AddThing("shell/photos",
            (JsonObject)System.Text.Json.JsonSerializer.SerializeToNode(photo, RigFile.Compact)!));
        Assert.Equal(200, status);
        byte[] file = await host.Http.GetByteArrayAsync("/api/rigs/sparrow/file");

        await using var other = await Host.Start();
        var (opened, rig) = await other.Post("/api/rigs", new ByteArrayContent(file) { Headers = { ContentType = new("application/json") } });
        Assert.Equal(201, opened);
        Assert.Equal(name, (string)rig["rig"]!["shell"]!["photos"]![0]!["picture"]!);
        Assert.Equal(await host.Http.GetByteArrayAsync($"/api/pictures/{name}"), await other.Http.GetByteArrayAsync($"/api/pictures/{name}"));
        // Under another name, or no picture at all, it is refused, and so is the file.
        string text = Encoding.UTF8.GetString(file);
        foreach (string wrong in (string[])[text.Replace($"\"{name}\": \"", $"\"{new string('a', 64)}\": \"", StringComparison.Ordinal),
            text.Replace($"\"{name}\": \"", $"\"{name}\": \"AAAA", StringComparison.Ordinal)])
            Assert.Equal(400, (await other.Post("/api/rigs", new ByteArrayContent(Encoding.UTF8.GetBytes(wrong))
            {
                Headers =
                { ContentType = new("application/json") }
            })).Status);

        // Taken away again, there is no list; taken back, it is there.
        await host.Save(2, new RemoveThing("shell/photos/wall"));
        Assert.Null((await host.Rig()).Shell.Photos);
        await host.Post("/api/rigs/sparrow/edits", new { @base = 2, edits = saved["inverse"] });
        Assert.Null((await host.Rig()).Shell.Photos);
    }
}
