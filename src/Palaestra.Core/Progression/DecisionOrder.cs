using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>
/// All D-rules are tried, and the mildest outcome wins: stop, step down, ease, change, stay, add, step up. All that fired are
/// kept with it. Groups: red flags end all; what eases; what holds; what earns, of which the first that fires speaks; under a
/// rule that forbids it nothing is added. Plateau stands in place of staying, never under pain; D-HOME in place of adding.
/// </summary>
internal static class DecisionOrder
{
    private static readonly IReadOnlyList<Func<DecisionCase, Decision?>> Easing =
    [
        PainRules.Stop,
        PainRules.Session,
        PainRules.Flare,
        PainRules.Leg,
        PainRules.Barred,
        StallRules.Away,
        FaultRules.Cap,
        FaultRules.DoneLess,
        FaultRules.Breath,
        BreakingLoad.Under,
        LeanPlan.Out,
    ];

    private static readonly IReadOnlyList<Func<DecisionCase, Decision?>> Holding =
    [
        PainRules.Watch,
        FaultRules.Tremor,
        FaultRules.SetUp,
        FaultRules.Cue,
    ];

    private static readonly IReadOnlyList<Func<DecisionCase, Decision?>> Earning =
    [
        ProbeRules.Probe,
        AdvanceRules.OneSide,
        AdvanceRules.Master,
        AdvanceRules.Build,
        AdvanceRules.Confirm,
    ];

    public static Decision Decide(DecisionCase c)
    {
        var (taken, earned, fired) = Take(c);
        if (taken.RuleId == RestRule)
        {
            return taken;
        }
        return With(c, earned is null ? taken : taken with { Probe = Offer(c, fired, earned) }, fired);
    }

    /// <summary>What is taken, without the words of all that fired and what is offered: enough to know what would become of it.</summary>
    public static Decision Bare(DecisionCase c) => Take(c).Taken;

    private const string RestRule = "D-REST";

    /// <returns>Earned: what the work alone would have earned; none where it was not looked at.</returns>
    private static (Decision Taken, Decision? Earned, List<Decision> Fired) Take(DecisionCase c)
    {
        if (PainRules.Refer(c) is { } refer)
        {
            return (refer, null, [refer]);
        }
        if (c.Item.Resting)
        {
            return (c.Stay(RestRule, Message.Of("rest")), null, []);
        }
        List<Decision> fired =
        [
            .. Easing.Select(rule => rule(c)).OfType<Decision>(),
            .. PainRules.Holding(c),
            .. Holding.Select(rule => rule(c)).OfType<Decision>(),
        ];
        var earned = Earning.Select(rule => rule(c)).FirstOrDefault(d => d is not null) ?? AsItIs(c);
        if (StallRules.Home(c, earned) is { } home)
        {
            fired.Add(home);
        }
        fired.Add(Earned(c, earned, fired));
        var mildest = fired.MinBy(Mildness)!;
        var taken = StallRules.Plateau(c, mildest, fired) ?? mildest;
        return (taken, earned, fired);
    }

    /// <summary>D-READY: only where nothing else fired but too little home work. Where a step is taken anyway, none is offered.</summary>
    private static ProbeOffer? Offer(DecisionCase c, List<Decision> fired, Decision earned) =>
        fired.All(d => d.RuleId is "D-HOME" || d.RuleId == earned.RuleId) ? ProbeRules.Ready(c) : null;

    /// <summary>What was earned, if nothing else holds; else why it stays. Half the sets after a flare earn nothing meanwhile.</summary>
    private static Decision Earned(DecisionCase c, Decision earned, List<Decision> fired)
    {
        // Extra sets for a weaker side are adding too.
        var adds = earned.Outcome is Outcome.Add or Outcome.StepUp || earned.Dose.Sets > c.Dose.Sets;
        return adds && (fired.Count > 0 || c.Item.Spell is not null)
            ? c.Stay(earned.RuleId, earned.Evidence)
            : earned;
    }

    /// <summary>Stop first; of equal outcomes the one that asks for less.</summary>
    private static (int, double) Mildness(Decision d) =>
        (Rank(d.Outcome), d.Dose.TotalReps * (d.Dose.Hold + 1));

    internal static int Rank(Outcome outcome) =>
        outcome switch
        {
            Outcome.Stop => 0,
            Outcome.StepDown => 1,
            Outcome.Ease => 2,
            Outcome.Change => 3,
            Outcome.Stay => 4,
            Outcome.Add => 5,
            _ => 6,
        };

    /// <summary>The decision with all that fired; pain that rose is said first, whatever the rest says.</summary>
    private static Decision With(DecisionCase c, Decision taken, IReadOnlyList<Decision> fired)
    {
        var rules = fired.Where(d => d.RuleId != taken.RuleId && d.RuleId != AsItIsRule).ToList();
        var pain = PainWords(c);
        var said = rules
            .Where(d =>
                Rank(d.Outcome) <= Rank(Outcome.Stay) && d.Outcome != taken.Outcome || IsPain(d.RuleId)
            )
            .SelectMany(d => d.Evidence.Take(1));
        return taken with
        {
            Evidence = [.. new[] { pain }.OfType<Message>().Concat(taken.Evidence).Concat(said).Distinct()],
            Fired =
            [
                new(taken.RuleId, taken.Outcome, taken.Evidence),
                .. taken.Fired ?? [],
                .. rules.Select(d => new FiredRule(d.RuleId, d.Outcome, d.Evidence)),
            ],
            Todo = taken.Todo ?? rules.Select(d => d.Todo).FirstOrDefault(todo => todo is not null),
            Notes = fired.SelectMany(d => d.Notes ?? []).Distinct().ToList() is { Count: > 0 } notes
                ? notes
                : null,
        };
    }

    private static bool IsPain(string rule) => RuleGroups.Pain.Contains(rule);

    /// <summary>"Pain rose from 4 to 7."; none where it did not, or is not known.</summary>
    private static Message? PainWords(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } today)
        {
            return null;
        }
        var at = c.Input.CheckIn.PainNow;
        if (today.Sets.Where(set => set.Rise(at) > 0).MaxBy(set => set.Rise(at)) is { } set)
        {
            return Message.Of("pain.rose", ("from", set.PainBefore ?? at), ("to", set.PainMost));
        }
        var over = c.PainSets(today);
        return over > 0 ? Message.Of("pain.over-sets", ("over", over), ("sets", today.Sets.Count)) : null;
    }

    private const string AsItIsRule = "D-STAY";

    private static Decision AsItIs(DecisionCase c) =>
        c.Stay(
            AsItIsRule,
            c.Today(c.Side) is { } today
                ? Message.Of("stay.done", ("done", DecisionCase.Done(today)))
                : Message.Of("stay.not-done")
        );

    /// <summary>What the practitioner's own choice means in rung and dose; stays where the choice has nowhere to go.</summary>
    public static Decision Chosen(DecisionCase c, Outcome outcome) =>
        outcome switch
        {
            Outcome.StepUp when c.Above is { } higher => To(c, outcome, higher, c.StartOf(higher)),
            Outcome.StepDown when c.Below is { } lower => To(
                c,
                outcome,
                lower,
                Steps.Fitted(c.StartOf(lower), lower, c.Dose.Seconds(c.Rung.MoveSeconds))
            ),
            Outcome.Add => To(c, outcome, c.Rung, c.Harder(c.Policy.WeeklyGrowth) ?? c.Dose),
            Outcome.Ease when Steps.Down(c, EaseCause.Pain) is { Outcome: Outcome.Ease } step => To(
                c,
                outcome,
                step.Rung,
                step.Dose
            ),
            Outcome.Stop => To(c, outcome, c.Rung, c.Dose),
            Outcome.Change when StallRules.Change(c, Override, []) is { } change => change,
            _ => To(c, Outcome.Stay, c.Rung, c.Dose),
        };

    private const string Override = "D-OVERRIDE";

    private static Decision To(DecisionCase c, Outcome outcome, Rung rung, Dose dose) =>
        c.Make(outcome, Override, rung, dose, []);
}
