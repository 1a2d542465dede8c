using MathNet.Numerics.Distributions;
using Palaestra.Core.Agreement;

namespace Palaestra.Core.Tests.Agreement;

public class BootstrapTests
{
    [Fact]
    public void The_same_seed_draws_the_same()
    {
        double[] values = [3, 1, 4, 1, 5, 9, 2, 6, 5, 3];
        double? Mean(IReadOnlyList<int> items) => items.Average(i => values[i]);
        Assert.Equal(Bootstrap.Interval(10, Mean, 1), Bootstrap.Interval(10, Mean, 1));
        Assert.NotEqual(Bootstrap.Interval(10, Mean, 1), Bootstrap.Interval(10, Mean, 2));
    }

    /// <summary>Simulated: a percentile interval of a mean of 40 covers the true mean about 19 times in 20, a little less.</summary>
    [Fact]
    public void It_covers_what_is_true_about_as_often_as_it_says()
    {
        var random = new Random(3);
        const int runs = 400;
        var covered = Enumerable
            .Range(0, runs)
            .Count(run =>
            {
                var values = Enumerable.Range(0, 40).Select(_ => Normal.Sample(random, 5, 2)).ToArray();
                var (low, high) = Bootstrap.Interval(40, items => items.Average(i => values[i]), run, 400)!;
                return low <= 5 && 5 <= high;
            });
        Assert.InRange((double)covered / runs, 0.90, 0.98);
    }

    [Fact]
    public void Where_most_draws_do_not_tell_there_is_none() =>
        Assert.Null(Bootstrap.Interval(5, items => items[0] == 0 ? 1 : null, 1));
}
