using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Core.Tests.Given;
using Palaestra.Instruments;

namespace Palaestra.Core.Tests.Signals;

public class TraceReadingTests
{
    private static readonly InstrumentSetup Tilt = Content.Library.Instruments.First(i => i.Id == "tilt");
    private static readonly InstrumentSetup Cuff = Content.Library.Instruments.First(i => i.Id == "cuff");

    private static Trace Of(
        InstrumentSetup setup,
        double seconds,
        Func<double, double> first,
        Neutral? neutral = null
    ) =>
        new(
            setup.Id,
            setup.Rate,
            DateTimeOffset.UnixEpoch,
            [
                .. Enumerable
                    .Range(0, (int)(seconds * setup.Rate))
                    .Select(i =>
                    {
                        var sample = new double[setup.Channels.Count];
                        sample[0] = first(i / setup.Rate);
                        return sample;
                    }),
            ],
            neutral
        );

    [Fact]
    public void A_trace_with_its_calibration_is_read_against_it_and_names_the_fault()
    {
        var trace = Of(Tilt, 10, t => t is > 4 and < 6 ? -9 : -1, new Neutral([-1, 0, 0]));
        var seen = TraceReading.Of(trace, Tilt, 0);
        Assert.Equal(NeutralFrom.Taken, seen.NeutralFrom);
        var loss = Assert.Single(seen.Losses);
        Assert.Equal((SignalChannel.Pitch, "round"), (loss.Channel, loss.Fault));
        Assert.Equal(4, loss.Onset, 0.03);
    }

    [Fact]
    public void Without_a_calibration_the_first_quiet_seconds_are_neutral_and_without_those_nothing_is_judged()
    {
        // Two seconds of moving about come before the quiet.
        var seen = TraceReading.Of(
            Of(
                Tilt,
                12,
                t =>
                    t < 2 ? 4 * Math.Sin(6 * t)
                    : t < 8 ? 2
                    : 9
            ),
            Tilt,
            0
        );
        Assert.Equal(NeutralFrom.Found, seen.NeutralFrom);
        Assert.Equal(2, seen.Neutral!.Levels[0], 0.05);
        Assert.Equal(8, seen.Losses[^1].Onset, 0.05);

        var restless = TraceReading.Of(Of(Tilt, 12, t => 4 * Math.Sin(6 * t)), Tilt, 0);
        Assert.Equal(NeutralFrom.None, restless.NeutralFrom);
        Assert.Null(restless.Analysis);
        Assert.Empty(restless.Losses);
    }

    [Fact]
    public void The_rate_of_the_trace_counts_and_not_that_of_the_kind()
    {
        var slow = Of(Tilt with { Rate = 50 }, 10, t => t > 6 ? 9 : 0, new Neutral([0, 0, 0]));
        Assert.Equal(6, TraceReading.Of(slow, Tilt, 0).Losses[0].Onset, 0.05);
    }

    [Theory]
    [InlineData(6, false)]
    [InlineData(12, true)]
    [InlineData(0, false)] // no time is asked
    public void A_rep_in_less_than_half_the_asked_time_is_rushed(double asked, bool rushed)
    {
        var trace = Of(
            Tilt,
            10,
            t => t is > 3 and < 7 ? 2 * Math.Sin(Math.PI * (t - 3) / 4) : 0,
            new Neutral([0, 0, 0])
        );
        var rep = Assert.Single(TraceReading.Of(trace, Tilt, asked).Reps);
        Assert.InRange(rep.Rep.Seconds, 3, 4);
        Assert.Equal(rushed, rep.Rushed);
    }

    /// <summary>A cuff set to 40 mmHg, 10 either way, whatever the client's own neutral is.</summary>
    [Fact]
    public void A_cuffs_levels_are_told_of_what_it_is_set_to()
    {
        var trace = Of(
            Cuff,
            20,
            t =>
                t < 10 ? 43
                : t < 14 ? 52
                : t < 16 ? 25
                : 43,
            new Neutral([43])
        );
        var seen = TraceReading.Of(trace, Cuff, 0);
        var levels = Assert.Single(seen.Levels);
        Assert.Equal((40.0, 10.0), (levels.Set, levels.Within));
        Assert.Equal(4, levels.AboveSeconds, 0.1);
        Assert.Equal(2, levels.BelowSeconds, 0.1);
        Assert.Equal(14, levels.HeldSeconds, 0.1);
        Assert.Equal((43.0 * 14 + 52 * 4 + 25 * 2) / 20, levels.Mean!.Value, 0.1);
        Assert.Equal(20, levels.AboveSeconds + levels.BelowSeconds + levels.HeldSeconds, 6);
        // Fifty-two is beyond forty by more than ten, but within ten of the client's forty-three.
        Assert.Equal("arch", Assert.Single(seen.Losses).Fault);
        Assert.Empty(TraceReading.Of(Of(Tilt, 5, _ => 0), Tilt, 0).Levels);
    }

    [Fact]
    public void Read_from_the_trials_start_a_drifted_neutral_says_what_it_said_live()
    {
        var device = new SimulatedDevice(DeviceKind.Tilt, 11);
        double[] missing = [double.NaN, double.NaN, double.NaN];
        List<double[]> Next(int seconds) =>
            [.. Enumerable.Range(0, seconds * 100).Select(_ => device.Sample() ?? missing)];
        var neutral = Neutral.From(Next(4), Tilt).Value!;
        var before = Next(600);
        device.Begin("gives-way");
        var during = Next(50);
        var live = new SignalAnalyser(Tilt, neutral);
        foreach (var sample in before.Concat(during))
        {
            live.Push(sample);
        }
        var inTrial = live.Finish().Losses.Where(l => l.Onset > 600).Select(l => l.Onset - 600).ToList();
        var followed = SignalAnalyser.Followed(before, Tilt, neutral);
        var after = SignalAnalyser.Of(during, Tilt, followed).Losses.Select(l => l.Onset).ToList();
        Assert.NotEmpty(inTrial);
        Assert.Equal(inTrial.Count, after.Count);
        Assert.All(inTrial.Zip(after), pair => Assert.Equal(pair.First, pair.Second, 0.02));
    }

    [Fact]
    public void A_shape_keeps_every_peak_of_a_long_trace_and_shows_its_gaps()
    {
        var trace = Of(
            Tilt,
            600,
            t =>
                t is > 100 and < 100.015 ? 20
                : t is > 300 and < 320 ? double.NaN
                : 1
        );
        var shape = TraceShape.Of(trace, Tilt, 300)[0];
        Assert.Equal(300, shape.High.Count);
        Assert.Equal(20, shape.High.Max());
        Assert.Equal(1, shape.Low.Min());
        Assert.Equal(10, shape.High.Count(v => v is null), 1.0);
        // A stretch of it, and more pieces than there are samples.
        Assert.Equal(20, TraceShape.Of(trace, Tilt, 300, from: 9_900, count: 200)[0].High.Max());
        Assert.Equal(10, TraceShape.Of(trace, Tilt, 500, from: 0, count: 10)[0].Low.Count);
        Assert.All(TraceShape.Of(trace, Tilt, 10, from: 70_000)[0].Low, v => Assert.Null(v));
    }

    [Fact]
    public void Of_two_sides_the_one_that_gave_way_sooner_and_swayed_more_is_the_lesser()
    {
        SignalAnalysis Held(double until, double sway) =>
            TraceReading
                .Of(
                    Of(Tilt, 20, t => t > until ? 9 : sway * Math.Sin(2 * t), new Neutral([0, 0, 0])),
                    Tilt,
                    0
                )
                .Analysis!;
        var rows = SidesSeen.Of(Held(15, 1), Held(8, 2), Tilt);
        Side? Less(string name) => rows.First(r => r.Name.En() == name).Less;
        Assert.Equal(Side.Right, Less("Before control was lost"));
        Assert.Equal(Side.Right, Less("Pitch: sway"));
        // Both ended nine degrees away, and neither rolled.
        Assert.Null(Less("Pitch: farthest from neutral"));
        Assert.Null(Less("Roll: sway"));
        Assert.Equal(
            rows.Select(r => r.Less),
            SidesSeen
                .Of(Held(8, 2), Held(15, 1), Tilt)
                .Select(r => r.Less is { } side ? Other(side) : (Side?)null)
        );
        static Side Other(Side side) => side == Side.Left ? Side.Right : Side.Left;
    }
}
