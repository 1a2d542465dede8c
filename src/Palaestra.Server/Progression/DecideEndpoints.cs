using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Progression;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Planning;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Progression;

/// <summary>The practitioner's word on one proposal: none of <paramref name="Outcome"/> means agreed.</summary>
/// <param name="Reason">Required when the outcome differs from the proposal.</param>
public sealed record Choice(Guid PlanItemId, Side Side, Outcome? Outcome = null, string? Reason = null);

public sealed record DecideForm(IReadOnlyList<Choice> Choices, int BasedOn);

/// <summary>The numbers one decision was made from.</summary>
public sealed record SideNumbers(Guid PlanItemId, Side Side, IReadOnlyList<DecisionNumber> Numbers);

/// <param name="Taken">Decisions already recorded for this visit; empty until then.</param>
/// <param name="Next">The plan that was made by what was taken; before that, the one agreeing with everything would make.</param>
/// <param name="Home">The home log since the visit before, exercise by exercise; empty where nothing was brought.</param>
/// <param name="Changed">Decisions of this visit that would now be others, because the record was edited since.</param>
public sealed record DecideView(
    PlanRevisionView? Plan,
    IReadOnlyList<Decision> Proposals,
    IReadOnlyList<Decision> Taken,
    IReadOnlyList<Performance> Performances,
    IReadOnlyList<SideNumbers> Numbers,
    IReadOnlyList<HomeWork> Home,
    IReadOnlyList<ChangedDecision> Changed,
    string PolicyName,
    Plan? Next,
    Message? WhyNot
)
{
    public static DecideView Nothing(string policyName, Message? whyNot) =>
        new(null, [], [], [], [], [], [], policyName, null, whyNot);
}

/// <summary>What some choices would come to; nothing is stored.</summary>
/// <param name="Decisions">One per exercise and side, in the order of the proposals.</param>
public sealed record TakenPreview(IReadOnlyList<Decision> Decisions, Plan Next);

/// <summary>One number, had it been another.</summary>
public sealed record WhatIfForm(Guid PlanItemId, Side Side, NumberKind Kind, int Value);

public sealed record WhatIfAnswer(Decision Decision);

public static class DecideEndpoints
{
    private static Message Meanwhile => Message.Of("decide.meanwhile");

    public static void MapDecide(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}/decisions").WithTags("Progression");
        group
            .MapGet("", Get)
            .Described(
                "GetDecisions",
                "What is proposed for each exercise and side, why, and what was taken."
            );
        group
            .MapPost("", Take)
            .Described("TakeDecisions", "Takes the decisions of a visit and makes the next plan.", 409);
        group
            .MapPost("/preview", Preview)
            .Described("PreviewDecisions", "What some choices would come to. Nothing is stored.", 409);
        group
            .MapPost("/what-if", WhatIf)
            .Described("AskWhatIf", "The decision, had one number been another. Nothing is stored.", 409);
    }

    private static async Task<Results<Ok<DecideView>, ProblemHttpResult>> Get(
        Guid visitId,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        DecisionStore decisionStore
    )
    {
        var file = open.File;
        var taken = InOrder(
            await db.Decisions.AsNoTracking().Where(d => d.VisitId == visitId).ToListAsync(),
            file.PlanFor(visitId)?.Plan
        );
        if (DecisionInputs.Of(file, visitId, library) is not { } input)
        {
            return TypedResults.Ok(
                DecideView.Nothing(file.Policy.Name, DecisionInputs.WhyNot(file, visitId))
            );
        }
        if (taken.Count == 0 && DecisionStore.Overtaken(file, visitId) is { } overtaken)
        {
            return TypedResults.Ok(DecideView.Nothing(file.Policy.Name, overtaken));
        }
        var plan = file.PlanFor(visitId)!;
        IReadOnlyList<Decision> proposals =
            taken.Count > 0 ? [.. taken.Select(d => d.Proposal)] : DecisionEngine.Decide(input, library);
        return TypedResults.Ok(
            new DecideView(
                PlanRevisionView.Of(plan),
                proposals,
                [.. taken.Select(d => d.Chosen)],
                [.. input.Visits.Where(p => p.Visit == input.Visit)],
                [
                    .. proposals.Select(d => new SideNumbers(
                        d.PlanItemId,
                        d.Side,
                        DecisionNumbers.Of(input, d.PlanItemId, d.Side, library)
                    )),
                ],
                input.Home ?? [],
                taken.Count > 0
                    ? [.. (await decisionStore.Changed(file)).Where(c => c.VisitId == visitId)]
                    : [],
                file.Policy.Name,
                decisionStore.Next(
                    file,
                    visitId,
                    taken.Count > 0 ? [.. taken.Select(d => d.Chosen)] : proposals
                ),
                null
            )
        );
    }

    /// <summary>In the order of the plan they were taken on: ids made in one moment have none.</summary>
    public static IReadOnlyList<DecisionRecord> InOrder(IEnumerable<DecisionRecord> records, Plan? plan)
    {
        var order = (plan?.Items ?? [])
            .SelectMany(item => item.Doses.Select(dose => (item.Id, dose.Side)))
            .ToList();
        return [.. records.OrderBy(r => order.IndexOf((r.Proposal.PlanItemId, r.Proposal.Side)))];
    }

    private static async Task<Results<Created<DecideView>, ProblemHttpResult>> Take(
        Guid visitId,
        DecideForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        DecisionStore decisionStore,
        WhoIsHere who
    )
    {
        var file = open.File;
        if (Problem.Held(file) is { } held)
        {
            return held;
        }
        if (DecisionInputs.Of(file, visitId, library) is not { } input)
        {
            return Problem.Conflict(DecisionInputs.WhyNot(file, visitId)!);
        }
        if (DecisionStore.Overtaken(file, visitId) is { } overtaken)
        {
            return Problem.Conflict(overtaken);
        }
        if (form.BasedOn != file.CurrentPlan!.Revision)
        {
            return Problem.Conflict(Meanwhile);
        }
        var proposals = DecisionEngine.Decide(input, library);
        var errors = ChoiceErrors(form, proposals).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var (row, chosen) = decisionStore.Take(file, visitId, input, proposals, form.Choices, who.Name);
        if (!await db.SavedFirst())
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
                [],
                [],
                [],
                file.Policy.Name,
                row.Plan,
                null
            )
        );
    }

    private static Results<Ok<TakenPreview>, ProblemHttpResult> Preview(
        Guid visitId,
        DecideForm form,
        OpenCase open,
        PracticeLibrary library,
        DecisionStore decisionStore,
        WhoIsHere who
    )
    {
        var file = open.File;
        var (input, problem) = Asked(visitId, file, library);
        if (input is null)
        {
            return problem!;
        }
        var chosen = decisionStore.Chosen(input, DecisionEngine.Bare(input, library), form.Choices, who.Name);
        return TypedResults.Ok(new TakenPreview(chosen, decisionStore.Next(file, visitId, chosen)));
    }

    private static Results<Ok<WhatIfAnswer>, ProblemHttpResult> WhatIf(
        Guid visitId,
        WhatIfForm form,
        OpenCase open,
        PracticeLibrary library
    )
    {
        var (input, problem) = Asked(visitId, open.File, library);
        if (input is null)
        {
            return problem!;
        }
        if (
            !input.Items.Any(item =>
                item.Id == form.PlanItemId && item.Doses.Any(dose => dose.Side == form.Side)
            )
        )
        {
            return Problem.Field("planItemId", Message.Of("decide.no-side"));
        }
        var number = DecisionNumbers
            .Of(input, form.PlanItemId, form.Side, library)
            .FirstOrDefault(n => n.Kind == form.Kind);
        if (number is null)
        {
            return Problem.Field("kind", Message.Of("decide.number-unknown"));
        }
        if (form.Value < number.Min || form.Value > number.Max)
        {
            return Problem.Field(
                "value",
                Message.Of(
                    "decide.number-range",
                    ("number", number.Name),
                    ("least", number.Min),
                    ("most", number.Max)
                )
            );
        }
        var other = DecisionNumbers.With(input, form.PlanItemId, form.Side, form.Kind, form.Value, library);
        return TypedResults.Ok(
            new WhatIfAnswer(
                DecisionEngine
                    .Bare(other, library)
                    .First(d => d.PlanItemId == form.PlanItemId && d.Side == form.Side)
            )
        );
    }

    /// <summary>What the decisions of a visit are made from; else the problem.</summary>
    private static (DecideInput? Input, ProblemHttpResult? Problem) Asked(
        Guid visitId,
        CaseFile file,
        PracticeLibrary library
    ) =>
        DecisionInputs.Of(file, visitId, library) is { } input
            ? (input, null)
            : (null, Problem.Conflict(DecisionInputs.WhyNot(file, visitId)!));

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
                yield return new($"choices[{i}]", Message.Of("decide.no-side"));
            }
            else if (
                choice.Outcome is { } outcome
                && outcome != proposal.Outcome
                && string.IsNullOrWhiteSpace(choice.Reason)
            )
            {
                yield return new($"choices[{i}].reason", Message.Of("decide.reason"));
            }
            if (choice.Reason?.Length > 1000)
            {
                yield return new($"choices[{i}].reason", Message.Of("decide.reason-long"));
            }
        }
    }
}
