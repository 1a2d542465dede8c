using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Problems;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Visits;

public sealed record BookVisitForm(DateTime PlannedAt);

public sealed record CheckInForm(CheckIn CheckIn, int Version);

/// <summary>A session: the plan in force when the visit began, and what has been done of it.</summary>
/// <param name="Plan">None on a visit before the first plan.</param>
public sealed record SessionView(
    VisitView Visit,
    PlanRevisionView? Plan,
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<Performance> Performances,
    int? LastPain
);

public static class VisitEndpoints
{
    public static void MapVisits(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Visits");
        group.MapPost("/episodes/{id:guid}/visits", Book).WithName("BookVisit");
        group.MapPut("/visits/{visitId:guid}/check-in", CheckIn).WithName("CheckIn");
        group.MapGet("/visits/{visitId:guid}/session", Session).WithName("GetSession");
    }

    private static async Task<Results<Created<VisitView>, ProblemHttpResult>> Book(
        Guid id,
        BookVisitForm form,
        CaseFiles files,
        PalaestraDb db,
        TimeProvider time
    )
    {
        if (await files.OfEpisode(id) is not { } file)
        {
            return Problem.NotFound("episode");
        }
        var now = time.GetLocalNow().DateTime;
        if (form.PlannedAt < now.Date || form.PlannedAt > now.AddYears(1))
        {
            return Problem.Field("plannedAt", "A visit is planned for today or within a year.");
        }
        if (file.Visits.Any(v => v.PlannedAt == form.PlannedAt))
        {
            return Problem.Field("plannedAt", "There is already a visit at this time.");
        }
        var visit = new Visit
        {
            EpisodeId = id,
            PlannedAt = DateTime.SpecifyKind(form.PlannedAt, DateTimeKind.Unspecified),
        };
        db.Visits.Add(visit);
        await db.SaveChangesAsync();
        var stored = await files.OfEpisode(id);
        return TypedResults.Created($"/api/visits/{visit.Id}", EpisodeView.VisitOf(visit, stored!));
    }

    private static async Task<Results<Ok<VisitView>, ProblemHttpResult>> CheckIn(
        Guid visitId,
        CheckInForm form,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        IntakeDesk desk,
        WhoIsHere who
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var errors = CheckInCheck.Errors(form.CheckIn, library, "checkIn").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var visit = file.Visit(visitId);
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(
                "Somebody else answered these questions meanwhile. Nothing was stored; look at both.",
                EpisodeView.VisitOf(visit, file)
            );
        }
        visit.CheckIn = form.CheckIn;
        visit.Version++;
        desk.Report(file.Episode, form.CheckIn.DangerSigns, who.Name);
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problem.Conflict("Somebody else answered these questions meanwhile. Nothing was stored.");
        }
        return TypedResults.Ok(EpisodeView.VisitOf(visit, file));
    }

    private static async Task<Results<Ok<SessionView>, ProblemHttpResult>> Session(
        Guid visitId,
        CaseFiles files
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var visit = file.Visit(visitId);
        var plan = file.PlanFor(visitId);
        var number = file.NumberOf(visitId);
        var before = file.Visits.Take(number - 1).LastOrDefault();
        return TypedResults.Ok(
            new SessionView(
                EpisodeView.VisitOf(visit, file),
                plan is null ? null : PlanRevisionView.Of(plan),
                [.. file.Trials(visitId).Where(t => t.Purpose == TrialPurpose.Session)],
                [.. file.Performances(visitId).Where(p => p.Visit == number)],
                before is null ? null : EpisodeView.VisitOf(before, file).Pain
            )
        );
    }
}
