namespace Palaestra.Core.Agreement;

/// <summary>Numbers that each of some raters gave each of some items, taken apart into what items, raters and chance do.</summary>
/// <param name="Items">At least 2. <paramref name="Raters"/>: at least 2.</param>
/// <param name="BetweenItems">Mean square between items (BMS).</param>
/// <param name="WithinItems">Mean square within items, raters and the rest together (WMS).</param>
/// <param name="BetweenRaters">Mean square between raters (JMS).</param>
/// <param name="Rest">Mean square that neither explains (EMS).</param>
/// <remarks>Analysis of variance as in Shrout and Fleiss 1979, Psychological Bulletin 86:420–428, table 1 (from memory).</remarks>
public sealed record TwoWayTable(
    int Items,
    int Raters,
    double BetweenItems,
    double WithinItems,
    double BetweenRaters,
    double Rest
)
{
    /// <param name="ratings">A row for each item, a number for each rater; all rows as long as the first, all numbers finite.</param>
    /// <exception cref="ArgumentException">Fewer than two items or raters, rows of different length, or no number.</exception>
    public static TwoWayTable Of(IReadOnlyList<IReadOnlyList<double>> ratings)
    {
        var (n, k) = (ratings.Count, ratings.Count > 0 ? ratings[0].Count : 0);
        if (n < 2 || k < 2 || ratings.Any(row => row.Count != k || row.Any(value => !double.IsFinite(value))))
        {
            throw new ArgumentException(
                "At least two items and two raters, a number for each.",
                nameof(ratings)
            );
        }
        var ofItems = ratings.Select(row => row.Average()).ToList();
        var ofRaters = Enumerable.Range(0, k).Select(j => ratings.Average(row => row[j])).ToList();
        var mean = ofItems.Average();
        var items = k * ofItems.Sum(m => Square(m - mean));
        var raters = n * ofRaters.Sum(m => Square(m - mean));
        // Each summed by itself: a difference of sums would leave rounding where there is nothing.
        var within = ratings.Select((row, i) => row.Sum(value => Square(value - ofItems[i]))).Sum();
        var rest = ratings
            .Select(
                (row, i) => row.Select((value, j) => Square(value - ofItems[i] - ofRaters[j] + mean)).Sum()
            )
            .Sum();
        var scale = ratings.Max(row => row.Max(Math.Abs));
        return new(
            n,
            k,
            Mean(items, n - 1),
            Mean(within, n * (k - 1)),
            Mean(raters, k - 1),
            Mean(rest, (n - 1) * (k - 1))
        );

        // What numbers of this size are rounded by is nothing.
        double Mean(double sum, int degrees) =>
            sum / degrees is var mean && mean > Square(Rounding * scale) ? mean : 0;
    }

    /// <summary>Share of the largest number below which a spread is rounding.</summary>
    private const double Rounding = 1e-12;

    private static double Square(double x) => x * x;

    /// <summary>
    /// Standard error of measurement, in the unit of the numbers: how far one rater's number is from the item's own, the raters'
    /// own bias in it.
    /// </summary>
    /// <remarks>For agreement, as de Vet and others 2006, J Clin Epidemiol 59:1033–1039 (from memory).</remarks>
    public double Sem => Math.Sqrt(Math.Max(0, (BetweenRaters - Rest) / Items) + Rest);

    /// <summary>Smallest detectable change between two measurements, 19 times in 20: 1.96 √2 standard errors (there).</summary>
    public double Sdc => 1.96 * Math.Sqrt(2) * Sem;
}
