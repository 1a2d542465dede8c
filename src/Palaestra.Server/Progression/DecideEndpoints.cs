using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Progression;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Problems;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Progression;

/// <summary>The practitioner's word on one proposal: none of <paramref name="Outcome"/> means agreed.</summary>
/// <param name="Reason">Required when the outcome differs from the proposal.</param>
public sealed record Choice(Guid PlanItemId, Side Side, Outcome? Outcome = null, string? Reason = null);

public sealed record DecideForm(IReadOnlyList<Choice> Choices, int BasedOn);

/// <param name="Taken">Decisions already recorded for this visit; empty until then.</param>
/// <param name="NextMinutes">Minutes a day of the plan that agreeing with everything would make.</param>
public sealed record DecideView(
    PlanRevisionView? Plan,
    IReadOnlyList<Decision> Proposals,
    IReadOnlyList<Decision> Taken,
    IReadOnlyList<Performance> Performances,
    string PolicyName,
    double? NextMinutes,
    string? WhyNot
);

public static class DecideEndpoints
{
    private const string Meanwhile =
        "This visit was decided meanwhile, or a newer plan was accepted. Nothing was stored.";

    public static void MapDecide(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}/decisions").WithTags("Progression");
        group.MapGet("", Get).WithName("GetDecisions");
        group.MapPost("", Take).WithName("TakeDecisions");
    }

    private static async Task<Results<Ok<DecideView>, ProblemHttpResult>> Get(
        Guid visitId,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var taken = await db
            .Decisions.AsNoTracking()
            .Where(d => d.VisitId == visitId)
            .OrderBy(d => d.Id)
            .ToListAsync();
        if (DecisionDesk.InputOf(file, visitId) is not { } input)
        {
            return TypedResults.Ok(
                new DecideView(null, [], [], [], file.Policy.Name, null, DecisionDesk.WhyNot(file, visitId))
            );
        }
        var plan = file.PlanFor(visitId)!;
        var proposals = DecisionEngine.Decide(input, library);
        var next = NextPlan.Apply(plan.Plan, proposals, library, file.Policy, file.Profile, file.Body);
        return TypedResults.Ok(
            new DecideView(
                PlanRevisionView.Of(plan),
                proposals,
                [.. taken.Select(d => d.Chosen)],
                [.. input.Visits.Where(p => p.Visit == input.Visit)],
                file.Policy.Name,
                next.TotalMinutes,
                null
            )
        );
    }

    private static async Task<Results<Created<DecideView>, ProblemHttpResult>> Take(
        Guid visitId,
        DecideForm form,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        DecisionDesk desk,
        WhoIsHere who
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        if (file.Closed)
        {
            return Problem.Closed();
        }
        if (DecisionDesk.InputOf(file, visitId) is not { } input)
        {
            return Problem.Conflict(DecisionDesk.WhyNot(file, visitId)!);
        }
        if (form.BasedOn != file.CurrentPlan!.Revision || file.Visit(visitId).DecidedAt is not null)
        {
            return Problem.Conflict(Meanwhile);
        }
        var proposals = DecisionEngine.Decide(input, library);
        var errors = ChoiceErrors(form, proposals).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var (row, chosen) = desk.Take(file, visitId, input, proposals, form.Choices, who.Name);
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            return Problem.Conflict(Meanwhile);
        }
        return TypedResults.Created(
            $"/api/visits/{visitId}/decisions",
            new DecideView(
                PlanRevisionView.Of(row),
                proposals,
                chosen,
                [],
                file.Policy.Name,
                row.Plan.TotalMinutes,
                null
            )
        );
    }

    private static IEnumerable<FieldError> ChoiceErrors(DecideForm form, IReadOnlyList<Decision> proposals)
    {
        for (var i = 0; i < form.Choices.Count; i++)
        {
            var choice = form.Choices[i];
            var proposal = proposals.FirstOrDefault(p =>
                p.PlanItemId == choice.PlanItemId && p.Side == choice.Side
            );
            if (proposal is null)
            {
                yield return new($"choices[{i}]", "There is no such exercise and side in the plan.");
            }
            else if (
                choice.Outcome is { } outcome
                && outcome != proposal.Outcome
                && string.IsNullOrWhiteSpace(choice.Reason)
            )
            {
                yield return new($"choices[{i}].reason", "Write why this differs from the proposal.");
            }
            if (choice.Reason?.Length > 1000)
            {
                yield return new($"choices[{i}].reason", "The reason has at most 1000 letters.");
            }
        }
    }
}
