using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Days on which the client is away: both ends are in it.</summary>
public sealed record DaysAway(DateOnly From, DateOnly To, string? Why = null)
{
    /// <summary>Whether that day is one of them, the last one too.</summary>
    public bool Holds(DateOnly day) => From <= day && day <= To;
}

/// <summary>One day of training.</summary>
/// <param name="ItemIds">Exercises, in the order of the plan.</param>
public sealed record TrainingDay(DateOnly Day, IReadOnlyList<Guid> ItemIds, double Minutes);

/// <summary>Lays a plan out over days.</summary>
public static class PlanCalendar
{
    /// <summary>
    /// What rests is on no day. The days from <paramref name="from"/> to <paramref name="to"/>, both in it, on which something is done. So many days
    /// in each week from the first day on, spread evenly; none while the client is away. Loaded exercises on no more days
    /// in a week than the policy lets, with its days between; the others on the policy's days of control work.
    /// </summary>
    /// <param name="daysPerWeek">1 to 7.</param>
    public static IReadOnlyList<TrainingDay> Of(
        Plan plan,
        DateOnly from,
        DateOnly to,
        int daysPerWeek,
        IReadOnlyList<DaysAway> away,
        Policy policy,
        PracticeLibrary library
    )
    {
        var todo = plan.Items.Where(item => !item.Resting).ToList();
        var loaded = todo.Where(item => policy.Loaded.Is(library.Rung(item.RungId))).ToList();
        var light = todo.Except(loaded).ToList();
        var days = new List<TrainingDay>();
        DateOnly? lastLoaded = null;
        var lightInWeek = 0;
        var loadedInWeek = 0;
        for (var day = from; day <= to; day = day.AddDays(1))
        {
            var ofWeek = (day.DayNumber - from.DayNumber) % 7;
            if (ofWeek == 0)
            {
                lightInWeek = 0;
                loadedInWeek = 0;
            }
            if (away.Any(stretch => stretch.Holds(day)) || !Trains(ofWeek, daysPerWeek))
            {
                continue;
            }
            var withLoad =
                loaded.Count > 0
                && loadedInWeek < policy.Loaded.DaysPerWeek
                && (lastLoaded is not { } last || day.DayNumber - last.DayNumber > policy.Loaded.DaysBetween);
            var withLight = light.Count > 0 && lightInWeek < policy.LowLoadDays;
            var items = todo.Where(item => loaded.Contains(item) ? withLoad : withLight).ToList();
            if (items.Count == 0)
            {
                continue;
            }
            loadedInWeek += withLoad ? 1 : 0;
            lightInWeek += withLight ? 1 : 0;
            lastLoaded = withLoad ? day : lastLoaded;
            days.Add(
                new(day, [.. items.Select(item => item.Id)], Math.Round(items.Sum(item => item.Minutes), 1))
            );
        }
        return days;
    }

    /// <summary>The days of a week, from 0, that are trained when there are so many: spread evenly, the first among them.</summary>
    private static bool Trains(int ofWeek, int daysPerWeek) =>
        ofWeek == 0 || ofWeek * daysPerWeek / 7 > (ofWeek - 1) * daysPerWeek / 7;
}
