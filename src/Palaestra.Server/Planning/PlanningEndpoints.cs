using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Planning;

/// <summary>A plan as the practitioner has it on screen.</summary>
public sealed record PlanForm(IReadOnlyList<PlanItem> Items, SpinalStrategy Strategy, SwitchOn SwitchOn);

/// <param name="BasedOn">The revision this one follows; 0 for the first.</param>
public sealed record AcceptPlanForm(PlanForm Plan, Guid VisitId, int BasedOn);

public sealed record PlanRevisionView(
    int Revision,
    Guid VisitId,
    DateTime AcceptedAt,
    string AcceptedBy,
    Plan Plan
)
{
    public static PlanRevisionView Of(PlanRevision row) =>
        new(row.Revision, row.VisitId, row.AcceptedAt, row.AcceptedBy, row.Plan);
}

/// <param name="Revisions">Oldest first; the last one is in force.</param>
/// <param name="Proposal">None until something has been screened.</param>
public sealed record PlanView(
    IReadOnlyList<PlanRevisionView> Revisions,
    PlanProposal? Proposal,
    IReadOnlyList<ForbiddenRung> Forbidden
);

public static class PlanningEndpoints
{
    public static void MapPlanning(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}").WithTags("Planning");
        group.MapGet("/plan", Get).WithName("GetPlan");
        group.MapPost("/plan/weigh", Weigh).WithName("WeighPlan");
        group.MapPost("/plans", Accept).WithName("AcceptPlan");
    }

    private static async Task<Results<Ok<PlanView>, ProblemHttpResult>> Get(
        Guid id,
        PalaestraDb db,
        PracticeLibrary library,
        PlanDesk desk
    )
    {
        if (await CaseFile.OfEpisode(id, db, library) is not { } file)
        {
            return Problem.NotFound("episode");
        }
        return TypedResults.Ok(
            new PlanView(
                [.. file.Plans.Select(PlanRevisionView.Of)],
                file.Closed ? null : desk.Propose(file),
                Planner.Forbidden(file.Profile, library)
            )
        );
    }

    private static async Task<Results<Ok<Plan>, ProblemHttpResult>> Weigh(
        Guid id,
        PlanForm form,
        PalaestraDb db,
        PracticeLibrary library,
        PlanDesk desk
    )
    {
        if (await CaseFile.OfEpisode(id, db, library) is not { } file)
        {
            return Problem.NotFound("episode");
        }
        var plan = desk.Weigh(file, form);
        return plan.IsValid ? TypedResults.Ok(plan.Value!) : Problem.Fields(plan.Errors);
    }

    private static async Task<Results<Created<PlanRevisionView>, ProblemHttpResult>> Accept(
        Guid id,
        AcceptPlanForm form,
        PalaestraDb db,
        PracticeLibrary library,
        PlanDesk desk,
        WhoIsHere who
    )
    {
        if (await CaseFile.OfEpisode(id, db, library) is not { } file)
        {
            return Problem.NotFound("episode");
        }
        if (file.Closed)
        {
            return Problem.Closed();
        }
        if (file.Visits.All(v => v.Id != form.VisitId))
        {
            return Problem.Field("visitId", "This visit belongs to another client.");
        }
        if (form.BasedOn != (file.CurrentPlan?.Revision ?? 0))
        {
            return StaleRevision(file);
        }
        var plan = desk.Weigh(file, form.Plan);
        if (!plan.IsValid)
        {
            return Problem.Fields(plan.Errors.Select(e => e with { Field = $"plan.{e.Field}" }));
        }
        var blocking = plan.Value!.Warnings.Where(w => w.Blocks).ToList();
        if (blocking.Count > 0)
        {
            return Problem.Fields(blocking.Select(w => new Core.FieldError(FieldOf(form.Plan, w), w.Words)));
        }
        var row = desk.Add(file, form.VisitId, plan.Value, who.Name);
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            return StaleRevision(file);
        }
        return TypedResults.Created($"/api/episodes/{id}/plan", PlanRevisionView.Of(row));
    }

    private static string FieldOf(PlanForm form, PlanWarning warning) =>
        $"plan.items[{form.Items.ToList().FindIndex(item => item.Id == warning.ItemId)}].rungId";

    private static ProblemHttpResult StaleRevision(CaseFile file) =>
        Problem.Conflict(
            "A newer plan was accepted meanwhile. Nothing was stored; look at both and accept again.",
            file.CurrentPlan is null ? null : PlanRevisionView.Of(file.CurrentPlan)
        );
}
