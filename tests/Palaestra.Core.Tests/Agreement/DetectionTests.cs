using CsCheck;
using Palaestra.Core.Agreement;

namespace Palaestra.Core.Tests.Agreement;

public class DetectionTests
{
    /// <summary>
    /// Hits 0.8, false alarms 0.4: d′ 1.095, criterion −0.294 (Macmillan and Creelman, Detection Theory, chapter 1, from memory).
    /// With many items the half that is added is nothing.
    /// </summary>
    [Fact]
    public void A_worked_example_comes_out()
    {
        var detection = new Detection(2_000_000, 1_600_000, 2_000_000, 800_000);
        Assert.Equal(1.095, detection.DPrime, 3);
        Assert.Equal(-0.294, detection.Criterion, 3);
    }

    [Fact]
    public void All_found_and_nothing_marked_falsely_stays_finite()
    {
        var best = new Detection(12, 12, 8, 0);
        Assert.Equal((1.0, 0.0), (best.Sensitivity, best.FalseAlarms));
        Assert.InRange(best.DPrime, 3, 4);
        Assert.Equal(0, new Detection(12, 12, 12, 12).DPrime, 12);
    }

    [Fact]
    public void One_more_found_is_better_and_one_more_false_mark_is_worse() =>
        Gen.Select(Gen.Int[1, 40], Gen.Int[1, 40], Gen.Double[0, 1], Gen.Double[0, 1])
            .Sample(
                (faulty, clean, found, wrong) =>
                {
                    var (hits, marks) = ((int)(found * (faulty - 1)), (int)(wrong * (clean - 1)));
                    var one = new Detection(faulty, hits, clean, marks);
                    Assert.True((one with { Hits = hits + 1 }).DPrime > one.DPrime);
                    Assert.True((one with { FalseMarks = marks + 1 }).DPrime < one.DPrime);
                    Assert.True((one with { FalseMarks = marks + 1 }).Criterion < one.Criterion);
                }
            );
}
