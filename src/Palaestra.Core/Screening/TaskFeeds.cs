using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>
/// Where a ladder that was not climbed stands by the tasks that speak of it: a failed let-go is a one-sided press, a roll that
/// holds at a smaller angle a smaller turn.
/// </summary>
public static class TaskFeeds
{
    /// <summary>One entry for each ladder and side that some task told of, the lowest where several did.</summary>
    /// <param name="screen">Ended screen trials, in order of time; trials ended by pain say nothing, and take back what the same had held before; what it had not held stays. What was taken back lets nothing harder take its place.</param>
    /// <param name="climbed">Ladders that were climbed: their own trials go before.</param>
    public static IReadOnlyList<RungSearch> Of(
        IReadOnlyList<Trial> screen,
        IReadOnlySet<string> climbed,
        PracticeLibrary library
    )
    {
        var told =
            from trial in screen
            let task = library.FindTask(trial.TaskId)
            where !PainLimited(trial)
            from feed in task?.Feeds ?? []
            where !climbed.Contains(feed.Ladder) && (feed.Rung is null || feed.Rung == trial.RungId)
            let ladder = library.Ladders.First(l => l.Id == feed.Ladder)
            let side = feed.On == OnSide.Task ? trial.Side : trial.Side.Other()
            from entry in Told(EntryOf(trial, task!, feed, ladder, side, library))
            let takenBack = entry.EntryRungId != feed.Failed && HurtLater(trial, screen)
            group (Entry: entry, TakenBack: takenBack) by (entry.LadderId, entry.Side) into same
            let ladder = library.Ladders.First(l => l.Id == same.Key.LadderId)
            let lowest = same.OrderBy(e => ladder.IndexOf(e.Entry.EntryRungId!))
                .ThenBy(e => e.Entry.Range)
                .ThenBy(e => e.TakenBack)
                .First()
            where !lowest.TakenBack
            select lowest.Entry;
        return [.. told];
    }

    private static IEnumerable<RungSearch> Told(RungSearch? entry) => entry is null ? [] : [entry];

    /// <summary>Ended by pain before anything gave way: of control it says nothing.</summary>
    public static bool PainLimited(Trial trial) => trial.Hurt && trial.FirstBreak is null;

    /// <summary>The same was done again and hurt.</summary>
    private static bool HurtLater(Trial trial, IReadOnlyList<Trial> screen) =>
        screen
            .SkipWhile(t => t.Id != trial.Id)
            .Any(t =>
                (t.TaskId, t.RungId, t.Side, t.Variant)
                    == (trial.TaskId, trial.RungId, trial.Side, trial.Variant)
                && PainLimited(t)
            );

    private static RungSearch? EntryOf(
        Trial trial,
        ScreenTask task,
        TaskFeed feed,
        Ladder ladder,
        Side side,
        PracticeLibrary library
    )
    {
        var clean = feed.From is { } from ? trial.Clean.Longest >= from : trial.Clean.Fraction >= 1;
        RungSearch Entry(string rung, Message why, double range = 1) =>
            new(ladder.Id, side, true, null, rung, why, [trial.Id], range, true, task.Id);
        if (clean)
        {
            return feed.Clean is { } rung ? Entry(rung, Message.Of("feed.clean", ("task", task.Id))) : null;
        }
        var share = task is { Measure: MeasureKind.Degrees, Full: { } full }
            ? (trial.Clean.Reach?.Degrees ?? 0) / full
            : 0;
        return share >= RungFinder.LeastRange && ladder.IndexOf(trial.RungId) >= 0
            ? Entry(
                trial.RungId,
                Message.Of("feed.range", ("task", task.Id), ("degrees", trial.Clean.Reach!.Degrees)),
                Math.Round(share, 2)
            )
            : Entry(
                feed.Failed,
                Message.Of("feed.gave-way", ("task", task.Id), ("side", trial.Side), ("rung", feed.Failed))
            );
    }
}
