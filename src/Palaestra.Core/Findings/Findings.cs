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
public sealed record SideScore(
    Guid TrialId,
    int CleanReps,
    double CleanSeconds,
    int Reps,
    double Fraction,
    bool Cued
);

/// <summary>One task with its two sides.</summary>
/// <param name="DifferencePercent">(stronger − weaker) ÷ stronger × 100, 0 to 100; none when a side is missing or both are zero.</param>
public sealed record TaskFinding(
    string RungId,
    SideScore? Left,
    SideScore? Right,
    SideScore? Both,
    double? DifferencePercent,
    Side? Weaker
);

/// <summary>The first thing that gave way in a trial, in words: "low back arches at rep 6, left".</summary>
public sealed record GaveWay(
    Guid TrialId,
    string RungId,
    Side Side,
    string Fault,
    int Rep,
    double? Second,
    string Words
);

/// <param name="Percent">Share of the demand seen or implied that was held, 0 to 100; none when no trial asked for it.</param>
/// <param name="Trials">Trials that demanded this direction: the evidence.</param>
public sealed record SectorControl(
    Sector Sector,
    string Name,
    double? Percent,
    IReadOnlyList<Guid> Trials,
    string? Telling
);

public sealed record WeakLink(Sector Sector, double Percent, WeakType? Type, string Words, string TypeWords);

/// <summary>All that a screen says.</summary>
/// <param name="Sentence">The finding first, in plain words.</param>
public sealed record ScreenFindings(
    string Sentence,
    IReadOnlyList<TaskFinding> Tasks,
    IReadOnlyList<GaveWay> GaveWay,
    IReadOnlyList<RungSearch> Entries,
    IReadOnlyList<SectorControl> Control,
    WeakLink? WeakLink,
    int TrialCount,
    int CuedCount
);
