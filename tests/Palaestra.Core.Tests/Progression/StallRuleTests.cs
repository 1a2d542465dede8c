using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Standing still and being away. All common practice.</summary>
public class StallRuleTests
{
    /// <summary>Visits with so many of ten reps clean on both sides, the others not done.</summary>
    private static Work Visits(params int[] clean)
    {
        var work = new Work("D3", new Dose(10, 1, 3)) { Activation = Activation.Brace };
        for (var i = 0; i < clean.Length; i++)
        {
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                work = work.Visit(i + 1, side, clean[i] / 10.0, breakingShare: 0);
            }
        }
        return work;
    }

    [Fact]
    public void D_PLATEAU_leaves_a_side_alone_that_only_waits_for_the_weaker_one()
    {
        var work = Work.AtTarget("D3");
        foreach (var visit in Enumerable.Range(1, 4))
        {
            work = work.Visit(visit, Side.Left, 0.7, breakingShare: 0).Visit(visit, Side.Right);
        }
        var decisions = work.Decisions(visit: 4);
        Assert.Equal("D-ONE-SIDE", decisions.Single(d => d.Side == Side.Right).RuleId);
        Assert.DoesNotContain("D-PLATEAU", decisions.Single(d => d.Side == Side.Right).Rules);
    }

    // The error of reps is half a rep, so 1.39 is the smallest change: one rep either way is none.
    [Theory]
    [InlineData(new[] { 8, 8, 8 }, "D-PLATEAU")]
    [InlineData(new[] { 8, 9, 8 }, "D-PLATEAU")]
    [InlineData(new[] { 8, 8 }, "D-STAY")]
    [InlineData(new[] { 6, 7, 8 }, "D-STAY")]
    [InlineData(new[] { 9, 8, 7 }, "D-STAY")]
    public void D_PLATEAU_after_three_visits_inside_the_measurement_error(int[] clean, string rule) =>
        Assert.Equal(rule, Visits(clean).Decide(visit: clean.Length).RuleId);

    [Theory]
    [InlineData(20, "D-STAY")]
    [InlineData(21, "D-PLATEAU")]
    public void D_PLATEAU_after_three_weeks_where_visits_are_far_apart(int days, string rule)
    {
        var work = new Work("D3", new Dose(10, 1, 3))
        {
            Apart = days,
            LastWork = new DateOnly(2026, 3, 2).AddDays(2 * days - 2),
        };
        foreach (var visit in new[] { 1, 2 })
        {
            work = work.Visit(visit, Side.Left, 0.8, breakingShare: 0)
                .Visit(visit, Side.Right, 0.8, breakingShare: 0);
        }
        Assert.Equal(rule, work.Decide().RuleId);
    }

    /// <summary>Every ladder climbed to its top on both sides.</summary>
    private static IReadOnlyList<RungSearch> ClimbedAll =>
        [
            .. from ladder in Content.Library.TrainedLadders
            from side in new[] { Side.Left, Side.Right }
            select new RungSearch(
                ladder.Id,
                side,
                true,
                null,
                ladder.Rungs[^1].Id,
                Message.Plain(""),
                [Guid.NewGuid()]
            ),
        ];

    [Fact]
    public void D_PLATEAU_goes_to_another_ladder_that_asks_about_as_much_in_the_same_direction()
    {
        var input = Visits(8, 8, 8).Input(3) with { Entries = ClimbedAll };
        var decision = DecisionEngine.Decide(input, Content.Library)[0];
        Assert.Equal(Outcome.Change, decision.Outcome);
        var (from, to) = (Content.Library.LadderOf("D3"), Content.Library.LadderOf(decision.RungId));
        Assert.NotEqual(from.Id, to.Id);
        Assert.Contains(
            Content.Library.DemandsOf(Content.Library.Rung(decision.RungId)),
            d => d.Direction == from.Direction && d.Weight > 0
        );
    }

    [Fact]
    public void D_PLATEAU_never_opens_a_ladder_of_another_school_or_above_the_first_rung_of_one_not_climbed()
    {
        foreach (
            var rung in Content
                .Library.TrainedLadders.SelectMany(l => l.Rungs)
                .Where(r => r.Sides == RungSides.Each)
        )
        {
            var work = new Work(rung.Id, new Dose(10, 1, rung.Start.Hold)) { Activation = Activation.Brace };
            for (var visit = 1; visit <= 3; visit++)
            {
                work = work.Visit(visit, Side.Left, 0.8, breakingShare: 0)
                    .Visit(visit, Side.Right, 0.8, breakingShare: 0);
            }
            var decision = work.Decide(visit: 3);
            var (own, other) = (Content.Library.LadderOf(rung.Id), Content.Library.LadderOf(decision.RungId));
            if (decision.Outcome == Outcome.Change && other.Id != own.Id)
            {
                Assert.Equal(decision.RungId, other.Rungs[0].Id);
                Assert.False(Content.Policy.Closes(Content.Library.Rung(decision.RungId)));
            }
        }
    }

    [Fact]
    public void With_nothing_left_to_change_it_says_so_and_asks_for_a_screen()
    {
        var decision = (Visits(8, 8, 8) with { Activation = null }).Decide(visit: 3);
        Assert.Equal(("D-PLATEAU", Outcome.Stay), (decision.RuleId, decision.Outcome));
        Assert.Equal("Screen again.", decision.Todo.En());
    }

    [Fact]
    public void D_PLATEAU_changes_the_switch_on_where_no_other_ladder_is_open()
    {
        var work = Visits(8, 8, 8) with { Activation = Activation.Brace };
        var input = work.Input(3) with { Equipment = [] };
        var decision = DecisionEngine.Decide(input, Content.Library)[0];
        Assert.Equal((Outcome.Change, "D3"), (decision.Outcome, decision.RungId));
        Assert.Equal(Activation.DrawIn, decision.Activation);
    }

    /// <summary>How the low back is held is a choice on the back alone.</summary>
    [Fact]
    public void D_PLATEAU_changes_the_strategy_on_the_back_and_nowhere_else()
    {
        var changed = new HashSet<bool>();
        foreach (var rung in Content.Library.TrainedLadders.SelectMany(l => l.Rungs))
        {
            var work = new Work(rung.Id, new Dose(10, 1, rung.Start.Hold));
            for (var visit = 1; visit <= 3; visit++)
            {
                work = work.BothSides(visit, 0.8, cueFixed: true);
            }
            var input = work.Input(3) with { Strategy = SpinalStrategy.GentlyFlat, Equipment = [] };
            foreach (
                var decision in DecisionEngine.Bare(input, Content.Library).Where(d => d.Strategy is not null)
            )
            {
                Assert.Equal(SpinalStrategy.Neutral, decision.Strategy);
                changed.Add(Content.Library.PositionOf(rung).OnBack);
            }
        }
        Assert.Equal([true], changed);
    }

    [Fact]
    public void A_cue_that_fixes_it_every_time_is_a_plateau_too()
    {
        var work = new Work("D3", new Dose(10, 1, 3)) { Activation = Activation.Brace };
        for (var visit = 1; visit <= 3; visit++)
        {
            work = work.BothSides(visit, 0.6, cueFixed: true);
        }
        Assert.Equal("D-FAULT-CUE", work.Decide(visit: 2).RuleId);
        Assert.Equal("D-PLATEAU", work.Decide(visit: 3).RuleId);
    }

    [Fact]
    public void Both_sides_change_when_one_stalls_and_neither_when_the_other_is_eased()
    {
        var work = new Work("D3", new Dose(10, 1, 3)) { Activation = Activation.Brace };
        for (var visit = 1; visit <= 3; visit++)
        {
            work = work.Visit(visit, Side.Left, 0.8, breakingShare: 0)
                .Visit(visit, Side.Right, 0.95, breakingShare: 0);
        }
        Assert.All(work.Decisions(3), d => Assert.Equal(Outcome.Change, d.Outcome));
        var easing = work with { Done = [.. work.Done.Where(p => p.Visit < 3 || p.Side == Side.Left)] };
        easing = easing.Visit(3, Side.Right, 0.2);
        Assert.Equal(Outcome.Stay, easing.Decide(Side.Left, 3).Outcome);
        Assert.Equal("D-FAULT-CAP", easing.Decide(Side.Right, 3).RuleId);
    }

    [Fact]
    public void One_stalled_exercise_is_changed_at_a_visit()
    {
        var input = Visits(8, 8, 8).Input(3);
        var other = Guid.NewGuid();
        var both = input with
        {
            Items = [input.Items[0], input.Items[0] with { Id = other }],
            Visits = [.. input.Visits, .. input.Visits.Select(p => p with { PlanItemId = other })],
        };
        var decisions = DecisionEngine.Decide(both, Content.Library);
        Assert.All(decisions.Take(2), d => Assert.Equal(Outcome.Change, d.Outcome));
        Assert.All(decisions.Skip(2), d => Assert.Equal(("D-CAP-CHANGE", "D3"), (d.RuleId, d.RungId)));
    }

    [Fact]
    public void D_AWAY_repeats_a_clean_return_before_anything_is_added()
    {
        var work = Work.AtTarget("B5").BothSides(1).BothSides(2) with
        {
            LastWork = new DateOnly(2026, 3, 16).AddDays(-14),
        };
        Assert.Equal(("D-AWAY", Outcome.Stay), (work.Decide().RuleId, work.Decide().Outcome));
    }

    [Fact]
    public void D_AWAY_does_not_undo_an_easing_for_pain()
    {
        var work = new Work("B6", new Dose(8, 2, 5)).BothSides(2) with
        {
            LastWork = new DateOnly(2026, 2, 1),
            CheckIn = new(3, 3, 6, 30, []),
        };
        Assert.Equal("D-PAIN-NEXT", work.Decide().RuleId);
    }

    [Fact]
    public void The_next_plan_takes_over_the_other_ladder_and_the_other_switch_on()
    {
        var work = Visits(8, 8, 8);
        var decisions = DecisionEngine.Decide(work.Input(3) with { Entries = ClimbedAll }, Content.Library);
        var plan = new Plan(
            work.Input(3).Items,
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            0,
            []
        );
        var next = NextPlan.Apply(plan, decisions, Content.Library, Content.Policy, Someone.Calm);
        Assert.Equal(decisions[0].RungId, next.Items[0].RungId);
        var switched = decisions
            .Select(d => d with { RungId = "D3", Activation = Activation.DrawIn })
            .ToList();
        Assert.Equal(
            Activation.DrawIn,
            NextPlan.Apply(plan, switched, Content.Library, Content.Policy, Someone.Calm).Activation
        );
    }

    [Fact]
    public void An_exercise_that_changes_its_position_moves_to_where_that_position_is_done()
    {
        PlanItem Item(string rung) =>
            new(
                Guid.NewGuid(),
                rung,
                Message.Plain(""),
                [
                    .. Content
                        .Library.Rung(rung)
                        .TaskSides.Select(s => new SideDose(s, Content.Library.Rung(rung).Start)),
                ],
                [],
                [],
                ""
            );
        var plan = new Plan(
            [Item("B5"), Item("H1"), Item("E1"), Item("K2")],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            0,
            []
        );
        var counter = plan.Items[1];
        var next = NextPlan.Apply(
            plan,
            [
                new(
                    counter.Id,
                    Side.Both,
                    Outcome.StepUp,
                    "D-TEST",
                    "H2",
                    new Dose(1, 1, 10),
                    [Message.Plain("seen")],
                    null
                ),
            ],
            Content.Library,
            Content.Policy,
            Someone.Calm
        );
        var positions = next.Items.Select(i => Content.Library.Rung(i.RungId).Position).ToList();
        Assert.Equal(
            positions.Distinct().Count(),
            1 + positions.Zip(positions.Skip(1)).Count(p => p.First != p.Second)
        );
        Assert.Equal(["B5", "E1", "K2"], next.Items.Select(i => i.RungId).Where(id => id != "H2"));
    }
}
