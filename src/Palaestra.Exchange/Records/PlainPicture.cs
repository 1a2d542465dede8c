using System.Buffers.Binary;

namespace Palaestra.Exchange.Records;

/// <summary>
/// A picture without what a camera writes beside it (place, time, device, remarks): the segments APP1 to APP15 and COM of a JPEG
/// (ITU-T T.81, annex B), the chunks of a PNG that are for text and cameras (W3C PNG, third edition, 11.3). The picture itself is
/// not touched.
/// </summary>
public static class PlainPicture
{
    private static readonly byte[] Jpeg = [0xFF, 0xD8, 0xFF];
    private static readonly byte[] Png = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A];
    private static readonly HashSet<string> Told = ["eXIf", "tEXt", "zTXt", "iTXt", "tIME"];

    /// <returns>None where these are not the bytes of a JPEG or PNG, or they end early.</returns>
    public static byte[]? Of(byte[] picture) =>
        picture.AsSpan().StartsWith(Jpeg) ? OfJpeg(picture)
        : picture.AsSpan().StartsWith(Png) ? OfPng(picture)
        : null;

    private static byte[]? OfJpeg(byte[] picture)
    {
        using var plain = new MemoryStream(picture.Length);
        plain.Write(picture, 0, 2);
        var at = 2;
        while (at + 4 <= picture.Length && picture[at] == 0xFF)
        {
            var marker = picture[at + 1];
            // From the start of the scan on it is all picture.
            if (marker == 0xDA)
            {
                plain.Write(picture, at, picture.Length - at);
                return plain.ToArray();
            }
            var length = 2 + BinaryPrimitives.ReadUInt16BigEndian(picture.AsSpan(at + 2));
            if (at + length > picture.Length)
            {
                return null;
            }
            if (marker is not ((>= 0xE1 and <= 0xEF) or 0xFE))
            {
                plain.Write(picture, at, length);
            }
            at += length;
        }
        return null;
    }

    private static byte[]? OfPng(byte[] picture)
    {
        using var plain = new MemoryStream(picture.Length);
        plain.Write(picture, 0, Png.Length);
        long at = Png.Length;
        while (at + 12 <= picture.Length)
        {
            var chunk = picture.AsSpan((int)at);
            var length = 12L + BinaryPrimitives.ReadUInt32BigEndian(chunk);
            if (at + length > picture.Length)
            {
                return null;
            }
            var kind = System.Text.Encoding.ASCII.GetString(chunk.Slice(4, 4));
            if (!Told.Contains(kind))
            {
                plain.Write(picture, (int)at, (int)length);
            }
            at += length;
            if (kind == "IEND")
            {
                return plain.ToArray();
            }
        }
        return null;
    }
}
