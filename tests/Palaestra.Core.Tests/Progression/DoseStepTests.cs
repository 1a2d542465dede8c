using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Steps of a dose: a fifth of the clean time a week, also where sets are added.</summary>
public class DoseStepTests
{
    private const double Fifth = 0.2;

    [Fact]
    public void A_second_set_grows_in_by_a_few_reps_at_a_time()
    {
        var rung = Content.Library.Rung("B5");
        var steps = new List<int>();
        for (
            var dose = new Dose(8, 1, 0);
            DoseStep.Harder(dose, rung, rung.Target, Fifth) is { } more;
            dose = more
        )
        {
            steps.Add(more.TotalReps);
            Assert.True(more.TotalReps <= dose.TotalReps * (1 + Fifth));
        }
        Assert.Equal([9, 10, 12, 14, 16], steps);
    }

    /// <summary>From every start dose to the target: growth is at most a fifth, or a rep to each set or a second where that is more, and it ends at the target.</summary>
    [Fact]
    public void Every_rung_grows_from_its_start_to_its_target_without_a_leap()
    {
        foreach (var rung in Content.Library.TrainedLadders.SelectMany(l => l.Rungs))
        {
            var dose = rung.Start;
            var weeks = 0;
            while (DoseStep.Harder(dose, rung, rung.Target, Fifth) is { } more)
            {
                var grown = more.Seconds(rung.MoveSeconds) / dose.Seconds(rung.MoveSeconds) - 1;
                var oneMoreEach = more.TotalReps - dose.TotalReps <= more.Sets && more.Hold - dose.Hold <= 1;
                Assert.True(grown is > 0 and <= Fifth + 1e-6 || oneMoreEach, $"{rung.Id}: {dose} to {more}");
                dose = more;
                Assert.True(++weeks < 200, rung.Id);
            }
            Assert.True(dose.Covers(rung.Target), $"{rung.Id}: {dose}");
        }
    }

    /// <summary>Wherever growth has come to, easing takes at least as much as the last step gave, and what a week may add, down to the start.</summary>
    [Fact]
    public void Easing_takes_what_adding_gave_and_a_fifth_at_least()
    {
        foreach (var rung in Content.Library.TrainedLadders.SelectMany(l => l.Rungs))
        {
            for (
                var dose = rung.Start;
                DoseStep.Harder(dose, rung, rung.Target, Fifth) is { } more;
                dose = more
            )
            {
                var (was, now) = (dose.Seconds(rung.MoveSeconds), more.Seconds(rung.MoveSeconds));
                var less = (DoseStep.Easier(more, rung, Fifth) ?? rung.Start).Seconds(rung.MoveSeconds);
                var start = rung.Start.Seconds(rung.MoveSeconds);
                Assert.True(
                    less <= Math.Max(start, Math.Min(was, now / (1 + Fifth))) + 1e-6,
                    $"{rung.Id}: {more}"
                );
            }
        }
    }

    [Theory]
    [InlineData(8, 2, 7, 5, 1)] // 8-1: without its one rep it would be hardly less, so back to the start reps
    [InlineData(8, 2, 6, 8, 1)] // 8-2: a fifth
    [InlineData(8, 2, 0, 8, 1)]
    [InlineData(8, 3, 2, 8, 2)] // 8-6-4 becomes 8-6
    public void A_short_set_goes_and_more_where_that_is_little(
        int reps,
        int sets,
        int fewer,
        int to,
        int left
    )
    {
        var less = DoseStep.Easier(new Dose(reps, sets, 0, fewer), Content.Library.Rung("B5"), Fifth);
        Assert.Equal((to, left), (less!.Value.Reps, less.Value.Sets));
        Assert.True(less.Value.Sets > 1 || less.Value.Fewer == 0);
    }

    [Theory]
    [InlineData(8, 2, 7)]
    [InlineData(8, 2, 4)]
    [InlineData(8, 2, 0)]
    [InlineData(8, 3, 2)]
    [InlineData(5, 3, 1)]
    public void Half_is_half_of_the_reps_also_where_sets_shrink(int reps, int sets, int fewer)
    {
        var dose = new Dose(reps, sets, 0, fewer);
        Assert.InRange(2 * Steps.Halved(dose).TotalReps, 2, dose.TotalReps);
    }
}
