using System.Security.Cryptography;
using SkiaSharp;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Pictures;

/// <summary>Checks, shrinks and straightens pictures. What it keeps is JPEG without any word of place, time or camera.</summary>
internal static class PictureDesk
{
    /// <summary>Longest edge that is kept, pixels.</summary>
    public const int MostEdge = 2000;

    /// <summary>Largest picture that is kept, bytes.</summary>
    public const int MostBytes = 500_000;

    private const long MostPixels = 40_000_000;

    private static readonly int[] Qualities = [85, 75, 65, 50, 35];

    /// <summary>
    /// The picture as it is kept. One that is fit already, and says nothing besides, stays as it is, so that it keeps its name from rig to rig. Throws <see
    /// cref="RigFileException"/> for what is no JPEG or PNG, is broken, or has more than 40 megapixels; of the last the size is read before anything is
    /// decoded.
    /// </summary>
    public static byte[] Kept(byte[] bytes)
    {
        using var data = SKData.CreateCopy(bytes);
        using var codec = SKCodec.Create(data);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png))
            throw Refused("it is not a JPEG or PNG picture that can be read");
        int work = WorkOfAPixel(bytes, codec.EncodedFormat);
        if ((long)codec.Info.Width * codec.Info.Height * work > MostPixels)
            throw Refused($"it has {codec.Info.Width} × {codec.Info.Height} pixels, where {MostPixels / work / 1_000_000} million are " +
                $"allowed{(work > 1 ? " of this kind: save it as JPEG, or as PNG of 8 bits without interlacing" : "")}");
        if (codec.EncodedFormat == SKEncodedImageFormat.Jpeg && bytes.Length <= MostBytes && Math.Max(codec.Info.Width, codec.Info.Height) <= MostEdge
            && IsClean(bytes))
        {
            using var whole = new SKBitmap(codec.Info);
            if (codec.GetPixels(whole.Info, whole.GetPixels()) == SKCodecResult.Success) return bytes;
        }
        using var decoded = new SKBitmap(new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(decoded.Info, decoded.GetPixels()) != SKCodecResult.Success) throw Refused("it is broken: not all of it can be read");
        using var upright = Upright(decoded, codec.EncodedOrigin);
        double scale = Math.Min(1, (double)MostEdge / Math.Max(upright.Width, upright.Height));
        using var small = new SKBitmap(Math.Max(1, (int)(upright.Width * scale)), Math.Max(1, (int)(upright.Height * scale)), SKColorType.Rgba8888,
            SKAlphaType.Opaque);
        using (var canvas = new SKCanvas(small))
        using (var image = SKImage.FromBitmap(upright))
        {
            canvas.Clear(SKColors.White);
            canvas.DrawImage(image, SKRect.Create(small.Width, small.Height), new SKSamplingOptions(SKCubicResampler.Mitchell));
        }
        return Encoded(small);
    }

    /// <summary>Name of a picture.</summary>
    public static string HashOf(byte[] bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    /// <summary>Width and height, pixels.</summary>
    public static (int Wide, int High) SizeOf(byte[] bytes)
    {
        using var data = SKData.CreateCopy(bytes);
        using var codec = SKCodec.Create(data) ?? throw Refused("it cannot be read");
        return (codec.Info.Width, codec.Info.Height);
    }

    /// <summary>
    /// The picture as it is seen square on: the four corners make a rectangle, and around it lies as much again on each side, as far as the picture reaches.
    /// Clear where it does not. PNG of <see cref="StraightEdge"/> pixels along its longer edge; the rectangle is the middle third of it both ways. Throws <see
    /// cref="RigFileException"/> at the corners.
    /// </summary>
    public static byte[] Straight(byte[] bytes, IReadOnlyList<PicturePoint> corners, double widthToHeight)
    {
        var seen = Homography.FromUnitSquare([.. corners.Select(c => (c.X, c.Y))])
            ?? throw new RigFileException([new RigFault("corners", "they go around, from the upper left clockwise, and no three of them lie on a line")]);
        using var picture = SKBitmap.Decode(bytes);
        double ratio = Math.Clamp(widthToHeight, 0.05, 20);
        int wide = ratio >= 1 ? StraightEdge : (int)(StraightEdge * ratio), high = ratio >= 1 ? (int)(StraightEdge / ratio) : StraightEdge;
        using var made = new SKBitmap(wide, high, SKColorType.Rgba8888, SKAlphaType.Unpremul);
        var (from, to) = (picture.Pixels, new SKColor[wide * high]);
        for (int row = 0; row < high; row++)
        {
            for (int column = 0; column < wide; column++)
            {
                if (seen.At(3 * (column + 0.5) / wide - 1, 3 * (row + 0.5) / high - 1) is not var (x, y) || x is < 0 or >= 1 || y is < 0 or >= 1) continue;
                to[row * wide + column] = from[(int)(y * picture.Height) * picture.Width + (int)(x * picture.Width)];
            }
        }
        made.Pixels = to;
        using var encoded = made.Encode(SKEncodedImageFormat.Png, 90);
        return encoded.ToArray();
    }

    private const int StraightEdge = 1500;

    private static byte[] Encoded(SKBitmap picture)
    {
        foreach (int quality in Qualities)
        {
            using var made = picture.Encode(SKEncodedImageFormat.Jpeg, quality);
            if (made.Size <= MostBytes) return made.ToArray();
        }
        using var half = picture.Resize(new SKSizeI(Math.Max(1, picture.Width / 2), Math.Max(1, picture.Height / 2)),
            new SKSamplingOptions(SKFilterMode.Linear));
        return Encoded(half);
    }

    // As it was held, not as the sensor lay.
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        bool turned = origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var upright = new SKBitmap(turned ? picture.Height : picture.Width, turned ? picture.Width : picture.Height, SKColorType.Rgba8888, SKAlphaType.Premul);
        using var canvas = new SKCanvas(upright);
        float w = upright.Width, h = upright.Height;
        canvas.SetMatrix(origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, w, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, w, -1, 0, h, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, h, 0, 0, 1),
            _ => SKMatrix.Identity,
        });
        canvas.DrawBitmap(picture, 0, 0);
        return upright;
    }

    // Plainly clean is what holds the picture and nothing besides: tables, frame, scans, and a mark of the format without a preview; the end of it is the end
    // of the file. All else may say place, time or camera, before, between or behind the scans, and is encoded anew. ISO/IEC 10918-1, annex B.
    private static bool IsClean(byte[] jpeg)
    {
        for (int i = 2; i + 1 < jpeg.Length && jpeg[i] == 0xFF;)
        {
            byte kind = jpeg[i + 1];
            if (kind == 0xD9) return i + 2 == jpeg.Length;
            if (i + 3 >= jpeg.Length) return false;
            int length = jpeg[i + 2] << 8 | jpeg[i + 3];
            bool mark = kind == 0xE0 && length == 16 && jpeg.AsSpan(i + 4).StartsWith("JFIF\0"u8);
            if (!mark && kind is not ((>= 0xC0 and <= 0xCF) or 0xDA or 0xDB or 0xDD)) return false;
            i += 2 + length;
            // A scan goes on to the next marker that is neither a stuffed byte nor a restart.
            if (kind == 0xDA)
                while (i + 1 < jpeg.Length && (jpeg[i] != 0xFF || jpeg[i + 1] is 0 or (>= 0xD0 and <= 0xD7))) i++;
        }
        return false;
    }

    // A PNG of 16 bits is twice the work, and one in seven passes is read whole before any of it can be let go: each pixel counts for as many.
    private static int WorkOfAPixel(byte[] bytes, SKEncodedImageFormat format) =>
        format != SKEncodedImageFormat.Png || bytes.Length < 29 ? 1 : (bytes[24] == 16 ? 2 : 1) * (bytes[28] == 1 ? 4 : 1);

    private static RigFileException Refused(string reason) => new([new RigFault("picture", reason)]);
}
