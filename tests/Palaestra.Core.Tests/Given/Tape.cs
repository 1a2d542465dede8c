using Palaestra.Core.Capture;

namespace Palaestra.Core.Tests.Given;

/// <summary>Writes the taps of trials, second by second, and folds them.</summary>
public sealed class Tape
{
    /// <summary>The exercise that session trials belong to.</summary>
    public static readonly Guid Item = Guid.Parse("11111111-1111-1111-1111-111111111111");

    private DateTimeOffset now = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);
    private Taps taps;
    private int ids;

    public Tape() => taps = NewTrial();

    public List<CaptureEvent> Events { get; } = [];

    public Tape Start(
        string rungId,
        Side side,
        TrialPurpose purpose = TrialPurpose.Screen,
        Dose? target = null
    )
    {
        taps = NewTrial();
        var rung = Content.Library.Rung(rungId);
        return Add(
            taps.Start(
                1,
                new(
                    Guid.Empty,
                    Guid.Empty,
                    default,
                    rungId,
                    side,
                    purpose,
                    target ?? rung.Start with { Sets = 1 },
                    purpose == TrialPurpose.Session ? Item : null
                )
            )
        );
    }

    /// <summary>Changes how the trial that was started last began.</summary>
    public Tape With(Func<TrialStarted, TrialStarted> change)
    {
        Events[^1] = change((TrialStarted)Events[^1]);
        return this;
    }

    /// <summary>Clean reps, each held if a hold is given.</summary>
    public Tape Reps(int count, double hold = 0)
    {
        for (var i = 0; i < count; i++)
        {
            Rep(hold);
        }
        return this;
    }

    public Tape Rep(double hold = 0, string? fault = null, double faultAt = 1)
    {
        if (hold > 0)
        {
            Add(taps.Hold(2));
        }
        if (fault is not null)
        {
            Fault(fault, faultAt);
            return Add(taps.Rep(Math.Max(0.1, hold - faultAt)));
        }
        return Add(taps.Rep(hold > 0 ? hold : 3));
    }

    /// <summary>A rep counted a second after what came before.</summary>
    public Tape CountRep() => Add(taps.Rep(1));

    public Tape Fault(string code, double after = 1) => Add(taps.Fault(after, code));

    /// <summary>
    /// The worked example of docs/findings.md, left leg: heel tap clean; leg reach with two of five holds clean, the third
    /// arching at 1.2 s (7.2 of 15 s, 0.48).
    /// </summary>
    public static Tape WorkedExample() =>
        new Tape()
            .Start("B5", Side.Left)
            .Reps(5)
            .End()
            .Start("B6", Side.Left)
            .Reps(2, hold: 3)
            .Rep(3, "arch", 1.2)
            .End(EndReason.BreakingFault);

    /// <summary>A trial of a task, at its first place and with its own target.</summary>
    public Tape Task(
        string taskId,
        Side side,
        string? variant = null,
        string? rung = null,
        double? load = null,
        double? leg = null
    )
    {
        var task = Content.Library.FindTask(taskId)!;
        Start(rung ?? task.Surfaces?[0].Rung ?? task.Rung!, side, target: task.Target);
        return With(e => e with { TaskId = taskId, Variant = variant, Load = load, LegLength = leg });
    }

    /// <summary>A rep with a reading.</summary>
    public Tape Measure(double amount, string? fault = null)
    {
        if (fault is not null)
        {
            Fault(fault);
        }
        return Add(taps.Measure(2, amount));
    }

    public Tape Range(double? degrees = null, double? share = null) => Add(taps.Range(1, share, degrees));

    public Tape Persisting(string code) => Add(taps.Fault(1, code, persists: true));

    /// <summary>Told now, of the moment a rep was counted.</summary>
    public Tape FaultOfRep(int rep, string code)
    {
        var counted = Events.OfType<RepDone>().ElementAt(rep - 1).At;
        return Add(taps.Fault(1, code) with { At = counted });
    }

    public Tape Pause() => Add(new TrialPaused(NewId(), taps.TrialId, After(1)));

    public Tape Resume() => Add(new TrialResumed(NewId(), taps.TrialId, After(1)));

    public Tape Discard() => Add(new TrialDiscarded(NewId(), taps.TrialId, After(1)));

    public Tape Uses(Instrument instrument) =>
        Add(new InstrumentUsed(NewId(), taps.TrialId, After(1), instrument));

    public Tape OtherSide(Side side) => Add(new SideCorrected(NewId(), taps.TrialId, After(1), side));

    public Tape Wait(double seconds)
    {
        now = now.AddSeconds(seconds);
        return this;
    }

    /// <summary>The trial that was started last is an easier one than the plan asks.</summary>
    public Tape Eased(OneChange change, Side? asked = null) =>
        With(e => e with { Eased = [change], AskedSide = asked });

    public Tape Cue() => Add(taps.Cue(1));

    public Tape CueAnswered(bool worked) => Add(taps.CueAnswered(1, worked));

    public Tape Pain(PainPhase phase, int value, double after = 1) => Add(taps.Pain(after, phase, value));

    public Tape Felt(string place) => Add(taps.Felt(1, place));

    public Tape Effort(int value) => Add(taps.Effort(1, value));

    public Tape Worry(Worry worry, Side? side = null) => Add(taps.Worry(1, worry, side));

    public Tape Undo(Guid? target = null) =>
        Add(new Undone(NewId(), taps.TrialId, After(1), target ?? Events[^1].Id));

    public Tape End(EndReason reason = EndReason.TargetMet) => Add(taps.End(1, reason));

    public Tape HoldStart() => Add(taps.Hold(1));

    public IReadOnlyList<Trial> Trials(int? painAtStart = null) =>
        TrialFold.Trials(Events, Content.Library, Content.Policy.Pain, painAtStart);

    public Trial Only(int? painAtStart = null) => Assert.Single(Trials(painAtStart));

    public Tape Add(CaptureEvent told)
    {
        Events.Add(told);
        return this;
    }

    private DateTimeOffset After(double seconds) => now = now.AddSeconds(seconds);

    private Taps NewTrial() => new(NewId(), After, NewId);

    private Guid NewId()
    {
        ids++;
        return new Guid(ids, 0, 0x7000, 0x80, 0, 0, 0, 0, 0, 0, 1);
    }
}
