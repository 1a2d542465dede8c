namespace Palaestra.Simulation.Courses;

/// <summary>Figures of many courses under one guide; shares are from 0 to 1.</summary>
/// <param name="Up12">Share of clients with half their exercises a rung up by the last week, truly held.</param>
/// <param name="WeeksToHalf">Median weeks until then; none where fewer than half got there.</param>
/// <param name="Flared">Share that flared at least once. <paramref name="FlaresPerCourse"/>: mean.</param>
/// <param name="TooEarly">Share of steps up that went above true ability; none where there were none.</param>
/// <param name="Overturned">Share of decisions that a rater who sees everything would have taken otherwise; none where no rules decide.</param>
/// <param name="Gain">Rungs of true ability. <paramref name="MinutesPerWeek"/>: asked for, tries among them.</param>
public sealed record CourseFigures(
    double Up12,
    double? WeeksToHalf,
    double Flared,
    double FlaresPerCourse,
    double? TooEarly,
    double? Overturned,
    double Gain,
    double MinutesPerWeek
);

/// <summary>Standard errors over clients. Of shares of steps and decisions they count each client as a whole.</summary>
public sealed record CourseErrors(
    double Up12,
    double Flared,
    double FlaresPerCourse,
    double? TooEarly,
    double? Overturned,
    double Gain,
    double MinutesPerWeek
);

/// <summary>One row of the table.</summary>
/// <param name="Courses">Clients for whom something could be planned that can move.</param>
public sealed record CourseRow(
    string Policy,
    string Name,
    int Courses,
    CourseFigures Figures,
    CourseErrors Errors,
    double StepsUp,
    double Probes,
    IReadOnlyDictionary<string, double> Rules
)
{
    public static CourseRow Of(CourseGuide guide, string name, IReadOnlyList<CourseResult> all)
    {
        var weeks = all.Select(r => r.TargetWeek ?? int.MaxValue).Order().ToList();
        var up = all.Select(r => r.TargetWeek is null ? 0.0 : 1).ToList();
        var flared = all.Select(r => r.Flares > 0 ? 1.0 : 0).ToList();
        var flares = all.Select(r => (double)r.Flares).ToList();
        var gain = all.Select(r => r.RungsGained).ToList();
        var minutes = all.Select(r => r.MinutesPerWeek).ToList();
        var early = all.Select(r => ((double)r.TooEarly, (double)r.StepUps)).ToList();
        var overturned = all.Select(r => ((double)r.Overturned, (double)r.Decisions)).ToList();
        var fired = all.SelectMany(r => r.Fired).GroupBy(f => f.Key);
        var decided = Math.Max(1, all.Sum(r => r.Decisions));
        return new(
            guide.Name,
            name,
            all.Count,
            new(
                up.Average(),
                weeks[all.Count / 2] is var median and < int.MaxValue ? median : null,
                flared.Average(),
                flares.Average(),
                Ratio(early),
                Ratio(overturned),
                gain.Average(),
                minutes.Average()
            ),
            new(
                Error(up),
                Error(flared),
                Error(flares),
                RatioError(early),
                RatioError(overturned),
                Error(gain),
                Error(minutes)
            ),
            all.Average(r => r.StepUps),
            all.Average(r => r.Probes),
            fired.ToDictionary(rule => rule.Key, rule => (double)rule.Sum(f => f.Value) / decided)
        );
    }

    private static double Error(List<double> values)
    {
        var mean = values.Average();
        return Math.Sqrt(
            values.Sum(v => (v - mean) * (v - mean)) / Math.Max(1, values.Count - 1) / values.Count
        );
    }

    private static double? Ratio(List<(double Part, double Whole)> all) =>
        all.Sum(a => a.Whole) is > 0 and var whole ? all.Sum(a => a.Part) / whole : null;

    /// <remarks>Linearized: Cochran, Sampling Techniques, 1977, ratio estimator; from memory.</remarks>
    private static double? RatioError(List<(double Part, double Whole)> all)
    {
        if (Ratio(all) is not { } ratio)
        {
            return null;
        }
        var n = all.Count;
        var mean = all.Average(a => a.Whole);
        var rest = all.Sum(a => Math.Pow(a.Part - ratio * a.Whole, 2)) / Math.Max(1, n - 1);
        return Math.Sqrt(rest / n) / mean;
    }
}
