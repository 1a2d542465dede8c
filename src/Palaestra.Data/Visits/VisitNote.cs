using NodaTime;
using Palaestra.Core.Visits;

namespace Palaestra.Data.Visits;

/// <summary>What was written about a visit, by hand.</summary>
public sealed class VisitNote
{
    public Guid VisitId { get; init; }
    public Guid EpisodeId { get; init; }
    public required NoteText Text { get; set; }
    public Instant WrittenAt { get; set; }
    public required string WrittenBy { get; set; }

    /// <summary>None: it is a draft.</summary>
    public Instant? SignedAt { get; set; }
    public string? SignedBy { get; set; }
    public Guid? SignedById { get; set; }

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;
}
