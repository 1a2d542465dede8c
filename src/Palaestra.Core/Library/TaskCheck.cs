namespace Palaestra.Core.Library;

/// <summary>Checks of the tasks of a screen; each error names file and field.</summary>
public static class TaskCheck
{
    /// <summary>What the tasks name that is not there or cannot be, by field; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(TasksFile file, IReadOnlyCollection<Ladder> ladders)
    {
        var rungs = ladders.SelectMany(l => l.Rungs).Select(r => r.Id).ToHashSet();
        var ids = new HashSet<string>();
        foreach (
            var position in ladders
                .SelectMany(l => l.Rungs)
                .Select(r => r.Position)
                .Distinct()
                .Except(file.Positions.Select(p => p.Id))
        )
        {
            yield return new("tasks.json positions", Message.Of("content.position", ("position", position)));
        }
        for (var i = 0; i < file.Tasks.Count; i++)
        {
            var task = file.Tasks[i];
            var at = $"tasks.json tasks[{i}]";
            if (!ids.Add(task.Id) || task.Id.StartsWith(ScreenTask.RungPrefix, StringComparison.Ordinal))
            {
                yield return new($"{at}.id", Message.Of("content.taken", ("id", task.Id)));
            }
            foreach (var error in PlaceErrors(task, at, ladders, rungs).Concat(MeasureErrors(task, at)))
            {
                yield return error;
            }
        }
    }

    private static IEnumerable<FieldError> PlaceErrors(
        ScreenTask task,
        string at,
        IReadOnlyCollection<Ladder> ladders,
        HashSet<string> rungs
    )
    {
        if ((task.Ladder is null) == (task.Rung is null))
        {
            yield return new(at, Message.Of("content.ladder-or-rung"));
        }
        if (task.Ladder is { } ladder && ladders.All(l => l.Id != ladder))
        {
            yield return new($"{at}.ladder", Message.Of("content.no-ladder", ("ladder", ladder)));
        }
        foreach (
            var (field, rung) in (task.Surfaces ?? [])
                .Select((surface, s) => ($"{at}.surfaces[{s}].rung", surface.Rung))
                .Append(($"{at}.rung", task.Rung ?? ""))
                .Where(pair => pair.Item2.Length > 0 && !rungs.Contains(pair.Item2))
        )
        {
            yield return new(field, Message.Of("content.no-rung", ("rung", rung)));
        }
    }

    private static IEnumerable<FieldError> MeasureErrors(ScreenTask task, string at)
    {
        if (task.Measure is MeasureKind.Degrees or MeasureKind.Effort && task.Full is not > 0)
        {
            yield return new($"{at}.full", Message.Of("content.full"));
        }
        if (task.Measure == MeasureKind.Effort && task.Points?.Count != task.Full + 1)
        {
            yield return new($"{at}.points", Message.Of("content.points"));
        }
        if (task.Measure == MeasureKind.Degrees && task.Stops is not { Count: > 0 })
        {
            yield return new($"{at}.stops", Message.Of("content.stops"));
        }
        if (task.Measure == MeasureKind.Kilograms && task.Loads is not { Count: > 0 })
        {
            yield return new($"{at}.loads", Message.Of("content.loads"));
        }
        if (task.Minutes <= 0 || task.Tries < 1 || task.Priority is < 1 or > 3)
        {
            yield return new(at, Message.Of("content.task-numbers"));
        }
    }
}
