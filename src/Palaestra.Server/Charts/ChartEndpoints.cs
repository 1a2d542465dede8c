using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Charts;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Visits;
using Palaestra.Exchange.Charts;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Words;

namespace Palaestra.Server.Charts;

public sealed record KindName(PainKind Kind, Message Name);

/// <summary>The body that is drawn on, and what things on it are called.</summary>
public sealed record ChartSheet(
    IReadOnlyList<ChartFigure> Figures,
    IReadOnlyList<ChartPattern> Patterns,
    IReadOnlyList<KindName> Kinds,
    IReadOnlyList<ZoneName> Zones
);

public sealed record ZoneName(ChartZone Zone, Side Side, Message Name);

/// <param name="Words">What is asked.</param>
/// <param name="Flag">Id of the red flag a yes reports; none: it is about how far pain goes down a leg.</param>
public sealed record ChartQuestionView(string Id, Side Side, bool? Yes, Message Words, string? Flag);

/// <summary>The chart of an earlier visit, and what changed since.</summary>
public sealed record EarlierChart(Guid VisitId, int Number, DateOnly Day, BodyChart Chart, Message Change);

/// <param name="Version">0 before anything was drawn.</param>
/// <param name="Says">One line for each area, in their order.</param>
/// <param name="Questions">What the drawing asks for, red flags first.</param>
/// <param name="Earlier">Of earlier visits, the latest first.</param>
/// <param name="Settled">Something may rest on it: drawn anew, it needs a reason.</param>
public sealed record VisitChartView(
    BodyChart Chart,
    int Version,
    string? WrittenBy,
    Instant? WrittenAt,
    IReadOnlyList<Message> Says,
    IReadOnlyList<ChartQuestionView> Questions,
    IReadOnlyList<EarlierChart> Earlier,
    bool Settled
);

/// <param name="Reason">Why a chart is drawn anew, 1 to 500 characters: needed where the visit was decided or its day is over.</param>
public sealed record ChartForm(BodyChart Chart, int Version, string? Reason = null);

public static class ChartEndpoints
{
    public static void MapCharts(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Intake");
        group
            .MapGet("/body-chart", Sheet)
            .Described(
                "GetChartSheet",
                "The body that pain is drawn on, from four sides, and the names of its parts."
            );
        group
            .MapGet("/visits/{visitId:guid}/body-chart", Get)
            .Described("GetBodyChart", "Where it hurts, as drawn at a visit, and what that asks for.");
        group
            .MapPut("/visits/{visitId:guid}/body-chart", Put)
            .Described(
                "DrawBodyChart",
                "Keeps what was drawn and answered, on the version that was read; a yes to a red flag reports it.",
                409
            );
        group
            .MapGet("/visits/{visitId:guid}/body-chart.svg", Svg)
            .Described("GetBodyChartPicture", "The body chart of a visit as SVG.");
    }

    private static Ok<ChartSheet> Sheet() =>
        TypedResults.Ok(
            new ChartSheet(
                ChartFigure.All,
                ChartPattern.All,
                [
                    .. Enum.GetValues<PainKind>()
                        .Select(kind => new KindName(kind, Message.Of("chart.kind", ("kind", kind)))),
                ],
                [
                    .. ChartFigure
                        .All.SelectMany(figure => figure.Parts)
                        .Select(part => new ZoneSide(part.Zone, part.Side))
                        .Distinct()
                        .Select(zone => new ZoneName(zone.Zone, zone.Side, ChartWords.Zones([zone])[0])),
                ]
            )
        );

    private static async Task<Ok<VisitChartView>> Get(
        Guid visitId,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        Amending amending
    ) =>
        TypedResults.Ok(
            View(
                await db.Charts.AsNoTracking().FirstOrDefaultAsync(c => c.VisitId == visitId),
                visitId,
                open.File,
                library,
                amending
            )
        );

    private static async Task<Results<Ok<VisitChartView>, ProblemHttpResult>> Put(
        Guid visitId,
        ChartForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        IntakeStore intakes,
        Amending amending,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var file = open.File;
        var errors = BodyChart.Errors(form.Chart, "chart").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var asked = ChartQuestion.Of(form.Chart, library);
        var answers = form.Chart.Answers ?? [];
        for (var i = 0; i < answers.Count; i++)
        {
            if (!asked.Any(q => q.Id == answers[i].Question && q.Side == answers[i].Side))
            {
                return Problem.Field($"chart.answers[{i}].question", Message.Of("chart.not-asked"));
            }
        }
        var visit = file.Visit(visitId);
        var stored = await db.Charts.FindAsync(visitId);
        if ((stored?.Version ?? 0) != form.Version)
        {
            return Problem.Conflict(
                Message.Of("conflict.changed"),
                View(stored, visitId, file, library, amending)
            );
        }
        if (amending.Of(form.Reason, file, visit, stored?.Chart, form.Chart) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        if (stored is null)
        {
            stored = new VisitChart
            {
                VisitId = visitId,
                EpisodeId = file.Episode.Id,
                Chart = form.Chart,
                WrittenBy = who.Name,
            };
            db.Charts.Add(stored);
        }
        else
        {
            stored.Chart = form.Chart;
            stored.WrittenBy = who.Name;
            stored.Version++;
        }
        stored.WrittenAt = clock.Now;
        intakes.Report(
            file.Episode,
            asked.Where(q => q is { Yes: true, Id: not ChartQuestion.BelowKnee }).Select(q => q.Id),
            who.Name
        );
        return await db.SavedFirst()
            ? TypedResults.Ok(View(stored, visitId, file, library, amending))
            : Problem.Conflict(Message.Of("conflict.changed"));
    }

    private static ContentHttpResult Svg(Guid visitId, OpenCase open, ClinicWords words)
    {
        var file = open.File;
        var chart = file.Charts.GetValueOrDefault(visitId) ?? BodyChart.Empty;
        return TypedResults.Text(
            ChartSvg.Write(
                chart,
                words.Say(
                    Message.Of(
                        "chart.title",
                        ("name", file.Episode.Client!.Name),
                        ("day", file.DayOf(file.Visit(visitId)))
                    )
                ),
                [.. chart.Areas.Select(area => words.Say(ChartWords.Of(area)))]
            ),
            "image/svg+xml",
            System.Text.Encoding.UTF8
        );
    }

    private static VisitChartView View(
        VisitChart? stored,
        Guid visitId,
        CaseFile file,
        PracticeLibrary library,
        Amending amending
    )
    {
        var chart = stored?.Chart ?? BodyChart.Empty;
        return new(
            chart,
            stored?.Version ?? 0,
            stored?.WrittenBy,
            stored?.WrittenAt,
            [.. chart.Areas.Select(ChartWords.Of)],
            [
                .. ChartQuestion
                    .Of(chart, library)
                    .Select(q => new ChartQuestionView(
                        q.Id,
                        q.Side,
                        q.Yes,
                        q.Id == ChartQuestion.BelowKnee
                            ? Message.Of("chart.below-knee", ("side", q.Side))
                            : Message.Of("chart.flag", ("flag", q.Id)),
                        q.Id == ChartQuestion.BelowKnee ? null : q.Id
                    )),
            ],
            [
                .. file
                    .Visits.TakeWhile(v => v.Id != visitId)
                    .Reverse()
                    .Where(v => file.Charts.ContainsKey(v.Id))
                    .Select(v => new EarlierChart(
                        v.Id,
                        file.NumberOf(v.Id),
                        file.DayOf(v),
                        file.Charts[v.Id],
                        ChartWords.Of(ChartReading.Between(file.Charts[v.Id], chart), file.DayOf(v))
                    )),
            ],
            stored is not null && amending.IsSettled(file, file.Visit(visitId))
        );
    }
}
