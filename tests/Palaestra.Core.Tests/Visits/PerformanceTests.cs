using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
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
            "",
            [new(Side.Left, Asked), new(Side.Right, Asked)],
            [],
            [],
            ""
        );
        return Performance
            .FromTrials(1, new DateOnly(2026, 3, 2), [item], tape.Trials())
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
}
