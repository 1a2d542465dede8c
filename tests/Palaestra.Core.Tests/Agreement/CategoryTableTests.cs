using CsCheck;
using Palaestra.Core.Agreement;

namespace Palaestra.Core.Tests.Agreement;

public class CategoryTableTests
{
    private static readonly int[] A = [0, 0, 1, 2, 3, 3, 1, 2, 0, 2, 1, 3];
    private static readonly int[] B = [0, 1, 1, 2, 3, 2, 1, 3, 0, 2, 0, 3];
    private static readonly int[] C = [0, 0, 2, 2, 3, 3, 1, 1, 0, 2, 1, 2];

    private static CategoryTable Of(int categories, params int[][] raters) =>
        new([.. raters[0].Select((_, i) => raters.Select(rater => rater[i]).ToArray())], categories);

    /// <summary>Two raters from the counts of a square table, row by row.</summary>
    private static CategoryTable Counted(int[][] counts)
    {
        var rows =
            from i in Enumerable.Range(0, counts.Length)
            from j in Enumerable.Range(0, counts.Length)
            from _ in Enumerable.Range(0, counts[i][j])
            select new[] { i, j };
        return new([.. rows], counts.Length);
    }

    /// <summary>psych 2.2.9 for R 4.2.2: cohen.kappa, weighted by squares, and with w = 1 − |i − j| / 3; Light: the mean of its three pairs.</summary>
    [Fact]
    public void A_reference_package_finds_the_same_kappas()
    {
        var two = Of(4, A, B);
        Assert.Equal(0.555555555556, two.Kappa()!.Value, 10);
        Assert.Equal(0.866666666667, two.WeightedKappa(CategoryWeights.Quadratic)!.Value, 10);
        Assert.Equal(0.733333333333, two.WeightedKappa(CategoryWeights.Linear)!.Value, 10);
        Assert.Equal(0.518518518519, Of(4, A, B, C).Kappa()!.Value, 10);
    }

    /// <summary>statsmodels 0.13.5: inter_rater.fleiss_kappa; its second table is the one most lessons work through, κ = 0.210.</summary>
    [Fact]
    public void A_reference_package_finds_the_same_for_a_team()
    {
        Assert.Equal(0.5175257731958762, Of(4, A, B, C).Fleiss()!.Value, 12);
        int[][] counts =
        [
            [0, 0, 0, 0, 14],
            [0, 2, 6, 4, 2],
            [0, 0, 3, 5, 6],
            [0, 3, 9, 2, 0],
            [2, 2, 8, 1, 1],
            [7, 7, 0, 0, 0],
            [3, 2, 6, 3, 0],
            [2, 5, 3, 2, 2],
            [6, 5, 2, 1, 0],
            [0, 2, 2, 3, 7],
        ];
        var rows = counts.Select(row => row.SelectMany((n, c) => Enumerable.Repeat(c, n)).ToArray());
        Assert.Equal(0.20993070442195522, new CategoryTable([.. rows], 5).Fleiss()!.Value, 12);
    }

    /// <summary>
    /// Gwet's worked example of why kappa misleads: 118 and 5, 2 and none of 125. 94.4 % agree, kappa is below nothing (Gwet 2002,
    /// Kappa statistic is not satisfactory for assessing the extent of agreement between raters; from memory, and by hand).
    /// </summary>
    [Fact]
    public void Where_one_category_is_rare_AC1_stays_with_what_is_agreed()
    {
        var table = Counted([
            [118, 5],
            [2, 0],
        ]);
        Assert.Equal(-0.0234, table.Kappa()!.Value, 4);
        Assert.Equal(0.9408, table.Ac1(), 4);
        // By hand: four categories, each a quarter of the time; 8 of 12 agree.
        Assert.Equal((8.0 / 12 - 0.25) / 0.75, Of(4, A, B).Ac1(), 12);
    }

    [Fact]
    public void All_in_one_category_tells_nothing_beyond_chance_but_AC1()
    {
        var table = Of(3, [1, 1, 1], [1, 1, 1]);
        Assert.Null(table.Kappa());
        Assert.Null(table.Fleiss());
        Assert.Equal(1, table.Ac1());
    }

    [Fact]
    public void A_table_with_holes_is_refused()
    {
        Assert.Throws<ArgumentException>(() => new CategoryTable([], 2));
        Assert.Throws<ArgumentException>(() =>
            new CategoryTable(
                [
                    [0, 0],
                ],
                1
            )
        );
        Assert.Throws<ArgumentException>(() =>
            new CategoryTable(
                [
                    [0],
                ],
                2
            )
        );
        Assert.Throws<ArgumentException>(() =>
            new CategoryTable(
                [
                    [0, 1],
                    [0],
                ],
                2
            )
        );
        Assert.Throws<ArgumentException>(() =>
            new CategoryTable(
                [
                    [0, 2],
                ],
                2
            )
        );
    }

    private static readonly Gen<int[][]> Ratings =
        from k in Gen.Int[2, 5]
        from rows in Gen.Int[0, 3].Array[k].Array[4, 30]
        select rows;

    [Fact]
    public void Order_of_items_and_raters_does_not_matter_and_one_is_reached_only_by_agreeing() =>
        Ratings.Sample(rows =>
        {
            var table = new CategoryTable(rows, 4);
            var other = new CategoryTable([.. rows.Reverse().Select(row => row.Reverse().ToArray())], 4);
            var all = rows.All(row => row.Distinct().Count() == 1);
            Func<CategoryTable, double?>[] statistics =
            [
                t => t.Kappa(),
                t => t.WeightedKappa(CategoryWeights.Linear),
                t => t.WeightedKappa(CategoryWeights.Quadratic),
                t => t.Fleiss(),
                t => t.Ac1(),
            ];
            foreach (var of in statistics)
            {
                Assert.Equal(of(table) ?? 0, of(other) ?? 0, 9);
                Assert.True(of(table) is null || of(table) <= 1 + 1e-9);
                Assert.Equal(all, of(table) is null or > 1 - 1e-9);
            }
        });

    /// <summary>Squared weights are an intraclass correlation: Fleiss and Cohen 1973, Educ Psychol Meas 33:613–619 (from memory).</summary>
    [Fact]
    public void Quadratic_weights_come_near_the_intraclass_correlation_with_many_items()
    {
        var random = new Random(7);
        var rows = Enumerable
            .Range(0, 4000)
            .Select(_ => random.Next(4))
            .Select(truth => new[] { Near(truth), Near(truth) })
            .ToArray();
        var kappa = new CategoryTable(rows, 4).WeightedKappa(CategoryWeights.Quadratic)!.Value;
        var icc = IntraclassCorrelation.Of(
            TwoWayTable.Of([.. rows.Select(row => row.Select(c => (double)c).ToArray())])
        )!;
        Assert.Equal(icc.TwoWay.Value, kappa, 3);

        int Near(int truth) => Math.Clamp(truth + random.Next(-1, 2), 0, 3);
    }
}
