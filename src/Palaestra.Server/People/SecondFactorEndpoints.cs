using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <param name="Secret">In base 32, for whoever cannot point a camera. <paramref name="Address"/>: the same for a QR code.</param>
public sealed record SecondFactorBegun(string Secret, string Address);

/// <param name="Code">Six digits from the app.</param>
public sealed record SecondFactorForm(string Code);

/// <param name="Codes">Told this once; each signs in once in place of the digits.</param>
public sealed record RecoveryCodesMade(IReadOnlyList<string> Codes);

/// <summary>For everybody, about their own second factor.</summary>
public static class SecondFactorEndpoints
{
    public static void MapSecondFactor(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/account/second-factor").WithTags("Account");
        group
            .MapPost("", Begin)
            .Described(
                "BeginSecondFactor",
                "Makes a secret for an authenticator app; it counts once digits from it were told.",
                409
            );
        group
            .MapPost("/confirm", Confirm)
            .Described(
                "ConfirmSecondFactor",
                "Puts the second factor in force, and makes recovery codes.",
                409,
                429
            );
        group
            .MapPost("/recovery-codes", NewCodes)
            .Described("MakeRecoveryCodes", "Makes new recovery codes; those of before count no more.", 409);
        group.MapDelete("", End).Described("EndSecondFactor", "The password alone signs in again.", 409);
    }

    private static async Task<Results<Ok<SecondFactorBegun>, ProblemHttpResult>> Begin(
        OwnPassword own,
        SecondFactor second
    )
    {
        var account = await own.Mine();
        if (account.TwoFactorEnabled)
        {
            return Problem.Conflict(Message.Of("second.there"));
        }
        var secret = await second.Begin(account);
        return TypedResults.Ok(new SecondFactorBegun(secret, SecondFactor.Address(account.Email!, secret)));
    }

    private static async Task<Results<Ok<RecoveryCodesMade>, ProblemHttpResult>> Confirm(
        SecondFactorForm form,
        OwnPassword own,
        SecondFactor second,
        Attempts attempts,
        OpenSignIns signIns,
        HttpContext context
    )
    {
        var account = await own.Mine();
        if (account.TwoFactorEnabled)
        {
            return Problem.Conflict(Message.Of("second.there"));
        }
        var key = Attempts.Of($"second {account.Email}", context);
        switch (await attempts.Try(key, () => second.Right(account, form.Code), context.RequestAborted))
        {
            case Tried.Right:
                await second.Enable(account);
                signIns.Renew(account);
                return TypedResults.Ok(new RecoveryCodesMade(await second.NewCodes(account)));
            case Tried.Wrong:
                return Problem.Field("code", Message.Of("second.wrong"));
            default:
                return Problem.TooOften();
        }
    }

    private static async Task<Results<Ok<RecoveryCodesMade>, ProblemHttpResult>> NewCodes(
        OwnPassword own,
        SecondFactor second
    )
    {
        var account = await own.Mine();
        return account.TwoFactorEnabled
            ? TypedResults.Ok(new RecoveryCodesMade(await second.NewCodes(account)))
            : Problem.Conflict(Message.Of("second.none"));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(
        OwnPassword own,
        SecondFactor second,
        OpenSignIns signIns
    )
    {
        var account = await own.Mine();
        if (!account.TwoFactorEnabled)
        {
            return Problem.Conflict(Message.Of("second.none"));
        }
        await second.Disable(account);
        signIns.Renew(account);
        return TypedResults.NoContent();
    }
}
