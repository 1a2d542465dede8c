using CsCheck;
using Palaestra.Core.Agreement;

namespace Palaestra.Core.Tests.Agreement;

public class IntraclassCorrelationTests
{
    /// <summary>Six targets, four judges: table 2 of Shrout and Fleiss 1979.</summary>
    private static readonly double[][] Published =
    [
        [9, 2, 5, 8],
        [6, 1, 3, 2],
        [8, 4, 6, 8],
        [7, 1, 2, 6],
        [10, 5, 6, 9],
        [6, 2, 4, 7],
    ];

    private static readonly double[][] TwoReaders =
    [
        [12.1, 13.0],
        [10.2, 9.8],
        [15.5, 15.9],
        [8.8, 9.9],
        [11.0, 11.4],
        [14.2, 13.1],
        [9.9, 10.8],
    ];

    private static IntraclassCorrelation Of(IReadOnlyList<IReadOnlyList<double>> ratings) =>
        IntraclassCorrelation.Of(TwoWayTable.Of(ratings))!;

    private static Correlation[] All(IntraclassCorrelation icc) =>
        [icc.OneWay, icc.TwoWay, icc.Fixed, icc.OneWayAverage, icc.TwoWayAverage, icc.FixedAverage];

    /// <summary>Its table 4.</summary>
    [Fact]
    public void The_worked_example_of_those_who_named_them_comes_out() =>
        Assert.Equal(
            [0.17, 0.29, 0.71, 0.44, 0.62, 0.91],
            All(Of(Published)).Select(icc => Math.Round(icc.Value, 2))
        );

    /// <summary>Value, lower and upper end as psych 2.2.9 for R 4.2.2 has them: ICC(x, lmer = FALSE).</summary>
    public static TheoryData<double[][], double[][]> Reference =>
        new()
        {
            {
                Published,
                [
                    [0.165741768405, -0.132932324875, 0.722560062328],
                    [0.289763779528, 0.018786513375, 0.761084369649],
                    [0.714840714841, 0.342464765034, 0.945858259955],
                    [0.442797133679, -0.884442155238, 0.912415420341],
                    [0.620050547599, 0.071136815303, 0.927232040168],
                    [0.909315542377, 0.675674713816, 0.985891678169],
                ]
            },
            {
                TwoReaders,
                [
                    [0.939203730273, 0.723433852829, 0.989051116503],
                    [0.939225528863, 0.723841378167, 0.989052165279],
                    [0.939899533549, 0.694479865400, 0.989409463444],
                    [0.968648848608, 0.839526102660, 0.994495423769],
                    [0.968660441897, 0.839800444907, 0.994495953946],
                    [0.969018773698, 0.819696804407, 0.994676542587],
                ]
            },
        };

    [Theory]
    [MemberData(nameof(Reference))]
    public void A_reference_package_finds_the_same(double[][] ratings, double[][] expected)
    {
        foreach (var (icc, row) in All(Of(ratings)).Zip(expected))
        {
            Assert.Equal(row[0], icc.Value, 9);
            Assert.Equal(row[1], icc.Low, 6);
            Assert.Equal(row[2], icc.High, 6);
        }
    }

    [Fact]
    public void Raters_who_agree_are_one_and_what_never_differs_tells_nothing()
    {
        Assert.All(
            All(
                Of([
                    [1, 1, 1],
                    [2, 2, 2],
                    [4, 4, 4],
                ])
            ),
            icc => Assert.Equal((1, 1, 1), (icc.Value, icc.Low, icc.High))
        );
        Assert.Null(
            IntraclassCorrelation.Of(
                TwoWayTable.Of([
                    [3, 3],
                    [3, 3],
                ])
            )
        );
        // Always one more: the same order, not the same number.
        var shifted = Of([
            [1.1, 2.1],
            [2.3, 3.3],
            [4.2, 5.2],
            [5.9, 6.9],
        ]);
        Assert.Equal(1, shifted.Fixed.Value);
        Assert.InRange(shifted.TwoWay.Value, 0.5, 0.95);
    }

    /// <summary>In thousandths, as they are measured: of 1e-90 and 1e-60 nothing is left in another unit. Not all the same.</summary>
    private static readonly Gen<double[][]> Ratings =
        from k in Gen.Int[2, 5]
        from rows in Gen.Int[0, 10_000].Select(thousandths => thousandths / 1000.0).Array[k].Array[2, 12]
        where rows.SelectMany(row => row).Distinct().Count() > 1
        select rows;

    [Fact]
    public void Units_names_and_order_do_not_matter_and_the_value_lies_in_its_interval() =>
        Ratings.Sample(ratings =>
        {
            var icc = All(Of(ratings));
            var other = All(
                Of([.. ratings.Reverse().Select(row => row.Reverse().Select(x => 100 - 2.54 * x).ToArray())])
            );
            // An average of less than nothing has no value.
            foreach (var (a, b) in icc.Zip(other).Where(pair => double.IsFinite(pair.First.Low)))
            {
                Assert.Equal(a.Value, b.Value, 6);
                Assert.True(a.Low <= a.Value + 1e-9 && a.Value <= a.High + 1e-9, $"{a}");
                Assert.True(a.High <= 1 + 1e-9, $"{a}");
            }
        });

    [Fact]
    public void Sem_is_what_raters_and_rest_add_to_one_number()
    {
        // Mean squares of the published example, its table 3.
        var table = TwoWayTable.Of(Published);
        Assert.Equal(11.24, table.BetweenItems, 2);
        Assert.Equal(6.26, table.WithinItems, 2);
        Assert.Equal(32.49, table.BetweenRaters, 2);
        Assert.Equal(1.02, table.Rest, 2);
        Assert.Equal(Math.Sqrt((table.BetweenRaters - table.Rest) / 6 + table.Rest), table.Sem, 12);
        Assert.Equal(2.77 * table.Sem, table.Sdc, tolerance: 0.01);
        Assert.Equal(
            0,
            TwoWayTable
                .Of([
                    [1, 1],
                    [2, 2],
                ])
                .Sem
        );
    }

    [Fact]
    public void A_table_with_holes_is_refused()
    {
        Assert.Throws<ArgumentException>(() =>
            TwoWayTable.Of([
                [1, 2],
            ])
        );
        Assert.Throws<ArgumentException>(() =>
            TwoWayTable.Of([
                [1],
                [2],
            ])
        );
        Assert.Throws<ArgumentException>(() =>
            TwoWayTable.Of([
                [1, 2],
                [1, 2, 3],
            ])
        );
        Assert.Throws<ArgumentException>(() =>
            TwoWayTable.Of([
                [1, 2],
                [1, double.NaN],
            ])
        );
    }
}
