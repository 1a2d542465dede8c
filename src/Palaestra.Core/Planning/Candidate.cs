using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>A rung that may go into a plan.</summary>
/// <param name="Why">What allows it: P-ENTRY, P-SHOWN, P-FIRST, P-FALLBACK or P-BASE, and P-SORE-LOW beside it.</param>
/// <param name="Highest">The highest of its ladder that may.</param>
/// <param name="Weaker">The side that needs more; none when even.</param>
/// <param name="Basic">Neutral or activation.</param>
/// <param name="Ranges">By side, the share of the movement that was clean; none: all of it.</param>
internal sealed record Candidate(
    Ladder Ladder,
    Rung Rung,
    IReadOnlyList<Reason> Why,
    bool Highest,
    Side? Weaker,
    bool Basic,
    Allowance Allowance,
    IReadOnlyDictionary<Side, double>? Ranges = null
)
{
    /// <summary>Share of the movement a side was seen clean over.</summary>
    public double RangeOf(Side side) => Ranges?.GetValueOrDefault(side, 1) ?? 1;

    /// <summary>The sides it is trained on: as the rung has them, or the one a precaution wants to work.</summary>
    public IReadOnlyList<Side> Sides =>
        Allowance.WorkingSide is { } only && Rung.Sides == RungSides.Each ? [only] : Rung.TaskSides;

    /// <summary>How much it asks of a direction, on the side on which it asks most.</summary>
    public double Asks(Sector sector, PracticeLibrary library) => Asks(Rung, sector, library);

    public static double Asks(Rung rung, Sector sector, PracticeLibrary library) =>
        Math.Max(library.WeightOf(rung, sector, Side.Left), library.WeightOf(rung, sector, Side.Right));

    /// <summary>The side with the lower entry; on the same rung, the side behind by more than even in any task of the ladder.</summary>
    public static Side? WeakerOf(
        Ladder ladder,
        IReadOnlyList<RungSearch> searches,
        ScreenFindings findings,
        Policy policy,
        PracticeLibrary library
    )
    {
        (int Rung, double Range)? At(Side side) =>
            searches.FirstOrDefault(s => s.Side == side) is { EntryRungId: { } id } search
                ? (ladder.IndexOf(id), search.Range)
                : null;
        if (At(Side.Left) is { } left && At(Side.Right) is { } right && left != right)
        {
            return left.CompareTo(right) < 0 ? Side.Left : Side.Right;
        }
        return findings
            .Tasks.Where(task => task.Weaker is not null && task.DifferencePercent >= policy.EvenPercent)
            .Select(task => (Task: task, Side: WeakerHere(ladder, task, library)))
            .Where(pair => pair.Side is not null)
            .OrderByDescending(pair => pair.Task.DifferencePercent)
            .ThenBy(pair => pair.Task.RungId, StringComparer.Ordinal)
            .Select(pair => pair.Side)
            .FirstOrDefault();
    }

    /// <summary>The weaker side as this ladder names its sides: of a task on it, or of one that tells of it.</summary>
    private static Side? WeakerHere(Ladder ladder, TaskFinding task, PracticeLibrary library)
    {
        if (ladder.IndexOf(task.RungId) >= 0)
        {
            return task.Weaker;
        }
        var feed = library.FindTask(task.TaskId)?.Feeds?.FirstOrDefault(f => f.Ladder == ladder.Id);
        return feed is null ? null
            : feed.On == OnSide.Task ? task.Weaker
            : task.Weaker?.Other();
    }
}
