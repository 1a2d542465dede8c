using Microsoft.AspNetCore.Identity;

namespace Palaestra.Data.Staff;

/// <summary>Somebody who signs in.</summary>
public sealed class Practitioner : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }
}
