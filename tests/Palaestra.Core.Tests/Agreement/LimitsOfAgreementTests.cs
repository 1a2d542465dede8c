using Palaestra.Core.Agreement;

namespace Palaestra.Core.Tests.Agreement;

public class LimitsOfAgreementTests
{
    /// <summary>
    /// Peak flow of 17 people by two meters, first readings, l/min: bias −2.1, SD 38.8, limits −79.7 and 75.5 (Bland and Altman
    /// 1986, Lancet 1:307–310, table and text from memory).
    /// </summary>
    [Fact]
    public void The_worked_example_of_those_who_named_them_comes_out()
    {
        double[] large =
        [
            494,
            395,
            516,
            434,
            476,
            557,
            413,
            442,
            650,
            433,
            417,
            656,
            267,
            478,
            178,
            423,
            427,
        ];
        double[] small =
        [
            512,
            430,
            520,
            428,
            500,
            600,
            364,
            380,
            658,
            445,
            432,
            626,
            260,
            477,
            259,
            350,
            451,
        ];
        var limits = LimitsOfAgreement.Of([.. large.Zip(small)]);
        Assert.Equal(-2.1, limits.Bias, 1);
        Assert.Equal(38.8, limits.Sd, 1);
        // The paper takes two standard deviations, both rounded before.
        Assert.Equal(-79.7, limits.Bias - 2 * limits.Sd, tolerance: 0.1);
        Assert.Equal(75.5, limits.Bias + 2 * limits.Sd, tolerance: 0.1);
        Assert.Equal(limits.Bias - 1.96 * limits.Sd, limits.Low, 9);
        Assert.Equal(limits.Bias + 1.96 * limits.Sd, limits.High, 9);
        // Standard error 16.3 of either limit, t 2.12: −114.3 to −45.1 about the lower one.
        Assert.Equal(16.3 * 2.12, limits.Margin, tolerance: 0.1);
    }

    [Fact]
    public void Two_pairs_say_nothing() =>
        Assert.Throws<ArgumentException>(() => LimitsOfAgreement.Of([(1, 2), (2, 3)]));
}
