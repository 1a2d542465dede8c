using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Given;

/// <summary>Writes the taps of trials, second by second, and folds them.</summary>
public sealed class Tape
{
    private DateTimeOffset now = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);
    private Guid trial;
    private int ids;

    public List<CaptureEvent> Events { get; } = [];

    public Tape Start(
        string rungId,
        Side side,
        TrialPurpose purpose = TrialPurpose.Screen,
        Dose? target = null
    )
    {
        trial = NewId();
        var rung = Content.Library.Rung(rungId);
        return Tap(
            CaptureKind.TrialStarted,
            1,
            e =>
                e with
                {
                    RungId = rungId,
                    Side = side,
                    Purpose = purpose,
                    Target = target ?? rung.Start with { Sets = 1 },
                    PlanItemId =
                        purpose == TrialPurpose.Session
                            ? Guid.Parse("11111111-1111-1111-1111-111111111111")
                            : null,
                }
        );
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
            Tap(CaptureKind.HoldStarted, 2);
        }
        if (fault is not null)
        {
            Fault(fault, faultAt);
            return Tap(CaptureKind.RepDone, Math.Max(0.1, hold - faultAt));
        }
        return Tap(CaptureKind.RepDone, hold > 0 ? hold : 3);
    }

    public Tape Fault(string code, double after = 1) =>
        Tap(CaptureKind.FaultMarked, after, e => e with { Fault = code });

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
        Events[^1] = Events[^1] with { TaskId = taskId, Variant = variant, Load = load, LegLength = leg };
        return this;
    }

    /// <summary>A rep with a reading.</summary>
    public Tape Measure(double amount, string? fault = null)
    {
        if (fault is not null)
        {
            Fault(fault);
        }
        return Tap(CaptureKind.MeasureTaken, 2, e => e with { Amount = amount });
    }

    public Tape Range(double? degrees = null, double? share = null) =>
        Tap(CaptureKind.RangeReached, 1, e => e with { Degrees = degrees, Share = share });

    public Tape Persisting(string code) =>
        Tap(CaptureKind.FaultMarked, 1, e => e with { Fault = code, Persists = true });

    /// <summary>Told now, of the moment a rep was counted.</summary>
    public Tape FaultOfRep(int rep, string code)
    {
        var counted = Events.Where(e => e.Kind == CaptureKind.RepDone).ElementAt(rep - 1).At;
        return Tap(CaptureKind.FaultMarked, 1, e => e with { Fault = code, At = counted });
    }

    public Tape Tap(CaptureKind kind) => Tap(kind, 1);

    public Tape Uses(Instrument instrument) =>
        Tap(CaptureKind.InstrumentUsed, 1, e => e with { Instrument = instrument });

    public Tape OtherSide(Side side) => Tap(CaptureKind.SideCorrected, 1, e => e with { Side = side });

    public Tape Wait(double seconds)
    {
        now = now.AddSeconds(seconds);
        return this;
    }

    /// <summary>The trial that was started last is an easier one than the plan asks.</summary>
    public Tape Eased(OneChange change, Side? asked = null)
    {
        Events[^1] = Events[^1] with { Eased = [change], AskedSide = asked };
        return this;
    }

    public Tape Cue() => Tap(CaptureKind.CueGiven, 1);

    public Tape CueAnswered(bool worked) => Tap(CaptureKind.CueAnswered, 1, e => e with { Worked = worked });

    public Tape Pain(PainPhase phase, int value) =>
        Tap(CaptureKind.PainMarked, 1, e => e with { Phase = phase, Value = value });

    public Tape Undo(Guid? target = null) =>
        Tap(CaptureKind.Undone, 1, e => e with { Undoes = target ?? Events[^1].Id });

    public Tape End(EndReason reason = EndReason.TargetMet) =>
        Tap(CaptureKind.TrialEnded, 1, e => e with { Reason = reason });

    public Tape HoldStart() => Tap(CaptureKind.HoldStarted, 1);

    public IReadOnlyList<Trial> Trials() => TrialFold.Trials(Events, Content.Library, Content.Policy.Pain);

    public Trial Only() => Assert.Single(Trials());

    private Tape Tap(CaptureKind kind, double after, Func<CaptureEvent, CaptureEvent>? with = null)
    {
        now = now.AddSeconds(after);
        var e = new CaptureEvent(NewId(), trial, kind, now);
        Events.Add(with is null ? e : with(e));
        return this;
    }

    private Guid NewId()
    {
        ids++;
        return new Guid(ids, 0, 0x7000, 0x80, 0, 0, 0, 0, 0, 0, 1);
    }
}
