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

    /// <summary>The name, then, of whose session sent it.</summary>
    public required string By { get; init; }

    /// <summary>The account whose session sent it; none: stored before accounts were kept with events.</summary>
    public Guid? AccountId { get; init; }

    /// <summary>Whom the tablet named, where that was somebody else: a tap that waited while the tablet changed hands.</summary>
    public string? ToldBy { get; init; }
}
