using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Screening;

/// <param name="Missing">Equipment that is not at hand.</param>
/// <param name="RepeatVisitId">An earlier visit whose screen is to be done again; none: propose anew.</param>
public sealed record ProposalForm(double Minutes, IReadOnlyList<string> Missing, Guid? RepeatVisitId = null);

/// <param name="TaskIds">In the order they are to be done.</param>
/// <param name="Version">The version this was made from; 0 when nothing was stored yet.</param>
/// <param name="RepeatVisitId">Where the tasks are those of an earlier visit.</param>
public sealed record BatteryForm(
    IReadOnlyList<string> TaskIds,
    double Minutes,
    IReadOnlyList<string> Missing,
    int Version,
    Guid? RepeatVisitId = null
);

/// <param name="Version">0 while it is only a proposal.</param>
public sealed record BatteryView(Battery Battery, int Version);

/// <summary>Proposes, stores and repeats the battery of a visit.</summary>
public sealed class Batteries(PracticeLibrary library)
{
    /// <summary>The stored battery; before one is stored, the proposal for the minutes of the policy.</summary>
    public BatteryView Of(CaseFile file, Visit visit) =>
        visit.Battery is { } stored
            ? new(stored, visit.BatteryVersion)
            : new(
                BatteryPlanner.Propose(
                    file.Profile,
                    file.Policy,
                    new BatteryQuestion(file.Policy.ScreenMinutes, []),
                    library
                ),
                0
            );

    public Checked<Battery> Propose(CaseFile file, ProposalForm form)
    {
        var earlier = form.RepeatVisitId is { } id ? file.Visits.FirstOrDefault(v => v.Id == id) : null;
        if (form.RepeatVisitId is not null && (earlier is null || !file.Has(earlier.Id, TrialPurpose.Screen)))
        {
            return Checked<Battery>.Bad(new FieldError("repeatVisitId", Message.Of("screen.nothing-there")));
        }
        var question = new BatteryQuestion(
            form.Minutes,
            form.Missing,
            earlier is null ? null : DoneIn(file, earlier)
        );
        var errors = BatteryCheck.Errors(question, library).ToList();
        return errors.Count > 0
            ? Checked<Battery>.Bad(errors)
            : Checked<Battery>.Good(BatteryPlanner.Propose(file.Profile, file.Policy, question, library));
    }

    public Checked<Battery> ByHand(CaseFile file, Visit visit, BatteryForm form)
    {
        var before = visit.Battery;
        if (form.RepeatVisitId is { } repeat)
        {
            var proposal = Propose(file, new ProposalForm(form.Minutes, form.Missing, repeat));
            if (!proposal.IsValid)
            {
                return proposal;
            }
            before = proposal.Value;
        }
        var question = new BatteryQuestion(form.Minutes, form.Missing);
        var errors = BatteryCheck
            .Errors(question, library)
            .Concat(BatteryCheck.ItemErrors(form.TaskIds, file.Profile, file.Policy, library))
            .ToList();
        return errors.Count > 0
            ? Checked<Battery>.Bad(errors)
            : Checked<Battery>.Good(
                BatteryPlanner.ByHand(form.TaskIds, file.Profile, file.Policy, question, library, before)
            );
    }

    /// <summary>What comes next in each task, the weaker side first where one is known.</summary>
    public IReadOnlyList<TaskState> States(CaseFile file, Visit visit, Battery battery)
    {
        var trials = Screened(file, visit);
        var before = file.EarlierScreen(visit.Id) is { } earlier ? file.FindingsOf(earlier) : null;
        var now = file.FindingsOf(visit);
        return ScreenGuide.States(
            battery,
            trials,
            file.Profile,
            file.Policy,
            library,
            id => WeakerSide.Of(library.FindTask(id)!, before, now, file.Profile, library)
        );
    }

    public static IReadOnlyList<Trial> Screened(CaseFile file, Visit visit) =>
        [
            .. file.Trials(visit.Id)
                .Where(t => t is { Open: false, Purpose: TrialPurpose.Screen })
                .OrderBy(t => t.StartedAt),
        ];

    /// <summary>The tasks somebody worked on in a visit, in the order of its battery, then of the trials.</summary>
    private List<string> DoneIn(CaseFile file, Visit visit)
    {
        var trials = Screened(file, visit);
        var planned = (visit.Battery?.Items ?? []).Select(item => item.TaskId);
        var done = trials.Select(TaskOf).ToList();
        return [.. planned.Concat(done).Distinct().Where(done.Contains)];
    }

    /// <summary>A rung done without a task belongs to the climb of its ladder, where there is one.</summary>
    private string TaskOf(Trial trial) =>
        trial.TaskId
        ?? library.Tasks.FirstOrDefault(t => t.Ladder == library.LadderOf(trial.RungId).Id)?.Id
        ?? ScreenTask.RungPrefix + trial.RungId;
}
