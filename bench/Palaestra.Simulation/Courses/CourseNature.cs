using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Simulation.Courses;

/// <summary>How people differ.</summary>
/// <param name="Own">SD of how much harder or easier a rung is for one person, rungs.</param>
/// <param name="Sides">Share of ability that differs between directions and sides of one person, 0 to 1.</param>
/// <param name="UsualFrom">Least usual pain at the start, 0 to 10; <paramref name="UsualTo"/> the most, evenly between.</param>
/// <param name="AdherenceA">Share of home work done: Beta(a, b).</param>
/// <param name="GainSpread">SD of the logarithm of how fast one person gains; 0: all alike.</param>
public sealed record PersonNature(
    double Own = 0.3,
    double Sides = 0.5,
    double UsualFrom = 1,
    double UsualTo = 5,
    double AdherenceA = 4,
    double AdherenceB = 1.5,
    double GainSpread = 0
);

/// <summary>How ability comes and goes.</summary>
/// <param name="Gain">Rungs gained in a week of full, well chosen clean work.</param>
/// <param name="Forget">Rungs of the gain lost in a week without any work.</param>
/// <param name="BestMargin">Rungs of ability above the work at which most is learned; <paramref name="Width"/>: how wide that is.</param>
public sealed record LearningNature(
    double Gain = 0.35,
    double Forget = 0.075,
    double BestMargin = 0.5,
    double Width = 1.5
);

/// <summary>How work wavers.</summary>
/// <param name="RepNoise">SD of ability from rep to rep, rungs; <paramref name="DayNoise"/>: from day to day.</param>
/// <param name="Tires">Rungs lost from the first rep of a set to its last at the rung's cap.</param>
/// <param name="ExerciseTires">Rungs lost with each exercise done before on that day.</param>
/// <param name="EffortNoise">SD of the effort that is told, points.</param>
/// <param name="RangeEases">Rungs that no way at all would be easier than the whole; <paramref name="StepEases"/>: each step of height, weight or band.</param>
public sealed record WorkNature(
    double RepNoise = 0.3,
    double DayNoise = 0.3,
    double Tires = 0.4,
    double ExerciseTires = 0.02,
    double EffortNoise = 1,
    double RangeEases = 1.6,
    double StepEases = 0.4
);

/// <param name="Missed">Chance that a fault is not seen; <paramref name="Imagined"/>: that a clean rep is marked.</param>
/// <param name="CueHelps">Chance that a cue fixes what is close to control.</param>
public sealed record RaterNature(double Missed = 0.1, double Imagined = 0.01, double CueHelps = 0.5);

/// <param name="PerRung">Points for each rung of work above ability.</param>
/// <param name="Noise">SD of the rise in a set, points; <paramref name="ToldNoise"/>: of what is told at check-in.</param>
/// <param name="PerIrritation">Points of rise for a fully stirred-up back.</param>
public sealed record PainNature(
    double PerRung = 0.8,
    double Noise = 0.5,
    double ToldNoise = 0.5,
    double PerIrritation = 1
);

/// <summary>The chance of a flare in a week: base + above × (rungs of work over ability)^power + growth × (doublings of clean time over two weeks)^power, more when irritated.</summary>
/// <param name="Base">In any week, 0 to 1.</param>
/// <param name="Power">1 for straight, 2 for convex.</param>
/// <param name="Irritable">Times so much more for a fully stirred-up back.</param>
public sealed record FlareNature(
    double Base = 0.012,
    double Above = 0.08,
    double Growth = 0.08,
    double Power = 2,
    double Irritable = 1,
    double PainRise = 3
);

/// <summary>How a back settles. Irritation runs from 0 (calm) to 1.</summary>
/// <param name="StartFrom">At the start, to <paramref name="StartTo"/>, evenly.</param>
/// <param name="Fade">Share lost in a week.</param>
/// <param name="PerFlare">Added by a flare; <paramref name="PerAbove"/>: for each rung of work above ability in a week.</param>
/// <param name="CalmHours">Hours to settle when calm; <paramref name="IrritatedHours"/>: at irritation 1.</param>
/// <param name="Eases">Points of usual pain lost in a quiet week; <paramref name="FlareAdds"/>: added by a flare.</param>
public sealed record SettlingNature(
    double StartFrom = 0,
    double StartTo = 0.5,
    double Fade = 0.3,
    double PerFlare = 0.6,
    double PerAbove = 0.1,
    double CalmHours = 2,
    double IrritatedHours = 30,
    double Eases = 0.2,
    double FlareAdds = 1
);

/// <summary>What trying one up costs.</summary>
/// <param name="Minutes">Each. <paramref name="Tires"/>: rungs lost for the rest of the visit.</param>
/// <param name="Risk">Weight of its rungs above ability in the chance of a flare, against the plan's own.</param>
/// <param name="Base">Added to the chance of a flare by any.</param>
public sealed record ProbeNature(
    double Minutes = 2,
    double Tires = 0.1,
    double Risk = 0.25,
    double Base = 0.002
);

/// <summary>
/// How simulated clients train, tire, gain, settle and flare over weeks: data, in <c>bench/natures</c>. Every figure is our own
/// choice; no data of real people stand behind them. What a file leaves out is as in the typical one.
/// </summary>
/// <param name="Weeks">Visits, one a week, the screen before the first.</param>
public sealed record CourseNature(
    string Name = "typical",
    string? About = null,
    int Weeks = 12,
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
        foreach (var (field, value, least, most) in Bounds())
        {
            if (!(value >= least && value <= most))
            {
                yield return FormattableString.Invariant($"{field}: {value} is not from {least} to {most}.");
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

    private IEnumerable<(string Field, double Value, double Least, double Most)> Bounds() =>
        [
            ("weeks", Weeks, 1, 104),
            ("person.own", Person.Own, 0, 10),
            ("person.sides", Person.Sides, 0, 1),
            ("person.usualFrom", Person.UsualFrom, 0, 10),
            ("person.usualTo", Person.UsualTo, 0, 10),
            ("person.adherenceA", Person.AdherenceA, 0.01, 1000),
            ("person.adherenceB", Person.AdherenceB, 0.01, 1000),
            ("person.gainSpread", Person.GainSpread, 0, 3),
            ("learning.gain", Learning.Gain, 0, 5),
            ("learning.forget", Learning.Forget, 0, 5),
            ("learning.bestMargin", Learning.BestMargin, -10, 10),
            ("learning.width", Learning.Width, 0.01, 100),
            ("work.repNoise", Work.RepNoise, 0, 10),
            ("work.dayNoise", Work.DayNoise, 0, 10),
            ("work.tires", Work.Tires, 0, 10),
            ("work.exerciseTires", Work.ExerciseTires, 0, 10),
            ("work.effortNoise", Work.EffortNoise, 0, 10),
            ("work.rangeEases", Work.RangeEases, 0, 10),
            ("work.stepEases", Work.StepEases, 0, 10),
            ("rater.missed", Rater.Missed, 0, 1),
            ("rater.imagined", Rater.Imagined, 0, 1),
            ("rater.cueHelps", Rater.CueHelps, 0, 1),
            ("pain.perRung", Pain.PerRung, 0, 10),
            ("pain.noise", Pain.Noise, 0, 10),
            ("pain.toldNoise", Pain.ToldNoise, 0, 10),
            ("pain.perIrritation", Pain.PerIrritation, 0, 10),
            ("flare.base", Flare.Base, 0, 1),
            ("flare.above", Flare.Above, 0, 10),
            ("flare.growth", Flare.Growth, 0, 10),
            ("flare.power", Flare.Power, 0.1, 10),
            ("flare.irritable", Flare.Irritable, 0, 100),
            ("flare.painRise", Flare.PainRise, 0, 10),
            ("settling.startFrom", Settling.StartFrom, 0, 1),
            ("settling.startTo", Settling.StartTo, 0, 1),
            ("settling.fade", Settling.Fade, 0, 1),
            ("settling.perFlare", Settling.PerFlare, 0, 1),
            ("settling.perAbove", Settling.PerAbove, 0, 1),
            ("settling.calmHours", Settling.CalmHours, 0, 168),
            ("settling.irritatedHours", Settling.IrritatedHours, 0, 168),
            ("settling.eases", Settling.Eases, 0, 10),
            ("settling.flareAdds", Settling.FlareAdds, 0, 10),
            ("probe.minutes", Probe.Minutes, 0, 60),
            ("probe.tires", Probe.Tires, 0, 10),
            ("probe.risk", Probe.Risk, 0, 100),
            ("probe.base", Probe.Base, 0, 1),
        ];
}
