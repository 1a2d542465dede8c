using PdfSharp.Drawing;

namespace Palaestra.Exchange.Letters;

/// <summary>The clinic's mark, a small picture at the head of letters and sheets.</summary>
public static class LetterMark
{
    public const int MostBytes = 300_000;
    private const int MostPixels = 3000;

    /// <returns>Why these bytes cannot be it; none where they can.</returns>
    public static Message? Wrong(byte[] bytes)
    {
        if (bytes.Length > MostBytes)
        {
            return Message.Of("picture.bytes", ("most", MostBytes / 1000));
        }
        try
        {
            using var image = XImage.FromStream(new MemoryStream(bytes));
            return image.PixelWidth is 0 or > MostPixels || image.PixelHeight is 0 or > MostPixels
                ? Message.Of("picture.points", ("most", MostPixels))
                : null;
        }
        // What the reader of pictures throws at bytes that are none is not told by it.
        catch (Exception problem) when (problem is not OutOfMemoryException)
        {
            return Message.Of("picture.unreadable");
        }
    }
}
