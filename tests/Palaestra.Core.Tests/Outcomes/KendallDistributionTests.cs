using CsCheck;
using MathNet.Numerics.Distributions;
using Palaestra.Core.Outcomes;

namespace Palaestra.Core.Tests.Outcomes;

/// <summary>The exact chances of Kendall's S against every order there is, and against published tables.</summary>
public class KendallDistributionTests
{
    private static int S(IReadOnlyList<int> y) =>
        (
            from i in Enumerable.Range(0, y.Count)
            from j in Enumerable.Range(0, i)
            select Math.Sign(y[i] - y[j])
        ).Sum();

    private static IEnumerable<IReadOnlyList<int>> Orders(IReadOnlyList<int> values) =>
        values.Count == 0
            ?
            [
                [],
            ]
            : Enumerable
                .Range(0, values.Count)
                .SelectMany(i =>
                    Orders([.. values.Where((_, at) => at != i)])
                        .Select(rest => (IReadOnlyList<int>)[values[i], .. rest])
                );

    [Fact]
    public void Every_order_of_up_to_six_values_with_ties_has_these_chances() =>
        Gen.Int[0, 4]
            .Array[2, 6]
            .Sample(
                values =>
                {
                    var all = Orders(values).Select(S).ToList();
                    var ties = values.GroupBy(v => v).Select(g => g.Count()).ToList();
                    foreach (var (s, chance) in KendallDistribution.UpperTail(values.Length, ties))
                    {
                        Assert.Equal((double)all.Count(other => other >= s) / all.Count, chance, 9);
                    }
                },
                iter: 60
            );

    // Kendall, Rank Correlation Methods, appendix table 1: the chance of S or more (from memory).
    [Theory]
    [InlineData(4, 6, 0.042)]
    [InlineData(5, 8, 0.042)]
    [InlineData(5, 10, 0.0083)]
    [InlineData(8, 16, 0.031)]
    [InlineData(8, 18, 0.016)]
    [InlineData(10, 21, 0.036)]
    [InlineData(10, 23, 0.023)]
    public void Tables_say_the_same(int n, int s, double chance) =>
        Assert.Equal(
            chance,
            KendallDistribution.UpperTail(n, []).Single(tail => tail.S == s).Chance,
            chance < 0.01 ? 4 : 3
        );

    [Fact]
    public void Four_values_have_no_interval_and_five_that_only_rise_have_all_their_slopes()
    {
        var four = TheilSen.Fit([(0, 1), (1, 2), (2, 4), (3, 8)])!;
        Assert.Equal((double.NegativeInfinity, double.PositiveInfinity), (four.Low, four.High));
        var five = TheilSen.Fit([(0, 1), (1, 2), (2, 4), (3, 8), (4, 16)])!;
        Assert.Equal((1.0, 8.0), (five.Low, five.High));
        Assert.True(five.Clear);
    }

    // The interval is exact: it holds the true slope in at least 95 % of samples, whatever their number.
    [Theory]
    [InlineData(6)]
    [InlineData(8)]
    [InlineData(10)]
    public void Few_points_keep_what_is_promised(int n)
    {
        var random = new Random(20261128 + n);
        const int times = 4000;
        var inside = 0;
        for (var i = 0; i < times; i++)
        {
            var line = TheilSen.Fit([
                .. Enumerable.Range(0, n).Select(x => ((double)x, 0.3 * x + Normal.Sample(random, 0, 1))),
            ])!;
            inside += line.Low <= 0.3 && 0.3 <= line.High ? 1 : 0;
        }
        // 0.95 less three standard errors of a share of 4,000.
        Assert.InRange((double)inside / times, 0.9397, 1);
    }
}
