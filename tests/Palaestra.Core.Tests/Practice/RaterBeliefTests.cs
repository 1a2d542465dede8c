using MathNet.Numerics.Distributions;
using Palaestra.Core.Practice;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

public class RaterBeliefTests
{
    /// <summary>A rater who marks by a psychometric function of their own, and marks clean clips now and then.</summary>
    private sealed class Rater(Random random, double threshold, double lapse, double falseMarks)
    {
        public double TrulyMissed => 1 - Degrees.All.Average(degree => ChanceOf((int)degree));

        public ClipResult Rate(int seed)
        {
            var spec = ClipRoom.Of(Content.Library).Spec(seed);
            var marks = spec.Truth is { } truth
                ? random.NextDouble() < ChanceOf((int)truth.Degree)
                : random.NextDouble() < falseMarks;
            return ClipResult.Of(
                new(seed, false, marks ? [new(spec.Sought, spec.Truth?.Second ?? 3)] : []),
                Content.Library
            );
        }

        private double ChanceOf(int degree) => (1 - lapse) * Normal.CDF(threshold, 0.8, degree);
    }

    /// <summary>
    /// Simulated raters of known miss rates, 60 clips each chosen as a drill chooses them: on average of 40 raters the rate is found
    /// within three points.
    /// </summary>
    [Theory]
    [InlineData(-2, 0.03, 0.05)]
    [InlineData(-2, 0.10, 0.05)]
    [InlineData(-2, 0.20, 0.10)]
    [InlineData(0.5, 0.05, 0.02)]
    [InlineData(1.5, 0.05, 0.10)]
    [InlineData(2.5, 0.10, 0.20)]
    public void Raters_of_known_miss_rates_are_recovered(double threshold, double lapse, double falseMarks)
    {
        var aim = new DrillAim([], [], DrillAim.ClipsMost);
        var (missed, imagined, truly) = (new List<double>(), new List<double>(), 0.0);
        for (var run = 0; run < 40; run++)
        {
            var rater = new Rater(new Random(run), threshold, lapse, falseMarks);
            truly = rater.TrulyMissed;
            var results = new List<ClipResult>();
            while (results.Count < 60)
            {
                results.Add(rater.Rate(Drill.Next(aim, results, run, results.Count, Content.Library).Seed));
            }
            var figures = RaterFigures.Of(results, Content.Library);
            missed.Add(figures.Missed!.Value);
            imagined.Add(figures.FalseMarks!.Value);
        }
        Assert.InRange(missed.Average() - truly, -0.03, 0.03);
        Assert.InRange(imagined.Average() - falseMarks, -0.03, 0.03);
    }

    [Fact]
    public void A_marked_fault_makes_misses_less_likely_and_a_missed_one_more()
    {
        var before = RaterBelief.Nothing;
        foreach (var degree in Degrees.All)
        {
            Assert.True(before.After(degree, true).Missed < before.Missed);
            Assert.True(before.After(degree, false).Missed > before.Missed);
        }
        // A gross fault that goes by says more than one that can hardly be seen.
        Assert.True(
            before.After(Degree.Gross, false).Missed > before.After(Degree.JustNoticeable, false).Missed
        );
        var (low, high) = before.MissedWithin;
        Assert.True(low < before.Missed && before.Missed < high);
    }

    [Fact]
    public void What_is_known_tells_less_than_what_is_not()
    {
        var sure = RaterBelief.Nothing;
        for (var i = 0; i < 40; i++)
        {
            sure = sure.After(Degree.Gross, true);
        }
        Assert.True(sure.Tells(Degree.Gross) < RaterBelief.Nothing.Tells(Degree.Gross) / 3);
        // Nor is the least degree quite open to who misses nothing else: it still tells where they begin to see.
        Assert.True(sure.Tells(Degree.JustNoticeable) > sure.Tells(Degree.Gross));
    }

    [Fact]
    public void The_order_of_answers_does_not_matter()
    {
        (Degree, bool)[] seen = [(Degree.Subtle, true), (Degree.Plain, false), (Degree.Moderate, true)];
        double Of(IEnumerable<(Degree Degree, bool Marked)> answers) =>
            answers.Aggregate(RaterBelief.Nothing, (belief, a) => belief.After(a.Degree, a.Marked)).Missed;
        Assert.Equal(Of(seen), Of(seen.Reverse()), 12);
    }
}
