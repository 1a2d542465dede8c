namespace Palaestra.Data.Keeping;

/// <summary>Which nightly backups are kept: the last seven, then the last of each week and of each month. Common practice.</summary>
public static class Generations
{
    private const int Days = 7;
    private const int Weeks = 5;
    private const int Months = 12;

    /// <summary>By then a backup made at a moment is gone, as long as others are made.</summary>
    public static DateTimeOffset End(DateTimeOffset made) => made.AddMonths(Months + 1);

    /// <param name="made">When each was made, in any order.</param>
    /// <returns>Those to delete; never the youngest.</returns>
    public static IReadOnlyList<DateTime> Past(IEnumerable<DateTime> made)
    {
        var all = made.OrderDescending().ToList();
        var kept = all.Take(Days)
            .Concat(all.GroupBy(Monday).Take(Weeks).Select(week => week.First()))
            .Concat(all.GroupBy(at => (at.Year, at.Month)).Take(Months).Select(month => month.First()))
            .ToHashSet();
        return [.. all.Where(at => !kept.Contains(at))];
    }

    private static DateTime Monday(DateTime at) => at.Date.AddDays(-(((int)at.DayOfWeek + 6) % 7));
}
