using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.People;

/// <param name="Value">6 to 12 digits; none: the password alone opens a locked tablet.</param>
public sealed record PinForm(string? Value);

/// <param name="Pin">Or <paramref name="Password"/>: one of them.</param>
public sealed record UnlockForm(string? Pin = null, string? Password = null);

/// <summary>The lock of a tablet that was left alone; the sign-in goes on behind it.</summary>
public static class LockEndpoints
{
    public static void MapLock(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Account");
        group
            .MapPut("/account/pin", SetPin)
            .Described("SetPin", "Sets the digits that open a locked tablet, or takes them away.");
        group
            .MapPost("/lock", Lock)
            .Described("Lock", "Locks this sign-in: nothing is answered before it is opened again.");
        group
            .MapPost("/unlock", Unlock)
            .Described(
                "Unlock",
                "Opens a locked sign-in by its user's PIN or password; after five wrong ones it ends.",
                401
            );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetPin(
        PinForm form,
        OwnPassword own,
        UserManager<Practitioner> users,
        Pin pins
    )
    {
        var account = await own.Mine();
        if (form.Value is null)
        {
            account.PinHash = null;
        }
        else if (Pin.Fault(form.Value) is { } fault)
        {
            return Problem.Field("value", fault);
        }
        else
        {
            pins.Set(account, form.Value);
        }
        await users.UpdateAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Lock(WhoIsHere who, OpenSignIns signIns)
    {
        await signIns.Lock(who.SignIn!);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Unlock(
        UnlockForm form,
        WhoIsHere who,
        OwnPassword own,
        Pin pins,
        Passwords passwords,
        Attempts attempts,
        OpenSignIns signIns,
        SignInCookie cookie,
        HttpContext context
    )
    {
        var (here, account) = (who.SignIn!, await own.Mine());
        // By sign-in: another tablet's wrong digits do not close this one.
        var key = $"unlock {here.Id}";
        var tried = await attempts.Try(
            key,
            () => form.Pin is { } pin ? pins.Right(account, pin) : passwords.Right(account, form.Password),
            context.RequestAborted
        );
        if (tried == Tried.Right)
        {
            await signIns.Open(here);
            return TypedResults.NoContent();
        }
        if (attempts.Spent(key))
        {
            await cookie.End();
            return Problem.Of(StatusCodes.Status401Unauthorized, Message.Of("pin.ended"));
        }
        return form.Pin is null
            ? Problem.Field("password", Message.Of("people.password"))
            : Problem.Field("pin", Message.Of("pin.wrong"));
    }
}
