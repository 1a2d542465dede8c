using NodaTime;
using Palaestra.Core.Capture;

namespace Palaestra.Data.Traces;

/// <summary>Where a trace came from.</summary>
public enum TraceSource
{
    Live,
    File,
}

/// <summary>A trace of a trial: what is known of it here, its samples in a file beside the database.</summary>
public sealed class StoredTrace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid VisitId { get; init; }
    public Guid TrialId { get; init; }
    public Instrument Instrument { get; init; }
    public TraceSource Source { get; init; }

    /// <summary>Hz.</summary>
    public double Rate { get; init; }

    /// <summary>By the clock of the tablet that told the trial.</summary>
    public DateTimeOffset StartedAt { get; init; }

    public int Samples { get; init; }

    /// <summary>One level per channel; none where no calibration was kept.</summary>
    public IReadOnlyList<double>? Neutral { get; init; }

    /// <summary>Of the file's bytes, SHA-256 in hexadecimal: a damaged file is told from a whole one.</summary>
    public required string Hash { get; init; }

    public Instant KeptAt { get; init; }
    public required string By { get; init; }

    /// <summary>The same with its samples written anew.</summary>
    public StoredTrace With(int samples, string hash) =>
        new()
        {
            Id = Id,
            VisitId = VisitId,
            TrialId = TrialId,
            Instrument = Instrument,
            Source = Source,
            Rate = Rate,
            StartedAt = StartedAt,
            Samples = samples,
            Neutral = Neutral,
            Hash = hash,
            KeptAt = KeptAt,
            By = By,
        };
}
