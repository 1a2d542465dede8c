using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;

namespace Palaestra.Server.Tablet;

/// <summary>What a tablet locks up what it keeps with: made here for one account, and known by the server again when it is shown.</summary>
/// <param name="Id">Of the key, in the clear beside what it locks up. <paramref name="Secret"/>: 32 bytes, of AES-256.</param>
public sealed record TabletKey(Guid Id, Guid AccountId, byte[] Secret);

/// <summary>
/// Makes the keys of tablets and seals them, so that the tablet can keep the sealed key beside what it locks up: somebody who forgot
/// a PIN loses nothing, and what was tapped by somebody who has left since is read by the server alone, under their name.
/// </summary>
public sealed class TabletKeys(IDataProtectionProvider protection)
{
    private const int SecretBytes = 32;
    private const int TagBytes = 16;
    private const int NonceBytes = 12;

    private readonly IDataProtector protector = protection.CreateProtector("tablet-key");

    public static TabletKey New(Guid account) =>
        new(Guid.CreateVersion7(), account, RandomNumberGenerator.GetBytes(SecretBytes));

    public string Seal(TabletKey key) =>
        Convert.ToBase64String(protector.Protect(JsonSerializer.SerializeToUtf8Bytes(key)));

    /// <returns>None: it is not of this server, or was altered.</returns>
    public TabletKey? Open(string? sealedKey)
    {
        try
        {
            return sealedKey is null
                ? null
                : JsonSerializer.Deserialize<TabletKey>(
                    protector.Unprotect(Convert.FromBase64String(sealedKey))
                );
        }
        catch (Exception problem) when (problem is CryptographicException or FormatException or JsonException)
        {
            return null;
        }
    }

    /// <summary>What a tablet locked up: AES-256-GCM as browsers write it (Web Cryptography API, W3C), the tag behind the text.</summary>
    /// <param name="about">What it was bound to.</param>
    /// <returns>None: by another key, about something else, or altered.</returns>
    public static byte[]? Read(TabletKey key, string nonce, string data, ReadOnlySpan<byte> about)
    {
        try
        {
            var (number, bytes) = (Convert.FromBase64String(nonce), Convert.FromBase64String(data));
            if (number.Length != NonceBytes || bytes.Length < TagBytes)
            {
                return null;
            }
            var text = new byte[bytes.Length - TagBytes];
            using var aes = new AesGcm(key.Secret, TagBytes);
            aes.Decrypt(number, bytes.AsSpan(0, text.Length), bytes.AsSpan(text.Length), text, about);
            return text;
        }
        catch (Exception problem) when (problem is CryptographicException or FormatException)
        {
            return null;
        }
    }
}
