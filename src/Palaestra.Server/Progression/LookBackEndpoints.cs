using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Progression;

public sealed record PolicyName(string Id, string Name, bool InForce);

/// <summary>What was really chosen at a visit; empty where it was not decided.</summary>
public sealed record ChosenVisit(int Visit, IReadOnlyList<Decision> Chosen);

public sealed record ReplayView(
    IReadOnlyList<PolicyName> Policies,
    IReadOnlyList<ReplayedVisit> Visits,
    IReadOnlyList<ChosenVisit> Chosen
);

/// <summary>One time a practitioner chose something else.</summary>
public sealed record OverrideLine(
    string RuleId,
    Outcome Proposed,
    Outcome Taken,
    string Reason,
    string By,
    Instant At,
    Guid EpisodeId,
    Guid VisitId,
    string RungId,
    Side Side
);

/// <param name="Instead">What was chosen instead, and how often.</param>
public sealed record RuleCount(
    string RuleId,
    int Proposals,
    int Overridden,
    IReadOnlyDictionary<Outcome, int> Instead
);

public sealed record OverridesView(IReadOnlyList<RuleCount> Rules, IReadOnlyList<OverrideLine> Latest);

/// <summary>Looking back: other policies on the same course, decisions that edits have overtaken, and overrides.</summary>
public static class LookBackEndpoints
{
    private const int LatestMost = 50;

    public static void MapLookBack(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Progression");
        group
            .MapGet("/episodes/{id:guid}/replay", Replay)
            .Described("GetReplay", "The decisions of an episode under each policy.", 404);
        group
            .MapGet("/episodes/{id:guid}/changed-decisions", Changed)
            .Described(
                "GetChangedDecisions",
                "Decisions that would now be others, because the record was edited since."
            );
        group
            .MapGet("/overrides", Overrides)
            .Described("GetOverrides", "How often each rule was overridden, and the latest reasons.");
    }

    private static async Task<Results<Ok<ReplayView>, ProblemHttpResult>> Replay(
        Guid id,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        var file = open.File;
        if (file.Visits is not [.., var last])
        {
            return Problem.NotFound("visit");
        }
        var visitIds = file.Visits.Select(v => v.Id).ToList();
        var decided = await db
            .DecidedVisits.AsNoTracking()
            .Where(d => visitIds.Contains(d.VisitId))
            .ToDictionaryAsync(d => d.VisitId, d => Renewal.Of(d.Input, library));
        var records = await db
            .Decisions.AsNoTracking()
            .Where(d => visitIds.Contains(d.VisitId))
            .ToListAsync();
        var inputs = file
            .Visits.Where(v => file.Has(v.Id, Core.Capture.TrialPurpose.Session))
            .Select(v => AsNumbered(decided.GetValueOrDefault(v.Id), v.Id, file, library))
            .OfType<DecideInput>()
            .ToList();
        return TypedResults.Ok(
            new ReplayView(
                [.. library.Policies.Select(p => new PolicyName(p.Id, p.Name, p.Id == file.Policy.Id))],
                Core.Progression.Replay.Of(
                    inputs,
                    pain => file.Performances(last.Id, pain),
                    library.Policies,
                    library
                ),
                [
                    .. inputs.Select(input => new ChosenVisit(
                        input.Visit,
                        [
                            .. DecideEndpoints
                                .InOrder(
                                    records.Where(r => file.NumberOf(r.VisitId) == input.Visit),
                                    file.PlanFor(file.Visits[input.Visit - 1].Id)?.Plan
                                )
                                .Select(r => r.Chosen),
                        ]
                    )),
                ]
            )
        );
    }

    /// <summary>What was looked at then, with the numbers of now: a visit from paper, typed in since, moves them.</summary>
    private static DecideInput? AsNumbered(
        DecideInput? then,
        Guid visitId,
        CaseFile file,
        PracticeLibrary library
    ) =>
        then is null ? DecisionInputs.Of(file, visitId, library)
        : then.Visit == file.NumberOf(visitId) ? then
        : DecisionInputs.Again(then, file, visitId, library);

    private static async Task<Ok<IReadOnlyList<ChangedDecision>>> Changed(
        Guid id,
        OpenCase open,
        DecisionStore decisionStore
    ) => TypedResults.Ok(await decisionStore.Changed(open.File));

    private static async Task<Ok<OverridesView>> Overrides(PalaestraDb db)
    {
        var counts = await db
            .Decisions.GroupBy(d => new
            {
                d.RuleId,
                d.Overridden,
                d.Taken,
            })
            .Select(g => new
            {
                g.Key.RuleId,
                g.Key.Overridden,
                g.Key.Taken,
                Count = g.Count(),
            })
            .ToListAsync();
        var latest = await (
            from record in db.Decisions.AsNoTracking()
            where record.Overridden
            join visit in db.Visits on record.VisitId equals visit.Id
            orderby record.DecidedAt descending
            select new { Record = record, visit.EpisodeId }
        )
            .Take(LatestMost)
            .ToListAsync();
        return TypedResults.Ok(
            new OverridesView(
                [
                    .. counts
                        .GroupBy(c => c.RuleId)
                        .Select(rule => new RuleCount(
                            rule.Key,
                            rule.Sum(c => c.Count),
                            rule.Where(c => c.Overridden).Sum(c => c.Count),
                            rule.Where(c => c.Overridden).ToDictionary(c => c.Taken, c => c.Count)
                        ))
                        .OrderByDescending(rule => (double)rule.Overridden / rule.Proposals)
                        .ThenBy(rule => rule.RuleId, StringComparer.Ordinal),
                ],
                [
                    .. latest.Select(line => new OverrideLine(
                        line.Record.RuleId,
                        line.Record.Proposed,
                        line.Record.Taken,
                        line.Record.Reason ?? "",
                        line.Record.DecidedBy,
                        line.Record.DecidedAt,
                        line.EpisodeId,
                        line.Record.VisitId,
                        line.Record.Proposal.RungId,
                        line.Record.Proposal.Side
                    )),
                ]
            )
        );
    }
}
