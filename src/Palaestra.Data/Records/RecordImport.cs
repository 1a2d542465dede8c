using NodaTime;

namespace Palaestra.Data.Records;

/// <summary>That a client's record, or more of it, came here as a file.</summary>
public sealed class RecordImport
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid ClientId { get; init; }

    /// <summary>Name of the clinic it came from; empty: it had none.</summary>
    public required string From { get; init; }

    /// <summary>When the file was made there.</summary>
    public Instant MadeAt { get; init; }
    public Instant At { get; init; }
    public required string By { get; init; }
    public Guid? AccountId { get; init; }

    /// <summary>What was told there of who saw and changed it; no part of the chain here.</summary>
    public required IReadOnlyList<RecordAudit> Audit { get; init; }
}
