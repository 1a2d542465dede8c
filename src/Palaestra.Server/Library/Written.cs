using System.IO.Compression;
using System.Text.Json;

namespace Palaestra.Server.Library;

/// <summary>An answer written and packed once.</summary>
/// <param name="Json">UTF-8.</param>
/// <param name="Brotli">The same, packed.</param>
public sealed record Written(byte[] Json, byte[] Brotli)
{
    /// <summary>Best of eleven at a tenth of the time of the last.</summary>
    private const int Quality = 9;

    /// <summary>log2 of the window; the largest.</summary>
    private const int Window = 24;

    public static Written Of<T>(T view, JsonSerializerOptions json)
    {
        var bytes = JsonSerializer.SerializeToUtf8Bytes(view, json);
        var packed = new byte[BrotliEncoder.GetMaxCompressedLength(bytes.Length)];
        return BrotliEncoder.TryCompress(bytes, packed, out var length, Quality, Window)
            ? new(bytes, packed[..length])
            : throw new InvalidOperationException("An answer could not be packed.");
    }
}
