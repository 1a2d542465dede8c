using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;

namespace Palaestra.Server.SignIn;

/// <summary>The name of whoever is signed in, for the record.</summary>
public sealed class WhoIsHere(IHttpContextAccessor accessor)
{
    public string Name =>
        accessor.HttpContext?.User.FindFirstValue(DisplayNameClaims.Type)
        ?? accessor.HttpContext?.User.Identity?.Name
        ?? "unknown";
}

/// <summary>Puts the display name into the sign-in cookie.</summary>
public sealed class DisplayNameClaims(
    UserManager<Practitioner> users,
    RoleManager<IdentityRole<Guid>> roles,
    Microsoft.Extensions.Options.IOptions<IdentityOptions> options
) : UserClaimsPrincipalFactory<Practitioner, IdentityRole<Guid>>(users, roles, options)
{
    public const string Type = "display-name";

    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Practitioner user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(Type, user.DisplayName));
        return identity;
    }
}
