using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;

namespace Palaestra.Server.People;

/// <summary>Begins and ends sign-ins: the cookie of a browser and what the server knows of it.</summary>
public sealed class SignInCookie(
    SignInManager<Practitioner> manager,
    OpenSignIns signIns,
    IHttpContextAccessor accessor
)
{
    public async Task Begin(Practitioner account)
    {
        var device = accessor.HttpContext!.Request.Headers.UserAgent.ToString();
        // One tablet, one sign-in: whoever comes next takes the tablet over.
        if (SignInClaim.Of(accessor.HttpContext!.User) is { } before)
        {
            await signIns.End(before);
        }
        var session = await signIns.Begin(account, device);
        await manager.SignInWithClaimsAsync(
            account,
            new AuthenticationProperties { IsPersistent = true },
            [new Claim(SignInClaim.Type, session.Id.ToString())]
        );
    }

    public async Task End()
    {
        if (SignInClaim.Of(accessor.HttpContext!.User) is { } id)
        {
            await signIns.End(id);
        }
        await manager.SignOutAsync();
    }

    /// <summary>A cookie is worth what the server knows of its sign-in: copied and kept, it is worth nothing after the end.</summary>
    public static Task Validate(CookieValidatePrincipalContext context)
    {
        var signIns = context.HttpContext.RequestServices.GetRequiredService<OpenSignIns>();
        if (
            context.Principal is not { } user
            || SignInClaim.Of(user) is not { } id
            || signIns.Find(id) is null
        )
        {
            context.RejectPrincipal();
        }
        return Task.CompletedTask;
    }
}
