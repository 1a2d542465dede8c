namespace Palaestra.Core.Library;

/// <summary>What a task of a screen is measured in.</summary>
public enum MeasureKind
{
    /// <summary>Clean reps out of those asked.</summary>
    Reps,

    /// <summary>Longest clean hold, seconds.</summary>
    Seconds,

    /// <summary>Largest clean angle, degrees.</summary>
    Degrees,

    /// <summary>Largest clean reach, centimetres; told as % of leg length too where that is known.</summary>
    Centimetres,

    /// <summary>Held, yes or no.</summary>
    YesNo,

    /// <summary>Largest load lifted clean, and the smallest at which it broke, kilograms.</summary>
    Kilograms,

    /// <summary>How hard it was for the client, whole points from 0; less is better.</summary>
    Effort,
}

/// <summary>One of the ways a task is done for each side: a direction of a circle, of a reach.</summary>
public sealed record TaskVariant(string Id, string Name);

/// <summary>A place a task can be done at, with the rung that is drawn and set up there.</summary>
public sealed record TaskSurface(string Id, string Name, string Rung);

/// <summary>What a task says of a ladder that was not climbed.</summary>
/// <param name="Failed">The rung to train where it gave way; <paramref name="Clean"/>: where it was clean, none: it says nothing upward.</param>
/// <param name="Rung">The rung of the task it holds for; none: any.</param>
/// <param name="On">Whether the side that is trained is the task's or the other one.</param>
/// <param name="From">Clean seconds from which it counts as clean; none: the target.</param>
public sealed record TaskFeed(
    string Ladder,
    string Failed,
    string? Clean = null,
    string? Rung = null,
    OnSide On = OnSide.Task,
    double? From = null
);

/// <summary>One task of a screen: either the climb of a ladder or one rung looked at for itself.</summary>
/// <param name="Tells">The question it answers, in a sentence.</param>
/// <param name="Ladder">The ladder it climbs to its entry rung. <paramref name="Rung"/>: or the rung it looks at; exactly one is given.</param>
/// <param name="Target">What is asked of one trial; none: the rung's own start dose.</param>
/// <param name="Full">The reading that is all that is asked: the angle in degrees, the most points of effort.</param>
/// <param name="Tries">Reps or readings of which the best counts; 1 where each counts.</param>
/// <param name="Minutes">For both sides. Our own estimate.</param>
/// <param name="Priority">1 belongs to every screen, 2 to a full one, 3 is looked at when asked for.</param>
/// <param name="Points">What each point of effort means, from 0 up.</param>
/// <param name="OnlyWhenCalm">Not proposed when easily irritated. <paramref name="Tires"/>: comes late, what follows would suffer.</param>
/// <param name="Caution">Said before it starts.</param>
/// <param name="Loads">Loads to choose from, kilograms, lightest first.</param>
/// <param name="Feeds">What it says of ladders that were not climbed.</param>
/// <param name="Retired">Not offered any more; old screens keep its name.</param>
/// <param name="Stops">Angles to tap, degrees, smallest first.</param>
public sealed record ScreenTask(
    string Id,
    string Name,
    string Tells,
    MeasureKind Measure,
    double Minutes,
    int Priority,
    string? Ladder = null,
    string? Rung = null,
    Dose? Target = null,
    double? Full = null,
    int Tries = 1,
    IReadOnlyList<TaskVariant>? Variants = null,
    IReadOnlyList<TaskSurface>? Surfaces = null,
    IReadOnlyList<double>? Loads = null,
    IReadOnlyList<double>? Stops = null,
    IReadOnlyList<string>? Points = null,
    bool OnlyWhenCalm = false,
    bool Tires = false,
    string? Caution = null,
    IReadOnlyList<TaskFeed>? Feeds = null,
    bool Retired = false
)
{
    /// <summary>Tasks made of a single rung, so that any exercise can be a screen, have ids that begin so.</summary>
    public const string RungPrefix = "rung-";

    /// <summary>A rung looked at for itself: its reps or holds, on its own sides.</summary>
    public static ScreenTask OfRung(Rung rung) =>
        new(
            RungPrefix + rung.Id,
            rung.Name,
            rung.Movement,
            rung.Start.Hold > 0 && rung.Start.Reps == 1 ? MeasureKind.Seconds : MeasureKind.Reps,
            2,
            3,
            Rung: rung.Id
        );

    /// <summary>It is done on the rungs of a ladder, from easy to hard.</summary>
    public bool Climbs => Ladder is not null;

    /// <summary>The reading that is the most there is; none where there is no such bound.</summary>
    public double? Most =>
        Measure switch
        {
            MeasureKind.YesNo => 1,
            MeasureKind.Effort => Full,
            MeasureKind.Centimetres => 200,
            _ => null,
        };

    /// <summary>Ways it is done, in order; a task without variants is done one way, which has no id.</summary>
    public IReadOnlyList<string?> Ways => Variants is null ? [null] : [.. Variants.Select(v => v.Id)];

    /// <summary>Whether a rung is set up in this task.</summary>
    public bool Uses(Rung rung, PracticeLibrary library) =>
        Ladder is not null
            ? library.LadderOf(rung.Id).Id == Ladder
            : Rung == rung.Id || Surfaces?.Any(s => s.Rung == rung.Id) == true;

    /// <summary>Whether a trial of it says something of control by direction: effort, reach, angle and load do not say which share was held.</summary>
    public bool TellsControl =>
        Measure is MeasureKind.Reps or MeasureKind.Seconds or MeasureKind.YesNo && !Tires;
}
