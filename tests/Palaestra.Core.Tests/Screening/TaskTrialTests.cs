using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

/// <summary>Trials measured in something else than reps, and what may go wrong while they are taken down.</summary>
public class TaskTrialTests
{
    [Fact]
    public void A_range_holds_until_told_again_and_only_clean_reps_count_for_it()
    {
        var trial = new Tape()
            .Task("roll-range", Side.Left)
            .Range(degrees: 20)
            .Rep()
            .Range(degrees: 45)
            .Rep(fault: "leg-drop")
            .Range(degrees: 30)
            .Rep()
            .End()
            .Only();
        Assert.Equal(30, trial.Clean.Reach!.Degrees);
        Assert.Equal(30 / 45.0, trial.Clean.Fraction, 6);
    }

    [Fact]
    public void The_clean_range_is_the_largest_share_where_no_angle_was_told()
    {
        var trial = new Tape()
            .Start("B5", Side.Left)
            .Range(share: 0.5)
            .Rep()
            .Range(share: 0.75)
            .Rep()
            .Range(share: 1)
            .Rep(fault: "arch")
            .End()
            .Only();
        Assert.Equal(0.75, trial.Clean.Reach!.Share);
    }

    /// <summary>Best of three, cut at 45 s, as the stance times of Springer et al. 2007 were taken (from memory).</summary>
    [Fact]
    public void Of_three_stances_the_longest_before_the_lean_counts()
    {
        var trial = new Tape()
            .Task("stance", Side.Left)
            .Rep(12)
            .Rep(hold: 40, fault: "stance-lean", faultAt: 31)
            .Rep(22)
            .End(EndReason.Fatigue)
            .Only();
        Assert.Equal(31, trial.Clean.Longest, 3);
        Assert.Equal(31 / 45.0, trial.Clean.Fraction, 6);
    }

    [Fact]
    public void A_stance_let_go_at_the_first_fault_keeps_its_seconds_though_no_rep_was_counted()
    {
        var trial = new Tape().Task("stance", Side.Left).HoldStart().Fault("touch-down", 17).End().Only();
        Assert.Equal(17, trial.Clean.Longest, 3);
    }

    [Theory]
    [InlineData(1, null, 1.0)]
    [InlineData(0, null, 0.0)]
    [InlineData(1, "hip-hike", 0.0)]
    public void Yes_counts_only_without_a_breaking_fault(double answer, string? fault, double expected) =>
        Assert.Equal(
            expected,
            new Tape().Task("let-go", Side.Left).Measure(answer, fault).End().Only().Clean.Fraction
        );

    [Fact]
    public void A_reach_with_the_hand_down_does_not_count_and_the_best_of_the_others_does()
    {
        var trial = new Tape()
            .Task("reaches", Side.Left, "front", leg: 88)
            .Measure(58)
            .Measure(66, "touch-down")
            .Measure(61)
            .End()
            .Only();
        Assert.Equal(61, trial.Clean.Amount);
        Assert.Equal(3, trial.Total);
    }

    [Fact]
    public void A_persisting_fault_costs_every_rep_from_its_own_on()
    {
        var trial = new Tape().Start("B5", Side.Left).Reps(2).Persisting("arch").Reps(3).End().Only();
        Assert.Equal(2, trial.Clean.Reps);
        Assert.Equal(3, trial.BreakingReps);
        Assert.Equal(3, trial.FirstBreak!.Rep);
    }

    [Fact]
    public void A_persisting_fault_leaves_no_clean_second_in_the_holds_after_it()
    {
        var trial = new Tape()
            .Start("B6", Side.Left)
            .Rep(3)
            .HoldStart()
            .Wait(1)
            .Persisting("arch")
            .Rep()
            .Rep(3)
            .End()
            .Only();
        // 3 s, then 2 s before it began, then none.
        Assert.Equal(5, trial.Clean.Seconds, 3);
    }

    [Fact]
    public void A_persisting_quality_fault_breaks_once_it_is_in_most_reps()
    {
        var trial = new Tape().Start("B5", Side.Left).Rep().Persisting("leg-turns-out").Reps(3).End().Only();
        Assert.Equal(1, trial.Clean.Reps);
    }

    [Fact]
    public void A_pause_lets_the_running_hold_go()
    {
        var trial = new Tape().Start("B6", Side.Left).Rep(3).HoldStart().Wait(60).Pause().Only();
        Assert.True(trial.Paused);
        Assert.Null(trial.HoldSince);
        Assert.Equal(3, trial.Clean.Seconds, 3);
    }

    [Fact]
    public void A_trial_goes_on_after_a_pause_with_what_it_had()
    {
        var trial = new Tape().Start("B5", Side.Left).Reps(2).Pause().Wait(900).Resume().Reps(3).End().Only();
        Assert.False(trial.Paused);
        Assert.Equal(5, trial.Clean.Reps);
    }

    [Fact]
    public void A_side_put_right_afterwards_moves_the_whole_trial()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(5).End().OtherSide(Side.Right);
        Assert.Equal(Side.Right, tape.Only().Side);
        Assert.Equal(Side.Left, tape.Undo().Only().Side);
    }

    [Fact]
    public void A_discarded_trial_does_not_count_until_that_is_taken_back()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(5).End().Discard();
        Assert.Empty(tape.Trials());
        Assert.Equal(5, tape.Undo().Only().Clean.Reps);
    }

    [Fact]
    public void A_trial_that_was_ended_by_mistake_is_open_again_when_that_is_taken_back()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(2).End(EndReason.Stopped);
        Assert.True(tape.Undo().Only().Open);
        Assert.Equal(5, tape.Reps(3).End().Only().Clean.Reps);
    }

    [Fact]
    public void A_fault_at_the_very_moment_of_a_rep_belongs_to_that_rep_whatever_came_in_first()
    {
        var tape = new Tape().Start("B5", Side.Left).Rep();
        var rep = tape.Events[^1];
        tape.Fault("arch", 0).End();
        Assert.Equal(rep.At, tape.Events[^2].At);
        Assert.Equal(0, tape.Only().Clean.Reps);
        Assert.Equal(1, tape.Only().FirstBreak!.Rep);
    }

    [Fact]
    public void A_trial_never_ended_stays_open_and_the_next_one_counts()
    {
        var trials = new Tape().Start("B5", Side.Left).Reps(2).Start("B5", Side.Right).Reps(5).End().Trials();
        Assert.True(trials[0].Open);
        Assert.False(trials[1].Open);
        Assert.Equal(5, trials[1].Clean.Reps);
    }

    [Fact]
    public void What_showed_the_movement_is_kept()
    {
        var trial = new Tape()
            .Start("B5", Side.Left)
            .Uses(Instrument.Hand)
            .Uses(Instrument.Dowel)
            .Uses(Instrument.Hand)
            .Only();
        Assert.Equal([Instrument.Hand, Instrument.Dowel], trial.Instruments!);
    }

    /// <summary>An hour late, out of order, twice: the same trials.</summary>
    [Fact]
    public void Late_and_doubled_events_fold_to_the_same_trials()
    {
        var tape = new Tape()
            .Task("stance", Side.Left)
            .Rep(12)
            .Rep(hold: 20, fault: "stance-lean", faultAt: 15)
            .End()
            .Start("B5", Side.Right)
            .Reps(2)
            .Persisting("arch")
            .Reps(2)
            .Undo()
            .End()
            .OtherSide(Side.Left);
        var expected = Told(tape.Events);
        Gen.Shuffle(tape.Events.Concat(tape.Events.Take(9)).ToArray())
            .Sample(shuffled => Told(shuffled) == expected);
    }

    private static string Told(IEnumerable<CaptureEvent> events) =>
        System.Text.Json.JsonSerializer.Serialize(
            TrialFold.Trials(events, Content.Library, Content.Policy.Pain),
            CoreJson.Options
        );
}
