using Palaestra.Core.Progression;

namespace Palaestra.Data.Day;

/// <summary>What wants a decision, the most pressing first.</summary>
public enum WorklistKind
{
    DangerSign,
    Soreness,
    Stalled,
    NotDecided,
    Away,
    PrecautionLapsed,
    RescreenDue,
}

/// <summary>
/// Where an episode stands, worked out from its whole record so that the day need not read every record. Rewritten when
/// the record changed; never the source of anything.
/// </summary>
public sealed class Standing
{
    public Guid EpisodeId { get; init; }

    /// <summary>The record has changed since.</summary>
    public bool Stale { get; set; } = true;

    /// <summary>The content it was worked out with; empty before the first time.</summary>
    public string LibraryVersion { get; set; } = "";

    /// <summary>A red flag is open.</summary>
    public bool Closed { get; set; }
    public int? PainFirst { get; set; }
    public int? PainLast { get; set; }

    /// <summary>Visits at which something was asked or done.</summary>
    public int VisitsDone { get; set; }

    /// <summary>Repetitions planned at home for the days of the home log that was brought last; none: none was.</summary>
    public int? HomePlanned { get; set; }
    public int? HomeDone { get; set; }

    /// <summary>Id of the disability measure that was asked last; none: none was.</summary>
    public string? DisabilityMeasure { get; set; }
    public double? DisabilityFirst { get; set; }

    /// <summary>None where it was asked once.</summary>
    public double? DisabilityLast { get; set; }

    /// <summary>The first loaded exercise of the plan; none before a plan.</summary>
    public string? RungId { get; set; }

    /// <summary>The latest visit that was not planned for a later day when this was worked out.</summary>
    public Guid LatestVisitId { get; set; }
    public DateOnly LatestOn { get; set; }

    public List<StandingVisit> Visits { get; } = [];
    public List<WorklistRow> Pile { get; } = [];
}

/// <summary>How a visit reads on the rail of the day.</summary>
public sealed class StandingVisit
{
    public Guid VisitId { get; init; }
    public Guid EpisodeId { get; init; }
    public int Number { get; init; }
    public required string State { get; init; }
    public required Message Says { get; init; }
}

/// <summary>Something that wants a decision, from a day on (the first there is: at once), as long as the record does not change.</summary>
public sealed class WorklistRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }
    public Guid VisitId { get; init; }
    public WorklistKind Kind { get; init; }
    public DateOnly From { get; init; }

    /// <summary>What is the matter; it is told with the "days" and "weeks" since <see cref="CountFrom"/>.</summary>
    public required Message What { get; init; }
    public DateOnly? CountFrom { get; init; }
    public required Message Step { get; init; }
    public required string Station { get; init; }
}
