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
    public static Ends? Interval(
        int items,
        Func<IReadOnlyList<int>, double?> statistic,
        int seed,
        int draws = Draws
    ) => Intervals(items, drawn => [statistic(drawn)], seed, draws)[0];

    /// <summary>The same of several figures, all from the same draws.</summary>
    /// <param name="statistics">As many for each draw.</param>
    public static IReadOnlyList<Ends?> Intervals(
        int items,
        Func<IReadOnlyList<int>, IReadOnlyList<double?>> statistics,
        int seed,
        int draws = Draws
    )
    {
        var random = new Random(seed);
        var drawn = new int[items];
        var told = new List<List<double>>();
        for (var draw = 0; draw < draws; draw++)
        {
            for (var i = 0; i < items; i++)
            {
                drawn[i] = random.Next(items);
            }
            var values = statistics(drawn);
            for (var i = 0; i < values.Count; i++)
            {
                if (told.Count == i)
                {
                    told.Add([]);
                }
                if (values[i] is { } value)
                {
                    told[i].Add(value);
                }
            }
        }
        return [.. told.Select(values => 2 * values.Count < draws ? null : EndsOf(values))];
    }

    private static Ends EndsOf(List<double> values) => new(values.Quantile(0.025), values.Quantile(0.975));
}
