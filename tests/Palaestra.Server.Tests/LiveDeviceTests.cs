using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Instruments;

namespace Palaestra.Server.Tests;

/// <summary>What a device remembers, on a clock of the test's own.</summary>
public class LiveDeviceTests
{
    private static readonly InstrumentSetup Cuff = new(
        "cuff",
        "Pressure cuff",
        "",
        50,
        [new(SignalChannel.Pressure, "Pressure", "mmHg", 10, 40, 5, 1, 2, "round", "arch", 2)]
    );

    private static readonly DateTimeOffset Noon = new(2026, 3, 2, 12, 0, 0, TimeSpan.Zero);

    private readonly LiveDevice device = new("cuff-1", Cuff, []);

    private static DateTimeOffset At(double seconds) => Noon.AddSeconds(seconds);

    /// <summary>Samples from an ordinal on, heard as soon as the last of them was measured.</summary>
    private void Hear(long first, int count, double mmHg, double startedAt = 0) =>
        device.Take(
            new InstrumentLine(
                "samples",
                "cuff-1",
                First: first,
                Values: [.. Enumerable.Repeat<double[]?>([mmHg], count)]
            ),
            At(startedAt + (first + count) / 50.0)
        );

    private double[] Cut(double from, double to) =>
        [.. device.Cut(At(from), At(to))!.Samples.Select(sample => sample[0])];

    [Fact]
    public void What_was_heard_between_two_moments_is_cut_out_on_an_even_grid()
    {
        Hear(0, 100, 40);
        Hear(100, 100, 45);
        var cut = Cut(1, 3);
        Assert.Equal(100, cut.Length);
        Assert.Equal((40, 40, 45, 45), (cut[0], cut[49], cut[50], cut[99]));
        Assert.Equal(At(1), device.Cut(At(1), At(3))!.StartedAt);
    }

    [Fact]
    public void Before_it_was_heard_and_after_it_is_missing_and_nothing_at_all_is_no_trace()
    {
        Hear(0, 100, 40);
        var cut = Cut(-1, 3);
        Assert.Equal(200, cut.Length);
        Assert.All(cut[..50], value => Assert.True(double.IsNaN(value)));
        Assert.All(cut[50..150], value => Assert.Equal(40, value));
        Assert.All(cut[150..], value => Assert.True(double.IsNaN(value)));
        Assert.Null(device.Cut(At(60), At(70)));
    }

    [Fact]
    public void A_device_that_starts_anew_in_a_trial_leaves_a_gap_and_what_came_before_it()
    {
        Hear(0, 100, 40);
        // Its battery was changed: five seconds later it counts from 0 again.
        Hear(0, 100, 45, startedAt: 5);
        var cut = Cut(1, 6);
        Assert.Equal(40, cut[0]);
        Assert.All(cut[55..195], value => Assert.True(double.IsNaN(value)));
        Assert.Equal(45, cut[^1]);
    }

    [Fact]
    public void Losing_the_connection_forgets_neutral_but_not_the_trace_nor_what_it_was_read_against()
    {
        Hear(0, 200, 40);
        Assert.True(device.Calibrate(At(4)).IsValid);
        Hear(200, 100, 40);
        device.Be(connected: false, At(6));
        Assert.Null(device.NeutralLevels);
        var trace = device.Cut(At(4.5), At(6))!;
        Assert.Equal(40, trace.Neutral!.Levels[0], 6);
        Assert.Equal(75, trace.Samples.Count);
    }

    [Fact]
    public void The_neutral_of_a_trace_is_where_it_had_drifted_to_by_its_start()
    {
        Hear(0, 200, 40);
        Assert.True(device.Calibrate(At(4)).IsValid);
        // The air warms: two mmHg in two minutes, which a cuff may drift.
        for (var i = 0; i < 120; i++)
        {
            Hear(200 + 50 * i, 50, 40 + i / 60.0);
        }
        Assert.Equal(42, device.Cut(At(123), At(124))!.Neutral!.Levels[0], 0.5);
        Assert.Equal(40, device.Cut(At(4), At(5))!.Neutral!.Levels[0], 0.05);
        // Without one taken before its end there is none.
        Assert.Null(device.Cut(At(1), At(3))!.Neutral);
    }

    [Fact]
    public void Twenty_minutes_are_remembered_and_not_much_more()
    {
        for (var minute = 0; minute < 40; minute++)
        {
            Hear(3000L * minute, 3000, minute);
        }
        Assert.Equal(39, Cut(39 * 60, 39 * 60 + 1)[0]);
        Assert.Equal(21, Cut(21 * 60, 21 * 60 + 1)[0]);
        Assert.Null(device.Cut(At(10 * 60), At(10 * 60 + 1)));
    }

    [Fact]
    public void Values_are_rounded_as_they_come_so_that_what_is_stored_says_what_was_said_live()
    {
        Hear(0, 200, 40.123456);
        Assert.Equal(Trace.Rounded(40.123456), Cut(1, 2)[0]);
        Assert.Equal(Trace.Rounded(40.123456), device.Calibrate(At(4)).Value!.Levels[0], 9);
    }
}
