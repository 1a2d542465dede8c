using System.Buffers.Binary;
using System.Text;
using Palaestra.Exchange.Records;

namespace Palaestra.Exchange.Tests;

/// <summary>What a camera writes beside a picture goes; the picture stays byte by byte.</summary>
public class PlainPictureTests
{
    private static byte[] Segment(byte marker, string content) =>
        [
            0xFF,
            marker,
            (byte)((content.Length + 2) >> 8),
            (byte)(content.Length + 2),
            .. Encoding.ASCII.GetBytes(content),
        ];

    private static readonly byte[] Tables = [.. Segment(0xE0, "JFIF"), .. Segment(0xDB, "tables")];

    // In the scan anything may stand, also what looks like a segment.
    private static readonly byte[] Scan =
    [
        .. Segment(0xDA, "scan"),
        1,
        2,
        0xFF,
        0xE1,
        0,
        4,
        9,
        9,
        0xFF,
        0xD9,
    ];

    [Fact]
    public void A_jpeg_loses_where_and_when_and_by_what_it_was_taken()
    {
        byte[] picture =
        [
            0xFF,
            0xD8,
            .. Segment(0xE0, "JFIF"),
            .. Segment(0xE1, "Exif\0\0 54.1 N 3.2 W"),
            .. Segment(0xED, "Photographer"),
            .. Segment(0xFE, "for Ottoline"),
            .. Segment(0xDB, "tables"),
            .. Scan,
        ];
        Assert.Equal<byte>([0xFF, 0xD8, .. Tables, .. Scan], PlainPicture.Of(picture)!);
    }

    private static byte[] Chunk(string name, string content)
    {
        var length = new byte[4];
        BinaryPrimitives.WriteInt32BigEndian(length, content.Length);
        return [.. length, .. Encoding.ASCII.GetBytes(name + content), 0, 0, 0, 0];
    }

    private static readonly byte[] Signature = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A];

    [Fact]
    public void A_png_loses_its_texts_and_what_lies_behind_its_end()
    {
        byte[] head = [.. Signature, .. Chunk("IHDR", "0123456789012")];
        byte[] rest = [.. Chunk("IDAT", "pixels"), .. Chunk("IEND", "")];
        byte[] told =
        [
            .. Chunk("eXIf", "54.1 N"),
            .. Chunk("tEXt", "Author"),
            .. Chunk("tIME", "2026121"),
            .. Chunk("iTXt", "x"),
        ];
        Assert.Equal<byte>([.. head, .. rest], PlainPicture.Of([.. head, .. told, .. rest, 7, 7, 7])!);
    }

    [Fact]
    public void What_is_no_picture_or_ends_early_is_none()
    {
        Assert.Null(PlainPicture.Of([]));
        Assert.Null(PlainPicture.Of("<svg onload=alert(1)>"u8.ToArray()));
        byte[] whole = [0xFF, 0xD8, .. Tables, .. Segment(0xE1, "Exif"), .. Segment(0xDA, "scan")];
        for (var length = 0; length < 2 + Tables.Length + 8; length++)
        {
            Assert.Null(PlainPicture.Of(whole[..length]));
        }
        byte[] wide = [.. Signature, 0xFF, 0xFF, 0xFF, 0xFF, .. "IDAT"u8, 0, 0, 0, 0];
        Assert.Null(PlainPicture.Of(wide));
    }
}
