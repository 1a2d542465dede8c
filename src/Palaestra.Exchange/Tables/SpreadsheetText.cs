using System.Globalization;
using CsvHelper.Configuration;

namespace Palaestra.Exchange.Tables;

/// <summary>
/// What spreadsheets do to CSV (RFC 4180): they part columns by what their country does, read UTF-8 only behind a mark, and take a
/// text that begins like a formula for one.
/// </summary>
public static class SpreadsheetText
{
    /// <summary>Before the first letter: without it a spreadsheet takes the file for another encoding.</summary>
    public const string Mark = "\uFEFF";

    /// <summary>What a cell that is worked out begins with, in the one or the other program. Common practice.</summary>
    private const string Formula = "=+-@\t\r";

    private const char Quote = '\'';

    private static readonly char[] Delimiters = [',', ';', '\t'];

    /// <summary>A text as a cell that nobody works out: with ' before it where it begins like a formula, or as if it had been given one.</summary>
    public static string? Escaped(string? text) => IsFormula(text?.TrimStart(Quote)) ? Quote + text : text;

    /// <summary>What was written, of a cell as <see cref="Escaped"/> made it; another text as it stands.</summary>
    public static string? Unescaped(string? text) =>
        text?.StartsWith(Quote) == true && IsFormula(text.TrimStart(Quote)) ? text[1..] : text;

    private static bool IsFormula(string? text) =>
        text is { Length: > 0 } && Formula.Contains(text[0], StringComparison.Ordinal);

    /// <summary>What parts the columns of a header: whatever is in it most; a comma where nothing is.</summary>
    public static char DelimiterOf(string header) => Delimiters.MaxBy(d => header.Count(c => c == d));

    /// <summary>As our own files are written: commas, the line ends of the RFC.</summary>
    public static CsvConfiguration Written { get; } = new(CultureInfo.InvariantCulture) { NewLine = "\r\n" };
}
