using System.Buffers.Binary;
using System.Security.Cryptography;

namespace Palaestra.Exchange.HomeCodes;

/// <summary>Which programme a page was made of: a random number in the place of a name.</summary>
/// <param name="Page">Random; says nothing of whom it is for.</param>
/// <param name="Revision">Of the plan, 1 to 65535.</param>
/// <param name="Expires">The last day on which its log is taken in.</param>
public sealed record HomeToken(Guid Page, int Revision, DateOnly Expires);

/// <summary>Signs what a page carries, and what it brings back, with what only the clinic knows.</summary>
/// <param name="secret">The clinic's own, 32 bytes; it is in every backup.</param>
public sealed class HomeSeal(byte[] secret)
{
    public const int SecretBytes = 32;
    public const int TokenBytes = 28;
    public const int SealBytes = 16;
    private const int SignatureBytes = 8;

    /// <summary>Day 0 of the days in a code.</summary>
    public static readonly DateOnly FirstDay = new(2020, 1, 1);

    /// <summary>16 bytes of the page, 2 of the revision, 2 of the day it expires, 8 of signature.</summary>
    public byte[] Write(HomeToken token)
    {
        var bytes = new byte[TokenBytes];
        token.Page.TryWriteBytes(bytes, bigEndian: true, out _);
        BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(16), (ushort)token.Revision);
        BinaryPrimitives.WriteUInt16BigEndian(
            bytes.AsSpan(18),
            (ushort)(token.Expires.DayNumber - FirstDay.DayNumber)
        );
        Signature(bytes).CopyTo(bytes, 20);
        return bytes;
    }

    /// <returns>None where it was not signed here.</returns>
    public HomeToken? Read(ReadOnlySpan<byte> bytes)
    {
        if (
            bytes.Length != TokenBytes
            || !CryptographicOperations.FixedTimeEquals(Signature(bytes), bytes[20..])
        )
        {
            return null;
        }
        return new(
            new Guid(bytes[..16], bigEndian: true),
            BinaryPrimitives.ReadUInt16BigEndian(bytes[16..]),
            FirstDay.AddDays(BinaryPrimitives.ReadUInt16BigEndian(bytes[18..]))
        );
    }

    /// <summary>The key that a page seals its log with: another one for each page, of which the clinic's secret cannot be told.</summary>
    public byte[] KeyOf(ReadOnlySpan<byte> token) => Hash("home-key", token[..20]);

    /// <summary>16 bytes (HMAC-SHA-256, FIPS 198-1 and 180-4; cut short as SP 800-107 lets, from memory).</summary>
    public static byte[] Of(byte[] key, ReadOnlySpan<byte> log) => HMACSHA256.HashData(key, log)[..SealBytes];

    private byte[] Signature(ReadOnlySpan<byte> bytes) => Hash("home-token", bytes[..20])[..SignatureBytes];

    private byte[] Hash(string use, ReadOnlySpan<byte> of) =>
        HMACSHA256.HashData(secret, (byte[])[.. System.Text.Encoding.ASCII.GetBytes(use), .. of]);
}
