using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

public class TrialFoldTests
{
    /// <summary>
    /// A clock that is set in the middle of a trial, forward or back, never makes more of it: no rep, second or share that would not
    /// have been clean, and no pain less.
    /// </summary>
    [Theory]
    [InlineData(2)]
    [InlineData(-2)]
    public void A_clock_set_in_the_middle_gives_nothing_that_was_not_there(int days)
    {
        var less = 0;
        foreach (var tape in Enumerable.Range(0, TapeWriter.Files).SelectMany(TapeWriter.Of))
        {
            var events = tape.Events.OrderBy(e => !e.Begins).ThenBy(e => e.At).ToList();
            var rule = Content.Library.FindPolicy(tape.PolicyId)!.Pain;
            var whole = TrialFold.Trials(events, Content.Library, rule, tape.PainNow);
            foreach (var trial in whole)
            {
                var own = events.Where(e => e.TrialId == trial.Id).ToList();
                // Between two taps: what is of one instant stays so.
                var middle = own[own.Count / 2].At;
                var told = events.Select(e =>
                    e.TrialId == trial.Id && e.At > middle && !e.Begins
                        ? e with
                        {
                            At = e.At.AddDays(days),
                        }
                        : e
                );
                var after = TrialFold
                    .Trials(told, Content.Library, rule, tape.PainNow)
                    .FirstOrDefault(t => t.Id == trial.Id);
                if (after is null)
                {
                    continue;
                }
                Assert.True(after.Clean.Reps <= trial.Clean.Reps, $"{tape.Name} {trial.Id}");
                Assert.True(after.Clean.CuedReps <= trial.Clean.CuedReps + trial.Clean.Reps);
                Assert.True(after.Clean.Seconds <= trial.Clean.Seconds + 1e-6);
                Assert.True(after.Clean.Longest <= trial.Clean.Longest + 1e-6);
                Assert.True(after.PainOverLimit || !trial.PainOverLimit);
                less += after.Clean.Reps < trial.Clean.Reps ? 1 : 0;
            }
        }
        Assert.True(days > 0 || less > 0);
    }

    [Fact]
    public void Counts_only_the_reps_before_the_trunk_gave_way_in_each()
    {
        var trial = new Tape().Start("B5", Side.Left).Reps(3).Rep(fault: "arch").Reps(1).End().Only();
        Assert.Equal(5, trial.Total);
        Assert.Equal(4, trial.Clean.Reps);
        Assert.Equal(0.8, trial.Clean.Fraction, 6);
        Assert.Equal((4, "arch"), (trial.FirstBreak!.Rep, trial.FirstBreak.Fault));
    }

    [Fact]
    public void Counts_only_the_seconds_before_the_first_fault_of_a_hold()
    {
        // Target 5 × 3 s; two clean holds, one that arches at 1.2 s: 3 + 3 + 1.2 of 15 s, with the tap's tolerance on none.
        var trial = new Tape()
            .Start("B6", Side.Left)
            .Reps(2, hold: 3)
            .Rep(hold: 3, fault: "arch", faultAt: 1.2)
            .End(EndReason.BreakingFault)
            .Only();
        Assert.Equal(2, trial.Clean.Reps);
        Assert.Equal(7.2, trial.Clean.Seconds, 3);
        Assert.Equal(7.2 / 15, trial.Clean.Fraction, 6);
        Assert.Equal(1.2, trial.FirstBreak!.Second!.Value, 3);
    }

    [Fact]
    public void A_hold_started_anew_within_a_rep_has_no_more_clean_seconds_than_its_last_try()
    {
        var trial = new Tape().Start("B6", Side.Left).HoldStart().Fault("arch", 4).HoldStart().Rep().Only();
        var rep = Assert.Single(trial.Reps);
        Assert.Equal(3, rep.Held);
        Assert.Equal(3, rep.CleanHeld);
        Assert.False(rep.Clean);
    }

    [Fact]
    public void A_hold_that_broke_and_was_never_counted_keeps_its_clean_seconds()
    {
        var trial = new Tape()
            .Start("B6", Side.Left)
            .Reps(1, hold: 3)
            .HoldStart()
            .Fault("arch", 2)
            .End(EndReason.BreakingFault)
            .Only();
        Assert.Equal(5, trial.Clean.Seconds, 3);
        Assert.Equal(1, trial.Clean.Reps);
    }

    [Fact]
    public void Holding_one_rep_long_does_not_stand_for_another()
    {
        var trial = new Tape().Start("B6", Side.Left).Reps(1, hold: 15).End(EndReason.Fatigue).Only();
        Assert.Equal(3.0 / 15, trial.Clean.Fraction, 6);
    }

    [Theory]
    [InlineData(2.6, true)]
    [InlineData(2.4, false)]
    public void A_hold_half_a_second_short_is_the_tap_and_more_is_not(double held, bool clean)
    {
        var trial = new Tape().Start("B6", Side.Left).Reps(1, hold: held).End().Only();
        Assert.Equal(clean ? 1 : 0, trial.Clean.Reps);
    }

    [Fact]
    public void A_rushed_rep_is_not_clean_and_a_tremor_does_not_matter()
    {
        var trial = new Tape()
            .Start("B5", Side.Left)
            .Rep(fault: "rush")
            .Rep(fault: "tremor")
            .Reps(3)
            .End()
            .Only();
        Assert.Equal(4, trial.Clean.Reps);
    }

    [Fact]
    public void A_mark_told_later_belongs_to_the_rep_of_its_moment()
    {
        var trial = new Tape().Start("B5", Side.Left).Reps(3).FaultOfRep(2, "rush").Reps(1).End().Only();
        Assert.Equal([true, false, true, true], trial.Reps.Select(rep => rep.Clean));
    }

    [Fact]
    public void A_mark_of_an_instrument_ends_the_clean_seconds_at_its_onset_and_says_what_told_it()
    {
        var tape = new Tape().Start("B6", Side.Left).HoldStart();
        var onset = tape.Events[^1].At.AddSeconds(1.8);
        tape.Wait(4).CountRep().Fault("arch");
        tape.Events[^1] = (FaultMarked)tape.Events[^1] with { At = onset, Instrument = Instrument.Tilt };
        var trial = tape.Only();
        Assert.Equal((1.8, Instrument.Tilt), (trial.Reps[0].CleanHeld, trial.Marks[0].SeenBy));
    }

    [Fact]
    public void A_rep_an_instrument_saw_and_that_is_kept_after_the_end_is_held_as_it_saw_it()
    {
        // Two reps are counted by hand; the one between them is kept once the trial is over.
        var tape = new Tape().Start("B6", Side.Left).Reps(1, hold: 3);
        var top = tape.Events[^1].At.AddSeconds(2);
        tape.Wait(8).Reps(1, hold: 3).End();
        tape.HoldStart().CountRep();
        tape.Events[^2] = (HoldStarted)tape.Events[^2] with { At = top, Instrument = Instrument.Tilt };
        tape.Events[^1] = (RepDone)tape.Events[^1] with
        {
            At = top.AddSeconds(3.4),
            Instrument = Instrument.Tilt,
        };
        var trial = tape.Only();
        Assert.Equal(3, trial.Clean.Reps);
        Assert.Equal([null, Instrument.Tilt, null], trial.Reps.Select(rep => rep.SeenBy));
        Assert.Equal(3.4, trial.Reps[1].Held, 3);
    }

    [Theory]
    [InlineData(2, 5, true)]
    [InlineData(3, 2, false)]
    public void A_quality_fault_costs_its_reps_only_when_it_shows_in_most(int with, int without, bool clean)
    {
        var tape = new Tape().Start("B5", Side.Left);
        for (var i = 0; i < with; i++)
        {
            tape.Rep(fault: "knees-in");
        }
        var trial = tape.Reps(without).End().Only();
        Assert.Equal(clean ? with + without : without, trial.Clean.Reps);
    }

    [Fact]
    public void Reps_after_a_cue_never_mix_into_the_uncued_score()
    {
        var trial = new Tape()
            .Start("B5", Side.Left)
            .Rep(fault: "arch")
            .Cue()
            .CueAnswered(true)
            .Reps(4)
            .End()
            .Only();
        Assert.Equal(0, trial.Clean.Reps);
        Assert.Equal(4, trial.Clean.CuedReps);
        Assert.Equal(0, trial.Clean.Fraction);
    }

    [Theory]
    [InlineData(3, 4, false)] // one point is inside the error of a 0 to 10 scale
    [InlineData(3, 5, true)]
    public void Reps_done_over_the_pain_limit_are_not_clean(int before, int peak, bool over)
    {
        var trial = new Tape()
            .Start("B5", Side.Left)
            .Pain(PainPhase.Before, before)
            .Reps(2)
            .Pain(PainPhase.Peak, peak)
            .Reps(3)
            .End()
            .Only();
        Assert.Equal(over, trial.PainOverLimit);
        Assert.Equal(over ? 2 : 5, trial.Clean.Reps);
    }

    [Theory]
    [InlineData(PainRuleKind.NoRise, 2, 4, true)]
    [InlineData(PainRuleKind.NoRise, 2, 3, false)]
    [InlineData(PainRuleKind.Tolerable, 2, 5, false)]
    [InlineData(PainRuleKind.Tolerable, 2, 6, true)]
    [InlineData(PainRuleKind.Tolerable, 7, 7, true)]
    public void The_pain_rule_decides_what_is_over(PainRuleKind kind, int before, int now, bool over) =>
        Assert.Equal(over, new PainRule(kind, 5).Exceeded(before, now));

    [Fact]
    public void Undo_takes_back_and_undoing_the_undo_brings_back()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(2);
        var second = tape.Events[^1].Id;
        tape.Undo(second);
        Assert.Equal(1, tape.Only().Total);
        tape.Undo();
        Assert.Equal(2, tape.Only().Total);
    }

    [Fact]
    public void Undoing_the_start_takes_the_trial_away() =>
        Assert.Empty(new Tape().Start("B5", Side.Left).Undo().Trials());

    [Fact]
    public void An_open_hold_shows_since_when_it_runs()
    {
        var tape = new Tape().Start("B6", Side.Left).HoldStart();
        Assert.Equal(tape.Events[^1].At, tape.Only().HoldSince);
        Assert.True(tape.Only().Open);
    }

    private static readonly Gen<Tape> AnyTape = Gen.Int[0, 6]
        .Array[0, 25]
        .Select(steps =>
        {
            var tape = new Tape().Start("B6", Side.Right).Pain(PainPhase.Before, 2);
            foreach (var step in steps)
            {
                _ = step switch
                {
                    0 => tape.HoldStart(),
                    1 => tape.Fault("arch"),
                    2 => tape.Cue(),
                    3 => tape.Pain(PainPhase.Peak, 3),
                    4 => tape.Fault("knees-in"),
                    _ => tape.Rep(3),
                };
            }
            return tape;
        });

    [Fact]
    public void The_order_of_arrival_and_repeats_do_not_matter() =>
        AnyTape
            .Select(Gen.Int[0, 1000])
            .Sample(
                (tape, seed) =>
                {
                    var shuffled = tape.Events.Concat(tape.Events.Take(5)).ToArray();
                    new Random(seed).Shuffle(shuffled);
                    var again = TrialFold.Trials(shuffled, Content.Library, Content.Policy.Pain).Single();
                    AssertSame(tape.Only(), again);
                }
            );

    [Fact]
    public void Undoing_the_last_step_restores_what_was_before() =>
        AnyTape.Sample(tape =>
        {
            var before = tape.Only();
            tape.Rep(3);
            tape.Undo();
            AssertSame(before, tape.Only());
        });

    [Fact]
    public void Clean_work_is_never_more_than_the_work() =>
        AnyTape.Sample(tape =>
        {
            var trial = tape.Only();
            Assert.InRange(trial.Clean.Reps + trial.Clean.CuedReps, 0, trial.Total);
            Assert.InRange(trial.Clean.Fraction, 0, 1);
            Assert.All(trial.Reps, rep => Assert.InRange(rep.CleanHeld, 0, rep.Held + 1e-9));
        });

    private static void AssertSame(Trial expected, Trial actual)
    {
        Assert.Equal(expected.Clean, actual.Clean);
        Assert.Equal(expected.Reps, actual.Reps);
        Assert.Equal(expected.Marks, actual.Marks);
        Assert.Equal(expected.PainOverLimit, actual.PainOverLimit);
    }
}
