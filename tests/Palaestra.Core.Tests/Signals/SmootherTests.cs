using CsCheck;
using Palaestra.Core.Signals;

namespace Palaestra.Core.Tests.Signals;

public class SmootherTests
{
    private static List<double> Smooth(IEnumerable<double> values, double rate)
    {
        var smoother = new Smoother(rate);
        var done = new List<double>();
        foreach (var value in values)
        {
            smoother.Push(value, done.Add);
        }
        smoother.Finish(done.Add);
        return done;
    }

    /// <summary>scipy.signal.filtfilt with butter(2) at the corrected cut-off 7.4309 Hz: a step of 5 on a wave of 1 Hz.</summary>
    [Theory]
    [InlineData(250, 0.000000)]
    [InlineData(295, -0.423111)]
    [InlineData(300, 2.096718)]
    [InlineData(305, 5.275929)]
    [InlineData(320, 5.947003)]
    [InlineData(500, 5.000000)]
    public void It_gives_what_a_filter_run_both_ways_over_the_whole_gives(int sample, double expected)
    {
        var values = Enumerable
            .Range(0, 1000)
            .Select(i => (i > 300 ? 5.0 : 0) + Math.Sin(2 * Math.PI * i / 100.0));
        Assert.Equal(expected, Smooth(values, 100)[sample], 2e-3);
    }

    [Fact]
    public void A_slow_wave_keeps_its_size_and_its_moment_and_a_fast_one_goes()
    {
        var slow = Enumerable.Range(0, 600).Select(i => Math.Sin(2 * Math.PI * i / 100.0)).ToList();
        var done = Smooth(slow.Select((v, i) => v + Math.Sin(2 * Math.PI * 25 * i / 100.0)), 100);
        Assert.All(Enumerable.Range(100, 400), i => Assert.Equal(slow[i], done[i], 0.03));
    }

    [Theory]
    [InlineData(50)]
    [InlineData(100)]
    public void It_answers_within_four_tenths_of_a_second(double rate)
    {
        var smoother = new Smoother(rate);
        var given = 0;
        var ready = 0;
        for (; ready == 0; given++)
        {
            smoother.Push(1, _ => ready++);
        }
        Assert.InRange(given / rate, 0, 0.4);
    }

    [Fact]
    public void Every_value_comes_back_once_whatever_the_length() =>
        Gen.Double[-50, 50]
            .List[0, 200]
            .Sample(values => Assert.Equal(values.Count, Smooth(values, 100).Count));
}
