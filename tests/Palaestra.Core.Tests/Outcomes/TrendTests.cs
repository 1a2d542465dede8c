using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Outcomes;

public class TrendTests
{
    private static readonly DateOnly Start = new(2026, 3, 2);

    private static List<OutcomePoint> Weekly(params double[] values) =>
        [.. values.Select((value, i) => new OutcomePoint(i + 1, Start.AddDays(7 * i), value))];

    private static OutcomeMeasure Measure(string id) => Content.Library.Outcomes.First(m => m.Id == id);

    [Fact]
    public void Three_visits_are_no_trend() => Assert.Null(Trend.Of(Weekly(6, 5, 4), true, 1));

    [Fact]
    public void Pain_that_falls_a_point_a_week_is_expected_at_the_target_on_its_day()
    {
        var trend = Trend.Of(Weekly(8, 7, 6, 5, 4, 3), lessIsBetter: true, target: 1)!;
        Assert.Equal(-1, trend.PerWeek, 6);
        Assert.True(trend.Clear);
        Assert.Equal(Start.AddDays(7 * 7), trend.Expected);
    }

    // Slopes run from 0.5 to 2 points a week; with the slower the target is reached later, and that is said.
    [Fact]
    public void An_expected_date_is_a_range()
    {
        var trend = Trend.Of(Weekly(9, 8.5, 7, 6, 5.5, 4), lessIsBetter: true, target: 1)!;
        Assert.True(trend.ExpectedFrom < trend.Expected);
        Assert.True(trend.Expected < trend.ExpectedTo);
        Assert.Equal(
            $"getting better; at this rate there between {trend.ExpectedFrom:d MMM yyyy} and {trend.ExpectedTo:d MMM yyyy}",
            trend.Words.En()
        );
    }

    [Fact]
    public void Up_and_down_is_no_clear_change_and_has_no_date()
    {
        var trend = Trend.Of(Weekly(5, 6, 5, 4, 5, 6, 5), true, 1)!;
        Assert.Equal(("no clear change", null), (trend.Words.En(), trend.Expected));
    }

    [Fact]
    public void What_gets_worse_has_no_expected_date()
    {
        var trend = Trend.Of(Weekly(2, 3, 4, 5, 6, 7), true, 1)!;
        Assert.Equal(("getting worse", null), (trend.Words.En(), trend.Expected));
    }

    [Fact]
    public void At_the_target_already_no_date_is_told() =>
        Assert.Null(Trend.Of(Weekly(6, 5, 4, 3, 2, 1), true, 1)!.Expected);

    [Fact]
    public void A_slope_so_small_that_it_takes_years_has_no_date() =>
        Assert.Null(
            Trend
                .Of(
                    [
                        .. Enumerable
                            .Range(0, 20)
                            .Select(i => new OutcomePoint(i, Start.AddDays(i), 80 - 0.01 * i)),
                    ],
                    true,
                    10
                )!
                .Expected
        );

    // Pain: about 2 points or 30 %, whichever is less from 5 on (Farrar et al. 2001); below 5 both.
    [Theory]
    [InlineData("pain", 8, 6, ChangeVerdict.Better)]
    [InlineData("pain", 8, 7, ChangeVerdict.NoClearChange)]
    [InlineData("pain", 3, 2, ChangeVerdict.NoClearChange)]
    [InlineData("pain", 3, 1, ChangeVerdict.Better)]
    [InlineData("pain", 5, 3, ChangeVerdict.Better)]
    [InlineData("pain", 5, 4, ChangeVerdict.NoClearChange)]
    [InlineData("pain", 4, 3, ChangeVerdict.NoClearChange)]
    [InlineData("pain", 4, 6, ChangeVerdict.Worse)]
    // Named activities: 2 for the average (Stratford et al. 1995).
    [InlineData("activities", 3, 5, ChangeVerdict.Better)]
    [InlineData("activities", 3, 4.9, ChangeVerdict.NoClearChange)]
    [InlineData("activities", 5, 3, ChangeVerdict.Worse)]
    // Disability: 5 of 24, 10 of 100, and 30 % of the first value (Ostelo et al. 2008).
    [InlineData("disability-24", 10, 5, ChangeVerdict.Better)]
    [InlineData("disability-24", 10, 6, ChangeVerdict.NoClearChange)]
    [InlineData("disability-24", 20, 14, ChangeVerdict.Better)]
    [InlineData("disability-24", 20, 15, ChangeVerdict.NoClearChange)]
    [InlineData("disability-percent", 40, 28, ChangeVerdict.Better)]
    [InlineData("disability-percent", 40, 29, ChangeVerdict.NoClearChange)]
    [InlineData("disability-percent", 20, 10, ChangeVerdict.Better)]
    [InlineData("disability-percent", 20, 12, ChangeVerdict.NoClearChange)]
    [InlineData("leg-raise", 6, 4, ChangeVerdict.Better)]
    [InlineData("leg-raise", 6, 5, ChangeVerdict.NoClearChange)]
    public void A_change_counts_from_the_figure_of_its_source(
        string id,
        double first,
        double last,
        ChangeVerdict verdict
    ) => Assert.Equal(verdict, Measure(id).Verdict(first, last));

    [Fact]
    public void Pain_that_was_never_there_and_comes_is_worse_only_from_two_points() =>
        Assert.Equal(
            (ChangeVerdict.NoClearChange, ChangeVerdict.Worse),
            (Measure("pain").Verdict(0, 1), Measure("pain").Verdict(0, 2))
        );

    [Fact]
    public void Asked_once_it_is_no_change_yet() =>
        Assert.Equal("asked once", OutcomeSeries.Of(Measure("pain"), Weekly(5))!.Words.En());
}
