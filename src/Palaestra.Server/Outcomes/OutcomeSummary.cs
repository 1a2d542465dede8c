using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Outcomes;

/// <summary>One named activity over the visits, 0 to 10.</summary>
public sealed record ActivitySeries(string Name, IReadOnlyList<OutcomePoint> Points, ChangeVerdict Verdict);

/// <param name="Answers">What was told at this visit; none where it was not asked.</param>
/// <param name="Named">Activities named at an earlier visit, to be asked again.</param>
/// <param name="Series">Measures with at least one value.</param>
/// <param name="SideTrend">Of the side difference at the visits, percent; none with fewer than four.</param>
/// <param name="Even">Under this the sides count as even, percent.</param>
public sealed record OutcomesView(
    OutcomeAnswers? Answers,
    int AnswersVersion,
    IReadOnlyList<string> Named,
    string? DisabilityMeasure,
    IReadOnlyList<OutcomeSeries> Series,
    IReadOnlyList<ActivitySeries> Activities,
    IReadOnlyList<CleanWeek> Weeks,
    IReadOnlyList<SideShare> Sides,
    Trend? SideTrend,
    double Even,
    IReadOnlyList<SessionPain> Sessions
);

/// <summary>Puts together from a record how a client does over time.</summary>
public sealed class OutcomeSummary(PracticeLibrary library)
{
    /// <summary>One activity alone counts from three points on.</summary>
    /// <remarks>Stratford et al. 1995, Physiother Can 47:258–263 (from memory).</remarks>
    public const int OneActivity = 3;

    public OutcomesView Of(CaseFile file, Guid visitId)
    {
        var visit = file.Visit(visitId);
        var work = file.Performances(file.Visits[^1].Id);
        var sides = CleanWork.BySide(work);
        return new(
            visit.Answers,
            visit.AnswersVersion,
            Named(file),
            file.Visits.LastOrDefault(v => v.Answers?.Disability is not null)?.Answers!.Disability!.MeasureId,
            Series(file),
            Activities(file),
            CleanWork.ByWeek(file.Episode.OpenedOn, work, library),
            sides,
            Trend.Of(
                [.. sides.Select(s => new OutcomePoint(s.Visit, s.Day, s.DifferencePercent))],
                lessIsBetter: true,
                file.Policy.EvenPercent
            ),
            file.Policy.EvenPercent,
            [.. file.Sessions(file.Visits[^1].Id).Where(s => s.Peak is not null || s.End is not null)]
        );
    }

    public IReadOnlyList<OutcomeSeries> Series(CaseFile file) =>
        [
            .. library
                .Outcomes.Select(measure => OutcomeSeries.Of(measure, Points(measure, file)))
                .OfType<OutcomeSeries>(),
        ];

    private static List<OutcomePoint> Points(OutcomeMeasure measure, CaseFile file) =>
        [
            .. from visit in file.Visits
            let value = ValueAt(measure, visit, file)
            where value is not null
            select Point(visit, file, value.Value),
        ];

    private static double? ValueAt(OutcomeMeasure measure, Visit visit, CaseFile file) =>
        measure.From switch
        {
            OutcomeSource.Pain => file.PainAt(visit),
            OutcomeSource.Activities => visit.Answers?.Activities is { Count: > 0 } named
                ? Math.Round(named.Average(a => a.Value), 1)
                : null,
            OutcomeSource.Task => file.Has(visit.Id, TrialPurpose.Screen)
                ? TaskAt(measure.Task, visit, file)
                : null,
            _ => visit.Answers?.Disability is { } total && total.MeasureId == measure.Id ? total.Total : null,
        };

    /// <summary>Both sides added; none where one was not asked.</summary>
    private static double? TaskAt(string? id, Visit visit, CaseFile file)
    {
        var task = file.FindingsOf(visit).Tasks.FirstOrDefault(t => t.TaskId == id);
        return task?.Of(Side.Left)?.Value + task?.Of(Side.Right)?.Value;
    }

    private static OutcomePoint Point(Visit visit, CaseFile file, double value) =>
        new(file.NumberOf(visit.Id), file.DayOf(visit), value);

    private static List<string> Named(CaseFile file) =>
        [
            .. file
                .Visits.Where(v => v.Answers is { Activities.Count: > 0 })
                .SelectMany(v => v.Answers!.Activities.Select(a => a.Name))
                .Distinct(),
        ];

    private static List<ActivitySeries> Activities(CaseFile file) =>
        [
            .. Named(file)
                .Select(name =>
                {
                    var points = file
                        .Visits.Select(v =>
                            (Visit: v, Score: v.Answers?.Activities.FirstOrDefault(a => a.Name == name))
                        )
                        .Where(pair => pair.Score is not null)
                        .Select(pair => Point(pair.Visit, file, pair.Score!.Value))
                        .ToList();
                    var gain = points[^1].Value - points[0].Value;
                    var verdict =
                        Math.Abs(gain) < OneActivity ? ChangeVerdict.NoClearChange
                        : gain > 0 ? ChangeVerdict.Better
                        : ChangeVerdict.Worse;
                    return new ActivitySeries(name, points, verdict);
                }),
        ];
}
