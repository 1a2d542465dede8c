using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Who is offered one up, what a try grants, and what is carried over.</summary>
public class ProbeRuleTests
{
    private static readonly Dose Half = new(8, 1, 0);
    private static readonly DateOnly FirstDay = new(2026, 3, 2);

    /// <summary>Heel tap, half of the target, clean at two visits.</summary>
    private static Work Clean => new Work("B5", Half).BothSides(1).BothSides(2);

    private static bool Offered(Work work, Func<DecideInput, DecideInput>? change = null) =>
        Decide(work, change).All(d => d.Probe is not null);

    private static IReadOnlyList<Decision> Decide(Work work, Func<DecideInput, DecideInput>? change = null)
    {
        var input = work.Input();
        return DecisionEngine.Bare(change is null ? input : change(input), Content.Library);
    }

    private static IReadOnlyList<Decision> Decide(int visit, Work work) =>
        DecisionEngine.Bare(work.Input(visit), Content.Library);

    [Fact]
    public void Clean_at_two_visits_well_below_the_target_is_ready_for_one_set_of_the_next()
    {
        var decisions = Decide(Clean);
        Assert.All(
            decisions,
            d =>
            {
                Assert.Equal("B6", d.Probe!.RungId);
                Assert.Equal(Content.Library.Rung("B6").Start with { Sets = 1 }, d.Probe.Dose);
                Assert.Contains("D-READY", d.Rules);
                Assert.Equal("D-BUILD", d.RuleId);
            }
        );
    }

    [Fact]
    public void Once_clean_is_not_ready() => Assert.False(Offered(new Work("B5", Half).BothSides(2)));

    [Fact]
    public void Once_clean_with_reps_enough_is_not_ready_without_a_home_log() =>
        Assert.False(Offered(new Work("B5", new Dose(10, 1, 0)).BothSides(2)));

    [Fact]
    public void Once_clean_and_a_home_log_that_agrees_is_ready() =>
        Assert.True(Offered(new Work("B5", new Dose(10, 1, 0)).BothSides(2).AtHome(0.8, 1)));

    [Fact]
    public void One_side_that_was_not_clean_is_enough_to_wait() =>
        Assert.DoesNotContain(
            Decide(new Work("B5", Half).BothSides(1).Visit(2, Side.Left).Visit(2, Side.Right, 0.5)),
            d => d.Probe is not null
        );

    [Theory]
    [InlineData(6, true)]
    [InlineData(7, false)]
    [InlineData(null, false)] // effort was not asked
    public void Effort_was_asked_and_is_six_at_most(int? effort, bool ready) =>
        Assert.Equal(ready, Offered(new Work("B5", Half).BothSides(1).BothSides(2, effort: effort)));

    // Heel tap's target is 2 sets of 8, of which three tenths are 4.8 reps; three visits of four are twelve reps.
    [Theory]
    [InlineData(4, false)]
    [InlineData(5, true)]
    public void Three_tenths_of_the_targets_time_is_enough(int reps, bool ready) =>
        Assert.Equal(
            ready,
            Decide(3, new Work("B5", new Dose(reps, 1, 0)).BothSides(1).BothSides(2).BothSides(3))
                .All(d => d.Probe is not null)
        );

    // Three reaches of a target of eight: the run of visits counts, not the last two alone.
    [Fact]
    public void Ten_clean_reps_over_the_visits_are_enough_whatever_their_number()
    {
        var few = new Work("K3", new Dose(3, 1, 0)).BothSides(1).BothSides(2).BothSides(3);
        Assert.DoesNotContain(Decide(3, few), d => d.Probe is not null);
        Assert.All(Decide(4, few.BothSides(4)), d => Assert.NotNull(d.Probe));
    }

    // One leg, single holds to 45 s: 30 + 30 s are enough, 29 + 29 s not, and one rep each is never ten.
    [Theory]
    [InlineData(29, false)]
    [InlineData(30, true)]
    public void Sixty_clean_seconds_stand_for_ten_reps(double hold, bool ready) =>
        Assert.Equal(ready, Offered(new Work("K2", new Dose(1, 1, hold)).BothSides(1).BothSides(2)));

    [Fact]
    public void Visits_at_an_easier_setting_do_not_speak_for_it()
    {
        var full = Clean;
        var easier = full with
        {
            Done = [.. full.Done.Select(p => p with { Prescribed = p.Prescribed with { Range = 0.5 } })],
        };
        Assert.False(Offered(easier));
    }

    [Fact]
    public void A_longer_way_comes_before_anything_else()
    {
        var offer = Decide(new Work("B5", Half with { Range = 0.5 }).BothSides(1).BothSides(2))[0].Probe!;
        Assert.Equal(("B5", 0.75), (offer.RungId, offer.Dose.Range));
    }

    [Fact]
    public void A_heavier_weight_comes_before_the_next_rung_and_never_at_the_load_at_which_form_broke()
    {
        var work = new Work("B10", new Dose(8, 1, 0) { Load = 1 }).BothSides(1).BothSides(2);
        var offer = Decide(work)[0].Probe!;
        Assert.Equal(("B10", 1.5), (offer.RungId, offer.Dose.Load));
        Assert.False(Offered(work, input => input with { Broke = [new("B10", 1.5)] }));
    }

    [Theory]
    [InlineData(0.2, false)]
    [InlineData(0, true)]
    public void Trembling_is_not_ready(double tremor, bool ready)
    {
        var work = Clean;
        var done = work.Done.Select(p =>
            p.Visit == 2 ? p with { Sets = [.. p.Sets.Select(s => s with { Tremor = tremor })] } : p
        );
        Assert.Equal(ready, Offered(work with { Done = [.. done] }));
    }

    [Fact]
    public void A_tremor_of_the_clients_own_says_nothing()
    {
        var work = Clean;
        var done = work.Done.Select(p => p with { Sets = [.. p.Sets.Select(s => s with { Tremor = 0.9 })] });
        Assert.True(Offered(work with { Done = [.. done] }, input => input with { KnownTremor = true }));
    }

    [Fact]
    public void Nothing_is_tried_while_an_exercise_is_halved_or_after_time_away()
    {
        Assert.False(
            Offered(
                Clean,
                input =>
                    input with
                    {
                        Items =
                        [
                            input.Items[0] with
                            {
                                Spell = new(
                                    SpellKind.Half,
                                    input.Date.AddDays(3),
                                    null,
                                    "B5",
                                    input.Items[0].Doses
                                ),
                            },
                        ],
                    }
            )
        );
        Assert.False(Offered(Clean, input => input with { LastWorkDate = input.Date.AddDays(-14) }));
    }

    [Fact]
    public void Felt_in_the_wrong_place_is_not_ready()
    {
        var place = Content.Library.FeltPlaces.First(p => !p.AsIntended && p.Change is not null).Id;
        var work = Clean;
        var done = work.Done.Select(p =>
            p.Visit == 2 ? p with { Sets = [.. p.Sets.Select(s => s with { Felt = place })] } : p
        );
        Assert.False(Offered(work with { Done = [.. done] }));
    }

    [Fact]
    public void Fragile_bone_is_never_tried() =>
        Assert.False(Offered(Clean with { Profile = Someone.With("fragile-bone") }));

    [Fact]
    public void An_irritable_back_is_not_tried() =>
        Assert.False(Offered(Clean with { Profile = Someone.Calm with { WakesAtNight = true } }));

    private static bool OfferedAfter(params (int DaysAgo, int Now, double? Hours)[] checks) =>
        Offered(
            Clean,
            input =>
                input with
                {
                    Pain = new PainHistory([
                        .. checks.Select(c => new PastCheckIn(
                            1,
                            input.Date.AddDays(-c.DaysAgo),
                            1,
                            c.Now,
                            SettledHours: c.Hours
                        )),
                    ]),
                }
        );

    [Theory]
    [InlineData(6, false)]
    [InlineData(7, true)]
    public void A_back_that_was_irritable_has_to_be_calm_for_a_week(int daysAgo, bool ready) =>
        Assert.Equal(ready, OfferedAfter((daysAgo, 8, null), (30, 1, null)));

    [Theory]
    [InlineData(23, true)]
    [InlineData(24, false)]
    public void A_back_that_took_a_day_to_settle_this_week_is_not_tried(double hours, bool ready) =>
        Assert.Equal(ready, OfferedAfter((3, 1, hours)));

    [Theory]
    [InlineData("calendar")]
    [InlineData("endurance")]
    public void Schools_that_grant_in_their_own_way_do_not_try(string kind)
    {
        var way = kind == "calendar" ? MovingOn.Calendar : MovingOn.Endurance;
        var policy = Content.Library.Policies.First(p => p.MovingOn == way);
        Assert.False(Offered(Clean with { PolicyId = policy.Id }));
    }

    [Fact]
    public void Nothing_is_offered_where_a_rule_about_pain_is_in_force_or_the_step_is_earned_anyway()
    {
        Assert.False(Offered(Clean with { CheckIn = new(4, 1, 1, 1, []) }));
        Assert.All(
            Decide(Work.AtTarget("B5").BothSides(1).BothSides(2)),
            d => Assert.Equal((Outcome.StepUp, null), (d.Outcome, d.Probe))
        );
    }

    // What was tried -----------------------------------------------------------------------------------------------

    private static DecideInput Tried(
        DecideInput input,
        int clean = 5,
        int peak = 1,
        int visit = 2,
        string rung = "B6",
        Side? only = null
    ) =>
        input with
        {
            Probes =
            [
                .. new[] { Side.Left, Side.Right }
                    .Where(side => only is null || side == only)
                    .Select(side => new ProbeDone(
                        Work.ItemId,
                        side,
                        visit,
                        FirstDay.AddDays(7 * visit),
                        rung,
                        Content.Library.Rung(rung).Start,
                        new SetDone(
                            5,
                            clean,
                            0,
                            5 - clean,
                            0,
                            false,
                            null,
                            6,
                            clean < 5 ? "arch" : null,
                            PainBefore: 1,
                            PainPeak: peak
                        )
                    )),
            ],
        };

    [Fact]
    public void A_clean_try_on_both_sides_grants_the_step()
    {
        var decisions = Decide(Clean, input => Tried(input));
        Assert.All(
            decisions,
            d =>
            {
                Assert.Equal(("D-PROBE", Outcome.StepUp, "B6"), (d.RuleId, d.Outcome, d.RungId));
                Assert.Contains("D-CARRY", d.Rules);
            }
        );
    }

    [Theory]
    [InlineData(4, 1)] // one of five broke
    [InlineData(5, 3)] // two points more are over the limit; ten minutes later they were gone
    public void A_try_that_broke_or_hurt_stays(int clean, int peak) =>
        Assert.All(
            Decide(
                Clean,
                input => Tried(input, clean, peak) with { Sessions = [new(2, input.Date, 1, peak, 1, 10)] }
            ),
            d => Assert.Equal(("D-PROBE", Outcome.Stay, "B5"), (d.RuleId, d.Outcome, d.RungId))
        );

    [Fact]
    public void A_try_that_was_cued_eased_cut_short_or_trembled_stays_like_one_that_broke_beyond_its_reps()
    {
        void Stays(Func<SetDone, SetDone> change) =>
            Assert.All(
                Decide(
                    Clean,
                    input =>
                    {
                        var tried = Tried(input);
                        return tried with
                        {
                            Probes = [.. tried.Probes!.Select(p => p with { Set = change(p.Set) })],
                        };
                    }
                ),
                d => Assert.Equal(("D-PROBE", Outcome.Stay, "B5"), (d.RuleId, d.Outcome, d.RungId))
            );
        Stays(set => set with { CueFixed = true });
        Stays(set => set with { Eased = true });
        Stays(set => set with { Reps = 4, CleanReps = 4 });
        Stays(set => set with { Reps = 6, BreakingReps = 1, FirstFault = "arch" });
        Stays(set => set with { Tremor = 0.6 });
    }

    [Fact]
    public void A_back_that_is_easily_stirred_up_carries_no_more_than_the_start_dose()
    {
        var work = new Work("B5", new Dose(8, 2, 0)).BothSides(1).BothSides(2);
        var sore = Decide(
            work with
            {
                Profile = Someone.Calm with { WakesAtNight = true },
            },
            input => Tried(input)
        );
        Assert.All(
            sore,
            d =>
            {
                Assert.Equal("D-PROBE", d.RuleId);
                Assert.Equal(3, d.Dose.TotalReps);
            }
        );
    }

    /// <summary>Never over twice what the try showed, nor over seven tenths of the old clean time, unless that is the start dose.</summary>
    [Fact]
    public void What_is_carried_over_stays_within_twice_the_try_on_every_rung()
    {
        var limited = 0;
        foreach (var ladder in Content.Library.TrainedLadders)
        {
            foreach (var (rung, above) in ladder.Rungs.Zip(ladder.Rungs.Skip(1)))
            {
                var full = rung.Cap with { Sets = rung.Cap.Sets };
                var input = new Work(rung.Id, full).BothSides(1).BothSides(2).Input();
                var start = DosePlanner.Start(above, Irritability.Low, Content.Policy) with
                {
                    Sets = 1,
                    Fewer = 0,
                };
                var sides = above.TaskSides.Select(side => new ProbeDone(
                    Work.ItemId,
                    side,
                    2,
                    input.Date,
                    above.Id,
                    start,
                    new SetDone(
                        start.Reps,
                        start.Reps,
                        0,
                        0,
                        start.Reps * start.Hold,
                        false,
                        null,
                        5,
                        null,
                        PainBefore: 1,
                        PainPeak: 1
                    )
                ));
                foreach (
                    var d in DecisionEngine
                        .Bare(input with { Probes = [.. sides] }, Content.Library)
                        .Where(d => d.RuleId == "D-PROBE" && d.RungId == above.Id)
                )
                {
                    var move = above.MoveSeconds;
                    var tried = start.Seconds(move);
                    var startDose = DosePlanner.Start(above, Irritability.Low, Content.Policy).Seconds(move);
                    Assert.True(d.Dose.Seconds(move) <= Math.Max(startDose, 2 * tried) + 1e-6, above.Id);
                    Assert.True(
                        d.Dose.Seconds(move)
                            <= Math.Max(startDose, 0.7 * full.Seconds(rung.MoveSeconds)) + 1e-6,
                        above.Id
                    );
                    limited += d.Dose.Seconds(move) > startDose ? 1 : 0;
                }
            }
        }
        Assert.True(limited > 0);
    }

    [Fact]
    public void A_try_on_one_side_grants_nothing() =>
        Assert.All(
            Decide(Clean, input => Tried(input, only: Side.Left)),
            d => Assert.Equal(("D-PROBE", Outcome.Stay), (d.RuleId, d.Outcome))
        );

    // The bridge is done on both sides at once; the press that follows it on one: both have to hold.
    [Theory]
    [InlineData(false, Outcome.Stay)]
    [InlineData(true, Outcome.StepUp)]
    public void A_rung_of_one_side_after_one_of_both_is_tried_on_each(bool both, Outcome outcome)
    {
        var bridge = new Work("E1", new Dose(8, 1, 5)).BothSides(1).BothSides(2).Input() with
        {
            Equipment = ["mat"],
        };
        var offered = SessionProbe.Of(bridge, Content.Library);
        Assert.Equal([Side.Left, Side.Right], offered.Select(o => o.Side));
        var press = offered[0].Offer.RungId;
        var input = Tried(bridge, rung: press, only: both ? null : Side.Left);
        var done = input.Probes!.Select(p =>
            p with
            {
                Set = p.Set with { Reps = p.Dose.Reps, CleanReps = p.Dose.Reps, BreakingReps = 0 },
            }
        );
        var decision = DecisionEngine.Bare(input with { Probes = [.. done] }, Content.Library)[0];
        Assert.Equal(("D-PROBE", outcome), (decision.RuleId, decision.Outcome));
    }

    [Fact]
    public void After_one_side_held_the_other_is_still_offered_and_after_it_broke_it_is_not()
    {
        IEnumerable<Side> Left(int clean) =>
            SessionProbe
                .Of(Tried(Clean.Input(), clean, only: Side.Left), Content.Library)
                .Select(probe => probe.Side);
        Assert.Equal([Side.Right], Left(5));
        Assert.Empty(Left(3));
    }

    [Fact]
    public void A_try_of_something_else_or_of_less_grants_nothing()
    {
        void Stays(Func<ProbeDone, ProbeDone> change, Work? work = null) =>
            Assert.All(
                Decide(
                    work ?? Clean,
                    input =>
                    {
                        var tried = Tried(input);
                        return tried with { Probes = [.. tried.Probes!.Select(change)] };
                    }
                ),
                d => Assert.Equal(("D-PROBE", Outcome.Stay, "B5"), (d.RuleId, d.Outcome, d.RungId))
            );
        Stays(p => p with { RungId = "B8" });
        Stays(p => p with { RungId = "S1" });
        Stays(p => p with { RungId = "B5" });
        Stays(p => p with { Dose = p.Dose with { Reps = 1 }, Set = p.Set with { Reps = 1, CleanReps = 1 } });
        Stays(p => p with { Dose = p.Dose with { Hold = 0 } });
        Stays(p => p with { Dose = p.Dose with { Range = 0.5 } });
        Stays(p => p, new Work("B5", Half).BothSides(1));
    }

    [Fact]
    public void A_try_of_which_no_pain_was_told_grants_nothing_until_it_is_asked()
    {
        DecideInput Untold(DecideInput input) =>
            Tried(input) with
            {
                Probes =
                [
                    .. Tried(input).Probes!.Select(p => p with { Set = p.Set with { PainPeak = null } }),
                ],
            };
        Assert.All(
            Decide(Clean, Untold),
            d => Assert.Equal(("D-PROBE", Outcome.Stay), (d.RuleId, d.Outcome))
        );
        // Asked again at the end, ten minutes later: that speaks for the try as well.
        Assert.All(
            Decide(Clean, input => Untold(input) with { Sessions = [new(2, input.Date, 1, 1, 1, 10)] }),
            d => Assert.Equal(("D-PROBE", Outcome.StepUp), (d.RuleId, d.Outcome))
        );
    }

    [Fact]
    public void A_precaution_shortens_what_is_tried_and_says_what_to_change()
    {
        var work = Clean with { Profile = Someone.With("hypermobile") };
        var offer = Decide(work)[0].Probe!;
        Assert.Equal(("B6", 0.8), (offer.RungId, offer.Dose.Range));
        Assert.NotEmpty(offer.Changes);
        // Tried the whole way, it is granted as far as the precaution leaves, no further.
        Assert.All(
            Decide(work, input => Tried(input)),
            d => Assert.Equal(("D-PROBE", 0.8), (d.RuleId, d.Dose.Range))
        );
    }

    // Four clean visits of three reps; 28 days between the second and the third end the run.
    [Theory]
    [InlineData(27, true)]
    [InlineData(28, false)]
    public void A_long_time_between_visits_ends_the_run(int days, bool ready)
    {
        var work = new Work("K3", new Dose(3, 1, 0)).BothSides(1).BothSides(2).BothSides(3).BothSides(4);
        var input = work.Input(4);
        var early = input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Visit <= 2 ? p with { Date = input.Date.AddDays(-7 - days - 7 * (2 - p.Visit)) } : p
                ),
            ],
        };
        Assert.Equal(ready, DecisionEngine.Bare(early, Content.Library).All(d => d.Probe is not null));
    }

    // Pain 3 in a try two visits ago: over the check-in of 1 of that day it hurt, and four visits have to pass.
    [Theory]
    [InlineData(1, false)]
    [InlineData(3, true)]
    public void An_earlier_try_is_read_against_the_check_in_of_its_own_day(int then, bool offered)
    {
        var input = new Work("B5", Half).BothSides(1).BothSides(2).BothSides(3).BothSides(4).Input(4);
        var tried = Tried(input, 5, 3);
        var known = tried with
        {
            Probes = [.. tried.Probes!.Select(p => p with { Set = p.Set with { PainBefore = null } })],
            Pain = new PainHistory([new(2, input.Date.AddDays(-14), 1, then)]),
        };
        Assert.Equal(offered, DecisionEngine.Bare(known, Content.Library).All(d => d.Probe is not null));
    }

    [Fact]
    public void Of_two_tries_of_a_side_the_worse_counts()
    {
        Tape Of(params int[] painAfter)
        {
            var tape = new Tape();
            foreach (var pain in painAfter)
            {
                tape.Start("B6", Side.Left, TrialPurpose.Session)
                    .With(e => e with { Probe = true })
                    .Pain(PainPhase.Before, 1)
                    .Reps(5, hold: 3)
                    .End()
                    .Pain(PainPhase.After, pain);
            }
            return tape;
        }
        var item = Clean.Input().Items[0];
        int? Told(Tape tape) =>
            ProbeDone.FromTrials(2, FirstDay, [item], tape.Trials()).Single().Set.PainAfter;
        Assert.Equal(6, Told(Of(1, 6)));
        Assert.Equal(6, Told(Of(6, 1)));
        // Taken out of the record it does not count.
        Assert.Equal(1, Told(Of(1, 6).Discard()));
    }

    [Fact]
    public void Of_two_tries_without_pain_the_less_clean_counts_whichever_came_first()
    {
        foreach (var clean in new[] { new[] { 5, 3 }, new[] { 3, 5 } })
        {
            var tape = new Tape();
            foreach (var reps in clean)
            {
                tape.Start("B6", Side.Left, TrialPurpose.Session)
                    .With(e => e with { Probe = true })
                    .Reps(reps, hold: 3)
                    .End();
            }
            var told = ProbeDone.FromTrials(2, FirstDay, [Clean.Input().Items[0]], tape.Trials()).Single();
            Assert.Equal(3, told.Set.CleanReps);
        }
    }

    // Its own sets did not hurt; the try did, by three: the exercise it belongs to is eased, another only held.
    [Fact]
    public void The_exercise_whose_try_hurt_is_eased()
    {
        var decisions = Decide(
            Clean,
            input => Tried(input, 5, 4) with { Sessions = [new(2, input.Date, 1, 4, 3, 10)] }
        );
        Assert.All(decisions, d => Assert.Equal(Outcome.Ease, d.Outcome));
    }

    [Fact]
    public void The_other_side_of_a_try_is_not_offered_on_a_day_on_which_nothing_is_added()
    {
        var sore = new CheckIn(4, 1, 1, 1, []);
        Assert.Empty(
            SessionProbe.Of(Tried(Clean.Input(), 5, only: Side.Left) with { CheckIn = sore }, Content.Library)
        );
        // The first side was clean, and pain rose by three in it.
        Assert.Empty(SessionProbe.Of(Tried(Clean.Input(), 5, peak: 4, only: Side.Left), Content.Library));
    }

    [Fact]
    public void A_painful_try_counts_for_the_session()
    {
        var decisions = Decide(Clean, input => Tried(input, 5, 4));
        Assert.All(
            decisions,
            d =>
            {
                Assert.Contains("D-PAIN-SESSION", d.Rules);
                Assert.True(d.Outcome is not (Outcome.Add or Outcome.StepUp));
            }
        );
    }

    // A try that failed at visit v: offered again at v + 2; one that hurt at v + 4.
    [Theory]
    [InlineData(4, 1, 1, false)]
    [InlineData(4, 1, 2, true)]
    [InlineData(5, 3, 3, false)]
    [InlineData(5, 3, 4, true)]
    public void The_next_try_waits(int clean, int peak, int later, bool offered)
    {
        var work = new Work("B5", Half) { Apart = 7 };
        for (var visit = 1; visit <= 2 + later; visit++)
        {
            work = work.BothSides(visit);
        }
        var input = work.Input(2 + later);
        var decisions = DecisionEngine.Bare(Tried(input, clean, peak), Content.Library);
        Assert.Equal(offered, decisions.All(d => d.Probe is not null));
    }

    // Heel tap 2 × 8 clean, and five reaches of 3 s shown: at most two such sets.
    [Fact]
    public void D_CARRY_keeps_at_most_twice_what_the_try_showed()
    {
        var work = new Work("B5", new Dose(8, 2, 0)).BothSides(2);
        var decision = Decide(work, input => Tried(input))[0];
        var seconds = decision.Dose.Seconds(Content.Library.Rung("B6").MoveSeconds);
        var shown = Content.Library.Rung("B6").Start.Seconds(Content.Library.Rung("B6").MoveSeconds);
        Assert.InRange(seconds, shown, 2 * shown + 1e-9);
    }

    [Fact]
    public void D_CARRY_never_goes_over_seven_tenths_of_the_old_work_beyond_the_start_dose() =>
        Gen.Select(Gen.Int[3, 8], Gen.Int[1, 2])
            .Sample(
                (reps, sets) =>
                {
                    var old = new Dose(reps, sets, 0);
                    var decision = Decide(new Work("B5", old).BothSides(2), input => Tried(input))[0];
                    var b6 = Content.Library.Rung("B6");
                    var most = Math.Max(
                        0.7 * old.Seconds(Content.Library.Rung("B5").MoveSeconds),
                        b6.Start.Seconds(b6.MoveSeconds)
                    );
                    Assert.True(decision.Dose.Seconds(b6.MoveSeconds) <= most + 1e-9);
                    Assert.True(decision.Dose.TotalReps <= b6.Target.TotalReps);
                },
                iter: 40
            );

    [Fact]
    public void Only_so_many_exercises_are_offered_in_a_visit()
    {
        var input = Clean.Input();
        Guid[] ids = [Work.ItemId, Guid.NewGuid(), Guid.NewGuid()];
        var three = input with
        {
            Items = [.. ids.Select(id => input.Items[0] with { Id = id })],
            Visits = [.. ids.SelectMany(id => input.Visits.Select(p => p with { PlanItemId = id }))],
        };
        int Count(DecideInput what) =>
            DecisionEngine
                .Bare(what, Content.Library)
                .Where(d => d.Probe is not null)
                .Select(d => d.PlanItemId)
                .Distinct()
                .Count();
        Assert.Equal(2, Count(three));
        var moderate = three with
        {
            Profile = Someone.Calm with { Pain = new(3, 4, 3) },
            CheckIn = new(3, 3, 3, 1, []),
        };
        Assert.Equal(1, Count(moderate));
        Assert.Equal(1, Count(Tried(three, 4)));
    }

    // Both of the day's exercises are ready; the second was begun on the left.
    [Fact]
    public void The_other_side_of_what_was_begun_comes_before_the_next_exercise()
    {
        var input = Clean.Input();
        Guid[] ids = [Guid.NewGuid(), Work.ItemId];
        var two = input with
        {
            Items = [.. ids.Select(id => input.Items[0] with { Id = id })],
            Visits = [.. ids.SelectMany(id => input.Visits.Select(p => p with { PlanItemId = id }))],
        };
        Assert.Equal(ids[0], SessionProbe.Of(two, Content.Library)[0].PlanItemId);
        Assert.Equal(
            [(Work.ItemId, Side.Right), (ids[0], Side.Left), (ids[0], Side.Right)],
            SessionProbe.Of(Tried(two, only: Side.Left), Content.Library).Select(o => (o.PlanItemId, o.Side))
        );
    }

    /// <summary>A try is never offered beside a rule about pain, whatever the history.</summary>
    [Fact]
    public void Never_offered_while_a_rule_about_pain_is_in_force() =>
        AnyDay.Input.Sample(
            input =>
            {
                var day = new DayFacts(input, Content.Library);
                foreach (var d in DecisionEngine.Bare(input, Content.Library).Where(d => d.Probe is not null))
                {
                    Assert.Empty(day.Holds);
                    Assert.Empty(day.Refer);
                    Assert.True(day.MayProbe);
                    Assert.True(d.Outcome is Outcome.Stay or Outcome.Add);
                    Assert.DoesNotContain(
                        d.Rules,
                        rule =>
                            rule.StartsWith("D-PAIN", StringComparison.Ordinal)
                            || rule is "D-LEG-MEMORY" or "D-AWAY" or "D-BARRED" or "D-TREMOR"
                    );
                }
            },
            iter: Soak.Histories,
            threads: 2
        );

    [Theory]
    [InlineData("rungId")]
    [InlineData("visit")]
    [InlineData("on")]
    [InlineData("dose")]
    [InlineData("side")]
    [InlineData("set.cleanReps")]
    public void What_cannot_be_true_of_a_try_is_refused_with_its_field(string field)
    {
        var input = Tried(Clean.Input());
        var probe = input.Probes![0];
        var wrong = field switch
        {
            "rungId" => probe with { RungId = "Z9" },
            "visit" => probe with { Visit = 3 },
            "on" => probe with { On = input.Date.AddDays(1) },
            "dose" => probe with { Dose = new Dose(5, 2, 0) },
            "side" => probe with { Side = Side.Right },
            _ => probe with { Set = probe.Set with { CleanReps = 6 } },
        };
        IReadOnlyList<ProbeDone> probes = field == "side" ? [input.Probes[1], wrong] : [wrong];
        var errors = DecideCheck.Errors(input with { Probes = probes }, Content.Library, "input");
        Assert.Contains(errors, e => e.Field.EndsWith($".{field}", StringComparison.Ordinal));
    }
}
