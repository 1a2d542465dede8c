using NodaTime;

namespace Palaestra.Data.Amendments;

/// <summary>
/// A trial that was taken under the wrong client, or at the wrong visit, and filed anew with its log and traces. What a tablet
/// still sends for it to the visit of before follows it.
/// </summary>
public sealed class TrialMove
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid TrialId { get; init; }

    /// <summary>The visit it stood at.</summary>
    public Guid VisitId { get; init; }

    /// <summary>The visit it belongs to.</summary>
    public Guid ToVisitId { get; init; }
    public required string Reason { get; init; }
    public Instant At { get; init; }
    public required string By { get; init; }
    public Guid? AccountId { get; init; }
}
