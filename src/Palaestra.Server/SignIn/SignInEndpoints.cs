using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.SignIn;

public sealed record DemoAccount(string Name, string Role, string Email, string Password);

/// <summary>What a visitor who is not signed in may know.</summary>
/// <param name="Administrator">Whoever is signed in keeps the clinic.</param>
/// <param name="Time">How the clinic tells times and dates; for whoever is signed in.</param>
/// <param name="BackupWarning">For administrators: the last good backup is too old, or there is none.</param>
public sealed record StartView(
    bool NeedsFirstAdministrator,
    bool Demo,
    IReadOnlyList<DemoAccount> Accounts,
    string? SignedInAs,
    bool Administrator = false,
    string? BackupWarning = null,
    ClinicTime? Time = null,
    string? Version = null
);

public sealed record SignInForm(string Email, string Password);

/// <param name="Code">As it was told at the start; dashes, blanks and case do not matter.</param>
public sealed record FirstAdministratorForm(string Code, string Name, string Email, string Password);

public static class SignInEndpoints
{
    public const string Administrator = "administrator";

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
            .Described("SignIn", "Signs in; the answer sets a cookie.", 401);
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
        UserManager<Practitioner> users,
        Settings settings,
        Demo.DemoScenario demo,
        FirstAdministrator first,
        Keeping.BackupRuns backups,
        ClaimsPrincipal principal,
        ClinicClock clock
    )
    {
        var user = await users.GetUserAsync(principal);
        var keeps = user is not null && principal.IsInRole(Administrator);
        var none = first.Open && !await users.Users.AnyAsync();
        return TypedResults.Ok(
            new StartView(
                none,
                settings.Demo,
                settings.Demo ? demo.Accounts : [],
                user?.DisplayName,
                keeps,
                keeps ? backups.Warning() : null,
                user is null ? null : clock.Time,
                user is null ? null : Product.Version
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        SignInForm form,
        SignInManager<Practitioner> signIn
    )
    {
        var result = await signIn.PasswordSignInAsync(
            form.Email,
            form.Password,
            isPersistent: true,
            lockoutOnFailure: true
        );
        if (result.Succeeded)
        {
            return TypedResults.NoContent();
        }
        var title = result.IsLockedOut ? Message.Of("sign-in.tries") : Message.Of("sign-in.wrong");
        return Problem.Of(StatusCodes.Status401Unauthorized, title);
    }

    private static async Task<NoContent> SignOut(SignInManager<Practitioner> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> CreateFirst(
        FirstAdministratorForm form,
        FirstAdministrator first,
        PalaestraDb db,
        UserManager<Practitioner> users,
        RoleManager<IdentityRole<Guid>> roles,
        SignInManager<Practitioner> signIn,
        TimeProvider clock
    )
    {
        var user = new Practitioner
        {
            DisplayName = form.Name.Trim(),
            UserName = form.Email,
            Email = form.Email,
        };
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
            if (user.DisplayName.Length is 0 or > 120)
            {
                return Problem.Field("name", Message.Of("sign-in.name"));
            }
            await using var whole = await db.Database.BeginTransactionAsync();
            var created = await users.CreateAsync(user, form.Password);
            if (!created.Succeeded)
            {
                return Problem.Fields(created.Errors.Select(Explain));
            }
            if (!await roles.RoleExistsAsync(Administrator))
            {
                await roles.CreateAsync(new IdentityRole<Guid>(Administrator));
            }
            await users.AddToRoleAsync(user, Administrator);
            await whole.CommitAsync();
            first.Close(clock.GetLocalNow());
        }
        finally
        {
            first.Turn.Release();
        }
        await signIn.SignInAsync(user, isPersistent: true);
        return TypedResults.NoContent();
    }

    private static FieldError Explain(IdentityError error) =>
        new(
            error.Code.Contains("Password", StringComparison.Ordinal) ? "password" : "email",
            error.Code switch
            {
                nameof(IdentityErrorDescriber.PasswordTooShort) => Message.Of("sign-in.password-short"),
                nameof(IdentityErrorDescriber.DuplicateEmail)
                or nameof(IdentityErrorDescriber.DuplicateUserName) => Message.Of("sign-in.taken"),
                nameof(IdentityErrorDescriber.InvalidEmail)
                or nameof(IdentityErrorDescriber.InvalidUserName) => Message.Of("sign-in.no-address"),
                _ => Message.Plain(error.Description),
            }
        );
}
