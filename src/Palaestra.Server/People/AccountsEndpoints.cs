using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <param name="DisabledAt">Since when it cannot sign in; none: it can.</param>
/// <param name="SignIns">On so many devices it is signed in now.</param>
public sealed record AccountLine(
    Guid Id,
    string Name,
    string Email,
    IReadOnlyList<Role> Roles,
    Instant? DisabledAt,
    int SignIns
);

/// <summary>An invitation that was not taken yet.</summary>
public sealed record InvitationLine(
    Guid Id,
    string Name,
    string Email,
    IReadOnlyList<Role> Roles,
    string MadeBy,
    Instant EndsAt,
    bool Again
);

public sealed record AccountsView(
    IReadOnlyList<AccountLine> Accounts,
    IReadOnlyList<InvitationLine> Invitations
);

public sealed record InvitationForm(string Name, string Email, IReadOnlyList<Role> Roles);

/// <param name="Code">Told this once. <paramref name="Path"/>: where it is used, at the clinic's address.</param>
public sealed record InvitationMade(string Code, string Path, Instant EndsAt);

public sealed record AccountSettings(IReadOnlyList<Role> Roles, bool Disabled);

/// <summary>For administrators.</summary>
public static class AccountsEndpoints
{
    public static void MapAccounts(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/accounts").WithTags("Accounts");
        group.MapGet("", Get).Described("GetAccounts", "Everybody who has or may make an account.");
        group
            .MapPost("/invitations", Invite)
            .Described("InviteAccount", "Makes a code with which somebody makes an account, once.");
        group
            .MapDelete("/invitations/{invitationId:guid}", TakeBack)
            .Described("TakeBackInvitation", "Takes an invitation back.", 404);
        group
            .MapPut("/{accountId:guid}", Set)
            .Described(
                "SetAccount",
                "Sets what an account may do and whether it can sign in; an account disabled is signed out everywhere.",
                404,
                409
            );
        group
            .MapPost("/{accountId:guid}/reset", Reset)
            .Described("ResetAccount", "Makes a code with which somebody chooses a new password, once.", 404);
        group
            .MapDelete("/{accountId:guid}/sign-ins", EndSignIns)
            .Described("EndSignInsOf", "Signs an account out on every device.", 404);
    }

    private static async Task<Ok<AccountsView>> Get(PalaestraDb db, Accounts accounts, OpenSignIns signIns)
    {
        var people = await db.Users.AsNoTracking().OrderBy(u => u.DisplayName).ToListAsync();
        return TypedResults.Ok(
            new AccountsView(
                [.. people.Select(u => LineOf(u, signIns))],
                [
                    .. (await accounts.Open()).Select(i => new InvitationLine(
                        i.Id,
                        i.Name,
                        i.Email,
                        i.Roles,
                        i.MadeBy,
                        i.EndsAt,
                        i.AccountId is not null
                    )),
                ]
            )
        );
    }

    private static async Task<Results<Ok<InvitationMade>, ProblemHttpResult>> Invite(
        InvitationForm form,
        Accounts accounts,
        UserManager<Practitioner> users,
        WhoIsHere who
    )
    {
        var errors = ErrorsOf(form).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var email = form.Email.Trim();
        if (await users.FindByEmailAsync(email) is not null)
        {
            return Problem.Field("email", Message.Of("sign-in.taken"));
        }
        return Made(await accounts.Invite(form.Name.Trim(), email, Ordered(form.Roles), who.Name));
    }

    private static IEnumerable<FieldError> ErrorsOf(InvitationForm form)
    {
        if (Names.Fault(form.Name) is { } fault)
        {
            yield return new("name", fault);
        }
        if (!new System.ComponentModel.DataAnnotations.EmailAddressAttribute().IsValid(form.Email?.Trim()))
        {
            yield return new("email", Message.Of("sign-in.no-address"));
        }
        if (form.Roles is not { Count: > 0 })
        {
            yield return new("roles", Message.Of("people.roles"));
        }
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(
        Guid invitationId,
        PalaestraDb db,
        Accounts accounts
    )
    {
        if (await db.Invitations.FindAsync(invitationId) is not { ClosedAt: null } invitation)
        {
            return Problem.NotFound("invitation");
        }
        accounts.Close(invitation);
        await db.SaveChangesAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<AccountLine>, ProblemHttpResult>> Set(
        Guid accountId,
        AccountSettings form,
        Accounts accounts,
        UserManager<Practitioner> users,
        OpenSignIns signIns,
        ClinicClock clock
    )
    {
        if (await users.FindByIdAsync(accountId.ToString()) is not { } account)
        {
            return Problem.NotFound("account");
        }
        if (form.Roles is not { Count: > 0 })
        {
            return Problem.Field("roles", Message.Of("people.roles"));
        }
        if (
            (form.Disabled || !form.Roles.Contains(Role.Administrator))
            && !await accounts.AnotherAdministrator(accountId)
        )
        {
            return Problem.Conflict(Message.Of("people.last"));
        }
        account.SetRoles(Ordered(form.Roles), clock.Now);
        account.DisabledAt = form.Disabled ? account.DisabledAt ?? clock.Now : null;
        await users.UpdateAsync(account);
        if (form.Disabled)
        {
            await signIns.EndAll(accountId);
        }
        signIns.Renew(account);
        return TypedResults.Ok(LineOf(account, signIns));
    }

    private static async Task<Results<Ok<InvitationMade>, ProblemHttpResult>> Reset(
        Guid accountId,
        Accounts accounts,
        UserManager<Practitioner> users,
        WhoIsHere who
    ) =>
        await users.FindByIdAsync(accountId.ToString()) is { } account
            ? Made(
                await accounts.Invite(
                    account.DisplayName,
                    account.Email!,
                    account.Roles,
                    who.Name,
                    account.Id
                )
            )
            : Problem.NotFound("account");

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSignIns(
        Guid accountId,
        UserManager<Practitioner> users,
        OpenSignIns signIns
    )
    {
        if (await users.FindByIdAsync(accountId.ToString()) is null)
        {
            return Problem.NotFound("account");
        }
        await signIns.EndAll(accountId);
        return TypedResults.NoContent();
    }

    private static Ok<InvitationMade> Made((string Code, Invitation Invitation) made) =>
        TypedResults.Ok(new InvitationMade(made.Code, $"/invitation/{made.Code}", made.Invitation.EndsAt));

    private static AccountLine LineOf(Practitioner account, OpenSignIns signIns) =>
        new(
            account.Id,
            account.DisplayName,
            account.Email!,
            account.Roles,
            account.DisabledAt,
            signIns.Of(account.Id).Count
        );

    private static IReadOnlyList<Role> Ordered(IReadOnlyList<Role> roles) => [.. roles.Distinct().Order()];
}
