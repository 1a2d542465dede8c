using Palaestra.Core.Signals;

namespace Palaestra.Core.Tests.Signals;

public class BiquadTests
{
    /// <summary>
    /// Published figures for a second-order Butterworth low-pass, 6 Hz at 100 Hz, before the two-pass correction: b = 0.0279,
    /// 0.0557, 0.0279; a = 1, −1.4755, 0.5869.
    /// </summary>
    [Fact]
    public void The_coefficients_are_the_published_ones()
    {
        var filter = Biquad.LowPass(6, 100);
        Assert.Equal(0.0279, filter.B0, 4);
        Assert.Equal(0.0557, filter.B1, 4);
        Assert.Equal(0.0279, filter.B2, 4);
        Assert.Equal(-1.4755, filter.A1, 4);
        Assert.Equal(0.5869, filter.A2, 4);
    }

    /// <summary>scipy.signal.butter(2, fc, fs=rate) of SciPy, to 12 digits.</summary>
    [Theory]
    [InlineData(6, 100, 0.027859766117, -1.475480443593, 0.586919508061)]
    [InlineData(6, 50, 0.091314900436, -0.982405793108, 0.347665394852)]
    [InlineData(12, 50, 0.274726851036, -0.073623846385, 0.172531250528)]
    public void The_coefficients_are_those_of_a_reference_library(
        double cutoff,
        double rate,
        double b0,
        double a1,
        double a2
    )
    {
        var filter = Biquad.LowPass(cutoff, rate);
        Assert.Equal(b0, filter.B0, 10);
        Assert.Equal(2 * b0, filter.B1, 10);
        Assert.Equal(a1, filter.A1, 10);
        Assert.Equal(a2, filter.A2, 10);
    }

    [Theory]
    [InlineData(50)]
    [InlineData(100)]
    public void One_pass_is_three_decibels_down_at_its_cut_off_and_two_corrected_passes_at_theirs(double rate)
    {
        Assert.Equal(Math.Sqrt(0.5), Biquad.LowPass(6, rate).Gain(6, rate), 6);
        var once = Biquad.LowPassOfTwo(6, rate).Gain(6, rate);
        Assert.Equal(Math.Sqrt(0.5), once * once, 6);
    }

    [Fact]
    public void A_steady_value_passes_as_it_is_from_the_first_sample_on()
    {
        var run = Biquad.LowPass(6, 100).StartingAt(37.5);
        Assert.All(Enumerable.Range(0, 50), _ => Assert.Equal(37.5, run.Next(37.5), 9));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(50)]
    [InlineData(double.NaN)]
    public void A_cut_off_outside_zero_to_half_the_rate_is_refused(double cutoff) =>
        Assert.Throws<ArgumentOutOfRangeException>(() => Biquad.LowPass(cutoff, 100));
}
