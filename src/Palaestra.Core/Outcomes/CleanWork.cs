using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Outcomes;

/// <summary>Clean work of one week, at the visits.</summary>
/// <param name="Week">Of the episode, 1 for the first. <paramref name="From"/>: its first day.</param>
/// <param name="Seconds">Clean seconds under control, movement included.</param>
/// <param name="Directions">The same by direction, each counted by how much its rung asks for it.</param>
public sealed record CleanWeek(
    int Week,
    DateOnly From,
    double Seconds,
    IReadOnlyDictionary<Sector, double> Directions
);

/// <summary>How much of what was asked was clean on each side, at one visit.</summary>
/// <param name="Left">Share of the two-sided exercises' reps, 0 to 1; likewise <paramref name="Right"/>.</param>
public sealed record SideShare(int Visit, DateOnly Day, double Left, double Right)
{
    /// <summary>Stronger less weaker, of the stronger, percent; 0 when neither did anything clean.</summary>
    public double DifferencePercent =>
        Math.Max(Left, Right) is var most && most > 0 ? 100 * Math.Abs(Left - Right) / most : 0;
}

/// <summary>Clean work over an episode: what was done before the trunk gave way.</summary>
public static class CleanWork
{
    /// <summary>Every week from the first day to the last visit, empty ones too. Work that was eased counts: it was clean work of less.</summary>
    public static IReadOnlyList<CleanWeek> ByWeek(
        DateOnly opened,
        IReadOnlyList<Performance> visits,
        PracticeLibrary library
    )
    {
        if (visits.Count == 0)
        {
            return [];
        }
        var weeks = visits.ToLookup(p => (p.Date.DayNumber - opened.DayNumber) / 7);
        return
        [
            .. Enumerable
                .Range(0, Math.Max(0, weeks.Max(g => g.Key)) + 1)
                .Select(week => Of(week, opened.AddDays(7 * week), [.. weeks[week]], library)),
        ];
    }

    private static CleanWeek Of(
        int week,
        DateOnly from,
        IReadOnlyList<Performance> done,
        PracticeLibrary library
    )
    {
        var directions = Enum.GetValues<Sector>().ToDictionary(sector => sector, _ => 0.0);
        var total = 0.0;
        foreach (var performance in done)
        {
            var seconds = Seconds(performance, library);
            total += seconds;
            foreach (var (sector, weight) in Weights(performance, library))
            {
                directions[sector] += seconds * weight;
            }
        }
        return new(week + 1, from, Math.Round(total, 1), directions);
    }

    /// <summary>Clean seconds held, and the movement of each clean rep.</summary>
    public static double Seconds(Performance done, PracticeLibrary library) =>
        done.Sets.Sum(set => set.CleanSeconds + set.CleanReps * library.Rung(done.RungId).MoveSeconds);

    private static Dictionary<Sector, double> Weights(Performance done, PracticeLibrary library)
    {
        var rung = library.Rung(done.RungId);
        Side[] sides = done.Side == Side.Both ? [Side.Left, Side.Right] : [done.Side];
        return (
            from demand in library.DemandsOf(rung)
            from side in sides
            let sector = Sectors.Of(demand.Direction, demand.On, side)
            where sector is not null
            group demand.Weight by sector.Value
        ).ToDictionary(g => g.Key, g => g.Max());
    }

    /// <summary>One entry for each visit in which something two-sided was done on both sides.</summary>
    public static IReadOnlyList<SideShare> BySide(IReadOnlyList<Performance> visits) =>
        [
            .. from visit in visits.GroupBy(p => (p.Visit, p.Date))
            let pairs = visit
                .GroupBy(p => p.PlanItemId)
                .Where(g => g.Count() == 2)
                .SelectMany(g => g)
                .ToList()
            where pairs.Count > 0
            orderby visit.Key.Visit
            select new SideShare(
                visit.Key.Visit,
                visit.Key.Date,
                ShareOf(pairs, Side.Left),
                ShareOf(pairs, Side.Right)
            ),
        ];

    private static double ShareOf(List<Performance> done, Side side)
    {
        var mine = done.Where(p => p.Side == side).ToList();
        return Math.Min(
            1,
            mine.Sum(p => p.CleanReps) / (double)Math.Max(1, mine.Sum(p => p.Prescribed.TotalReps))
        );
    }
}
