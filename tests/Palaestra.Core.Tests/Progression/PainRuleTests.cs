using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Every rule about pain with its boundary, in the words of who asks. All common practice.</summary>
public class PainRuleTests
{
    private static readonly PracticeLibrary Library = Content.Library;
    private static readonly DateOnly Today = new DateOnly(2026, 3, 2).AddDays(14);

    /// <summary>Twice all clean at the target: without anything else it earns the next rung.</summary>
    private static DecideInput Earned(string rung = "B5", int now = 1)
    {
        var work = Work.AtTarget(rung).BothSides(1).BothSides(2) with { CheckIn = new(now, 1, 1, 1, []) };
        return work.Input() with { Pain = Usual(1, 1, 1) };
    }

    private static PainHistory Usual(params int?[] usuals) =>
        new(
            [
                .. usuals.Select(
                    (usual, i) =>
                        new PastCheckIn(i - usuals.Length, Today.AddDays(7 * (i - usuals.Length)), usual)
                ),
            ],
            usuals[0]
        );

    /// <summary>The sets of today with pain told in the first so many of them.</summary>
    private static DecideInput Hurting(DecideInput input, int painful, int before, int peak) =>
        input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Visit < input.Visit
                        ? p
                        : p with
                        {
                            Sets =
                            [
                                .. p.Sets.Select(
                                    (s, i) =>
                                        s with
                                        {
                                            PainBefore = before,
                                            PainPeak = i < painful ? peak : before,
                                            PainAfter = before,
                                        }
                                ),
                            ],
                        }
                ),
            ],
        };

    private static Decision Of(DecideInput input) => DecisionEngine.Decide(input, Library)[0];

    [Fact]
    public void Without_pain_two_clean_visits_earn_the_next_rung() =>
        Assert.Equal(Outcome.StepUp, Of(Earned()).Outcome);

    [Fact]
    public void Pain_in_the_one_set_of_an_exercise_of_both_sides_eases_it()
    {
        var bridge = Library.Ladders.First(l => l.Id == "C").Rungs.First(r => r.Sides != RungSides.Each);
        var work = new Work(bridge.Id, new Dose(8, 1, 3)).BothSides(1).BothSides(2) with
        {
            CheckIn = new(2, 2, 2, 1, []),
        };
        var decision = Of(Hurting(work.Input() with { Pain = Usual(2) }, 1, 2, 4));
        Assert.Equal("D-PAIN-STOP", decision.RuleId);
        Assert.True(decision.Outcome is Outcome.Ease or Outcome.StepDown, decision.Outcome.ToString());
        Assert.Equal("Pain rose from 2 to 4.", decision.Evidence[0].En());
    }

    [Theory]
    [InlineData(1, 3, "D-PAIN-STOP")] // one of two sets, two points up
    [InlineData(1, 2, "D-MASTER")] // one point is inside the error of the scale
    [InlineData(2, 3, "D-PAIN-STOP")]
    public void D_PAIN_STOP_from_half_the_sets_two_points_up(int painful, int peak, string rule)
    {
        // B5 at its target is two sets a side.
        Assert.Equal(2, Library.Rung("B5").Target.Sets);
        Assert.Equal(rule, Of(Hurting(Earned(), painful, 1, peak)).RuleId);
    }

    [Theory]
    [InlineData(4, "D-PAIN-WATCH")] // one of three sets, three up
    [InlineData(5, "D-PAIN-STOP")] // four up in one set, whatever the share
    public void D_PAIN_WATCH_over_the_limit_in_fewer_sets_and_STOP_for_a_rise_of_four(int peak, string rule)
    {
        var work = new Work("B5", new Dose(6, 3, 0)).BothSides(1).BothSides(2) with
        {
            CheckIn = new(1, 1, 1, 1, []),
        };
        Assert.Contains(rule, Of(Hurting(work.Input() with { Pain = Usual(1) }, 1, 1, peak)).Rules);
    }

    [Fact]
    public void A_set_ended_for_pain_eases_although_no_number_was_told()
    {
        var input = Earned();
        var ended = input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p with
                    {
                        Sets = [.. p.Sets.Select((s, i) => s with { EndedForPain = i == 0 && p.Visit == 2 })],
                    }
                ),
            ],
        };
        Assert.Equal("D-PAIN-STOP", Of(ended).RuleId);
    }

    [Fact]
    public void Painful_on_the_left_eases_both_sides()
    {
        var input = Hurting(Earned(), 2, 1, 4);
        var left = input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Side == Side.Right
                        ? Earned().Visits.First(e => e.Visit == p.Visit && e.Side == p.Side)
                        : p
                ),
            ],
        };
        Assert.All(DecisionEngine.Decide(left, Library), d => Assert.Equal("D-PAIN-STOP", d.RuleId));
    }

    [Fact]
    public void At_the_lowest_it_rests_two_visits_or_another_ladder_takes_its_place()
    {
        var kinds = new HashSet<Outcome>();
        foreach (var ladder in Library.TrainedLadders)
        {
            var lowest = ladder.Rungs[0];
            var dose = new Dose(1, 1, 0) with { Range = 0.25, Height = lowest.Heights?.Max() };
            var work = new Work(lowest.Id, dose).BothSides(1).BothSides(2);
            var decision = Of(Hurting(work.Input() with { Pain = Usual(1) }, 1, 1, 9));
            Assert.Equal("D-PAIN-STOP", decision.RuleId);
            kinds.Add(decision.Outcome);
            if (decision.Outcome == Outcome.Stop)
            {
                Assert.Equal(
                    (SpellKind.Rest, 2, lowest.Id),
                    (decision.Spell!.Kind, decision.Spell.Visits, decision.Spell.RungId)
                );
            }
            else
            {
                Assert.Equal(Outcome.StepDown, decision.Outcome);
                Assert.NotEqual(ladder.Id, Library.LadderOf(decision.RungId).Id);
            }
        }
        Assert.Contains(Outcome.Stop, kinds);
    }

    [Theory]
    [InlineData(2, "D-MASTER")]
    [InlineData(3, "D-PAIN-SESSION")]
    public void D_PAIN_SESSION_two_over_the_check_in_after_ten_minutes(int end, string rule)
    {
        var input = Earned() with { Sessions = [new SessionPain(2, Today, 1, end, end, 10)] };
        var decision = Of(input);
        Assert.Equal(
            (rule, rule == "D-MASTER" ? Outcome.StepUp : Outcome.Stay),
            (decision.RuleId, decision.Outcome)
        );
    }

    [Theory]
    [InlineData(3, Outcome.StepUp)]
    [InlineData(4, Outcome.Stay)]
    public void A_rise_of_three_anywhere_in_the_session_adds_nothing_anywhere(int peak, Outcome outcome) =>
        Assert.Equal(
            outcome,
            Of(Earned() with { Sessions = [new SessionPain(2, Today, 1, peak, 1, 10)] }).Outcome
        );

    [Fact]
    public void A_session_in_which_pain_rose_to_seven_adds_nothing_and_eases_where_it_rose()
    {
        var hurt = Hurting(Earned("B5", 4), 2, 4, 7);
        var other = Earned("E5", 4);
        var otherItem = other.Items[0] with { Id = Guid.NewGuid() };
        var input = hurt with
        {
            Pain = Usual(4, 4, 4),
            Items = [hurt.Items[0], otherItem],
            Visits = [.. hurt.Visits, .. other.Visits.Select(p => p with { PlanItemId = otherItem.Id })],
        };
        var decisions = DecisionEngine.Decide(input, Library);
        Assert.All(decisions, d => Assert.False(d.Outcome is Outcome.Add or Outcome.StepUp, d.ToString()));
        Assert.All(
            decisions.Where(d => d.PlanItemId == hurt.Items[0].Id),
            d => Assert.True(d.Outcome is Outcome.Ease or Outcome.StepDown)
        );
        Assert.Equal("Pain rose from 4 to 7.", decisions[0].Evidence[0].En());
    }

    [Theory]
    [InlineData(2, "D-MASTER")]
    [InlineData(3, "D-PAIN-NOW")]
    [InlineData(8, "D-NO-TRAINING")]
    public void D_PAIN_NOW_two_over_the_reference_and_no_training_from_eight(int now, string rule) =>
        Assert.Contains(rule, Of(Earned(now: now)).Rules);

    [Fact]
    public void Pain_now_eight_against_a_usual_two_moves_nobody_up()
    {
        var input = Earned(now: 8) with { Pain = Usual(2, 2, 2) };
        var decision = Of(input);
        Assert.Equal(Outcome.Stay, decision.Outcome);
        Assert.Contains("D-PAIN-NOW", decision.Rules);
        Assert.Contains(
            decision.Evidence,
            e => e.En().Contains("reference 2 (median of 2, 2, 2)", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Short_sets_for_the_weaker_side_wait_for_a_day_without_pain()
    {
        // Half clean on the left: short sets of it would be more sets than before.
        var work = Work.AtTarget("B5").Visit(2, Side.Left, 0.75).Visit(2, Side.Right);
        var calm = work.Input() with { Pain = Usual(1, 1, 1) };
        Assert.True(Of(calm).Dose.Sets > 2, Of(calm).ToString());
        var sore = Of(calm with { CheckIn = new(4, 1, 1, 1, []) });
        Assert.Contains("D-PAIN-NOW", sore.Rules);
        Assert.Equal(new Dose(8, 2, 0), sore.Dose);
    }

    [Fact]
    public void Pain_now_that_nobody_asked_adds_nothing() =>
        Assert.Equal(
            ("D-PAIN-NOW", Outcome.Stay),
            (
                Of(Earned() with { CheckIn = new(null, 1, 1, 1, []) }) is var d
                    ? (d.RuleId, d.Outcome)
                    : default
            )
        );

    [Theory]
    [InlineData(2, null, Outcome.StepUp)]
    [InlineData(3, null, Outcome.Ease)]
    [InlineData(1, Settling.NextMorning, Outcome.StepUp)]
    [InlineData(1, Settling.LongerThanADay, Outcome.Ease)]
    public void D_PAIN_NEXT_two_over_the_reference_or_not_settled_in_a_day(
        int morning,
        Settling? settled,
        Outcome outcome
    )
    {
        var input = Earned() with { CheckIn = new(1, 1, morning, null, [], Settled: settled) };
        var decision = Of(input);
        Assert.Equal(outcome, decision.Outcome);
        if (outcome == Outcome.Ease)
        {
            Assert.Equal("D-PAIN-NEXT", decision.RuleId);
            // Nothing was raised: half the sets for seven days, then as before.
            Assert.Equal((1, Today.AddDays(7)), (decision.Dose.Sets, decision.Spell!.Until));
        }
    }

    [Theory]
    [InlineData(14, "taken back")]
    [InlineData(15, "half the dose")]
    public void What_was_raised_within_fourteen_days_is_taken_back(int days, string words)
    {
        var input = Earned() with
        {
            CheckIn = new(1, 1, 3, 1, []),
            Raises =
            [
                .. new[] { Side.Left, Side.Right }.Select(s => new Raise(
                    Work.ItemId,
                    s,
                    1,
                    Today.AddDays(-days),
                    "B5",
                    new Dose(6, 2, 0)
                )),
            ],
        };
        var decision = Of(input);
        Assert.Contains(decision.Evidence, e => e.En().Contains(words, StringComparison.Ordinal));
        Assert.Equal(days == 14 ? new Dose(6, 2, 0) : new Dose(8, 1, 0), decision.Dose);
    }

    [Fact]
    public void A_second_flare_in_six_weeks_is_reviewed_and_cuts_no_further()
    {
        var input = Earned() with
        {
            CheckIn = new(1, 1, 3, 1, []),
            Pain = new([new(1, Today.AddDays(-42), 1, 1, 3)], 1),
        };
        Assert.Equal(("D-PAIN-NEXT", Outcome.Stay), (Of(input).RuleId, Of(input).Outcome));
        var longAgo = input with { Pain = new([new(1, Today.AddDays(-43), 1, 1, 3)], 1) };
        Assert.Equal(Outcome.Ease, Of(longAgo).Outcome);
    }

    [Theory]
    [InlineData(new[] { 3, 1 }, false)] // one mild day
    [InlineData(new[] { 3, 3 }, true)] // two of seven days
    [InlineData(new[] { 5, 1 }, true)] // four over, once
    [InlineData(new[] { 4, 1 }, false)]
    public void D_PAIN_HOME_two_days_of_seven_or_four_points_once(int[] pains, bool fires)
    {
        var input = Earned() with
        {
            HomePain = [.. pains.Select((p, i) => new HomePain(Today.AddDays(-1 - i), p, null))],
        };
        Assert.Equal(fires, Of(input).Rules.Contains("D-PAIN-HOME"));
    }

    [Theory]
    [InlineData(new[] { 2, 2, 2, 2, 3, 3 }, 3, false)]
    [InlineData(new[] { 2, 2, 2, 2, 4, 4 }, 4, true)]
    [InlineData(new[] { 2, 4 }, 4, true)] // before there are four: against the first usual
    public void D_PAIN_DRIFT_the_median_of_three_two_over_the_lowest_of_four(
        int[] usuals,
        int today,
        bool fires
    )
    {
        var input = Earned() with
        {
            CheckIn = new(2, today, 1, 1, []),
            Pain = Usual([.. usuals.Select(u => (int?)u)]),
        };
        Assert.Equal(fires, Of(input).Rules.Contains("D-PAIN-DRIFT"));
    }

    [Theory]
    [InlineData(4, false)] // two up: nothing is added
    [InlineData(5, true)] // three up: the last raise is taken back
    public void D_PAIN_DRIFT_three_up_takes_back_what_was_raised_last(int usual, bool takenBack)
    {
        var raised = new Raise(Work.ItemId, Side.Left, 1, Today.AddDays(-7), "B4", Library.Rung("B4").Start);
        var input = Earned() with
        {
            CheckIn = new(2, usual, 1, 1, []),
            Pain = Usual(2, 2, 2, 2, usual, usual),
            Raises = [raised, raised with { Side = Side.Right }],
        };
        var decision = Of(input);
        Assert.Contains("D-PAIN-DRIFT", decision.Rules);
        Assert.Equal(takenBack, decision.RungId == "B4");
    }

    [Theory]
    [InlineData(2, 2, "D-PAIN-WATCH")] // a point up at the end, twice running
    [InlineData(1, 2, null)] // only today
    [InlineData(2, 1, null)] // only last time
    public void D_PAIN_WATCH_a_point_up_at_the_end_at_two_visits_running(int last, int today, string? rule)
    {
        var input = Earned() with
        {
            Visits =
            [
                .. Earned()
                    .Visits.Select(p =>
                        p with
                        {
                            Sets =
                            [
                                .. p.Sets.Select(s =>
                                    s with
                                    {
                                        PainBefore = 1,
                                        PainAfter = p.Visit == 2 ? today : last,
                                    }
                                ),
                            ],
                        }
                    ),
            ],
        };
        Assert.Equal(rule is not null, Of(input).Rules.Contains("D-PAIN-WATCH"));
    }

    [Theory]
    [InlineData(2, 14, true)]
    [InlineData(2, 15, true)] // two visits are not over
    [InlineData(3, 14, true)] // the fortnight is not over
    [InlineData(3, 15, false)]
    public void D_LEG_MEMORY_for_two_visits_and_fourteen_days(int visitsAgo, int daysAgo, bool remembered)
    {
        var moved = new SessionPain(
            5 - visitsAgo,
            Today.AddDays(-daysAgo),
            1,
            3,
            1,
            10,
            [new(Side.Left, true)]
        );
        Assert.Equal(remembered, LegMemory.Sides([moved], 5, Today, new Judgement()).Any());
    }

    [Theory]
    [InlineData(true, "D-LEG-MEMORY")]
    [InlineData(false, "D-REFER")]
    [InlineData(null, "D-REFER")] // nobody asked whether it was back
    public void Pain_that_went_down_the_leg_and_was_back_is_remembered_and_else_examined(
        bool? back,
        string rule
    )
    {
        var input = Earned() with
        {
            Sessions = [new SessionPain(2, Today, 1, 3, 1, 10, [new(Side.Left, back, Work.ItemId)])],
        };
        Assert.Equal(rule, Of(input).RuleId);
    }

    [Theory]
    [InlineData("2,3,3,4", 2, 3)]
    [InlineData("2,3", 2, 3)] // halves rounded up
    [InlineData("2,6,6,6", 2, 3)] // at most one over the first
    [InlineData("4,,,2", 4, 3)] // a missing usual is skipped
    [InlineData("1,1,5,5,5,5", 4, 5)] // the last four
    public void The_reference_is_the_median_of_four_at_most_one_over_the_first(
        string told,
        int first,
        int reference
    )
    {
        var usuals = told.Split(',').Select(t => t.Length == 0 ? (int?)null : int.Parse(t)).ToArray();
        Assert.Equal(
            reference,
            ReferencePain.Of(Usual(usuals) with { FirstUsual = first }, 9, new Judgement()).Value
        );
    }

    [Fact]
    public void The_first_visit_is_its_own_reference() =>
        Assert.Equal(6, ReferencePain.Of(null, 6, new Judgement()).Value);

    [Fact]
    public void One_check_in_a_day_counts_the_latest()
    {
        var history = new PainHistory([new(1, Today, 2), new(2, Today, 3)], 5);
        Assert.Equal(3, ReferencePain.Of(history, 9, new Judgement()).Value);
    }

    [Fact]
    public void Long_standing_even_pain_counts_as_calm()
    {
        var profile = new ClientProfile(new Pain(5, 6, 5), 6, false, []);
        var input = Earned(now: 5) with
        {
            Profile = profile,
            Pain = Usual(5, 4, 5, 5),
            CheckIn = new(5, 5, 5, 6, []),
        };
        Assert.True(new DayFacts(input, Library).Steady);
        Assert.False(new DayFacts(input with { Pain = Usual(5, 3, 5, 5) }, Library).Steady);
        Assert.False(new DayFacts(input with { CheckIn = new(5, 5, 5, null, []) }, Library).Steady);
    }

    [Theory]
    [InlineData(false, "D-BREATH")] // the cue did not clear it
    [InlineData(true, "D-FAULT-CUE")]
    public void D_BREATH_held_after_a_cue_makes_the_next_easier(bool cleared, string rule)
    {
        var work = new Work("B6", new Dose(10, 1, 3)).BothSides(1).BothSides(2, 0.9, cleared);
        var input = work.Input();
        var held = input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p with
                    {
                        Sets =
                        [
                            .. p.Sets.Select(s =>
                                p.Visit == 2
                                    ? s with
                                    {
                                        FirstFault = Content
                                            .Library.Faults.Single(f => f.Means == FaultMeaning.BreathHold)
                                            .Code,
                                    }
                                    : s
                            ),
                        ],
                    }
                ),
            ],
        };
        var decision = Of(held);
        Assert.Contains(rule, decision.Rules);
        Assert.Equal(!cleared, decision.Outcome is Outcome.Ease or Outcome.StepDown);
    }

    private static Plan PlanOf(params PlanItem[] items) =>
        new(items, SpinalStrategy.Neutral, Activation.Brace, Content.Policy.Id, 1, "", 10, []);

    private static PlanItem Resting(int visits) =>
        Work.AtTarget("B5").Input().Items[0] with
        {
            Spell = new(SpellKind.Rest, null, visits, "B1", [new(Side.Left, Library.Rung("B1").Start)]),
        };

    [Fact]
    public void D_REST_two_visits_and_back_at_the_start_dose_of_the_lowest()
    {
        var item = Resting(2);
        var input = Earned() with { Items = [item] };
        Assert.All(
            DecisionEngine.Bare(input, Library),
            d => Assert.Equal(("D-REST", Outcome.Stay), (d.RuleId, d.Outcome))
        );
        Plan Next(Plan plan) =>
            NextPlan.Apply(
                plan,
                DecisionEngine.Bare(input with { Items = plan.Items }, Library),
                Library,
                Content.Policy,
                Someone.Calm
            );
        var once = Next(PlanOf(item));
        Assert.True(once.Items[0].Resting);
        Assert.Empty(once.ToDoOn(Today).Items);
        var twice = Next(once);
        Assert.Equal(("B1", false), (twice.Items[0].RungId, twice.Items[0].Resting));
        Assert.All(twice.Items[0].Doses, d => Assert.Equal(Library.Rung("B1").Start, d.Dose));
    }

    [Fact]
    public void D_REST_never_returns_to_what_is_barred_by_now()
    {
        var barred = Library
            .Precautions.Where(p => !p.Sided)
            .Select(p => new ClientProfile(Someone.Calm.Pain, 1, false, [new ClientPrecaution(p.Id)]))
            .First(who => Allowance.Of(Library, who.Precautions, Library.Rung("B1"), Side.Both).Barred);
        var input = Earned() with { Items = [Resting(1)], Profile = barred };
        var next = NextPlan.Apply(
            PlanOf(input.Items[0]),
            DecisionEngine.Bare(input, Library),
            Library,
            Content.Policy,
            barred
        );
        Assert.Empty(next.Items);
    }

    [Fact]
    public void D_REFER_takes_out_what_rests_too()
    {
        var input = Earned() with { Items = [Resting(1)], CheckIn = new(1, 1, 1, 1, ["new-weakness"]) };
        Assert.All(DecisionEngine.Bare(input, Library), d => Assert.Equal("D-REFER", d.RuleId));
    }
}
