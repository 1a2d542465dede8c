using System.Globalization;
using System.Text;
using CsCheck;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Instruments;
using Palaestra.Exchange.Tests.Given;

namespace Palaestra.Exchange.Tests.Instruments;

public class TraceCsvTests
{
    private static readonly DateTimeOffset Noon = new(2026, 3, 2, 12, 0, 0, TimeSpan.Zero);

    private static ChannelSetup Channel(SignalChannel channel, string unit) =>
        new(channel, channel.ToString(), unit, 5, null, 0, 1, 0, "arch", "round", 1);

    private static readonly InstrumentSetup Cuff = new(
        "cuff",
        "Pressure cuff",
        "",
        50,
        [Channel(SignalChannel.Pressure, "mmHg")]
    );

    private static readonly InstrumentSetup Tilt = new(
        "tilt",
        "Tilt sensor",
        "",
        100,
        [Channel(SignalChannel.Pitch, "°"), Channel(SignalChannel.Roll, "°"), Channel(SignalChannel.Yaw, "°")]
    );

    private static readonly IReadOnlyList<InstrumentSetup> Setups = [Cuff, Tilt];

    private static Checked<Trace> Read(string text, TraceMapping? mapping = null) =>
        TraceReader.Read(text, Setups, Noon, mapping);

    private static TraceMapping Pressure(
        string column = "p",
        TraceUnit unit = TraceUnit.MillimetresOfMercury,
        string? time = null,
        double? rate = 50
    ) => new("cuff", time, TraceUnit.Seconds, rate, [new(SignalChannel.Pressure, column, unit)]);

    private static string Written(Trace trace, InstrumentSetup setup)
    {
        using var text = new StringWriter();
        TraceCsv.Write(text, trace, setup);
        return text.ToString();
    }

    [Fact]
    public void The_documented_example_is_what_is_written_and_holds_what_it_tells()
    {
        var text = Docs.Text("examples", "trace.csv");
        var trace = Read(text).Value!;
        Assert.Equal(("cuff", 50, 250), (trace.Instrument, trace.Rate, trace.Samples.Count));
        Assert.Equal(new DateTimeOffset(2026, 3, 2, 9, 0, 5, 120, TimeSpan.Zero), trace.StartedAt);
        Assert.Equal([40.2], trace.Neutral!.Levels);
        Assert.Equal(3, trace.Samples.Count(s => double.IsNaN(s[0])));
        Assert.Equal(text, Written(trace, Cuff));
        var head = string.Join("\n", text.Split("\r\n").Take(5));
        Assert.Contains(head, Docs.Text("traces.md"), StringComparison.Ordinal);
    }

    [Fact]
    public void The_documented_file_of_another_source_is_read_with_its_columns_and_units()
    {
        var text = Docs.Text("examples", "trace-other.csv");
        Assert.Equal(["mapping"], Read(text).Errors.Select(e => e.Field));
        var mapping = new TraceMapping(
            "cuff",
            "Zeit [ms]",
            TraceUnit.Milliseconds,
            null,
            [new(SignalChannel.Pressure, "Druck [kPa]", TraceUnit.Kilopascal)]
        );
        var trace = Read(text, mapping).Value!;
        Assert.Equal(50, trace.Rate);
        Assert.Equal(Noon, trace.StartedAt);
        Assert.Null(trace.Neutral);
        // The same cuff as in our own example: 40 mmHg are 5.33 kPa.
        var own = Read(Docs.Text("examples", "trace.csv")).Value!;
        Assert.Equal(own.Samples[0][0], trace.Samples[0][0], 0.01);
        Assert.Equal(own.Samples[180][0], trace.Samples[180][0], 0.01);
    }

    [Fact]
    public void What_is_written_reads_back_to_the_last_digit_gaps_and_all() =>
        Gen.Select(Gen.Int[-90_000, 90_000].Array[3].Array[2, 300], Gen.Int[0, 5], Gen.Bool)
            .Sample(
                (steps, hole, calibrated) =>
                {
                    List<double[]> samples =
                    [
                        .. steps.Select(
                            (s, i) =>
                                Array.ConvertAll(
                                    s,
                                    v => i % 7 == hole ? double.NaN : Trace.Rounded(v / 1000.0)
                                )
                        ),
                    ];
                    samples[0] = [0, 0, 0];
                    samples[^1] = [1, 1, 1];
                    var trace = new Trace(
                        "tilt",
                        100,
                        Noon,
                        samples,
                        calibrated ? new Neutral([0.1, -0.25, 3]) : null
                    );
                    var back = Read(Written(trace, Tilt)).Value!;
                    Assert.Equal((trace.Rate, trace.StartedAt), (back.Rate, back.StartedAt));
                    Assert.Equal(trace.Neutral?.Levels, back.Neutral?.Levels);
                    Assert.Equal(trace.Samples, back.Samples);
                },
                iter: 50
            );

    [Theory]
    [InlineData(TraceUnit.Kilopascal, 5.33288, 40)]
    [InlineData(TraceUnit.Hectopascal, 53.3288, 40)]
    [InlineData(TraceUnit.CentimetresOfWater, 54.381, 40)] // 1 mmHg is 1.35951 cmH2O
    public void Pressure_in_another_unit_is_turned_into_mmHg(TraceUnit unit, double told, double mmHg)
    {
        var trace = Read($"p\n{told}\n{told}\n".ToString(CultureInfo.InvariantCulture), Pressure(unit: unit));
        Assert.Equal(mmHg, trace.Value!.Samples[0][0], 0.002);
    }

    [Fact]
    public void Radians_and_a_turned_sign_are_put_right()
    {
        var mapping = new TraceMapping(
            "tilt",
            null,
            TraceUnit.Seconds,
            100,
            [
                new(SignalChannel.Pitch, "a", TraceUnit.Radians),
                new(SignalChannel.Roll, "b", TraceUnit.Degrees, Turned: true),
                new(SignalChannel.Yaw, "c", TraceUnit.Degrees),
            ]
        );
        var trace = Read("a\tb\tc\n0.0872665\t2\t3\n0\t0\t0\n", mapping).Value!;
        Assert.Equal([5, -2, 3], trace.Samples[0].Select(v => Math.Round(v, 3)));
    }

    [Fact]
    public void Every_wrong_row_is_told_by_its_line_and_nothing_is_read()
    {
        const string text = "t;p\n0;40\n0,02;forty\n0,04;40;1\n0,04;40\n0,03;40\nx;40\n0,08;5000\n0,10;40\n";
        var mapping = Pressure(time: "t", rate: null);
        var errors = Read(text, mapping).Errors;
        Assert.Equal(
            ["line 3, p", "line 4", "line 6, t", "line 7, t", "line 8, p"],
            errors.Select(e => e.Field)
        );
        Assert.Contains("forty", errors[0].Message.En(), StringComparison.Ordinal);
        // Left out instead, they are gaps on the grid of the others.
        var rest = Read(text, mapping with { LeaveOutWrong = true, Rate = 50 }).Value!;
        Assert.Equal([40, double.NaN, 40, double.NaN, double.NaN, 40], rest.Samples.Select(s => s[0]));
    }

    [Fact]
    public void Of_very_many_wrong_rows_the_first_twenty_are_told_and_the_rest_counted()
    {
        var text = "p\n" + string.Concat(Enumerable.Repeat("?\n", 500));
        var errors = Read(text, Pressure()).Errors;
        Assert.Equal(21, errors.Count);
        Assert.StartsWith("480 more", errors[^1].Message.En(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_file_cut_off_in_the_middle_of_a_row_is_told_and_can_be_read_as_far_as_it_goes()
    {
        var whole = Docs.Text("examples", "trace.csv");
        var cut = whole[..(whole.Length / 2)].TrimEnd('\r', '\n');
        cut = cut[..cut.LastIndexOf(',')];
        var error = Assert.Single(Read(cut).Errors);
        Assert.Matches("^line [0-9]+$", error.Field);
        var columns = TraceColumns.Of(cut, Setups)!;
        Assert.InRange(Read(cut, columns.Guess with { LeaveOutWrong = true }).Value!.Samples.Count, 100, 130);
    }

    [Theory]
    [InlineData("", "line 1")]
    [InlineData("\0\u0001\u0002\u0003garbage", "mapping")]
    [InlineData("# instrument: cuff\n# rate_hz: many\ntime_s,pressure_mmHg\n0,40\n1,40\n", "rate_hz")]
    [InlineData("# instrument: cuff\n# rate_hz: 5\ntime_s,pressure_mmHg\n0,40\n1,40\n", "mapping.rate")]
    [InlineData(
        "# instrument: cuff\n# rate_hz: 50\n# neutral: x=4\ntime_s,pressure_mmHg\n0,40\n1,40\n",
        "neutral"
    )]
    [InlineData("# instrument: cuff\n# rate_hz: 50\ntime_s,pressure_mmHg\n", "rows")]
    [InlineData("# instrument: cuff\n# rate_hz: 50\ntime_s,pressure_mmHg\n0,40\n90000,40\n", "rows")]
    public void A_file_that_cannot_be_read_says_what_is_wrong(string text, string field) =>
        Assert.Equal([field], Read(text).Errors.Select(e => e.Field));

    [Fact]
    public void A_mapping_that_does_not_fit_the_file_names_what_is_wrong_in_it()
    {
        const string text = "t,p\n0,40\n0.02,40\n";
        string[] Fields(TraceMapping mapping) => [.. Read(text, mapping).Errors.Select(e => e.Field)];
        Assert.Equal(["mapping.channels.pressure"], Fields(Pressure(column: "q")));
        Assert.Equal(["mapping.channels.pressure"], Fields(Pressure(unit: TraceUnit.Degrees)));
        Assert.Equal(["mapping.timeColumn"], Fields(Pressure(time: "when")));
        Assert.Equal(["mapping.instrument"], Fields(Pressure() with { Instrument = "scale" }));
        Assert.Equal(["mapping.rate"], Fields(Pressure(rate: null)));
        // Seconds that are milliseconds: fifty thousand samples a second.
        Assert.Equal(
            ["mapping.rate"],
            Fields(Pressure(time: "t", rate: null) with { TimeUnit = TraceUnit.Milliseconds })
        );
    }

    [Fact]
    public void Uneven_times_are_laid_on_an_even_grid_and_holes_are_gaps()
    {
        var random = new Random(5);
        var text = new StringBuilder("t,p\n");
        for (var i = 0; i < 600; i++)
        {
            if (i is < 200 or >= 230)
            {
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"{i / 60.0 + 0.004 * (random.NextDouble() - 0.5):0.0000},{i}\n"
                );
            }
        }
        var trace = Read(text.ToString(), Pressure(time: "t", rate: null)).Value!;
        Assert.Equal(60, trace.Rate, 0.2);
        Assert.Equal(600, trace.Samples.Count, 3.0);
        Assert.Equal(30, trace.Samples.Count(s => double.IsNaN(s[0])), 4.0);
        Assert.Equal(400, trace.Samples[400][0], 2.0);
    }

    [Theory]
    [InlineData("time_s,pitch_deg,roll_deg,yaw_deg", "tilt", "time_s", TraceUnit.Degrees)]
    [InlineData("t;Pitch [rad];Roll [rad];Yaw [rad]", "tilt", "t", TraceUnit.Radians)]
    [InlineData("Time (ms),Cuff pressure hPa", "cuff", "Time (ms)", TraceUnit.Hectopascal)]
    [InlineData("temperature,pressure", "cuff", null, TraceUnit.MillimetresOfMercury)]
    public void Columns_are_guessed_by_names_and_units(
        string header,
        string instrument,
        string? time,
        TraceUnit unit
    )
    {
        var guess = TraceColumns.Of(header + "\n", Setups)!.Guess;
        Assert.Equal((instrument, time), (guess.Instrument, guess.TimeColumn));
        Assert.All(guess.Channels, c => Assert.Equal((unit, true), (c.Unit, c.Column.Length > 0)));
    }

    [Fact]
    public void An_hour_of_a_tilt_sensor_is_written_and_read_again()
    {
        var samples = Enumerable
            .Range(0, 360_000)
            .Select(i => new[] { Trace.Rounded(Math.Sin(i / 500.0)), 0.5, -0.25 })
            .ToList();
        var text = Written(new Trace("tilt", 100, Noon, samples, new Neutral([0, 0, 0])), Tilt);
        var trace = Read(text).Value!;
        Assert.Equal(3600, trace.Seconds);
        Assert.Equal(samples[250_000], trace.Samples[250_000]);
    }

    [Fact]
    public void More_rows_than_can_be_read_are_refused()
    {
        var text = "p\n" + string.Concat(Enumerable.Repeat("40\n", Trace.MostSamples + 1));
        Assert.Equal(["rows"], Read(text, Pressure()).Errors.Select(e => e.Field));
    }
}
