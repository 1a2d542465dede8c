using System.Globalization;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;

namespace Palaestra.Exchange.Instruments;

/// <summary>
/// Reads a trace from CSV, our own or another source's: values in our units on an even grid of moments, times that are missing
/// as gaps. Every row that is wrong is told by its line; nothing is read of a file with one, unless they are to be left out.
/// </summary>
public sealed class TraceReader
{
    /// <summary>Wrong rows told one by one; the rest are counted.</summary>
    public const int ToldMost = 20;

    /// <summary>Differences of time up to this many times the usual one tell the rate; longer ones are gaps.</summary>
    private const double Usual = 1.5;

    private readonly TraceTable table;
    private readonly TraceMapping mapping;
    private readonly InstrumentSetup setup;
    private readonly List<FieldError> errors = [];
    private int time = -1;
    private int[] columns = [];

    private TraceReader(TraceTable table, TraceMapping mapping, InstrumentSetup setup)
    {
        this.table = table;
        this.mapping = mapping;
        this.setup = setup;
    }

    /// <param name="mapping">None: the file says it all itself, as ours do.</param>
    /// <param name="startedAt">Moment of the first row where the file tells none.</param>
    public static Checked<Trace> Read(
        TraceText text,
        IReadOnlyList<InstrumentSetup> setups,
        DateTimeOffset startedAt,
        TraceMapping? mapping = null
    )
    {
        if (TraceTable.Of(text, Trace.MostSamples) is not { } table)
        {
            return Bad("line 1", Message.Of("file.empty"));
        }
        if (mapping is null && (mapping = Own(table, setups)) is null)
        {
            return Bad("mapping", Message.Of("trace.which"));
        }
        return setups.FirstOrDefault(s => s.Id == mapping.Instrument) is { } setup
            ? new TraceReader(table, mapping, setup).Read(startedAt)
            : Bad("mapping.instrument", Message.Of("no.instrument", ("instrument", mapping.Instrument)));
    }

    private static TraceMapping? Own(TraceTable table, IReadOnlyList<InstrumentSetup> setups) =>
        setups.FirstOrDefault(s => s.Id == table.Told.GetValueOrDefault("instrument")) is { } setup
        && setup.Channels.All(c => table.IndexOf(TraceCsv.ColumnOf(c.Channel)) >= 0)
            ? new(
                setup.Id,
                table.IndexOf(TraceCsv.TimeColumn) >= 0 ? TraceCsv.TimeColumn : null,
                TraceUnit.Seconds,
                null,
                [
                    .. setup.Channels.Select(c => new ChannelColumn(
                        c.Channel,
                        TraceCsv.ColumnOf(c.Channel),
                        TraceUnits.Own(c.Channel)
                    )),
                ]
            )
            : null;

    private static Checked<Trace> Bad(string field, Message message) =>
        Checked<Trace>.Bad(new FieldError(field, message));

    private Checked<Trace> Read(DateTimeOffset startedAt)
    {
        FindColumns();
        var told = ToldRate();
        var neutral = ToldNeutral();
        if (errors.Count > 0)
        {
            return Checked<Trace>.Bad(errors);
        }
        var rows = Rows();
        if (errors.Count > 0)
        {
            return Checked<Trace>.Bad(Few(errors));
        }
        var rate = told ?? RateOf(rows);
        if (rate is not (>= Trace.LeastRate and <= Trace.MostRate))
        {
            return Bad(
                "mapping.rate",
                rate is { } odd
                    ? Message.Of(
                        "trace.rate",
                        ("rate", odd),
                        ("least", Trace.LeastRate),
                        ("most", Trace.MostRate)
                    )
                    : Message.Of("trace.no-rate")
            );
        }
        return Grid(rows, rate.Value) is { } samples
            ? Checked<Trace>.Good(new Trace(setup.Id, rate.Value, ToldStart() ?? startedAt, samples, neutral))
            : Checked<Trace>.Bad(errors);
    }

    private void FindColumns()
    {
        columns = [.. setup.Channels.Select(c => Column(c.Channel))];
        if (mapping.TimeColumn is { } name)
        {
            time = table.IndexOf(name);
            if (time < 0)
            {
                errors.Add(new("mapping.timeColumn", Message.Of("trace.no-column", ("column", name))));
            }
        }
        if (!mapping.TimeUnit.IsTime())
        {
            errors.Add(new("mapping.timeUnit", Message.Of("trace.time-unit")));
        }
    }

    private int Column(SignalChannel channel)
    {
        var field = $"mapping.channels.{channel.ToString().ToLowerInvariant()}";
        if (mapping.Channels.FirstOrDefault(c => c.Channel == channel) is not { } told)
        {
            errors.Add(new(field, Message.Of("trace.which-column", ("channel", channel))));
            return -1;
        }
        if (!told.Unit.Fits(channel))
        {
            errors.Add(new(field, Message.Of("trace.unit", ("channel", channel), ("unit", told.Unit))));
        }
        var index = table.IndexOf(told.Column);
        if (index < 0)
        {
            errors.Add(
                new(
                    field,
                    told.Column.Length == 0
                        ? Message.Of("trace.which-column", ("channel", channel))
                        : Message.Of("trace.no-column", ("column", told.Column))
                )
            );
        }
        return index;
    }

    private double? ToldRate()
    {
        if (mapping.Rate is { } rate)
        {
            return rate;
        }
        if (!table.Told.TryGetValue("rate_hz", out var text))
        {
            return null;
        }
        if (double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var told))
        {
            return told;
        }
        errors.Add(new("rate_hz", Message.Of("trace.rate-text", ("text", text))));
        return null;
    }

    private DateTimeOffset? ToldStart() =>
        DateTimeOffset.TryParse(
            table.Told.GetValueOrDefault("started"),
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal,
            out var told
        )
            ? told
            : null;

    private Neutral? ToldNeutral()
    {
        if (!table.Told.TryGetValue("neutral", out var text))
        {
            return null;
        }
        var levels = text.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(part => part.Split('='))
            .Where(part => part.Length == 2)
            .DistinctBy(part => part[0])
            .ToDictionary(part => part[0], part => part[1]);
        var found = setup
            .Channels.Select(c =>
                double.TryParse(
                    levels.GetValueOrDefault(TraceCsv.ColumnOf(c.Channel)),
                    NumberStyles.Float,
                    CultureInfo.InvariantCulture,
                    out var level
                ) && double.IsFinite(level)
                    ? level
                    : (double?)null
            )
            .ToList();
        if (found.Contains(null))
        {
            errors.Add(new("neutral", Message.Of("trace.levels", ("text", text))));
            return null;
        }
        return new Neutral([.. found.OfType<double>()]);
    }

    /// <summary>
    /// Times in seconds (not a number without a column of them) and values in our units, one moment after the other; of wrong rows
    /// <c>Good</c> says so.
    /// </summary>
    private sealed record RowList(List<double> Times, List<double> Values, List<bool> Good)
    {
        public int Count => Good.Count;
        public IEnumerable<double> GoodTimes => Times.Where((_, i) => Good[i]);
    }

    private RowList Rows()
    {
        var rows = new RowList(
            new(table.RowsMost),
            new(table.RowsMost * columns.Length),
            new(table.RowsMost)
        );
        var values = new double[columns.Length];
        var before = double.NegativeInfinity;
        foreach (var row in table.Rows)
        {
            var wrong = Wrong(row, before, values, out var at);
            if (wrong is not null && !mapping.LeaveOutWrong)
            {
                errors.Add(new($"line {row.Line}{wrong.Value.Column}", wrong.Value.Message));
            }
            rows.Times.Add(at);
            rows.Values.AddRange(values);
            rows.Good.Add(wrong is null);
            before = wrong is null && time >= 0 ? at : before;
        }
        if (rows.Count > Trace.MostSamples)
        {
            errors.Insert(0, new("rows", Message.Of("trace.rows", ("most", Trace.MostSamples))));
        }
        else if (errors.Count == 0 && rows.Good.Count(good => good) < 2)
        {
            errors.Add(new("rows", Message.Of("trace.no-rows")));
        }
        return rows;
    }

    private (string Column, Message Message)? Wrong(
        TraceTable.Row row,
        double before,
        double[] values,
        out double at
    )
    {
        at = double.NaN;
        if (row.Fields.Length != table.Header.Count)
        {
            return (
                "",
                Message.Of("trace.fields", ("fields", row.Fields.Length), ("header", table.Header.Count))
            );
        }
        if (time >= 0)
        {
            if (table.NumberOf(row.Fields[time]) is not { } told || double.IsNaN(told))
            {
                return ($", {table.Header[time]}", Message.Of("trace.time", ("text", row.Fields[time])));
            }
            at = told * mapping.TimeUnit.Factor();
            if (at <= before)
            {
                return ($", {table.Header[time]}", Message.Of("trace.time-order"));
            }
        }
        for (var i = 0; i < columns.Length; i++)
        {
            var told = mapping.Channels.First(c => c.Channel == setup.Channels[i].Channel);
            var field = row.Fields[columns[i]];
            if (table.NumberOf(field) is not { } value)
            {
                return ($", {table.Header[columns[i]]}", Message.Of("trace.number", ("text", field)));
            }
            value *= told.Unit.Factor() * (told.Turned ? -1 : 1);
            if (Math.Abs(value) > Trace.MostValue)
            {
                return (
                    $", {table.Header[columns[i]]}",
                    Message.Of(
                        "trace.far",
                        ("text", field),
                        ("most", Trace.MostValue),
                        ("unit", setup.Channels[i].Unit)
                    )
                );
            }
            values[i] = Trace.Rounded(value);
        }
        return null;
    }

    private double? RateOf(RowList rows)
    {
        if (time < 0)
        {
            return null;
        }
        var steps = new double[rows.Good.Count(good => good) - 1];
        var before = double.NaN;
        var step = -1;
        foreach (var at in rows.GoodTimes)
        {
            if (step >= 0)
            {
                steps[step] = at - before;
            }
            before = at;
            step++;
        }
        Array.Sort(steps);
        var usual = steps[steps.Length / 2];
        // A thousandth of a hertz is finer than any clock told in milliseconds.
        return Math.Round(1 / steps.TakeWhile(s => s <= Usual * usual).Average(), 3);
    }

    private FlatSamples? Grid(RowList rows, double rate)
    {
        var (first, last) = (rows.GoodTimes.First(), rows.GoodTimes.Last());
        var count = time >= 0 ? Math.Round((last - first) * rate) + 1 : rows.Count;
        if (count > Trace.MostSamples)
        {
            errors.Add(
                new(
                    "rows",
                    Message.Of(
                        "trace.long",
                        ("minutes", (last - first) / 60),
                        ("most", Trace.MostSamples / rate / 60)
                    )
                )
            );
            return null;
        }
        var samples = new double[(int)count * columns.Length];
        Array.Fill(samples, double.NaN);
        for (var i = 0; i < rows.Count; i++)
        {
            if (rows.Good[i])
            {
                var at = time >= 0 ? (int)Math.Round((rows.Times[i] - first) * rate) : i;
                rows.Values.CopyTo(i * columns.Length, samples, at * columns.Length, columns.Length);
            }
        }
        return new FlatSamples(samples, columns.Length);
    }

    private static List<FieldError> Few(List<FieldError> all) =>
        all.Count <= ToldMost
            ? all
            :
            [
                .. all.Take(ToldMost),
                new("rows", Message.Of("trace.more-wrong", ("more", all.Count - ToldMost))),
            ];
}
