using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;

namespace Palaestra.Server.People;

/// <summary>Which passwords are taken, and whether one is right.</summary>
public sealed class Passwords(IPasswordHasher<Practitioner> hasher) : IPasswordValidator<Practitioner>
{
    /// <summary>What is wrong with one (<see cref="Names.Explain"/>).</summary>
    public const string Short = "PasswordShort";

    /// <inheritdoc cref="Short"/>
    public const string Long = "PasswordLong";

    /// <inheritdoc cref="Short"/>
    public const string Weak = "PasswordWeak";

    /// <summary>Characters at least. The clinic's own house: common practice.</summary>
    public const int Shortest = 12;

    /// <summary>Characters at most: hashing and weighing take their time.</summary>
    public const int Longest = 128;

    /// <summary>Of 0 to 4 by zxcvbn: from 3 on more than 100,000,000 guesses (Wheeler 2016, from memory).</summary>
    private const int Strong = 3;

    private static readonly Practitioner Nobody = new() { DisplayName = "", UserName = "" };

    // Made once: making one takes as long as looking at one.
    private static readonly string Nobodys = new PasswordHasher<Practitioner>().HashPassword(
        Nobody,
        Guid.NewGuid().ToString()
    );

    /// <summary>Takes as long for somebody who is not there as for somebody who is.</summary>
    public bool Right(Practitioner? account, string? password)
    {
        var known = account is { DisabledAt: null, PasswordHash: not null };
        var result = hasher.VerifyHashedPassword(
            account ?? Nobody,
            known ? account!.PasswordHash! : Nobodys,
            // What is longer was never set.
            password is { Length: <= Longest }
                ? password
                : ""
        );
        return known && result != PasswordVerificationResult.Failed;
    }

    public Task<IdentityResult> ValidateAsync(
        UserManager<Practitioner> manager,
        Practitioner user,
        string? password
    ) =>
        Task.FromResult(
            Fault(password ?? "", user) is { } message
                ? IdentityResult.Failed(new IdentityError { Code = message, Description = message })
                : IdentityResult.Success
        );

    /// <returns>One of the codes above; none: it is taken.</returns>
    private static string? Fault(string password, Practitioner user)
    {
        if (password.Length < Shortest)
        {
            return Short;
        }
        if (password.Length > Longest)
        {
            return Long;
        }
        string[] own =
        [
            .. user.DisplayName.Split(' '),
            user.DisplayName,
            .. (user.Email ?? "").Split('@', '.'),
        ];
        return Zxcvbn.Zxcvbn.MatchPassword(password, own.Where(word => word.Length > 2)).Score < Strong
            ? Weak
            : null;
    }
}
