using CsCheck;
using MathNet.Numerics.Distributions;
using Palaestra.Core.Abilities;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Abilities;

public class AbilityBeliefTests
{
    private static readonly DateOnly Day = new(2026, 3, 2);

    private static readonly AbilityModel Plain = new(0, 0, 0, 0, [1], 0.25, 0.05, 1.5, 10, 1, 0.9)
    {
        Grid = 0.5,
    };

    private static AbilityEvidence Seen(double height, int clean, int broken, int day = 0) =>
        new(Day.AddDays(day), Direction.Front, Side.Left, height, clean, broken, Guid.Empty);

    /// <summary>
    /// Worked by hand in docs/findings.md with a table of the normal curve: places 1, 1.5, … 3, one spread of 1 rung, no
    /// errors of the eye; four clean and one broken rep at height 2. Φ(−1) = 0.1587, Φ(−0.5) = 0.3085, Φ(0) = 0.5,
    /// Φ(0.5) = 0.6915, Φ(1) = 0.8413; Φ⁴(1 − Φ) = 0.000534, 0.00626, 0.03125, 0.07053, 0.07951.
    /// </summary>
    [Fact]
    public void Four_clean_and_one_broken_as_worked_by_hand()
    {
        var belief = AbilityBelief.Nothing(new AbilityGrid(1, 3, Plain)).After(Day, [Seen(2, 4, 1)]);
        // (0.000534 × 1 + 0.00626 × 1.5 + 0.03125 × 2 + 0.07053 × 2.5 + 0.07951 × 3) ÷ 0.18808
        Assert.Equal(2.591, belief.Mean, 0.002);
        // 0.8 × 0.18808 = 0.15046; up to 2.5 lie 0.10857, the rest of 0.04189 is 0.527 of the last place's half rung.
        Assert.Equal(2.75 + 0.5 * 0.527, belief.Quantile(0.8), 0.003);
        // Chance of a clean rep at 2: Σ share × Φ.
        Assert.Equal(0.7084, belief.ChanceClean(2), 0.002);
    }

    [Fact]
    public void An_eye_that_misses_believes_less_in_what_it_saw_clean()
    {
        var grid = new AbilityGrid(0, 6, Plain);
        var blind = new AbilityGrid(0, 6, Plain with { Missed = 0.4 });
        var seen = new[] { Seen(4, 5, 0) };
        Assert.True(
            AbilityBelief.Nothing(blind).After(Day, seen).Mean
                < AbilityBelief.Nothing(grid).After(Day, seen).Mean
        );
    }

    [Fact]
    public void Time_widens_what_is_believed_and_evidence_narrows_it()
    {
        var grid = new AbilityGrid(0, 8, Content.Library.Ability);
        var once = AbilityBelief.Nothing(grid).After(Day, [Seen(4, 8, 2)]);
        var later = once.After(Day.AddDays(60), []);
        var more = once.After(Day.AddDays(1), [Seen(4, 16, 4)]);
        Assert.True(later.Sd > once.Sd);
        Assert.True(more.Sd < once.Sd);
        Assert.Equal(once.Mean, later.Mean, 0.2);
    }

    [Fact]
    public void A_thousand_reps_that_say_the_opposite_are_still_believed()
    {
        var grid = new AbilityGrid(-1, 11, Content.Library.Ability);
        var high = AbilityBelief.Nothing(grid).After(Day, [Seen(9, 1000, 0)]);
        var low = high.After(Day.AddDays(1), [Seen(1, 0, 1000)]);
        Assert.True(low.Mean < 2, $"{low.Mean}");
        Assert.True(low.Quantile(0.05) <= low.Quantile(0.95));
    }

    [Fact]
    public void One_more_clean_rep_never_lowers_it_and_a_broken_one_never_raises_it() =>
        Gen.Select(Gen.Double[0, 6], Gen.Int[0, 10], Gen.Int[0, 10], Gen.Double[0, 6])
            .Sample(
                (height, clean, broken, other) =>
                {
                    var grid = new AbilityGrid(-1, 7, Content.Library.Ability);
                    var before = new[] { Seen(other, 3, 2), Seen(height, clean, broken) };
                    double Mean(params AbilityEvidence[] more) =>
                        AbilityBelief.Nothing(grid).After(Day, [.. before, .. more]).Mean;
                    Assert.True(Mean(Seen(height, 1, 0)) >= Mean() - 1e-9);
                    Assert.True(Mean(Seen(height, 0, 1)) <= Mean() + 1e-9);
                },
                iter: 200
            );

    /// <summary>Somebody of a known ability that drifts, on days that differ, seen by an eye that errs: the interval holds the truth as often as it says.</summary>
    [Fact]
    public void The_interval_of_nine_in_ten_holds_the_truth_about_as_often()
    {
        var model = Content.Library.Ability;
        var grid = new AbilityGrid(-2, 10, model);
        var dice = new Random(7);
        const int people = 1500;
        var held = 0;
        for (var i = 0; i < people; i++)
        {
            var truth = -1.5 + 11 * dice.NextDouble();
            var spread = model.Spreads[dice.Next(model.Spreads.Count)];
            var belief = AbilityBelief.Nothing(grid);
            var visits = dice.Next(1, 6);
            for (var visit = 0; visit < visits; visit++)
            {
                truth += visit == 0 ? 0 : Normal.Sample(dice, 0, model.DriftPerWeek);
                var today = truth + Normal.Sample(dice, 0, model.Day);
                var seen = new List<AbilityEvidence>();
                for (var set = 0; set < 3; set++)
                {
                    var height = Math.Round(truth + 3 * (dice.NextDouble() - 0.5), 1);
                    var clean = Enumerable
                        .Range(0, 8)
                        .Count(_ =>
                            today + Normal.Sample(dice, 0, spread) > height
                                ? dice.NextDouble() >= model.Imagined
                                : dice.NextDouble() < model.Missed
                        );
                    seen.Add(Seen(height, clean, 8 - clean, 7 * visit));
                }
                belief = belief.After(Day.AddDays(7 * visit), seen);
            }
            held += truth >= belief.Quantile(0.05) && truth <= belief.Quantile(0.95) ? 1 : 0;
        }
        Assert.InRange(held / (double)people, 0.85, 0.95);
    }

    public static TheoryData<string, AbilityModel> Wrong =>
        new()
        {
            { "missed", Content.Library.Ability with { Missed = 0.5 } },
            { "imagined", Content.Library.Ability with { Imagined = -0.1 } },
            { "day", Content.Library.Ability with { Day = double.NaN } },
            { "driftPerWeek", Content.Library.Ability with { DriftPerWeek = 6 } },
            { "spreads", Content.Library.Ability with { Spreads = [] } },
            { "spreads", Content.Library.Ability with { Spreads = [0.3, 0] } },
            { "leastStep", Content.Library.Ability with { LeastStep = 0 } },
            { "leastUnit", Content.Library.Ability with { LeastUnit = 0 } },
            { "beyond", Content.Library.Ability with { Beyond = double.NaN } },
            { "leastNewtonMetres", Content.Library.Ability with { LeastNewtonMetres = 0 } },
            { "grid", Content.Library.Ability with { Grid = 0.001 } },
            { "sure", Content.Library.Ability with { Sure = 1 } },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void A_wrong_figure_is_refused_with_its_field(string field, AbilityModel model)
    {
        Assert.Empty(Content.Library.Ability.Errors());
        Assert.Equal($"ability.json ability.{field}", Assert.Single(model.Errors()).Field);
    }
}
