using NodaTime;
using Palaestra.Core.Charts;

namespace Palaestra.Data.Visits;

/// <summary>Where it hurts, as drawn at a visit.</summary>
public sealed class VisitChart
{
    public Guid VisitId { get; init; }
    public Guid EpisodeId { get; init; }
    public required BodyChart Chart { get; set; }
    public Instant WrittenAt { get; set; }
    public required string WrittenBy { get; set; }

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;
}
