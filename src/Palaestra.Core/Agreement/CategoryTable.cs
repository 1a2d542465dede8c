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
    private readonly int[][] ratings;
    private readonly double[] places;
    private readonly int[][] counts;

    /// <param name="ratings">A row for each item, a category from 0 for each rater; all rows as long as the first.</param>
    /// <param name="categories">How many there are, in their order, used or not; at least 2.</param>
    /// <param name="places">Where each category lies, for how far two are apart; none: evenly, one after the other.</param>
    /// <exception cref="ArgumentException">No item, fewer than two raters or categories, rows of different length, a category there is none of, or not a place for each.</exception>
    public CategoryTable(
        IReadOnlyList<IReadOnlyList<int>> ratings,
        int categories,
        IReadOnlyList<double>? places = null
    )
        : this(
            [.. ratings.Select(row => row.ToArray())],
            places is null
                ? [.. Enumerable.Range(0, Math.Max(0, categories)).Select(i => (double)i)]
                : [.. places]
        )
    {
        if (
            categories < 2
            || this.places.Length != categories
            || Raters < 2
            || this.ratings.Any(row => row.Length != Raters || row.Any(c => c < 0 || c >= categories))
        )
        {
            throw new ArgumentException(
                "At least one item, two raters and two categories, one of them for each.",
                nameof(ratings)
            );
        }
        Count();
    }

    private CategoryTable(int[][] ratings, double[] places)
    {
        (this.ratings, this.places) = (ratings, places);
        Raters = ratings.Length > 0 ? ratings[0].Length : 0;
        counts = new int[Raters][];
    }

    /// <summary>The items at these places, for an interval by drawing them again.</summary>
    /// <param name="items">At least one; each a place of a row, as often as it was drawn.</param>
    public CategoryTable Drawn(IReadOnlyList<int> items)
    {
        var drawn = new CategoryTable([.. items.Select(i => ratings[i])], places);
        drawn.Count();
        return drawn;
    }

    /// <summary>The draws of an interval are the same for the same ratings.</summary>
    private const int Seed = 26;

    /// <summary>Intervals of figures of this table, by name, items drawn again; without those of which most draws do not tell.</summary>
    public IReadOnlyDictionary<string, Ends> Ends(
        params IReadOnlyList<(string Name, Func<CategoryTable, double?> Of)> figures
    ) =>
        Bootstrap
            .Intervals(
                Items,
                items => Drawn(items) is var drawn ? [.. figures.Select(figure => figure.Of(drawn))] : [],
                Seed
            )
            .Select((ends, i) => (figures[i].Name, ends))
            .Where(named => named.ends is not null)
            .ToDictionary(named => named.Name, named => named.ends!);

    /// <summary>Rows, at least 1.</summary>
    public int Items => ratings.Length;

    /// <summary>At least 2.</summary>
    public int Raters { get; }

    /// <summary>Cohen's kappa; of more than two raters the mean of all pairs, as Light has it.</summary>
    /// <remarks>Cohen 1960, Educ Psychol Meas 20:37–46; Light 1971, Psychological Bulletin 76:365–377 (both from memory).</remarks>
    public double? Kappa() => OfPairs((a, b) => a == b ? 0 : 1);

    /// <summary>The same, a near category agreeing in part.</summary>
    /// <remarks>Cohen 1968, Psychological Bulletin 70:213–220 (from memory).</remarks>
    public double? WeightedKappa(CategoryWeights weights) =>
        OfPairs(
            (a, b) =>
                weights == CategoryWeights.Linear
                    ? Math.Abs(places[a] - places[b])
                    : (places[a] - places[b]) * (places[a] - places[b])
        );

    /// <summary>Fleiss' kappa: raters of an item need not be the raters of another.</summary>
    /// <remarks>Fleiss 1971, Psychological Bulletin 76:378–382 (from memory).</remarks>
    public double? Fleiss() => Beyond(Agreed(), Shares().Sum(share => share * share));

    /// <summary>Gwet's AC1, which stays steady where one category is rare.</summary>
    /// <remarks>Gwet 2008, Br J Math Stat Psychol 61:29–48 (from memory).</remarks>
    public double Ac1() =>
        Beyond(Agreed(), Shares().Sum(share => share * (1 - share)) / (places.Length - 1))!.Value;

    private double? OfPairs(Func<int, int, double> apart)
    {
        var weights = new double[places.Length, places.Length];
        for (var i = 0; i < places.Length; i++)
        {
            for (var j = 0; j < places.Length; j++)
            {
                weights[i, j] = apart(i, j);
            }
        }
        var (sum, told) = (0.0, 0);
        for (var a = 0; a < Raters; a++)
        {
            for (var b = a + 1; b < Raters; b++)
            {
                if (OfTwo(a, b, weights) is { } one)
                {
                    (sum, told) = (sum + one, told + 1);
                }
            }
        }
        return told > 0 ? sum / told : null;
    }

    /// <summary>None where chance never is apart: it says nothing, and is left out of the mean of pairs.</summary>
    private double? OfTwo(int a, int b, double[,] apart)
    {
        var seen = 0.0;
        foreach (var row in ratings)
        {
            seen += apart[row[a], row[b]];
        }
        var (ofA, ofB, byChance) = (counts[a], counts[b], 0.0);
        for (var i = 0; i < places.Length; i++)
        {
            for (var j = 0; ofA[i] > 0 && j < places.Length; j++)
            {
                byChance += apart[i, j] * ofA[i] * ofB[j];
            }
        }
        return byChance > 0 ? 1 - seen * Items / byChance : null;
    }

    private void Count()
    {
        for (var rater = 0; rater < Raters; rater++)
        {
            counts[rater] = new int[places.Length];
            foreach (var row in ratings)
            {
                counts[rater][row[rater]]++;
            }
        }
    }

    /// <summary>Share of the pairs of raters that put an item in one category.</summary>
    private double Agreed()
    {
        var (same, here) = (0L, new int[places.Length]);
        foreach (var row in ratings)
        {
            Array.Clear(here);
            foreach (var category in row)
            {
                // Whoever came before and said the same is a pair with this one, either way round.
                same += 2 * here[category]++;
            }
        }
        return same / ((double)Items * Raters * (Raters - 1));
    }

    private double[] Shares() =>
        [
            .. Enumerable
                .Range(0, places.Length)
                .Select(category => counts.Sum(of => of[category]) / ((double)Items * Raters)),
        ];

    private static double? Beyond(double agreed, double byChance) =>
        1 - byChance > 1e-12 ? (agreed - byChance) / (1 - byChance) : null;
}
