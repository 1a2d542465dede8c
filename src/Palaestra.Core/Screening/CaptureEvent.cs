using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Screening;

/// <summary>What happened in the room. The names are also the words in the stored log.</summary>
public enum CaptureKind
{
    TrialStarted,
    HoldStarted,
    RepDone,
    FaultMarked,
    CueGiven,
    CueAnswered,
    PainMarked,
    FeltMarked,
    EffortMarked,
    TrialEnded,
    Undone,

    /// <summary>A rep with a reading: centimetres, yes (1) or no (0), or points of effort, as its task is measured.</summary>
    MeasureTaken,

    /// <summary>How far the movement goes from here on, until told again.</summary>
    RangeReached,

    /// <summary>What told the trunk's movement from here on: a hand, a dowel.</summary>
    InstrumentUsed,

    /// <summary>Interrupted. A running hold is let go and does not count.</summary>
    TrialPaused,
    TrialResumed,

    /// <summary>The side noted at the start was the wrong one; the whole trial belongs to this one.</summary>
    SideCorrected,

    /// <summary>The trial does not count; it stays in the log.</summary>
    TrialDiscarded,

    /// <summary>Points were put on a photograph of the trial; also after its end.</summary>
    PhotoMeasured,

    /// <summary>An exercise of the session is left out today. Belongs to no trial: its trial id is its own.</summary>
    ExerciseSkipped,

    /// <summary>An exercise that is not in the plan is taken in today, with an id of its own. Belongs to no trial.</summary>
    ExerciseAdded,
}

public enum TrialPurpose
{
    Screen,
    Session,
}

public enum PainPhase
{
    Before,
    Peak,
    After,
}

public enum EndReason
{
    TargetMet,
    BreakingFault,
    Pain,
    Fatigue,
    Stopped,
}

/// <summary>What showed that the trunk moved.</summary>
public enum Instrument
{
    Eye,
    Hand,
    Dowel,
    Fists,
    Ball,
    Cuff,
    Tilt,
}

/// <summary>
/// One tap in the room, as it is logged: appended, never changed. Fields beyond the first four belong to a kind
/// and are absent for the others.
/// </summary>
/// <param name="Id">UUIDv7 made by the client that saw it; a second event with the same id is the same event.</param>
/// <param name="TrialId">The trial it belongs to.</param>
/// <param name="At">When it happened, by the clock of the tablet.</param>
/// <param name="RungId">Trial started: what is done.</param>
/// <param name="Target">Trial started: reps (sets is 1) and hold aimed at.</param>
/// <param name="PlanItemId">Trial started in a session: the exercise of the plan.</param>
/// <param name="Value">Pain or effort, 0 to 10.</param>
/// <param name="TaskId">Trial started in a screen: the task it is done for. None: the rung for itself.</param>
/// <param name="Variant">Trial started: which way, where the task has several (outward, behind and across).</param>
/// <param name="Load">Trial started: kilograms in the hands, 0 to 300.</param>
/// <param name="LegLength">Trial started: front hip bone to inner ankle, 40 to 140 cm; reaches are told as a share of it.</param>
/// <param name="Instrument">Instrument used: which. Fault marked, hold started, rep done: the one that told it; absent where it was seen by eye.</param>
/// <param name="Persists">Fault marked: it stays from this rep on.</param>
/// <param name="Amount">Measure taken: the reading.</param>
/// <param name="Share">Range reached, or asked for at the start: share of the drawn movement, 0 to 1.</param>
/// <param name="Degrees">Range reached: the angle, 0 to 180.</param>
/// <param name="By">Who tapped, where the tablet knew; a tablet may be sent by somebody else later.</param>
/// <param name="Eased">Trial started in a session: what was made easier than the plan asks, of each kind at most once.</param>
/// <param name="Trigger">Trial started: why it was made easier. Cue given: what it answers.</param>
/// <param name="AskedSide">Trial started: the side of the plan's exercise, where it is eased to a rung without sides.</param>
/// <param name="InPlaceOf">Exercise added: the exercise of the plan it stands in for.</param>
/// <param name="Photo">Photo measured: the points.</param>
/// <param name="Undoes">Undone: id of the event taken back. Undoing an undo brings it back.</param>
public sealed record CaptureEvent(
    Guid Id,
    Guid TrialId,
    CaptureKind Kind,
    DateTimeOffset At,
    string? RungId = null,
    Side? Side = null,
    TrialPurpose? Purpose = null,
    Dose? Target = null,
    Guid? PlanItemId = null,
    int? Set = null,
    string? Fault = null,
    bool? Worked = null,
    PainPhase? Phase = null,
    int? Value = null,
    string? Place = null,
    EndReason? Reason = null,
    Guid? Undoes = null,
    string? TaskId = null,
    string? Variant = null,
    double? Load = null,
    double? LegLength = null,
    bool? Persists = null,
    double? Amount = null,
    double? Share = null,
    double? Degrees = null,
    Instrument? Instrument = null,
    string? By = null,
    IReadOnlyList<OneChange>? Eased = null,
    StopTrigger? Trigger = null,
    Guid? InPlaceOf = null,
    Side? AskedSide = null,
    PhotoReading? Photo = null
);
