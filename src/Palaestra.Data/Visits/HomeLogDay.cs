using NodaTime;
using Palaestra.Core.Visits;

namespace Palaestra.Data.Visits;

/// <summary>One day of a client's home log; the last word on it stands.</summary>
public sealed class HomeLogDay
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public DateOnly Day { get; init; }
    public required HomeDay Log { get; set; }
    public Instant WrittenAt { get; set; }
    public required string WrittenBy { get; set; }

    /// <summary>By the client's own programme; false: written at the clinic, by hand or from a file.</summary>
    public bool Reported { get; set; }

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;
}
