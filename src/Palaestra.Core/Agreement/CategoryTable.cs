namespace Palaestra.Core.Agreement;

/// <summary>How far two categories are apart, for weighted kappa.</summary>
public enum CategoryWeights
{
    /// <summary>By their distance: twice as far is half as much agreed.</summary>
    Linear,

    /// <summary>By its square, as an intraclass correlation would.</summary>
    Quadratic,
}

/// <summary>Which of some categories each of some raters put each of some items in, and how far they agree beyond chance.</summary>
/// <remarks>All agreements: 1, always; 0, no more than by chance; below, less. None where chance alone would always agree.</remarks>
public sealed class CategoryTable
{
    private readonly IReadOnlyList<IReadOnlyList<int>> ratings;
    private readonly int categories;

    /// <param name="ratings">A row for each item, a category from 0 for each rater; all rows as long as the first.</param>
    /// <param name="categories">How many there are, in their order, used or not; at least 2.</param>
    /// <exception cref="ArgumentException">No item, fewer than two raters or categories, rows of different length, or a category there is none of.</exception>
    public CategoryTable(IReadOnlyList<IReadOnlyList<int>> ratings, int categories)
    {
        Raters = ratings.Count > 0 ? ratings[0].Count : 0;
        if (
            categories < 2
            || Raters < 2
            || ratings.Any(row => row.Count != Raters || row.Any(c => c < 0 || c >= categories))
        )
        {
            throw new ArgumentException(
                "At least one item, two raters and two categories, one of them for each.",
                nameof(ratings)
            );
        }
        this.ratings = ratings;
        this.categories = categories;
    }

    /// <summary>Rows, at least 1.</summary>
    public int Items => ratings.Count;

    /// <summary>At least 2.</summary>
    public int Raters { get; }

    /// <summary>Cohen's kappa; of more than two raters the mean of all pairs, as Light has it.</summary>
    /// <remarks>Cohen 1960, Educ Psychol Meas 20:37–46; Light 1971, Psychological Bulletin 76:365–377 (both from memory).</remarks>
    public double? Kappa() => OfPairs((a, b) => a == b ? 0 : 1);

    /// <summary>The same, a near category agreeing in part.</summary>
    /// <remarks>Cohen 1968, Psychological Bulletin 70:213–220 (from memory).</remarks>
    public double? WeightedKappa(CategoryWeights weights) =>
        OfPairs((a, b) => weights == CategoryWeights.Linear ? Math.Abs(a - b) : (a - b) * (a - b));

    /// <summary>Fleiss' kappa: raters of an item need not be the raters of another.</summary>
    /// <remarks>Fleiss 1971, Psychological Bulletin 76:378–382 (from memory).</remarks>
    public double? Fleiss() => Beyond(Agreed(), Shares().Sum(share => share * share));

    /// <summary>Gwet's AC1, which stays steady where one category is rare.</summary>
    /// <remarks>Gwet 2008, Br J Math Stat Psychol 61:29–48 (from memory).</remarks>
    public double Ac1() =>
        Beyond(Agreed(), Shares().Sum(share => share * (1 - share)) / (categories - 1))!.Value;

    private double? OfPairs(Func<int, int, double> apart)
    {
        var pairs =
            from a in Enumerable.Range(0, Raters)
            from b in Enumerable.Range(a + 1, Raters - a - 1)
            select OfTwo(a, b, apart);
        return pairs.Average();
    }

    /// <summary>None where chance never is apart: it says nothing, and is left out of the mean of pairs.</summary>
    private double? OfTwo(int a, int b, Func<int, int, double> apart)
    {
        var (ofA, ofB) = (Counts(a), Counts(b));
        var seen = ratings.Average(row => apart(row[a], row[b]));
        var byChance = 0.0;
        for (var i = 0; i < categories; i++)
        {
            for (var j = 0; j < categories; j++)
            {
                byChance += apart(i, j) * ofA[i] * ofB[j];
            }
        }
        byChance /= (double)Items * Items;
        return byChance > 0 ? 1 - seen / byChance : null;
    }

    private int[] Counts(int rater)
    {
        var counts = new int[categories];
        foreach (var row in ratings)
        {
            counts[row[rater]]++;
        }
        return counts;
    }

    /// <summary>Share of the pairs of raters that put an item in one category.</summary>
    private double Agreed() =>
        ratings.Average(row =>
            row.GroupBy(c => c).Sum(same => (double)same.Count() * (same.Count() - 1))
            / (Raters * (Raters - 1))
        );

    private double[] Shares()
    {
        var shares = new double[categories];
        foreach (var category in ratings.SelectMany(row => row))
        {
            shares[category] += 1.0 / (Items * Raters);
        }
        return shares;
    }

    private static double? Beyond(double agreed, double byChance) =>
        1 - byChance > 1e-12 ? (agreed - byChance) / (1 - byChance) : null;
}
