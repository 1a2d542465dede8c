using Palaestra.Core.Planning;

namespace Palaestra.Core.Visits;

/// <summary>What was done at home of one exercise and side between two visits, against what was planned.</summary>
/// <param name="PlannedReps">Reps of all planned days. <paramref name="DoneReps"/>: as written down; more than planned on a day counts as planned.</param>
/// <param name="Days">Days on which it was written down as done.</param>
/// <param name="WorstPain">The most pain while doing it; none where nothing was written.</param>
/// <param name="WorstMorning">The most pain on a morning after it was done.</param>
public sealed record HomeWork(
    Guid PlanItemId,
    Side Side,
    int PlannedReps,
    int DoneReps,
    int Days,
    int? WorstPain,
    int? WorstMorning
)
{
    /// <summary>Done over planned, 0 to 1; none where nothing was planned.</summary>
    public double? Share => PlannedReps == 0 ? null : Math.Min(1, (double)DoneReps / PlannedReps);

    /// <summary>
    /// One line per exercise and side of the plan. A log with no day in it says nothing: then there is no line at all, since
    /// a client who brought no sheet may still have trained.
    /// </summary>
    /// <param name="planned">The days of the calendar between the two visits.</param>
    /// <param name="log">Days written down between the two visits.</param>
    public static IReadOnlyList<HomeWork> Of(
        IReadOnlyList<PlanItem> items,
        IReadOnlyList<TrainingDay> planned,
        IReadOnlyList<HomeDay> log
    ) =>
        log.Count == 0
            ? []
            :
            [
                .. from item in items
                from side in item.Doses
                let perDay = side.Dose.TotalReps
                let done = log.Select(day => (Day: day, Reps: RepsOf(day, item.Id, side.Side)))
                    .Where(pair => pair.Reps > 0)
                    .ToList()
                select new HomeWork(
                    item.Id,
                    side.Side,
                    planned.Count(day => day.ItemIds.Contains(item.Id)) * perDay,
                    done.Sum(pair => Math.Min(pair.Reps, perDay)),
                    done.Count,
                    done.Max(pair => pair.Day.Pain),
                    done.Max(pair => pair.Day.NextMorning)
                ),
            ];

    /// <summary>
    /// What was done over several spells between visits, one after the other. None where a spell has no log, or where the plan had
    /// other exercises in one of them: then the whole says nothing.
    /// </summary>
    public static IReadOnlyList<HomeWork>? Together(IReadOnlyList<IReadOnlyList<HomeWork>> spells)
    {
        if (spells.Count == 0 || spells.Any(spell => spell.Count == 0))
        {
            return null;
        }
        var ids = spells.Select(spell => spell.Select(home => home.PlanItemId).ToHashSet()).ToList();
        return ids.Any(own => !own.SetEquals(ids[0]))
            ? null
            :
            [
                .. spells
                    .SelectMany(spell => spell)
                    .GroupBy(home => (home.PlanItemId, home.Side))
                    .Select(same => new HomeWork(
                        same.Key.PlanItemId,
                        same.Key.Side,
                        same.Sum(home => home.PlannedReps),
                        same.Sum(home => home.DoneReps),
                        same.Sum(home => home.Days),
                        same.Max(home => home.WorstPain),
                        same.Max(home => home.WorstMorning)
                    )),
            ];
    }

    private static int RepsOf(HomeDay day, Guid item, Side side) =>
        day.Done.Where(d => d.PlanItemId == item && d.Side == side).Sum(d => d.Reps);
}
