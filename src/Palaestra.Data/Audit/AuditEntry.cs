using NodaTime;

namespace Palaestra.Data.Audit;

/// <summary>One link of the audit's chain: appended once; only what it tells of a client can be erased.</summary>
public sealed class AuditEntry
{
    /// <summary>From 1 on, without gaps.</summary>
    public long Number { get; init; }

    /// <summary>The chain of one data folder.</summary>
    public Guid Chain { get; init; }
    public Instant At { get; init; }
    public AuditKind Kind { get; init; }

    /// <summary>Whose sign-in it was; none: nobody's.</summary>
    public Guid? AccountId { get; init; }

    /// <summary>Their name then.</summary>
    public required string By { get; init; }

    /// <summary>Name of the operation, or of what was changed. Never a name of a client.</summary>
    public required string What { get; init; }

    // Not named as columns by which rows belong to a client: an erasure takes what is told of them, not the link.
    public Guid? Person { get; init; }
    public Guid? Episode { get; init; }
    public Guid? Visit { get; init; }

    /// <summary>JSON; none: there is nothing to tell beside, or it was erased.</summary>
    public string? Payload { get; init; }

    /// <summary>Random; erased with what is told of a client, so that nothing can be guessed from the hash.</summary>
    public string? Salt { get; init; }

    /// <summary>SHA-256 of salt, payload and whose record it is, in hexadecimal.</summary>
    public required string PayloadHash { get; init; }

    /// <summary>Of the link before; empty for the first.</summary>
    public required string Previous { get; init; }

    /// <summary>SHA-256 of all of the above but payload, salt and whose record it is, in hexadecimal.</summary>
    public required string Hash { get; init; }
}
