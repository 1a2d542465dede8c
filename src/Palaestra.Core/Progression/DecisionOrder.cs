using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>
/// The D-rules in their order; the first that fires decides. D-PLATEAU, D-AWAY and D-HOME come last and look at what the
/// others would do: they stand in place of staying for ever, of adding after a rest, and of adding unearned work.
/// </summary>
internal static class DecisionOrder
{
    private static readonly IReadOnlyList<Func<DecisionCase, Decision?>> First =
    [
        SafetyRules.Refer,
        SafetyRules.PainStop,
        SafetyRules.PainNext,
        FaultRules.Cap,
        FaultRules.Cue,
        FaultRules.DoneLess,
        AdvanceRules.OneSide,
        AdvanceRules.Master,
        AdvanceRules.Build,
        AdvanceRules.Confirm,
    ];

    private static readonly IReadOnlyList<Func<DecisionCase, Decision, Decision?>> Last =
    [
        StallRules.Plateau,
        StallRules.Away,
        StallRules.Home,
    ];

    public static Decision Decide(DecisionCase c)
    {
        var bare = First.Select(rule => rule(c)).FirstOrDefault(d => d is not null) ?? AsItIs(c);
        return Last.Select(rule => rule(c, bare)).FirstOrDefault(d => d is not null) ?? bare;
    }

    private static Decision AsItIs(DecisionCase c) =>
        c.Stay(
            "D-STAY",
            c.Today(c.Side) is { } today ? $"{DecisionCase.DoneWords(today)}." : "Not done today."
        );

    /// <summary>What the practitioner's own choice means in rung and dose; stays where the choice has nowhere to go.</summary>
    public static Decision Chosen(DecisionCase c, Outcome outcome) =>
        outcome switch
        {
            Outcome.StepUp when c.Above is { } higher => To(c, outcome, higher, c.StartOf(higher)),
            Outcome.StepDown when c.Below is { } lower => To(c, outcome, lower, c.StartOf(lower)),
            Outcome.Add => To(c, outcome, c.Rung, c.Harder(c.Policy.WeeklyGrowth) ?? c.Dose),
            Outcome.Ease => To(c, outcome, c.Rung, DoseStep.Easier(c.Dose, c.Rung) ?? c.Dose),
            Outcome.Stop => To(c, outcome, c.Rung, c.Dose),
            Outcome.Change when StallRules.Change(c, Override, []) is { } change => change,
            _ => To(c, Outcome.Stay, c.Rung, c.Dose),
        };

    private const string Override = "D-OVERRIDE";

    private static Decision To(DecisionCase c, Outcome outcome, Rung rung, Dose dose) =>
        c.Make(outcome, Override, rung, dose, []);
}
