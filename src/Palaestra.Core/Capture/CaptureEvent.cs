using System.Text.Json;
using System.Text.Json.Serialization;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Capture;

/// <summary>
/// One tap in the room, as it is logged: appended, never changed. A closed union: one record a kind, each with only its own
/// fields; in JSON <c>kind</c> tells which. Absent fields are left out, never written as null.
/// </summary>
/// <param name="Id">UUIDv7 made by the client that saw it; a second event with the same id is the same event.</param>
/// <param name="TrialId">The trial it belongs to; of an event that belongs to no trial its own.</param>
/// <param name="At">When it happened, by the clock of the tablet.</param>
/// <param name="By">Who tapped, where the tablet knew; a tablet may be sent by somebody else later.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = KindName)]
[JsonDerivedType(typeof(TrialStarted), "trial-started")]
[JsonDerivedType(typeof(HoldStarted), "hold-started")]
[JsonDerivedType(typeof(RepDone), "rep-done")]
[JsonDerivedType(typeof(FaultMarked), "fault-marked")]
[JsonDerivedType(typeof(CueGiven), "cue-given")]
[JsonDerivedType(typeof(CueAnswered), "cue-answered")]
[JsonDerivedType(typeof(PainMarked), "pain-marked")]
[JsonDerivedType(typeof(FeltMarked), "felt-marked")]
[JsonDerivedType(typeof(EffortMarked), "effort-marked")]
[JsonDerivedType(typeof(TrialEnded), "trial-ended")]
[JsonDerivedType(typeof(Undone), "undone")]
[JsonDerivedType(typeof(MeasureTaken), "measure-taken")]
[JsonDerivedType(typeof(RangeReached), "range-reached")]
[JsonDerivedType(typeof(InstrumentUsed), "instrument-used")]
[JsonDerivedType(typeof(TrialPaused), "trial-paused")]
[JsonDerivedType(typeof(TrialResumed), "trial-resumed")]
[JsonDerivedType(typeof(SideCorrected), "side-corrected")]
[JsonDerivedType(typeof(TrialDiscarded), "trial-discarded")]
[JsonDerivedType(typeof(PhotoMeasured), "photo-measured")]
[JsonDerivedType(typeof(WorryTold), "worry-told")]
[JsonDerivedType(typeof(TrialAmended), "trial-amended")]
[JsonDerivedType(typeof(ExerciseSkipped), "exercise-skipped")]
[JsonDerivedType(typeof(ExerciseAdded), "exercise-added")]
[JsonDerivedType(typeof(SetUpChanged), "set-up-changed")]
[JsonDerivedType(typeof(SessionPainAsked), "session-pain-asked")]
[JsonDerivedType(typeof(LegAsked), "leg-asked")]
public abstract record CaptureEvent(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? By = null
)
{
    /// <summary>The field in JSON that tells which of the kinds it is.</summary>
    public const string KindName = "kind";

    /// <summary>Of which kind it is, as JSON names it.</summary>
    [JsonIgnore]
    public CaptureKind Kind =>
        this switch
        {
            TrialStarted => CaptureKind.TrialStarted,
            HoldStarted => CaptureKind.HoldStarted,
            RepDone => CaptureKind.RepDone,
            FaultMarked => CaptureKind.FaultMarked,
            CueGiven => CaptureKind.CueGiven,
            CueAnswered => CaptureKind.CueAnswered,
            PainMarked => CaptureKind.PainMarked,
            FeltMarked => CaptureKind.FeltMarked,
            EffortMarked => CaptureKind.EffortMarked,
            TrialEnded => CaptureKind.TrialEnded,
            Undone => CaptureKind.Undone,
            MeasureTaken => CaptureKind.MeasureTaken,
            RangeReached => CaptureKind.RangeReached,
            InstrumentUsed => CaptureKind.InstrumentUsed,
            TrialPaused => CaptureKind.TrialPaused,
            TrialResumed => CaptureKind.TrialResumed,
            SideCorrected => CaptureKind.SideCorrected,
            TrialDiscarded => CaptureKind.TrialDiscarded,
            PhotoMeasured => CaptureKind.PhotoMeasured,
            WorryTold => CaptureKind.WorryTold,
            TrialAmended => CaptureKind.TrialAmended,
            ExerciseSkipped => CaptureKind.ExerciseSkipped,
            ExerciseAdded => CaptureKind.ExerciseAdded,
            SetUpChanged => CaptureKind.SetUpChanged,
            SessionPainAsked => CaptureKind.SessionPainAsked,
            LegAsked => CaptureKind.LegAsked,
            _ => throw new InvalidOperationException($"No kind for {GetType().Name}."),
        };

    /// <summary>
    /// Fields that are not of this kind. Events stored by earlier versions carry the fields of all kinds as null; what is not
    /// null is refused by <see cref="CaptureCheck"/>.
    /// </summary>
    [JsonExtensionData]
    public Dictionary<string, JsonElement>? Foreign { get; init; }

    /// <summary>Begins something: no other event of its trial may come before it.</summary>
    [JsonIgnore]
    public bool Begins =>
        this
            is TrialStarted
                or ExerciseSkipped
                or ExerciseAdded
                or SetUpChanged
                or SessionPainAsked
                or LegAsked;
}

/// <param name="RungId">What is done.</param>
/// <param name="Target">Reps (sets is 1), hold, range, height and load aimed at.</param>
/// <param name="PlanItemId">In a session: the exercise of the plan. <paramref name="Set"/>: 1 for the first.</param>
/// <param name="TaskId">In a screen: the task it is done for. None: the rung for itself.</param>
/// <param name="Variant">Which way, where the task has several (outward, behind and across).</param>
/// <param name="Load">Kilograms in the hands, 0 to 300.</param>
/// <param name="LegLength">Front hip bone to inner ankle, 40 to 140 cm; reaches are told as a share of it.</param>
/// <param name="Share">Range asked for: share of the drawn movement, 0 to 1.</param>
/// <param name="Eased">In a session: what was made easier than the plan asks, of each kind at most once.</param>
/// <param name="Trigger">Why it was made easier.</param>
/// <param name="AskedSide">The side of the plan's exercise, where it is eased to a rung without sides.</param>
/// <param name="Probe">In a session: one set of what might come next; it does not count as the day's work.</param>
public sealed record TrialStarted(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    string RungId,
    Side Side,
    TrialPurpose Purpose,
    Dose Target,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Guid? PlanItemId = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? Set = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? TaskId = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Variant = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Load = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? LegLength = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Share = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
        IReadOnlyList<OneChange>? Eased = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] StopTrigger? Trigger = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Side? AskedSide = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Probe = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <param name="Instrument">The one that told it; none: the practitioner's eye. Likewise for reps and faults.</param>
public sealed record HoldStarted(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Instrument? Instrument = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>A rep was finished.</summary>
/// <param name="Instrument">What it was judged with; none: by eye.</param>
public sealed record RepDone(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Instrument? Instrument = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <param name="Persists">It stays from this rep on.</param>
public sealed record FaultMarked(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    string Fault,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Persists = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Instrument? Instrument = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <param name="Trigger">What it answers.</param>
/// <param name="Cue">The words that were said, where the practitioner chose among several.</param>
public sealed record CueGiven(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] StopTrigger? Trigger = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Cue = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Whether the cue that was given held.</summary>
/// <param name="Worked">It held.</param>
public sealed record CueAnswered(Guid Id, Guid TrialId, DateTimeOffset At, bool Worked, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <param name="Value">0 to 10.</param>
public sealed record PainMarked(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    PainPhase Phase,
    int Value,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Where the client felt the work.</summary>
/// <param name="Place">Id of the place.</param>
public sealed record FeltMarked(Guid Id, Guid TrialId, DateTimeOffset At, string Place, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <param name="Value">0 to 10.</param>
public sealed record EffortMarked(Guid Id, Guid TrialId, DateTimeOffset At, int Value, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>The trial is over.</summary>
/// <param name="Reason">Why it ended.</param>
public sealed record TrialEnded(Guid Id, Guid TrialId, DateTimeOffset At, EndReason Reason, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <param name="Undoes">Id of the event taken back. Undoing an undo brings it back.</param>
public sealed record Undone(Guid Id, Guid TrialId, DateTimeOffset At, Guid Undoes, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>A rep with a reading.</summary>
/// <param name="Amount">Centimetres, yes (1) or no (0), or points of effort, as its task is measured.</param>
public sealed record MeasureTaken(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    double Amount,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Instrument? Instrument = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>How far the movement goes from here on, until told again.</summary>
/// <param name="Share">Of the drawn movement, 0 to 1. <paramref name="Degrees"/>: 0 to 180; at least one is told.</param>
public sealed record RangeReached(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Share = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Degrees = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>What told the trunk's movement from here on: a hand, a dowel.</summary>
public sealed record InstrumentUsed(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Instrument Instrument,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Interrupted. A running hold is let go and does not count.</summary>
public sealed record TrialPaused(Guid Id, Guid TrialId, DateTimeOffset At, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>A paused trial goes on.</summary>
public sealed record TrialResumed(Guid Id, Guid TrialId, DateTimeOffset At, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>The side noted at the start was the wrong one; the whole trial belongs to this one.</summary>
public sealed record SideCorrected(Guid Id, Guid TrialId, DateTimeOffset At, Side Side, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>The trial does not count; it stays in the log.</summary>
public sealed record TrialDiscarded(Guid Id, Guid TrialId, DateTimeOffset At, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>Points were put on a photograph of the trial; also after its end.</summary>
public sealed record PhotoMeasured(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    PhotoReading Photo,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Why the set was stopped at once.</summary>
/// <param name="Side">Of a leg, where it is one.</param>
public sealed record WorryTold(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Worry Worry,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Side? Side = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>A trial is put right after its screen; what follows in its log is the amendment.</summary>
/// <param name="Reason">Why, 1 to 500 characters.</param>
public sealed record TrialAmended(Guid Id, Guid TrialId, DateTimeOffset At, string Reason, string? By = null)
    : CaptureEvent(Id, TrialId, At, By);

/// <summary>An exercise of the session is left out today.</summary>
public sealed record ExerciseSkipped(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Guid PlanItemId,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>An exercise that is not in the plan is taken in today, with an id of its own.</summary>
/// <param name="InPlaceOf">The exercise of the plan it stands in for.</param>
public sealed record ExerciseAdded(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Guid PlanItemId,
    string RungId,
    Dose Target,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Guid? InPlaceOf = null,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>The set-up of an exercise was changed because it was felt in the wrong place.</summary>
/// <param name="Place">Where it was felt.</param>
public sealed record SetUpChanged(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Guid PlanItemId,
    string Place,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Pain at the end of the session, asked again after some rest or walking.</summary>
/// <param name="Value">0 to 10. <paramref name="Minutes"/>: since the last set, 0 to 240.</param>
public sealed record SessionPainAsked(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    int Value,
    double Minutes,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);

/// <summary>Pain had moved further down a leg; asked again ten minutes later.</summary>
/// <param name="Back">It is where it was before.</param>
public sealed record LegAsked(
    Guid Id,
    Guid TrialId,
    DateTimeOffset At,
    Side Side,
    bool Back,
    string? By = null
) : CaptureEvent(Id, TrialId, At, By);
