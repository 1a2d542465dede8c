using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Palaestra.Data.Staff;

namespace Palaestra.Server.People;

/// <summary>Whoever is signed in, by the sign-in of this request.</summary>
public sealed class WhoIsHere(IHttpContextAccessor accessor, OpenSignIns signIns, Clinics.ClinicClock clock)
{
    /// <summary>None: nobody is.</summary>
    public OpenSignIn? SignIn =>
        accessor.HttpContext?.User is { } user && SignInClaim.Of(user) is { } id ? signIns.Find(id) : null;

    /// <summary>For the record.</summary>
    public string Name => SignIn?.Name ?? "unknown";

    public Guid? AccountId => SignIn?.AccountId;

    public IReadOnlyList<Role> Roles => SignIn?.Roles ?? [];

    public bool Is(Role role) => Roles.Contains(role);

    /// <summary>May read what is clinical.</summary>
    public bool Clinical => Is(Role.Practitioner) || Is(Role.Trainer);

    /// <summary>Keeps the clinic, and has not set up the second factor in the time there was: until then without that role.</summary>
    public bool SecondFactorMissing => SignIn?.SecondFactorDue <= clock.Now;

    /// <summary>The password was given within the last minutes.</summary>
    public bool Confirmed => SignIn is { } session && signIns.IsConfirmed(session);
}

/// <summary>The sign-in's id in the cookie; all else is known by it.</summary>
public static class SignInClaim
{
    public const string Type = "sign-in";

    public static Guid? Of(ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(Type), out var id) ? id : null;
}
