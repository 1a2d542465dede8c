using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

public class RungFinderTests
{
    private static Ladder Ladder(string id) => Content.Library.Ladders.First(l => l.Id == id);

    private static RungSearch Search(
        string ladder,
        Tape tape,
        ClientProfile? who = null,
        Side side = Side.Left
    ) =>
        RungFinder.Search(
            Ladder(ladder),
            side,
            tape.Trials(),
            who ?? Someone.Calm,
            Content.Policy,
            Content.Library
        );

    private static Tape Clean(Tape tape, string rung, Side side = Side.Left)
    {
        var start = Content.Library.Rung(rung).Start;
        return tape.Start(rung, side).Reps(start.Reps, start.Hold).End();
    }

    private static Tape Broken(Tape tape, string rung, Side side = Side.Left)
    {
        var start = Content.Library.Rung(rung).Start;
        return tape.Start(rung, side)
            .Rep(start.Hold, "arch", 0.5)
            .Rep(start.Hold, "arch", 0.5)
            .End(EndReason.BreakingFault);
    }

    [Fact]
    public void Starts_in_the_middle_and_lower_when_sore()
    {
        Assert.Equal("B6", Search("B", new Tape()).NextRungId);
        Assert.Equal("B4", Search("B", new Tape(), Someone.Sore).NextRungId);
    }

    [Fact]
    public void Starts_in_the_middle_of_what_the_precautions_allow() =>
        // Without the kick-back six rungs are open: the lower of the two middle ones.
        Assert.Equal("D2", Search("D", new Tape(), Someone.With("extension")).NextRungId);

    [Fact]
    public void Goes_at_most_two_up_after_clean_halves_what_is_left_and_stops_when_bracketed()
    {
        var tape = new Tape();
        Clean(tape, "B6");
        Assert.Equal("B8", Search("B", tape).NextRungId);
        Broken(tape, "B8");
        var next = Search("B", tape);
        Assert.Equal("B7", next.NextRungId);
        Assert.Contains("Leg reach, arms still, clean", next.Why.En(), StringComparison.Ordinal);
        Broken(tape, "B7");
        var found = Search("B", tape);
        Assert.True(found.Done);
        Assert.Equal("B6", found.EntryRungId);
        Assert.Equal(3, found.TrialIds.Count);
    }

    [Fact]
    public void A_school_may_go_up_one_rung_at_a_time()
    {
        var tape = new Tape();
        Clean(tape, "B6");
        var careful = Content.Policy with { RungsUpAtOnce = 1 };
        var next = RungFinder.Search(
            Ladder("B"),
            Side.Left,
            tape.Trials(),
            Someone.Calm,
            careful,
            Content.Library
        );
        Assert.Equal("B7", next.NextRungId);
    }

    [Fact]
    public void Goes_far_down_after_a_break()
    {
        var tape = new Tape();
        Broken(tape, "B6");
        Assert.Equal("B2", Search("B", tape).NextRungId);
    }

    [Fact]
    public void Says_so_when_not_even_the_lowest_is_clean()
    {
        var tape = new Tape();
        Broken(tape, "B6");
        Broken(tape, "B2");
        Broken(tape, "B1");
        var found = Search("B", tape);
        Assert.True(found.Done);
        Assert.Null(found.EntryRungId);
    }

    [Fact]
    public void When_the_trials_run_out_only_what_was_seen_clean_counts()
    {
        var tape = new Tape();
        foreach (var rung in new[] { "B4", "B6", "B8", "B10" })
        {
            Clean(tape, rung);
        }
        var found = Search("B", tape);
        Assert.True(found.Done);
        Assert.Equal("B10", found.EntryRungId);
    }

    [Fact]
    public void Clean_only_with_a_cue_means_the_rung_below()
    {
        var tape = new Tape();
        Clean(tape, "B5");
        tape.Start("B6", Side.Left).Rep(3, "arch").Cue().CueAnswered(true).Reps(4, 3).End();
        Assert.Equal("B5", Search("B", tape).EntryRungId);
    }

    [Fact]
    public void Trembling_through_most_of_it_means_the_rung_below()
    {
        var tape = new Tape();
        Clean(tape, "B5");
        tape.Start("B6", Side.Left);
        for (var i = 0; i < 5; i++)
        {
            tape.Rep(3, i < 3 ? "tremor" : null);
        }
        tape.End();
        Assert.Equal("B5", Search("B", tape).EntryRungId);
    }

    [Fact]
    public void One_rep_short_of_the_start_dose_is_not_clean()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(4).End(EndReason.Fatigue);
        Assert.Equal(Verdict.Broke, RungFinder.VerdictOf(tape.Only(), Content.Library.Rung("B5")));
    }

    [Fact]
    public void Pain_over_the_limit_never_counts_as_clean()
    {
        var tape = new Tape()
            .Start("B5", Side.Left)
            .Pain(PainPhase.Before, 1)
            .Reps(5)
            .Pain(PainPhase.After, 3)
            .End();
        Assert.Equal(Verdict.Painful, RungFinder.VerdictOf(tape.Only(), Content.Library.Rung("B5")));
    }

    [Fact]
    public void A_trial_on_both_feet_counts_for_each_side()
    {
        var tape = new Tape();
        Clean(tape, "E1", Side.Both);
        Assert.Single(Search("E", tape, side: Side.Left).TrialIds);
        Assert.Single(Search("E", tape, side: Side.Right).TrialIds);
    }

    [Fact]
    public void The_sides_are_never_mixed()
    {
        var tape = new Tape();
        Clean(tape, "B6", Side.Right);
        Assert.Equal("B6", Search("B", tape, side: Side.Left).NextRungId);
        Assert.Equal("B8", Search("B", tape, side: Side.Right).NextRungId);
    }

    [Fact]
    public void A_ladder_barred_altogether_is_done_at_once()
    {
        var search = Search("D", new Tape(), Someone.With("wrist"));
        Assert.True(search.Done);
        Assert.Null(search.NextRungId);
        Assert.Contains("wrist", search.Why.En(), StringComparison.Ordinal);
    }

    /// <summary>
    /// A client with a true rung finds it in at most the trials the policy allows, and is never sent more than two rungs
    /// above it. Only a very able sore client may run out of trials below.
    /// </summary>
    [Fact]
    public void Finds_the_true_rung_in_few_trials() =>
        Gen.Select(Gen.Int[0, Content.Library.Ladders.Count - 1], Gen.Int[-1, 10], Gen.Bool)
            .Sample(
                (l, truth, sore) =>
                {
                    var whole = Content.Library.Ladders[l];
                    var who = sore ? Someone.Sore : Someone.Calm;
                    // What waits while the back is sore is not climbed.
                    var ladder = whole with
                    {
                        Rungs =
                        [
                            .. whole.Rungs.Where(r =>
                                !sore || !r.Features.Any(Content.Policy.Sore.Avoids.Contains)
                            ),
                        ],
                    };
                    truth = Math.Min(truth, ladder.Rungs.Count - 1);
                    var tape = new Tape();
                    while (Search(ladder.Id, tape, who).NextRungId is { } next)
                    {
                        var index = ladder.IndexOf(next);
                        Assert.True(index <= Math.Max(truth + 2, (ladder.Rungs.Count - 1) / 2));
                        var side = ladder.Rungs[index].Sides == RungSides.Each ? Side.Left : Side.Both;
                        _ = index <= truth ? Clean(tape, next, side) : Broken(tape, next, side);
                    }
                    var found = Search(ladder.Id, tape, who);
                    Assert.InRange(found.TrialIds.Count, 1, Content.Policy.TrialsPerSide);
                    var entry = found.EntryRungId is { } id ? ladder.IndexOf(id) : -1;
                    Assert.InRange(
                        entry,
                        sore ? Math.Min(truth, (ladder.Rungs.Count - 1) / 3 + 6) - 1 : truth,
                        truth
                    );
                }
            );
}
