using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

/// <summary>A set as it was done, and a set of ways that were counted apart.</summary>
public class SetDoneTests
{
    private static SetDone Done(
        int reps = 3,
        int clean = 3,
        int cued = 0,
        int breaking = 0,
        double seconds = 9
    ) => new(reps, clean, cued, breaking, seconds, PainOver: false, null, null, null);

    private static SetDone Of(int ways, params (string Way, SetDone Set)[] all) =>
        SetDone.OfWays([.. all.Select(w => ((string?)w.Way, w.Set))], ways);

    private static SetDone Both(SetDone a, SetDone b) => Of(2, ("a", a), ("b", b));

    [Fact]
    public void Counts_are_those_of_the_weakest_way_with_all_it_did()
    {
        var set = Of(2, ("a", Done(5, 4, 1, 0, 10)), ("b", Done(3, 2, 0, 1, 4)), ("b", Done(3, 1, 2, 1, 5)));
        Assert.Equal((5, 3, 1), (set.Reps, set.CleanReps, set.CuedCleanReps));
        Assert.Equal((2, 9), (set.BreakingReps, set.CleanSeconds));
    }

    [Fact]
    public void A_way_left_out_leaves_nothing_but_what_broke()
    {
        var set = Of(3, ("a", Done(5, 5, 1, 0, 10)), ("b", Done(5, 3, 1, 2, 6)));
        Assert.Equal((0, 0, 0), (set.Reps, set.CleanReps, set.CuedCleanReps));
        Assert.Equal((2, 0), (set.BreakingReps, set.CleanSeconds));
    }

    [Fact]
    public void What_is_bad_in_one_way_is_bad_in_the_set_whichever_it_is()
    {
        var bad = Done() with
        {
            PainOver = true,
            Eased = true,
            EndedForPain = true,
            Tremor = 0.4,
            Effort = 9,
        };
        foreach (var set in new[] { Both(bad, Done()), Both(Done() with { Effort = 2, Tremor = 0.1 }, bad) })
        {
            Assert.Equal((true, true, true), (set.PainOver, set.Eased, set.EndedForPain));
            Assert.Equal((0.4, 9), (set.Tremor, set.Effort));
        }
        var good = Both(Done(), Done());
        Assert.Equal((false, false, false), (good.PainOver, good.Eased, good.EndedForPain));
    }

    [Theory]
    [InlineData(null, null, null)]
    [InlineData(true, null, true)]
    [InlineData(null, true, true)]
    [InlineData(true, false, false)]
    [InlineData(false, true, false)]
    [InlineData(null, false, false)]
    public void A_cue_held_where_no_way_answers_otherwise(bool? one, bool? other, bool? held) =>
        Assert.Equal(held, Both(Done() with { CueFixed = one }, Done() with { CueFixed = other }).CueFixed);

    [Fact]
    public void The_first_fault_and_the_last_words_are_told()
    {
        var set = Of(
            3,
            ("a", Done() with { Felt = "belly", Cue = "long neck" }),
            ("b", Done() with { FirstFault = "arch", Felt = "back", Cue = "ribs down" }),
            ("c", Done() with { FirstFault = "twist" })
        );
        Assert.Equal(("arch", "back", "ribs down"), (set.FirstFault, set.Felt, set.Cue));
    }

    [Fact]
    public void Pain_is_the_most_of_any_way_against_what_was_before_the_way_it_rose_most_in()
    {
        var set = Of(
            3,
            ("a", Done() with { PainBefore = 5, PainPeak = 6, PainAfter = 3 }),
            ("b", Done() with { PainBefore = 2, PainPeak = 5, PainAfter = 4 }),
            ("c", Done() with { PainBefore = 1 })
        );
        Assert.Equal((2, 6, 4), (set.PainBefore, set.PainPeak, set.PainAfter));
    }

    /// <summary>Not known before it: the rise it would have been is not known either, one that is known goes first.</summary>
    [Fact]
    public void A_rise_of_nothing_says_more_than_one_that_is_not_known() =>
        Assert.Equal(
            4,
            Both(Done() with { PainPeak = 9 }, Done() with { PainBefore = 4, PainPeak = 4 }).PainBefore
        );

    [Fact]
    public void Where_no_pain_was_told_or_none_before_it_the_first_ways_before_stands()
    {
        Assert.Equal(3, Both(Done() with { PainBefore = 3 }, Done() with { PainBefore = 1 }).PainBefore);
        Assert.Equal(3, Both(Done() with { PainBefore = 3 }, Done() with { PainPeak = 5 }).PainBefore);
    }

    [Theory]
    [InlineData(null, null, null)]
    [InlineData(3, null, 3)]
    [InlineData(null, 4, 4)]
    [InlineData(3, 5, 5)]
    [InlineData(5, 3, 5)]
    public void The_most_pain_is_told_while_or_after(int? peak, int? after, int? most) =>
        Assert.Equal(most, (Done() with { PainPeak = peak, PainAfter = after }).PainMost);

    [Theory]
    [InlineData(2, 5, 6, 4)] // asked at the set: the check-in does not count
    [InlineData(5, 2, 6, 1)]
    [InlineData(null, 5, 6, 1)]
    [InlineData(6, 1, 4, 0)] // never below nothing
    [InlineData(null, null, 6, null)]
    [InlineData(2, 5, null, null)]
    public void A_rise_is_over_what_was_before_the_set(int? before, int? checkIn, int? peak, int? rise) =>
        Assert.Equal(rise, (Done() with { PainBefore = before, PainPeak = peak }).Rise(checkIn));

    [Theory]
    [InlineData(2, 6, 4, true)]
    [InlineData(6, 2, 7, false)]
    [InlineData(null, 6, 7, false)]
    [InlineData(null, 2, 4, true)]
    [InlineData(2, 2, null, false)]
    public void Over_the_limit_is_measured_from_before_the_set(
        int? before,
        int? checkIn,
        int? peak,
        bool over
    ) =>
        Assert.Equal(
            over,
            (Done() with { PainBefore = before, PainPeak = peak }).Over(
                new PainRule(PainRuleKind.NoRise, 10),
                checkIn
            )
        );

    [Fact]
    public void Judged_over_or_ended_for_pain_is_over_without_a_number()
    {
        var rule = new PainRule(PainRuleKind.NoRise, 10);
        Assert.True((Done() with { PainOver = true }).Over(rule, 9));
        Assert.True((Done() with { EndedForPain = true }).Over(rule, 9));
    }

    private static Performance Doing(params SetDone[] sets) =>
        new(1, new DateOnly(2026, 3, 2), Work.ItemId, "B5", Side.Left, new Dose(5, 2, 0), sets);

    [Fact]
    public void A_set_ended_for_pain_is_not_clean_though_no_number_was_over()
    {
        Assert.True(Doing(Done(5, 5), Done(5, 5)).AllClean);
        Assert.False(Doing(Done(5, 5), Done(5, 5) with { EndedForPain = true }).AllClean);
        Assert.False(Doing(Done(5, 5) with { PainOver = true }, Done(5, 5)).AllClean);
    }

    [Fact]
    public void Reps_begun_and_never_finished_were_tried() =>
        Assert.Equal(9, Doing(Done(5, 5), Done(3, 3, 0, 4)).Tried);

    [Fact]
    public void The_hardest_and_shakiest_set_speaks_for_the_exercise()
    {
        var work = Doing(Done() with { Effort = 8, Tremor = 0.5 }, Done() with { Effort = 4, Tremor = 0.1 });
        Assert.Equal((8, 0.5), (work.Effort, work.Tremor));
        Assert.Equal(0, Doing().Tremor);
    }

    [Theory]
    [InlineData(true, null, true)]
    [InlineData(null, true, true)]
    [InlineData(null, null, false)]
    [InlineData(true, false, false)]
    public void A_cue_fixed_it_where_every_cue_given_held(bool? one, bool? other, bool held) =>
        Assert.Equal(held, Doing(Done() with { CueFixed = one }, Done() with { CueFixed = other }).CueFixed);

    private static Trial Trial(Dose target, int clean = 5) =>
        new Tape().Start("B5", Side.Left, TrialPurpose.Session, target).Reps(clean).End().Trials()[0];

    [Fact]
    public void What_was_done_as_prescribed_has_no_setting_of_its_own()
    {
        var asked = new Dose(5, 1, 0) { Range = 0.8 };
        var set = Performance.Set(Trial(asked), "B5", asked);
        Assert.Null(set.Setting);
        Assert.Null(set.RungId);
        Assert.Null(set.CueFixed);
    }

    [Fact]
    public void Another_rung_and_another_range_are_told()
    {
        var asked = new Dose(5, 1, 0);
        var set = Performance.Set(Trial(asked with { Range = 0.5 }), "B6", asked);
        Assert.Equal((0.5, "B5", true), (set.Setting!.Value.Range, set.RungId, set.Eased));
    }

    /// <summary>Half the way clean of the whole that was asked is half; more than was asked is what was asked.</summary>
    [Theory]
    [InlineData(1, 0.5, 0.5)]
    [InlineData(0.6, 0.9, null)]
    public void The_range_done_is_what_was_reached_clean(double asked, double reached, double? done)
    {
        var target = new Dose(5, 1, 0) { Range = asked };
        var trial = Trial(target);
        var reaching = trial with { Clean = trial.Clean with { Reach = new Reach(reached, null) } };
        Assert.Equal(done, Performance.Set(reaching, "B5", target).Setting?.Range);
    }
}
