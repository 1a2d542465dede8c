using NodaTime;
using Palaestra.Core.Outcomes;

namespace Palaestra.Data.Outcomes;

/// <summary>A letter to a referrer as it was edited at a visit.</summary>
public sealed class LetterDraft
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid VisitId { get; init; }
    public required Letter Letter { get; set; }
    public Instant WrittenAt { get; set; }
    public required string WrittenBy { get; set; }

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;
}
