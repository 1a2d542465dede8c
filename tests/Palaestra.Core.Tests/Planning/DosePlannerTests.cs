using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class DosePlannerTests
{
    [Theory]
    [InlineData(StirredUp.Low, 5, 1, 3)]
    [InlineData(StirredUp.Moderate, 5, 2, 3)]
    [InlineData(StirredUp.High, 3, 1, 3)]
    public void Follows_how_stirred_up_the_client_is(StirredUp level, int reps, int sets, double hold) =>
        Assert.Equal(
            new Dose(reps, sets, hold),
            DosePlanner.Start(Content.Library.Rung("B6"), level, Content.Policy)
        );

    [Theory]
    [InlineData(StirredUp.Low, 5, 1, 5, 2)]
    [InlineData(StirredUp.High, 3, 1, 4, 1)]
    [InlineData(StirredUp.Low, 8, 3, 10, 3)]
    [InlineData(StirredUp.Low, 10, 3, 10, 3)]
    public void The_weaker_side_gets_a_set_or_a_quarter_more_reps_within_the_cap(
        StirredUp level,
        int reps,
        int sets,
        int moreReps,
        int moreSets
    ) =>
        Assert.Equal(
            new Dose(moreReps, moreSets, 3),
            DosePlanner.ForWeakerSide(
                new Dose(reps, sets, 3),
                Content.Library.Rung("B6"),
                level,
                Content.Policy
            )
        );
}
