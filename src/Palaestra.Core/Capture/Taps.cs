namespace Palaestra.Core.Capture;

/// <summary>Writes the events of one trial, each some seconds after the one before: for stories, demos and simulated clients.</summary>
/// <param name="after">Moves a clock on by so many seconds and tells its time.</param>
/// <param name="newId">Ids in order.</param>
public sealed class Taps(Guid trialId, Func<double, DateTimeOffset> after, Func<Guid> newId)
{
    /// <summary>The trial the taps belong to.</summary>
    public Guid TrialId => trialId;

    /// <param name="rest">The start with everything but its id, trial and time, which are set here.</param>
    public TrialStarted Start(double wait, TrialStarted rest) =>
        rest with
        {
            Id = newId(),
            TrialId = trialId,
            At = after(wait),
        };

    /// <summary>A hold begins so many seconds after the tap before.</summary>
    public HoldStarted Hold(double wait) => new(newId(), trialId, after(wait));

    /// <summary>A rep is finished.</summary>
    public RepDone Rep(double wait) => new(newId(), trialId, after(wait));

    /// <summary>A fault is marked; one that persists stays through the reps that follow.</summary>
    public FaultMarked Fault(double wait, string code, bool persists = false) =>
        new(newId(), trialId, after(wait), code, persists ? true : null);

    /// <summary>A reading is taken, in the task's unit.</summary>
    public MeasureTaken Measure(double wait, double amount) => new(newId(), trialId, after(wait), amount);

    /// <summary>The range reached, as share of the movement or in degrees.</summary>
    public RangeReached Range(double wait, double? share = null, double? degrees = null) =>
        new(newId(), trialId, after(wait), share, degrees);

    /// <summary>A cue is given.</summary>
    public CueGiven Cue(double wait) => new(newId(), trialId, after(wait));

    /// <summary>The cue held or did not.</summary>
    public CueAnswered CueAnswered(double wait, bool worked) => new(newId(), trialId, after(wait), worked);

    /// <summary>Pain is told, 0 to 10.</summary>
    public PainMarked Pain(double wait, PainPhase phase, int value) =>
        new(newId(), trialId, after(wait), phase, value);

    /// <summary>The place where the work was felt.</summary>
    public FeltMarked Felt(double wait, string place) => new(newId(), trialId, after(wait), place);

    /// <summary>Effort is told, 0 to 10.</summary>
    public EffortMarked Effort(double wait, int value) => new(newId(), trialId, after(wait), value);

    /// <summary>A reason to stop that is no pain.</summary>
    public WorryTold Worry(double wait, Worry worry, Side? side = null) =>
        new(newId(), trialId, after(wait), worry, side);

    /// <summary>The trial ends.</summary>
    public TrialEnded End(double wait, EndReason reason) => new(newId(), trialId, after(wait), reason);
}
