using System.Buffers.Binary;
using System.Security.Cryptography;

namespace Palaestra.Exchange.HomeCodes;

/// <summary>One set that was done at home.</summary>
/// <param name="Column">Which exercise and side: its place among those of the page, from 0.</param>
/// <param name="Reps">0 to 255.</param>
/// <param name="Effort">0 to 10; none: not told.</param>
/// <param name="Pain">0 to 10; none: not told.</param>
public sealed record PackedSet(int Column, int Reps, int? Effort, int? Pain);

/// <param name="Pain">While doing it, 0 to 10. <paramref name="Morning"/>: when this day's morning was asked about, 0 to 10.</param>
/// <param name="Stopped">The day was ended because it hurt.</param>
public sealed record PackedDay(
    DateOnly Day,
    int? Pain,
    int? Morning,
    bool Stopped,
    IReadOnlyList<PackedSet> Sets
);

public sealed record PackedLog(HomeToken Token, IReadOnlyList<PackedDay> Days);

/// <summary>The log of a home programme as the page packs it; docs/home.md says byte by byte how.</summary>
public static class HomePack
{
    private const byte Version = 1;
    private const int HeadBytes = 1 + HomeSeal.TokenBytes + 1;

    /// <summary>A place in which nothing was told.</summary>
    private const int Untold = 15;

    /// <summary>The log; or why it is not taken: newer, cut, made elsewhere, altered.</summary>
    public static Checked<PackedLog> Read(byte[] bytes, HomeSeal seal)
    {
        if (bytes.Length > 0 && bytes[0] > Version)
        {
            return Bad(Message.Of("home-code.newer"));
        }
        if (bytes.Length < HeadBytes + HomeSeal.SealBytes || bytes[0] != Version)
        {
            return Bad(Message.Of("home-code.unreadable"));
        }
        var token = bytes.AsSpan(1, HomeSeal.TokenBytes);
        if (seal.Read(token) is not { } read)
        {
            return Bad(Message.Of("home-code.foreign"));
        }
        var log = bytes.AsSpan(0, bytes.Length - HomeSeal.SealBytes);
        var sealedBy = HomeSeal.Of(seal.KeyOf(token), log);
        if (!CryptographicOperations.FixedTimeEquals(sealedBy, bytes.AsSpan(log.Length)))
        {
            return Bad(Message.Of("home-code.altered"));
        }
        return Days(log[HeadBytes..], log[HeadBytes - 1]) is { } days
            ? Checked<PackedLog>.Good(new(read, days))
            : Bad(Message.Of("home-code.unreadable"));
    }

    /// <returns>None where there is less, or more, than is said.</returns>
    private static List<PackedDay>? Days(ReadOnlySpan<byte> rest, int count)
    {
        var days = new List<PackedDay>(count);
        for (var i = 0; i < count; i++)
        {
            if (rest.Length < 5 || rest.Length < 5 + 3 * rest[4])
            {
                return null;
            }
            var sets = new List<PackedSet>(rest[4]);
            for (var s = 0; s < rest[4]; s++)
            {
                var set = rest.Slice(5 + 3 * s, 3);
                sets.Add(new(set[0], set[1], Told(set[2] >> 4), Told(set[2] & 15)));
            }
            days.Add(
                new(
                    HomeSeal.FirstDay.AddDays(BinaryPrimitives.ReadUInt16BigEndian(rest)),
                    Told(rest[2] >> 4),
                    Told(rest[2] & 15),
                    (rest[3] & 1) != 0,
                    sets
                )
            );
            rest = rest[(5 + 3 * sets.Count)..];
        }
        return rest.IsEmpty ? days : null;
    }

    private static int? Told(int nibble) => nibble == Untold ? null : nibble;

    private static Checked<PackedLog> Bad(Message message) =>
        Checked<PackedLog>.Bad(new FieldError("codes", message));
}
