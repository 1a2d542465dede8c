using NodaTime;

namespace Palaestra.Data.Audit;

/// <summary>What is to become a link of the chain: stored in one transaction with what it tells of, linked by the one writer.</summary>
public sealed record AuditNote
{
    public long Id { get; init; }
    public Instant At { get; init; }
    public AuditKind Kind { get; init; }
    public Guid? AccountId { get; init; }
    public required string By { get; init; }
    public required string What { get; init; }
    public Guid? Person { get; set; }

    /// <summary>None with a visit: the writer finds it.</summary>
    public Guid? Episode { get; set; }
    public Guid? Visit { get; set; }
    public string? Payload { get; set; }
}
