namespace Palaestra.Core.Visits;

/// <summary>What was written about a visit: as one text, or under the four usual headings.</summary>
/// <param name="Headings">Which of the two it is; what stands in the other is kept.</param>
public sealed record NoteText(
    bool Headings,
    string Free = "",
    string Subjective = "",
    string Objective = "",
    string Assessment = "",
    string Plan = ""
)
{
    /// <summary>Letters of each part at most.</summary>
    public const int LettersMax = 8000;

    private IEnumerable<(string Name, string Text)> Parts =>
        [
            ("free", Free),
            ("subjective", Subjective),
            ("objective", Objective),
            ("assessment", Assessment),
            ("plan", Plan),
        ];

    /// <summary>Nothing stands in the form that was chosen.</summary>
    public bool IsEmpty =>
        string.IsNullOrWhiteSpace(Headings ? Subjective + Objective + Assessment + Plan : Free);

    /// <summary>What is too long, by field under <paramref name="path"/>; empty where nothing is.</summary>
    public static IEnumerable<FieldError> Errors(NoteText text, string path) =>
        text
            .Parts.Where(part => part.Text.Length > LettersMax)
            .Select(part => new FieldError(
                $"{path}.{part.Name}",
                Message.Of("note.long", ("most", LettersMax))
            ));
}
