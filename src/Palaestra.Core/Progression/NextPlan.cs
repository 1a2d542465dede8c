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
                Activation =
                    decisions.FirstOrDefault(d => d.Activation is not null)?.Activation ?? plan.Activation,
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
        int Rank(PlanItem item) =>
            library.Positions.Select(position => position.Id).ToList().IndexOf(Position(item));
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
        if (item.Resting)
        {
            return Rested(item, library, profile, body);
        }
        if (decisions.Any(d => d.Outcome == Outcome.Stop))
        {
            return
                decisions.All(d => d.Outcome != Outcome.Stop || d.Spell is not null)
                && decisions.First(d => d.Outcome == Outcome.Stop) is var rest
                ? item with
                {
                    Spell = rest.Spell,
                    Reasons = [new(rest.RuleId, Message.Of("evidence", ("parts", rest.Evidence)))],
                }
                : null;
        }
        var reasons = decisions
            .Select(d => new Reason(
                d.RuleId,
                Message.Of("evidence", ("side", d.Side), ("parts", d.Evidence))
            ))
            .DistinctBy(reason => reason.Words)
            .ToList();
        var changedOn = decisions.Max(d => d.ChangedOn) ?? item.ChangedOn;
        var ladder = library.LadderOf(item.RungId);
        // A rung of another ladder has no place on this one (−1): a change goes before everything but a stop.
        var rungId = decisions.Select(d => d.RungId).MinBy(ladder.IndexOf)!;
        var rung = library.Rung(rungId);
        var notes = decisions.SelectMany(d => d.Notes ?? []).Distinct().ToList();
        if (rungId == item.RungId)
        {
            return item with
            {
                Doses =
                [
                    .. item.Doses.Select(d =>
                        PlanRange.Cautious(
                            new SideDose(d.Side, Dose(decisions, d, rungId)),
                            rung,
                            profile,
                            body,
                            library
                        )
                    ),
                ],
                Reasons = reasons,
                ChangedOn = changedOn,
                Spell = SpellOf(decisions) ?? item.Spell,
                Notes = notes.Count > 0 ? notes : item.Notes,
            };
        }
        var moved = decisions.First(d => d.RungId == rungId);
        var down = moved.Outcome is Outcome.StepDown or Outcome.Ease;
        // A side that was not the reason, and did less, does no more than it did.
        Dose Of(Side side) =>
            decisions.FirstOrDefault(d => d.Side == side && d.RungId == rungId) is { } own ? own.Dose
            : down && item.Doses.FirstOrDefault(d => d.Side == side) is { } was
                ? Steps.Fitted(moved.Dose, rung, was.Dose.Seconds(library.Rung(item.RungId).MoveSeconds))
            : moved.Dose;
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
                    PlanRange.Cautious(new SideDose(side, Of(side)), rung, profile, body, library)
                ),
            ],
            Reasons = reasons,
            Cue = rung.Cues[0],
            Changes = ItemChanges.Of(rung, profile, library),
            ChangedOn = changedOn,
            Spell = null,
            Notes = null,
        };
    }

    /// <summary>Halved sets, both sides with what they go back to.</summary>
    private static Spell? SpellOf(IReadOnlyList<Decision> decisions) =>
        decisions.Select(d => d.Spell).OfType<Spell>().ToList() is [var first, ..] spells
            ? first with
            {
                Then = [.. spells.SelectMany(spell => spell.Then)],
            }
            : null;

    /// <summary>
    /// One visit of rest less; after the last it returns, at the start dose of the rung the spell names. None where that rung
    /// is barred by now.
    /// </summary>
    private static PlanItem? Rested(
        PlanItem item,
        PracticeLibrary library,
        ClientProfile profile,
        BodySize body
    )
    {
        var spell = item.Spell!;
        if (spell.Visits > 1)
        {
            return item with { Spell = spell with { Visits = spell.Visits - 1 } };
        }
        var rung = library.Rung(spell.RungId);
        if (rung.TaskSides.Any(side => Allowance.Of(library, profile.Precautions, rung, side).Barred))
        {
            return null;
        }
        return item with
        {
            RungId = rung.Id,
            Spell = null,
            Doses =
            [
                .. rung.TaskSides.Select(side =>
                    PlanRange.Cautious(new SideDose(side, spell.Then[0].Dose), rung, profile, body, library)
                ),
            ],
            Reasons = [new("D-REST", Message.Of("rest.returns"))],
            Cue = rung.Cues[0],
            Changes = ItemChanges.Of(rung, profile, library),
        };
    }

    private static Dose Dose(IReadOnlyList<Decision> decisions, SideDose side, string rungId) =>
        decisions.FirstOrDefault(d => d.Side == side.Side && d.RungId == rungId)?.Dose ?? side.Dose;
}
