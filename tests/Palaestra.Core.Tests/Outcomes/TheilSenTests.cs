using CsCheck;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using Palaestra.Core.Outcomes;

namespace Palaestra.Core.Tests.Outcomes;

public class TheilSenTests
{
    /// <summary>Days and values with ties in both, and what SciPy 1.10.1 says of them: stats.theilslopes(y, x, 0.95, "joint").</summary>
    public static TheoryData<double[], double[], double, double, double, double> Reference =>
        new()
        {
            {
                [0, 7, 14, 21, 35, 42, 49, 63],
                [7, 6, 6, 5, 5, 3, 4, 2],
                -0.07142857142857142,
                6.75,
                -0.10714285714285714,
                -0.047619047619047616
            },
            {
                [0, 0, 3, 7, 7, 10, 14, 21, 28, 28],
                [4, 5, 5, 6, 4, 7, 7, 8, 7, 9],
                0.14285714285714285,
                5.0,
                0.07142857142857142,
                0.23809523809523808
            },
            {
                [.. Enumerable.Range(0, 20).Select(i => 4.0 * i)],
                [5, 5, 6, 4, 5, 5, 6, 7, 5, 6, 6, 7, 8, 6, 7, 7, 8, 7, 9, 8],
                0.05,
                4.2,
                0.029411764705882353,
                0.0625
            },
        };

    /// <summary>
    /// Slope and intercept as the reference library has them. Its limits are the ordered slopes at rounded ranks, ours lie
    /// between two ordered slopes; at most one slope is in between.
    /// </summary>
    [Theory]
    [MemberData(nameof(Reference))]
    public void A_reference_library_finds_the_same(
        double[] x,
        double[] y,
        double slope,
        double intercept,
        double low,
        double high
    )
    {
        var line = TheilSen.Fit([.. x.Zip(y)])!;
        Assert.Equal(slope, line.Slope, 12);
        Assert.Equal(intercept, line.Intercept, 12);
        var slopes = (
            from a in Enumerable.Range(0, x.Length)
            from b in Enumerable.Range(0, a)
            where x[a] != x[b]
            select (y[a] - y[b]) / (x[a] - x[b])
        )
            .Distinct()
            .ToList();
        Assert.InRange(Between(slopes, line.Low, low), 0, 1);
        Assert.InRange(Between(slopes, line.High, high), 0, 1);
    }

    private static int Between(List<double> slopes, double a, double b) =>
        slopes.Count(s => Math.Min(a, b) < s && s < Math.Max(a, b));

    /// <summary>The median of all slopes by a general statistics library.</summary>
    [Fact]
    public void The_slope_is_the_median_of_all_slopes() =>
        Gen.Double[-10, 10]
            .Array[4, 25]
            .Sample(values =>
            {
                var points = values.Select((y, x) => ((double)x, y)).ToList();
                var slopes =
                    from a in Enumerable.Range(0, points.Count)
                    from b in Enumerable.Range(0, points.Count)
                    where a < b
                    select (points[b].y - points[a].y) / (points[b].Item1 - points[a].Item1);
                Assert.Equal(slopes.Median(), TheilSen.Fit(points)!.Slope, 1e-9);
            });

    [Fact]
    public void The_interval_holds_the_true_slope_nineteen_times_of_twenty()
    {
        var random = new Random(20261125);
        var inside = 0;
        const int times = 2000;
        for (var i = 0; i < times; i++)
        {
            var points = Enumerable
                .Range(0, 12)
                .Select(x => ((double)x, 0.7 * x + Normal.Sample(random, 0, 2)))
                .ToList();
            var line = TheilSen.Fit(points)!;
            inside += line.Low <= 0.7 && 0.7 <= line.High ? 1 : 0;
        }
        // 0.95 ± three standard errors of a share of 2000, and the interval is known to be a little wide.
        Assert.InRange((double)inside / times, 0.935, 0.985);
    }

    [Fact]
    public void One_wild_value_hardly_moves_it()
    {
        (double, double)[] points = [.. Enumerable.Range(0, 11).Select(x => ((double)x, 2.0 * x))];
        var wild = points.ToArray();
        wild[5] = (5, 500);
        Assert.Equal(2, TheilSen.Fit(points)!.Slope, 1e-9);
        Assert.InRange(TheilSen.Fit(wild)!.Slope, 1.9, 2.1);
    }

    [Fact]
    public void Points_on_one_day_have_no_slope() => Assert.Null(TheilSen.Fit([(3, 1), (3, 2), (3, 9)]));

    [Fact]
    public void A_line_turned_over_turns_its_slope_and_interval_over() =>
        Gen.Int[0, 10]
            .Array[5, 15]
            .Sample(values =>
            {
                var up = TheilSen.Fit([.. values.Select((y, x) => ((double)x, (double)y))])!;
                var down = TheilSen.Fit([.. values.Select((y, x) => ((double)x, -(double)y))])!;
                Assert.Equal(up.Slope, -down.Slope, 1e-9);
                Assert.Equal(up.Low, -down.High, 1e-9);
                Assert.Equal(up.High, -down.Low, 1e-9);
            });
}
