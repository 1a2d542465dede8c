using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>
/// D-HOME after two weeks: where under half of the home programme was done, the plan shrinks to what is done. What is done least
/// goes; two exercises always stay, or as many as the policy says. A programme of two that is done does more than one of six that is not (common practice).
/// </summary>
internal static class LeanPlan
{
    public static Decision? Out(DecisionCase c) =>
        LetGo(c.Input, c.Policy).Contains(c.Item.Id)
            ? c.Make(
                Outcome.Stop,
                "D-HOME",
                c.Rung,
                c.Dose,
                [
                    Message.Of(
                        "lean.shrinks",
                        ("days", c.Judgement.ShrinkDays),
                        ("home", Share(c.Input.HomeLong!)),
                        ("this", Share(Of(c.Input, c.Item.Id)))
                    ),
                ]
            )
            : null;

    /// <summary>Exercises that go, none where enough is done or nothing is known.</summary>
    public static IReadOnlyList<Guid> LetGo(DecideInput input, Policy policy)
    {
        if (input.HomeLong is not { Count: > 0 } home || !(Share(home) < policy.HomeLessFraction))
        {
            return [];
        }
        var items = input.Items.Where(item => !item.Resting).Select(item => item.Id).ToList();
        // What is done at the visit alone has no home work to measure it by.
        var asked = items.Where(id => Share(Of(input, id)) is not null).ToList();
        var kept = Math.Max(
            policy.Judgement.ShrinkLeast - (items.Count - asked.Count),
            (int)Math.Ceiling(Share(home)!.Value * asked.Count)
        );
        return [.. asked.OrderByDescending(id => Share(Of(input, id))).Skip(Math.Max(0, kept))];
    }

    private static IReadOnlyList<HomeWork> Of(DecideInput input, Guid item) =>
        [.. input.HomeLong!.Where(home => home.PlanItemId == item)];

    /// <summary>Done over planned; none where nothing was planned.</summary>
    private static double? Share(IReadOnlyList<HomeWork> home) =>
        home.Sum(h => h.PlannedReps) is > 0 and var planned
            ? (double)home.Sum(h => h.DoneReps) / planned
            : null;
}
