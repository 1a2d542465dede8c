using System.Buffers.Text;
using System.Security.Cryptography;

namespace Palaestra.Data.Records;

/// <summary>
/// Gives a record that comes from elsewhere ids of its own, the same for the same file each time: what came before is known when it
/// comes again.
/// </summary>
/// <param name="turn">None: it is known here by the ids it has; 0: it is not; 1: it was taken in before and erased since; and so on.</param>
public sealed class RecordNames(int? turn)
{
    /// <summary>The first half, which holds the time of making, stays: what is sorted by id stays in order.</summary>
    private const int Kept = 8;

    /// <summary>Of an id as text, and where in it its first dash is.</summary>
    private const int Length = 36;
    private const int Dash = 8;

    public Guid Of(Guid id)
    {
        if (turn is not { } made)
        {
            return id;
        }
        var old = id.ToByteArray(bigEndian: true);
        var hash = SHA256.HashData([.. "palaestra-record"u8, (byte)made, .. old]);
        byte[] bytes = [.. old.AsSpan(0, Kept), .. hash.AsSpan(0, 16 - Kept)];
        // RFC 9562, 4.1: the variant of such ids.
        bytes[8] = (byte)((bytes[8] & 0x3F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }

    /// <summary>Gives all ids in a text anew, also those in JSON within JSON, in place: they are as long as they were.</summary>
    public void In(Span<byte> utf8)
    {
        if (turn is null)
        {
            return;
        }
        var at = 0;
        while (utf8[at..].IndexOf((byte)'-') is >= 0 and var next)
        {
            at += next;
            var start = at - Dash;
            if (
                start >= 0
                && start + Length <= utf8.Length
                && Utf8Parser.TryParse(utf8.Slice(start, Length), out Guid id, out var read)
                && read == Length
            )
            {
                Utf8Formatter.TryFormat(Of(id), utf8.Slice(start, Length), out _);
                at = start + Length;
            }
            else
            {
                at++;
            }
        }
    }
}
