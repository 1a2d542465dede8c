using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Server.Demo;

/// <summary>One trial of a task of the scenario, told as the taps that lead to its reading.</summary>
/// <param name="Reading">In the unit of the task: clean reps, seconds, degrees, centimetres, 1 or 0, points.</param>
/// <param name="LegLength">Centimetres, for reaches.</param>
public sealed record DemoLook(
    ScreenTask Task,
    Rung Rung,
    Side Side,
    string? Variant,
    double Reading,
    string Fault,
    double? LegLength
)
{
    private Dose Target => Task.Target ?? Rung.Start with { Sets = 1 };

    public IEnumerable<CaptureEvent> Events(DemoClock clock)
    {
        var trial = Guid.CreateVersion7(clock.GetUtcNow());
        CaptureEvent Tap(CaptureKind kind, double after) =>
            new(Guid.CreateVersion7(), trial, kind, clock.After(after));
        yield return Tap(CaptureKind.TrialStarted, 20) with
        {
            RungId = Rung.Id,
            Side = Side,
            Purpose = TrialPurpose.Screen,
            Target = Target,
            TaskId = Task.Id,
            Variant = Variant,
            LegLength = Task.Measure == MeasureKind.Centimetres ? LegLength : null,
        };
        foreach (var tap in Work(Tap))
        {
            yield return tap;
        }
        yield return Tap(CaptureKind.TrialEnded, 3) with
        {
            Reason = EndReason.TargetMet,
        };
    }

    private IEnumerable<CaptureEvent> Work(Func<CaptureKind, double, CaptureEvent> tap)
    {
        switch (Task.Measure)
        {
            case MeasureKind.Seconds:
                yield return tap(CaptureKind.HoldStarted, 3);
                if (Reading < Target.Hold)
                {
                    yield return tap(CaptureKind.FaultMarked, Reading) with
                    {
                        Fault = Fault,
                    };
                }
                yield return tap(CaptureKind.RepDone, Reading < Target.Hold ? 0.6 : Target.Hold);
                break;
            case MeasureKind.Centimetres:
                foreach (var under in new[] { 3, 0, 1.5 })
                {
                    yield return tap(CaptureKind.MeasureTaken, 6) with
                    {
                        Amount = Reading - under,
                    };
                }
                break;
            case MeasureKind.Degrees:
                yield return tap(CaptureKind.RangeReached, 2) with
                {
                    Degrees = Reading,
                };
                yield return tap(CaptureKind.RepDone, 4);
                yield return tap(CaptureKind.RepDone, 4);
                break;
            case MeasureKind.YesNo or MeasureKind.Effort:
                yield return tap(CaptureKind.MeasureTaken, 5) with
                {
                    Amount = Reading,
                };
                break;
            default:
                for (var rep = 1; rep <= Target.Reps; rep++)
                {
                    if (rep > Reading)
                    {
                        yield return tap(CaptureKind.FaultMarked, 2) with
                        {
                            Fault = Fault,
                        };
                    }
                    yield return tap(CaptureKind.RepDone, 2);
                }
                break;
        }
    }
}
