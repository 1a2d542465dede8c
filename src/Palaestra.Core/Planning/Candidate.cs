using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>A rung that may go into a plan.</summary>
/// <param name="Why">What allows it: P-ENTRY, P-SHOWN, P-FIRST, P-FALLBACK or P-BASE, and P-SORE-LOW beside it.</param>
/// <param name="Highest">The highest of its ladder that may.</param>
/// <param name="Weaker">The side that needs more; none when even.</param>
/// <param name="Basic">Neutral or switch-on.</param>
internal sealed record Candidate(
    Ladder Ladder,
    Rung Rung,
    IReadOnlyList<Reason> Why,
    bool Highest,
    Side? Weaker,
    bool Basic,
    Allowance Allowance
)
{
    /// <summary>The sides it is trained on: as the rung has them, or the one a precaution wants to work.</summary>
    public IReadOnlyList<Side> Sides =>
        Allowance.WorkingSide is { } only && Rung.Sides == RungSides.Each ? [only] : Rung.TaskSides;

    /// <summary>How much it asks of a direction, on the side on which it asks most.</summary>
    public double Asks(Sector sector, PracticeLibrary library) => Asks(Rung, sector, library);

    public static double Asks(Rung rung, Sector sector, PracticeLibrary library) =>
        Math.Max(
            ControlEstimate.WeightOf(rung, sector, Side.Left, library),
            ControlEstimate.WeightOf(rung, sector, Side.Right, library)
        );

    /// <summary>The side with the lower entry; on the same rung, the side behind by more than even in any task of the ladder.</summary>
    public static Side? WeakerOf(
        Ladder ladder,
        IReadOnlyList<RungSearch> searches,
        ScreenFindings findings,
        Policy policy
    )
    {
        var left = searches.FirstOrDefault(s => s.Side == Side.Left)?.EntryRungId;
        var right = searches.FirstOrDefault(s => s.Side == Side.Right)?.EntryRungId;
        if (left is not null && right is not null && left != right)
        {
            return ladder.IndexOf(left) < ladder.IndexOf(right) ? Side.Left : Side.Right;
        }
        return findings
            .Tasks.Where(task => ladder.IndexOf(task.RungId) >= 0 && task.Weaker is not null)
            .Where(task => task.DifferencePercent >= policy.EvenPercent)
            .OrderByDescending(task => task.DifferencePercent)
            .ThenBy(task => task.RungId, StringComparer.Ordinal)
            .Select(task => task.Weaker)
            .FirstOrDefault();
    }
}
