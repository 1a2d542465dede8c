using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <param name="Again">A new password for an account there is.</param>
public sealed record InvitationView(string Name, string Email, bool Again);

public sealed record TakeInvitationForm(string Password);

/// <summary>For whoever has a code: nobody is signed in yet.</summary>
public static class InvitationEndpoints
{
    public static void MapInvitations(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/invitations/{code}").WithTags("Sign-in").AllowAnonymous();
        group.MapGet("", Get).Described("GetInvitation", "Whom a code was made for.", 404, 429);
        group
            .MapPost("", Take)
            .Described(
                "TakeInvitation",
                "Chooses a password by a code, which is used up by it, and signs in.",
                404,
                409,
                429
            );
    }

    private static async Task<Results<Ok<InvitationView>, ProblemHttpResult>> Get(
        string code,
        Accounts accounts,
        Attempts attempts,
        HttpContext context
    ) =>
        await accounts.Find(code) is { } invitation
            ? TypedResults.Ok(
                new InvitationView(invitation.Name, invitation.Email, invitation.AccountId is not null)
            )
            : await Unknown(attempts, context);

    private static async Task<Results<NoContent, ProblemHttpResult>> Take(
        string code,
        TakeInvitationForm form,
        Accounts accounts,
        Attempts attempts,
        HttpContext context,
        PalaestraDb db,
        UserManager<Practitioner> users,
        OpenSignIns signIns,
        SignInCookie cookie,
        SecondFactor second,
        ClinicClock clock
    )
    {
        await using var whole = await db.Database.BeginTransactionAsync();
        if (await accounts.Find(code) is not { } invitation)
        {
            return await Unknown(attempts, context);
        }
        accounts.Close(invitation);
        var account = invitation.AccountId is { } id ? await users.FindByIdAsync(id.ToString()) : null;
        if (account is { DisabledAt: not null })
        {
            return Problem.Conflict(Message.Of("people.disabled"));
        }
        var chosen = account is null
            ? await users.CreateAsync(account = New(invitation, clock.Now), form.Password)
            : await Again(account, form.Password, users, second);
        if (!chosen.Succeeded)
        {
            return Problem.Fields(chosen.Errors.Select(Names.Explain));
        }
        await db.SaveChangesAsync();
        await whole.CommitAsync();
        await signIns.EndAll(account.Id);
        await cookie.Begin(account);
        return TypedResults.NoContent();
    }

    private static Practitioner New(Invitation invitation, NodaTime.Instant now)
    {
        var account = new Practitioner
        {
            DisplayName = invitation.Name,
            UserName = invitation.Email,
            Email = invitation.Email,
        };
        account.SetRoles(invitation.Roles, now);
        return account;
    }

    private static async Task<IdentityResult> Again(
        Practitioner account,
        string password,
        UserManager<Practitioner> users,
        SecondFactor second
    )
    {
        // Whoever lost the telephone with the app comes back by such a code too.
        await second.Disable(account);
        account.PinHash = null;
        await users.RemovePasswordAsync(account);
        return await users.AddPasswordAsync(account, password);
    }

    private static Task<ProblemHttpResult> Unknown(Attempts attempts, HttpContext context) =>
        attempts.NotThere(
            "invitation",
            context,
            Problem.Of(StatusCodes.Status404NotFound, Message.Of("people.no-code"))
        );
}
