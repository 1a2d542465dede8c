using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Visits;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Planning;
using Palaestra.Server.Problems;
using Palaestra.Server.Progression;

namespace Palaestra.Server.Visits;

/// <param name="Reason">Why it is written anew, 1 to 500 characters: needed where the visit was decided or its day is over.</param>
public sealed record CheckInForm(CheckIn CheckIn, int Version, string? Reason = null);

/// <param name="Value">0 to 10. <paramref name="Reason"/>: why, after what review.</param>
public sealed record ReferenceForm(int Value, string? Reason, int Version);

/// <summary>When a running set ought to be stopped, for tablets that cannot reach the server.</summary>
/// <param name="FaultsInARow">Reps with a breaking fault.</param>
public sealed record StopRules(int FaultsInARow, PainRule Pain);

/// <summary>Seconds of rest between sets: of held rungs, of others, and for a change of side.</summary>
public sealed record RestSeconds(double Holds, double Other, double Side);

/// <summary>A session: the plan in force when the visit began, and what has been done of it.</summary>
/// <param name="Plan">None on a visit before the first plan.</param>
/// <param name="Items">The plan's exercises with what was skipped, swapped and added today.</param>
/// <param name="Sets">All sets in the order they are done, skipped exercises left out.</param>
/// <param name="PainNow">When the visit began; none if not asked.</param>
/// <param name="Advice">What is known before the first set: pain against its reference, time away; none before the check-in.</param>
/// <param name="Resting">Exercises of the plan that rest today.</param>
/// <param name="Ready">D-READY: what may be tried one up today, once its exercise is done; none where the visit is decided.</param>
/// <param name="ClockOff">Trials with taps that came more than a day off their own time.</param>
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
    int? DaysAway,
    int? PainNow,
    SessionAdvice? Advice,
    IReadOnlyList<PlanItem> Resting,
    IReadOnlyList<SessionProbe> Ready,
    IReadOnlyList<Guid> ClockOff
);

public static class VisitEndpoints
{
    public static void MapVisits(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Visits");
        group
            .MapPut("/visits/{visitId:guid}/check-in", CheckIn)
            .Described(
                "CheckIn",
                "Writes what the client says before a session, on the version that was read.",
                409
            );
        group
            .MapPut("/visits/{visitId:guid}/reference", SetReference)
            .Described(
                "SetReferencePain",
                "Sets the pain that later visits are compared with, with a reason.",
                409
            );
        group
            .MapGet("/visits/{visitId:guid}/session", Session)
            .Described("GetSession", "The session of a visit: what to do, what was done, when to stop.");
    }

    private static async Task<Results<Ok<VisitView>, ProblemHttpResult>> CheckIn(
        Guid visitId,
        CheckInForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        IntakeStore intakes,
        ClinicClock clock,
        WhoIsHere who,
        Amending amending
    )
    {
        var file = open.File;
        var errors = CheckInCheck.Errors(form.CheckIn, library, "checkIn").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var visit = file.Visit(visitId);
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(Message.Of("visit.answered"), EpisodeView.VisitOf(visit, file));
        }
        if (amending.Of(form.Reason, file, visit, visit.CheckIn, form.CheckIn) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        visit.CheckIn = form.CheckIn;
        visit.Version++;
        if (form.CheckIn.FlagsAsked == true || form.CheckIn.DangerSigns.Count > 0)
        {
            visit.Flags = new(who.Name, clock.Now.ToDateTimeUtc(), form.CheckIn.DangerSigns);
        }
        intakes.Report(file.Episode, form.CheckIn.DangerSigns, who.Name);
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("visit.answered-again"));
        }
        return TypedResults.Ok(EpisodeView.VisitOf(visit, file));
    }

    /// <summary>Sets the reference pain after a review, with a reason; not while pain spreads down a leg.</summary>
    private static async Task<Results<Ok<VisitView>, ProblemHttpResult>> SetReference(
        Guid visitId,
        ReferenceForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        WhoIsHere who,
        Amending amending
    )
    {
        var file = open.File;
        var visit = file.Visit(visitId);
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(Message.Of("conflict.changed-both"), EpisodeView.VisitOf(visit, file));
        }
        if (DecisionInputs.Of(file, visitId, library) is not { } input)
        {
            return Problem.Field("value", Message.Of("decide.unanswered"));
        }
        if (new DayFacts(input, library).Refer.Count > 0 || LegSpreads(input))
        {
            return Problem.Field("value", Message.Of("visit.leg-spreads"));
        }
        var set = new ReferenceSet(form.Value, input.Date, form.Reason?.Trim() ?? "", who.Name);
        if (ReferencePain.SetError(input.Pain!, set, input, library) is { } wrong)
        {
            return Problem.Field(string.IsNullOrWhiteSpace(form.Reason) ? "reason" : "value", wrong);
        }
        if (amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        visit.ReferenceSet = set;
        visit.Version++;
        await db.SaveChangesAsync();
        return TypedResults.Ok(EpisodeView.VisitOf(visit, file));
    }

    /// <summary>Further down a leg than at the visit before.</summary>
    private static bool LegSpreads(DecideInput input) =>
        input.CheckIn.Leg is { } now
        && input.Pain?.CheckIns.Where(c => c.Leg is not null).MaxBy(c => c.Visit)?.Leg is { } before
        && (now.Left > before.Left || now.Right > before.Right);

    /// <summary>Days without training, where the policy minds them; none otherwise.</summary>
    private static int? AwayDays(CaseFile file, DecideInput? input) =>
        input?.LastWorkDate is { } last && input.Date.DayNumber - last.DayNumber is var days
            ? days >= file.Policy.AwayDays
                ? days
                : null
            : null;

    private static Task<Results<Ok<SessionView>, ProblemHttpResult>> Session(
        Guid visitId,
        OpenCase open,
        PracticeLibrary library
    ) =>
        Task.FromResult<Results<Ok<SessionView>, ProblemHttpResult>>(
            TypedResults.Ok(ViewOf(open.File, visitId, library))
        );

    internal static SessionView ViewOf(CaseFile file, Guid visitId, PracticeLibrary library)
    {
        var visit = file.Visit(visitId);
        var plan = file.PlanFor(visitId);
        IReadOnlyList<SessionItem> items = plan is null
            ? []
            : SessionWork.Items(
                plan.Plan.ToDoOn(file.DayOf(visit)),
                file.Events(visitId),
                file.Profile,
                file.Policy,
                library
            );
        var input = DecisionInputs.Of(file, visitId, library);
        var number = file.NumberOf(visitId);
        var before = file.Visits.Take(number - 1).LastOrDefault();
        return new SessionView(
            EpisodeView.VisitOf(visit, file),
            plan is null ? null : PlanRevisionView.Of(plan),
            [.. file.Trials(visitId).Where(t => t.Purpose == TrialPurpose.Session)],
            [.. file.Performances(visitId).Where(p => p.Visit == number)],
            before is null ? null : EpisodeView.VisitOf(before, file).Pain,
            items,
            SessionWork.Sets(
                [.. items.Where(item => !item.Skipped).Select(item => item.Item)],
                file.Policy,
                library
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
            AwayDays(file, input),
            file.PainAt(visit),
            input is null ? null : SessionAdvice.Of(input, library),
            [.. (plan?.Plan.Items ?? []).Where(item => item.Resting)],
            input is null || visit.DecidedAt is not null ? [] : SessionProbe.Of(input, library),
            file.ClockOff(visitId)
        );
    }
}
