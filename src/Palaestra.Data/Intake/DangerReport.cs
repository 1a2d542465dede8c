using NodaTime;

namespace Palaestra.Data.Intake;

/// <summary>A red flag that was reported, and what a practitioner did about it. Open until that is recorded.</summary>
public sealed class DangerReport
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public required string SignId { get; init; }
    public Instant NotedAt { get; init; }
    public required string NotedBy { get; init; }
    public Instant? ClearedAt { get; set; }
    public string? ClearedBy { get; set; }
    public string? Found { get; set; }
    public string? Done { get; set; }

    public bool Open => ClearedAt is null;
}
