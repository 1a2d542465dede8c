using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>The search against trying everything, and against what must not matter.</summary>
public class PlanSearchTests
{
    private static (List<PlanOption> All, PlanObjective Objective, Policy Policy) Weigh(PlanInput input)
    {
        var policy = Content.Library.FindPolicy(input.PolicyId)!;
        var level = IrritabilityLevel.Of(input.Profile, policy);
        var (all, objective, _) = Planner.Weigh(input, level, policy, Content.Library);
        return (all, objective, policy);
    }

    /// <summary>Seconds: 4.1 minutes are not quite 246 s in floating point.</summary>
    private const double Rounding = 1e-6;

    /// <summary>Every set there is, one rung of a ladder at most, within the time; the most points.</summary>
    private static long? BruteForce(
        IReadOnlyList<PlanOption> options,
        PlanObjective objective,
        double seconds,
        Policy policy
    )
    {
        long? best = null;
        for (var mask = 1; mask < 1 << options.Count; mask++)
        {
            var set = options.Where((_, i) => (mask & (1 << i)) != 0).ToList();
            var time =
                set.Sum(option => option.Seconds)
                + (set.Select(option => option.Position).Distinct().Count() - 1)
                    * policy.Seconds.PositionChange;
            if (
                set.Count <= policy.ExercisesMax
                && time <= seconds + Rounding
                && set.Select(option => option.Ladder).Distinct().Count() == set.Count
            )
            {
                best = Math.Max(best ?? long.MinValue, objective.Total(set).Total);
            }
        }
        return best;
    }

    [Fact]
    public void Equals_trying_everything_on_small_cases() =>
        Gen.Select(AnyClient.Input, Gen.Int[1, 11], Gen.Int[0, 1000])
            .Sample(
                (input, count, seed) =>
                {
                    var (all, objective, policy) = Weigh(input);
                    // Some of the options only, whichever.
                    var some = all.OrderBy(option => HashOf(option.Key, seed)).Take(count).ToList();
                    var (best, _) = Planner.Search(some, objective, input.MinutesPerDay, policy);
                    Assert.Equal(
                        best?.Rungs,
                        Planner
                            .Search(some, objective, input.MinutesPerDay, policy, runnerUp: false)
                            .Best?.Rungs
                    );
                    Assert.Equal(BruteForce(some, objective, input.MinutesPerDay * 60, policy), best?.Total);
                },
                iter: Soak.Cases(1500)
            );

    [Fact]
    public void The_runner_up_has_other_exercises_and_no_other_such_set_is_better() =>
        Gen.Select(AnyClient.Input, Gen.Int[2, 10], Gen.Int[0, 1000])
            .Sample(
                (input, count, seed) =>
                {
                    var (all, objective, policy) = Weigh(input);
                    var some = all.OrderBy(option => HashOf(option.Key, seed)).Take(count).ToList();
                    var (best, second) = Planner.Search(some, objective, input.MinutesPerDay, policy);
                    var others = Subsets(some)
                        .Where(set => set.Count <= policy.ExercisesMax)
                        .Where(set => set.Select(o => o.Ladder).Distinct().Count() == set.Count)
                        .Where(set => TimeOf(set, policy) <= input.MinutesPerDay * 60 + Rounding)
                        .Where(set => RungsOf(set) != best?.Rungs)
                        .Select(set => (long?)objective.Total(set).Total)
                        .Max();
                    Assert.Equal(others, second?.Total);
                    Assert.True(second is null || second.Rungs != best!.Rungs);
                },
                iter: Soak.Cases(400)
            );

    [Fact]
    public void Does_not_depend_on_the_order_things_come_in() =>
        Gen.Select(AnyClient.Input, Gen.Int[0, 1000])
            .Sample(
                (input, seed) =>
                {
                    IReadOnlyList<T> Shuffled<T>(IReadOnlyList<T> list) =>
                        [.. list.OrderBy(item => HashOf(item!.ToString()!, seed))];
                    var other = input with
                    {
                        Profile = input.Profile with { Precautions = Shuffled(input.Profile.Precautions) },
                        Findings = input.Findings with
                        {
                            Entries = Shuffled(input.Findings.Entries),
                            Control = Shuffled(input.Findings.Control),
                        },
                        Goals = Shuffled(input.Goals!),
                        Equipment = input.Equipment is null ? null : Shuffled(input.Equipment),
                    };
                    Assert.Equal(Lines(input), Lines(other));
                },
                iter: 150
            );

    private static IEnumerable<string> Lines(PlanInput input) =>
        Planner
            .Propose(input, Content.Library, Guid.NewGuid)
            .Plan.Items.Select(item =>
                $"{item.RungId} {string.Join(" ", item.Doses.Select(d => $"{d.Side} {d.Dose.Said().En()} {d.Range}"))}"
            );

    [Fact]
    public void More_minutes_never_make_it_worth_less() =>
        Gen.Select(AnyClient.Input, Gen.Double[0, 15])
            .Sample(
                (input, more) =>
                {
                    var (all, objective, policy) = Weigh(input);
                    var now = Planner.Search(all, objective, input.MinutesPerDay, policy).Best;
                    var then = Planner.Search(all, objective, input.MinutesPerDay + more, policy).Best;
                    Assert.True(now is null || then!.Total >= now.Total);
                },
                iter: Soak.Cases(400)
            );

    private static IEnumerable<List<PlanOption>> Subsets(List<PlanOption> options) =>
        Enumerable
            .Range(1, (1 << options.Count) - 1)
            .Select(mask => options.Where((_, i) => (mask & (1 << i)) != 0).ToList());

    private static double TimeOf(List<PlanOption> set, Policy policy) =>
        set.Sum(option => option.Seconds)
        + (set.Select(option => option.Position).Distinct().Count() - 1) * policy.Seconds.PositionChange;

    private static string RungsOf(List<PlanOption> set) =>
        string.Join(' ', set.Select(option => option.RungId).Order(StringComparer.Ordinal));

    /// <summary>An order that differs with the seed and is the same on every machine.</summary>
    private static uint HashOf(string text, int seed) =>
        text.Aggregate(2166136261u ^ (uint)seed, (hash, letter) => (hash ^ letter) * 16777619u);
}
