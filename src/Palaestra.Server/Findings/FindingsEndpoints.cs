using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data.Visits;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Findings;

/// <param name="Findings">None when nothing has been screened up to this visit.</param>
/// <param name="Screens">Every screen of the episode up to this visit, oldest first.</param>
/// <param name="Earlier">The screen compared with; none where this is the first. <paramref name="EarlierVisitId"/>: its visit.</param>
/// <param name="Changes">What differs between the two, against measurement error.</param>
/// <param name="RescreenDue">When the policy wants the next one.</param>
/// <param name="Trials">The trials the findings rest on, so that every number can be opened.</param>
public sealed record FindingsView(
    ScreenFindings? Findings,
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<ForbiddenRung> Forbidden,
    Guid? ScreenVisitId,
    Instant? ScreenedAt,
    DateOnly? RescreenDue,
    IReadOnlyList<ScreenDone> Screens,
    Guid? EarlierVisitId,
    ScreenFindings? Earlier,
    IReadOnlyList<Change> Changes
);

/// <param name="Number">Of the visit in the episode.</param>
public sealed record ScreenDone(Guid VisitId, Instant At, int Number);

public static class FindingsEndpoints
{
    public static void MapFindings(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/visits/{visitId:guid}/findings", Findings)
            .WithTags("Findings")
            .Described("GetFindings", "What the screen of a visit found: scores, differences, entry levels.");

    /// <param name="against">Visit of an earlier screen to compare with; none: the one before.</param>
    private static async Task<Results<Ok<FindingsView>, ProblemHttpResult>> Findings(
        Guid visitId,
        Guid? against,
        OpenCase open,
        PracticeLibrary library
    )
    {
        var file = open.File;
        var visit = file.ScreenVisit(visitId);
        var earlier = visit is null ? null : EarlierOf(file, visit, against);
        if (against is not null && earlier?.Id != against)
        {
            return Problem.Field("against", Message.Of("compare.no-screen"));
        }
        var now = visit is null ? null : file.FindingsOf(visit, abilitiesAt: visitId);
        var before = earlier is null ? null : file.FindingsOf(earlier, abilitiesAt: earlier.Id);
        return TypedResults.Ok(
            new FindingsView(
                now,
                visit is null ? [] : [.. file.Trials(visit.Id).Where(t => t.Purpose == TrialPurpose.Screen)],
                Planner.Forbidden(file.Profile, library),
                visit?.Id,
                visit?.PlannedAt,
                visit is null ? null : file.RescreenDue(visit),
                [
                    .. file
                        .Visits.Where(v => file.NumberOf(v.Id) <= file.NumberOf(visitId))
                        .Where(v => file.Has(v.Id, TrialPurpose.Screen))
                        .Select(v => new ScreenDone(v.Id, v.PlannedAt, file.NumberOf(v.Id))),
                ],
                earlier?.Id,
                before,
                before is null || now is null ? [] : Changes.Between(before, now, library)
            )
        );
    }

    private static Visit? EarlierOf(CaseFile file, Visit visit, Guid? against) =>
        against is null
            ? file.EarlierScreen(visit.Id)
            : file.Visits.FirstOrDefault(v =>
                v.Id == against
                && file.NumberOf(v.Id) < file.NumberOf(visit.Id)
                && file.Has(v.Id, TrialPurpose.Screen)
            );
}
