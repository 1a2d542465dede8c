using Microsoft.AspNetCore.Identity;

namespace Palaestra.Server.People;

/// <summary>What an account may be called, and what is wrong with one that is not taken.</summary>
public static class Names
{
    private const int Longest = 120;

    /// <returns>None: it can be a name.</returns>
    public static Message? Fault(string? name) =>
        name?.Trim() is { Length: > 0 and <= Longest } text && !text.Any(char.IsControl)
            ? null
            : Message.Of("sign-in.name");

    public static FieldError Explain(IdentityError error) =>
        error.Code switch
        {
            Passwords.Short => new("password", Message.Of("sign-in.password-short")),
            Passwords.Long => new("password", Message.Of("sign-in.password-long")),
            Passwords.Weak => new("password", Message.Of("sign-in.password-weak")),
            nameof(IdentityErrorDescriber.DuplicateEmail)
            or nameof(IdentityErrorDescriber.DuplicateUserName) => new("email", Message.Of("sign-in.taken")),
            nameof(IdentityErrorDescriber.InvalidEmail) or nameof(IdentityErrorDescriber.InvalidUserName) =>
                new("email", Message.Of("sign-in.no-address")),
            _ => new(
                error.Code.Contains("Password", StringComparison.Ordinal) ? "password" : "email",
                Message.Plain(error.Description)
            ),
        };
}
