using Palaestra.Core.Capture;
using Palaestra.Core.Photos;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

/// <summary>When a set is stopped, and the one thing that is changed then. All common practice.</summary>
public class WithinVisitTests
{
    private static StopTrigger? Stop(Tape tape) =>
        StopSigns.Of(tape.Trials()[0], Content.Policy, Content.Library);

    private static Tape Set(string rung = "B5") =>
        new Tape().Start(rung, Side.Left, TrialPurpose.Session, new Dose(8, 1, 0));

    [Fact]
    public void One_broken_rep_is_a_slip_two_in_a_row_stop_the_set()
    {
        Assert.Null(Stop(Set().Rep(fault: "arch")));
        Assert.Equal(StopTrigger.Faults, Stop(Set().Rep(fault: "arch").Rep(fault: "arch")));
        Assert.Null(Stop(Set().Rep(fault: "arch").Rep().Rep(fault: "arch")));
    }

    [Fact]
    public void The_second_fault_stops_it_before_the_rep_is_counted() =>
        Assert.Equal(StopTrigger.Faults, Stop(Set().Rep(fault: "arch").Fault("arch", 1)));

    [Fact]
    public void A_clean_rep_after_two_broken_ones_lets_it_go_on() =>
        Assert.Null(Stop(Set().Rep(fault: "arch").Rep(fault: "arch").Rep()));

    [Fact]
    public void Pain_over_the_limit_stops_it()
    {
        Assert.Null(Stop(Set().Pain(PainPhase.Before, 2).Pain(PainPhase.Peak, 3)));
        Assert.Equal(StopTrigger.Pain, Stop(Set().Pain(PainPhase.Before, 2).Pain(PainPhase.Peak, 4)));
    }

    [Fact]
    public void A_held_breath_stops_it_only_when_a_cue_did_not_clear_it()
    {
        Assert.Null(Stop(Set().Rep(fault: "breath-hold").Rep()));
        Assert.Null(Stop(Set().Fault("breath-hold").Cue()));
        Assert.Equal(StopTrigger.Breath, Stop(Set().Cue().Rep(fault: "breath-hold")));
        Assert.Null(Stop(Set().Cue().CueAnswered(true).Rep()));
    }

    private static IReadOnlyList<EaseOffer> Offers(
        string rungId,
        Dose dose,
        double range = 1,
        string? precaution = null
    )
    {
        var side = Content.Library.Rung(rungId).TaskSides[0];
        var item = new PlanItem(
            Work.ItemId,
            rungId,
            Message.Plain(""),
            [new SideDose(side, dose, range)],
            [],
            [],
            "cue"
        );
        return WithinVisit.Offers(
            item,
            item.Doses[0],
            precaution is null ? Someone.Calm : Someone.With(precaution),
            Content.Library
        );
    }

    [Fact]
    public void One_thing_in_order_from_the_cue_to_the_lower_rung() =>
        Assert.Equal(
            [
                OneChange.Cue,
                OneChange.ShorterRange,
                OneChange.FewerSeconds,
                OneChange.ShorterLever,
                OneChange.MoreSupport,
                OneChange.LowerRung,
            ],
            Offers("D4", new Dose(10, 2, 5)).Select(o => o.Change)
        );

    [Fact]
    public void A_shorter_range_is_three_quarters_of_the_one_that_was_asked()
    {
        var offer = Offers("B6", new Dose(8, 2, 5), 0.8).First(o => o.Change == OneChange.ShorterRange);
        Assert.Equal(0.6, offer.Share!.Value, 6);
    }

    [Theory]
    [InlineData(10, 5)]
    [InlineData(5, 2)]
    [InlineData(3, 2)]
    public void Fewer_seconds_are_half_and_at_least_two(double asked, double offered) =>
        Assert.Equal(
            offered,
            Offers("B6", new Dose(8, 2, asked)).First(o => o.Change == OneChange.FewerSeconds).Dose.Hold
        );

    [Fact]
    public void A_single_long_hold_has_no_range_to_shorten() =>
        Assert.DoesNotContain(Offers("H1", new Dose(1, 1, 30)), o => o.Change == OneChange.ShorterRange);

    [Fact]
    public void What_a_precaution_bars_is_not_offered()
    {
        // Flat hands are barred for a sore wrist: from the forearm plank on the toes no way leads over them.
        Assert.All(
            Content.Library.TrainedLadders.SelectMany(l => l.Rungs),
            rung =>
                Assert.DoesNotContain(
                    Offers(rung.Id, rung.Target, precaution: "wrist"),
                    offer =>
                        offer.RungId != rung.Id
                        && Content.Library.Rung(offer.RungId).Features.Contains("hands-flat")
                )
        );
    }

    [Fact]
    public void The_lowest_rung_has_no_lower_one() =>
        Assert.DoesNotContain(Offers("B1", new Dose(5, 1, 0)), o => o.Change == OneChange.LowerRung);

    [Fact]
    public void What_is_at_its_least_is_not_made_less()
    {
        Assert.DoesNotContain(
            Offers("B6", new Dose(8, 2, 2), PlanRange.Least),
            o => o.Change is OneChange.ShorterRange or OneChange.FewerSeconds
        );
        Assert.Equal(
            2,
            Offers("B6", new Dose(8, 2, 3), PlanRange.Least + 0.1)
                .Count(o => o.Change is OneChange.ShorterRange or OneChange.FewerSeconds)
        );
    }

    [Fact]
    public void Each_way_to_ease_has_its_own_rule() =>
        Assert.Equal(
            ["W-CUE", "W-RANGE", "W-SECONDS", "W-LEVER", "W-SUPPORT", "W-RUNG"],
            Offers("D4", new Dose(10, 2, 5)).Select(o => o.RuleId)
        );

    /// <summary>Reps and seconds of holding in a set: whatever was prescribed, an easier exercise asks for no more of them.</summary>
    [Fact]
    public void An_easier_exercise_never_asks_for_more()
    {
        foreach (var rung in Content.Library.TrainedLadders.SelectMany(l => l.Rungs))
        {
            foreach (var dose in new[] { rung.Start, rung.Target, new(2, 1, 5), new(1, 1, 4), new(3, 2, 0) })
            {
                Assert.All(
                    Offers(rung.Id, dose),
                    offer =>
                    {
                        Assert.InRange(offer.Dose.Reps, 1, dose.Reps);
                        if (dose.Hold > 0)
                        {
                            Assert.InRange(offer.Dose.Reps * offer.Dose.Hold, 0, dose.Reps * dose.Hold);
                        }
                    }
                );
            }
        }
    }

    /// <summary>Five holds of 3 s are as long as one of 15; one hold of 5 s leaves 5; without a hold the easier one keeps its own.</summary>
    [Theory]
    [InlineData("P3", 5, 3, 1, 15)]
    [InlineData("P3", 5, 2, 1, 10)]
    [InlineData("H2", 1, 5, 1, 5)]
    [InlineData("H5", 5, 0, 5, 3)]
    public void The_lower_rung_is_held_no_longer_than_was_asked(
        string rung,
        int reps,
        double hold,
        int lowerReps,
        double lowerHold
    )
    {
        var lower = Offers(rung, new Dose(reps, 1, hold)).Single(o => o.Change == OneChange.LowerRung).Dose;
        Assert.Equal((lowerReps, lowerHold), (lower.Reps, lower.Hold));
    }

    [Fact]
    public void An_easier_rung_is_done_on_the_side_that_was_asked_where_it_has_sides()
    {
        EaseOffer Lower(Side side, string rungId) =>
            WithinVisit
                .Offers(
                    new PlanItem(Work.ItemId, rungId, Message.Plain(""), [], [], [], ""),
                    new SideDose(side, new Dose(3, 1, 0), 1),
                    Someone.Calm,
                    Content.Library
                )
                .Single(o => o.Change == OneChange.LowerRung);
        Assert.Equal(("B5", Side.Right), (Lower(Side.Right, "B6").RungId, Lower(Side.Right, "B6").Side));
        Assert.Equal(("B8", Side.Left), (Lower(Side.Both, "B9").RungId, Lower(Side.Both, "B9").Side));
        Assert.Equal(("S4", Side.Both), (Lower(Side.Left, "S5").RungId, Lower(Side.Left, "S5").Side));
    }

    /// <summary>Easier means that the body model finds no more asked in the ladder's direction, typical body.</summary>
    [Fact]
    public void A_shorter_lever_never_asks_for_more_in_the_direction_of_its_ladder()
    {
        var demands = Content.Library.Demands;
        foreach (var ladder in Content.Library.TrainedLadders)
        {
            foreach (var rung in ladder.Rungs)
            {
                foreach (
                    var ease in (rung.Eases ?? []).Where(e =>
                        e is { To: not null, Change: OneChange.ShorterLever }
                    )
                )
                {
                    var side = rung.TaskSides[0];
                    var other = Content.Library.Rung(ease.To!);
                    var before = demands.Of(rung.Id).In(ladder.Direction, ladder.On, side);
                    var after = demands.Of(other.Id).In(ladder.Direction, ladder.On, other.TaskSides[0]);
                    Assert.True(
                        after <= before * 1.05,
                        $"{rung.Id} {before:0.0} became {other.Id} {after:0.0}"
                    );
                }
            }
        }
    }

    [Fact]
    public void A_set_eased_to_a_rung_without_sides_belongs_to_the_side_it_was_asked_on()
    {
        var dose = new Dose(5, 1, 0);
        var item = new PlanItem(
            Work.ItemId,
            "E5",
            Message.Plain(""),
            [new SideDose(Side.Left, dose), new SideDose(Side.Right, dose)],
            [],
            [],
            ""
        );
        var tape = new Tape()
            .Start("E1", Side.Both, TrialPurpose.Session, dose)
            .Eased(OneChange.MoreSupport, Side.Left);
        tape.Pain(PainPhase.Before, 1).Pain(PainPhase.Peak, 6).End();
        var done = Assert.Single(
            Performance.FromTrials(2, new DateOnly(2026, 3, 16), [item], tape.Trials(), Content.Library)
        );
        Assert.Equal((Side.Left, 1, true), (done.Side, done.PainSets, done.Eased));
    }

    [Fact]
    public void Sets_that_were_made_easier_count_as_such_and_not_toward_the_dose()
    {
        var dose = new Dose(8, 2, 0);
        var item = new PlanItem(
            Work.ItemId,
            "B5",
            Message.Plain(""),
            [new SideDose(Side.Left, dose)],
            [],
            [],
            ""
        );
        var tape = new Tape()
            .Start("B5", Side.Left, TrialPurpose.Session, dose with { Sets = 1 })
            .Reps(8)
            .End();
        tape.Start("B5", Side.Left, TrialPurpose.Session, dose with { Sets = 1 })
            .Eased(OneChange.ShorterRange)
            .Reps(8)
            .End();
        var done = Performance.FromTrials(
            2,
            new DateOnly(2026, 3, 16),
            [item],
            tape.Trials(),
            Content.Library
        )[0];
        Assert.Equal((8, true, false), (done.CleanReps, done.Eased, done.AllClean));
    }
}
