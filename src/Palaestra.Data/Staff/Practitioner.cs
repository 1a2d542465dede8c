using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace Palaestra.Data.Staff;

/// <summary>Somebody who signs in. An account is never removed: what it wrote stays under its name.</summary>
public sealed class Practitioner : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }

    /// <summary>In the order of the enum, without repeats.</summary>
    public IReadOnlyList<Role> Roles { get; set; } = [];

    /// <summary>Since when it cannot sign in; none: it can.</summary>
    public Instant? DisabledAt { get; set; }

    /// <summary>Since when it keeps the clinic; none: it does not.</summary>
    public Instant? AdministratorSince { get; set; }

    /// <summary>Gives it these roles, and notes since when it keeps the clinic.</summary>
    public void SetRoles(IReadOnlyList<Role> roles, Instant now)
    {
        Roles = roles;
        AdministratorSince = roles.Contains(Role.Administrator) ? AdministratorSince ?? now : null;
    }

    /// <summary>How it reads dates, weeks and measures on the screens; none: as the clinic does.</summary>
    public DateOrder? DateOrder { get; set; }

    /// <inheritdoc cref="DateOrder"/>
    public DayOfWeek? WeekStart { get; set; }

    /// <inheritdoc cref="DateOrder"/>
    public PersonUnits? Units { get; set; }

    /// <summary>Of the digits that open a tablet that locked itself; none: only the password does.</summary>
    public string? PinHash { get; set; }
}
