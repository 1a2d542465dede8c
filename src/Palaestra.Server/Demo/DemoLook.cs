using Palaestra.Core.Capture;
using Palaestra.Core.Library;

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
        var taps = clock.Taps();
        yield return taps.Start(
            20,
            new(
                Guid.Empty,
                Guid.Empty,
                default,
                Rung.Id,
                Side,
                TrialPurpose.Screen,
                Target,
                TaskId: Task.Id,
                Variant: Variant,
                LegLength: Task.Measure == MeasureKind.Centimetres ? LegLength : null
            )
        );
        foreach (var tap in Work(taps))
        {
            yield return tap;
        }
        yield return taps.End(3, EndReason.TargetMet);
    }

    private IEnumerable<CaptureEvent> Work(Taps taps)
    {
        switch (Task.Measure)
        {
            case MeasureKind.Seconds:
                yield return taps.Hold(3);
                if (Reading < Target.Hold)
                {
                    yield return taps.Fault(Reading, Fault);
                }
                yield return taps.Rep(Reading < Target.Hold ? 0.6 : Target.Hold);
                break;
            case MeasureKind.Centimetres:
                foreach (var under in new[] { 3, 0, 1.5 })
                {
                    yield return taps.Measure(6, Reading - under);
                }
                break;
            case MeasureKind.Degrees:
                yield return taps.Range(2, degrees: Reading);
                yield return taps.Rep(4);
                yield return taps.Rep(4);
                break;
            case MeasureKind.YesNo or MeasureKind.Effort:
                yield return taps.Measure(5, Reading);
                break;
            default:
                for (var rep = 1; rep <= Target.Reps; rep++)
                {
                    if (rep > Reading)
                    {
                        yield return taps.Fault(2, Fault);
                    }
                    yield return taps.Rep(2);
                }
                break;
        }
    }
}
