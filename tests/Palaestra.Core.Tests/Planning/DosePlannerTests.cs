using Palaestra.Core.Intake;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class DosePlannerTests
{
    [Theory]
    [InlineData(Irritability.Low, 5, 1, 3)]
    [InlineData(Irritability.Moderate, 5, 2, 3)]
    [InlineData(Irritability.High, 3, 1, 3)]
    public void Follows_how_stirred_up_the_client_is(Irritability level, int reps, int sets, double hold) =>
        Assert.Equal(
            new Dose(reps, sets, hold),
            DosePlanner.Start(Content.Library.Rung("B6"), level, Content.Policy)
        );

    /// <summary>Its clean reps and a quarter more, never over a quarter more than prescribed, in sets about half as long.</summary>
    [Theory]
    [InlineData(8, 1, 8, 5, 2)] // 10 of 10 in all
    [InlineData(8, 1, 6, 4, 2)] // 7.5: a set of four and one of three
    [InlineData(8, 1, 1, 1, 1)]
    [InlineData(5, 2, 10, 4, 3)] // 12 in three sets of four
    [InlineData(10, 3, 30, 8, 3)] // the cap has no set left: short sets are less than what is prescribed
    public void Extra_work_for_the_weaker_side_is_short_sets_of_what_was_clean_and_a_quarter_more(
        int reps,
        int sets,
        int clean,
        int shortReps,
        int shortSets
    )
    {
        var dose = new Dose(reps, sets, 3);
        var extra = DosePlanner.ShortSets(dose, clean, 0.25, Content.Library.Rung("B6"), Content.Policy);
        Assert.Equal((shortReps, shortSets), (extra.Reps, extra.Sets));
        Assert.True(extra.TotalReps <= 1.25 * dose.TotalReps);
    }

    [Fact]
    public void A_long_hold_becomes_two_shorter_ones_with_a_quarter_more_seconds_in_all() =>
        Assert.Equal(
            new Dose(1, 2, 18),
            DosePlanner.ShortSets(new Dose(1, 1, 30), 1, 0.25, Content.Library.Rung("G0"), Content.Policy)
        );
}
