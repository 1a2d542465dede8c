using Palaestra.Core.Library;

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
    Guid? Undoes = null
);
