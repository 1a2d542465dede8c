using System.Security.Cryptography;
using System.Text;

namespace Palaestra.Server.People;

/// <summary>Codes that are told once, typed in by people, and kept as a hash.</summary>
public static class InvitationCode
{
    /// <summary>Letters and digits that are not taken for one another.</summary>
    public const string Alphabet = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";

    /// <summary>Of 5 bits each: 100 bits.</summary>
    public const int Letters = 20;

    public static string New() => Grouped(RandomNumberGenerator.GetString(Alphabet, Letters));

    /// <summary>As it is typed: without its dashes, and in either case.</summary>
    public static string Plain(string? code) =>
        (code ?? "")
            .Replace("-", "", StringComparison.Ordinal)
            .Replace(" ", "", StringComparison.Ordinal)
            .ToUpperInvariant();

    /// <summary>Hexadecimal digits of SHA-256: of 100 random bits nothing slower is needed.</summary>
    public static string Hash(string? code) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(Plain(code))));

    private static string Grouped(string code) =>
        string.Join('-', code.Chunk(5).Select(part => new string(part)));
}
