using System.Text.Json.Serialization;
using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>How a rung is divided by side.</summary>
public enum RungSides
{
    /// <summary>No side and no comparison (finding neutral).</summary>
    None,

    /// <summary>Both sides work together (a bridge on two feet); counts for each side.</summary>
    Both,

    /// <summary>Done for each side apart.</summary>
    Each,
}

/// <summary>How much a rung asks of one direction, 0 to 1, against the hardest screened rung in that direction.</summary>
public sealed record Demand(Direction Direction, double Weight, OnSide On = OnSide.Task);

/// <summary>Names of the poses through which the rung moves.</summary>
/// <param name="Via">Poses on the way, in order.</param>
public sealed record RungPoses(string Start, string End, IReadOnlyList<string>? Via = null)
{
    /// <summary>Names of all poses of the movement, in order.</summary>
    public IReadOnlyList<string> Path => [Start, .. Via ?? [], End];
}

/// <summary>One of several ways a rung is done in: outward and inward, three planes, five reaches. One rep is one round of all.</summary>
/// <param name="Words">"outward"; said on the card, the tempo guide and the sheet.</param>
public sealed record RungWay(string Id, string Words);

/// <summary>A way to make a rung easier in the middle of a session.</summary>
/// <param name="Change">A shorter lever or more support.</param>
/// <param name="To">The rung it amounts to; none: this rung, made easier.</param>
public sealed record Ease(OneChange Change, string Words, string? To = null);

/// <summary>One stage of a ladder: exactly what is done, how much, and what to watch.</summary>
/// <param name="SideMeans">What "side" names in this task, in words.</param>
/// <param name="MoveSeconds">Seconds one rep takes out and back, without its hold.</param>
/// <param name="Start">Dose to begin with. <paramref name="Target"/>: met clean, move on. <paramref name="Cap"/>: never above.</param>
/// <param name="FaultKinds">Faults that weigh more or less here than they do by default.</param>
/// <param name="View">From where it is seen best.</param>
/// <param name="After">In a clinic's own file: the rung it follows; none: at the end, or in the place of the rung it replaces.</param>
/// <param name="Endurance">The one long hold of the endurance school that grants the next rung; none: it has none.</param>
/// <param name="Eases">What makes it easier within a session, beside range and seconds. Common practice.</param>
/// <param name="Heights">Heights of the surface it can be done at, metres, the easiest first (a high counter, a low step); none: as drawn.</param>
/// <param name="Loads">Kilograms it is loaded with, the lightest first. <paramref name="Banded"/>: it has a band, light to strong.</param>
/// <param name="Ways">The ways of one round, in order; none: it has one.</param>
/// <param name="Features">Properties that precautions look for, such as <c>hands-flat</c>.</param>
public sealed record Rung(
    string Id,
    string Name,
    string Position,
    RungSides Sides,
    string SideMeans,
    IReadOnlyList<string> Setup,
    string Movement,
    string Limit,
    string Breath,
    double MoveSeconds,
    Dose Start,
    Dose Target,
    Dose Cap,
    IReadOnlyList<string> Cues,
    string Feel,
    string NotFeel,
    IReadOnlyList<string> Faults,
    IReadOnlyList<string> Equipment,
    IReadOnlyList<string> Features,
    RungPoses Poses,
    View View = View.Side,
    IReadOnlyDictionary<string, FaultKind>? FaultKinds = null,
    string? After = null,
    Dose? Endurance = null,
    IReadOnlyList<Ease>? Eases = null,
    IReadOnlyList<double>? Heights = null,
    IReadOnlyList<double>? Loads = null,
    bool Banded = false,
    IReadOnlyList<RungWay>? Ways = null
)
{
    /// <summary>Holds do not grow beyond the policy's seconds while the back is not calm.</summary>
    public const string ShortHoldsFeature = "short-holds-while-sore";

    /// <summary>Something moves: it is not only held.</summary>
    [JsonIgnore]
    public bool Moves => Poses.Path.Distinct().Count() > 1;

    /// <summary>It can be done less far. A circle cannot: a smaller one is another rung.</summary>
    [JsonIgnore]
    public bool HasRange => Poses.Start != Poses.End;

    /// <summary>Heights that are harder than the present one, the next first; empty where none is. No present one: the first.</summary>
    public IReadOnlyList<double> HarderHeights(double? now) => [.. (Heights ?? []).Skip(PlaceOf(now) + 1)];

    /// <summary>Heights that are easier than the present one, the next first.</summary>
    public IReadOnlyList<double> EasierHeights(double? now) =>
        [.. (Heights ?? []).Take(PlaceOf(now)).Reverse()];

    /// <summary>Place of the height nearest to the present one.</summary>
    private int PlaceOf(double? now) =>
        now is not { } height || Heights is not { Count: > 0 } heights
            ? 0
            : Enumerable.Range(0, heights.Count).MinBy(i => Math.Abs(heights[i] - height));

    /// <summary>Features the rules themselves look for: rungs that teach a position, and the one that joins breath and switch-on.</summary>
    public const string NeutralFeature = "neutral";

    /// <summary>Feature of rungs that teach to make the trunk ready.</summary>
    public const string ActivationFeature = "switch-on";

    /// <summary>The arms go over the head.</summary>
    public const string OverheadFeature = "arms-overhead";

    /// <summary>Asks for nothing that a long hold could strain: sitting, lying, walking.</summary>
    public const string EasyFeature = "no-strain";

    /// <summary>Tolerance in minutes, not control: walking and running.</summary>
    public const string ToleranceFeature = "walking";

    /// <summary>Features that belong to a school: held rounded, and rolled bone by bone.</summary>
    public const string RoundedFeature = "rounded-reach";

    /// <summary>Feature of rungs with a rounded back under load.</summary>
    public const string RolledFeature = "rolled-spine";

    /// <summary>Whether the fault breaks a rep of this rung or only its quality.</summary>
    public FaultKind KindOf(Fault fault) =>
        FaultKinds is not null && FaultKinds.TryGetValue(fault.Code, out var kind) ? kind : fault.Kind;

    /// <summary>
    /// Within the cap; or on the way to the endurance school's one long hold, with no more seconds held in all than the cap
    /// or that hold has.
    /// </summary>
    public bool Allows(Dose dose) =>
        Cap.Covers(dose)
        || Endurance is { } one
            && dose.Hold <= one.Hold
            && dose.TotalReps * dose.Hold <= Math.Max(Cap.TotalReps * Cap.Hold, one.Hold);

    /// <summary>The sides this rung is trained and logged on, in reading order.</summary>
    public IReadOnlyList<Side> TaskSides => Sides == RungSides.Each ? [Side.Left, Side.Right] : [Side.Both];
}

/// <summary>A family of rungs, easiest first.</summary>
/// <param name="Screened">Whether the standing screen climbs it.</param>
/// <param name="Direction">The direction its rungs rise in.</param>
/// <param name="OffOrder">Rungs that ask less in that direction than the one below, and why they stand where they do.</param>
/// <param name="Trained">False for set-ups that are only tests: they are drawn and logged, never planned.</param>
/// <param name="Successors">Rungs that moved to other ladders, by their old id: old records are read as these.</param>
/// <param name="Fallback">Rung of another ladder to train when not even the lowest rung here is clean.</param>
public sealed record Ladder(
    string Id,
    string Name,
    string About,
    bool Screened,
    IReadOnlyList<Rung> Rungs,
    string Source,
    Direction Direction,
    OnSide On = OnSide.Task,
    IReadOnlyDictionary<string, string>? OffOrder = null,
    string? Fallback = null,
    bool Trained = true,
    IReadOnlyDictionary<string, string>? Successors = null
)
{
    /// <summary>It is trained, or was under names that have since moved: what was done on it says something of the client.</summary>
    [JsonIgnore]
    public bool Measured => Trained || Successors is not null;

    /// <summary>Its rungs are no positions but amounts of what people do anyway, one above the other: walking and running.</summary>
    [JsonIgnore]
    public bool IsTolerance => Rungs.Any(rung => rung.Features.Contains(Rung.ToleranceFeature));

    /// <summary>Place of a rung on the ladder, 0 for the lowest; -1 where it is not on it.</summary>
    public int IndexOf(string rungId)
    {
        for (var i = 0; i < Rungs.Count; i++)
        {
            if (Rungs[i].Id == rungId)
            {
                return i;
            }
        }
        return -1;
    }
}
