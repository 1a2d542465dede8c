using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>Decides every exercise and side of a plan for one visit.</summary>
public static class DecisionEngine
{
    /// <summary>One decision per exercise and side, in the plan's order, with caps applied and a counterfactual each.</summary>
    public static IReadOnlyList<Decision> Decide(DecideInput input, PracticeLibrary library)
    {
        var others = new OtherLadders(input, library);
        var day = new DayFacts(input, library);
        var tried = new TriedNumbers();
        return
        [
            .. Bare(input, library, others, day.Past)
                .Select(decision =>
                    decision with
                    {
                        WouldChange = new Counterfactual(
                            decision,
                            input,
                            library,
                            others,
                            day,
                            tried
                        ).Words(),
                    }
                ),
        ];
    }

    /// <summary>The decision a practitioner makes instead of the proposal; its reason is kept with the record.</summary>
    public static Decision Chosen(
        DecideInput input,
        Guid itemId,
        Side side,
        Outcome outcome,
        PracticeLibrary library
    ) =>
        DecisionOrder.Chosen(
            new DecisionCase(
                input,
                input.Items.First(item => item.Id == itemId),
                side,
                library,
                new OtherLadders(input, library),
                new DayFacts(input, library)
            ),
            outcome
        );

    /// <summary>The decisions without their counterfactuals; what searches call, many times.</summary>
    public static IReadOnlyList<Decision> Bare(DecideInput input, PracticeLibrary library) =>
        Bare(input, library, new OtherLadders(input, library), null);

    /// <param name="past">What the visits before say, where a like visit was decided already.</param>
    internal static IReadOnlyList<Decision> Bare(
        DecideInput input,
        PracticeLibrary library,
        OtherLadders others,
        DayPast? past
    ) => Each(input, library, others, past, DecisionOrder.Decide);

    /// <summary>Only what becomes of each, without all that fired: for searches.</summary>
    internal static IReadOnlyList<Decision> Outcomes(
        DecideInput input,
        PracticeLibrary library,
        OtherLadders others,
        DayPast past
    ) => Each(input, library, others, past, DecisionOrder.Bare);

    private static IReadOnlyList<Decision> Each(
        DecideInput input,
        PracticeLibrary library,
        OtherLadders others,
        DayPast? past,
        Func<DecisionCase, Decision> decide
    )
    {
        var day = new DayFacts(input, library, past);
        var decisions = input
            .Items.SelectMany(item =>
                OneRung(
                    item,
                    [
                        .. item.Doses.Select(d =>
                            decide(new DecisionCase(input, item, d.Side, library, others, day))
                        ),
                    ]
                )
            )
            .ToList();
        return Probes(OneChange(CapRisesWhenSore(decisions, input, day), input), input, library, day);
    }

    /// <summary>
    /// A two-sided exercise has one rung. Where one side stalls and the other is not eased, both change; where the other is
    /// eased, easing goes first and nothing else is changed today.
    /// </summary>
    private static IReadOnlyList<Decision> OneRung(PlanItem item, IReadOnlyList<Decision> sides)
    {
        if (sides is not [var a, var b] || sides.All(d => d.Outcome != Outcome.Change))
        {
            return sides;
        }
        if (sides.Any(d => d.Outcome is Outcome.Ease or Outcome.StepDown or Outcome.Stop))
        {
            return
            [
                .. sides.Select(d =>
                    d.Outcome == Outcome.Change ? Held(d, item, d.RuleId, Message.Of("side.other-first")) : d
                ),
            ];
        }
        return a.Outcome == Outcome.Change ? [a, Along(a, b)] : [Along(b, a), b];

        static Decision Along(Decision stalled, Decision other) =>
            other.Outcome == Outcome.Change
                ? other
                : stalled with
                {
                    Side = other.Side,
                    Evidence = [.. other.Evidence, Message.Of("side.stalled", ("side", stalled.Side))],
                };
    }

    /// <summary>D-CAP-RISE: when irritability is high, only the first exercise that earned a rung gets it today.</summary>
    private static List<Decision> CapRisesWhenSore(List<Decision> decisions, DecideInput input, DayFacts day)
    {
        if (day.Level != Irritability.High)
        {
            return decisions;
        }
        var first = decisions.FirstOrDefault(d => d.Outcome == Outcome.StepUp)?.PlanItemId;
        return decisions.ConvertAll(d =>
            d.Outcome == Outcome.StepUp && d.PlanItemId != first
                ? Held(d, ItemOf(d, input), "D-CAP-RISE", Message.Of("cap-rise"))
                : d
        );
    }

    /// <summary>D-CAP-CHANGE: of stalled exercises one is changed at a visit, so that it is known what made the difference.</summary>
    private static List<Decision> OneChange(List<Decision> decisions, DecideInput input)
    {
        var first = decisions.FirstOrDefault(d => d.Outcome == Outcome.Change)?.PlanItemId;
        return decisions.ConvertAll(d =>
            d.Outcome == Outcome.Change && d.PlanItemId != first
                ? Held(d, ItemOf(d, input), "D-CAP-CHANGE", Message.Of("cap-change"))
                : d
        );
    }

    /// <summary>
    /// What is ready on every side is offered, in the plan's order, as often in a visit as the policy lets; not where the step
    /// is earned anyway.
    /// </summary>
    private static List<Decision> Probes(
        IReadOnlyList<Decision> decisions,
        DecideInput input,
        PracticeLibrary library,
        DayFacts day
    )
    {
        var judgement = (library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy).Judgement;
        var done = (input.Probes ?? [])
            .Where(p => p.Visit == input.Visit)
            .Select(p => p.PlanItemId)
            .Distinct()
            .Count();
        var offered = decisions
            .GroupBy(d => d.PlanItemId)
            .Where(item =>
                item.All(d => d is { Probe: not null, Outcome: Outcome.Stay or Outcome.Add })
                && item.Select(d => d.Probe!.RungId).Distinct().Count() == 1
            )
            .Select(item => item.Key)
            .Take(Math.Max(0, (day.Calm ? judgement.ProbesCalm : judgement.ProbesElse) - done))
            .ToHashSet();
        return
        [
            .. decisions.Select(d =>
                d.Probe is null || offered.Contains(d.PlanItemId) ? d : d with { Probe = null }
            ),
        ];
    }

    private static PlanItem ItemOf(Decision decision, DecideInput input) =>
        input.Items.First(item => item.Id == decision.PlanItemId);

    private static Decision Held(Decision decision, PlanItem item, string rule, Message why) =>
        decision with
        {
            Outcome = Outcome.Stay,
            RuleId = rule,
            RungId = item.RungId,
            Dose = item.Doses.First(d => d.Side == decision.Side).Dose,
            Evidence = [.. decision.Evidence, why],
            Strategy = null,
            Activation = null,
            Todo = null,
            ChangedOn = null,
            LoadMore = null,
            Probe = null,
            Fired = [new(rule, Outcome.Stay, [why]), .. decision.Fired ?? []],
        };
}
