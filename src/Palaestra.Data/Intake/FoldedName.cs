using System.Globalization;
using System.Text;
using AnyAscii;

namespace Palaestra.Data.Intake;

/// <summary>
/// Names as they are searched: without case, marks and punctuation, and in Latin letters whatever the script. One that is spelled
/// with two letters for a German or Nordic vowel is found too.
/// </summary>
public static class FoldedName
{
    private static readonly (string Letter, string Spelled)[] TwoLetters =
    [
        ("ä", "ae"),
        ("ö", "oe"),
        ("ü", "ue"),
        ("ø", "oe"),
        ("å", "aa"),
    ];

    /// <summary>Words of letters and digits with one space between; empty where there is none of either.</summary>
    public static string Of(string text)
    {
        var bare = string.Concat(text.Where(c => !IsVowelMark(c))).Transliterate();
        var folded = new StringBuilder(bare.Length);
        foreach (var c in bare)
        {
            if (char.IsAsciiLetterOrDigit(c))
            {
                folded.Append(char.ToLowerInvariant(c));
            }
            else if (c is not ('\'' or '`' or '"') && folded.Length > 0 && folded[^1] != ' ')
            {
                folded.Append(' ');
            }
        }
        return folded.ToString().TrimEnd();
    }

    /// <summary>All that a client is found by.</summary>
    public static string For(Client client)
    {
        var name = Of(client.Name);
        var spelled = Of(
            TwoLetters.Aggregate(Composed(client.Name), (n, v) => n.Replace(v.Letter, v.Spelled))
        );
        string[] parts =
        [
            name,
            spelled == name ? "" : spelled,
            Of(client.Number),
            client.BirthDate.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            Digits(client.Phone),
        ];
        return string.Join(' ', parts.Where(part => part.Length > 0));
    }

    /// <summary>Its digits alone; empty where it has none.</summary>
    public static string Digits(string? text) => string.Concat((text ?? "").Where(char.IsAsciiDigit));

    /// <summary>Vowels with a mark written after them, as one letter each; in small letters.</summary>
    private static string Composed(string name) =>
        name.ToLowerInvariant()
            .Replace("a\u0308", "ä", StringComparison.Ordinal)
            .Replace("o\u0308", "ö", StringComparison.Ordinal)
            .Replace("u\u0308", "ü", StringComparison.Ordinal)
            .Replace("a\u030a", "å", StringComparison.Ordinal);

    /// <summary>Vowels that Arabic and Hebrew may or may not write over their letters.</summary>
    private static bool IsVowelMark(char c) =>
        c is (>= '\u0591' and <= '\u05c7') or (>= '\u064b' and <= '\u0652') or '\u0670' or '\u0640';
}
