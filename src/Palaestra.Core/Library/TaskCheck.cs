namespace Palaestra.Core.Library;

/// <summary>Checks of the tasks of a screen; each error names file and field.</summary>
public static class TaskCheck
{
    public static IEnumerable<FieldError> Errors(TasksFile file, IReadOnlyCollection<Ladder> ladders)
    {
        var rungs = ladders.SelectMany(l => l.Rungs).Select(r => r.Id).ToHashSet();
        var ids = new HashSet<string>();
        foreach (
            var position in ladders
                .SelectMany(l => l.Rungs)
                .Select(r => r.Position)
                .Distinct()
                .Except(file.Positions)
        )
        {
            yield return new("tasks.json positions", $"{position} has no place in the order of a screen.");
        }
        for (var i = 0; i < file.Tasks.Count; i++)
        {
            var task = file.Tasks[i];
            var at = $"tasks.json tasks[{i}]";
            if (!ids.Add(task.Id) || task.Id.StartsWith(ScreenTask.RungPrefix, StringComparison.Ordinal))
            {
                yield return new($"{at}.id", $"{task.Id} is taken.");
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
            yield return new(at, "Give exactly one of ladder and rung.");
        }
        if (task.Ladder is { } ladder && ladders.All(l => l.Id != ladder))
        {
            yield return new($"{at}.ladder", $"There is no ladder {ladder}.");
        }
        foreach (
            var (field, rung) in (task.Surfaces ?? [])
                .Select((surface, s) => ($"{at}.surfaces[{s}].rung", surface.Rung))
                .Append(($"{at}.rung", task.Rung ?? ""))
                .Where(pair => pair.Item2.Length > 0 && !rungs.Contains(pair.Item2))
        )
        {
            yield return new(field, $"There is no rung {rung}.");
        }
    }

    private static IEnumerable<FieldError> MeasureErrors(ScreenTask task, string at)
    {
        if (task.Measure is MeasureKind.Degrees or MeasureKind.Effort && task.Full is not > 0)
        {
            yield return new($"{at}.full", "Say what the whole of it is: degrees, or points of effort.");
        }
        if (task.Measure == MeasureKind.Effort && task.Points?.Count != task.Full + 1)
        {
            yield return new($"{at}.points", "Say what each point means, from 0 to the most.");
        }
        if (task.Measure == MeasureKind.Degrees && task.Stops is not { Count: > 0 })
        {
            yield return new($"{at}.stops", "Give the angles to choose from.");
        }
        if (task.Measure == MeasureKind.Kilograms && task.Loads is not { Count: > 0 })
        {
            yield return new($"{at}.loads", "Give the loads to choose from.");
        }
        if (task.Minutes <= 0 || task.Tries < 1 || task.Priority is < 1 or > 3)
        {
            yield return new(at, "Minutes are above 0, tries at least 1, priority is 1, 2 or 3.");
        }
    }
}
