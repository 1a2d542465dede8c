using Palaestra.Core.Capture;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

public class PerformanceTests
{
    private static readonly Dose Asked = new(5, 2, 0);

    private static Performance Of(Tape tape)
    {
        var item = new PlanItem(
            Work.ItemId,
            "B5",
            Message.Plain(""),
            [new(Side.Left, Asked), new(Side.Right, Asked)],
            [],
            [],
            ""
        );
        return Performance
            .FromTrials(1, new DateOnly(2026, 3, 2), [item], tape.Trials(), Content.Library)
            .First(p => p.Side == Side.Left);
    }

    private static Tape Set(Tape tape, int clean, int broken = 0, Side side = Side.Left)
    {
        tape.Start("B5", side, TrialPurpose.Session, Asked with { Sets = 1 }).Reps(clean);
        for (var i = 0; i < broken; i++)
        {
            tape.Rep(fault: "arch");
        }
        return tape.End();
    }

    [Fact]
    public void Two_clean_sets_of_what_was_asked_are_all_clean() =>
        Assert.True(Of(Set(Set(new Tape(), 5), 5)).AllClean);

    [Theory]
    [InlineData(5, 4)]
    [InlineData(5, 0)]
    public void One_rep_or_one_set_missing_is_not_all_clean(int first, int second)
    {
        var tape = Set(new Tape(), first);
        Assert.False(Of(second == 0 ? tape : Set(tape, second)).AllClean);
    }

    [Fact]
    public void More_reps_do_not_make_up_for_a_broken_one() =>
        Assert.False(Of(Set(Set(new Tape(), 8, broken: 1), 5)).AllClean);

    [Fact]
    public void The_sides_are_counted_apart()
    {
        var performance = Of(Set(Set(new Tape(), 5), 2, broken: 3, Side.Right));
        Assert.Equal((5, 0), (performance.CleanReps, performance.BreakingReps));
    }

    [Fact]
    public void Screens_and_open_trials_are_no_session_work()
    {
        var tape = Set(new Tape(), 5).Start("B5", Side.Left).Reps(5).End();
        tape.Start("B5", Side.Left, TrialPurpose.Session, Asked with { Sets = 1 }).Reps(3);
        Assert.Single(Of(tape).Sets);
    }

    [Theory]
    [InlineData(null, false)]
    [InlineData(true, true)]
    [InlineData(false, false)]
    public void A_cue_fixed_it_only_when_it_was_answered_so(bool? worked, bool fixedIt)
    {
        var tape = new Tape()
            .Start("B5", Side.Left, TrialPurpose.Session, Asked with { Sets = 1 })
            .Rep(fault: "arch")
            .Cue();
        if (worked is { } answer)
        {
            tape.CueAnswered(answer);
        }
        Assert.Equal(fixedIt, Of(tape.Reps(4).End()).CueFixed);
    }

    [Fact]
    public void Cued_clean_reps_count_as_done_but_not_as_clean_without_a_cue()
    {
        var performance = Of(
            new Tape()
                .Start("B5", Side.Left, TrialPurpose.Session, Asked with { Sets = 1 })
                .Cue()
                .Reps(5)
                .End()
        );
        Assert.Equal((0, 5), (performance.CleanReps, performance.AllCleanReps));
        Assert.Equal(0.5, performance.DoneFraction);
        Assert.False(performance.AllClean);
    }

    [Fact]
    public void Ending_for_pain_is_a_painful_set_even_without_a_number()
    {
        var tape = new Tape()
            .Start("B5", Side.Left, TrialPurpose.Session, Asked with { Sets = 1 })
            .Reps(2)
            .End(EndReason.Pain);
        Assert.Equal(1, Of(tape).PainSets);
    }

    [Theory]
    [InlineData(8, 2, true)]
    [InlineData(8, 1, false)]
    [InlineData(7, 2, false)]
    public void The_target_is_met_only_at_a_dose_that_covers_it(int reps, int sets, bool meets)
    {
        var work = new Work("B5", new Dose(reps, sets, 0)).Visit(1, Side.Left);
        Assert.Equal(meets, work.Done[0].Meets(Content.Library.Rung("B5").Target));
    }

    private static readonly PlanItem Circles = new(
        Work.ItemId,
        "J2",
        Message.Plain(""),
        [new(Side.Left, new Dose(3, 1, 0)), new(Side.Right, new Dose(3, 1, 0))],
        [],
        [],
        ""
    );

    private static Tape Way(Tape tape, string? way, int clean, int broken = 0)
    {
        tape.Start("J2", Side.Left, TrialPurpose.Session, new Dose(3, 1, 0))
            .With(start => start with { Variant = way, Set = 1 })
            .Reps(clean);
        for (var i = 0; i < broken; i++)
        {
            tape.Rep(fault: "twist");
        }
        return tape.End();
    }

    private static Performance OfCircles(Tape tape) =>
        Performance
            .FromTrials(1, new DateOnly(2026, 3, 2), [Circles], tape.Trials(), Content.Library)
            .First(p => p.Side == Side.Left);

    [Fact]
    public void A_set_of_ways_counts_as_its_weakest_way()
    {
        var both = OfCircles(Way(Way(new Tape(), "outward", 3), "inward", 1, broken: 2));
        Assert.Equal((1, 2, 1), (both.CleanReps, both.BreakingReps, both.Sets.Count));
        Assert.False(both.AllClean);
        Assert.True(OfCircles(Way(Way(new Tape(), "outward", 3), "inward", 3)).AllClean);
    }

    [Fact]
    public void A_way_left_out_leaves_the_set_undone() =>
        Assert.Equal(0, OfCircles(Way(new Tape(), "outward", 3)).CleanReps);

    [Fact]
    public void A_way_begun_again_counts_with_all_its_reps() =>
        Assert.Equal(
            3,
            OfCircles(Way(Way(Way(new Tape(), "outward", 1), "outward", 2), "inward", 3)).CleanReps
        );

    [Fact]
    public void Pain_in_one_way_is_pain_in_the_set()
    {
        var tape = Way(new Tape(), "outward", 3).Pain(PainPhase.After, 7);
        Assert.Equal(7, OfCircles(Way(tape, "inward", 3)).Sets[0].PainMost);
    }

    [Fact]
    public void Mixed_rounds_are_sets_as_they_are()
    {
        Assert.True(OfCircles(Way(new Tape(), null, 3)).AllClean);
        // Begun again under the same number they are still two.
        Assert.Equal(2, OfCircles(Way(Way(new Tape(), null, 3), null, 2)).Sets.Count);
    }

    [Fact]
    public void The_sets_stand_in_the_order_they_were_done_in()
    {
        var tape = Set(Set(new Tape(), 5), 2, broken: 1);
        var item = new PlanItem(Work.ItemId, "B5", Message.Plain(""), [new(Side.Left, Asked)], [], [], "");
        var done = Performance.FromTrials(
            1,
            new DateOnly(2026, 3, 2),
            [item],
            [.. tape.Trials().Reverse()],
            Content.Library
        );
        Assert.Equal([5, 2], Assert.Single(done).Sets.Select(set => set.CleanReps));
    }
}
