using NodaTime;

namespace Palaestra.Data.Staff;

/// <summary>One sign-in on one device, from its beginning to its end.</summary>
public sealed class SignInSession
{
    public Guid Id { get; init; }
    public Guid AccountId { get; init; }

    /// <summary>What the browser says it is, cut at 200 characters.</summary>
    public required string Device { get; init; }
    public Instant BegunAt { get; init; }

    /// <summary>When the password was given last.</summary>
    public Instant ConfirmedAt { get; set; }

    /// <summary>Since when the tablet is locked; none: it is not.</summary>
    public Instant? LockedAt { get; set; }

    /// <summary>None: it goes on, until twelve hours after its beginning.</summary>
    public Instant? EndedAt { get; set; }
}
