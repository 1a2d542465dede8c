using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>Decides every exercise and side of a plan for one visit.</summary>
public static class DecisionEngine
{
    /// <summary>One decision per exercise and side, in the plan's order, with caps applied and a counterfactual each.</summary>
    public static IReadOnlyList<Decision> Decide(DecideInput input, PracticeLibrary library) =>
        [
            .. Bare(input, library)
                .Select(decision =>
                    decision with
                    {
                        WouldChange = Counterfactual.Of(decision, input, library),
                    }
                ),
        ];

    /// <summary>The decision a practitioner makes instead of the proposal; its reason is kept with the record.</summary>
    public static Decision Chosen(
        DecideInput input,
        Guid itemId,
        Side side,
        Outcome outcome,
        PracticeLibrary library
    ) =>
        new DecisionRules(input, input.Items.First(item => item.Id == itemId), side, library).Chosen(outcome);

    /// <summary>The decisions without their counterfactuals; what the search for counterfactuals calls.</summary>
    internal static IReadOnlyList<Decision> Bare(DecideInput input, PracticeLibrary library)
    {
        var decisions = input
            .Items.SelectMany(item =>
                item.Doses.Select(d => new DecisionRules(input, item, d.Side, library).Decide())
            )
            .ToList();
        return CapRisesWhenSore(decisions, input, library);
    }

    /// <summary>D-CAP-RISE: when stirred-up-ness is high, only the first exercise that earned a rung gets it today.</summary>
    private static List<Decision> CapRisesWhenSore(
        List<Decision> decisions,
        DecideInput input,
        PracticeLibrary library
    )
    {
        var policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        if (StirredUpLevel.Of(input.Profile, policy) != StirredUp.High)
        {
            return decisions;
        }
        var first = decisions.FirstOrDefault(d => d.Outcome == Outcome.StepUp)?.PlanItemId;
        return
        [
            .. decisions.Select(d =>
                d.Outcome == Outcome.StepUp && d.PlanItemId != first ? Held(d, input) : d
            ),
        ];
    }

    private static Decision Held(Decision decision, DecideInput input)
    {
        var item = input.Items.First(i => i.Id == decision.PlanItemId);
        return decision with
        {
            Outcome = Outcome.Stay,
            RuleId = "D-CAP-RISE",
            RungId = item.RungId,
            Dose = item.Doses.First(d => d.Side == decision.Side).Dose,
            Evidence = [.. decision.Evidence, "Easily stirred up: one exercise moves up a rung per visit."],
        };
    }
}
