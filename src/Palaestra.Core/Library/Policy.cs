using System.Text.Json.Serialization;

namespace Palaestra.Core.Library;

/// <summary>How a policy chooses the neutral position.</summary>
public enum StrategyRule
{
    /// <summary>Neutral for everybody.</summary>
    Neutral,

    /// <summary>Gently flat for everybody.</summary>
    GentlyFlat,

    /// <summary>By how the back lies at rest.</summary>
    ByBuild,

    /// <summary>Neutral on the back, and the rounded ladder is open.</summary>
    Rounded,
}

/// <summary>How the trunk is made ready before a movement.</summary>
public enum Activation
{
    /// <summary>As if for a push.</summary>
    Brace,

    /// <summary>Gently in, below the navel.</summary>
    DrawIn,
}

/// <summary>How a policy lets breathe during work.</summary>
public enum BreathRule
{
    /// <summary>Goes on all the time: the client can talk.</summary>
    Free,

    /// <summary>Out with the effort.</summary>
    WithEffort,

    /// <summary>Out as the limb goes away.</summary>
    AsLimbGoes,
}

/// <summary>What grants the next rung.</summary>
public enum MovingOn
{
    /// <summary>The target dose clean on both sides, visits running.</summary>
    Mastery,

    /// <summary>The twelve-week map proposes; clean performance grants.</summary>
    Calendar,

    /// <summary>The hold of the endurance school, clean.</summary>
    Endurance,
}

/// <summary>How endurance of holds is built once the back is calm.</summary>
public enum HoldEndurance
{
    /// <summary>Many short holds.</summary>
    ShortHolds,

    /// <summary>Each set shorter than the one before, such as 8-6-4.</summary>
    Descending,

    /// <summary>One long hold.</summary>
    OneLong,
}

/// <summary>Which bridge a policy begins with.</summary>
public enum BridgeKind
{
    /// <summary>The pelvis rises as one piece.</summary>
    HipHinge,

    /// <summary>Bone by bone; barred where bending hurts and for fragile bone.</summary>
    Rolling,
}

/// <summary>How a policy judges pain during work.</summary>
public enum PainRuleKind
{
    /// <summary>Pain may not go above where it was before the work.</summary>
    NoRise,

    /// <summary>Pain may rise to the policy's limit while exercising.</summary>
    Tolerable,
}

/// <summary>How much pain work may bring.</summary>
/// <param name="Limit">0 to 10; the tolerable rule lets pain rise up to it while exercising.</param>
/// <param name="Rise">Points above before that are over the limit of the no-rise rule, 1 to 10: one point is inside the error of a 0 to 10 scale. Common practice.</param>
/// <remarks>Tolerable: Silbernagel et al. 2007, Am J Sports Med 35:897-906 (from memory).</remarks>
public sealed record PainRule(PainRuleKind Rule, int Limit, int Rise = 2)
{
    /// <summary>
    /// True when pain <paramref name="now"/> is over what the rule lets through. Where it is not known what was before, a value
    /// as large as the rise counts: the careful reading.
    /// </summary>
    public bool Exceeded(int? before, int now) =>
        Rule == PainRuleKind.NoRise ? now >= (before ?? 0) + Rise : now > Limit;
}

/// <summary>Seconds between work. Common practice.</summary>
public sealed record PolicySeconds(
    double RestHolds,
    double RestOther,
    double SetUp,
    double PositionChange,
    double SideChange
);

/// <summary>Seconds out and back of one ordinary rep; each rung's own time keeps its proportion to it.</summary>
public sealed record Tempo(double Out, double Back)
{
    /// <summary>The tempo the library's own movement times are written for. Common practice.</summary>
    public const double LibrarySeconds = 6;

    /// <summary>Seconds of one rep of a rung at this tempo.</summary>
    public double Seconds(double moveSeconds) => moveSeconds * (Out + Back) / LibrarySeconds;
}

/// <summary>Loaded and plank rungs: which they are, on how many days a week, with how many days between.</summary>
public sealed record LoadedWork(IReadOnlyList<string> Features, int DaysPerWeek, int DaysBetween)
{
    /// <summary>Whether a rung counts as loaded work.</summary>
    public bool Is(Rung rung) => rung.Features.Any(Features.Contains);
}

/// <summary>In which order the two sides of a task are tried.</summary>
public enum SideOrder
{
    /// <summary>The weaker side first as far as anything is known of it, and then the other.</summary>
    WeakerFirst,

    /// <summary>Trial by trial, turn about, so that neither side is the rested one.</summary>
    Alternate,

    /// <summary>Left to the end, then right: fewest changes.</summary>
    OneThenOther,
}

/// <summary>How the ways of one rung are done within a set.</summary>
public enum WayOrder
{
    /// <summary>All reps of one way, then all of the next; each is counted for itself.</summary>
    OneAfterOther,

    /// <summary>A round of all ways is one rep.</summary>
    Mixed,
}

/// <param name="Avoids">Features of rungs that are not proposed until the back is calm.</param>
public sealed record SoreRules(IReadOnlyList<string> Avoids, double HoldMax);

/// <summary>When a condition counts as highly irritable, and the dose it may have then.</summary>
/// <param name="PainFrom">Pain at rest from which it does, 0 to 10.</param>
/// <param name="SettleHoursFrom">Hours to settle from which it does.</param>
/// <param name="Reps">Reps at most.</param>
/// <param name="Sets">Sets at most.</param>
/// <param name="HoldMax">Seconds of a hold at most.</param>
public sealed record HighIrritability(
    int PainFrom,
    double SettleHoursFrom,
    int Reps,
    int Sets,
    double HoldMax
);

/// <summary>The dose a moderately irritable condition may have.</summary>
/// <param name="Reps">Reps at most.</param>
/// <param name="Sets">Sets at most.</param>
/// <param name="HoldMax">Seconds of a hold at most.</param>
public sealed record ModerateIrritability(int Reps, int Sets, double HoldMax);

/// <summary>When a condition counts as little irritable.</summary>
/// <param name="PainBelow">Pain at rest has to be below this, 0 to 10.</param>
/// <param name="SettleHoursTo">And settled within so many hours.</param>
public sealed record LowIrritability(int PainBelow, double SettleHoursTo);

/// <summary>The three levels of irritability and their doses.</summary>
/// <param name="High">The highest level.</param>
/// <param name="Moderate">What is neither high nor low.</param>
/// <param name="Low">The lowest level.</param>
public sealed record IrritabilityTable(
    HighIrritability High,
    ModerateIrritability Moderate,
    LowIrritability Low
);

/// <summary>
/// A school: every choice and threshold the rules use, by name, so that a clinic can see and change them.
/// Percentages and fractions are of 1 unless the name says percent; pain is 0 to 10.
/// </summary>
/// <param name="HomeLessFraction">Under this share of the planned home work nothing is added.</param>
/// <param name="HomeAgreesFraction">From this share on the home log stands for one clean visit.</param>
/// <param name="PlateauVisits">Visits, or <paramref name="PlateauWeeks"/> weeks, without a clear change that ask for another way.</param>
/// <param name="FaultsInARow">Broken reps in a row that stop a set.</param>
/// <param name="NextDayRise">Points above the reference pain on the morning after that take back what was raised.</param>
/// <param name="FaultCapFraction">From this share of broken reps on, where no cue fixes it, the exercise is eased.</param>
public sealed record Policy(
    string Id,
    int Version,
    string Name,
    string Why,
    StrategyRule SpinalStrategy,
    [property: JsonPropertyName("switchOn")] Activation Activation,
    BreathRule Breath,
    MovingOn MovingOn,
    HoldEndurance Endurance,
    BridgeKind Bridge,
    PainRule Pain,
    double EvenPercent,
    int MasteryVisits,
    int MasteryEffortMax,
    double DoneLessFraction,
    double FaultCapFraction,
    int NextDayRise,
    double SettleHours,
    int AwayDays,
    double WeeklyGrowth,
    double WeakerExtraFraction,
    int TrialsPerSide,
    int RungsUpAtOnce,
    SideOrder SideOrder,
    double ScreenMinutes,
    double MinutesPerDay,
    int ExercisesMin,
    int ExercisesMax,
    int LowLoadDays,
    int RescreenWeeks,
    int ReviewWeeks,
    Tempo Tempo,
    LoadedWork Loaded,
    SoreRules Sore,
    PolicySeconds Seconds,
    [property: JsonPropertyName("stirredUp")] IrritabilityTable Irritability,
    double HomeLessFraction = 0.5,
    double HomeAgreesFraction = 0.8,
    int PlateauVisits = 3,
    int PlateauWeeks = 3,
    int FaultsInARow = 2,
    WayOrder Ways = WayOrder.OneAfterOther
)
{
    /// <summary>Thresholds of the rules that keep on the safe side.</summary>
    public Judgement Judgement { get; init; } = new();

    /// <summary>The ways of a rung that are counted one after the other; empty where it has one, or they are mixed.</summary>
    public IReadOnlyList<RungWay> WaysOf(Rung rung) => Ways == WayOrder.OneAfterOther ? rung.Ways ?? [] : [];

    /// <summary>Rungs of one school are closed to the others: the rounded reach and the rolled bridge.</summary>
    public bool Closes(Rung rung) =>
        rung.Features.Contains(Rung.RoundedFeature) && SpinalStrategy != StrategyRule.Rounded
        || rung.Features.Contains(Rung.RolledFeature) && Bridge != BridgeKind.Rolling;
}
