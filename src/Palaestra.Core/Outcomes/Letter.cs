namespace Palaestra.Core.Outcomes;

/// <summary>A part of a letter: a heading and paragraphs in plain words.</summary>
public sealed record LetterPart(string Heading, IReadOnlyList<string> Paragraphs);

/// <summary>A part of a letter before it is put into words.</summary>
public sealed record DraftPart(Message Heading, IReadOnlyList<Message> Paragraphs);

/// <summary>What a letter says, from the record alone, before it is put into words.</summary>
/// <param name="About">One line: the client and the problem. <paramref name="Parts"/>: those that have something to say.</param>
public sealed record LetterOutline(Message About, IReadOnlyList<DraftPart> Parts);

/// <summary>A letter to a referrer.</summary>
/// <param name="To">Whom it goes to, as written on it; may be empty.</param>
/// <param name="About">One line: the client and the problem.</param>
public sealed record Letter(string To, string About, IReadOnlyList<LetterPart> Parts)
{
    /// <summary>Parts of a letter at most.</summary>
    public const int PartsMax = 12;

    /// <summary>Paragraphs of a part at most.</summary>
    public const int ParagraphsMax = 20;

    /// <summary>Letters of a paragraph at most.</summary>
    public const int LettersMax = 2000;

    /// <summary>What is too long or empty, by field under <paramref name="path"/>; empty where nothing is.</summary>
    public static IEnumerable<FieldError> Errors(Letter letter, string path)
    {
        if (letter.To.Length > 500)
        {
            yield return new($"{path}.to", Message.Of("letter.to"));
        }
        if (letter.About.Length is 0 or > 300)
        {
            yield return new($"{path}.about", Message.Of("letter.about"));
        }
        if (letter.Parts.Count is 0 or > PartsMax)
        {
            yield return new($"{path}.parts", Message.Of("letter.parts", ("most", PartsMax)));
        }
        for (var i = 0; i < letter.Parts.Count; i++)
        {
            var part = letter.Parts[i];
            if (part.Heading.Length is 0 or > 100)
            {
                yield return new($"{path}.parts[{i}].heading", Message.Of("letter.heading"));
            }
            if (part.Paragraphs.Count > ParagraphsMax || part.Paragraphs.Any(p => p.Length > LettersMax))
            {
                yield return new(
                    $"{path}.parts[{i}].paragraphs",
                    Message.Of("letter.paragraphs", ("most", ParagraphsMax), ("characters", LettersMax))
                );
            }
        }
    }
}
