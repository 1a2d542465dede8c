using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>Refuses batteries that cannot be, naming field and reason.</summary>
public static class BatteryCheck
{
    /// <summary>Minutes of a screen at least.</summary>
    public const double MinutesMin = 5;

    /// <summary>Minutes of a screen at most.</summary>
    public const double MinutesMax = 60;

    /// <summary>Tasks that may be asked for by hand.</summary>
    public const int TasksMax = 40;

    /// <summary>What cannot be asked for, by field; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(BatteryQuestion question, PracticeLibrary library)
    {
        if (!(question.Minutes is >= MinutesMin and <= MinutesMax))
        {
            yield return new(
                "minutes",
                Message.Of("screen.minutes", ("least", MinutesMin), ("most", MinutesMax))
            );
        }
        var known = library.Ladders.SelectMany(l => l.Rungs).SelectMany(r => r.Equipment).ToHashSet();
        for (var i = 0; i < question.Missing.Count; i++)
        {
            if (!known.Contains(question.Missing[i]))
            {
                yield return new(
                    $"missing[{i}]",
                    Message.Of("screen.no-equipment", ("equipment", question.Missing[i]))
                );
            }
        }
        foreach (var error in TaskErrors(question.Repeat ?? [], "repeat", library))
        {
            yield return error;
        }
    }

    /// <summary>Unknown, doubled and barred tasks of a battery put together by hand.</summary>
    public static IEnumerable<FieldError> ItemErrors(
        IReadOnlyList<string> taskIds,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        foreach (var error in TaskErrors(taskIds, "taskIds", library))
        {
            yield return error;
        }
        if (taskIds.Count > TasksMax)
        {
            yield return new("taskIds", Message.Of("screen.tasks-most", ("most", TasksMax)));
        }
        for (var i = 0; i < taskIds.Count; i++)
        {
            if (
                library.FindTask(taskIds[i]) is { } task
                && TaskOption.Of(task, profile, policy, [], library).Out is { CanAdd: false } barred
            )
            {
                yield return new(
                    $"taskIds[{i}]",
                    Message.Of("screen.barred-task", ("task", task.Id), ("why", barred.Why))
                );
            }
        }
    }

    private static IEnumerable<FieldError> TaskErrors(
        IReadOnlyList<string> taskIds,
        string field,
        PracticeLibrary library
    )
    {
        for (var i = 0; i < taskIds.Count; i++)
        {
            if (library.FindTask(taskIds[i]) is null)
            {
                yield return new($"{field}[{i}]", Message.Of("no.task", ("task", taskIds[i])));
            }
            else if (taskIds.Take(i).Contains(taskIds[i]))
            {
                yield return new($"{field}[{i}]", Message.Of("screen.twice", ("task", taskIds[i])));
            }
        }
    }
}
