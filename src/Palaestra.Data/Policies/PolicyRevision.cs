using NodaTime;
using Palaestra.Core.Library;

namespace Palaestra.Data.Policies;

/// <summary>A clinic's own policy as it was at one version. Never changed; the highest version is in force.</summary>
public sealed class PolicyRevision
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string PolicyId { get; init; }

    /// <summary>1 for the first.</summary>
    public int Version { get; init; }

    /// <summary>The built-in policy it was copied from, to show its values beside.</summary>
    public required string BasedOn { get; init; }
    public required Policy Policy { get; init; }
    public Instant ChangedAt { get; init; }
    public required string ChangedBy { get; init; }
}
