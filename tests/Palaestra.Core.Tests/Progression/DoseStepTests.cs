using Palaestra.Core.Library;
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

    [Fact]
    public void Easing_takes_a_whole_set_and_never_less_than_adding_gave()
    {
        foreach (var rung in Content.Library.TrainedLadders.SelectMany(l => l.Rungs))
        {
            for (
                var dose = rung.Start;
                DoseStep.Harder(dose, rung, rung.Target, Fifth) is { } more;
                dose = more
            )
            {
                if (more.Sets > 1 && DoseStep.Easier(more, rung) is { } less)
                {
                    Assert.True(
                        less.TotalReps <= Math.Max(dose.TotalReps, more.TotalReps - 1),
                        $"{rung.Id}: {more} to {less}"
                    );
                    Assert.Equal(more.Sets - 1, less.Sets);
                }
            }
        }
    }
}
