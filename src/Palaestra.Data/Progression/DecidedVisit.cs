using Palaestra.Core.Progression;

namespace Palaestra.Data.Progression;

/// <summary>What the rules looked at when a visit was decided: later edits of the record are measured against it.</summary>
public sealed class DecidedVisit
{
    public Guid VisitId { get; init; }
    public required DecideInput Input { get; init; }
    public Guid PlanRevisionId { get; init; }
    public int PolicyVersion { get; init; }
    public required string LibraryVersion { get; init; }
}
