using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>
/// Plans a screen: tasks that see every direction, in the minutes there are, with few changes of position, floor before
/// standing, what is sore or tires last.
/// </summary>
public static class BatteryPlanner
{
    /// <summary>A direction counts as seen when a task asks at least this share of the hardest screened rung. Our own.</summary>
    public const double Seen = 0.3;

    /// <summary>The tasks that tell most within the minutes, in the order they are done; empty where none fits or all are barred.</summary>
    public static Battery Propose(
        ClientProfile profile,
        Policy policy,
        BatteryQuestion question,
        PracticeLibrary library
    )
    {
        var options = library
            .Tasks.Where(task => !task.Retired)
            .Select(task => TaskOption.Of(task, profile, policy, question.Missing, library))
            .ToList();
        if (question.Repeat is { } repeat)
        {
            return Again(repeat, options, profile, policy, question, library);
        }
        var chosen = new List<(TaskOption Option, Message Why)>();
        var left = options.Select(o => o.Out).OfType<LeftOut>().ToList();
        var waiting = options.Where(o => o.Out is null && o.Task.Priority <= 2).ToList();
        while (Best(waiting, [.. chosen.Select(c => c.Option)]) is { } option)
        {
            waiting.Remove(option);
            var fresh = Fresh(option, chosen.Select(c => c.Option));
            if (Minutes([.. chosen.Select(c => c.Option), option], policy) > question.Minutes)
            {
                left.Add(
                    new(
                        option.Task.Id,
                        "S-MINUTES",
                        Message.Of("screen.over-minutes", ("minutes", question.Minutes)),
                        true
                    )
                );
                continue;
            }
            chosen.Add((option, WhyIn(option, fresh, library)));
        }
        left.AddRange(
            options
                .Where(o => o.Out is null && o.Task.Priority > 2)
                .Select(o => new LeftOut(o.Task.Id, "S-COVERED", WhyCovered(o, chosen, library), true))
        );
        var positions = library.Positions.Select(position => position.Id).ToList();
        var soreLast = IrritabilityLevel.Of(profile, policy) != Irritability.Low;
        return Make(
            [
                .. chosen
                    .OrderBy(c => Late(c.Option, soreLast))
                    .ThenBy(c => positions.IndexOf(c.Option.Rung.Position)),
            ],
            left,
            question,
            policy
        );
    }

    /// <summary>A battery as somebody ordered it by hand, with minutes, sides and cautions worked out.</summary>
    /// <param name="before">What it is made from: a task that stays keeps its reason.</param>
    public static Battery ByHand(
        IReadOnlyList<string> taskIds,
        ClientProfile profile,
        Policy policy,
        BatteryQuestion question,
        PracticeLibrary library,
        Battery? before = null
    )
    {
        var proposal = Propose(profile, policy, question, library);
        var chosen = taskIds
            .Select(id =>
                (
                    TaskOption.Of(library.FindTask(id)!, profile, policy, question.Missing, library),
                    (before?.Items ?? [])
                        .Concat(proposal.Items)
                        .FirstOrDefault(item => item.TaskId == id)
                        ?.Why
                        ?? Message.Of("screen.added")
                )
            )
            .ToList();
        var left = proposal
            .Items.Where(item => !taskIds.Contains(item.TaskId))
            .Select(item => new LeftOut(item.TaskId, "S-BY-HAND", Message.Of("screen.taken-out"), true))
            .Concat(proposal.LeftOut.Where(l => !taskIds.Contains(l.TaskId)))
            .ToList();
        return Make(chosen, left, question, policy);
    }

    /// <summary>The tasks of an earlier screen in its order, so that the two can be compared; what is barred by now is left out.</summary>
    private static Battery Again(
        IReadOnlyList<string> repeat,
        List<TaskOption> options,
        ClientProfile profile,
        Policy policy,
        BatteryQuestion question,
        PracticeLibrary library
    )
    {
        var known = repeat
            .Select(library.FindTask)
            .OfType<ScreenTask>()
            .Where(task => !task.Retired)
            .Select(task => TaskOption.Of(task, profile, policy, question.Missing, library))
            .ToList();
        var left = known.Select(o => o.Out).OfType<LeftOut>().ToList();
        left.AddRange(
            options
                .Where(o => !repeat.Contains(o.Task.Id))
                .Select(o =>
                    o.Out ?? new LeftOut(o.Task.Id, "S-COVERED", Message.Of("screen.not-repeated"), true)
                )
        );
        return Make(
            [.. known.Where(o => o.Out is null).Select(o => (o, Message.Of("screen.repeated")))],
            left,
            question,
            policy
        );
    }

    private static Battery Make(
        List<(TaskOption Option, Message Why)> chosen,
        List<LeftOut> left,
        BatteryQuestion question,
        Policy policy
    )
    {
        var options = chosen.Select(c => c.Option).ToList();
        return new Battery(
            [
                .. chosen.Select(c => new BatteryItem(
                    c.Option.Task.Id,
                    c.Why,
                    c.Option.Minutes,
                    c.Option.Sides,
                    c.Option.Surface,
                    c.Option.Cautions
                )),
            ],
            left,
            Minutes(options, policy),
            question.Minutes,
            question.Missing,
            Changes(options)
        );
    }

    private static double Minutes(IReadOnlyList<TaskOption> options, Policy policy) =>
        options.Sum(o => o.Minutes)
        + options.Select(o => o.Rung.Position).Distinct().Count() * policy.Seconds.PositionChange / 60;

    private static int Changes(List<TaskOption> options) =>
        options.Zip(options.Skip(1)).Count(pair => pair.First.Rung.Position != pair.Second.Rung.Position);

    /// <summary>0 first; what a caution touches comes later when the back is easily irritated, what tires last.</summary>
    private static int Late(TaskOption option, bool soreLast) =>
        option.Task.Tires ? 2
        : option.Sore && soreLast ? 1
        : 0;

    /// <summary>What belongs to every screen first; then what shows most that was not seen, for the minutes it takes.</summary>
    private static TaskOption? Best(List<TaskOption> waiting, List<TaskOption> chosen) =>
        waiting
            .OrderBy(o => o.Task.Priority)
            .ThenByDescending(o => Worth(o, chosen) / o.Minutes)
            .ThenByDescending(o => o.Covers.Values.DefaultIfEmpty(0).Sum() / o.Minutes)
            .FirstOrDefault();

    private static double Worth(TaskOption option, IEnumerable<TaskOption> before) =>
        Fresh(option, before).Sum(sector => option.Covers[sector]);

    /// <summary>Directions this task would show that none before it does.</summary>
    private static List<Sector> Fresh(TaskOption option, IEnumerable<TaskOption> before)
    {
        var seen = before
            .SelectMany(o => o.Covers)
            .Where(c => c.Value >= Seen)
            .Select(c => c.Key)
            .ToHashSet();
        return [.. option.Covers.Where(c => c.Value >= Seen && !seen.Contains(c.Key)).Select(c => c.Key)];
    }

    private static Message WhyIn(TaskOption option, List<Sector> fresh, PracticeLibrary library)
    {
        if (fresh.Count == 0)
        {
            return option.Task.Priority == 1 ? Message.Of("screen.always") : Message.Of("screen.second");
        }
        return Message.Of("screen.first", ("asks", Asks(fresh, library)));
    }

    private static Message WhyCovered(
        TaskOption option,
        List<(TaskOption Option, Message Why)> chosen,
        PracticeLibrary library
    )
    {
        if (option.Task.Tires)
        {
            return Message.Of("screen.tiring");
        }
        var fresh = Fresh(option, chosen.Select(c => c.Option));
        return fresh.Count == 0
            ? Message.Of("screen.covered")
            : Message.Of("screen.would-show", ("asks", Asks(fresh, library)));
    }

    private static IEnumerable<string> Asks(IEnumerable<Sector> sectors, PracticeLibrary library) =>
        sectors.Select(sector => library.Words(sector).Asks).Distinct();
}
