using NodaTime;
using Palaestra.Core.Capture;

namespace Palaestra.Data.Screening;

/// <summary>A capture event as stored: appended once, never changed.</summary>
public sealed class LoggedEvent
{
    /// <summary>The id the tablet gave it.</summary>
    public Guid Id { get; init; }
    public Guid VisitId { get; init; }
    public Guid TrialId { get; init; }
    public CaptureKind Kind { get; init; }
    public required CaptureEvent Event { get; init; }
    public Instant ReceivedAt { get; init; }
    public required string By { get; init; }
}
