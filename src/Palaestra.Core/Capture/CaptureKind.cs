namespace Palaestra.Core.Capture;

/// <summary>What happened in the room. The names are also the words in the stored log.</summary>
public enum CaptureKind
{
    /// <summary><see cref="Capture.TrialStarted"/></summary>
    TrialStarted,

    /// <summary><see cref="Capture.HoldStarted"/></summary>
    HoldStarted,

    /// <summary><see cref="Capture.RepDone"/></summary>
    RepDone,

    /// <summary><see cref="Capture.FaultMarked"/></summary>
    FaultMarked,

    /// <summary><see cref="Capture.CueGiven"/></summary>
    CueGiven,

    /// <summary><see cref="Capture.CueAnswered"/></summary>
    CueAnswered,

    /// <summary><see cref="Capture.PainMarked"/></summary>
    PainMarked,

    /// <summary><see cref="Capture.FeltMarked"/></summary>
    FeltMarked,

    /// <summary><see cref="Capture.EffortMarked"/></summary>
    EffortMarked,

    /// <summary><see cref="Capture.TrialEnded"/></summary>
    TrialEnded,

    /// <summary><see cref="Capture.Undone"/></summary>
    Undone,

    /// <summary><see cref="Capture.MeasureTaken"/></summary>
    MeasureTaken,

    /// <summary><see cref="Capture.RangeReached"/></summary>
    RangeReached,

    /// <summary><see cref="Capture.InstrumentUsed"/></summary>
    InstrumentUsed,

    /// <summary><see cref="Capture.TrialPaused"/></summary>
    TrialPaused,

    /// <summary><see cref="Capture.TrialResumed"/></summary>
    TrialResumed,

    /// <summary><see cref="Capture.SideCorrected"/></summary>
    SideCorrected,

    /// <summary><see cref="Capture.TrialDiscarded"/></summary>
    TrialDiscarded,

    /// <summary><see cref="Capture.PhotoMeasured"/></summary>
    PhotoMeasured,

    /// <summary><see cref="Capture.WorryTold"/></summary>
    WorryTold,

    /// <summary><see cref="Capture.TrialAmended"/></summary>
    TrialAmended,

    /// <summary><see cref="Capture.ExerciseSkipped"/></summary>
    ExerciseSkipped,

    /// <summary><see cref="Capture.ExerciseAdded"/></summary>
    ExerciseAdded,

    /// <summary><see cref="Capture.SetUpChanged"/></summary>
    SetUpChanged,

    /// <summary><see cref="Capture.SessionPainAsked"/></summary>
    SessionPainAsked,

    /// <summary><see cref="Capture.LegAsked"/></summary>
    LegAsked,
}

/// <summary>What a trial is done for.</summary>
public enum TrialPurpose
{
    /// <summary>To find out what the client can.</summary>
    Screen,

    /// <summary>To train.</summary>
    Session,
}

/// <summary>When pain was asked.</summary>
public enum PainPhase
{
    /// <summary>Before the set.</summary>
    Before,

    /// <summary>The most during the set.</summary>
    Peak,

    /// <summary>After the set.</summary>
    After,
}

/// <summary>Why a trial ended.</summary>
public enum EndReason
{
    /// <summary>What was asked was done.</summary>
    TargetMet,

    /// <summary>The trunk gave way.</summary>
    BreakingFault,

    /// <summary>It hurt.</summary>
    Pain,

    /// <summary>The client was tired.</summary>
    Fatigue,

    /// <summary>Another reason.</summary>
    Stopped,
}

/// <summary>What showed that the trunk moved.</summary>
public enum Instrument
{
    /// <summary>By eye.</summary>
    Eye,

    /// <summary>The practitioner’s hand.</summary>
    Hand,

    /// <summary>A stick along the back.</summary>
    Dowel,

    /// <summary>Fists, as a measure of height or width.</summary>
    Fists,

    /// <summary>A ball that shows when it moves.</summary>
    Ball,

    /// <summary>A pressure cuff under the back.</summary>
    Cuff,

    /// <summary>A tilt sensor on the pelvis.</summary>
    Tilt,
}
