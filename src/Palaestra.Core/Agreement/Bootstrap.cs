using MathNet.Numerics.Statistics;

namespace Palaestra.Core.Agreement;

/// <summary>An interval by drawing items again, with replacement.</summary>
public static class Bootstrap
{
    /// <summary>Enough for the ends of an interval of 95 % (Efron and Tibshirani, there).</summary>
    public const int Draws = 1000;

    /// <summary>Ends of the middle 95 % of what the drawn items give (Efron and Tibshirani 1993, chapter 13, from memory).</summary>
    /// <param name="statistic">Of the items at these places; none where they do not tell.</param>
    /// <param name="seed">The same draws for the same seed, on every machine.</param>
    /// <returns>None: fewer than half of the draws tell.</returns>
    public static (double Low, double High)? Interval(
        int items,
        Func<IReadOnlyList<int>, double?> statistic,
        int seed,
        int draws = Draws
    )
    {
        var random = new Random(seed);
        var drawn = new int[items];
        var told = new List<double>(draws);
        for (var draw = 0; draw < draws; draw++)
        {
            for (var i = 0; i < items; i++)
            {
                drawn[i] = random.Next(items);
            }
            if (statistic(drawn) is { } value)
            {
                told.Add(value);
            }
        }
        if (2 * told.Count < draws)
        {
            return null;
        }
        return (told.Quantile(0.025), told.Quantile(0.975));
    }
}
