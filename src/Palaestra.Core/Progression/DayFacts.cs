using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>A rule about the whole visit that fired, and why.</summary>
public sealed record DayRule(string RuleId, Message Words);

/// <summary>
/// What is true of the whole visit, whatever exercise is looked at: pain against its reference, the session, the home log, the
/// legs. Worked out once for all decisions of a visit, and told before the first set where it is known by then.
/// </summary>
public sealed class DayFacts
{
    private readonly DecideInput input;
    private readonly Policy policy;
    private readonly Judgement judgement;

    /// <summary>Works out what the visit says as a whole, before any exercise is looked at.</summary>
    public DayFacts(DecideInput input, PracticeLibrary library)
        : this(input, library, null) { }

    /// <param name="known">What the visits before say, where that was worked out for a like visit.</param>
    internal DayFacts(DecideInput input, PracticeLibrary library, DayPast? known)
    {
        this.input = input;
        policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        judgement = policy.Judgement;
        Past = DayPast.Of(input, library, known);
        Session = SessionToday();
        Refer = [.. ReferWhy(library)];
        Flares = [.. FlareRules()];
        Holds = [.. HoldRules()];
        Steady = IsSteady();
        MayProbe = Probing(library);
        OwnTremor =
            input.KnownTremor
            || Profile.Precautions.Any(p => library.Precaution(p.Id) is { OwnTremor: true });
    }

    internal DayPast Past { get; }

    /// <summary>The pain that later visits are compared with.</summary>
    public Reference Reference => Past.Reference;

    /// <summary>How far pain has crept up over the visits, 0 or more.</summary>
    public int Drift => Past.Drift;

    /// <summary>The client's profile with leg pain as it was told at the last visits.</summary>
    public ClientProfile Profile => Past.Profile;

    /// <summary>How irritable the condition is on this day.</summary>
    public Irritability Level => Past.Level;

    /// <summary>Low irritability, or pain that is long-standing and even: counts as calm for what is earned, held and probed.</summary>
    public bool Calm => Level == Irritability.Low || Steady;

    /// <summary>Pain is long-standing and even, it settles in time, nights are quiet and no rule holds: work may grow though there is pain.</summary>
    public bool Steady { get; }

    /// <summary>One up may be tried: no precaution forbids it, and a back that was irritable has been calm or steady for a week.</summary>
    public bool MayProbe { get; }

    /// <summary>The client trembles by themselves: shaking says nothing of effort.</summary>
    public bool OwnTremor { get; }

    /// <summary>Sides on which pain moved down the leg in a session lately.</summary>
    public IReadOnlyList<Side> Remembered => Past.Remembered;

    /// <summary>Pain of this session; none where nothing was done or told.</summary>
    public SessionPain? Session { get; }

    /// <summary>D-REFER: why everything stops; empty where nothing says so.</summary>
    public IReadOnlyList<Message> Refer { get; }

    /// <summary>D-PAIN-NEXT, D-PAIN-HOME and D-PAIN-DRIFT, where what was raised is taken back.</summary>
    public IReadOnlyList<DayRule> Flares { get; }

    /// <summary>Rules under which nothing is added anywhere: D-PAIN-SESSION, D-PAIN-NOW, D-PAIN-NEXT, D-PAIN-HOME, D-PAIN-DRIFT, D-NO-TRAINING.</summary>
    public IReadOnlyList<DayRule> Holds { get; }

    /// <summary>A second flare within the policy's weeks: a review, and no further cut.</summary>
    public bool SecondFlare => Flares.Count > 0 && Past.FlaredLately;

    /// <summary>The home log was over the reference on one mild day: nothing it says is earned.</summary>
    public bool HomeMild =>
        Flares.All(r => r.RuleId != "D-PAIN-HOME") && HomeRises().Any(rise => rise >= judgement.NowRise);

    /// <summary>What the latest visit that raised anything raised, if within the policy's days; empty else.</summary>
    public IReadOnlyList<Raise> LastRaised()
    {
        var recent = (input.Raises ?? [])
            .Where(r =>
                r.Visit < input.Visit && input.Date.DayNumber - r.On.DayNumber <= judgement.TakeBackDays
            )
            .ToList();
        if (recent.Count == 0)
        {
            return [];
        }
        var last = recent.Max(r => r.Visit);
        return [.. recent.Where(r => r.Visit == last)];
    }

    private IEnumerable<Message> ReferWhy(PracticeLibrary library)
    {
        foreach (var id in input.CheckIn.DangerSigns)
        {
            yield return Message.Of("refer.flag", ("flag", id));
        }
        if (input.CheckIn.LegFurther == true)
        {
            yield return Message.Of("refer.leg-since");
        }
        foreach (var leg in Session?.Legs ?? [])
        {
            if (leg.Back != true)
            {
                yield return leg.Back == false
                    ? Message.Of("refer.leg-stayed", ("side", leg.Side))
                    : Message.Of("refer.leg-unknown", ("side", leg.Side));
            }
        }
    }

    private SessionPain? SessionToday()
    {
        var told = input.Sessions?.LastOrDefault(s => s.Visit == input.Visit);
        var sets = SetsToday().ToList();
        int? peak = sets.Max(s => s.PainMost);
        if (told is null && peak is null)
        {
            return null;
        }
        var last = sets.LastOrDefault(s => s.PainMost is not null);
        return new SessionPain(
            input.Visit,
            input.Date,
            told?.Start ?? input.CheckIn.PainNow,
            peak > told?.Peak || told?.Peak is null ? peak ?? told?.Peak : told.Peak,
            told?.End ?? last?.PainAfter ?? last?.PainPeak,
            told?.EndMinutes,
            told?.Legs
        );
    }

    /// <summary>Everything done at this visit, what was tried one up among it.</summary>
    private IEnumerable<SetDone> SetsToday() =>
        input
            .Visits.Where(p => p.Visit == input.Visit)
            .SelectMany(p => p.Sets)
            .Concat((input.Probes ?? []).Where(p => p.Visit == input.Visit).Select(p => p.Set));

    private IEnumerable<DayRule> HoldRules()
    {
        var now = input.CheckIn.PainNow;
        if (now >= judgement.NoTrainingFrom)
        {
            yield return new("D-NO-TRAINING", Message.Of("day.no-training", ("pain", now)));
        }
        if (now is null)
        {
            yield return new("D-PAIN-NOW", Message.Of("day.now-unknown"));
        }
        if (now - Reference.Value >= judgement.NowRise)
        {
            yield return new(
                "D-PAIN-NOW",
                Message.Of("day.now", ("pain", now), ("reference", Reference.Value), ("of", Reference.Words))
            );
        }
        foreach (var rule in SessionRules())
        {
            yield return rule;
        }
        foreach (var flare in Flares)
        {
            yield return flare;
        }
        if (Drift >= judgement.DriftHold && Flares.All(f => f.RuleId != "D-PAIN-DRIFT"))
        {
            yield return new("D-PAIN-DRIFT", Message.Of("day.drift", ("points", Drift)));
        }
    }

    private IEnumerable<DayRule> SessionRules()
    {
        if (Session is not { } session)
        {
            yield break;
        }
        var end = session.End - session.Start;
        var rise = SetRises().Append(session.Peak - session.Start ?? 0).Max();
        if (end >= judgement.SessionEndRise)
        {
            yield return new(
                "D-PAIN-SESSION",
                Message.Of(
                    "day.session-end",
                    ("pain", session.End),
                    ("minutes", session.EndMinutes),
                    ("start", session.Start)
                )
            );
        }
        else if (rise >= judgement.SessionPeakRise)
        {
            yield return new("D-PAIN-SESSION", Message.Of("day.session-rise", ("points", rise)));
        }
    }

    private IEnumerable<int> SetRises() =>
        SetsToday().Select(set => set.Rise(input.CheckIn.PainNow)).OfType<int>();

    private IEnumerable<DayRule> FlareRules()
    {
        var check = input.CheckIn;
        if (check.NextDayPain - Reference.Value >= policy.NextDayRise)
        {
            yield return new(
                "D-PAIN-NEXT",
                Message.Of(
                    "day.next",
                    ("pain", check.NextDayPain),
                    ("reference", Reference.Value),
                    ("of", Reference.Words)
                )
            );
        }
        else if (check.Hours > policy.SettleHours)
        {
            yield return new(
                "D-PAIN-NEXT",
                check.Settled is { } word
                    ? Message.Of("day.settled-word", ("settling", word))
                    : Message.Of("day.settled-hours", ("hours", check.Hours), ("most", policy.SettleHours))
            );
        }
        if (HomeFlare() is { } home)
        {
            yield return new("D-PAIN-HOME", home);
        }
        if (Drift >= judgement.DriftTakeBack)
        {
            yield return new("D-PAIN-DRIFT", Message.Of("day.drift-review", ("points", Drift)));
        }
    }

    private Message? HomeFlare()
    {
        var rises = HomeRises().ToList();
        if (rises.Any(rise => rise >= judgement.HomePeak))
        {
            return Message.Of("day.home-peak", ("rise", rises.Max()), ("reference", Reference.Value));
        }
        if (input.HomePain is not { } days)
        {
            return null;
        }
        var over = days.Where(d => d.Most - Reference.Value >= judgement.NowRise)
            .Select(d => d.Day.DayNumber)
            .Distinct()
            .Order()
            .ToList();
        var dense = over.Any(day =>
            over.Count(other => other >= day && other < day + 7) >= judgement.HomeDays
        );
        return dense
            ? Message.Of(
                "day.home-often",
                ("rise", judgement.NowRise),
                ("reference", Reference.Value),
                ("days", over.Count)
            )
            : null;
    }

    /// <summary>Over the reference, day by day; where only the worst of an exercise is known, that as one day.</summary>
    private IEnumerable<int> HomeRises() =>
        (input.HomePain ?? [])
            .Select(d => d.Most)
            .Concat((input.Home ?? []).SelectMany(h => new[] { h.WorstPain, h.WorstMorning }))
            .OfType<int>()
            .Select(pain => pain - Reference.Value);

    private bool IsSteady() =>
        Past.Even
        && input.CheckIn.Hours <= policy.SettleHours
        && !Profile.WakesAtNight
        && Holds.Count == 0
        && Past.Quiet;

    private bool Probing(PracticeLibrary library) =>
        Profile.Precautions.All(p => library.Precaution(p.Id) is not { NoProbes: true })
        && (Steady || Level != Irritability.High && Past.WeekCalm);
}
