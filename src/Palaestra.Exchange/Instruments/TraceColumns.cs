using Palaestra.Core.Library;

namespace Palaestra.Exchange.Instruments;

/// <summary>What stands at the head of a file, and how it would be read: to be looked at and put right before it is.</summary>
/// <param name="Examples">The first rows as they stand.</param>
/// <param name="Guess">By names and units in the header; a channel it finds no column for has an empty one.</param>
public sealed record TraceColumns(
    IReadOnlyList<string> Header,
    IReadOnlyList<IReadOnlyList<string>> Examples,
    TraceMapping Guess
)
{
    private const int Shown = 3;

    private static readonly (string Word, TraceUnit Unit)[] UnitWords =
    [
        ("mmhg", TraceUnit.MillimetresOfMercury),
        ("kpa", TraceUnit.Kilopascal),
        ("hpa", TraceUnit.Hectopascal),
        ("mbar", TraceUnit.Hectopascal),
        ("cmh2o", TraceUnit.CentimetresOfWater),
        ("rad", TraceUnit.Radians),
        ("deg", TraceUnit.Degrees),
        ("°", TraceUnit.Degrees),
    ];

    /// <param name="text">The file, or its beginning.</param>
    /// <returns>None where there is no header.</returns>
    public static TraceColumns? Of(TraceText text, IReadOnlyList<InstrumentSetup> setups)
    {
        if (TraceTable.Of(text, Shown) is not { } table)
        {
            return null;
        }
        var setup =
            setups.FirstOrDefault(s => s.Id == table.Told.GetValueOrDefault("instrument"))
            ?? setups
                .OrderByDescending(s => s.Channels.Count(c => Column(table.Header, c.Channel) is not null))
                .First();
        var time = table.Header.FirstOrDefault(IsTime);
        return new(
            table.Header,
            [.. table.Rows.Take(Shown).Select(row => (IReadOnlyList<string>)row.Fields)],
            new TraceMapping(
                setup.Id,
                time,
                time is not null && time.Contains("ms", StringComparison.OrdinalIgnoreCase)
                    ? TraceUnit.Milliseconds
                    : TraceUnit.Seconds,
                null,
                [.. setup.Channels.Select(c => Guessed(table.Header, c.Channel))]
            )
        );
    }

    private static bool IsTime(string column) =>
        column is ['t' or 'T', ..]
        && (
            column.Length == 1
            || column.StartsWith("time", StringComparison.OrdinalIgnoreCase)
            || column[1] is '_' or ' ' or '[' or '('
        );

    private static string? Column(IReadOnlyList<string> header, SignalChannel channel) =>
        header.FirstOrDefault(h => h.Contains(channel.ToString(), StringComparison.OrdinalIgnoreCase));

    private static ChannelColumn Guessed(IReadOnlyList<string> header, SignalChannel channel)
    {
        var column = Column(header, channel) ?? "";
        var rest = column
            .ToLowerInvariant()
            .Replace(channel.ToString().ToLowerInvariant(), "", StringComparison.Ordinal);
        var told = UnitWords.Where(u =>
            rest.Contains(u.Word, StringComparison.Ordinal) && u.Unit.Fits(channel)
        );
        return new(
            channel,
            column,
            told.Select(u => (TraceUnit?)u.Unit).FirstOrDefault() ?? TraceUnits.Own(channel)
        );
    }
}
