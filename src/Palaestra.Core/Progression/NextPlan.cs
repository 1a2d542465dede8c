using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>The next plan revision from the present plan and the decisions taken.</summary>
public static class NextPlan
{
    /// <summary>
    /// A two-sided exercise has one rung: it goes down when either side goes down and up only when both go up.
    /// A stop on either side takes the exercise out. A stalled one may go to another ladder, or the plan gets another strategy
    /// or switch-on. An exercise that changes its position moves to where that position is done (P-ORDER); all others keep
    /// their order.
    /// </summary>
    public static Plan Apply(
        Plan plan,
        IReadOnlyList<Decision> decisions,
        PracticeLibrary library,
        Policy policy,
        ClientProfile profile,
        BodySize? body = null
    )
    {
        var items = new List<PlanItem>();
        foreach (var item in plan.Items)
        {
            var mine = decisions.Where(d => d.PlanItemId == item.Id).ToList();
            if (Next(item, mine, library, profile, body ?? BodySize.Typical) is { } kept)
            {
                items.Add(kept);
            }
        }
        var next = PlanTime.WithMinutes(
            plan with
            {
                Items = InPlace(items, plan, library),
                Strategy = decisions.FirstOrDefault(d => d.Strategy is not null)?.Strategy ?? plan.Strategy,
                SwitchOn = decisions.FirstOrDefault(d => d.SwitchOn is not null)?.SwitchOn ?? plan.SwitchOn,
                PolicyId = policy.Id,
                PolicyVersion = policy.Version,
                LibraryVersion = library.Version,
            },
            library,
            policy
        );
        return next with
        {
            Warnings = PlanCheck.Warnings(next, profile, null, policy.MinutesPerDay, library),
        };
    }

    private static List<PlanItem> InPlace(List<PlanItem> items, Plan before, PracticeLibrary library)
    {
        string Position(PlanItem item) => library.Rung(item.RungId).Position;
        int Rank(PlanItem item) => library.Positions.ToList().IndexOf(Position(item));
        var moved = items
            .Where(item => Position(before.Items.First(old => old.Id == item.Id)) != Position(item))
            .ToList();
        var order = items.Except(moved).ToList();
        foreach (var item in moved)
        {
            var same = order.FindLastIndex(other => Position(other) == Position(item));
            var later = order.FindIndex(other => Rank(other) > Rank(item));
            order.Insert(
                same >= 0 ? same + 1
                    : later >= 0 ? later
                    : order.Count,
                item
            );
        }
        return order;
    }

    private static PlanItem? Next(
        PlanItem item,
        IReadOnlyList<Decision> decisions,
        PracticeLibrary library,
        ClientProfile profile,
        BodySize body
    )
    {
        if (decisions.Count == 0)
        {
            return item;
        }
        if (decisions.Any(d => d.Outcome == Outcome.Stop))
        {
            return null;
        }
        var reasons = decisions
            .Select(d => new Reason(d.RuleId, $"{Prefix(d.Side)}{string.Join(" ", d.Evidence)}"))
            .DistinctBy(reason => reason.Words)
            .ToList();
        var changedOn = decisions.Max(d => d.ChangedOn) ?? item.ChangedOn;
        var ladder = library.LadderOf(item.RungId);
        // A rung of another ladder has no place on this one (−1): a change goes before everything but a stop.
        var rungId = decisions.Select(d => d.RungId).MinBy(ladder.IndexOf)!;
        var rung = library.Rung(rungId);
        if (rungId == item.RungId)
        {
            var doses = item.Doses.Select(d => d with { Dose = Dose(decisions, d, rungId) }).ToList();
            return item with { Doses = doses, Reasons = reasons, ChangedOn = changedOn };
        }
        var moved = decisions.First(d => d.RungId == rungId);
        var order =
            rung.Sides == RungSides.Each && item.Doses.Count == 2
                ? item.Doses.Select(d => d.Side)
                : rung.TaskSides;
        return item with
        {
            RungId = rungId,
            Doses =
            [
                .. order.Select(side =>
                    PlanRange.Cautious(new SideDose(side, moved.Dose), rung, profile, body, library)
                ),
            ],
            Reasons = reasons,
            Cue = rung.Cues[0],
            Changes = ItemChanges.Of(rung, profile, library),
            ChangedOn = changedOn,
        };
    }

    private static Dose Dose(IReadOnlyList<Decision> decisions, SideDose side, string rungId) =>
        decisions.FirstOrDefault(d => d.Side == side.Side && d.RungId == rungId)?.Dose ?? side.Dose;

    private static string Prefix(Side side) =>
        side == Side.Both ? "" : $"{char.ToUpperInvariant(side.Word()[0])}{side.Word()[1..]}: ";
}
