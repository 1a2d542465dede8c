using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <summary>Whoever is signed in, as they see themselves.</summary>
/// <param name="SecondFactorDue">By when it has to be set up; none: it is, or need not be.</param>
/// <param name="RecoveryCodes">That are left. <paramref name="HasPin"/>: digits open a locked tablet.</param>
/// <param name="Reading">How it reads dates and measures.</param>
/// <param name="Confirmed">The password was given within the last five minutes.</param>
public sealed record AccountView(
    Guid Id,
    string Name,
    string Email,
    IReadOnlyList<Role> Roles,
    bool Confirmed,
    bool SecondFactor,
    Instant? SecondFactorDue,
    int RecoveryCodes,
    bool HasPin,
    OwnReading Reading
);

/// <param name="Device">What the browser says it is. <paramref name="Here"/>: it is the one that asks.</param>
public sealed record SignInView(Guid Id, string Device, Instant BegunAt, bool Here);

/// <param name="Reading">None: as it is.</param>
public sealed record AccountForm(string Name, OwnReading? Reading = null);

/// <param name="Old">The one that is valid until now.</param>
public sealed record PasswordForm(string Old, string New);

public sealed record ConfirmForm(string Password);

/// <summary>For everybody, about themselves.</summary>
public static class AccountEndpoints
{
    public static void MapAccount(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Account");
        group.MapGet("/account", Get).Described("GetAccount", "Who is signed in, and as what.");
        group
            .MapPut("/account", Change)
            .Described(
                "ChangeAccount",
                "Changes the name of whoever asks, and how they read dates and measures."
            );
        group
            .MapPost("/account/password", ChangePassword)
            .Described(
                "ChangePassword",
                "Changes the password of whoever asks; every other sign-in of the account ends.",
                429
            );
        group
            .MapGet("/account/sign-ins", SignIns)
            .Described("GetSignIns", "On which devices whoever asks is signed in.");
        group
            .MapDelete("/account/sign-ins/{signInId:guid}", End)
            .Described("EndSignIn", "Ends a sign-in of whoever asks, as that of a lost tablet.", 404);
        group
            .MapPost("/reauthenticate", Reauthenticate)
            .Described(
                "Reauthenticate",
                "Gives the password again; for five minutes it counts for what asks for it.",
                429
            );
    }

    private static async Task<Ok<AccountView>> Get(
        WhoIsHere who,
        OwnPassword own,
        UserManager<Practitioner> users
    ) => TypedResults.Ok(await ViewOf(await own.Mine(), who, users));

    private static async Task<Results<Ok<AccountView>, ProblemHttpResult>> Change(
        AccountForm form,
        WhoIsHere who,
        OwnPassword own,
        UserManager<Practitioner> users,
        OpenSignIns signIns
    )
    {
        if (Names.Fault(form.Name) is { } fault)
        {
            return Problem.Field("name", fault);
        }
        var account = await own.Mine();
        account.DisplayName = form.Name.Trim();
        if (form.Reading is { } reading)
        {
            (account.DateOrder, account.WeekStart, account.Units) = (
                reading.DateOrder,
                reading.WeekStart,
                reading.Units
            );
        }
        await users.UpdateAsync(account);
        signIns.Renew(account);
        return TypedResults.Ok(await ViewOf(account, who, users));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangePassword(
        PasswordForm form,
        WhoIsHere who,
        OwnPassword own,
        UserManager<Practitioner> users,
        OpenSignIns signIns
    )
    {
        var account = await own.Mine();
        if (await own.Refusal(account, form.Old, "old") is { } refusal)
        {
            return refusal;
        }
        var changed = await users.ChangePasswordAsync(account, form.Old, form.New);
        if (!changed.Succeeded)
        {
            return Problem.Fields(changed.Errors.Select(e => Names.Explain(e) with { Field = "new" }));
        }
        await signIns.EndAll(account.Id, but: who.SignIn!.Id);
        return TypedResults.NoContent();
    }

    private static Ok<IReadOnlyList<SignInView>> SignIns(WhoIsHere who, OpenSignIns signIns) =>
        TypedResults.Ok<IReadOnlyList<SignInView>>([
            .. signIns
                .Of(who.AccountId!.Value)
                .Select(s => new SignInView(s.Id, s.Device, s.BegunAt, s.Id == who.SignIn!.Id)),
        ]);

    private static async Task<Results<NoContent, ProblemHttpResult>> End(
        Guid signInId,
        WhoIsHere who,
        OpenSignIns signIns
    )
    {
        if (signIns.Find(signInId) is not { } session || session.AccountId != who.AccountId)
        {
            return Problem.NotFound("sign-in");
        }
        await signIns.End(signInId);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Reauthenticate(
        ConfirmForm form,
        WhoIsHere who,
        OwnPassword own,
        OpenSignIns signIns
    )
    {
        if (await own.Refusal(await own.Mine(), form.Password, "password") is { } refusal)
        {
            return refusal;
        }
        await signIns.Confirm(who.SignIn!);
        return TypedResults.NoContent();
    }

    private static async Task<AccountView> ViewOf(
        Practitioner account,
        WhoIsHere who,
        UserManager<Practitioner> users
    ) =>
        new(
            account.Id,
            account.DisplayName,
            account.Email!,
            account.Roles,
            who.Confirmed,
            account.TwoFactorEnabled,
            who.SignIn?.SecondFactorDue,
            account.TwoFactorEnabled ? await users.CountRecoveryCodesAsync(account) : 0,
            account.PinHash is not null,
            account.Reading()
        );
}
