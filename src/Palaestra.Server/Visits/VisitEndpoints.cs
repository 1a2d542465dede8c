using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Problems;
using Palaestra.Server.Progression;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Visits;

public sealed record BookVisitForm(DateTime PlannedAt);

public sealed record CheckInForm(CheckIn CheckIn, int Version);

/// <summary>When a running set ought to be stopped, for tablets that cannot reach the server.</summary>
/// <param name="FaultsInARow">Reps with a breaking fault.</param>
public sealed record StopRules(int FaultsInARow, PainRule Pain);

/// <summary>Seconds of rest between sets: of held rungs, of others, and for a change of side.</summary>
public sealed record RestSeconds(double Holds, double Other, double Side);

/// <summary>A session: the plan in force when the visit began, and what has been done of it.</summary>
/// <param name="Plan">None on a visit before the first plan.</param>
/// <param name="Items">The plan's exercises with what was skipped, swapped and added today.</param>
/// <param name="Sets">All sets in the order they are done, skipped exercises left out.</param>
/// <param name="NewerPlan">A revision accepted since this visit began: it holds from the next one.</param>
public sealed record SessionView(
    VisitView Visit,
    PlanRevisionView? Plan,
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<Performance> Performances,
    int? LastPain,
    IReadOnlyList<SessionItem> Items,
    IReadOnlyList<SetToDo> Sets,
    StopRules Stop,
    RestSeconds Rest,
    int? NewerPlan,
    int? DaysAway
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
        TimeProvider time,
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
        if (form.CheckIn.FlagsAsked == true || form.CheckIn.DangerSigns.Count > 0)
        {
            visit.Flags = new(who.Name, time.GetUtcNow().UtcDateTime, form.CheckIn.DangerSigns);
        }
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

    /// <summary>Days without training, where the policy minds them; none otherwise.</summary>
    private static int? AwayDays(CaseFile file, DecideInput? input) =>
        input?.LastWorkDate is { } last && input.Date.DayNumber - last.DayNumber is var days
            ? days >= file.Policy.AwayDays
                ? days
                : null
            : null;

    private static async Task<Results<Ok<SessionView>, ProblemHttpResult>> Session(
        Guid visitId,
        CaseFiles files,
        PracticeLibrary library
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var visit = file.Visit(visitId);
        var plan = file.PlanFor(visitId);
        IReadOnlyList<SessionItem> items = plan is null
            ? []
            : SessionWork.Items(plan.Plan, file.Events(visitId), file.Profile, file.Policy, library);
        var input = DecisionInputs.Of(file, visitId, library);
        var number = file.NumberOf(visitId);
        var before = file.Visits.Take(number - 1).LastOrDefault();
        return TypedResults.Ok(
            new SessionView(
                EpisodeView.VisitOf(visit, file),
                plan is null ? null : PlanRevisionView.Of(plan),
                [.. file.Trials(visitId).Where(t => t.Purpose == TrialPurpose.Session)],
                [.. file.Performances(visitId).Where(p => p.Visit == number)],
                before is null ? null : EpisodeView.VisitOf(before, file).Pain,
                items,
                SessionWork.Sets(
                    [.. items.Where(item => !item.Skipped).Select(item => item.Item)],
                    file.Policy
                ),
                new StopRules(file.Policy.FaultsInARow, file.Policy.Pain),
                new RestSeconds(
                    file.Policy.Seconds.RestHolds,
                    file.Policy.Seconds.RestOther,
                    file.Policy.Seconds.SideChange
                ),
                file.CurrentPlan is { } current && plan is not null && current.Id != plan.Id
                    ? current.Revision
                    : null,
                AwayDays(file, input)
            )
        );
    }
}
