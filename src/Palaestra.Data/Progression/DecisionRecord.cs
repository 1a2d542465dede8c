using NodaTime;
using Palaestra.Core.Progression;

namespace Palaestra.Data.Progression;

/// <summary>What was proposed, what was chosen, and why.</summary>
public sealed class DecisionRecord
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid VisitId { get; init; }
    public Guid PlanRevisionId { get; init; }
    public required Decision Proposal { get; init; }
    public required Decision Chosen { get; init; }

    /// <summary>Rule of the proposal, and both outcomes: as columns, so that a clinic's decisions can be counted.</summary>
    public required string RuleId { get; init; }
    public Outcome Proposed { get; init; }
    public Outcome Taken { get; init; }
    public bool Overridden { get; init; }
    public string? Reason { get; init; }
    public required string PolicyId { get; init; }
    public int PolicyVersion { get; init; }
    public required string LibraryVersion { get; init; }
    public Instant DecidedAt { get; init; }
    public required string DecidedBy { get; init; }
}
