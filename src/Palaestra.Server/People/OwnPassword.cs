using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <summary>The password of whoever is signed in, given again.</summary>
public sealed class OwnPassword(
    WhoIsHere who,
    UserManager<Practitioner> users,
    Passwords passwords,
    Attempts attempts,
    IHttpContextAccessor accessor
)
{
    public async Task<Practitioner> Mine() => (await users.FindByIdAsync(who.AccountId!.Value.ToString()))!;

    /// <param name="field">Of the form, to be named where it is wrong.</param>
    /// <returns>None: it is right.</returns>
    public async Task<ProblemHttpResult?> Refusal(Practitioner account, string? password, string field)
    {
        var context = accessor.HttpContext!;
        // Apart from signing in: whoever is in already cannot close the door.
        var key = Attempts.Of($"again {account.Email}", context);
        return await attempts.Try(
            key,
            () => passwords.Right(account, password),
            context.RequestAborted
        ) switch
        {
            Tried.Right => null,
            Tried.Wrong => Problem.Field(field, Message.Of("people.password")),
            _ => Problem.TooOften(),
        };
    }
}
