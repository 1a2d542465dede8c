using System.Collections.Concurrent;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

/// <summary>The six digits of an authenticator app beside the password, by RFC 6238; or, the telephone lost, a recovery code.</summary>
public sealed class SecondFactor(UserManager<Practitioner> users, UsedCodes used, ClinicClock clock)
{
    /// <summary>Codes made at once, each good once. Common practice.</summary>
    public const int RecoveryCodes = 10;

    /// <summary>
    /// So long whoever becomes an administrator has time to set it up: a clinic is set up in its first hour, and not kept from
    /// it. Our own.
    /// </summary>
    public static readonly Duration Grace = Duration.FromDays(1);

    /// <summary>What an app is told: otpauth, with the secret in base 32. Key Uri Format, from memory.</summary>
    public static string Address(string email, string secret) =>
        $"otpauth://totp/Palaestra:{UrlEncoder.Default.Encode(email)}?secret={secret}&issuer=Palaestra&digits=6";

    /// <summary>By when it has to be set up; none: it is, or need not be.</summary>
    public static Instant? DueAt(Practitioner account, Settings settings) =>
        account.TwoFactorEnabled || settings.Demo || !account.Roles.Contains(Role.Administrator) ? null
        : account.AdministratorSince is { } since ? since + Grace
        : Instant.MinValue;

    /// <summary>Whether it is right, and was not used before: digits that were looked over a shoulder are worth nothing.</summary>
    public async Task<bool> Right(Practitioner account, string? code)
    {
        var told = new string([.. (code ?? "").Where(char.IsLetterOrDigit)]);
        return told.Length == 6 && told.All(char.IsAsciiDigit)
            ? await users.VerifyTwoFactorTokenAsync(account, TokenOptions.DefaultAuthenticatorProvider, told)
                && used.Use(account.Id, told, clock.Now)
            : told.Length > 0
                && (
                    await users.RedeemTwoFactorRecoveryCodeAsync(account, code!.Trim().ToUpperInvariant())
                ).Succeeded;
    }

    /// <summary>A new secret, not in force before digits made from it were told.</summary>
    public async Task<string> Begin(Practitioner account)
    {
        await users.ResetAuthenticatorKeyAsync(account);
        return (await users.GetAuthenticatorKeyAsync(account))!;
    }

    /// <returns>New recovery codes; those of before are worth nothing.</returns>
    public async Task<IReadOnlyList<string>> NewCodes(Practitioner account) =>
        [.. (await users.GenerateNewTwoFactorRecoveryCodesAsync(account, RecoveryCodes))!];

    public Task Enable(Practitioner account) => users.SetTwoFactorEnabledAsync(account, true);

    /// <summary>The password alone signs in again.</summary>
    public async Task Disable(Practitioner account)
    {
        await users.SetTwoFactorEnabledAsync(account, false);
        await users.ResetAuthenticatorKeyAsync(account);
    }
}

/// <summary>Digits that were taken lately: each signs in once.</summary>
public sealed class UsedCodes
{
    /// <summary>Longer than the framework takes digits for right (three minutes).</summary>
    private static readonly Duration Remembered = Duration.FromMinutes(5);

    private readonly ConcurrentDictionary<(Guid Account, string Code), Instant> used = [];

    /// <summary>False where it was used already.</summary>
    public bool Use(Guid account, string code, Instant now)
    {
        foreach (var old in used.Where(u => u.Value < now - Remembered).Select(u => u.Key).ToList())
        {
            used.TryRemove(old, out _);
        }
        return used.TryAdd((account, code), now);
    }
}
