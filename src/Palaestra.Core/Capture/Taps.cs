namespace Palaestra.Core.Capture;

/// <summary>Writes the events of one trial, each some seconds after the one before: for stories, demos and simulated clients.</summary>
/// <param name="after">Moves a clock on by so many seconds and tells its time.</param>
/// <param name="newId">Ids in order.</param>
public sealed class Taps(Guid trialId, Func<double, DateTimeOffset> after, Func<Guid> newId)
{
    public Guid TrialId => trialId;

    /// <param name="rest">The start with everything but its id, trial and time, which are set here.</param>
    public TrialStarted Start(double wait, TrialStarted rest) =>
        rest with
        {
            Id = newId(),
            TrialId = trialId,
            At = after(wait),
        };

    public HoldStarted Hold(double wait) => new(newId(), trialId, after(wait));

    public RepDone Rep(double wait) => new(newId(), trialId, after(wait));

    public FaultMarked Fault(double wait, string code, bool persists = false) =>
        new(newId(), trialId, after(wait), code, persists ? true : null);

    public MeasureTaken Measure(double wait, double amount) => new(newId(), trialId, after(wait), amount);

    public RangeReached Range(double wait, double? share = null, double? degrees = null) =>
        new(newId(), trialId, after(wait), share, degrees);

    public CueGiven Cue(double wait) => new(newId(), trialId, after(wait));

    public CueAnswered CueAnswered(double wait, bool worked) => new(newId(), trialId, after(wait), worked);

    public PainMarked Pain(double wait, PainPhase phase, int value) =>
        new(newId(), trialId, after(wait), phase, value);

    public FeltMarked Felt(double wait, string place) => new(newId(), trialId, after(wait), place);

    public EffortMarked Effort(double wait, int value) => new(newId(), trialId, after(wait), value);

    public WorryTold Worry(double wait, Worry worry, Side? side = null) =>
        new(newId(), trialId, after(wait), worry, side);

    public TrialEnded End(double wait, EndReason reason) => new(newId(), trialId, after(wait), reason);
}
