using System.Text.Json;
using CsCheck;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What would have changed a decision is found by trying, so trying it must give what was said.</summary>
public class WhatWouldChangeTests
{
    /// <summary>So many clean reps more (below 0: fewer) and what would come of it; none where something else is told first.</summary>
    private static (int By, string Outcome)? CleanReps(Decision decision) =>
        decision.WouldChange?.Values["ways"] is object[] and [Message { Id: "would.be" } way, ..]
        && way.Values["what"] is Message { Id: "would.number" } what
        && what.Values["kind"] is "clean-reps"
            ? (
                (int)(double)what.Values["by"] * (what.Values["more"] is true ? 1 : -1),
                (string)way.Values["outcome"]
            )
            : null;

    [Fact]
    public void So_many_more_or_fewer_clean_reps_do_what_was_said_and_one_less_does_not()
    {
        var told = 0;
        Work.Any.Sample(work =>
        {
            foreach (var decision in work.Decisions())
            {
                if (CleanReps(decision) is not var (by, outcome))
                {
                    continue;
                }
                Interlocked.Increment(ref told);
                Assert.Equal(
                    outcome,
                    JsonNamingPolicy.KebabCaseLower.ConvertName(With(work, decision, by).Outcome.ToString())
                );
                var less = With(work, decision, by - Math.Sign(by));
                Assert.Equal(decision.Outcome, less.Outcome);
            }
        });
        Assert.True(told > 0, "Not once were more or fewer clean reps what would have changed it.");
    }

    private static Decision With(Work work, Decision decision, int by)
    {
        var input = work.Input();
        var now = DecisionNumbers.Today(input, decision.PlanItemId, decision.Side)!.CleanReps;
        var other = DecisionNumbers.With(
            input,
            decision.PlanItemId,
            decision.Side,
            NumberKind.CleanReps,
            now + by,
            Content.Library
        );
        return DecisionEngine.Bare(other, Content.Library).First(d => d.Side == decision.Side);
    }

    // Three reaches at three visits are nine clean reps; ten are asked.
    [Fact]
    public void One_more_clean_set_would_have_one_up_offered()
    {
        var work = new Work("K3", new Dose(3, 1, 0)).BothSides(1).BothSides(2).BothSides(3);
        Assert.All(
            work.Decisions(visit: 3),
            d => Assert.EndsWith("One more clean set, and one level up could be tried.", d.WouldChange.En())
        );
    }

    [Fact]
    public void Less_effort_would_have_one_up_offered() =>
        Assert.All(
            new Work("B6", new Dose(8, 1, 5)).BothSides(1).BothSides(2, effort: 7).Decisions(),
            d => Assert.EndsWith("Effort 6 at most, and one level up could be tried.", d.WouldChange.En())
        );

    [Fact]
    public void One_more_visit_like_this_would_have_one_up_offered()
    {
        var once = new Work("B6", new Dose(8, 1, 5)).BothSides(2);
        Assert.All(
            once.Decisions(),
            d =>
                Assert.EndsWith(
                    "One more visit like this, and one level up could be tried.",
                    d.WouldChange.En()
                )
        );
    }

    [Fact]
    public void Nothing_would_have_one_up_offered_to_a_client_for_whom_nothing_is_tried()
    {
        var bone = new Work("B6", new Dose(8, 1, 5)) { Profile = Someone.With("fragile-bone") };
        Assert.All(
            bone.BothSides(2).Decisions(),
            d => Assert.DoesNotContain("could be tried", d.WouldChange.En())
        );
    }

    [Fact]
    public void Every_number_set_to_what_it_was_changes_nothing() =>
        Work.Any.Sample(work =>
        {
            var input = work.Input();
            var decision = DecisionEngine.Bare(input, Content.Library)[0];
            foreach (
                var number in DecisionNumbers.Of(input, decision.PlanItemId, decision.Side, Content.Library)
            )
            {
                if (number.Now is not { } now)
                {
                    continue;
                }
                var same = DecisionNumbers.With(
                    input,
                    decision.PlanItemId,
                    decision.Side,
                    number.Kind,
                    now,
                    Content.Library
                );
                var again = DecisionEngine.Bare(same, Content.Library)[0];
                Assert.Equal((decision.Outcome, decision.RuleId), (again.Outcome, again.RuleId));
            }
        });

    [Fact]
    public void Less_clean_work_more_pain_and_more_effort_never_advance() =>
        Gen.Select(
                Work.Any,
                Gen.OneOf(
                    Gen.Const(NumberKind.CleanReps),
                    Gen.Const(NumberKind.Effort),
                    Gen.Const(NumberKind.PainfulSets),
                    Gen.Const(NumberKind.NextDayPain),
                    Gen.Const(NumberKind.SettledHours),
                    Gen.Const(NumberKind.DaysAway)
                )
            )
            .Sample(
                (work, kind) =>
                {
                    var input = work.Input();
                    var decision = DecisionEngine.Bare(input, Content.Library)[0];
                    var number = DecisionNumbers
                        .Of(input, decision.PlanItemId, decision.Side, Content.Library)
                        .First(n => n.Kind == kind);
                    var worse = kind == NumberKind.CleanReps ? number.Min : number.Max;
                    var other = DecisionNumbers.With(
                        input,
                        decision.PlanItemId,
                        decision.Side,
                        kind,
                        worse,
                        Content.Library
                    );
                    var then = DecisionEngine.Bare(other, Content.Library)[0];
                    if (then.Outcome is Outcome.StepUp or Outcome.Add)
                    {
                        Assert.True(
                            decision.Outcome is Outcome.StepUp or Outcome.Add,
                            $"{kind}: {decision} became {then}"
                        );
                    }
                }
            );

    [Fact]
    public void Nearly_every_decision_can_be_told_what_would_change_it()
    {
        var told = 0;
        var all = 0;
        Work.Any.Sample(
            work =>
            {
                foreach (var decision in work.Decisions())
                {
                    Interlocked.Increment(ref all);
                    if (decision.WouldChange is not null)
                    {
                        Interlocked.Increment(ref told);
                    }
                }
            },
            iter: Soak.Cases(300)
        );
        Assert.True(told >= 0.95 * all, $"{told} of {all}");
    }

    [Fact]
    public void The_decisions_do_not_depend_on_the_order_the_visits_are_given_in() =>
        Gen.Select(Work.Any, Gen.Int)
            .Sample(
                (work, seed) =>
                {
                    var input = work.Input();
                    var visits = input.Visits.ToArray();
                    new Random(seed).Shuffle(visits);
                    var other = DecisionEngine.Bare(input with { Visits = visits }, Content.Library);
                    Assert.Equal(
                        DecisionEngine
                            .Bare(input, Content.Library)
                            .Select(d => (d.RuleId, d.Outcome, d.Dose)),
                        other.Select(d => (d.RuleId, d.Outcome, d.Dose))
                    );
                }
            );
}
