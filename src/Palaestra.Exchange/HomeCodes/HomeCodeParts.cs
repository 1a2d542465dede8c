namespace Palaestra.Exchange.HomeCodes;

/// <summary>A log in one to four numbered codes, read in any order.</summary>
/// <remarks>
/// A part is "PH1", its number, how many there are, four hexadecimal digits that all parts of a log share, and letters of
/// <see cref="Base45"/>: only letters that a QR code packs densest.
/// </remarks>
public static class HomeCodeParts
{
    public const string Mark = "PH1";
    public const int PartsMost = 4;
    private const int HeadLetters = 9;

    /// <summary>Letters of a part that are read at most; the densest code that is drawn holds fewer.</summary>
    private const int LettersMost = 4000;

    private sealed record Part(int Number, int Of, string Log, string Letters);

    /// <summary>All the bytes of the log; or what is wrong, and which parts are missing.</summary>
    public static Checked<byte[]> Join(IReadOnlyList<string>? codes)
    {
        var parts = (codes ?? []).Select(code => PartOf(code.Trim('\r', '\n'))).ToList();
        if (parts.Count is 0 or > 4 * PartsMost || parts.Contains(null))
        {
            return Bad(Message.Of("home-code.unreadable"));
        }
        var first = parts[0]!;
        if (parts.Any(part => part!.Log != first.Log || part.Of != first.Of))
        {
            return Bad(Message.Of("home-code.mixed"));
        }
        var missing = Enumerable.Range(1, first.Of).Except(parts.Select(part => part!.Number)).ToList();
        if (missing.Count > 0)
        {
            return Bad(Message.Of("home-code.missing", ("numbers", missing), ("of", first.Of)));
        }
        var letters = string.Concat(
            Enumerable.Range(1, first.Of).Select(number => parts.First(p => p!.Number == number)!.Letters)
        );
        return Base45.Read(letters) is { } bytes
            ? Checked<byte[]>.Good(bytes)
            : Bad(Message.Of("home-code.unreadable"));
    }

    private static Part? PartOf(string code)
    {
        if (
            code.Length is < HeadLetters or > LettersMost
            || !code.StartsWith(Mark, StringComparison.Ordinal)
            || code[3] is < '1' or > '4'
            || code[4] is < '1' or > '4'
            || code[3] > code[4]
        )
        {
            return null;
        }
        return new(code[3] - '0', code[4] - '0', code[5..HeadLetters], code[HeadLetters..]);
    }

    private static Checked<byte[]> Bad(Message message) =>
        Checked<byte[]>.Bad(new FieldError("codes", message));
}
