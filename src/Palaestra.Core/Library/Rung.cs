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

/// <summary>How much a rung asks of one direction, 0 to 1, against the hardest rung in that direction.</summary>
/// <remarks>Weights are common practice until the body model computes them.</remarks>
public sealed record Demand(Direction Direction, double Weight, OnSide On = OnSide.Task);

/// <summary>Names of the poses between which the rung moves.</summary>
public sealed record RungPoses(string Start, string End);

/// <summary>One stage of a ladder: exactly what is done, how much, and what to watch.</summary>
/// <param name="SideMeans">What "side" names in this task, in words.</param>
/// <param name="MoveSeconds">Seconds one rep takes out and back, without its hold.</param>
/// <param name="Start">Dose to begin with. <paramref name="Target"/>: met clean, move on. <paramref name="Cap"/>: never above.</param>
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
    IReadOnlyList<Demand> Demands,
    RungPoses Poses
)
{
    /// <summary>The sides this rung is trained and logged on, in reading order.</summary>
    public IReadOnlyList<Side> TaskSides => Sides == RungSides.Each ? [Side.Left, Side.Right] : [Side.Both];
}

/// <summary>A family of rungs, easiest first.</summary>
/// <param name="Screened">Whether the standing screen climbs it.</param>
/// <param name="Fallback">Rung of another ladder to train when not even the lowest rung here is clean.</param>
public sealed record Ladder(
    string Id,
    string Name,
    string About,
    bool Screened,
    IReadOnlyList<Rung> Rungs,
    string Source,
    string? Fallback = null
)
{
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
