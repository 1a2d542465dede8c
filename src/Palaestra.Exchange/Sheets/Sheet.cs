using System.Text.Json.Serialization;
using Palaestra.Core.Body;
using Palaestra.Core.Outcomes;

namespace Palaestra.Exchange.Sheets;

/// <summary>The dose of one side on a sheet.</summary>
/// <param name="Figures">"2 sets of 5, hold 3 s". <paramref name="Written"/>: the same written out, with how far where it is not all the way.</param>
public sealed record SheetDose(Side Side, string Figures, string Written);

/// <param name="ItemId">Of the plan.</param>
/// <param name="Range">Share of the movement that its drawing shows; 1: all of it.</param>
/// <param name="Moves">It has a drawing of its start beside that of its end.</param>
/// <param name="Lines">What to do, in three lines.</param>
/// <param name="Changes">What is different for this client.</param>
/// <param name="Days">Which of the sheet's days it is done on.</param>
public sealed record SheetExercise(
    [property: JsonIgnore] Guid ItemId,
    string RungId,
    Side Side,
    double Range,
    bool Moves,
    string Name,
    [property: JsonIgnore] Figure? Start,
    [property: JsonIgnore] Figure End,
    IReadOnlyList<string> Lines,
    string Feel,
    string NotFeel,
    IReadOnlyList<SheetDose> Doses,
    IReadOnlyList<string> Changes,
    IReadOnlyList<bool> Days
);

/// <summary>A page for the practitioner: never among the client's.</summary>
public sealed record SheetRecord(string Title, IReadOnlyList<string> Lines);

/// <summary>What a client takes home, in the words it is printed in: the page and the PDF lay out this and say nothing of their own.</summary>
/// <param name="Line">Minutes, how the back is held, breath.</param>
/// <param name="Between">The look at the back between reps, once for all exercises it goes for; empty: it goes for none.</param>
/// <param name="Days">Days with a box to tick, as they are named over the boxes.</param>
/// <param name="Pain">What to write on the line of pain.</param>
/// <param name="Stop">When to stop and call.</param>
/// <param name="Contact">Whom to call; empty where the clinic has not written it.</param>
/// <param name="Mark">The clinic's picture, JPEG or PNG; none: none.</param>
public sealed record Sheet(
    string ClientName,
    string ClinicName,
    string Contact,
    string Line,
    string Between,
    IReadOnlyList<SheetExercise> Exercises,
    IReadOnlyList<string> Days,
    string Pain,
    string Stop,
    string NextVisit,
    string Made,
    SheetRecord? Record = null,
    [property: JsonIgnore] byte[]? Mark = null
)
{
    public bool HasMark => Mark is not null;

    /// <summary>Every line that a client reads on it.</summary>
    public IEnumerable<string> Lines() =>
        [
            Line,
            Between,
            .. Exercises.SelectMany(exercise =>
                (IEnumerable<string>)
                    [
                        exercise.Name,
                        .. exercise.Lines,
                        exercise.Feel,
                        exercise.NotFeel,
                        .. exercise.Changes,
                        .. exercise.Doses.SelectMany(dose => new[] { dose.Figures, dose.Written }),
                    ]
            ),
            .. Days,
            Pain,
            Stop,
            Contact,
            NextVisit,
            Made,
        ];
}
