using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Findings;

/// <summary>What each task of a screen came to, side by side, in its own unit.</summary>
public static class TaskScores
{
    /// <summary>One finding for each task that was done, in the library's order; empty where none was.</summary>
    public static IReadOnlyList<TaskFinding> Of(
        IReadOnlyList<Trial> screen,
        Policy policy,
        Person person,
        PracticeLibrary library
    ) =>
        [
            .. screen
                .GroupBy(t => (Task: TaskIdOf(t, library), t.Variant, t.RungId))
                .Select(group =>
                    FindingOf([.. group], library.FindTask(group.Key.Task), policy, person, library)
                ),
        ];

    /// <summary>None for a rung that was climbed or done for itself: it stands under its own name.</summary>
    private static string? TaskIdOf(Trial trial, PracticeLibrary library) =>
        RungFinder.Climbs(trial, library) ? null : trial.TaskId;

    private static TaskFinding FindingOf(
        List<Trial> trials,
        ScreenTask? task,
        Policy policy,
        Person person,
        PracticeLibrary library
    )
    {
        var rung = library.Rung(trials[0].RungId);
        var measure = task?.Measure ?? MeasureKind.Reps;
        var left = Score(trials, Side.Left, measure, rung, library);
        var right = Score(trials, Side.Right, measure, rung, library);
        var both = Score(trials, Side.Both, measure, rung, library);
        var difference = Difference(left, right, measure);
        Side? weaker =
            difference is null
            || measure != MeasureKind.Reps && difference < policy.EvenPercent
            || left!.PainLimited
            || right!.PainLimited
            || InsideError(left, right, measure, task?.Id, library)
                ? null
            : Strength(left!, measure) < Strength(right!, measure) ? Side.Left
            : Side.Right;
        var finding = new TaskFinding(
            rung.Id,
            left,
            right,
            both,
            difference,
            weaker,
            task?.Id,
            trials[0].Variant,
            NameOf(task, rung, trials[0].Variant),
            measure
        );
        return finding with
        {
            Norms = NormBands.Of(finding, person, library),
            Difference = NormBands.DifferenceOf(finding, person, library),
        };
    }

    /// <summary>Standard errors a difference of two shares must exceed to say which side is weaker: one-sided, 95 %.</summary>
    private const double Beyond = 1.645;

    /// <summary>
    /// A difference that two measurements of the same thing would show too is none: of reps by the binomial error of both
    /// shares (with one success and one failure more, so that 5 of 5 has an error too), of readings by the smallest change.
    /// </summary>
    /// <remarks>Agresti and Caffo 2000, Am Stat 54:280-288: one success and one failure added to each (from memory).</remarks>
    private static bool InsideError(
        SideScore left,
        SideScore right,
        MeasureKind measure,
        string? task,
        PracticeLibrary library
    )
    {
        if (measure == MeasureKind.YesNo)
        {
            return false;
        }
        if (measure == MeasureKind.Reps)
        {
            var (l, r) = (Share(left), Share(right));
            var error = Math.Sqrt(l.P * (1 - l.P) / l.N + r.P * (1 - r.P) / r.N);
            return Math.Abs(l.P - r.P) <= Beyond * error;
        }
        var smallest = (
            library.Norms.Errors.FirstOrDefault(e => e.Of == task)
            ?? library.Norms.Errors.FirstOrDefault(e =>
                string.Equals(e.Of, measure.ToString(), StringComparison.OrdinalIgnoreCase)
            )
        )?.SmallestChange;
        return Math.Abs((left.Value ?? 0) - (right.Value ?? 0)) < smallest;
    }

    private static (double P, double N) Share(SideScore score)
    {
        var n = Math.Max(score.Reps, score.CleanReps) + 2.0;
        return ((score.CleanReps + 1) / n, n);
    }

    private static Message NameOf(ScreenTask? task, Rung rung, string? variant) =>
        Message.Of(
            "named.task",
            ("task", task?.Id),
            ("rung", rung.Id),
            ("place", task?.Surfaces?.FirstOrDefault(s => s.Rung == rung.Id)?.Name),
            ("way", task?.Variants?.FirstOrDefault(v => v.Id == variant)?.Name)
        );

    /// <summary>
    /// The last trial of a side stands where reps, yes or no, or effort were told; where a reading is the point, the best
    /// of its trials. A load counts as lifted when the whole set was clean.
    /// </summary>
    private static SideScore? Score(
        List<Trial> trials,
        Side side,
        MeasureKind measure,
        Rung rung,
        PracticeLibrary library
    )
    {
        var own = trials.Where(t => t.Side == side).ToList();
        if (own.Count == 0)
        {
            return null;
        }
        var best = measure switch
        {
            MeasureKind.Seconds => own.MaxBy(Seconds)!,
            MeasureKind.Degrees => own.MaxBy(t => t.Clean.Reach?.Degrees ?? 0)!,
            MeasureKind.Centimetres => own.MaxBy(t => t.Clean.Amount ?? 0)!,
            MeasureKind.Kilograms => own.Where(t => t.Lifted).MaxBy(t => t.Load ?? 0) ?? own[^1],
            _ => own[^1],
        };
        double? value = measure switch
        {
            MeasureKind.Seconds => Seconds(best),
            MeasureKind.Degrees => best.Clean.Reach?.Degrees ?? 0,
            MeasureKind.Centimetres => best.Clean.Amount,
            MeasureKind.Kilograms => best.Lifted ? best.Load ?? 0 : null,
            MeasureKind.YesNo => best.Clean.Amount ?? 0,
            MeasureKind.Effort => best.Clean.Amount,
            _ => best.Clean.Reps,
        };
        return new SideScore(
            best.Id,
            best.Clean.Reps,
            best.Clean.Seconds,
            best.Total,
            best.Clean.Fraction,
            best.CueGiven,
            value,
            measure == MeasureKind.Centimetres ? PercentOfLeg(value, best.LegLength) : null,
            measure == MeasureKind.Kilograms
                ? own.Where(t => !t.Lifted).Min(t => (double?)(t.Load ?? 0))
                : null,
            TaskFeeds.PainLimited(best),
            measure == MeasureKind.Kilograms
                && best.Lifted
                && best.PainMost is not null
                && RungFinder.IsWhole(best, rung, library)
        );
    }

    /// <summary>The longest clean hold, cut at what was asked.</summary>
    private static double Seconds(Trial trial) =>
        trial.Target.Hold > 0 ? Math.Min(trial.Clean.Longest, trial.Target.Hold) : trial.Clean.Longest;

    /// <summary>Reach ÷ leg length × 100; none without both, or with a length of 0 or less.</summary>
    /// <remarks>Gribble and Hertel 2003, Meas Phys Educ Exerc Sci 7:89–100 (from memory).</remarks>
    public static double? PercentOfLeg(double? reachCm, double? legCm) =>
        reachCm is { } reach && legCm is > 0 and { } leg ? reach / leg * 100 : null;

    /// <summary>What the sides are compared by: the clean share for reps, the reading for the others.</summary>
    private static double Strength(SideScore score, MeasureKind measure) =>
        measure is MeasureKind.Reps or MeasureKind.YesNo ? score.Fraction : score.Value ?? 0;

    /// <summary>(stronger − weaker) ÷ stronger × 100; none when a side is missing, both are zero, or it is effort.</summary>
    public static double? Difference(
        SideScore? left,
        SideScore? right,
        MeasureKind measure = MeasureKind.Reps
    )
    {
        if (left is null || right is null || measure == MeasureKind.Effort)
        {
            return null;
        }
        var (l, r) = (Strength(left, measure), Strength(right, measure));
        var stronger = Math.Max(l, r);
        return stronger <= 0 ? null : (stronger - Math.Min(l, r)) / stronger * 100;
    }
}
