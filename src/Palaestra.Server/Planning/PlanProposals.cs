using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Planning;

/// <summary>Proposes, weighs and stores plans of an episode.</summary>
public sealed class PlanProposals(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
{
    public const int ExercisesMax = 12;

    /// <summary>None until something has been screened.</summary>
    public PlanProposal? Propose(CaseFile file, PlanAsk? ask = null) =>
        InputOf(file, ask) is { } input ? Planner.Propose(input, library, Guid.CreateVersion7) : null;

    /// <summary>What a plan of this episode is made from today.</summary>
    public PlanInput? InputOf(CaseFile file, PlanAsk? ask = null)
    {
        if (file.Findings() is not { } findings)
        {
            return null;
        }
        var neutral = NeutralChoice.Propose(file.Profile, file.Policy, library);
        return new PlanInput(
            file.Profile,
            findings,
            file.Policy.Id,
            file.Episode.Strategy ?? neutral.Strategy,
            file.Episode.Activation ?? neutral.Activation,
            ask?.MinutesPerDay ?? file.Episode.MinutesPerDay,
            file.Body,
            file.Episode.Goals,
            file.Episode.Equipment,
            ask?.Locked,
            ask?.LeftOut
        );
    }

    /// <summary>Errors of a question: each names its field.</summary>
    public IReadOnlyList<FieldError> ErrorsOf(PlanAsk ask)
    {
        var errors = PlanCheck.Errors(ask.Locked, library, "locked").ToList();
        if (!(ask.MinutesPerDay >= PlanInput.MinutesMin && ask.MinutesPerDay <= PlanInput.MinutesMax))
        {
            errors.Add(new("minutesPerDay", Message.Of("minutes.range")));
        }
        if (ask.Locked.Count > ExercisesMax)
        {
            errors.Add(new("locked", Message.Of("plan.kept-most", ("most", ExercisesMax))));
        }
        errors.AddRange(
            ask.LeftOut.Select((id, i) => (id, i))
                .Where(pair => library.FindRung(pair.id) is null)
                .Select(pair => new FieldError(
                    $"leftOut[{pair.i}]",
                    Message.Of("no.rung", ("rung", pair.id))
                ))
        );
        return errors;
    }

    /// <summary>Minutes, arithmetic and warnings for a plan as edited. Errors name the field.</summary>
    public Checked<WeighedPlan> Weigh(CaseFile file, PlanForm form)
    {
        var errors = PlanCheck.Errors(form.Items, library, "items").ToList();
        if (form.Items.Count is 0 or > ExercisesMax)
        {
            errors.Add(new("items", Message.Of("plan.count", ("most", ExercisesMax))));
        }
        if (errors.Count > 0)
        {
            return Checked<WeighedPlan>.Bad(errors);
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
                form.Activation,
                file.Policy.Id,
                file.Policy.Version,
                library.Version,
                0,
                []
            ),
            library,
            file.Policy
        );
        var work = WorkOf(file, plan, file.CurrentPlan?.Plan);
        var warnings = PlanCheck.Warnings(
            plan,
            file.Profile,
            file.Findings(),
            file.Episode.MinutesPerDay,
            library
        );
        return Checked<WeighedPlan>.Good(
            new(plan with { Warnings = [.. warnings, .. work.Warnings(file.Policy)] }, work)
        );
    }

    public PlanWork WorkOf(CaseFile file, Plan plan, Plan? before) =>
        PlanWork.Of(
            plan,
            file.Episode.DaysPerWeek,
            file.Policy,
            library,
            before,
            file.Profile,
            file.Findings()
        );

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
            AcceptedAt = clock.Now,
            AcceptedBy = by,
        };
        db.Plans.Add(revision);
        file.Visit(visitId).DecidedAt = clock.Now;
        return revision;
    }
}
