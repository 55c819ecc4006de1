using System.IO.Compression;
using System.Security.Cryptography;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Store;

/// <summary>Packs documents for the database and unpacks them.</summary>
public static class Documents
{
    // Smaller than this, a page of the database is not saved by packing.
    private const int WorthPacking = 4096, SumBytes = 8;

    /// <summary>Packs <paramref name="rig"/>. Throws <see cref="RigFileException"/> when it is too large to be read back.</summary>
    public static (byte[] Content, Packing Packing) Pack(Rig rig)
    {
        byte[] plain = RigFile.WriteCompact(rig);
        if (plain.Length < WorthPacking) return (Sealed(plain), Packing.SealedPlain);
        byte[] packed = new byte[BrotliEncoder.GetMaxCompressedLength(plain.Length)];
        // Quality 1 is some ten times as fast as the usual one, and within a third of its size.
        return BrotliEncoder.TryCompress(plain, packed, out int length, quality: 1, window: 22) && length < plain.Length
            ? (Sealed(packed[..length]), Packing.SealedBrotli)
            : (Sealed(plain), Packing.SealedPlain);
    }

    private static byte[] Sealed(byte[] content) => [.. SHA256.HashData(content).AsSpan(0, SumBytes), .. content];

    /// <summary>The JSON of a stored document. Throws <see cref="RigFileException"/> for one that is damaged, or that unpacks to more than a rig can
    /// be.</summary>
    public static byte[] Unpack(byte[] content, Packing packing)
    {
        if (packing is Packing.SealedPlain or Packing.SealedBrotli)
        {
            if (content.Length < SumBytes || !SHA256.HashData(content.AsSpan(SumBytes)).AsSpan(0, SumBytes).SequenceEqual(content.AsSpan(0, SumBytes)))
                throw new RigFileException([new RigFault("file", "its stored form is damaged")]);
            content = content[SumBytes..];
        }
        if (packing is Packing.Plain or Packing.SealedPlain) return content;
        var unpacked = new MemoryStream(content.Length * 8);
        try
        {
            using var brotli = new BrotliStream(new MemoryStream(content), CompressionMode.Decompress);
            byte[] buffer = new byte[81920];
            for (int read; (read = brotli.Read(buffer)) > 0;)
            {
                unpacked.Write(buffer, 0, read);
                if (unpacked.Length > RigFile.MaxBytes) throw new RigFileException([new RigFault("file", "it unpacks to more than a rig can be")]);
            }
        }
        catch (Exception e) when (e is InvalidDataException or InvalidOperationException or IOException)
        {
            throw new RigFileException([new RigFault("file", "its stored form is damaged")]);
        }
        return unpacked.ToArray();
    }
}
