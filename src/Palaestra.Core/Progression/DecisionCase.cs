using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>One exercise on one side at one visit: the facts the D-rules look at, and the steps they may take.</summary>
internal sealed class DecisionCase
{
    private readonly List<Performance> history;

    /// <summary>Asked by many rules; by reference, as two visits may be alike.</summary>
    private readonly Dictionary<Performance, bool> clean = new(ReferenceEqualityComparer.Instance);

    public DecisionCase(
        DecideInput input,
        PlanItem item,
        Side side,
        PracticeLibrary library,
        OtherLadders others,
        DayFacts day
    )
    {
        Others = others;
        Input = input;
        Item = item;
        Side = side;
        Library = library;
        Day = day;
        Policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        Rung = library.Rung(item.RungId);
        Ladder = library.LadderOf(item.RungId);
        Dose = item.Doses.First(d => d.Side == side).Dose;
        Goal = GoalOf(Rung);
        history = [.. input.Visits.Where(Concerns)];
        // Records come in the order of visits; a search decides often enough for the sort to count.
        history.Reverse();
        if (!Falling(history))
        {
            history.Sort((a, b) => b.Visit.CompareTo(a.Visit));
        }
    }

    public DecideInput Input { get; }
    public OtherLadders Others { get; }
    public PlanItem Item { get; }
    public Side Side { get; }
    public PracticeLibrary Library { get; }
    public DayFacts Day { get; }
    public Policy Policy { get; }
    public Judgement Judgement => Policy.Judgement;
    public Rung Rung { get; }
    public Ladder Ladder { get; }
    public Dose Dose { get; }
    public Irritability Level => Day.Level;

    /// <summary>The dose that, met clean, earns the next rung: by the school, within what the precautions let through.</summary>
    public Dose Goal { get; }

    public IEnumerable<Side> Sides => Item.Doses.Select(d => d.Side);

    /// <summary>What was done of this rung on one side, the latest visit first.</summary>
    public IEnumerable<Performance> History(Side of) => history.Where(done => done.Side == of);

    public Performance? Today(Side of) =>
        history.Find(done => done.Side == of) is { } latest && latest.Visit == Input.Visit ? latest : null;

    private static bool Falling(List<Performance> latestFirst)
    {
        for (var i = 1; i < latestFirst.Count; i++)
        {
            if (latestFirst[i].Visit > latestFirst[i - 1].Visit)
            {
                return false;
            }
        }
        return true;
    }

    private bool Concerns(Performance done) =>
        done.PlanItemId == Item.Id && done.RungId == Item.RungId && done.Visit <= Input.Visit;

    /// <summary>What was tried one up of this exercise today.</summary>
    public IReadOnlyList<ProbeDone> ProbesToday =>
        [.. (Input.Probes ?? []).Where(p => p.PlanItemId == Item.Id && p.Visit == Input.Visit)];

    public HomeWork? Home(Side of) =>
        Input.Home?.FirstOrDefault(home => home.PlanItemId == Item.Id && home.Side == of);

    /// <summary>Days without training before this visit; none where the last day is not known.</summary>
    public int? DaysAway => Input.LastWorkDate is { } last ? Input.Date.DayNumber - last.DayNumber : null;

    public bool Returned => DaysAway >= Policy.AwayDays;

    /// <summary>The sets of one side today that went over the limit for pain; eased ones count.</summary>
    public int PainSets(Performance done) =>
        done.Sets.Count(set => set.Over(Policy.Pain, Input.CheckIn.PainNow));

    /// <summary>Clean enough, and no set over the limit by its numbers either.</summary>
    public bool Clean(Performance done)
    {
        if (!clean.TryGetValue(done, out var known))
        {
            known = done.CleanEnough(Judgement.BrokenPer) && PainSets(done) == 0;
            clean[done] = known;
        }
        return known;
    }

    public bool Meets(Performance done) => Clean(done) && done.Prescribed.Covers(Goal);

    /// <summary>The most pain rose in a set of one side today, one tried one up among them; none where it is not known.</summary>
    public int? Rise(Side of) =>
        (Today(of)?.Sets ?? [])
            .Concat(
                ProbesToday
                    .Where(p => p.Side == of || Side.Both == of || p.Side == Side.Both)
                    .Select(p => p.Set)
            )
            .Max(set => set.Rise(Input.CheckIn.PainNow));

    private DoseLimit Limit => AllowanceOf(Rung, Side).Limit;

    public Allowance AllowanceOf(Rung rung, Side side) => Day.Past.AllowanceOf(Library, rung, side);

    /// <summary>As far as the cautions leave, 0 to 1.</summary>
    public double RangeOf(Rung rung) => Math.Min(1, Math.Max(PlanRange.Least, AllowanceOf(rung, Side).Range));

    private Dose GoalOf(Rung rung) =>
        DosePlanner.Within(
            (Policy.MovingOn == MovingOn.Endurance && rung.Endurance is { } one ? one : rung.Target) with
            {
                Range = RangeOf(rung),
            },
            Limit,
            rung,
            Policy
        );

    /// <summary>The next dose toward the goal: range first, then as the school builds; within the growth a week allows and what sore holds and precautions let through.</summary>
    /// <param name="room">Share of the present clean time that may still be added this week.</param>
    public Dose? Harder(double room)
    {
        if (Dose.Range < Goal.Range - 1e-9)
        {
            var wider = Steps.RangeStops.Where(stop => stop > Dose.Range + 1e-9).DefaultIfEmpty(1).First();
            return Dose with { Range = Math.Min(wider, Goal.Range) };
        }
        var more =
            Policy.MovingOn == MovingOn.Endurance && Rung.Endurance is not null
                ? DoseStep.Longer(Dose, Rung, Goal, room)
                : DoseStep.Harder(Dose, Rung, Goal, room);
        return more is { } dose && Held(dose) != Dose ? Held(dose) : null;
    }

    /// <summary>
    /// Where nothing harder is open any more: the first way to make this rung harder that suits it, with what is at hand; none
    /// that a precaution bars, none over one that is there.
    /// </summary>
    public Dose? HarderByModifier() =>
        Dose.Modifier is null
        && Library.Modifiers.FirstOrDefault(m =>
            m.Harder
            && m.Fits(Rung, Ladder)
            && m.BarredFor(Day.Profile) is null
            && (Input.Equipment is not { } have || m.Equipment.All(have.Contains))
        )
            is { } modifier
            ? StartOf(Rung) with
            {
                Range = Dose.Range,
                Height = Dose.Height,
                Load = Dose.Load,
                Band = Dose.Band,
                Modifier = modifier.Id,
            }
            : null;

    /// <summary>Once the target is met: help taken off, a lower surface, or the next weight or band, of the same rung at its start dose.</summary>
    public Dose? HarderSetting()
    {
        var start = StartOf(Rung) with { Range = Dose.Range, Modifier = Dose.Modifier };
        // Help fades before anything else is made harder.
        if (Library.FindModifier(Dose.Modifier) is { Harder: false })
        {
            return start with { Modifier = null };
        }
        if (Rung.HarderHeights(Dose.Height) is [var height, ..])
        {
            return start with { Height = height };
        }
        if (
            Rung.Loads is { } loads
            && loads.FirstOrDefault(kg => kg > (Dose.Load ?? loads[0]) + 1e-9) is > 0 and var more
            && !(more > BreakingLoad.Most(this) + 1e-9)
        )
        {
            return start with { Load = more };
        }
        return Rung.Banded && Dose.Band is not Band.Strong
            ? start with
            {
                Band = (Dose.Band ?? Band.Light) + 1,
            }
            : null;
    }

    /// <summary>D-CAP-HOLD: short holds stay short until the back is calm or steady, on the rungs that say so.</summary>
    private Dose Held(Dose dose)
    {
        var most =
            Day.Calm || !Rung.Features.Contains(Rung.ShortHoldsFeature)
                ? double.PositiveInfinity
                : Math.Max(Policy.Sore.HoldMax, Dose.Hold);
        return DosePlanner.Within(dose with { Hold = Math.Min(dose.Hold, most) }, Limit, Rung, Policy);
    }

    public Dose StartOf(Rung rung) =>
        DosePlanner.Within(
            // A load that was not chosen is the lightest.
            DosePlanner.Start(rung, Level, Policy) with
            {
                Load = rung.Loads is [var lightest, ..] ? lightest : null,
            },
            AllowanceOf(rung, Side).Limit,
            rung,
            Policy
        );

    public Rung? Above => Step(+1).FirstOrDefault();

    public Rung? Below => Step(-1).FirstOrDefault();

    /// <summary>Open rungs below, the nearest first.</summary>
    public IEnumerable<Rung> AllBelow => Step(-1);

    /// <summary>Not barred by a precaution, not closed by the school, with everything at hand.</summary>
    public bool Open(Rung rung) =>
        !Policy.Closes(rung)
        && (Input.Equipment is not { } have || rung.Equipment.All(have.Contains))
        && !rung.TaskSides.Any(side => AllowanceOf(rung, side).Barred)
        && !AllowanceOf(rung, Side).Barred;

    /// <summary>Open rungs of the ladder in one direction, the nearest first.</summary>
    private IEnumerable<Rung> Step(int by)
    {
        // Neutral positions are no ladder of difficulty: nothing is above or below them.
        if (Ladder.Direction == Direction.None && !Ladder.IsTolerance)
        {
            yield break;
        }
        for (var i = Ladder.IndexOf(Rung.Id) + by; i >= 0 && i < Ladder.Rungs.Count; i += by)
        {
            if (!Open(Ladder.Rungs[i]))
            {
                continue;
            }
            // What waits until the back is calm is not climbed past.
            if (by > 0 && !Day.Calm && Ladder.Rungs[i].Features.Any(Policy.Sore.Avoids.Contains))
            {
                yield break;
            }
            yield return Ladder.Rungs[i];
        }
    }

    /// <summary>Directions in which the trunk gave way today on this side.</summary>
    public IEnumerable<Direction> GaveWay() =>
        (Today(Side)?.Sets ?? [])
            .Select(set => set.FirstFault)
            .OfType<string>()
            .Select(code => Library.FindFault(code))
            .OfType<Fault>()
            .Select(fault => FaultPointing.Of(fault, Rung, Library).Direction)
            .Where(direction => direction != Direction.None)
            .Distinct();

    /// <summary>One step down that is true to load; where nothing is left to ease it says so, and plateau looks for another way.</summary>
    public Decision EaseOneStep(string rule, EaseCause cause, params IReadOnlyList<Message> evidence) =>
        Steps.Down(this, cause) is { } step
            ? Make(step.Outcome, rule, step.Rung, step.Dose, [.. evidence, step.Words])
            : Stay(rule, [.. evidence, Message.Of("ease.nothing")]);

    public Decision Stay(string rule, params IReadOnlyList<Message> evidence) =>
        Make(Outcome.Stay, rule, Rung, Dose, evidence);

    public Decision Make(Outcome outcome, string rule, Rung to, Dose next, IReadOnlyList<Message> evidence) =>
        new(
            Item.Id,
            Side,
            outcome,
            rule,
            to.Id,
            next,
            evidence,
            null,
            LoadMore: to.Id == Rung.Id && next.SettingCovers(Dose) && Dose.SettingCovers(next)
                ? null
                : Steps.LoadMore(this, to, next)
        );

    public static Message Done(Performance today) =>
        Message.Of("done.clean", ("clean", today.CleanReps), ("asked", today.Prescribed.TotalReps));
}
