using NodaTime;
using Palaestra.Core.Outcomes;

namespace Palaestra.Data.Outcomes;

/// <summary>The end of an episode; kept when it is taken up again.</summary>
public sealed class EpisodeDischarge
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public DateOnly Day { get; init; }
    public required Discharge Summary { get; init; }
    public Instant At { get; init; }
    public required string By { get; init; }
    public Guid? AccountId { get; init; }

    /// <summary>None: it holds.</summary>
    public DateOnly? ReopenedOn { get; set; }
    public Instant? ReopenedAt { get; set; }
    public string? ReopenedBy { get; set; }
    public string? ReopenReason { get; set; }
}
