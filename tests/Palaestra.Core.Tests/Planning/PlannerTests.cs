using CsCheck;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlannerTests
{
    /// <summary>Screens every open ladder of a client who truly holds up to the given rung on each side.</summary>
    private static ScreenFindings Screen(
        ClientProfile who,
        IReadOnlyDictionary<string, (int Left, int Right)> truth
    )
    {
        var tape = new Tape();
        foreach (var ladder in Content.Library.Ladders.Where(l => l.Screened))
        {
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                while (
                    RungFinder
                        .Search(ladder, side, tape.Trials(), who, Content.Policy, Content.Library)
                        .NextRungId
                        is { } next
                )
                {
                    var rung = Content.Library.Rung(next);
                    var holds = side == Side.Left ? truth[ladder.Id].Left : truth[ladder.Id].Right;
                    tape.Start(next, rung.Sides == RungSides.Each ? side : Side.Both);
                    _ =
                        ladder.IndexOf(next) <= holds
                            ? tape.Reps(rung.Start.Reps, rung.Start.Hold)
                            : tape.Rep(rung.Start.Hold, rung.Faults[0], 0.5)
                                .Rep(rung.Start.Hold, rung.Faults[0], 0.5);
                    tape.End();
                }
            }
        }
        return FindingsMaker.Of(tape.Trials(), who, Content.Policy, Content.Library);
    }

    private static PlanProposal Propose(
        ClientProfile who,
        int left = 4,
        int right = 4,
        double minutes = 20
    ) =>
        Propose(
            who,
            new Dictionary<string, (int, int)>
            {
                ["B"] = (left, right),
                ["D"] = (left, right),
                ["E"] = (left, right),
            },
            minutes
        );

    private static PlanProposal Propose(
        ClientProfile who,
        IReadOnlyDictionary<string, (int Left, int Right)> truth,
        double minutes
    )
    {
        var input = new PlanInput(
            who,
            Screen(who, truth),
            Content.Policy.Id,
            SpinalStrategy.Neutral,
            Activation.Brace,
            minutes,
            Equipment: Everything
        );
        return Planner.Propose(input, Content.Library, Guid.NewGuid);
    }

    private static IReadOnlyList<string> Everything => [.. Content.Library.Equipment.Select(e => e.Id)];

    private static PlanItem Item(PlanProposal proposal, string ladder) =>
        proposal.Plan.Items.Single(item => Content.Library.LadderOf(item.RungId).Id == ladder);

    [Fact]
    public void Prescribes_at_the_entry_rung_with_its_reason()
    {
        var item = Item(Propose(Someone.Calm), "B");
        Assert.Equal("B5", item.RungId);
        Assert.Contains(item.Reasons, reason => reason.RuleId == "P-ENTRY");
    }

    [Fact]
    public void A_two_sided_ladder_moves_with_its_weaker_side_which_goes_first_and_gets_more()
    {
        var item = Item(Propose(Someone.Calm, left: 2, right: 1), "B");
        Assert.Equal("B2", item.RungId);
        Assert.Equal(Side.Right, item.Doses[0].Side);
        Assert.True(item.Doses[0].Dose.TotalReps > item.Doses[1].Dose.TotalReps);
        Assert.Contains(item.Reasons, reason => reason.RuleId == "P-WEAKER");
    }

    [Fact]
    public void P_SHOWN_a_ladder_not_screened_goes_as_far_as_other_tasks_showed_and_no_higher_than_its_lower_third()
    {
        var truth = new Dictionary<string, (int, int)>
        {
            ["B"] = (10, 10),
            ["D"] = (6, 6),
            ["E"] = (7, 7),
        };
        var items = Propose(Someone.Calm, truth, 60)
            .Plan.Items.Where(i => i.Reasons.Any(r => r.RuleId == "P-SHOWN"))
            .ToList();
        Assert.NotEmpty(items);
        foreach (var item in items)
        {
            var ladder = Content.Library.LadderOf(item.RungId);
            Assert.DoesNotContain(ladder.Id, truth.Keys);
            Assert.InRange(ladder.IndexOf(item.RungId), 1, (int)Math.Ceiling(ladder.Rungs.Count / 3.0) - 1);
        }
    }

    [Fact]
    public void A_sore_client_gets_few_reps_short_holds_and_the_lower_third()
    {
        var proposal = Propose(Someone.Sore, left: 4, right: 4);
        Assert.Equal(Irritability.High, proposal.Irritability);
        foreach (var item in proposal.Plan.Items)
        {
            Assert.All(item.Doses, d => Assert.InRange(d.Dose.Reps, 1, 3));
            Assert.All(item.Doses, d => Assert.Equal(1, d.Dose.Sets));
            Assert.All(item.Doses, d => Assert.InRange(d.Dose.Hold, 0, 5));
        }
        Assert.Contains(Item(proposal, "B").RungId, new[] { "B1", "B2", "B3", "B4" });
    }

    [Fact]
    public void Falls_back_to_neutral_where_not_even_the_lowest_rung_is_clean()
    {
        var proposal = Propose(Someone.Calm, left: -1, right: -1);
        Assert.Contains(proposal.Plan.Items, item => item.RungId == "A3");
        Assert.DoesNotContain(proposal.Plan.Items, item => Content.Library.LadderOf(item.RungId).Screened);
    }

    [Fact]
    public void The_weak_link_comes_before_the_others_when_minutes_are_short()
    {
        var truth = new Dictionary<string, (int, int)>
        {
            ["B"] = (10, 10),
            ["D"] = (6, 6),
            ["E"] = (0, 0),
        };
        var proposal = Propose(Someone.Calm, truth, minutes: 4);
        Assert.Contains(proposal.Plan.Items, item => item.Reasons.Any(r => r.RuleId == "P-WEAK"));
    }

    [Fact]
    public void The_wrist_takes_hands_and_knees_out_and_says_so()
    {
        var proposal = Propose(Someone.With("wrist"));
        Assert.DoesNotContain(
            proposal.Plan.Items,
            item => Content.Library.Rung(item.RungId).Features.Contains("hands-flat")
        );
        Assert.Contains(
            proposal.Forbidden,
            f => f.RungId == "D3" && f.Why.En().Contains("wrist", StringComparison.Ordinal)
        );
        Assert.Contains(proposal.NotChosen, reason => reason.RuleId == "P-BARRED");
    }

    [Fact]
    public void Three_to_six_exercises_for_everybody_with_room_in_the_day_and_a_reason_for_each() =>
        Gen.Select(AnyClient.Profile, Gen.Int[0, 4], Gen.Int[0, 4])
            .Sample(
                (who, left, right) =>
                {
                    var proposal = Propose(who, left, right, 40);
                    Assert.InRange(proposal.Plan.Items.Count, 1, Content.Policy.ExercisesMax);
                    Assert.True(
                        proposal.Plan.Items.Count >= Content.Policy.ExercisesMin
                            || proposal.Notes!.Any(note => note.RuleId == "P-NEAREST-FEW")
                    );
                    Assert.All(proposal.Plan.Items, item => Assert.NotEmpty(item.Reasons));
                    Assert.DoesNotContain(
                        proposal.Plan.Warnings,
                        w => w.RuleId is "P-ENTRY" or "P-CAP" or "P-BARRED" or "P-ONE-SIDED" or "P-MINUTES"
                    );
                },
                iter: 150
            );

    [Fact]
    public void A_goal_brings_in_a_ladder_that_leads_there()
    {
        var input = Input(Someone.Calm, 20);
        var without = Planner.Propose(input, Content.Library, Guid.NewGuid);
        var with = Planner.Propose(input with { Goals = ["lift"] }, Content.Library, Guid.NewGuid);
        var ladders = Content.Library.Goals.Single(goal => goal.Id == "lift").Ladders;
        int Served(PlanProposal p) =>
            p.Plan.Items.Count(i => ladders.Contains(Content.Library.LadderOf(i.RungId).Id));
        Assert.True(Served(with) >= Served(without));
        Assert.Contains(with.Plan.Items, item => item.Reasons.Any(reason => reason.RuleId == "P-GOAL"));
    }

    [Fact]
    public void A_calm_client_has_something_for_each_goal_and_a_lifter_a_hinge_or_a_lift_unless_none_may_go_in()
    {
        var (asked, missed) = (0, 0);
        AnyClient
            .Input.Select(input =>
                input with
                {
                    MinutesPerDay = 45,
                    // Six exercises serve three goals; nine goals, as some clients here have, they need not.
                    Goals = [.. input.Goals!.Take(3)],
                    Profile = input.Profile with
                    {
                        Pain = new(1, 10, 1),
                        SettleHours = 1,
                        WakesAtNight = false,
                    },
                }
            )
            .Sample(
                input =>
                {
                    var together = Planner.Propose(input, Content.Library, Guid.NewGuid);
                    foreach (var id in input.Goals!.Take(2).Append("lift"))
                    {
                        var goal = Content.Library.Goals.Single(g => g.Id == id);
                        var alone = Planner.Propose(
                            input with
                            {
                                Goals = [id],
                            },
                            Content.Library,
                            Guid.NewGuid
                        );
                        Interlocked.Increment(ref asked);
                        if (input.Goals!.Contains(id) && Serves(alone, goal) && !Serves(together, goal))
                        {
                            Interlocked.Increment(ref missed);
                        }
                        if (id == "lift" && !Serves(alone, goal))
                        {
                            Assert.DoesNotContain(
                                alone.NotChosen,
                                why =>
                                    why.RuleId is "P-FEW" or "P-LESS"
                                    && why.Words.En().StartsWith("Under load", StringComparison.Ordinal)
                            );
                        }
                    }
                },
                iter: 60
            );
        // Six exercises hold every direction first: one client in some thousands has a goal left without its own exercise.
        Assert.True(missed <= 0.02 * asked, $"{missed} of {asked}");
    }

    private static bool Serves(PlanProposal proposal, Goal goal) =>
        proposal.Plan.Items.Any(item =>
            goal.Ladders.Contains(Content.Library.LadderOf(item.RungId).Id)
            && goal.Fits(Content.Library.Rung(item.RungId))
        );

    [Fact]
    public void A_locked_exercise_stays_as_it_is_and_a_left_out_one_does_not_come_back()
    {
        var input = Input(Someone.Calm, 20);
        var first = Planner.Propose(input, Content.Library, Guid.NewGuid).Plan;
        var kept = first.Items[1] with
        {
            Doses = [.. first.Items[1].Doses.Select(d => d with { Dose = new Dose(4, 1, 2) })],
        };
        var left = first.Items[^1].RungId;
        var again = Planner.Propose(
            input with
            {
                Locked = [kept],
                LeftOut = [left],
            },
            Content.Library,
            Guid.NewGuid
        );
        var same = again.Plan.Items.Single(item => item.Id == kept.Id);
        Assert.Equal(kept.Doses.Select(d => d.Dose), same.Doses.Select(d => d.Dose));
        Assert.DoesNotContain(again.Plan.Items, item => item.RungId == left);
    }

    [Fact]
    public void The_curved_spine_trains_the_side_it_bulges_to_and_is_not_warned_of()
    {
        var who = Someone.With("scoliosis", Side.Right);
        var input = Input(who, 30) with
        {
            Goals = ["sport"],
            LeftOut =
            [
                .. Content
                    .Library.Ladders.Where(l => l.Id is "H" or "K" or "Q" or "R")
                    .SelectMany(l => l.Rungs)
                    .Select(r => r.Id),
            ],
        };
        var item = Planner
            .Propose(input, Content.Library, Guid.NewGuid)
            .Plan.Items.Single(i => Content.Library.LadderOf(i.RungId).Id == "G");
        Assert.Equal([Side.Right], item.Doses.Select(d => d.Side));
        Assert.Contains(item.Reasons, reason => reason.RuleId == "P-WORKING-SIDE");
    }

    [Fact]
    public void A_high_pressure_keeps_every_hold_at_ten_seconds_and_a_longer_one_blocks()
    {
        var who = Someone.With("pressure");
        var item = new PlanItem(
            Guid.NewGuid(),
            "H1",
            Message.Plain(""),
            [new(Side.Both, new Dose(1, 1, 30))],
            [],
            [],
            ""
        );
        var plan = new Plan(
            [item],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            1,
            []
        );
        Assert.True(
            PlanCheck
                .Warnings(plan, who, null, 20, Content.Library)
                .Single(w => w.RuleId == "P-BARRED")
                .Blocks
        );
        var proposed = Planner.Propose(
            Input(who, 30) with
            {
                PolicyId = "endurance",
            },
            Content.Library,
            Guid.NewGuid
        );
        Assert.All(
            proposed.Plan.Items.SelectMany(i => i.Doses),
            dose => Assert.InRange(dose.Dose.Hold, 0, 10)
        );
    }

    private static PlanInput Input(ClientProfile who, double minutes) =>
        new(
            who,
            Screen(
                who,
                new Dictionary<string, (int, int)>
                {
                    ["B"] = (4, 3),
                    ["D"] = (3, 3),
                    ["E"] = (2, 3),
                }
            ),
            Content.Policy.Id,
            SpinalStrategy.Neutral,
            Activation.Brace,
            minutes,
            Equipment: Everything
        );
}
