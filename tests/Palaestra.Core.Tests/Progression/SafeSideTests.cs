using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What no history may bring about, whatever was done, told, forgotten or left out.</summary>
public class SafeSideTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    /// <summary>How hard an answer is: stop, step down, ease, as it is (stay or change), add, step up.</summary>
    private static int Hard(Decision d) =>
        d.Outcome switch
        {
            Outcome.Stop => 0,
            Outcome.StepDown => 1,
            Outcome.Ease => 2,
            Outcome.Change or Outcome.Stay => 3,
            Outcome.Add => 4,
            _ => 5,
        };

    private static void NeverHarder(DecideInput before, DecideInput worse)
    {
        var then = DecisionEngine.Bare(before, Library);
        var now = DecisionEngine.Bare(worse, Library);
        foreach (var (a, b) in then.Zip(now))
        {
            // A side may be changed only because the other has stalled; where that one no longer stands still, this one is
            // answered for itself, and what it earned was held clean by it.
            Assert.True(
                Hard(b) <= (a.Outcome == Outcome.Change ? 4 : Hard(a)),
                $"{b.RungId}: {a.Outcome} ({string.Join(' ', a.Rules)}) became {b.Outcome} ({string.Join(' ', b.Rules)})"
            );
        }
    }

    private static void Sampled(Action<DecideInput> check) =>
        AnyDay.Input.Sample(check, iter: Soak.Histories, threads: 2, print: Print);

    private static string Print(DecideInput input) =>
        System.Text.Json.JsonSerializer.Serialize(input, CoreJson.Options);

    private static DecideInput EachSet(DecideInput input, Func<SetDone, SetDone> change) =>
        input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Visit == input.Visit ? p with { Sets = [.. p.Sets.Select(change)] } : p
                ),
            ],
            Probes = input.Probes is null
                ? null
                : [.. input.Probes.Select(p => p.Visit == input.Visit ? p with { Set = change(p.Set) } : p)],
        };

    [Fact]
    public void More_pain_in_the_sets_never_makes_it_harder() =>
        Sampled(input =>
            NeverHarder(
                input,
                EachSet(
                    input,
                    set => set.PainMost is { } most ? set with { PainPeak = Math.Min(10, most + 2) } : set
                )
            )
        );

    [Fact]
    public void A_worse_try_never_makes_it_harder() =>
        Sampled(input =>
        {
            DecideInput Tried(Func<ProbeDone, ProbeDone> change) =>
                input with
                {
                    Probes = [.. (input.Probes ?? []).Select(p => p.Visit == input.Visit ? change(p) : p)],
                };
            NeverHarder(input, Tried(p => p with { Set = p.Set with { PainPeak = 10 } }));
            NeverHarder(input, Tried(p => p with { Set = p.Set with { EndedForPain = true } }));
            NeverHarder(
                input,
                Tried(p => p with { Set = p.Set with { CleanReps = 0, BreakingReps = p.Set.Reps } })
            );
        });

    [Fact]
    public void A_pain_that_was_told_at_last_never_makes_it_harder() =>
        Sampled(input => NeverHarder(input, EachSet(input, set => set with { PainPeak = 10 })));

    [Fact]
    public void More_pain_at_check_in_against_the_same_reference_never_makes_it_harder() =>
        Sampled(input =>
        {
            // Nothing was told in the sets: what rose in them would be read against the check-in.
            var quiet = EachSet(
                input,
                set => set with { PainBefore = null, PainPeak = null, PainAfter = null }
            ) with
            {
                Sessions = null,
            };
            DecideInput Now(int? pain) => quiet with { CheckIn = quiet.CheckIn with { PainNow = pain } };
            NeverHarder(Now(input.CheckIn.PainNow ?? 2), Now(10));
            NeverHarder(Now(input.CheckIn.PainNow ?? 2), Now(null));
        });

    [Fact]
    public void A_worse_morning_after_never_makes_it_harder() =>
        Sampled(input =>
            NeverHarder(
                input,
                input with
                {
                    CheckIn = input.CheckIn with
                    {
                        NextDayPain = Math.Min(10, (input.CheckIn.NextDayPain ?? 0) + 3),
                    },
                }
            )
        );

    [Fact]
    public void Later_settling_never_makes_it_harder() =>
        Sampled(input =>
            NeverHarder(
                input,
                input with
                {
                    CheckIn = input.CheckIn with
                    {
                        Settled = null,
                        SettledHours = (input.CheckIn.Hours ?? 0) + 20,
                    },
                }
            )
        );

    [Fact]
    public void More_pain_at_the_end_of_the_session_never_makes_it_harder() =>
        Sampled(input =>
        {
            SessionPain Worse(SessionPain s) => s.Visit != input.Visit ? s : s with { Peak = 10, End = 10 };
            NeverHarder(input, input with { Sessions = input.Sessions?.Select(Worse).ToList() });
        });

    [Fact]
    public void More_tremor_never_makes_it_harder() =>
        Sampled(input => NeverHarder(input, EachSet(input, set => set with { Tremor = 1 })));

    [Fact]
    public void More_faults_with_the_cues_held_never_make_it_harder() =>
        Sampled(input =>
            NeverHarder(
                input,
                EachSet(
                    input,
                    set =>
                        set.CleanReps == 0
                            ? set
                            : set with
                            {
                                CleanReps = set.CleanReps - 1,
                                BreakingReps = set.BreakingReps + 1,
                                FirstFault = set.FirstFault ?? "arch",
                                CleanSeconds = set.CleanSeconds * (set.CleanReps - 1) / set.CleanReps,
                            }
                )
            )
        );

    [Fact]
    public void Pain_in_the_home_log_never_makes_it_harder() =>
        Sampled(input =>
            NeverHarder(
                input,
                input with
                {
                    HomePain =
                    [
                        .. input.HomePain ?? [],
                        new HomePain(input.Date.AddDays(-1), 10, 10),
                        new HomePain(input.Date.AddDays(-2), 10, 10),
                    ],
                }
            )
        );

    /// <summary>Whatever is taken: a rule about pain that fired says its piece to whoever decides.</summary>
    [Fact]
    public void What_a_rule_about_pain_saw_is_always_said() =>
        Sampled(input =>
        {
            foreach (var decision in DecisionEngine.Bare(input, Library))
            {
                foreach (var fired in (decision.Fired ?? []).Where(f => RuleGroups.Pain.Contains(f.RuleId)))
                {
                    Assert.All(
                        fired.Evidence.Take(1),
                        said =>
                            Assert.True(
                                decision.Evidence.Contains(said),
                                $"{decision.RuleId} does not say what {fired.RuleId} saw: {said.En()}"
                            )
                    );
                }
            }
        });

    [Fact]
    public void Every_rule_about_pain_is_in_the_group_of_pain()
    {
        var named = Directory
            .EnumerateFiles(Path.Combine(Content.Root, "src", "Palaestra.Core", "Progression"), "*.cs")
            .SelectMany(path =>
                System
                    .Text.RegularExpressions.Regex.Matches(File.ReadAllText(path), "\"(D-PAIN-[A-Z-]+)\"")
                    .Select(match => match.Groups[1].Value)
            )
            .Distinct()
            .ToList();
        Assert.Contains("D-PAIN-STOP", named);
        Assert.All(named, rule => Assert.Contains(rule, RuleGroups.Pain));
        Assert.All(RuleGroups.Pain, rule => Assert.Contains(rule, RuleGroups.Safety));
    }

    private static readonly string[] Forbidding =
    [
        "D-PAIN-SESSION",
        "D-PAIN-NOW",
        "D-PAIN-NEXT",
        "D-PAIN-HOME",
        "D-PAIN-DRIFT",
        "D-NO-TRAINING",
        "D-REFER",
        "D-LEG-MEMORY",
    ];

    [Fact]
    public void Nothing_is_added_on_a_day_with_a_rule_that_forbids_it() =>
        Sampled(input =>
        {
            var decisions = DecisionEngine.Bare(input, Library);
            if (decisions.SelectMany(d => d.Rules).Intersect(Forbidding).Any())
            {
                Assert.DoesNotContain(decisions, d => d.Outcome is Outcome.Add or Outcome.StepUp);
                foreach (var d in decisions.Where(d => d.Outcome is not Outcome.Change))
                {
                    var item = input.Items.First(i => i.Id == d.PlanItemId);
                    var was = item.Doses.First(x => x.Side == d.Side).Dose;
                    Assert.True(
                        d.RungId != item.RungId || d.Dose.Seconds(1) <= was.Seconds(1) + 1e-6,
                        $"{d.RuleId}: {was.Said().En()} became {d.Dose.Said().En()}"
                    );
                    Assert.True(d.Dose.Sets <= was.Sets || d.RungId != item.RungId, "Extra sets are adding.");
                }
            }
        });

    [Fact]
    public void A_step_down_or_an_easing_asks_no_more_in_work_nor_for_pain_in_any_direction() =>
        Sampled(input =>
        {
            foreach (var d in DecisionEngine.Bare(input, Library))
            {
                if (d.Outcome is not (Outcome.StepDown or Outcome.Ease))
                {
                    continue;
                }
                var item = input.Items.First(i => i.Id == d.PlanItemId);
                var was = item.Doses.First(x => x.Side == d.Side).Dose;
                var before = Library.Rung(item.RungId);
                var after = Library.Rung(d.RungId);
                Assert.True(
                    d.Dose.Seconds(after.MoveSeconds) <= was.Seconds(before.MoveSeconds) + 1e-6
                        || d.Dose is { Sets: 1, Reps: 1, Hold: <= 1 },
                    $"{d.RuleId}: {before.Id} {was.Said().En()} became {after.Id} {d.Dose.Said().En()}"
                );
                if (d.RuleId is "D-PAIN-STOP" or "D-PAIN-SESSION" or "D-PAIN-NEXT" or "D-PAIN-HOME")
                {
                    foreach (var direction in Directions)
                    {
                        var now = Most(before, was, direction);
                        var then = Most(after, d.Dose, direction);
                        Assert.True(
                            then < 25 || then <= now + Math.Max(3, 0.05 * now) + 1e-6,
                            $"{d.RuleId}: {before.Id} {was.Said().En()} → {after.Id} {d.Dose.Said().En()}: {direction} {now:0.0} → {then:0.0} N·m"
                        );
                    }
                }
            }
        });

    private static readonly Direction[] Directions =
    [
        Direction.Front,
        Direction.Back,
        Direction.Side,
        Direction.Twist,
        Direction.Pelvis,
    ];

    private static double Most(Rung rung, Dose dose, Direction direction)
    {
        var load = Library.Settings.Of(rung, Side.Left, dose);
        return Math.Max(
            load.In(direction, OnSide.Task, Side.Left),
            load.In(direction, OnSide.Other, Side.Left)
        );
    }

    [Fact]
    public void No_next_plan_holds_a_barred_rung_and_a_cautioned_one_carries_its_change() =>
        Sampled(input =>
        {
            var policy = Library.FindPolicy(input.PolicyId)!;
            var decisions = DecisionEngine.Bare(input, Library);
            var profile = new DayFacts(input, Library).Profile;
            var plan = new Plan(
                input.Items,
                SpinalStrategy.Neutral,
                Activation.Brace,
                policy.Id,
                1,
                "",
                10,
                []
            );
            foreach (var item in NextPlan.Apply(plan, decisions, Library, policy, profile).Items)
            {
                var rung = Library.Rung(item.RungId);
                foreach (var side in item.Doses)
                {
                    var allowance = Allowance.Of(Library, profile.Precautions, rung, side.Side);
                    Assert.False(
                        allowance.Barred && !item.Resting,
                        $"{rung.Id} is barred ({allowance.BarWords}) after {string.Join(' ', decisions.Where(d => d.PlanItemId == item.Id).SelectMany(d => d.Rules))}"
                    );
                    if (item.RungId != input.Items.First(i => i.Id == item.Id).RungId)
                    {
                        Assert.All(
                            allowance.Notes.Where(n => n is { OfFeature: true, Change.Length: > 0 }),
                            n =>
                                Assert.Contains(
                                    item.Changes,
                                    words => words.En().Contains(n.Change!, StringComparison.Ordinal)
                                )
                        );
                    }
                }
            }
        });

    [Fact]
    public void A_step_down_of_the_plan_asks_no_more_on_either_side() =>
        Sampled(input =>
        {
            var policy = Library.FindPolicy(input.PolicyId)!;
            var decisions = DecisionEngine.Bare(input, Library);
            var plan = new Plan(
                input.Items,
                SpinalStrategy.Neutral,
                Activation.Brace,
                policy.Id,
                1,
                "",
                10,
                []
            );
            var profile = new DayFacts(input, Library).Profile;
            foreach (var item in NextPlan.Apply(plan, decisions, Library, policy, profile).Items)
            {
                var old = input.Items.First(i => i.Id == item.Id);
                var mine = decisions.Where(d => d.PlanItemId == item.Id).ToList();
                if (
                    mine.Any(d => d.Outcome == Outcome.StepDown) && mine.All(d => d.Outcome != Outcome.Change)
                )
                {
                    var before = old.Doses.Max(d => d.Dose.Seconds(Library.Rung(old.RungId).MoveSeconds));
                    foreach (var side in item.Doses)
                    {
                        var was =
                            old.Doses.FirstOrDefault(d => d.Side == side.Side)
                                ?.Dose.Seconds(Library.Rung(old.RungId).MoveSeconds)
                            ?? before;
                        Assert.True(
                            side.Dose.Seconds(Library.Rung(item.RungId).MoveSeconds) <= was + 1e-6
                                || side.Dose is { Sets: 1, Reps: 1, Hold: <= 1 },
                            $"{old.RungId} → {item.RungId} {side.Side}: {was:0.0} s became {side.Dose.Said().En()}"
                        );
                    }
                }
            }
        });

    private static readonly string[] Ids =
    [
        "D-REFER",
        "D-PAIN-STOP",
        "D-PAIN-WATCH",
        "D-PAIN-SESSION",
        "D-PAIN-NOW",
        "D-PAIN-NEXT",
        "D-PAIN-HOME",
        "D-PAIN-DRIFT",
        "D-LEG-MEMORY",
        "D-BARRED",
        "D-NO-TRAINING",
        "D-AWAY",
        "D-FAULT-CAP",
        "D-FAULT-CUE",
        "D-DONE-LESS",
        "D-TREMOR",
        "D-SETUP",
        "D-ONE-SIDE",
        "D-MASTER",
        "D-BUILD",
        "D-READY",
        "D-PROBE",
        "D-CARRY",
        "D-CONFIRM",
        "D-HOME",
        "D-PLATEAU",
        "D-STAY",
    ];

    [Fact]
    public void Each_of_the_rules_fires_in_some_history()
    {
        var seen = new System.Collections.Concurrent.ConcurrentDictionary<string, int>();
        Assert.SkipWhen(Soak.Histories < 2000, "Some are rare: fewer histories would not show them.");
        Sampled(input =>
        {
            foreach (var rule in DecisionEngine.Bare(input, Library).SelectMany(d => d.Rules).Distinct())
            {
                seen.AddOrUpdate(rule, 1, (_, n) => n + 1);
            }
        });
        Assert.Equal(Ids.Order(), Ids.Where(seen.ContainsKey).Order());
    }
}
