using System.Globalization;
using CsvHelper;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Tables;

namespace Palaestra.Exchange.Instruments;

/// <summary>
/// A trace as CSV (RFC 4180, UTF-8). Lines with # tell instrument, rate, start and calibration; the header names channels with
/// their units; one row is one moment, and a missing sample is an empty field. Documented in docs/traces.md.
/// </summary>
public static class TraceCsv
{
    internal const string TimeColumn = "time_s";

    /// <summary>"pitch_deg", "pressure_mmHg".</summary>
    internal static string ColumnOf(SignalChannel channel) =>
        $"{channel.ToString().ToLowerInvariant()}_{(channel == SignalChannel.Pressure ? "mmHg" : "deg")}";

    public static void Write(TextWriter to, Trace trace, InstrumentSetup setup)
    {
        var names = setup.Channels.Select(c => ColumnOf(c.Channel)).ToList();
        to.Write($"# instrument: {trace.Instrument}\r\n");
        to.Write(Line($"# rate_hz: {trace.Rate:0.######}"));
        to.Write(Line($"# started: {trace.StartedAt.UtcDateTime:yyyy-MM-ddTHH:mm:ss.fff}Z"));
        if (trace.Neutral is { } neutral)
        {
            var levels = names.Zip(neutral.Levels, (name, level) => Line($"{name}={level:R}", end: ""));
            to.Write($"# neutral: {string.Join(' ', levels)}\r\n");
        }
        using var csv = new CsvWriter(to, SpreadsheetText.Written, leaveOpen: true);
        csv.WriteField(TimeColumn);
        names.ForEach(name => csv.WriteField(name));
        csv.NextRecord();
        for (var i = 0; i < trace.Samples.Count; i++)
        {
            csv.WriteField(Number(i / trace.Rate, "0.0000"));
            foreach (var value in trace.Samples[i])
            {
                csv.WriteField(double.IsNaN(value) ? "" : Number(value, "0.###"));
            }
            csv.NextRecord();
        }
    }

    private static string Line(FormattableString text, string end = "\r\n") =>
        FormattableString.Invariant(text) + end;

    private static string Number(double value, string format) =>
        value.ToString(format, CultureInfo.InvariantCulture);
}
