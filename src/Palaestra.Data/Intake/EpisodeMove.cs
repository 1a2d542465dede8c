using NodaTime;

namespace Palaestra.Data.Intake;

/// <summary>An episode that was filed under another client: appended once, never changed. A merge is one for each episode.</summary>
public sealed class EpisodeMove
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public Guid FromClientId { get; init; }
    public Guid ToClientId { get; init; }
    public required string Reason { get; init; }
    public Instant At { get; init; }
    public required string By { get; init; }
    public Guid? AccountId { get; init; }
}
