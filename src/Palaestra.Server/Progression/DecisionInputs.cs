using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data.Planning;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.TakeHome;

namespace Palaestra.Server.Progression;

/// <summary>Gathers from a record what the D-rules look at.</summary>
public static class DecisionInputs
{
    /// <summary>None when there is nothing to decide yet: no plan before this visit, or the visit not begun.</summary>
    public static DecideInput? Of(CaseFile file, Guid visitId, PracticeLibrary library) =>
        file.Visit(visitId) is { CheckIn: { } asked } visit ? Of(file, visit, asked, library) : null;

    /// <summary>The same before anything was asked at the visit; none where there is nothing to run.</summary>
    public static DecideInput? Unasked(CaseFile file, Guid visitId, PracticeLibrary library) =>
        Of(file, file.Visit(visitId), new CheckIn(null, null, null, null, []), library);

    private static DecideInput? Of(CaseFile file, Visit visit, CheckIn asked, PracticeLibrary library)
    {
        if (PlanToRun(file, visit) is not { } plan)
        {
            return null;
        }
        var visitId = visit.Id;
        var number = file.NumberOf(visitId);
        var performances = file.Performances(visitId);
        var screened = file.FindingsKnownAt(visit);
        var open = file.Episode.DangerReports.Where(r => r.Open).Select(r => r.SignId).ToList();
        return new DecideInput(
            number,
            file.DayOf(visit),
            file.ProfileAt(visit),
            file.Policy.Id,
            [.. plan.Plan.Items.Select(item => item.On(file.DayOf(visit)))],
            asked with
            {
                DangerSigns = open,
                Leg = file.LegAt(visit),
            },
            performances,
            LastWork(file, visit, performances),
            Home(file, visit, plan, library),
            file.Episode.OpenedOn,
            screened?.Entries,
            file.Episode.Equipment,
            plan.Plan.Strategy,
            plan.Plan.Activation,
            file.PainBefore(visit),
            file.Sessions(visitId),
            Raises(file, visit, library),
            SetUps(file, visit),
            HomePainOf(file, visit),
            WeakestSector: screened?.WeakLink?.Sector,
            Broke: Broke(screened),
            Probes: file.Probes(visitId),
            HomeLong: HomeLong(file, visit, library)
        );
    }

    private static IReadOnlyList<BrokeLoad>? Broke(ScreenFindings? findings) =>
        findings is null
            ? null
            :
            [
                .. from task in findings.Tasks
                from score in new[] { task.Left, task.Right, task.Both }
                let load = score?.BrokeAt ?? 0
                where load > 0
                select new BrokeLoad(task.RungId, load),
            ];

    /// <summary>What each plan before this visit made harder than the one before it, whoever decided it.</summary>
    private static IReadOnlyList<Raise> Raises(CaseFile file, Visit visit, PracticeLibrary library) =>
        [
            .. from pair in file.Plans.Zip(
                file.Plans.Skip(1),
                (before, after) => (Before: before, After: after)
            )
            let at = file.NumberOf(pair.After.VisitId)
            where at < file.NumberOf(visit.Id)
            from item in pair.After.Plan.Items
            let old = pair.Before.Plan.Items.FirstOrDefault(i => i.Id == item.Id)
            where old is not null
            from dose in item.Doses
            let was = old.Doses.FirstOrDefault(d => d.Side == dose.Side) ?? old.Doses[0]
            where Raise.Raised(library, old.RungId, was.Dose, item.RungId, dose.Dose)
            select new Raise(
                item.Id,
                dose.Side,
                at,
                file.DayOf(file.Visit(pair.After.VisitId)),
                old.RungId,
                was.Dose
            ),
        ];

    private static IReadOnlyList<SetUpTry> SetUps(CaseFile file, Visit visit) =>
        [
            .. from v in file.Visits
            let number = file.NumberOf(v.Id)
            where number <= file.NumberOf(visit.Id)
            from changed in file.Effective(v.Id).OfType<SetUpChanged>()
            select new SetUpTry(changed.PlanItemId, number, changed.Place),
        ];

    private static IReadOnlyList<HomePain> HomePainOf(CaseFile file, Visit visit)
    {
        var (from, to) = HomeDays(file, visit);
        return
        [
            .. file
                .HomeLog.Where(day => from <= day.Day && day.Day <= to)
                .Select(day => new HomePain(day.Day, day.Pain, day.NextMorning)),
        ];
    }

    /// <summary>
    /// A decided visit as its record stands now: the work, answers and home log of today beside everything else as it was
    /// when it was decided. What differs in the decisions then comes from edits of the record alone.
    /// </summary>
    public static DecideInput? Again(DecideInput then, CaseFile file, Guid visitId, PracticeLibrary library)
    {
        if (Of(file, visitId, library) is not { } now)
        {
            return null;
        }
        var visit = file.Visit(visitId);
        // Searches rest on today's content and policy: told anew only where the screen itself was amended.
        var screen = file.ScreenAmendedSince(visit) ? now : then;
        return then with
        {
            // A visit from paper, typed in since, moves the numbers of those after it.
            Visit = now.Visit,
            Raises = now.Visit == then.Visit ? then.Raises : now.Raises,
            CheckIn = now.CheckIn with { DangerSigns = then.CheckIn.DangerSigns },
            Visits = now.Visits,
            Home = now.Home,
            HomePain = now.HomePain,
            // Decided before it was looked at: that is no edit of the record.
            HomeLong = then.HomeLong is null ? null : now.HomeLong,
            Pain = now.Pain,
            Sessions = now.Sessions,
            Probes = now.Probes,
            LastWorkDate = now.LastWorkDate,
            SetUps = now.SetUps,
            Entries = screen.Entries,
            WeakestSector = screen.WeakestSector,
            Broke = screen.Broke,
            Profile = file.HasOwnAnswers(visit)
                ? now.Profile with
                {
                    RestingShape = then.Profile.RestingShape,
                }
                : then.Profile with
                {
                    Pain = now.Profile.Pain,
                    SettleHours = now.Profile.SettleHours,
                },
        };
    }

    /// <summary>What is missing before this visit can be decided; none when nothing is.</summary>
    public static Message? WhyNot(CaseFile file, Guid visitId)
    {
        if (file.PlanFor(visitId) is not { } plan)
        {
            return Message.Of("decide.no-plan");
        }
        if (plan.Plan.Items.Count == 0)
        {
            return Message.Of("decide.empty-plan");
        }
        return file.Visit(visitId).CheckIn is null ? Message.Of("decide.unanswered") : null;
    }

    /// <summary>
    /// The latest of what was told, written down and done here, before this visit; none where it is not known whether they
    /// trained at home since: unknown is asked, and not counted as away.
    /// </summary>
    private static DateOnly? LastWork(CaseFile file, Visit visit, IReadOnlyList<Performance> done)
    {
        var (from, to) = HomeDays(file, visit);
        var known =
            visit.CheckIn?.LastTrained is not null
            || visit.CheckIn?.Home == HomeTraining.NotDone
            || file.HomeLog.Any(day => from <= day.Day && day.Day <= to);
        if (!known)
        {
            return null;
        }
        var here = done.Where(p => p.Visit < file.NumberOf(visit.Id)).Select(p => (DateOnly?)p.Date);
        var home = file
            .HomeLog.Where(day => day.Day <= file.DayOf(visit) && day.Done.Any(reps => reps.Reps > 0))
            .Select(day => (DateOnly?)day.Day);
        return here.Concat(home).Append(visit.CheckIn?.LastTrained).Max();
    }

    /// <summary>What was done at home before a visit that is decided or could be; nothing else of what its decisions look at.</summary>
    public static IReadOnlyList<HomeWork> Home(CaseFile file, Visit visit, PracticeLibrary library) =>
        Decidable(file, visit) is { } plan ? Home(file, visit, plan, library) : [];

    private static PlanRevision? Decidable(CaseFile file, Visit visit) =>
        visit.CheckIn is not null ? PlanToRun(file, visit) : null;

    private static PlanRevision? PlanToRun(CaseFile file, Visit visit) =>
        file.PlanFor(visit.Id) is { Plan.Items.Count: > 0 } plan ? plan : null;

    private static IReadOnlyList<HomeWork> Home(
        CaseFile file,
        Visit visit,
        PlanRevision plan,
        PracticeLibrary library
    )
    {
        var (from, to) = HomeDays(file, visit);
        return HomeWork.Of(
            plan.Plan.Items,
            [.. PlanDays.Of(file, plan, library, to).Where(day => from <= day.Day && day.Day <= to)],
            [.. file.HomeLog.Where(day => from <= day.Day && day.Day <= to)]
        );
    }

    /// <summary>The home log of the visits back to the policy's days ago, or a little more; none where it does not reach so far.</summary>
    private static IReadOnlyList<HomeWork>? HomeLong(CaseFile file, Visit visit, PracticeLibrary library)
    {
        var spells = new List<IReadOnlyList<HomeWork>>();
        for (var at = visit; file.PlanFor(at.Id) is { } plan && file.Before(at.Id) is { } before; at = before)
        {
            spells.Add(Home(file, at, plan, library));
            if (
                file.DayOf(visit).DayNumber - file.DayOf(before).DayNumber
                >= file.Policy.Judgement.ShrinkDays
            )
            {
                return HomeWork.Together(spells);
            }
        }
        return null;
    }

    /// <summary>The home log brought last, against the plan of its days; none where none was brought.</summary>
    public static IReadOnlyList<HomeWork>? LastAtHome(CaseFile file, PracticeLibrary library) =>
        file.HomeLog.Count == 0
            ? null
            : file
                .Visits.Reverse()
                .Select(visit => file.PlanFor(visit.Id) is { } plan ? Home(file, visit, plan, library) : [])
                .FirstOrDefault(work => work.Sum(line => line.PlannedReps) > 0);

    /// <summary>The days between the visit before and this one.</summary>
    public static (DateOnly From, DateOnly To) HomeDays(CaseFile file, Visit visit) =>
        (
            file.Before(visit.Id) is { } before ? file.DayOf(before).AddDays(1) : file.Episode.OpenedOn,
            file.DayOf(visit).AddDays(-1)
        );
}
