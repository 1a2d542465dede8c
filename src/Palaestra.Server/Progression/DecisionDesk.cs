using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Data.Progression;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;

namespace Palaestra.Server.Progression;

/// <summary>Gathers what the D-rules look at, and writes what was chosen with the plan that follows.</summary>
public sealed class DecisionDesk(PalaestraDb db, PracticeLibrary library, PlanDesk plans, TimeProvider time)
{
    /// <summary>None when there is nothing to decide yet: no plan before this visit, or the visit not begun.</summary>
    public static DecideInput? InputOf(CaseFile file, Guid visitId)
    {
        var visit = file.Visit(visitId);
        if (file.PlanFor(visitId) is not { } plan || visit.CheckIn is null || plan.Plan.Items.Count == 0)
        {
            return null;
        }
        var number = file.NumberOf(visitId);
        var performances = file.Performances(visitId);
        var lastHere = performances.Where(p => p.Visit < number).Select(p => (DateOnly?)p.Date).Max();
        var open = file.Episode.DangerReports.Where(r => r.Open).Select(r => r.SignId).ToList();
        return new DecideInput(
            number,
            DateOnly.FromDateTime(visit.PlannedAt),
            file.Profile with
            {
                Pain = file.Profile.Pain with
                {
                    Now = visit.CheckIn.PainNow,
                    Usual = visit.CheckIn.UsualPain,
                },
            },
            file.Policy.Id,
            plan.Plan.Items,
            visit.CheckIn with
            {
                DangerSigns = open,
            },
            performances,
            visit.CheckIn.LastTrained ?? lastHere
        );
    }

    /// <summary>What is missing before this visit can be decided; none when nothing is.</summary>
    public static string? WhyNot(CaseFile file, Guid visitId) =>
        file.PlanFor(visitId) is not { } plan ? "There is no plan from an earlier visit to decide on."
        : plan.Plan.Items.Count == 0 ? "The plan is empty: make a new one at Plan."
        : file.Visit(visitId).CheckIn is null ? "Answer the questions at the start of the session first."
        : null;

    /// <summary>
    /// Records every decision, agreed where nothing else was chosen, and adds the next plan revision. The caller saves.
    /// </summary>
    public (PlanRevision Next, IReadOnlyList<Decision> Chosen) Take(
        CaseFile file,
        Guid visitId,
        DecideInput input,
        IReadOnlyList<Decision> proposals,
        IReadOnlyList<Choice> choices,
        string by
    )
    {
        var records = proposals.Select(p => Record(p, choices, file, visitId, input, by)).ToList();
        db.Decisions.AddRange(records);
        var chosen = records.Select(r => r.Chosen).ToList();
        var plan = file.PlanFor(visitId)!.Plan;
        var next = NextPlan.Apply(plan, chosen, library, file.Policy, file.Profile, file.Body);
        return (plans.Add(file, visitId, next, by), chosen);
    }

    private DecisionRecord Record(
        Decision proposal,
        IReadOnlyList<Choice> choices,
        CaseFile file,
        Guid visitId,
        DecideInput input,
        string by
    )
    {
        var choice = choices.FirstOrDefault(c =>
            c.PlanItemId == proposal.PlanItemId && c.Side == proposal.Side
        );
        var other = choice?.Outcome is { } outcome && outcome != proposal.Outcome ? choice : null;
        var chosen = other is null
            ? proposal
            : DecisionEngine.Chosen(
                input,
                proposal.PlanItemId,
                proposal.Side,
                other.Outcome!.Value,
                library
            ) with
            {
                Evidence = [$"Chosen by {by}: {other.Reason}"],
            };
        return new DecisionRecord
        {
            VisitId = visitId,
            PlanRevisionId = file.CurrentPlan!.Id,
            Proposal = proposal,
            Chosen = chosen,
            Overridden = other is not null,
            Reason = choice?.Reason,
            PolicyId = file.Policy.Id,
            PolicyVersion = file.Policy.Version,
            LibraryVersion = library.Version,
            DecidedAt = time.GetUtcNow().UtcDateTime,
            DecidedBy = by,
        };
    }
}
