namespace Palaestra.Core.Capture;

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
    MeasureTaken,
    RangeReached,
    InstrumentUsed,
    TrialPaused,
    TrialResumed,
    SideCorrected,
    TrialDiscarded,
    PhotoMeasured,
    WorryTold,
    TrialAmended,
    ExerciseSkipped,
    ExerciseAdded,
    SetUpChanged,
    SessionPainAsked,
    LegAsked,
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
