using NodaTime;

namespace Palaestra.Data.Staff;

/// <summary>A code that lets somebody choose a password once: for a new account, or again for one there is.</summary>
public sealed class Invitation
{
    public Guid Id { get; init; }

    /// <summary>SHA-256 of the code, in hexadecimal digits: the code itself is told once and kept nowhere.</summary>
    public required string CodeHash { get; init; }

    /// <summary>Whose password is chosen again; none: a new account is made.</summary>
    public Guid? AccountId { get; init; }
    public required string Name { get; init; }
    public required string Email { get; init; }
    public IReadOnlyList<Role> Roles { get; init; } = [];
    public required string MadeBy { get; init; }
    public Instant MadeAt { get; init; }
    public Instant EndsAt { get; init; }

    /// <summary>Taken, or taken back.</summary>
    public Instant? ClosedAt { get; set; }
}
