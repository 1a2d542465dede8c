using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Core.Tests.Given;
using Palaestra.Instruments;

namespace Palaestra.Core.Tests.Signals;

public class NeutralTests
{
    private static readonly InstrumentSetup Tilt = Content.Library.Instruments.First(i => i.Id == "tilt");
    private static readonly InstrumentSetup Cuff = Content.Library.Instruments.First(i => i.Id == "cuff");

    private static List<double[]> Steady(int count, params double[] level) =>
        [.. Enumerable.Range(0, count).Select(_ => level)];

    [Fact]
    public void Three_quiet_seconds_of_a_device_are_its_mean()
    {
        var device = new SimulatedDevice(DeviceKind.Tilt, 1);
        List<double[]> samples = [.. Enumerable.Range(0, 500).Select(_ => device.Sample()!)];
        var neutral = Neutral.From(samples, Tilt);
        Assert.Empty(neutral.Errors);
        Assert.All(
            neutral.Value!.Levels.Zip(DeviceKind.Tilt.Rest),
            pair => Assert.Equal(pair.Second, pair.First, 0.15)
        );
    }

    [Fact]
    public void Moving_is_refused_with_the_channel_that_moved()
    {
        List<double[]> samples =
        [
            .. Enumerable.Range(0, 300).Select(i => new[] { 2 * Math.Sin(i / 30.0), 0, 0 }),
        ];
        var refused = Neutral.From(samples, Tilt);
        Assert.Equal("Pitch", Assert.Single(refused.Errors).Field);
        Assert.Contains("Lie still", refused.Errors[0].Message.En(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_device_that_is_all_noise_gets_no_neutral()
    {
        var device = new SimulatedDevice(DeviceKind.Tilt, 1) { Noise = 8 };
        List<double[]> samples = [.. Enumerable.Range(0, 300).Select(_ => device.Sample()!)];
        Assert.Equal(["Pitch", "Roll", "Yaw"], Neutral.From(samples, Tilt).Errors.Select(e => e.Field));
    }

    [Theory]
    [InlineData(34, false)]
    [InlineData(36, true)]
    [InlineData(45, true)]
    [InlineData(46, false)]
    public void The_cuff_must_stand_near_forty(double level, bool taken) =>
        Assert.Equal(taken, Neutral.From(Steady(150, level), Cuff).Errors.Count == 0);

    [Fact]
    public void Too_short_or_with_a_gap_is_refused()
    {
        Assert.Equal("device", Neutral.From(Steady(149, 40), Cuff).Errors[0].Field);
        var gap = Steady(150, 40);
        gap[70] = [double.NaN];
        Assert.Equal("device", Neutral.From(gap, Cuff).Errors[0].Field);
    }
}
