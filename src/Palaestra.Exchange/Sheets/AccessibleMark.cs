using System.Text;

namespace Palaestra.Exchange.Sheets;

/// <summary>
/// Says in a tagged document's metadata that it keeps to PDF/UA-1 (ISO 14289-1, clause 5: <c>pdfuaid:part</c>). The library that
/// writes the document has no place for it: its packet (XMP, part 1, 7.3) is set in fewer blanks, which makes the room, so that
/// nothing after it moves.
/// </summary>
internal static class AccessibleMark
{
    private const string Identifier =
        """<rdf:Description rdf:about="" xmlns:pdfuaid="http://www.aiim.org/pdfua/ns/id/"><pdfuaid:part>1</pdfuaid:part></rdf:Description>""";

    private const string ListEnd = "</rdf:RDF>";

    /// <exception cref="InvalidOperationException">There is no packet, or no room in it.</exception>
    public static byte[] On(byte[] document)
    {
        var begin = At(document, "<x:xmpmeta", At(document, "<?xpacket begin", 0));
        var end = At(document, "<?xpacket end", begin);
        var packet = document.AsSpan(begin, end - begin);
        var lines = Encoding
            .UTF8.GetString(packet)
            .Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var told = string.Join('\n', lines)
            .Replace(ListEnd, $"{Identifier}\n{ListEnd}", StringComparison.Ordinal);
        var bytes = Encoding.UTF8.GetBytes(told);
        if (bytes.Length > packet.Length || !told.Contains(Identifier, StringComparison.Ordinal))
        {
            throw new InvalidOperationException("The document's metadata leaves no room.");
        }
        packet.Fill((byte)' ');
        bytes.CopyTo(packet);
        return document;
    }

    private static int At(byte[] document, string words, int from) =>
        document.AsSpan(from).IndexOf(Encoding.ASCII.GetBytes(words)) is >= 0 and var found
            ? from + found
            : throw new InvalidOperationException("The document has no metadata.");
}
