using Palaestra.Server.TakeHome;

namespace Palaestra.Server.Tests;

/// <summary>The boxes to tick on a home programme.</summary>
public class SheetTests
{
    private static readonly DateOnly Today = new(2026, 3, 2);

    [Fact]
    public void Run_from_tomorrow_to_the_day_before_the_next_visit()
    {
        var days = HomeProgrammes.DaysToTick(Today, new DateOnly(2026, 3, 9));
        Assert.Equal((new DateOnly(2026, 3, 3), new DateOnly(2026, 3, 8)), (days[0], days[^1]));
    }

    [Theory]
    [InlineData(null, 7)]
    [InlineData(1, 1)]
    [InlineData(90, HomeProgrammes.DaysMost)]
    public void Are_a_week_without_a_next_visit_one_before_tomorrow_s_and_never_more_than_fit(
        int? next,
        int boxes
    ) =>
        Assert.Equal(
            boxes,
            HomeProgrammes.DaysToTick(Today, next is { } days ? Today.AddDays(days) : null).Count
        );
}
