using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>One trial to do next.</summary>
/// <param name="Target">What is asked of it.</param>
/// <param name="Load">Kilograms, for tasks that raise a load.</param>
public sealed record ScreenStep(
    string TaskId,
    string RungId,
    Side Side,
    string? Variant,
    double? Load,
    Dose Target,
    Message Why
);

/// <summary>Where one task of the battery stands.</summary>
/// <param name="Next">None when it is done.</param>
/// <param name="Trials">Its trials so far.</param>
public sealed record TaskState(string TaskId, bool Done, ScreenStep? Next, IReadOnlyList<Guid> Trials);

/// <summary>Leads through a battery: which task, which rung, which side, which way comes next.</summary>
public static class ScreenGuide
{
    /// <param name="trials">Ended screen trials of the visit, in order of time.</param>
    /// <param name="weaker">The weaker side by what was known before, task by task; none where nothing is.</param>
    public static IReadOnlyList<TaskState> States(
        Battery battery,
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library,
        Func<string, Side?>? weaker = null
    ) =>
        [
            .. from item in battery.Items
            let task = library.FindTask(item.TaskId)
            where task is not null
            select StateOf(
                item,
                task,
                trials,
                profile,
                policy,
                library,
                battery.Missing,
                weaker?.Invoke(item.TaskId)
            ),
        ];

    private static TaskState StateOf(
        BatteryItem item,
        ScreenTask task,
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library,
        IReadOnlyList<string> missing,
        Side? weaker
    )
    {
        var own = trials
            .Where(t => t.TaskId == task.Id || (task.Climbs && Climbed(t, task, library)))
            .OrderBy(t => t.StartedAt)
            .ToList();
        var open = task.Climbs
            ? ClimbSteps(item, task, trials, profile, policy, library, missing)
            : LookSteps(item, task, own, library);
        var next = Turn(open, own.LastOrDefault()?.Side, weaker, policy.SideOrder);
        return new(task.Id, next is null, next, [.. own.Select(t => t.Id)]);
    }

    private static bool Climbed(Trial trial, ScreenTask task, PracticeLibrary library) =>
        RungFinder.Climbs(trial, library) && library.LadderOf(trial.RungId).Id == task.Ladder;

    /// <summary>For each side that is not bracketed yet, the rung to try.</summary>
    private static List<ScreenStep> ClimbSteps(
        BatteryItem item,
        ScreenTask task,
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library,
        IReadOnlyList<string> missing
    )
    {
        var ladder = library.Ladders.First(l => l.Id == task.Ladder);
        var sides = item.Sides.Contains(Side.Both) ? [Side.Left] : item.Sides;
        return
        [
            .. from side in sides
            let search = RungFinder.Search(ladder, side, trials, profile, policy, library, missing)
            where search.NextRungId is not null
            let rung = library.Rung(search.NextRungId!)
            select new ScreenStep(
                task.Id,
                rung.Id,
                rung.Sides == RungSides.Each ? side : Side.Both,
                null,
                null,
                rung.Start with
                {
                    Sets = 1,
                },
                search.Why
            ),
        ];
    }

    /// <summary>For each way and side not looked at yet, one trial.</summary>
    private static List<ScreenStep> LookSteps(
        BatteryItem item,
        ScreenTask task,
        List<Trial> own,
        PracticeLibrary library
    )
    {
        var place = task.Surfaces?.FirstOrDefault(s => s.Id == item.Surface);
        var rung = library.Rung(place?.Rung ?? task.Rung!);
        var target = task.Target ?? rung.Start with { Sets = 1 };
        return
        [
            .. from way in task.Ways
            from side in item.Sides
            let done = own.Where(t => t.Side == side && t.Variant == way).ToList()
            let weighed = task.Measure == MeasureKind.Kilograms
            let load = weighed ? NextLoad(task, rung, done, library) : null
            where weighed ? load is not null : done.Count == 0
            select new ScreenStep(task.Id, rung.Id, side, way, load, target, WhyLook(task, way, done)),
        ];
    }

    private static Message WhyLook(ScreenTask task, string? way, List<Trial> done) =>
        way is not null ? Message.Plain(task.Variants!.First(v => v.Id == way).Name)
        : done.Count > 0 ? Message.Of("screen.heavier", ("load", done[^1].Load))
        : Message.Plain(task.Tells);

    /// <summary>
    /// The lightest load above the last clean one over the whole movement; none after one that broke, hurt, went less far or was
    /// the heaviest, nor up to it again.
    /// </summary>
    private static double? NextLoad(ScreenTask task, Rung rung, List<Trial> done, PracticeLibrary library)
    {
        bool Held(Trial trial) => trial.Lifted && RungFinder.IsWhole(trial, rung, library);
        if (done.Count == 0)
        {
            return task.Loads![0];
        }
        var most = done.Where(t => !Held(t)).Select(t => t.Load ?? 0).DefaultIfEmpty(double.MaxValue).Min();
        return task.Loads!.Where(load => load > (done[^1].Load ?? 0) && load < most)
            .Select(load => (double?)load)
            .FirstOrDefault();
    }

    private static ScreenStep? Turn(List<ScreenStep> open, Side? last, Side? weaker, SideOrder order)
    {
        if (open.Count == 0)
        {
            return null;
        }
        var first = order == SideOrder.WeakerFirst && weaker is { } weak ? weak : Side.Left;
        var wanted = order switch
        {
            SideOrder.Alternate when last is { } done && done != Side.Both => done.Other(),
            _ when last is { } begun && begun != Side.Both && open.Any(s => s.Side == begun) => begun,
            _ => first,
        };
        // One way is finished on both sides before the next way begins.
        var way = open[0].Variant;
        var ways = open.Where(step => step.Variant == way).ToList();
        return ways.FirstOrDefault(step => step.Side == wanted) ?? ways[0];
    }
}
