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

/// <param name="Role">In words, for people.</param>
public sealed record DemoAccount(
    string Name,
    string Role,
    string Email,
    string Password,
    IReadOnlyList<Role> Roles
);

/// <summary>What a visitor who is not signed in may know.</summary>
/// <param name="Administrator">Whoever is signed in keeps the clinic.</param>
/// <param name="Roles">What whoever is signed in may do; empty: nobody is.</param>
/// <param name="Time">How the clinic tells times and dates, as whoever is signed in reads them.</param>
/// <param name="Locked">This tablet: it is opened by a PIN (<paramref name="HasPin"/>) or the password.</param>
/// <param name="LockMinutes">Without a touch, after which a tablet locks itself.</param>
/// <param name="SecondFactorDue">From when an administrator cannot go on without a second factor; none: it is set up, or need not be.</param>
/// <param name="PinMark">Another one whenever the PIN is set anew, so that a tablet knows when the one it keeps is over; none: there is none.</param>
/// <param name="BackupWarning">For administrators: the last good backup is too old, or there is none.</param>
public sealed record StartView(
    bool NeedsFirstAdministrator,
    bool Demo,
    IReadOnlyList<DemoAccount> Accounts,
    string? SignedInAs,
    bool Administrator = false,
    string? BackupWarning = null,
    ClinicTime? Time = null,
    string? Version = null,
    IReadOnlyList<Role>? Roles = null,
    bool Locked = false,
    bool HasPin = false,
    int LockMinutes = Data.Clinics.Clinic.UsualLockMinutes,
    Instant? SecondFactorDue = null,
    string? PinMark = null
);

/// <param name="Code">Six digits from the app, or a recovery code; asked for where the account has a second factor.</param>
public sealed record SignInForm(string Email, string Password, string? Code = null);

/// <param name="Code">As it was told at the start; dashes, blanks and case do not matter.</param>
public sealed record FirstAdministratorForm(string Code, string Name, string Email, string Password);

public static class SignInEndpoints
{
    public static void MapSignIn(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Sign-in");
        group
            .MapGet("/start", Start)
            .AllowAnonymous()
            .Described("GetStart", "Whether there is an account yet, and who is signed in.");
        group
            .MapPost("/sign-in", SignIn)
            .AllowAnonymous()
            .Described("SignIn", "Signs in; the answer sets a cookie.", 401, 429);
        group
            .MapPost("/first-administrator", CreateFirst)
            .AllowAnonymous()
            .Described(
                "CreateFirstAdministrator",
                "Makes the first account of a clinic, with the code told on its machine.",
                409
            );
        group.MapPost("/sign-out", SignOut).Described("SignOut", "Signs out.");
    }

    private static async Task<Ok<StartView>> Start(
        PalaestraDb db,
        Settings settings,
        Demo.DemoScenario demo,
        FirstAdministrator first,
        Keeping.BackupRuns backups,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        var here = who.SignIn;
        var account = here is null
            ? null
            : await db.Users.AsNoTracking().SingleOrDefaultAsync(u => u.Id == here.AccountId);
        var keeps = who.Is(Role.Administrator);
        var none = first.Open && !await db.Users.AnyAsync();
        return TypedResults.Ok(
            new StartView(
                none,
                settings.Demo,
                settings.Demo ? demo.Accounts : [],
                here?.Name,
                keeps,
                keeps ? backups.Warning() : null,
                account is null ? null : clock.Time.For(account.Reading()),
                here is null ? null : Product.Version,
                who.Roles,
                here?.Locked ?? false,
                account?.PinHash is not null,
                await db.Clinics.Select(c => c.LockMinutes).SingleOrDefaultAsync(),
                here?.SecondFactorDue,
                account is null ? null : Pin.Mark(account)
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        SignInForm form,
        UserManager<Practitioner> users,
        Passwords passwords,
        Attempts attempts,
        SignInCookie cookie,
        SecondFactor second,
        HttpContext context
    )
    {
        var key = Attempts.Of(form.Email ?? "", context);
        var account = await users.FindByEmailAsync(form.Email ?? "");
        var asked = false;
        async Task<bool> Right()
        {
            if (!passwords.Right(account, form.Password))
            {
                return false;
            }
            asked = account is { TwoFactorEnabled: true } && string.IsNullOrWhiteSpace(form.Code);
            return asked || account is { TwoFactorEnabled: false } || await second.Right(account!, form.Code);
        }
        switch (await attempts.Try(key, Right, context.RequestAborted))
        {
            case Tried.Right when asked:
                return Problem.SecondFactorAsked();
            case Tried.Right:
                await cookie.Begin(account!);
                return TypedResults.NoContent();
            case Tried.Wrong:
                return Problem.Of(StatusCodes.Status401Unauthorized, Message.Of("sign-in.wrong"));
            default:
                return Problem.TooOften();
        }
    }

    private static async Task<NoContent> SignOut(SignInCookie cookie)
    {
        await cookie.End();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> CreateFirst(
        FirstAdministratorForm form,
        FirstAdministrator first,
        PalaestraDb db,
        UserManager<Practitioner> users,
        SignInCookie cookie,
        TimeProvider clock
    )
    {
        var user = new Practitioner
        {
            DisplayName = form.Name.Trim(),
            UserName = form.Email,
            Email = form.Email,
        };
        // Of a clinic of one: whoever comes first works there too.
        user.SetRoles([Role.Administrator, Role.Practitioner], Instant.FromDateTimeOffset(clock.GetUtcNow()));
        await first.Turn.WaitAsync();
        try
        {
            if (!first.Open || await users.Users.AnyAsync())
            {
                return Problem.Conflict(Message.Of("sign-in.first-there"));
            }
            if (!first.Is(form.Code))
            {
                return Problem.Field(
                    "code",
                    Message.Of("sign-in.code", ("file", FirstAdministrator.FileName))
                );
            }
            if (Names.Fault(form.Name) is { } fault)
            {
                return Problem.Field("name", fault);
            }
            var created = await users.CreateAsync(user, form.Password);
            if (!created.Succeeded)
            {
                return Problem.Fields(created.Errors.Select(Names.Explain));
            }
            first.Close(clock.GetLocalNow());
        }
        finally
        {
            first.Turn.Release();
        }
        await cookie.Begin(user);
        return TypedResults.NoContent();
    }
}
