using Palaestra.Core.Abilities;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Findings;

/// <summary>What kind of weakness the faults point to.</summary>
public enum WeakType
{
    /// <summary>One cue fixes it: coach at the same rung.</summary>
    Awareness,

    /// <summary>Clean at first, then fades.</summary>
    Endurance,

    /// <summary>Fails at once.</summary>
    Capacity,

    /// <summary>Pain ends it before control does.</summary>
    PainLimited,
}

/// <summary>Clean work of one side in one task, uncued.</summary>
/// <param name="Value">In the unit the task is measured in: clean reps, seconds, degrees, centimetres, 1 or 0, kilograms, points of effort. None when nothing was clean.</param>
/// <param name="PercentOfLeg">A reach as a share of leg length, %, where the length is known.</param>
/// <param name="BrokeAt">The smallest load at which it broke, kilograms.</param>
/// <param name="Assured">Of a load: it went the whole way, and pain was told. Only then may it be prescribed.</param>
/// <param name="PainLimited">Pain ended it before anything gave way: it says nothing of control.</param>
public sealed record SideScore(
    Guid TrialId,
    int CleanReps,
    double CleanSeconds,
    int Reps,
    double Fraction,
    bool Cued,
    double? Value = null,
    double? PercentOfLeg = null,
    double? BrokeAt = null,
    bool PainLimited = false,
    bool Assured = false
);

/// <summary>One task with its two sides.</summary>
/// <param name="DifferencePercent">(stronger − weaker) ÷ stronger × 100, 0 to 100; none when a side is missing, both are zero, or the task has no such share (effort).</param>
/// <param name="TaskId">None for a rung climbed or done for itself. <paramref name="Variant"/>: which way, where there are several.</param>
/// <param name="Name">What to call it, place and way included.</param>
/// <param name="Norms">What others reached, by side.</param>
/// <param name="Difference">What a published side difference says of this one.</param>
public sealed record TaskFinding(
    string RungId,
    SideScore? Left,
    SideScore? Right,
    SideScore? Both,
    double? DifferencePercent,
    Side? Weaker,
    string? TaskId = null,
    string? Variant = null,
    Message? Name = null,
    MeasureKind Measure = MeasureKind.Reps,
    IReadOnlyList<NormShown>? Norms = null,
    DifferenceShown? Difference = null
)
{
    /// <summary>The score of that side; none where it was not done.</summary>
    public SideScore? Of(Side side) =>
        side switch
        {
            Side.Left => Left,
            Side.Right => Right,
            _ => Both,
        };
}

/// <summary>The first thing that gave way in a trial, in words: "low back arches at rep 6, left".</summary>
public sealed record GaveWay(
    Guid TrialId,
    string RungId,
    Side Side,
    string Fault,
    int Rep,
    double? Second,
    Message Words
);

/// <summary>One rung behind a direction's control: its weight, what was held of it, and the trial that says so.</summary>
/// <param name="Weight">Share of the hardest screened rung's demand in this direction, 0 to 1.</param>
/// <param name="Value">0 to 1. <paramref name="TrialId"/>: none where it follows from the rung above or below.</param>
public sealed record ControlPart(string RungId, Side Side, double Weight, double Value, Guid? TrialId);

/// <param name="Percent">Share of the demand seen or implied that was held, 0 to 100; none when no trial asked for it.</param>
/// <param name="Trials">Trials that demanded this direction: the evidence.</param>
public sealed record SectorControl(
    Sector Sector,
    string Name,
    double? Percent,
    IReadOnlyList<Guid> Trials,
    string? Telling,
    IReadOnlyList<ControlPart>? Parts = null
);

/// <summary>The sector with the least control, and what kind of weakness it looks like.</summary>
/// <param name="Sector">Which one.</param>
/// <param name="Percent">Its control, 0 to 100.</param>
/// <param name="Type">What kind of weakness; none where nothing speaks for one.</param>
/// <param name="Words">The sector's name.</param>
/// <param name="TypeWords">The kind in words; none where there is none.</param>
public sealed record WeakLink(
    Sector Sector,
    double Percent,
    WeakType? Type,
    string Words,
    Message? TypeWords
);

/// <summary>All that a screen says.</summary>
/// <param name="Sentence">The finding first, in plain words.</param>
/// <param name="Abilities">Where the client stands, from this screen and all that came before it; none where it was not asked for.</param>
public sealed record ScreenFindings(
    Message Sentence,
    IReadOnlyList<TaskFinding> Tasks,
    IReadOnlyList<GaveWay> GaveWay,
    IReadOnlyList<RungSearch> Entries,
    IReadOnlyList<SectorControl> Control,
    WeakLink? WeakLink,
    int TrialCount,
    int CuedCount,
    IReadOnlyList<RatioShown>? Ratios = null,
    AbilityFindings? Abilities = null
);
