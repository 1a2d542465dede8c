using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>A fault with its onset: the rep it showed in and, in a hold, the second.</summary>
/// <param name="Rep">1 for the first rep.</param>
/// <param name="Second">Seconds into the hold; none outside one.</param>
/// <param name="Breaks">Whether it cost the rep, after kinds and persistence are weighed.</param>
public sealed record FaultMark(Guid EventId, string Fault, int Rep, double? Second, bool Breaks);

/// <summary>One repetition.</summary>
/// <param name="Held">Seconds held in all. <paramref name="CleanHeld"/>: seconds before the trunk gave way.</param>
/// <param name="Cued">Done after a cue; never mixed into the uncued score.</param>
public sealed record Rep(
    int Number,
    double Held,
    double CleanHeld,
    bool Clean,
    bool Cued,
    DateTimeOffset DoneAt
);

/// <summary>Clean work of a trial: only what was done before the trunk gave way counts.</summary>
/// <param name="Reps">Uncued reps with no breaking fault, not rushed, held as asked, with pain inside the limit.</param>
/// <param name="CuedReps">The same, after a cue.</param>
/// <param name="Seconds">Uncued seconds held before the first breaking fault of each rep.</param>
/// <param name="Fraction">Clean over target, 0 to 1: by seconds where the rung is held, else by reps.</param>
public sealed record Clean(int Reps, int CuedReps, double Seconds, double Fraction);

/// <summary>A trial folded from its events.</summary>
/// <param name="Total">Reps done, clean or not.</param>
/// <param name="HoldSince">Set while a hold is running.</param>
public sealed record Trial(
    Guid Id,
    string RungId,
    Side Side,
    TrialPurpose Purpose,
    Guid? PlanItemId,
    int Set,
    Dose Target,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    EndReason? EndReason,
    IReadOnlyList<Rep> Reps,
    IReadOnlyList<FaultMark> Marks,
    Clean Clean,
    int Total,
    double TotalSeconds,
    int? PainBefore,
    int? PainPeak,
    int? PainAfter,
    bool PainOverLimit,
    string? Felt,
    int? Effort,
    bool CueGiven,
    bool? CueWorked,
    DateTimeOffset? HoldSince,
    Guid? LastEventId
)
{
    public bool Open => EndedAt is null;

    /// <summary>The first mark that broke a rep, or none.</summary>
    public FaultMark? FirstBreak => Marks.FirstOrDefault(mark => mark.Breaks);

    public int BreakingReps => Marks.Where(mark => mark.Breaks).Select(mark => mark.Rep).Distinct().Count();

    /// <summary>Shaking in more than half of the reps.</summary>
    public bool TrembledThroughMost =>
        Marks.Where(mark => mark.Fault == "tremor").Select(mark => mark.Rep).Distinct().Count() * 2
        > Math.Max(1, Total);
}
