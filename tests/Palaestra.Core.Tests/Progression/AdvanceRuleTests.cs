using CsCheck;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What clean work earns, school by school. All common practice.</summary>
public class AdvanceRuleTests
{
    private static (string, Outcome) Of(Work work, Side side = Side.Left, int visit = 2) =>
        (work.Decide(side, visit).RuleId, work.Decide(side, visit).Outcome);

    [Theory]
    [InlineData(0.79, null, "D-CONFIRM")]
    [InlineData(0.80, null, "D-CONFIRM")] // pain at home not written: it does not stand for a visit
    [InlineData(0.80, 3, "D-CONFIRM")] // one milder day: nothing is earned from that log
    [InlineData(0.80, 1, "D-MASTER")]
    public void One_clean_visit_and_a_home_log_that_agrees_make_two(double share, int? pain, string rule)
    {
        // Usual pain is 1; under "no rise" pain of 3 at home is over it.
        var work = Work.AtTarget("B5").BothSides(1, 0.75).BothSides(2).AtHome(share, pain);
        Assert.Equal(rule, work.Decide().RuleId);
    }

    [Fact]
    public void A_home_log_alone_grants_nothing() =>
        Assert.Equal("D-STAY", Work.AtTarget("B5").BothSides(1).AtHome(1).Decide().RuleId);

    [Theory]
    [InlineData(0.49, "D-HOME", Outcome.Stay)]
    [InlineData(0.50, "D-BUILD", Outcome.Add)]
    public void D_HOME_adds_nothing_under_half_of_the_home_work(double share, string rule, Outcome outcome) =>
        Assert.Equal((rule, outcome), Of(new Work("B5", new Dose(6, 1, 0)).BothSides(2).AtHome(share)));

    [Fact]
    public void D_HOME_lets_an_earned_step_pass() =>
        Assert.Equal(
            ("D-MASTER", Outcome.StepUp),
            Of(Work.AtTarget("B5").BothSides(1).BothSides(2).AtHome(0.1))
        );

    [Fact]
    public void D_HOME_never_stands_in_the_way_of_easing()
    {
        var sore = new Work("B6", new Dose(8, 2, 5)).BothSides(2).AtHome(0) with
        {
            CheckIn = new(3, 3, 6, 30, []),
        };
        Assert.Equal(("D-PAIN-NEXT", Outcome.Ease), Of(sore));
    }

    // The map comes to B6 in weeks 5 to 6.
    [Theory]
    [InlineData(27, "D-CALENDAR", Outcome.Stay)]
    [InlineData(28, "D-MASTER", Outcome.StepUp)]
    public void The_calendar_school_waits_for_its_week_and_then_one_clean_visit_grants_it(
        int days,
        string rule,
        Outcome outcome
    )
    {
        var work = Work.AtTarget("B5").BothSides(2) with
        {
            PolicyId = "twelve-weeks",
            OpenedOn = new DateOnly(2026, 3, 16).AddDays(-days),
        };
        Assert.Equal((rule, outcome), Of(work));
    }

    [Fact]
    public void The_calendar_grants_nothing_that_was_not_clean()
    {
        var work = Work.AtTarget("B5").BothSides(2, 0.75) with
        {
            PolicyId = "twelve-weeks",
            OpenedOn = new DateOnly(2025, 3, 16),
        };
        Assert.NotEqual(Outcome.StepUp, work.Decide().Outcome);
    }

    [Fact]
    public void The_endurance_school_lengthens_the_hold_and_gives_reps_for_it()
    {
        var decision = (
            new Work("G2", new Dose(10, 1, 10)).BothSides(2) with
            {
                PolicyId = "endurance",
            }
        ).Decide();
        Assert.Equal(Outcome.Add, decision.Outcome);
        Assert.Equal(12, decision.Dose.Hold);
        Assert.True(decision.Dose.Seconds(5) <= 1.2 * new Dose(10, 1, 10).Seconds(5));
    }

    [Fact]
    public void The_endurance_school_moves_on_at_the_one_long_hold()
    {
        var hold = Content.Library.Rung("G2").Endurance!.Value;
        var work = new Work("G2", hold).BothSides(1).BothSides(2) with { PolicyId = "endurance" };
        Assert.Equal(("D-MASTER", Outcome.StepUp), Of(work));
    }

    [Fact]
    public void Longer_holds_come_to_the_target_and_stay_within_what_the_rung_allows() =>
        Gen.Select(Gen.OneOf(Gen.Const("G2"), Gen.Const("G3")), Gen.Int[1, 10], Gen.Int[1, 3], Gen.Int[3, 10])
            .Sample(
                (id, reps, sets, hold) =>
                {
                    var rung = Content.Library.Rung(id);
                    var dose = new Dose(reps, Math.Min(sets, rung.Cap.Sets), hold);
                    for (var step = 0; step < 30; step++)
                    {
                        if (DoseStep.Longer(dose, rung, rung.Endurance!.Value, 0.2) is not { } more)
                        {
                            break;
                        }
                        Assert.True(more.Hold > dose.Hold && rung.Allows(more), $"{dose} became {more}");
                        dose = more;
                    }
                    Assert.Equal(rung.Endurance!.Value.Hold, dose.Hold);
                }
            );

    [Fact]
    public void D_CAP_HOLD_short_holds_stay_short_until_the_back_is_calm_and_others_grow_by_their_own_caps()
    {
        var dose = new Dose(10, 1, 10);
        var sore = new Work("G2", dose).BothSides(2) with
        {
            Profile = Someone.Moderate,
            PolicyId = "endurance",
        };
        sore = sore with { CheckIn = new(4, 4, 4, 1, []) };
        Assert.Equal((10, "D-CAP-HOLD"), (sore.Decide().Dose.Hold, sore.Decide().RuleId));
        var plank = new Work("H2", new Dose(1, 1, 10)).BothSides(2) with
        {
            Profile = Someone.Moderate,
            CheckIn = new(4, 4, 4, 1, []),
        };
        Assert.True(plank.Decide().Dose.Hold > 10);
    }

    [Fact]
    public void A_precaution_that_limits_holds_lowers_the_target_so_that_it_can_be_met()
    {
        // High blood pressure: holds up to 10 s. The counter plank's own target is 90 s; met, the surface goes down.
        var work = new Work("H1", new Dose(1, 1, 10)).BothSides(1).BothSides(2) with
        {
            Profile = Someone.With("pressure"),
        };
        Assert.Equal(("D-MASTER", Outcome.Add), Of(work));
        Assert.Equal(0.9, work.Decide().Dose.Height);
    }

    [Fact]
    public void Harder_begins_with_range_one_stop_wider()
    {
        var work = new Work("B6", new Dose(5, 1, 3, Range: 0.5)).BothSides(2);
        Assert.Equal(
            (Outcome.Add, new Dose(5, 1, 3, Range: 0.75)),
            (work.Decide().Outcome, work.Decide().Dose)
        );
    }

    [Fact]
    public void A_weight_goes_up_before_the_next_level()
    {
        var target = Content.Library.Rung("B10").Target with { Load = 1 };
        var work = new Work("B10", target).BothSides(1).BothSides(2);
        Assert.Equal(("D-MASTER", Outcome.Add), Of(work));
        Assert.Equal(1.5, work.Decide().Dose.Load);
    }

    [Fact]
    public void Clean_time_grows_by_a_fifth_a_week_however_many_visits_there_are()
    {
        // 5 × (3 + 6) = 45 s became 5 × (4 + 6) = 50 s two days ago; a fifth a week is 54 s, and 5 × (5 + 6) is 55 s.
        var work = new Work("B6", new Dose(5, 1, 3)) { Apart = 2 };
        var first = work.BothSides(1).Done;
        var second = (work with { Dose = new Dose(5, 1, 4) }).BothSides(2);
        var decision = (second with { Done = [.. first, .. second.Done] }).Decide();
        Assert.Equal("D-BUILD", decision.RuleId);
        Assert.True(decision.Dose.Seconds(6) <= 54.001 || decision.Outcome == Outcome.Stay);
    }

    [Fact]
    public void A_side_that_was_not_done_lets_the_other_add_nothing()
    {
        var work = new Work("B6", new Dose(5, 1, 3)).Visit(2, Side.Left);
        Assert.Equal(("D-BUILD", Outcome.Stay), Of(work));
        Assert.Equal(("D-STAY", Outcome.Stay), Of(work, Side.Right));
    }

    public static TheoryData<string> TrainedLadders =>
        [
            .. Content
                .Library.TrainedLadders.Where(l => l.Direction != Direction.None && l.Rungs.Count > 1)
                .Select(l => l.Id),
        ];

    [Theory]
    [MemberData(nameof(TrainedLadders))]
    public void Every_ladder_is_climbed_from_its_first_rung(string id)
    {
        var ladder = Content.Library.Ladders.First(l => l.Id == id);
        var (first, second) = (ladder.Rungs[0], ladder.Rungs[1].Id);
        var target = first.Target with
        {
            Height = first.Heights?[^1],
            Load = first.Loads?[^1],
            Band = first.Banded ? Band.Strong : null,
        };
        var met = new Work(first.Id, target).BothSides(1).BothSides(2) with
        {
            PolicyId = id == "L" ? "rounded-breath" : Content.Policy.Id,
        };
        Assert.Equal(second, met.Decide().RungId);
    }
}
