using System.Text.Json.Serialization;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Capture;

/// <summary>A fault with its onset: the rep it showed in and, in a hold, the second.</summary>
/// <param name="Rep">1 for the first rep.</param>
/// <param name="Second">Seconds into the hold; none outside one.</param>
/// <param name="Breaks">Whether it cost the rep, after kinds and persistence are weighed.</param>
/// <param name="AfterCue">A cue had been given before it was seen.</param>
/// <param name="SeenBy">The instrument that told it; none: it was seen by the practitioner.</param>
/// <param name="Persists">It stayed: every later rep of the trial has it too.</param>
public sealed record FaultMark(
    Guid EventId,
    string Fault,
    int Rep,
    double? Second,
    bool Breaks,
    bool Persists = false,
    bool AfterCue = false,
    Instrument? SeenBy = null
)
{
    /// <summary>Whether it shows in that rep, counted from 1.</summary>
    public bool ShowsIn(int rep) => Rep == rep || (Persists && Rep < rep);
}

/// <summary>How far a movement went.</summary>
/// <param name="Share">Of the drawn movement, 0 to 1. <paramref name="Degrees"/>: the angle; at least one is known.</param>
public sealed record Reach(double? Share, double? Degrees)
{
    /// <summary>The larger of two; degrees are compared where both have them.</summary>
    public static Reach? Larger(Reach? a, Reach? b) =>
        a is null ? b
        : b is null ? a
        : (b.Degrees, a.Degrees) switch
        {
            ({ } mine, { } other) => mine > other ? b : a,
            _ => (b.Share ?? 0) > (a.Share ?? 0) ? b : a,
        };
}

/// <summary>One repetition.</summary>
/// <param name="Held">Seconds held in all. <paramref name="CleanHeld"/>: seconds before the trunk gave way.</param>
/// <param name="Cued">Done after a cue; never mixed into the uncued score.</param>
/// <param name="Amount">The reading, where the task has one. <paramref name="Reach"/>: how far it went, where that was told.</param>
/// <param name="SeenBy">The instrument that told it; none: it was counted by the practitioner.</param>
public sealed record Rep(
    int Number,
    double Held,
    double CleanHeld,
    bool Clean,
    bool Cued,
    DateTimeOffset DoneAt,
    double? Amount = null,
    Reach? Reach = null,
    Instrument? SeenBy = null
);

/// <summary>Clean work of a trial: only what was done before the trunk gave way counts.</summary>
/// <param name="Reps">Uncued reps with no breaking fault, not rushed, held as asked, with pain inside the limit.</param>
/// <param name="CuedReps">The same, after a cue.</param>
/// <param name="Seconds">Uncued seconds held before the first breaking fault of each rep.</param>
/// <param name="Fraction">Clean over target, 0 to 1: by seconds where the rung is held, by the largest clean angle or by the reading where the task is measured so, else by reps.</param>
/// <param name="Longest">The longest single uncued hold before the trunk gave way, seconds.</param>
/// <param name="Reach">The largest range of an uncued clean rep.</param>
/// <param name="Amount">The largest reading of an uncued clean rep; of effort and of yes or no the last.</param>
public sealed record Clean(
    int Reps,
    int CuedReps,
    double Seconds,
    double Fraction,
    double Longest = 0,
    Reach? Reach = null,
    double? Amount = null
);

/// <summary>A trial folded from its events.</summary>
/// <param name="Total">Reps done, clean or not.</param>
/// <param name="HoldSince">Set while a hold is running.</param>
/// <param name="PainBefore">As asked at the exercise's first set (<paramref name="PainBeforeAsked"/>), else at the start of the visit; none if neither is known. Never a later set's.</param>
/// <param name="PainPeak">The highest value that stood. <paramref name="PainLast"/>: the last value told, while or after.</param>
/// <param name="TremorShare">Share of the set in which it trembled, 0 to 1.</param>
/// <param name="Probe">One set of what might come next; not the day's work.</param>
/// <param name="Worry">Why it was stopped at once. <paramref name="Cue"/>: the words that were said.</param>
/// <param name="Amended">Reasons why it was put right after its screen, the earliest first.</param>
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
    Guid? LastEventId,
    string? TaskId = null,
    string? Variant = null,
    double? Load = null,
    double? LegLength = null,
    IReadOnlyList<Instrument>? Instruments = null,
    bool Paused = false,
    string? By = null,
    IReadOnlyList<OneChange>? EasedBy = null,
    Side? AskedSide = null,
    IReadOnlyList<MeasuredPhoto>? Photos = null,
    bool PainBeforeAsked = false,
    int? PainLast = null,
    double TremorShare = 0,
    bool Probe = false,
    Worry? Worry = null,
    Side? WorrySide = null,
    string? Cue = null,
    IReadOnlyList<string>? Amended = null
)
{
    /// <summary>The side of the plan's exercise it was done for: another than its own where it was eased to a rung without sides.</summary>
    public Side For => AskedSide ?? Side;

    /// <summary>What was made easier than the plan asks; empty when nothing was.</summary>
    public IReadOnlyList<OneChange> Eased => EasedBy ?? [];

    /// <summary>It has not ended yet.</summary>
    public bool Open => EndedAt is null;

    /// <summary>Pain ended it, or went over the limit while it ran.</summary>
    [JsonIgnore]
    public bool Hurt => PainOverLimit || EndReason == Capture.EndReason.Pain;

    /// <summary>All that was asked was clean, and nothing hurt: a load that was set was lifted.</summary>
    [JsonIgnore]
    public bool Lifted => Clean.Fraction >= 1 && !Hurt;

    /// <summary>The first mark that broke a rep, or none.</summary>
    public FaultMark? FirstBreak => Marks.FirstOrDefault(mark => mark.Breaks);

    /// <summary>The directions a mark points at; empty where it points at none by itself.</summary>
    public IReadOnlyList<Sector> PointsAt(FaultMark mark, PracticeLibrary library) =>
        library.FindFault(mark.Fault) is { } fault
            ? FaultPointing.SectorsOf(fault, library.Rung(RungId), Side, library)
            : [];

    /// <summary>Reps in which the trunk gave way, one that was not finished included.</summary>
    public int BreakingReps =>
        Enumerable
            .Range(1, Total + 1)
            .Count(rep =>
                Marks.Any(mark => mark.Breaks && mark.ShowsIn(rep) && (rep <= Total || mark.Rep == rep))
            );

    /// <summary>The most pain told while or after, or none.</summary>
    public int? PainMost => PainPeak is null ? PainAfter : Math.Max(PainPeak.Value, PainAfter ?? 0);

    /// <summary>How far pain rose above before; none where either is not known, never below 0.</summary>
    public int? PainRise => PainMost is { } most && PainBefore is { } from ? Math.Max(0, most - from) : null;

    /// <summary>Shaking in more than half of the set.</summary>
    public bool TrembledThroughMost => TremorShare > 0.5;
}
