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

    private const double Held = 5;

    /// <summary>Every way a trial of B6 (five reps, held) can come out.</summary>
    public static TheoryData<string, Verdict> Outcomes =>
        new()
        {
            { "clean", Verdict.Clean },
            { "one short", Verdict.Broke },
            { "all after the cue", Verdict.Borderline },
            { "two after a cue that worked", Verdict.Borderline },
            { "one after a cue that worked", Verdict.Broke },
            { "two after a cue that did not work", Verdict.Broke },
            { "clean but trembling", Verdict.Borderline },
            { "less far", Verdict.Short },
            { "ended by pain", Verdict.Painful },
            { "more pain than allowed", Verdict.Painful },
        };

    [Theory]
    [MemberData(nameof(Outcomes))]
    public void A_trial_comes_out_in_one_of_five_ways(string told, Verdict expected)
    {
        var rung = Content.Library.Rung("B6");
        Assert.Equal(5, rung.Start.Reps);
        var tape = new Tape().Start("B6", Side.Left);
        Tape After(bool worked, int reps, int broken) =>
            Enumerable
                .Range(0, broken)
                .Aggregate(tape, (t, _) => t.Rep(Held, "arch"))
                .Cue()
                .CueAnswered(worked)
                .Reps(reps, Held)
                .End();
        Tape Trembling()
        {
            for (var i = 0; i < 5; i++)
            {
                tape.Rep(Held, "tremor");
            }
            return tape.End();
        }
        var trial = (
            told switch
            {
                "clean" => tape.Reps(5, Held).End(),
                "one short" => tape.Reps(4, Held).Rep(Held, "arch").End(EndReason.BreakingFault),
                "all after the cue" => After(true, 5, 1),
                "two after a cue that worked" => After(true, 2, 3),
                "one after a cue that worked" => After(true, 1, 4),
                "two after a cue that did not work" => After(false, 2, 3),
                "clean but trembling" => Trembling(),
                "less far" => tape.Range(share: 0.5).Reps(5, Held).End(),
                "ended by pain" => tape.Reps(5, Held).End(EndReason.Pain),
                _ => tape.Reps(5, Held).Pain(PainPhase.Peak, 9).End(),
            }
        ).Only();
        Assert.Equal(expected, RungFinder.VerdictOf(trial, rung));
    }

    /// <summary>The share that as many reps as the start dose asks reached: a few that went farther do not count for the others.</summary>
    [Fact]
    public void The_range_is_that_of_the_shortest_of_as_many_reps_as_are_asked()
    {
        var rung = Content.Library.Rung("B6");
        var tape = new Tape()
            .Start("B6", Side.Left)
            .Range(share: 1)
            .Reps(2, Held)
            .Range(share: 0.5)
            .Reps(3, Held)
            .End();
        Assert.Equal(0.5, RungFinder.RangeOf(tape.Only(), rung));
        var more = new Tape()
            .Start("B6", Side.Left)
            .Range(share: 0.5)
            .Reps(2, Held)
            .Range(share: 0.75)
            .Reps(5, Held)
            .End();
        Assert.Equal(0.75, RungFinder.RangeOf(more.Only(), rung));
        var none = new Tape().Start("B6", Side.Left).Rep(Held, "arch").End(EndReason.BreakingFault);
        Assert.Equal(0, RungFinder.RangeOf(none.Only(), rung));
    }

    [Theory]
    [InlineData(45, 90.0, 0.5)]
    [InlineData(120, 90.0, 1)]
    [InlineData(45, null, 1)]
    public void Degrees_are_a_share_of_the_whole_movement_where_it_is_known(
        double degrees,
        double? full,
        double share
    )
    {
        var tape = new Tape().Start("B6", Side.Left).Range(degrees: degrees).Reps(5, Held).End();
        Assert.Equal(share, RungFinder.RangeOf(tape.Only(), Content.Library.Rung("B6"), full), 6);
    }

    [Fact]
    public void What_was_done_again_counts_as_it_was_done_last()
    {
        var tape = new Tape();
        Broken(tape, "B6");
        Clean(tape, "B6");
        Assert.Equal("B8", Search("B", tape).NextRungId);
        Broken(tape, "B6");
        Assert.Equal("B2", Search("B", tape).NextRungId);
    }

    [Theory]
    [InlineData(0.5, "B6", 0.5)]
    [InlineData(0.2, "B6", 0.2)]
    [InlineData(0.19, "B5", 1)]
    public void Clean_less_far_is_that_rung_less_far_down_to_a_fifth(double share, string entry, double range)
    {
        var tape = new Tape();
        Clean(tape, "B5");
        tape.Start("B6", Side.Left).Range(share: share).Reps(5, Held).End();
        var found = Search("B", tape);
        Assert.Equal((true, entry, range), (found.Done, found.EntryRungId, found.Range));
    }

    [Fact]
    public void While_it_is_sought_the_highest_clean_so_far_is_told_with_its_range()
    {
        var tape = new Tape();
        Clean(tape, "B2");
        tape.Start("B6", Side.Left).Range(share: 0.6).Reps(5, Held).End();
        var found = Search("B", tape);
        Assert.Equal((false, "B6", 0.6), (found.Done, found.EntryRungId, found.Range));
        // What was clean above one that was not is no rung to go by.
        var above = new Tape();
        Broken(above, "B6");
        Clean(above, "B8");
        Assert.Null(Search("B", above).EntryRungId);
    }

    [Fact]
    public void Only_with_a_cue_on_the_lowest_is_the_lowest_coached()
    {
        Tape Cued(Tape tape, string rung) =>
            tape.Start(rung, Side.Left).Rep(Held, "arch").Cue().CueAnswered(true).Reps(5, Held).End();
        var found = Search("B", Cued(Cued(Cued(new Tape(), "B6"), "B2"), "B1"));
        Assert.Equal((true, "B1"), (found.Done, found.EntryRungId));
        Assert.Equal("entry.coach", found.Why.Id);
        // Above it, the one below is taken though it was not tried.
        var below = RungFinder.Search(
            Ladder("B"),
            Side.Left,
            Cued(new Tape(), "B6").Trials(),
            Someone.Calm,
            Content.Policy with
            {
                TrialsPerSide = 1,
            },
            Content.Library
        );
        Assert.Equal((true, "B5", "entry.below"), (below.Done, below.EntryRungId, below.Why.Id));
    }

    [Fact]
    public void Pain_on_the_lowest_is_told_as_pain_and_a_break_as_a_break()
    {
        var hurt = Broken(Broken(new Tape(), "B6"), "B2");
        hurt.Start("B1", Side.Left).Reps(5, Held).End(EndReason.Pain);
        Assert.Equal(
            ("entry.pain", (string?)null),
            (Search("B", hurt).Why.Id, Search("B", hurt).EntryRungId)
        );
        var broke = Broken(Broken(Broken(new Tape(), "B6"), "B2"), "B1");
        Assert.Equal("entry.none", Search("B", broke).Why.Id);
    }
}
