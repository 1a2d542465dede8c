using System.Globalization;

namespace Palaestra.Core.Terms;

/// <summary>In which order a clinic writes its dates: 29 November 2026, November 29, 2026, or 2026-11-29.</summary>
public enum DateOrder
{
    /// <summary>29.11.2026</summary>
    DayMonthYear,

    /// <summary>11/29/2026</summary>
    MonthDayYear,

    /// <summary>2026-11-29</summary>
    YearMonthDay,
}

/// <summary>Dates in words.</summary>
public static class DateWords
{
    /// <summary>A day with its year, the month by its name: for letters.</summary>
    public static string Long(this DateOrder order, DateOnly day) =>
        Words(day, order, "d MMMM yyyy", "MMMM d, yyyy", "yyyy-MM-dd");

    /// <summary>The same with the month cut short: for the foot of a sheet.</summary>
    public static string Short(this DateOrder order, DateOnly day) =>
        Words(day, order, "d MMM yyyy", "MMM d, yyyy", "yyyy-MM-dd");

    /// <summary>A day of this year: "3 March".</summary>
    public static string InYear(this DateOrder order, DateOnly day) =>
        Words(day, order, "d MMMM", "MMMM d", "MMMM d");

    /// <summary>A day that is near, with its weekday and without its year.</summary>
    public static string Near(this DateOrder order, DateOnly day) =>
        Words(day, order, "dddd d MMMM", "dddd, MMMM d", "dddd, MMMM d");

    private static string Words(
        DateOnly day,
        DateOrder order,
        string dayFirst,
        string monthFirst,
        string yearFirst
    ) =>
        day.ToString(
            order switch
            {
                DateOrder.MonthDayYear => monthFirst,
                DateOrder.YearMonthDay => yearFirst,
                _ => dayFirst,
            },
            CultureInfo.InvariantCulture
        );
}
