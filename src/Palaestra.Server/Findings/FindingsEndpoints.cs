using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Data;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Findings;

/// <param name="Findings">None when nothing has been screened up to this visit.</param>
/// <param name="Trials">The trials the findings rest on, so that every number can be opened.</param>
public sealed record FindingsView(
    ScreenFindings? Findings,
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<ForbiddenRung> Forbidden,
    DateTime? ScreenedAt
);

public static class FindingsEndpoints
{
    public static void MapFindings(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/visits/{visitId:guid}/findings", Findings)
            .WithTags("Findings")
            .WithName("GetFindings");

    private static async Task<Results<Ok<FindingsView>, ProblemHttpResult>> Findings(
        Guid visitId,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        if (await CaseFile.OfVisit(visitId, db, library) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var visit = file.ScreenVisit(visitId);
        return TypedResults.Ok(
            new FindingsView(
                file.Findings(visitId),
                visit is null ? [] : [.. file.Trials(visit.Id).Where(t => t.Purpose == TrialPurpose.Screen)],
                Planner.Forbidden(file.Profile, library),
                visit?.PlannedAt
            )
        );
    }
}
