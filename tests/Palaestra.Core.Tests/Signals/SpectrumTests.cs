using Palaestra.Core.Signals;

namespace Palaestra.Core.Tests.Signals;

public class SpectrumTests
{
    private static Spectrum Of(Func<int, double> value, int count = 1000) =>
        Spectrum.Welch(
            [
                [.. Enumerable.Range(0, count).Select(value)],
            ],
            100
        )!;

    /// <summary>scipy.signal.welch(hann, nperseg 256, noverlap 128, constant detrend) of the same samples.</summary>
    [Theory]
    [InlineData(1, 0.003198530)]
    [InlineData(5, 0.075406977)]
    [InlineData(22, 0.424320512)]
    [InlineData(23, 1.916028839)]
    [InlineData(24, 0.539465760)]
    [InlineData(40, 0)]
    public void It_is_that_of_a_reference_library(int line, double density)
    {
        var spectrum = Of(i =>
            1.5 * Math.Sin(2 * Math.PI * 9 * i / 100.0)
            + 0.3 * Math.Cos(2 * Math.PI * 2 * i / 100.0)
            + 4
            + 0.001 * i
        );
        Assert.Equal(density, spectrum.Density[line], 8);
    }

    [Theory]
    [InlineData(7, 0.4)]
    [InlineData(9, 1)]
    [InlineData(11, 2.5)]
    public void A_tone_in_the_band_of_trembling_gives_its_root_mean_square(double hertz, double size)
    {
        var spectrum = Of(i => 20 + size * Math.Sin(2 * Math.PI * hertz * i / 100.0));
        Assert.Equal(
            size / Math.Sqrt(2),
            spectrum.Rms(SignalAnalyser.TremorFrom, SignalAnalyser.TremorTo),
            0.02 * size
        );
    }

    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    [InlineData(20)]
    public void A_tone_outside_it_gives_next_to_nothing(double hertz) =>
        Assert.InRange(
            Of(i => Math.Sin(2 * Math.PI * hertz * i / 100.0))
                .Rms(SignalAnalyser.TremorFrom, SignalAnalyser.TremorTo),
            0,
            0.02
        );

    [Fact]
    public void The_power_of_all_lines_is_the_variance()
    {
        var random = new Random(5);
        var values = Enumerable.Range(0, 20_000).Select(_ => random.NextDouble() - 0.5).ToList();
        var variance = values.Average(v => v * v) - Math.Pow(values.Average(), 2);
        Assert.Equal(Math.Sqrt(variance), Spectrum.Welch([values], 100)!.Rms(0, 50), 0.005);
    }

    [Fact]
    public void Less_than_a_window_has_none_and_windows_do_not_cross_a_gap()
    {
        double[] Part(int count) => [.. Enumerable.Range(0, count).Select(i => (double)i)];
        Assert.Null(Spectrum.Welch([Part(Spectrum.Window - 1), Part(Spectrum.Window - 1)], 100));
        Assert.NotNull(Spectrum.Welch([Part(Spectrum.Window), Part(10)], 100));
    }
}
