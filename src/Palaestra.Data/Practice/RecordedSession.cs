using NodaTime;
using Palaestra.Core.Practice;

namespace Palaestra.Data.Practice;

/// <summary>A session in which a team rates recorded traces and photographs of the clinic, without names.</summary>
public sealed class RecordedSession
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; init; }
    public Instant MadeAt { get; init; }
    public required string MadeBy { get; init; }
}

/// <summary>A trace or photograph of a session. It goes with the client's record, and with it what was said of it.</summary>
public sealed class RecordedItem
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid SessionId { get; init; }

    /// <summary>Of the trace or the kept picture.</summary>
    public Guid SourceId { get; init; }
    public Guid VisitId { get; init; }
    public required string RungId { get; init; }

    /// <summary>In the order they are shown, from 0.</summary>
    public int Place { get; init; }
    public required RecordedThing Thing { get; init; }
}

/// <summary>What one rater said of an item. Never changed.</summary>
public sealed class RecordedRating
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid ItemId { get; init; }

    /// <summary>Of the item: with the client's record it goes.</summary>
    public Guid VisitId { get; init; }
    public Guid AccountId { get; init; }
    public required RecordedReading Reading { get; init; }
    public Instant At { get; init; }
}
