using NodaTime;

namespace Palaestra.Data.Amendments;

/// <summary>What of a record can be written a second time.</summary>
public enum AmendedPart
{
    /// <summary>Name, birth date and measures of the client.</summary>
    Client,

    /// <summary>The answers of the intake at a visit.</summary>
    Intake,

    /// <summary>Resting shape, strategy and activation.</summary>
    Neutral,

    /// <summary>What the client said at the start of a visit.</summary>
    CheckIn,

    /// <summary>The pain that later visits are compared with.</summary>
    Reference,

    /// <summary>The answers to a visit's measures.</summary>
    Answers,

    /// <summary>One day of the home log.</summary>
    HomeDay,

    /// <summary>The letter of a visit.</summary>
    Letter,

    /// <summary>A trace that was removed, or replaced by another of the same trial.</summary>
    Trace,

    /// <summary>A picture that was removed.</summary>
    Photo,

    /// <summary>A trial: amended in its own log, and never stored as an amendment.</summary>
    Trial,

    /// <summary>A trial that was filed anew (<see cref="TrialMove"/>).</summary>
    Moved,

    /// <summary>A note that was signed.</summary>
    Note,

    /// <summary>The body chart of a visit.</summary>
    Chart,

    /// <summary>When a visit typed in from paper was.</summary>
    Dated,

    /// <summary>An episode that was filed under another client (<see cref="Intake.EpisodeMove"/>).</summary>
    Filed,
}

/// <summary>What stood in a record before it was written anew, and what took its place: appended once, never changed.</summary>
public sealed class Amendment
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }

    /// <summary>The visit it belongs to; none: the episode as a whole.</summary>
    public Guid? VisitId { get; init; }

    /// <summary>Of the home log.</summary>
    public DateOnly? Day { get; init; }
    public AmendedPart Part { get; init; }

    /// <summary>JSON of the whole part.</summary>
    public required string Before { get; init; }

    /// <summary>JSON of the whole part.</summary>
    public required string After { get; init; }

    /// <summary>None: it was put right on the day it was asked, before anything rested on it.</summary>
    public string? Reason { get; init; }
    public Instant At { get; init; }

    /// <summary>The name of then.</summary>
    public required string By { get; init; }
    public Guid? AccountId { get; init; }
}
