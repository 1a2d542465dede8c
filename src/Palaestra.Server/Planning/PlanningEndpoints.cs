using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Planning;

/// <summary>A plan as the practitioner has it on screen.</summary>
public sealed record PlanForm(
    IReadOnlyList<PlanItem> Items,
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation
);

/// <summary>A plan with its arithmetic.</summary>
public sealed record WeighedPlan(Plan Plan, PlanWork Work);

/// <summary>A proposal for other minutes, with some exercises kept and some rungs left out. Nothing is stored.</summary>
public sealed record PlanAsk(
    double MinutesPerDay,
    IReadOnlyList<PlanItem> Locked,
    IReadOnlyList<string> LeftOut
);

/// <param name="BasedOn">The revision this one follows; 0 for the first.</param>
/// <param name="Confirmed">Exercises given in spite of a bar, each confirmed a second time.</param>
public sealed record AcceptPlanForm(
    PlanForm Plan,
    Guid VisitId,
    int BasedOn,
    IReadOnlyList<Guid>? Confirmed = null
);

public sealed record PlanRevisionView(
    int Revision,
    Guid VisitId,
    Instant AcceptedAt,
    string AcceptedBy,
    Plan Plan
)
{
    public static PlanRevisionView Of(PlanRevision row) =>
        new(row.Revision, row.VisitId, row.AcceptedAt, row.AcceptedBy, row.Plan);
}

/// <param name="Revisions">Oldest first; the last one is in force.</param>
/// <param name="Proposal">None until something has been screened.</param>
/// <param name="Entries">Where each side enters each ladder, by the last screen.</param>
/// <param name="Map">Where the twelve-week map stands; it proposes, clean work grants.</param>
public sealed record PlanView(
    IReadOnlyList<PlanRevisionView> Revisions,
    PlanProposal? Proposal,
    IReadOnlyList<ForbiddenRung> Forbidden,
    WeekOfMap? Map,
    IReadOnlyList<RungSearch> Entries
);

/// <summary>Two revisions side by side.</summary>
public sealed record ComparedPlans(
    PlanRevisionView Before,
    PlanRevisionView After,
    PlanComparison Comparison,
    PlanWork Work
);

public static class PlanningEndpoints
{
    public static void MapPlanning(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}").WithTags("Planning");
        group
            .MapGet("/plan", Get)
            .Described("GetPlan", "The plans of an episode, oldest first, and the proposal.");
        group
            .MapPost("/plan/weigh", Weigh)
            .Described("WeighPlan", "The arithmetic and warnings of a plan. Nothing is stored.");
        group
            .MapPost("/plan/propose", Propose)
            .Described(
                "ProposePlan",
                "Another proposal: other minutes, exercises kept, rungs left out. Nothing is stored.",
                409
            );
        group
            .MapGet("/plan/swaps/{rungId}", SwapsFor)
            .Described("GetSwaps", "What may stand in the place of a rung.", 404);
        group.MapGet("/plan/compare", Compare).Described("ComparePlans", "Two plans side by side.");
        group
            .MapPost("/plans", Accept)
            .Described("AcceptPlan", "Puts a plan in force, on the one that was shown.", 409);
    }

    private static async Task<Results<Ok<PlanView>, ProblemHttpResult>> Get(
        Guid id,
        OpenCase open,
        PracticeLibrary library,
        PlanProposals proposing,
        ClinicClock clock
    )
    {
        var file = open.File;
        var today = clock.Today;
        var entries = file.Findings()?.Entries ?? [];
        return TypedResults.Ok(
            new PlanView(
                [.. file.Plans.Select(PlanRevisionView.Of)],
                file.Closed || file.Held is not null ? null : proposing.Propose(file),
                Planner.Forbidden(file.Profile, library),
                TwelveWeeks.On(file.Episode.OpenedOn, today, entries, library),
                entries
            )
        );
    }

    private static async Task<Results<Ok<WeighedPlan>, ProblemHttpResult>> Weigh(
        Guid id,
        PlanForm form,
        OpenCase open,
        PlanProposals proposing
    )
    {
        var file = open.File;
        var plan = proposing.Weigh(file, form);
        return plan.IsValid ? TypedResults.Ok(plan.Value!) : Problem.Fields(plan.Errors);
    }

    private static async Task<Results<Ok<PlanProposal>, ProblemHttpResult>> Propose(
        Guid id,
        PlanAsk ask,
        OpenCase open,
        PlanProposals proposing
    )
    {
        var file = open.File;
        if (Problem.Held(file) is { } held)
        {
            return held;
        }
        if (proposing.ErrorsOf(ask) is { Count: > 0 } errors)
        {
            return Problem.Fields(errors);
        }
        return proposing.Propose(file, ask) is { } proposal
            ? TypedResults.Ok(proposal)
            : Problem.Field("minutesPerDay", Message.Of("plan.unscreened"));
    }

    private static async Task<Results<Ok<SwapList>, ProblemHttpResult>> SwapsFor(
        Guid id,
        string rungId,
        OpenCase open,
        PracticeLibrary library
    )
    {
        var file = open.File;
        return library.FindRung(rungId) is { } rung
            ? TypedResults.Ok(
                Swaps.For(rung, file.Profile, file.Findings()?.Entries ?? [], file.Episode.Equipment, library)
            )
            : Problem.NotFound("rung");
    }

    private static async Task<Results<Ok<ComparedPlans>, ProblemHttpResult>> Compare(
        Guid id,
        int before,
        int after,
        OpenCase open,
        PracticeLibrary library,
        PlanProposals proposing
    )
    {
        var file = open.File;
        var from = file.Plans.FirstOrDefault(plan => plan.Revision == before);
        var to = file.Plans.FirstOrDefault(plan => plan.Revision == after);
        if (from is null || to is null)
        {
            return Problem.Field(
                from is null ? "before" : "after",
                Message.Of("plan.no-revision", ("revision", from is null ? before : after))
            );
        }
        return TypedResults.Ok(
            new ComparedPlans(
                PlanRevisionView.Of(from),
                PlanRevisionView.Of(to),
                PlanComparison.Of(from.Plan, to.Plan, library),
                proposing.WorkOf(file, to.Plan, from.Plan)
            )
        );
    }

    private static async Task<Results<Created<PlanRevisionView>, ProblemHttpResult>> Accept(
        Guid id,
        AcceptPlanForm form,
        OpenCase open,
        PalaestraDb db,
        PlanProposals proposing,
        WhoIsHere who
    )
    {
        var file = open.File;
        if (Problem.Held(file) is { } held)
        {
            return held;
        }
        if (file.Visits.All(v => v.Id != form.VisitId))
        {
            return Problem.Field("visitId", Message.Of("plan.other-client"));
        }
        if (form.BasedOn != (file.CurrentPlan?.Revision ?? 0))
        {
            return StaleRevision(file);
        }
        var plan = proposing.Weigh(file, form.Plan);
        if (!plan.IsValid)
        {
            return Problem.Fields(plan.Errors.Select(e => e with { Field = $"plan.{e.Field}" }));
        }
        if (!who.Is(Role.Practitioner) && Overrides(form.Plan, file.CurrentPlan?.Plan))
        {
            return Problem.Of(StatusCodes.Status403Forbidden, Message.Of("people.no-override"));
        }
        var refused = Refused(form, plan.Value!.Plan).ToList();
        if (refused.Count > 0)
        {
            return Problem.Fields(refused);
        }
        var row = proposing.Add(file, form.VisitId, plan.Value.Plan, who.Name);
        if (!await db.SavedFirst())
        {
            return StaleRevision(file);
        }
        return TypedResults.Created($"/api/episodes/{id}/plan", PlanRevisionView.Of(row));
    }

    /// <summary>Whether a contraindication is set aside that the plan in force does not set aside.</summary>
    private static bool Overrides(PlanForm form, Plan? before) =>
        form.Items.Any(item =>
            item.BarOverride is not null
            && before?.Items.Any(i => i.RungId == item.RungId && i.BarOverride == item.BarOverride) != true
        );

    /// <summary>Bars without a reason, and reasons that were not confirmed a second time.</summary>
    private static IEnumerable<FieldError> Refused(AcceptPlanForm form, Plan plan)
    {
        foreach (var warning in plan.Warnings.Where(w => w.RuleId == "P-BARRED"))
        {
            if (warning.Blocks)
            {
                yield return new(FieldOf(form.Plan, warning), warning.Words);
            }
            else if (form.Confirmed?.Contains(warning.ItemId!.Value) != true)
            {
                yield return new("confirmed", Message.Of("plan.confirm", ("warning", warning.Words)));
            }
        }
    }

    private static string FieldOf(PlanForm form, PlanWarning warning) =>
        $"plan.items[{form.Items.ToList().FindIndex(item => item.Id == warning.ItemId)}].rungId";

    private static ProblemHttpResult StaleRevision(CaseFile file) =>
        Problem.Conflict(
            Message.Of("plan.meanwhile"),
            file.CurrentPlan is null ? null : PlanRevisionView.Of(file.CurrentPlan)
        );
}
