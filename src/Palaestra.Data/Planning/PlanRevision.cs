using NodaTime;
using Palaestra.Core.Planning;

namespace Palaestra.Data.Planning;

/// <summary>A plan as it was accepted. Never changed; the next one points back to it.</summary>
public sealed record PlanRevision
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public Guid VisitId { get; init; }

    /// <summary>1 for the first.</summary>
    public int Revision { get; init; }
    public Guid? PreviousId { get; init; }
    public required Plan Plan { get; init; }
    public Instant AcceptedAt { get; init; }
    public required string AcceptedBy { get; init; }
}
