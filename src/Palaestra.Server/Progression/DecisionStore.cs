using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Data.Progression;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;

namespace Palaestra.Server.Progression;

/// <summary>A decision that would be another one, had the record then been what it is now.</summary>
public sealed record ChangedDecision(Guid VisitId, int Visit, Decision Then, Decision Now);

/// <summary>Writes what was chosen with the plan that follows, and looks back at what was decided.</summary>
public sealed class DecisionStore(
    PalaestraDb db,
    PracticeLibrary library,
    PlanProposals plans,
    ClinicClock clock
)
{
    /// <summary>
    /// Why no decision can be taken of a visit that has all it needs: it was decided, or a plan was made since; none when it
    /// can.
    /// </summary>
    public static Message? Overtaken(CaseFile file, Guid visitId)
    {
        if (file.Visit(visitId).DecidedAt is not null)
        {
            return Message.Of("decide.done");
        }
        if (
            file.Visit(visitId).FromPaperAt is not null
            && file.Visits.SkipWhile(v => v.Id != visitId).Skip(1).Any(file.HasBegun)
        )
        {
            // The plan of today is not made from a visit of last month.
            return Message.Of("decide.later-visit");
        }
        return file.CurrentPlan is { } current && current.Id != file.PlanFor(visitId)?.Id
            ? Message.Of(
                "decide.newer-plan",
                ("revision", current.Revision),
                ("visit", file.NumberOf(current.VisitId))
            )
            : null;
    }

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
        db.DecidedVisits.Add(
            new DecidedVisit
            {
                VisitId = visitId,
                Input = input,
                PlanRevisionId = file.CurrentPlan!.Id,
                PolicyVersion = file.Policy.Version,
                LibraryVersion = library.Version,
            }
        );
        var chosen = records.Select(r => r.Chosen).ToList();
        return (plans.Add(file, visitId, Next(file, visitId, chosen), by), chosen);
    }

    /// <summary>The plan that decisions make of the one the visit followed. Nothing is stored.</summary>
    public Plan Next(CaseFile file, Guid visitId, IReadOnlyList<Decision> chosen) =>
        NextPlan.Apply(OfThatDay(file, visitId), chosen, library, file.Policy, file.Profile, file.Body);

    /// <summary>With what rests, and halved sets over where their days are.</summary>
    private static Plan OfThatDay(CaseFile file, Guid visitId)
    {
        var plan = file.PlanFor(visitId)!.Plan;
        var day = file.DayOf(file.Visit(visitId));
        return plan with { Items = [.. plan.Items.Select(item => item.On(day))] };
    }

    /// <summary>The proposals, with the practitioner's own word in place of those they do not follow.</summary>
    public IReadOnlyList<Decision> Chosen(
        DecideInput input,
        IReadOnlyList<Decision> proposals,
        IReadOnlyList<Choice> choices,
        string by
    ) => [.. proposals.Select(p => Own(p, choices) is { } own ? InsteadOf(p, own, input, by) : p)];

    /// <summary>None where the practitioner agrees.</summary>
    private static Choice? Own(Decision proposal, IReadOnlyList<Choice> choices) =>
        choices.FirstOrDefault(c => c.PlanItemId == proposal.PlanItemId && c.Side == proposal.Side)
            is { Outcome: { } outcome } own
        && outcome != proposal.Outcome
            ? own
            : null;

    private Decision InsteadOf(Decision proposal, Choice own, DecideInput input, string by) =>
        DecisionEngine.Chosen(input, proposal.PlanItemId, proposal.Side, own.Outcome!.Value, library) with
        {
            Evidence = [Message.Of("decide.chosen", ("by", by), ("reason", own.Reason))],
        };

    /// <summary>
    /// Decided visits whose decisions would now be others, because something in the record was edited since. Both sides of
    /// the comparison use today's rules, so that a changed policy is not taken for a changed record.
    /// </summary>
    public async Task<IReadOnlyList<ChangedDecision>> Changed(CaseFile file)
    {
        var ids = file.Visits.Select(v => v.Id).ToList();
        var decided = await db.DecidedVisits.AsNoTracking().Where(d => ids.Contains(d.VisitId)).ToListAsync();
        return
        [
            .. from then in decided
            let input = Renewal.Of(then.Input, library)
            let now = DecisionInputs.Again(input, file, then.VisitId, library)
            where now is not null
            from pair in DecisionEngine
                .Bare(input, library)
                .Zip(DecisionEngine.Bare(now, library), (was, @is) => (Was: was, Is: @is))
            where
                (pair.Was.Outcome, pair.Was.RungId, pair.Was.Dose)
                != (pair.Is.Outcome, pair.Is.RungId, pair.Is.Dose)
            orderby then.Input.Visit
            select new ChangedDecision(then.VisitId, then.Input.Visit, pair.Was, pair.Is),
        ];
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
        var own = Own(proposal, choices);
        var chosen = own is null ? proposal : InsteadOf(proposal, own, input, by);
        return new DecisionRecord
        {
            VisitId = visitId,
            PlanRevisionId = file.CurrentPlan!.Id,
            Proposal = proposal,
            Chosen = chosen,
            RuleId = proposal.RuleId,
            Proposed = proposal.Outcome,
            Taken = chosen.Outcome,
            Overridden = own is not null,
            Reason = own?.Reason,
            PolicyId = file.Policy.Id,
            PolicyVersion = file.Policy.Version,
            LibraryVersion = library.Version,
            DecidedAt = clock.Now,
            DecidedBy = by,
        };
    }
}
