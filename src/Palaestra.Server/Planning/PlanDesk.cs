using Palaestra.Core;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Planning;

/// <summary>Weighs and stores plans of an episode.</summary>
public sealed class PlanDesk(PalaestraDb db, PracticeLibrary library, TimeProvider time)
{
    public PlanProposal? Propose(CaseFile file)
    {
        if (file.Findings() is not { } findings)
        {
            return null;
        }
        var neutral = NeutralChoice.Propose(file.Profile, file.Policy, library);
        var input = new PlanInput(
            file.Profile,
            findings,
            file.Policy.Id,
            file.Episode.Strategy ?? neutral.Strategy,
            file.Episode.SwitchOn ?? neutral.SwitchOn,
            file.Episode.MinutesPerDay,
            file.Body
        );
        return Planner.Propose(input, library, Guid.CreateVersion7);
    }

    /// <summary>Minutes and warnings for a plan as edited. Errors name the field.</summary>
    public Checked<Plan> Weigh(CaseFile file, PlanForm form)
    {
        var errors = PlanCheck.Errors(form.Items, library, "items").ToList();
        if (form.Items.Count is 0 or > 12)
        {
            errors.Add(new("items", "A plan has between 1 and 12 exercises."));
        }
        if (errors.Count > 0)
        {
            return Checked<Plan>.Bad(errors);
        }
        var items = form.Items.Select(item =>
            item with
            {
                Doses =
                [
                    .. item.Doses.Select(dose =>
                        PlanRange.Worded(dose, library.Rung(item.RungId), file.Body, library)
                    ),
                ],
                Changes = ItemChanges.Of(library.Rung(item.RungId), file.Profile, library),
            }
        );
        var plan = PlanTime.WithMinutes(
            new Plan(
                [.. items],
                form.Strategy,
                form.SwitchOn,
                file.Policy.Id,
                file.Policy.Version,
                library.Version,
                0,
                []
            ),
            library,
            file.Policy
        );
        var warnings = PlanCheck.Warnings(
            plan,
            file.Profile,
            file.Findings(),
            file.Episode.MinutesPerDay,
            library
        );
        return Checked<Plan>.Good(plan with { Warnings = warnings });
    }

    /// <summary>Adds the next revision; the caller saves.</summary>
    public PlanRevision Add(CaseFile file, Guid visitId, Plan plan, string by)
    {
        var revision = new PlanRevision
        {
            EpisodeId = file.Episode.Id,
            VisitId = visitId,
            Revision = (file.CurrentPlan?.Revision ?? 0) + 1,
            PreviousId = file.CurrentPlan?.Id,
            Plan = plan,
            AcceptedAt = time.GetUtcNow().UtcDateTime,
            AcceptedBy = by,
        };
        db.Plans.Add(revision);
        file.Visit(visitId).DecidedAt = time.GetUtcNow().UtcDateTime;
        return revision;
    }
}
