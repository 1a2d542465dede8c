using Palaestra.Core.Body;

namespace Palaestra.Server.TakeHome;

/// <summary>A part of a drawing in all its pictures; one that stands still has one.</summary>
/// <param name="Role">What it is, as in every drawing.</param>
/// <param name="Frames">
/// By picture, by outline: x, y, x, y in millimetres, y down; from the second picture on how far each has gone since the one before.
/// </param>
public sealed record HomeShape(ShapeRole Role, IReadOnlyList<IReadOnlyList<IReadOnlyList<int>>> Frames);

/// <summary>A movement out in even steps; the page goes from one to the next.</summary>
public sealed record HomeDrawing(
    int Left,
    int Top,
    int Width,
    int Height,
    int Count,
    IReadOnlyList<HomeShape> Shapes
)
{
    /// <param name="frames">Of one movement: the same shapes in the same order.</param>
    public static HomeDrawing Of(IReadOnlyList<Figure> frames)
    {
        var first = frames[0];
        return new(
            first.Left,
            first.Top,
            first.Width,
            first.Height,
            frames.Count,
            [
                .. first.Shapes.Select(
                    (shape, i) => ShapeOf(shape.Role, [.. frames.Select(frame => frame.Shapes[i].Outlines)])
                ),
            ]
        );
    }

    private static HomeShape ShapeOf(ShapeRole role, List<IReadOnlyList<IReadOnlyList<int>>> told)
    {
        var all = told.Select(outlines =>
                (IReadOnlyList<IReadOnlyList<int>>)
                    [.. outlines.Select((outline, o) => AsLong(outline, told.Max(other => other[o].Count)))]
            )
            .ToList();
        var still = all.TrueForAll(outlines =>
            outlines.SelectMany(o => o).SequenceEqual(all[0].SelectMany(o => o))
        );
        return new(role, still ? [all[0]] : [all[0], .. Steps(all)]);
    }

    /// <summary>Points that fall together are told once: where that leaves an outline with fewer, it is told anew.</summary>
    private static IReadOnlyList<int> AsLong(IReadOnlyList<int> outline, int length) =>
        outline.Count == length ? outline : Outlines.Evenly(outline, length / 2);

    /// <summary>How far each point goes from one picture to the next: small numbers, where places are large ones.</summary>
    private static IEnumerable<IReadOnlyList<IReadOnlyList<int>>> Steps(
        IReadOnlyList<IReadOnlyList<IReadOnlyList<int>>> all
    ) =>
        all.Zip(
            all.Skip(1),
            (from, to) => from.Zip(to, (a, b) => (IReadOnlyList<int>)[.. a.Zip(b, (x, y) => y - x)]).ToList()
        );
}

/// <summary>One side of an exercise, or both together.</summary>
/// <param name="Column">Its place in the log.</param>
/// <param name="SideMeans">What the side names, as "the leg that moves".</param>
/// <param name="Reps">Of each set.</param>
/// <param name="Hold">Seconds; 0: none. <paramref name="Out"/> and <paramref name="Back"/>: seconds of the movement; 0: it only holds.</param>
/// <param name="Rest">Seconds between sets.</param>
/// <param name="Minutes">A rep is a minute: it is walked, not counted.</param>
public sealed record HomeSide(
    int Column,
    Side Side,
    string SideMeans,
    IReadOnlyList<int> Reps,
    double Hold,
    double Out,
    double Back,
    double Rest,
    bool Minutes,
    string Figures,
    string Written,
    HomeDrawing Drawing
);

/// <param name="Days">On which it is done, as ISO dates.</param>
public sealed record HomeExercise(
    string Name,
    string Cue,
    IReadOnlyList<string> Lines,
    string Feel,
    string NotFeel,
    IReadOnlyList<string> Changes,
    IReadOnlyList<HomeSide> Sides,
    IReadOnlyList<DateOnly> Days
);

/// <summary>What the page of a home programme carries; it has nothing else, and asks nobody.</summary>
/// <param name="Token">Which programme it is, signed; no name. <paramref name="Key"/>: what the log is sealed with. Both base64.</param>
/// <param name="Page">Under which the phone keeps its log.</param>
/// <param name="Stop">When to stop and call. <paramref name="Contact"/>: whom; empty where the clinic has not written it.</param>
/// <param name="StopFrom">Pain from which no more is done that day, 0 to 10.</param>
/// <param name="Calendar">The days and visits as an iCalendar file, for reminders.</param>
public sealed record HomePage(
    string Language,
    string Page,
    string Token,
    string Key,
    string ClinicName,
    string Contact,
    string Line,
    string Stop,
    string NextVisit,
    string Made,
    int StopFrom,
    IReadOnlyList<HomeExercise> Exercises,
    string Calendar
);
