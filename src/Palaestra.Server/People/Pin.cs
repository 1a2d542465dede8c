using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;

namespace Palaestra.Server.People;

/// <summary>The digits that open a tablet its own user left alone: weaker than a password, and only for what the password began.</summary>
public sealed class Pin(IPasswordHasher<Practitioner> hasher)
{
    public const int Least = 6;
    public const int Most = 12;

    /// <summary>What is wrong with it; none where it can be taken.</summary>
    public static Message? Fault(string? pin) =>
        pin is null || pin.Length is < Least or > Most || !pin.All(char.IsAsciiDigit)
            ? Message.Of("pin.digits", ("least", Least), ("most", Most))
        : IsPlain(pin) ? Message.Of("pin.plain")
        : null;

    public void Set(Practitioner account, string pin) => account.PinHash = hasher.HashPassword(account, pin);

    public bool Right(Practitioner account, string? pin) =>
        account.PinHash is { } hash
        && hasher.VerifyHashedPassword(account, hash, pin ?? "") != PasswordVerificationResult.Failed;

    /// <summary>Tells one PIN from the next without telling anything of either; none: there is none.</summary>
    public static string? Mark(Practitioner account) =>
        account.PinHash is { } hash
            ? Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(hash)))[..16]
            : null;

    /// <summary>One digit, or one step, again and again.</summary>
    private static bool IsPlain(string pin) => pin.Zip(pin.Skip(1), (a, b) => b - a).Distinct().Count() == 1;
}
