using System.ComponentModel.DataAnnotations;
using System.Text.Json;
using System.Text.Json.Serialization;
using Palaestra.Core.Visits;

namespace Palaestra.Simulation.Courses;

/// <summary>How people differ.</summary>
/// <param name="Own">SD of how much harder or easier a rung is for one person, rungs.</param>
/// <param name="Sides">Share of ability that differs between directions and sides of one person, 0 to 1.</param>
/// <param name="UsualFrom">Least usual pain at the start, 0 to 10; <paramref name="UsualTo"/> the most, evenly between.</param>
/// <param name="AdherenceA">Share of home work done: Beta(a, b), and <paramref name="AdherenceNoise"/>, SD, from week to week.</param>
/// <param name="GainSpread">SD of the logarithm of how fast one person gains; 0: all alike.</param>
public sealed record PersonNature(
    [property: Range(0.0, 10.0)] double Own = 0.3,
    [property: Range(0.0, 1.0)] double Sides = 0.5,
    [property: Range(0.0, 10.0)] double UsualFrom = 1,
    [property: Range(0.0, 10.0)] double UsualTo = 5,
    [property: Range(0.01, 1000.0)] double AdherenceA = 4,
    [property: Range(0.01, 1000.0)] double AdherenceB = 1.5,
    [property: Range(0.0, 1.0)] double AdherenceNoise = 0.1,
    [property: Range(0.0, 3.0)] double GainSpread = 0
);

/// <summary>How ability comes and goes.</summary>
/// <param name="Gain">Rungs gained in a week of full, well chosen clean work.</param>
/// <param name="Forget">Rungs of the gain lost in a week without any work.</param>
/// <param name="BestMargin">Rungs of ability above the work at which most is learned; <paramref name="Width"/>: how wide that is.</param>
public sealed record LearningNature(
    [property: Range(0.0, 5.0)] double Gain = 0.35,
    [property: Range(0.0, 5.0)] double Forget = 0.075,
    [property: Range(-10.0, 10.0)] double BestMargin = 0.5,
    [property: Range(0.01, 100.0)] double Width = 1.5
);

/// <summary>How work wavers.</summary>
/// <param name="RepNoise">SD of ability from rep to rep, rungs; <paramref name="DayNoise"/>: from day to day.</param>
/// <param name="Tires">Rungs lost from the first rep of a set to its last at the rung's cap.</param>
/// <param name="ExerciseTires">Rungs lost with each exercise done before on that day.</param>
/// <param name="EffortAtEdge">Effort that is told just at the ability; <paramref name="EffortPerRung"/>: less for each rung below it. <paramref name="EffortNoise"/>: SD, points.</param>
/// <param name="RangeEases">Rungs that no way at all would be easier than the whole; <paramref name="StepEases"/>: each step of height, weight or band.</param>
public sealed record WorkNature(
    [property: Range(0.0, 10.0)] double RepNoise = 0.3,
    [property: Range(0.0, 10.0)] double DayNoise = 0.3,
    [property: Range(0.0, 10.0)] double Tires = 0.4,
    [property: Range(0.0, 10.0)] double ExerciseTires = 0.02,
    [property: Range(0.0, 10.0)] double EffortAtEdge = 6,
    [property: Range(0.0, 10.0)] double EffortPerRung = 2,
    [property: Range(0.0, 10.0)] double EffortNoise = 1,
    [property: Range(0.0, 10.0)] double RangeEases = 1.6,
    [property: Range(0.0, 10.0)] double StepEases = 0.4
);

/// <param name="Missed">Chance that a fault is not seen; <paramref name="Imagined"/>: that a clean rep is marked.</param>
/// <param name="CueHelps">Chance that a cue fixes what is within <paramref name="CueReach"/> rungs of control.</param>
public sealed record RaterNature(
    [property: Range(0.0, 1.0)] double Missed = 0.1,
    [property: Range(0.0, 1.0)] double Imagined = 0.01,
    [property: Range(0.0, 1.0)] double CueHelps = 0.5,
    [property: Range(0.0, 10.0)] double CueReach = 0.3
);

/// <param name="PerRung">Points for each rung of work above ability.</param>
/// <param name="Noise">SD of the rise in a set, points; <paramref name="ToldNoise"/>: of what is told at check-in.</param>
/// <param name="PerIrritation">Points of rise for a fully stirred-up back. <paramref name="Quiet"/>: points below a rise just at the ability of a calm one.</param>
/// <param name="Stays">Share of the mean rise that is left ten minutes later.</param>
public sealed record PainNature(
    [property: Range(0.0, 10.0)] double PerRung = 0.8,
    [property: Range(0.0, 10.0)] double Quiet = 0.5,
    [property: Range(0.0, 1.0)] double Stays = 0.5,
    [property: Range(0.0, 10.0)] double Noise = 0.5,
    [property: Range(0.0, 10.0)] double ToldNoise = 0.5,
    [property: Range(0.0, 10.0)] double PerIrritation = 1
);

/// <summary>The chance of a flare in a week: base + above × (rungs of work over ability)^power + growth × (doublings of clean time over two weeks)^power, more when irritated.</summary>
/// <param name="Base">In any week, 0 to 1.</param>
/// <param name="Power">1 for straight, 2 for convex.</param>
/// <param name="Irritable">Times so much more for a fully stirred-up back. <paramref name="PainRise"/>: points, the morning after.</param>
/// <param name="Works">Share of the home work that is still done in such a week.</param>
public sealed record FlareNature(
    [property: Range(0.0, 1.0)] double Base = 0.012,
    [property: Range(0.0, 10.0)] double Above = 0.08,
    [property: Range(0.0, 10.0)] double Growth = 0.08,
    [property: Range(0.1, 10.0)] double Power = 2,
    [property: Range(0.0, 100.0)] double Irritable = 1,
    [property: Range(0.0, 10.0)] double PainRise = 3,
    [property: Range(0.0, 1.0)] double Works = 0.4
);

/// <summary>How a back settles. Irritation runs from 0 (calm) to 1.</summary>
/// <param name="StartFrom">At the start, to <paramref name="StartTo"/>, evenly.</param>
/// <param name="Fade">Share lost in a week.</param>
/// <param name="PerFlare">Added by a flare; <paramref name="PerAbove"/>: for each rung of work above ability in a week.</param>
/// <param name="CalmHours">Hours to settle when calm; <paramref name="IrritatedHours"/>: at irritation 1.</param>
/// <param name="Eases">Points of usual pain lost in a quiet week; <paramref name="FlareAdds"/>: added by a flare.</param>
public sealed record SettlingNature(
    [property: Range(0.0, 1.0)] double StartFrom = 0,
    [property: Range(0.0, 1.0)] double StartTo = 0.5,
    [property: Range(0.0, 1.0)] double Fade = 0.3,
    [property: Range(0.0, 1.0)] double PerFlare = 0.6,
    [property: Range(0.0, 1.0)] double PerAbove = 0.1,
    [property: Range(0.0, 168.0)] double CalmHours = 2,
    [property: Range(0.0, 168.0)] double IrritatedHours = 30,
    [property: Range(0.0, 10.0)] double Eases = 0.2,
    [property: Range(0.0, 10.0)] double FlareAdds = 1
);

/// <summary>What trying one up costs.</summary>
/// <param name="Minutes">Each. <paramref name="Tires"/>: rungs lost for the rest of the visit.</param>
/// <param name="Risk">Weight of its rungs above ability in the chance of a flare, against the plan's own.</param>
/// <param name="Base">Added to the chance of a flare by any.</param>
public sealed record ProbeNature(
    [property: Range(0.0, 60.0)] double Minutes = 2,
    [property: Range(0.0, 10.0)] double Tires = 0.1,
    [property: Range(0.0, 100.0)] double Risk = 0.25,
    [property: Range(0.0, 1.0)] double Base = 0.002
);

/// <summary>
/// How simulated clients train, tire, gain, settle and flare over weeks: data, in <c>bench/natures</c>. Every figure is our own
/// choice; no data of real people stand behind them. What a file leaves out is as in the typical one.
/// </summary>
/// <param name="Weeks">Visits, one a week, the screen before the first.</param>
public sealed record CourseNature(
    string Name = "typical",
    string? About = null,
    [property: Range(1, 104)] int Weeks = 12,
    PersonNature? Person = null,
    LearningNature? Learning = null,
    WorkNature? Work = null,
    RaterNature? Rater = null,
    PainNature? Pain = null,
    FlareNature? Flare = null,
    SettlingNature? Settling = null,
    ProbeNature? Probe = null
)
{
    public PersonNature Person { get; init; } = Person ?? new();
    public LearningNature Learning { get; init; } = Learning ?? new();
    public WorkNature Work { get; init; } = Work ?? new();
    public RaterNature Rater { get; init; } = Rater ?? new();
    public PainNature Pain { get; init; } = Pain ?? new();
    public FlareNature Flare { get; init; } = Flare ?? new();
    public SettlingNature Settling { get; init; } = Settling ?? new();
    public ProbeNature Probe { get; init; } = Probe ?? new();

    private static readonly JsonSerializerOptions Format = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        ReadCommentHandling = JsonCommentHandling.Skip,
        AllowTrailingCommas = true,
    };

    /// <exception cref="InvalidDataException">Names the field that cannot be read or cannot be right.</exception>
    public static CourseNature Read(string json)
    {
        CourseNature nature;
        try
        {
            nature =
                JsonSerializer.Deserialize<CourseNature>(json, Format)
                ?? throw new InvalidDataException("The file holds no nature.");
        }
        catch (JsonException wrong)
        {
            throw new InvalidDataException($"{wrong.Path ?? "$"}: {wrong.Message}", wrong);
        }
        return nature.Errors().FirstOrDefault() is { } error ? throw new InvalidDataException(error) : nature;
    }

    private IEnumerable<string> Errors()
    {
        (string Prefix, object Part)[] parts =
        [
            ("", this),
            ("person.", Person),
            ("learning.", Learning),
            ("work.", Work),
            ("rater.", Rater),
            ("pain.", Pain),
            ("flare.", Flare),
            ("settling.", Settling),
            ("probe.", Probe),
        ];
        foreach (var (prefix, part) in parts)
        {
            var wrong = new List<ValidationResult>();
            Validator.TryValidateObject(part, new ValidationContext(part), wrong, true);
            foreach (var result in wrong)
            {
                var field = JsonNamingPolicy.CamelCase.ConvertName(result.MemberNames.First());
                yield return $"{prefix}{field}: {result.ErrorMessage}";
            }
        }
        if (Person.UsualTo < Person.UsualFrom)
        {
            yield return "person.usualTo: less than person.usualFrom.";
        }
        if (Settling.StartTo < Settling.StartFrom)
        {
            yield return "settling.startTo: less than settling.startFrom.";
        }
    }
}
