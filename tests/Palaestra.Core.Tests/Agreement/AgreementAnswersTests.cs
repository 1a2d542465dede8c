using System.Globalization;
using System.Text.Json;
using CsCheck;
using Palaestra.Core.Agreement;
using Palaestra.Core.Terms;

namespace Palaestra.Core.Tests.Agreement;

public class AgreementAnswersTests
{
    private static Checked<AgreementAnswer> Ask(string json) =>
        AgreementAnswers.Of(JsonSerializer.Deserialize<AgreementQuestion>(json, CoreJson.Options)!);

    private static AgreementAnswer Good(string json)
    {
        var answer = Ask(json);
        Assert.Empty(answer.Errors);
        return answer.Value!;
    }

    private static string Json(string kind, IEnumerable<IEnumerable<string>> rows) =>
        $$"""{"kind":"{{kind}}","ratings":[{{string.Join(
            ",",
            rows.Select(row => $"[{string.Join(",", row)}]")
        )}}]}""";

    /// <summary>Shrout and Fleiss 1979, tables 2 and 4: six targets, four judges (values there to two places).</summary>
    [Fact]
    public void Numbers_answer_as_the_table_of_Shrout_and_Fleiss()
    {
        var answer = Good(
            """{"kind":"numbers","ratings":[[9,2,5,8],[6,1,3,2],[8,4,6,8],[7,1,2,6],[10,5,6,9],[6,2,4,7]]}"""
        );
        Assert.Equal((6, 4), (answer.Items, answer.Raters));
        Assert.Equal(
            [("1,1", 0.17), ("2,1", 0.29), ("3,1", 0.71), ("1,4", 0.44), ("2,4", 0.62), ("3,4", 0.91)],
            answer.Icc!.Select(one => (one.Key, Math.Round(one.Value.Value!.Value, 2)))
        );
        Assert.Null(answer.Kappa);
        Assert.Null(answer.Weights);
        Assert.Equal(1.96 * Math.Sqrt(2) * answer.Sem!.Value, answer.Sdc!.Value, 12);
    }

    [Fact]
    public void Names_and_numbers_are_the_same_categories_where_they_lie_evenly()
    {
        var numbers = Good(
            """{"kind":"categories","weights":"linear","ratings":[[1,1],[2,3],[3,3],[2,2],[1,2]]}"""
        );
        var names = Good(
            """{"kind":"categories","weights":"linear","ratings":[["a","a"],["b","c"],["c","c"],["b","b"],["a","b"]]}"""
        );
        Assert.Equal(numbers.Kappa, names.Kappa);
        Assert.Equal(numbers.WeightedKappa, names.WeightedKappa);
        // By hand: 3 of 5 agree; by chance (2·1 + 2·2 + 1·2) / 25 = 8/25.
        Assert.Equal((0.6 - 0.32) / 0.68, numbers.Kappa!.Value, 12);
        Assert.True(
            numbers.Intervals!["kappa"].Low <= numbers.Kappa
                && numbers.Kappa <= numbers.Intervals["kappa"].High
        );
        Assert.Null(numbers.Icc);
    }

    /// <summary>By hand: 0, 1 and 4 are 1, 3 and 4 apart.</summary>
    [Fact]
    public void Numbers_are_as_far_apart_as_they_are_not_as_their_places()
    {
        var answer = Good(
            """{"kind":"categories","weights":"linear","ratings":[[0,0],[1,1],[4,4],[0,1],[1,4]]}"""
        );
        double[] a = [0, 1, 4, 0, 1];
        double[] b = [0, 1, 4, 1, 4];
        var seen = a.Zip(b, (x, y) => Math.Abs(x - y)).Average();
        var byChance = a.SelectMany(x => b.Select(y => Math.Abs(x - y))).Average();
        Assert.Equal(1 - seen / byChance, answer.WeightedKappa!.Value, 12);
    }

    [Fact]
    public void One_category_alone_agrees_by_chance_too()
    {
        var answer = Good("""{"kind":"categories","ratings":[[2,2],[2,2],[2,2]]}""");
        Assert.Null(answer.Kappa);
        Assert.Null(answer.Fleiss);
        Assert.Equal(1, answer.Ac1);
        Assert.Equal(CategoryWeights.Quadratic, answer.Weights);
    }

    /// <summary>By hand: both items have the mean 1.5, so one rater's correlation is −1, and all of it lies within.</summary>
    [Fact]
    public void Items_that_do_not_differ_have_the_least_and_ends_that_lie_nowhere_are_left_out()
    {
        var swapped = Good("""{"kind":"numbers","ratings":[[1,2],[2,1]]}""");
        Assert.Equal(-1, swapped.Icc!["1,1"].Value);
        Assert.Null(swapped.Icc["1,2"].Value);
        Assert.Null(swapped.Icc["3,2"].Low);
        var all = Good("""{"kind":"numbers","ratings":[[3,3],[3,3]]}""");
        Assert.All(all.Icc!.Values, one => Assert.Equal(new Figured(null, null, null), one));
        Assert.Equal(0, all.Sem);
        // One rater is always one higher, and the items do not differ.
        var shifted = Good("""{"kind":"numbers","ratings":[[1,2],[1,2],[1,2]]}""");
        Assert.Equal(-1, shifted.Icc!["1,1"].Value);
        Assert.Equal(0, shifted.Icc["2,1"].Value);
    }

    [Theory]
    [InlineData("""{"kind":"numbers","ratings":[]}""", "ratings")]
    [InlineData("""{"kind":"numbers","ratings":[[1,2]]}""", "ratings")]
    [InlineData("""{"kind":"categories","ratings":[]}""", "ratings")]
    [InlineData("""{"kind":"numbers","ratings":[[1],[2]]}""", "ratings[0]")]
    [InlineData("""{"kind":"numbers","ratings":[[1,2],[2]]}""", "ratings[1]")]
    [InlineData("""{"kind":"numbers","ratings":[[1,2],[2,null]]}""", "ratings[1][1]")]
    [InlineData("""{"kind":"numbers","ratings":[[1,2],["x",3]]}""", "ratings[1][0]")]
    [InlineData("""{"kind":"numbers","ratings":[[1,2],[2,1e300]]}""", "ratings[1][1]")]
    [InlineData("""{"kind":"numbers","weights":"linear","ratings":[[1,2],[2,3]]}""", "weights")]
    [InlineData("""{"kind":"categories","ratings":[["a","b"],["a",1]]}""", "ratings[1][1]")]
    [InlineData("""{"kind":"categories","ratings":[[true,false]]}""", "ratings[0][0]")]
    public void What_cannot_be_answered_names_its_field(string json, string field) =>
        Assert.Contains(field, Ask(json).Errors.Select(error => error.Field));

    /// <summary>Whatever the numbers, nothing is thrown, everything told is finite, and ends lie either side.</summary>
    [Fact]
    public void Any_ratings_have_an_answer_of_numbers()
    {
        var size = Gen.Int[2, 5];
        var gen =
            from raters in size
            from rows in Gen.Int[-2, 2].Array[raters].Array[2, 7]
            select rows.Select(row => row.Select(v => v.ToString(CultureInfo.InvariantCulture)));
        gen.Sample(
            rows =>
            {
                var numbers = Good(Json("numbers", rows));
                foreach (var one in numbers.Icc!.Values)
                {
                    Assert.True(one.Value is null or <= 1 + 1e-9);
                    Assert.True(one.Low is null || one.Value is null || one.Low <= one.Value + 1e-9);
                    Assert.True(one.High is null || one.Value is null || one.High >= one.Value - 1e-9);
                }
                Assert.True(double.IsFinite(numbers.Sem!.Value));
                var categories = Good(Json("categories", rows));
                Assert.True(double.IsFinite(categories.Ac1!.Value));
                Assert.True(categories.Kappa is null or <= 1 + 1e-9);
            },
            iter: 60
        );
    }
}
