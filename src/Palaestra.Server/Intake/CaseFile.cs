using NodaTime;
using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Charts;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data.Clinics;
using Palaestra.Data.Intake;
using Palaestra.Data.Planning;
using Palaestra.Data.Visits;

namespace Palaestra.Server.Intake;

/// <summary>All of one episode as the rules want to see it: visits in order, trials folded from the log, plans.</summary>
public sealed class CaseFile
{
    private readonly PracticeLibrary library;
    private readonly DateOnly today;
    private readonly IReadOnlySet<Guid> noted;
    private readonly Dictionary<Guid, int> numbers;

    // What the visit began with can be told while a case is open.
    private readonly Dictionary<(Guid, int? Began), SessionPain?> pains = [];
    private readonly Dictionary<(Guid, PainRule, int? Began), IReadOnlyList<Performance>> performances = [];
    private readonly Dictionary<Guid, PlanRevision?> plansFor = [];
    private readonly IReadOnlyDictionary<Guid, VisitTaps> taps;

    /// <param name="today">Precautions whose date has passed by then ask for a look.</param>
    /// <param name="noted">Visits of which somebody wrote a note.</param>
    public CaseFile(
        Episode episode,
        IReadOnlyDictionary<Guid, VisitTaps> taps,
        List<PlanRevision> plans,
        PracticeLibrary library,
        ClinicZone zone,
        DateOnly today,
        IReadOnlyList<HomeDay>? home = null,
        IReadOnlyDictionary<Guid, BodyChart>? charts = null,
        IReadOnlySet<Guid>? noted = null
    )
    {
        Zone = zone;
        Episode = episode;
        this.taps = taps;
        this.library = library;
        Plans = plans;
        HomeLog = home ?? [];
        this.noted = noted ?? new HashSet<Guid>();
        Charts = charts ?? new Dictionary<Guid, BodyChart>();
        Visits =
        [
            .. episode.Visits.Where(v => v.CalledOff is null).OrderBy(v => v.PlannedAt).ThenBy(v => v.Id),
        ];
        numbers = Visits.Index().ToDictionary(v => v.Item.Id, v => v.Index + 1);
        Policy = library.FindPolicy(episode.PolicyId) ?? library.DefaultPolicy;
        this.today = today;
        Lapsed = [.. episode.Precautions.Where(precaution => precaution.LapsedOn(today))];
        Body = episode.Client?.Body() ?? BodySize.Typical;
        var last = Visits.LastOrDefault(v => v.CheckIn is not null || v.Intake is not null);
        Profile = last is null ? ProfileAt(null) : Told(last);
    }

    /// <summary>The profile at a visit, with leg pain as it was told and remembered by then.</summary>
    private ClientProfile Told(Visit visit) =>
        LegPain.Told(
            ProfileAt(visit),
            LegReports(visit),
            [.. LegMemory.Sides(Sessions(visit.Id), NumberOf(visit.Id), today, Policy.Judgement)],
            library,
            Policy.Judgement
        );

    public Episode Episode { get; }

    /// <summary>In order of time; those that were called off are none.</summary>
    public IReadOnlyList<Visit> Visits { get; }

    /// <summary>What was drawn at each visit that has a chart.</summary>
    public IReadOnlyDictionary<Guid, BodyChart> Charts { get; }

    /// <summary>Why nothing may be planned or decided now, beside a red flag; none: it may.</summary>
    public Message? Held =>
        !Episode.Asked ? Message.Of("conflict.unasked")
        : Episode.DischargedOn is { } day ? Message.Of("conflict.discharged", ("day", day))
        : Unanswered;

    /// <summary>A drawing asks a red flag that nobody has answered; none: none does.</summary>
    public Message? Unanswered =>
        OpenDrawing is var (_, flag) ? Message.Of("conflict.chart", ("flag", flag)) : null;

    /// <summary>
    /// The latest visit at which something was drawn that asks a red flag, and the flag; none where each was answered: in that
    /// chart, in a later one, or by asking about red flags at a later visit. A later drawing alone answers nothing.
    /// </summary>
    public (Visit Visit, string Flag)? OpenDrawing
    {
        get
        {
            var answered = new HashSet<string>();
            foreach (var visit in Visits.Reverse())
            {
                if (Charts.TryGetValue(visit.Id, out var chart))
                {
                    answered.UnionWith(chart.Answers?.Select(a => a.Question) ?? []);
                    if (
                        ChartQuestion.OpenFlags(chart, library).FirstOrDefault(f => !answered.Contains(f)) is
                        { } flag
                    )
                    {
                        return (visit, flag);
                    }
                }
                if (visit.Flags is not null)
                {
                    return null;
                }
            }
            return null;
        }
    }

    /// <summary>The visit at which pain was drawn last, up to the given one; none: it never was.</summary>
    public Visit? LastChart(Guid upTo) =>
        Visits.TakeWhile(v => NumberOf(v.Id) <= NumberOf(upTo)).LastOrDefault(v => Charts.ContainsKey(v.Id));

    /// <summary>Something was asked, drawn, done, written or decided at it: it took place. The same as the desk is told.</summary>
    public bool HasBegun(Visit visit) =>
        visit.DecidedAt is not null
        || visit.CheckIn is not null
        || visit.Intake is not null
        || Events(visit.Id).Count > 0
        || Charts.ContainsKey(visit.Id)
        || noted.Contains(visit.Id);

    /// <summary>How far pain goes down the legs: as asked at a visit, or as drawn, whichever is further; none where neither says.</summary>
    public LegReport? LegAt(Visit visit) =>
        LegReport.Further(
            visit.CheckIn?.Leg,
            Charts.TryGetValue(visit.Id, out var chart) ? ChartQuestion.LegOf(chart, library) : null
        );

    /// <summary>Oldest first.</summary>
    public IReadOnlyList<PlanRevision> Plans { get; }
    public Policy Policy { get; }

    /// <summary>Days the client wrote down, the earliest first.</summary>
    public IReadOnlyList<HomeDay> HomeLog { get; }

    /// <summary>With pain, settling and leg pain as they were told last.</summary>
    public ClientProfile Profile { get; }

    /// <summary>What was asked when the client first came.</summary>
    public VisitIntake First =>
        Visits.Select(v => v.Intake).FirstOrDefault(answers => answers is not null) ?? Episode.Answers();

    /// <summary>The answers in force at a visit: its own, else the last before it.</summary>
    public VisitIntake IntakeAt(Visit visit) =>
        Visits
            .TakeWhile(v => NumberOf(v.Id) <= NumberOf(visit.Id))
            .LastOrDefault(v => v.Intake is not null)
            ?.Intake
        ?? Episode.Answers();

    /// <summary>Pain when a visit began; none where it was not asked.</summary>
    public int? PainAt(Visit visit) => visit.CheckIn?.PainNow ?? visit.Intake?.Pain.Now;

    /// <summary>As told at the start of a visit; what was not asked there keeps the last known value.</summary>
    public ClientProfile ProfileAt(Visit? visit)
    {
        if (visit is null)
        {
            return First.Profile(Episode.RestingShape);
        }
        var upTo = Visits.TakeWhile(v => NumberOf(v.Id) <= NumberOf(visit.Id)).ToList();
        var profile = IntakeAt(visit).Profile(Episode.RestingShape);
        foreach (var check in upTo.Where(v => v.Intake is null).Select(v => v.CheckIn).OfType<CheckIn>())
        {
            profile = profile with
            {
                Pain = profile.Pain with
                {
                    Now = check.PainNow ?? profile.Pain.Now,
                    Usual = check.UsualPain ?? profile.Pain.Usual,
                },
                SettleHours = check.Hours ?? profile.SettleHours,
                WakesAtNight = check.WakesAtNight ?? profile.WakesAtNight,
            };
        }
        return profile;
    }

    /// <summary>Leg pain as asked at the visits, the latest first.</summary>
    private IReadOnlyList<LegReport> LegReports(Visit visit) =>
        [
            .. Visits
                .TakeWhile(v => NumberOf(v.Id) <= NumberOf(visit.Id))
                .Reverse()
                .Select(LegAt)
                .OfType<LegReport>(),
        ];

    /// <summary>Earlier check-ins of the episode, the first visit's answers among them.</summary>
    public PainHistory PainBefore(Visit visit) =>
        new(
            [
                .. Visits
                    .TakeWhile(v => v.Id != visit.Id)
                    .Where(v => v.CheckIn is not null || v.Intake is not null)
                    .Select(v => new PastCheckIn(
                        NumberOf(v.Id),
                        DayOf(v),
                        v.CheckIn is null ? v.Intake?.Pain.Usual : v.CheckIn.UsualPain,
                        v.CheckIn is null ? v.Intake?.Pain.Now : v.CheckIn.PainNow,
                        v.CheckIn?.NextDayPain,
                        v.CheckIn?.SettledHours,
                        v.CheckIn?.Settled,
                        LegAt(v)
                    )),
            ],
            First.Pain.Usual,
            Visits
                .TakeWhile(v => NumberOf(v.Id) <= NumberOf(visit.Id))
                .Select(v => v.ReferenceSet)
                .LastOrDefault(set => set is not null)
        );

    /// <summary>Pain of the sessions up to a visit, its own among them.</summary>
    public IReadOnlyList<SessionPain> Sessions(Guid upTo) =>
        [.. Visits.TakeWhile(v => NumberOf(v.Id) <= NumberOf(upTo)).Select(PainOf).OfType<SessionPain>()];

    private SessionPain? PainOf(Visit visit)
    {
        var began = PainAt(visit);
        if (!pains.TryGetValue((visit.Id, began), out var pain))
        {
            pain = SessionPain.Of(
                NumberOf(visit.Id),
                DayOf(visit),
                began,
                Events(visit.Id),
                Trials(visit.Id)
            );
            pains[(visit.Id, began)] = pain;
        }
        return pain;
    }

    /// <summary>Precautions whose date has passed: they hold until somebody has looked.</summary>
    public IReadOnlyList<ClientPrecaution> Lapsed { get; }

    /// <summary>Trials of a visit with taps that came more than a day off their own time: a wrong clock, or a tablet that was long away.</summary>
    public IReadOnlyList<Guid> ClockOff(Guid visitId) =>
        taps.TryGetValue(visitId, out var own)
            ? [.. Trials(visitId).Select(trial => trial.Id).Where(own.ClockOff.Contains)]
            : [];

    /// <summary>For the body model; typical where the client's measures were left open.</summary>
    public BodySize Body { get; }
    public PlanRevision? CurrentPlan => Plans.Count == 0 ? null : Plans[^1];
    public bool Closed => Episode.DangerReports.Any(report => report.Open);

    public Visit Visit(Guid id) => Visits.First(v => v.Id == id);

    /// <summary>1 for the first visit of the episode; 0 for one that is none of it.</summary>
    public int NumberOf(Guid visitId) => numbers.GetValueOrDefault(visitId);

    public IReadOnlyList<CaptureEvent> Events(Guid visitId) =>
        taps.TryGetValue(visitId, out var own) ? own.Events : [];

    /// <summary>Those that were not undone.</summary>
    public IReadOnlyList<CaptureEvent> Effective(Guid visitId) =>
        taps.TryGetValue(visitId, out var own) ? own.Effective : [];

    public IReadOnlyList<Trial> Trials(Guid visitId) => Trials(visitId, Policy.Pain);

    private IReadOnlyList<Trial> Trials(Guid visitId, PainRule pain) =>
        taps.TryGetValue(visitId, out var own) ? own.Trials(pain, PainAt(Visit(visitId))) : [];

    public bool Has(Guid visitId, TrialPurpose purpose) =>
        Trials(visitId).Any(t => t.Purpose == purpose && !t.Open);

    /// <summary>The latest visit, up to the given one, in which something was screened.</summary>
    public Visit? ScreenVisit(Guid? upTo = null) =>
        Visits
            .TakeWhile(v => upTo is null || NumberOf(v.Id) <= NumberOf(upTo.Value))
            .LastOrDefault(v => Has(v.Id, TrialPurpose.Screen));

    /// <summary>The last screen before a visit; none before the second one.</summary>
    public Visit? EarlierScreen(Guid visitId) =>
        Visits
            .TakeWhile(v => NumberOf(v.Id) < NumberOf(visitId))
            .LastOrDefault(v => Has(v.Id, TrialPurpose.Screen));

    /// <summary>The day from which the policy wants a screen again.</summary>
    public DateOnly RescreenDue(Visit screened) => DayOf(screened).AddDays(Policy.RescreenWeeks * 7);

    /// <summary>The day of a visit at the clinic.</summary>
    public DateOnly DayOf(Visit visit) => Zone.DayOf(visit.PlannedAt);

    /// <summary>Of the clinic.</summary>
    public ClinicZone Zone { get; }

    public ScreenFindings? Findings(Guid? upTo = null) =>
        ScreenVisit(upTo) is { } visit ? FindingsOf(visit) : null;

    /// <summary>What the last screen up to a visit says to somebody who knows of the client what was told by then.</summary>
    public ScreenFindings? FindingsKnownAt(Visit visit) =>
        ScreenVisit(visit.Id) is { } screened ? FindingsOf(screened, null, Told(visit)) : null;

    /// <summary>Something of the screen that a visit's decisions looked at was amended after they were taken.</summary>
    public bool ScreenAmendedSince(Visit visit) =>
        visit.DecidedAt is { } decided
        && ScreenVisit(visit.Id) is { } screened
        && Events(screened.Id)
            .OfType<TrialAmended>()
            .Any(amended => Instant.FromDateTimeOffset(amended.At) > decided);

    /// <summary>The client or the condition was asked about at a visit or before it, and the answers are kept as they were given there.</summary>
    public bool HasOwnAnswers(Visit visit) =>
        Visits.TakeWhile(v => NumberOf(v.Id) <= NumberOf(visit.Id)).Any(v => v.Intake is not null);

    /// <summary>What the screen of one visit says; with the age of that day.</summary>
    /// <param name="abilitiesAt">Visit at which it is asked too where the client stands, from everything up to then; none: it is not.</param>
    /// <param name="known">What is known of the client; none: what was told last.</param>
    public ScreenFindings FindingsOf(Visit visit, Guid? abilitiesAt = null, ClientProfile? known = null)
    {
        var age = Episode.Client?.AgeOn(DayOf(visit));
        return FindingsMaker.Of(
            Trials(visit.Id),
            known ?? Profile,
            Policy,
            library,
            new Person(age, Body.Sex),
            visit.Battery?.Missing,
            abilitiesAt is { } at
                ?
                [
                    .. Visits
                        .Where(v => v.Id != visit.Id && NumberOf(v.Id) <= NumberOf(at))
                        .SelectMany(v => Trials(v.Id)),
                ]
                : null
        );
    }

    /// <summary>The visit before; none for the first.</summary>
    public Visit? Before(Guid visitId) => Visits.TakeWhile(v => v.Id != visitId).LastOrDefault();

    /// <summary>The plan that was in force when a visit began: the latest accepted in an earlier visit.</summary>
    public PlanRevision? PlanFor(Guid visitId)
    {
        if (!plansFor.TryGetValue(visitId, out var plan))
        {
            plan = Plans.LastOrDefault(p => NumberOf(p.VisitId) < NumberOf(visitId));
            plansFor[visitId] = plan;
        }
        return plan;
    }

    /// <summary>Everything done against plans up to a visit; exercises keep their id across revisions.</summary>
    public IReadOnlyList<Performance> Performances(Guid upTo) => Performances(upTo, Policy.Pain);

    /// <param name="pain">The rule that says which sets were painful: another policy's, when asked what it would do.</param>
    public IReadOnlyList<Performance> Performances(Guid upTo, PainRule pain) =>
        [.. WithPlan(upTo).SelectMany(visit => Performances(visit, pain))];

    private IReadOnlyList<Performance> Performances(Visit visit, PainRule pain)
    {
        var key = (visit.Id, pain, PainAt(visit));
        if (!performances.TryGetValue(key, out var done))
        {
            done =
            [
                .. Performance.FromTrials(
                    NumberOf(visit.Id),
                    DayOf(visit),
                    [.. ToDo(visit), .. SessionWork.Added(Events(visit.Id), library)],
                    Trials(visit.Id, pain),
                    library
                ),
            ];
            performances[key] = done;
        }
        return done;
    }

    /// <summary>What was tried one up, at the visits up to one.</summary>
    public IReadOnlyList<ProbeDone> Probes(Guid upTo) =>
        [
            .. WithPlan(upTo)
                .SelectMany(visit =>
                    ProbeDone.FromTrials(NumberOf(visit.Id), DayOf(visit), ToDo(visit), Trials(visit.Id))
                ),
        ];

    private IEnumerable<Visit> WithPlan(Guid upTo) =>
        Visits.Where(visit => NumberOf(visit.Id) <= NumberOf(upTo) && PlanFor(visit.Id) is not null);

    /// <summary>What of its plan was to be done on the day of a visit.</summary>
    private IReadOnlyList<PlanItem> ToDo(Visit visit) => PlanFor(visit.Id)!.Plan.ToDoOn(DayOf(visit)).Items;
}
