using Palaestra.Core.Library;

namespace Palaestra.Core.Outcomes;

/// <summary>One value of a measure on a day.</summary>
public sealed record OutcomePoint(int Visit, DateOnly Day, double Value);

/// <summary>How a measure moves, by a robust line with its 95 % interval.</summary>
/// <param name="PerWeek">Change a week. <paramref name="Low"/> and <paramref name="High"/>: its interval; none where it is not bounded.</param>
/// <param name="Clear">The interval leaves zero out.</param>
/// <param name="LineFirst">The line on the first day. <paramref name="LineLast"/>: on the last.</param>
/// <param name="Expected">The day the line reaches the target; none unless it clearly moves there, within a year.</param>
/// <param name="ExpectedFrom">That day with the quicker end of the interval. <paramref name="ExpectedTo"/>: with the slower; none where that takes over a year.</param>
public sealed record Trend(
    double PerWeek,
    double? Low,
    double? High,
    bool Clear,
    DateOnly? Expected,
    Message Words,
    double LineFirst,
    double LineLast,
    DateOnly? ExpectedFrom = null,
    DateOnly? ExpectedTo = null
)
{
    /// <summary>A line through fewer visits says nothing. Common practice.</summary>
    public const int VisitsMin = 4;

    private const int DaysMax = 366;

    /// <summary>None with fewer than four points, or all on one day.</summary>
    /// <param name="lessIsBetter">Which way is better. <paramref name="target"/>: where it is well enough.</param>
    public static Trend? Of(IReadOnlyList<OutcomePoint> points, bool lessIsBetter, double target)
    {
        if (points.Count < VisitsMin)
        {
            return null;
        }
        var first = points[0].Day;
        var line = TheilSen.Fit([
            .. points.Select(p => ((double)(p.Day.DayNumber - first.DayNumber), p.Value)),
        ]);
        if (line is null)
        {
            return null;
        }
        var better = line.Clear && line.Slope < 0 == lessIsBetter;
        var last = points[^1].Day;
        var expected = better ? Reaches(line, target, lessIsBetter, first, last) : null;
        DateOnly? At(double slope) =>
            expected is null || !double.IsFinite(slope)
                ? null
                : Reaches(
                    TheilSen.Through(
                        [.. points.Select(p => ((double)(p.Day.DayNumber - first.DayNumber), p.Value))],
                        slope
                    ),
                    target,
                    lessIsBetter,
                    first,
                    last
                );
        var (quick, slow) = lessIsBetter ? (line.Low, line.High) : (line.High, line.Low);
        // With the quicker slope the line may be there already: then from now on.
        DateOnly? from = expected is null ? null : At(quick) ?? last;
        var to = At(slow);
        var words =
            !double.IsFinite(line.Low) && !double.IsFinite(line.High) ? Message.Of("trend.too-few")
            : !line.Clear ? Message.Of("trend.unclear")
            : !better ? Message.Of("trend.worse")
            : Message.Of(
                "trend.better",
                ("from", expected is null ? null : from),
                ("to", expected is null ? null : to)
            );
        return new(
            line.Slope * 7,
            Finite(line.Low * 7),
            Finite(line.High * 7),
            line.Clear,
            expected,
            words,
            line.At(0),
            line.At(last.DayNumber - first.DayNumber),
            from,
            to
        );
    }

    private static DateOnly? Reaches(
        RobustLine line,
        double target,
        bool lessIsBetter,
        DateOnly first,
        DateOnly last
    )
    {
        var now = line.At(last.DayNumber - first.DayNumber);
        if (lessIsBetter ? now <= target : now >= target)
        {
            return null;
        }
        var days = (target - line.Intercept) / line.Slope;
        return days - (last.DayNumber - first.DayNumber) <= DaysMax
            ? first.AddDays((int)Math.Ceiling(days))
            : null;
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}

/// <summary>One measure over the visits: first and last against the change that means something, and its trend.</summary>
/// <param name="Meaningful">The change from the first value that means something, in points.</param>
public sealed record OutcomeSeries(
    OutcomeMeasure Measure,
    IReadOnlyList<OutcomePoint> Points,
    double Meaningful,
    ChangeVerdict Verdict,
    Message Words,
    Trend? Trend
)
{
    /// <summary>None without a point.</summary>
    public static OutcomeSeries? Of(OutcomeMeasure measure, IReadOnlyList<OutcomePoint> points)
    {
        if (points.Count == 0)
        {
            return null;
        }
        var (first, last) = (points[0].Value, points[^1].Value);
        var verdict = measure.Verdict(first, last);
        var words =
            points.Count == 1
                ? Message.Of("outcome.once")
                : Message.Of("outcome.verdict", ("verdict", verdict));
        return new(
            measure,
            points,
            Math.Round(measure.Meaningful(first), 1),
            verdict,
            words,
            Trend.Of(points, measure.LessIsBetter, measure.Target)
        );
    }
}
