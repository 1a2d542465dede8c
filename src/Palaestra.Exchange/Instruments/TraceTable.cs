using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Palaestra.Exchange.Tables;

namespace Palaestra.Exchange.Instruments;

/// <summary>
/// The text of a trace taken apart: what its lines with # tell, its header, and its rows as they stand. Rows are read when they
/// are asked for, one at a time: all of a long trace as words would take many times its size.
/// </summary>
/// <param name="Told">By the word before the colon, in small letters.</param>
/// <param name="RowsMost">No more rows than this can be read: lists are made as long as they get, and never grown.</param>
/// <param name="DecimalComma">Columns are parted by something else than commas, so that a comma in a number is its point.</param>
internal sealed record TraceTable(
    IReadOnlyDictionary<string, string> Told,
    IReadOnlyList<string> Header,
    IEnumerable<TraceTable.Row> Rows,
    bool DecimalComma,
    int RowsMost
)
{
    /// <param name="Line">In the file, 1 for the first.</param>
    internal sealed record Row(int Line, string[] Fields);

    /// <summary>None where there is no header.</summary>
    /// <param name="most">Rows that are read; one more than that tells that there are more.</param>
    public static TraceTable? Of(TraceText text, int most)
    {
        var told = new Dictionary<string, string>(StringComparer.Ordinal);
        var headerLine = "";
        using (var lines = text.Open())
        {
            while (lines.ReadLine() is { } line)
            {
                if (!line.StartsWith('#'))
                {
                    headerLine = line;
                    break;
                }
                var colon = line.IndexOf(':', StringComparison.Ordinal);
                if (colon > 0)
                {
                    told[line[1..colon].Trim().ToLowerInvariant()] = line[(colon + 1)..].Trim();
                }
            }
        }
        var delimiter = SpreadsheetText.DelimiterOf(headerLine);
        using var csv = new CsvParser(text.Open(), Format(delimiter));
        return csv.Read() && csv.Record is { } header
            ? new(
                told,
                [.. header.Select(h => h.Trim())],
                RowsOf(text, delimiter).Take(most + 1),
                delimiter != ',',
                Math.Min(text.Utf8.Span.Count((byte)'\n') + 1, most + 1)
            )
            : null;
    }

    private static IEnumerable<Row> RowsOf(TraceText text, char delimiter)
    {
        using var csv = new CsvParser(text.Open(), Format(delimiter));
        csv.Read();
        while (csv.Read())
        {
            yield return new(csv.RawRow, csv.Record ?? []);
        }
    }

    private static CsvConfiguration Format(char delimiter) =>
        new(CultureInfo.InvariantCulture)
        {
            Delimiter = delimiter.ToString(),
            AllowComments = true,
            Comment = '#',
            TrimOptions = TrimOptions.Trim,
            BadDataFound = null,
        };

    public int IndexOf(string column) =>
        Header.ToList().FindIndex(h => h.Equals(column.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <returns>Not a number where the field is empty; none where it holds something else.</returns>
    public double? NumberOf(string field)
    {
        var text = DecimalComma ? field.Replace(',', '.') : field;
        return text.Length == 0 || text.Equals("nan", StringComparison.OrdinalIgnoreCase) ? double.NaN
            : double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value)
            && double.IsFinite(value)
                ? value
            : null;
    }
}
