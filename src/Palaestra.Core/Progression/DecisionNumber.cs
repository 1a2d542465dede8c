using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>A number a decision was made from, that may be asked "what if" about.</summary>
public enum NumberKind
{
    /// <summary>Clean reps of the side today, of all sets.</summary>
    CleanReps,

    /// <summary>The highest effort of the exercise today, 0 to 10.</summary>
    Effort,

    /// <summary>Sets of the side today in which pain went over the limit.</summary>
    PainfulSets,

    /// <summary>Pain the morning after the last work, 0 to 10.</summary>
    NextDayPain,

    /// <summary>Pain at check-in, 0 to 10.</summary>
    PainNow,

    /// <summary>Hours until it was as before.</summary>
    SettledHours,

    /// <summary>Days without training before this visit.</summary>
    DaysAway,

    /// <summary>Home work done of what was planned, percent.</summary>
    HomePercent,
}

/// <param name="Now">As it was; none where it is not known.</param>
/// <param name="Step">Distance of values worth trying.</param>
public sealed record DecisionNumber(NumberKind Kind, Message Name, int? Now, int Min, int Max, int Step)
{
    /// <summary>All it could be, least first.</summary>
    public IEnumerable<int> Values => Enumerable.Range(0, (Max - Min) / Step + 1).Select(i => Min + i * Step);
}

/// <summary>Reads and changes the numbers behind the decision of one exercise and side.</summary>
public static class DecisionNumbers
{
    private const int HoursMax = 48;
    private const int DaysMax = 60;

    /// <summary>The numbers a decision was made from, each with what it could have been; empty where the exercise was not done.</summary>
    public static IReadOnlyList<DecisionNumber> Of(
        DecideInput input,
        Guid itemId,
        Side side,
        PracticeLibrary library
    )
    {
        var check = input.CheckIn;
        var numbers = new List<DecisionNumber>();
        if (Today(input, itemId, side) is { } today)
        {
            numbers.Add(
                new(
                    NumberKind.CleanReps,
                    Message.Of("number-kind.clean-reps"),
                    today.CleanReps,
                    0,
                    today.Prescribed.TotalReps,
                    1
                )
            );
            numbers.Add(
                new(NumberKind.Effort, Message.Of("number-kind.effort"), EffortOf(input, itemId), 0, 10, 1)
            );
            numbers.Add(
                new(
                    NumberKind.PainfulSets,
                    Message.Of("number-kind.painful-sets"),
                    today.Sets.Count(set => set.Over(PainOf(input, library), check.PainNow)),
                    0,
                    Math.Max(1, today.Sets.Count),
                    1
                )
            );
        }
        numbers.Add(
            new(NumberKind.NextDayPain, Message.Of("number-kind.next-day-pain"), check.NextDayPain, 0, 10, 1)
        );
        numbers.Add(new(NumberKind.PainNow, Message.Of("number-kind.pain-now"), check.PainNow, 0, 10, 1));
        numbers.Add(
            new(
                NumberKind.SettledHours,
                Message.Of("number-kind.settled-hours"),
                check.Hours is { } hours ? (int)Math.Round(hours) : null,
                0,
                HoursMax,
                1
            )
        );
        numbers.Add(
            new(
                NumberKind.DaysAway,
                Message.Of("number-kind.days-away"),
                input.LastWorkDate is { } last ? input.Date.DayNumber - last.DayNumber : null,
                0,
                DaysMax,
                1
            )
        );
        if (input.Home?.FirstOrDefault(h => h.PlanItemId == itemId && h.Side == side)?.Share is { } share)
        {
            numbers.Add(
                new(
                    NumberKind.HomePercent,
                    Message.Of("number-kind.home-percent"),
                    (int)Math.Round(100 * share),
                    0,
                    100,
                    5
                )
            );
        }
        return numbers;
    }

    /// <summary>The input as it would be had one number been another.</summary>
    public static DecideInput With(
        DecideInput input,
        Guid itemId,
        Side side,
        NumberKind kind,
        int value,
        PracticeLibrary library
    ) =>
        kind switch
        {
            NumberKind.CleanReps => Each(input, itemId, side, p => WithMoreClean(p, value - p.CleanReps)),
            NumberKind.Effort => Each(input, itemId, null, p => WithEffort(p, value)),
            NumberKind.PainfulSets => Each(
                input,
                itemId,
                side,
                p => WithPain(p, value, PainOf(input, library), input.CheckIn.PainNow)
            ),
            NumberKind.NextDayPain => input with { CheckIn = input.CheckIn with { NextDayPain = value } },
            NumberKind.PainNow => input with { CheckIn = input.CheckIn with { PainNow = value } },
            NumberKind.SettledHours => input with
            {
                CheckIn = input.CheckIn with { SettledHours = value, Settled = null },
            },
            NumberKind.DaysAway => input with { LastWorkDate = input.Date.AddDays(-value) },
            NumberKind.HomePercent => input with
            {
                Home =
                [
                    .. (input.Home ?? []).Select(h =>
                        h.PlanItemId == itemId && h.Side == side
                            ? h with
                            {
                                DoneReps = (int)Math.Round(h.PlannedReps * value / 100.0),
                            }
                            : h
                    ),
                ],
            },
            _ => input,
        };

    private static PainRule PainOf(DecideInput input, PracticeLibrary library) =>
        (library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy).Pain;

    /// <summary>What that side of that exercise did at the visit; none where it was not done.</summary>
    public static Performance? Today(DecideInput input, Guid itemId, Side side) =>
        input.Visits.FirstOrDefault(p => p.Visit == input.Visit && p.PlanItemId == itemId && p.Side == side);

    private static int? EffortOf(DecideInput input, Guid itemId) =>
        input.Visits.Where(p => p.Visit == input.Visit && p.PlanItemId == itemId).Select(p => p.Effort).Max();

    /// <param name="side">None: both.</param>
    internal static DecideInput Each(
        DecideInput input,
        Guid itemId,
        Side? side,
        Func<Performance, Performance> change
    ) =>
        input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Visit == input.Visit && p.PlanItemId == itemId && (side is null || p.Side == side)
                        ? change(p)
                        : p
                ),
            ],
        };

    private static Performance WithEffort(Performance p, int effort) =>
        p with
        {
            Sets = [.. p.Sets.Select(set => set with { Effort = effort })],
        };

    /// <summary>So many sets over the limit: those that are stay as they are, the first others join them; what is over beyond them was painless.</summary>
    private static Performance WithPain(Performance p, int sets, PainRule rule, int? checkIn)
    {
        var painful = p.Sets.Select(set => set.Over(rule, checkIn)).ToList();
        var order = Enumerable.Range(0, p.Sets.Count).OrderByDescending(i => painful[i]).ThenBy(i => i);
        var chosen = order.Take(sets).ToHashSet();
        return p with
        {
            Sets =
            [
                .. p.Sets.Select(
                    (set, i) =>
                        chosen.Contains(i) == painful[i] ? set
                        : chosen.Contains(i) ? set with { PainOver = true }
                        : set with
                        {
                            PainOver = false,
                            EndedForPain = false,
                            PainPeak = null,
                            PainAfter = null,
                        }
                ),
            ],
        };
    }

    /// <summary>
    /// Moves reps between clean and broken, set by set. Sets that were made easier or are missing are done as asked first.
    /// </summary>
    private static Performance WithMoreClean(Performance p, int by)
    {
        var left = Math.Abs(by);
        var sets = new List<SetDone>();
        foreach (var set in p.Sets)
        {
            var asked =
                set.Eased && by > 0 ? set with { Eased = false, CleanReps = 0, CuedCleanReps = 0 } : set;
            var room = by > 0 ? Math.Max(0, p.Prescribed.Reps - asked.CleanReps) : asked.CleanReps;
            var step = Math.Min(left, room);
            left -= step;
            sets.Add(step == 0 ? set : Moved(asked, step * Math.Sign(by)));
        }
        while (by > 0 && left > 0)
        {
            var reps = Math.Min(left, p.Prescribed.Reps);
            left -= reps;
            sets.Add(new SetDone(reps, reps, 0, 0, reps * p.Prescribed.Hold, false, null, p.Effort, null));
        }
        return p with { Sets = sets };
    }

    private static SetDone Moved(SetDone set, int step) =>
        set with
        {
            CleanReps = set.CleanReps + step,
            Reps = Math.Max(set.Reps, set.CleanReps + step),
            BreakingReps = Math.Max(0, set.BreakingReps - step),
        };
}
