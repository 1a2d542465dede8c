using NodaTime;

namespace Palaestra.Data.Photos;

/// <summary>A kept picture of a trial: what is known of it here, the picture in a file beside the database.</summary>
public sealed class StoredPhoto
{
    public Guid Id { get; init; }
    public Guid VisitId { get; init; }
    public Guid TrialId { get; init; }
    public Instant KeptAt { get; init; }
    public required string By { get; init; }

    /// <summary>Since when its file is gone; none: it is there.</summary>
    public Instant? RemovedAt { get; set; }
    public string? RemovedBy { get; set; }
    public string? RemovedWhy { get; set; }
}
