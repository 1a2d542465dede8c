using CsCheck;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Core.Tests.Given;
using Palaestra.Instruments;

namespace Palaestra.Core.Tests.Signals;

public class SignalAnalyserTests
{
    private static readonly double[] Lost = [double.NaN, double.NaN, double.NaN];

    private static InstrumentSetup SetupOf(string id) => Content.Library.Instruments.First(i => i.Id == id);

    private static readonly InstrumentSetup Tilt = SetupOf("tilt");
    private static readonly Neutral Zero = new([0, 0, 0]);

    /// <summary>Pitch by the second, the other channels at rest; none: no sample.</summary>
    private static SignalAnalysis Pitch(double seconds, Func<double, double?> pitch) =>
        SignalAnalyser.Of(
            Enumerable
                .Range(0, (int)(seconds * Tilt.Rate))
                .Select(i => pitch(i / Tilt.Rate) is { } value ? new[] { value, 0, 0 } : Lost),
            Tilt,
            Zero
        );

    private static double Step(double t, double from, double to, double size) =>
        from <= t && t < to ? size : 0;

    [Fact]
    public void Leaving_the_band_and_staying_out_is_a_loss_with_its_onset_and_its_end()
    {
        var seen = Pitch(10, t => Step(t, 4, 6, 8));
        var loss = Assert.Single(seen.Losses);
        Assert.Equal(SignalChannel.Pitch, loss.Channel);
        Assert.Equal(4, loss.Onset, 0.03);
        Assert.Equal(6, loss.End!.Value, 0.05);
        Assert.Equal(8, loss.Excursion, 0.5);
        Assert.Equal(4, seen.CleanSeconds, 0.03);
        Assert.Equal(8, seen.InBandSeconds, 0.06);
    }

    [Theory]
    [InlineData(4.9, 1, 0)] // inside the band
    [InlineData(5.2, 1, 1)] // beyond it
    [InlineData(-5.2, 1, 1)]
    [InlineData(9, 0.15, 0)] // a bump
    [InlineData(9, 0.5, 1)]
    public void What_counts_is_how_far_and_how_long(double size, double lasts, int losses) =>
        Assert.Equal(losses, Pitch(8, t => Step(t, 3, 3 + lasts, size)).Losses.Count);

    [Fact]
    public void Trembling_at_the_edge_is_one_loss_and_not_many()
    {
        var seen = Pitch(10, t => Step(t, 3, 7, 5.3) + Step(t, 3, 7, 0.6 * Math.Sin(2 * Math.PI * 2 * t)));
        Assert.Single(seen.Losses);
    }

    [Fact]
    public void A_short_drop_out_is_bridged_and_a_long_one_is_not_counted_as_held()
    {
        Assert.Equal(10, Pitch(10, t => t is > 4 and < 4.15 ? null : 0.0).SeenSeconds, 0.02);
        var seen = Pitch(10, t => t is > 4 and < 7 ? null : 0.0);
        Assert.Equal(7.2, seen.SeenSeconds, 0.05);
        Assert.Equal(7.2, seen.CleanSeconds, 0.05);
        Assert.Empty(seen.Losses);
    }

    [Fact]
    public void A_loss_that_is_running_when_the_signal_goes_ends_there()
    {
        var seen = Pitch(10, t => t is > 4 and < 7 ? null : Step(t, 3, 5, 8));
        Assert.Equal(
            (3.0, 4.2),
            (Math.Round(seen.Losses[0].Onset, 1), Math.Round(seen.Losses[0].End!.Value, 1))
        );
    }

    [Fact]
    public void A_gyroscope_that_drifts_is_followed_and_a_back_that_sinks_is_not()
    {
        SignalAnalysis Creep(int channel, double perMinute) =>
            SignalAnalyser.Of(
                Enumerable
                    .Range(0, (int)(180 * Tilt.Rate))
                    .Select(i =>
                    {
                        var sample = new double[3];
                        sample[channel] = perMinute * i / Tilt.Rate / 60;
                        return sample;
                    }),
                Tilt,
                Zero
            );
        Assert.Empty(Creep(channel: 2, perMinute: 2.5).Losses);
        Assert.Single(Creep(channel: 0, perMinute: 2.5).Losses);
        Assert.Single(Creep(channel: 2, perMinute: 20).Losses);
    }

    [Fact]
    public void Reps_are_found_with_their_tempo()
    {
        double Rep(double t, double at) =>
            t < at || t > at + 9 ? 0
            : t < at + 3 ? (t - at) / 3 * 2
            : t < at + 6 ? 2
            : (at + 9 - t) / 3 * 2;
        var seen = Pitch(32, t => Rep(t, 2) + Rep(t, 12) + Rep(t, 22));
        Assert.Equal(3, seen.Reps.Count);
        Assert.All(
            seen.Reps,
            rep =>
            {
                // A tenth of the way out and of the way back are not told from rest.
                Assert.Equal(9 * (1 - 2 * 0.1 / 3), rep.Seconds, 0.1);
                Assert.InRange(rep.Hold, 3, 4.5);
                Assert.False(rep.Rushed(9));
                Assert.True(rep.Rushed(20));
            }
        );
    }

    /// <summary>Three degrees out and back in two seconds is a rep; in less than one it is sway, and mostly beyond the band a loss.</summary>
    [Theory]
    [InlineData(3, 2, 1)]
    [InlineData(3, 0.7, 0)]
    [InlineData(0.7, 2, 0)] // less than a rep rises
    [InlineData(9, 2, 0)]
    [InlineData(5.5, 2, 1)] // beyond the band for a while
    public void What_counts_as_a_rep_is_how_far_how_long_and_mostly_in_the_band(
        double size,
        double lasts,
        int reps
    )
    {
        var seen = Pitch(10, t => t < 4 || t > 4 + lasts ? 0 : size * Math.Sin(Math.PI * (t - 4) / lasts));
        Assert.Equal(reps, seen.Reps.Count);
    }

    [Fact]
    public void A_rep_that_comes_back_only_halfway_before_the_next_is_two_reps()
    {
        // Down to a quarter of the way between them: under the swing, not at rest.
        double At(double t) =>
            t is > 2 and < 5 or > 5.6 and < 9 ? 1.5
            : t is >= 5 and <= 5.6 ? 0.35
            : 0;
        Assert.Equal(2, Pitch(14, t => At(t)).Reps.Count);
    }

    [Fact]
    public void Live_and_after_the_fact_say_the_same_to_the_last_digit() =>
        Gen.Select(Gen.Int[1, 1000], Gen.Int[1, 40])
            .Sample(
                (seed, batch) =>
                {
                    var device = new SimulatedDevice(DeviceKind.Tilt, seed);
                    device.Begin("gives-way");
                    List<double[]> samples =
                    [
                        .. Enumerable.Range(0, 5000).Select(_ => device.Sample() ?? Lost),
                    ];
                    var neutral = new Neutral(DeviceKind.Tilt.Rest);
                    var live = new SignalAnalyser(Tilt, neutral);
                    var told = new List<Loss>();
                    foreach (var part in samples.Chunk(batch))
                    {
                        foreach (var sample in part)
                        {
                            live.Push(sample);
                        }
                        told = [.. live.Losses];
                    }
                    var whole = SignalAnalyser.Of(samples, Tilt, neutral);
                    Assert.Equal(
                        told.Select(l => l.Onset),
                        whole.Channels.SelectMany(c => c.Losses).Select(l => l.Onset)
                    );
                    var finished = live.Finish();
                    Assert.Equal(whole.CleanSeconds, finished.CleanSeconds);
                    Assert.Equal(
                        whole.Channels.Select(c => c.SwayRms),
                        finished.Channels.Select(c => c.SwayRms)
                    );
                },
                iter: 20
            );
}
