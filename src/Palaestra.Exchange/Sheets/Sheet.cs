using Palaestra.Core.Body;
using Palaestra.Core.Outcomes;

namespace Palaestra.Exchange.Sheets;

public enum Paper
{
    A4,
    Letter,
}

/// <summary>The dose of one side on a sheet.</summary>
/// <param name="Figures">"2 × 5, hold 3 s". <paramref name="Words"/>: the same written out.</param>
/// <param name="Range">How far; none for all the way.</param>
public sealed record SheetDose(Side Side, string Figures, string Words, string? Range);

/// <param name="Start">None where nothing moves.</param>
/// <param name="Lines">What to do, in three lines at most.</param>
/// <param name="Changes">What is different for this client.</param>
/// <param name="Days">Which of the sheet's days it is done on.</param>
public sealed record SheetExercise(
    string Name,
    Figure? Start,
    Figure End,
    IReadOnlyList<string> Lines,
    string Feel,
    string NotFeel,
    IReadOnlyList<SheetDose> Doses,
    IReadOnlyList<string> Changes,
    IReadOnlyList<bool> Days
);

/// <summary>A page for the practitioner: never among the client's.</summary>
public sealed record SheetRecord(string Title, IReadOnlyList<string> Lines);

/// <summary>What a client takes home.</summary>
/// <param name="Line">Minutes, how the back is held, breath.</param>
/// <param name="Pain">What to write on the line of pain.</param>
/// <param name="Stop">When to stop and call.</param>
/// <param name="Mark">The clinic's picture, JPEG or PNG; none: none.</param>
/// <param name="Contact">Whom to call; empty where the clinic has not written it.</param>
public sealed record Sheet(
    string ClientName,
    string ClinicName,
    string Contact,
    string Line,
    IReadOnlyList<SheetExercise> Exercises,
    IReadOnlyList<DateOnly> Days,
    string Pain,
    string Stop,
    string NextVisit,
    string Made,
    SheetRecord? Record = null,
    byte[]? Mark = null
);
