using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Screening;

/// <summary>Refuses events that cannot be true, naming field and reason. What it lets through can always be folded.</summary>
public static class CaptureCheck
{
    /// <summary>Tablets drift; an event further ahead than this of the server is a wrong clock.</summary>
    public static readonly TimeSpan ClockSlack = TimeSpan.FromHours(24);

    /// <param name="known">Events of the visit already stored.</param>
    /// <param name="incoming">The batch, in the order it happened.</param>
    public static IReadOnlyList<FieldError> Errors(
        IReadOnlyList<CaptureEvent> known,
        IReadOnlyList<CaptureEvent> incoming,
        PracticeLibrary library,
        string path = "events"
    )
    {
        var errors = new List<FieldError>();
        var started = known
            .Where(e =>
                e.Kind is CaptureKind.TrialStarted or CaptureKind.ExerciseSkipped or CaptureKind.ExerciseAdded
            )
            .ToDictionary(e => e.TrialId);
        var ids = known.ToDictionary(e => e.Id);
        for (var i = 0; i < incoming.Count; i++)
        {
            var e = incoming[i];
            if (ids.ContainsKey(e.Id))
            {
                continue;
            }
            var at = $"{path}[{i}]";
            errors.AddRange(FieldErrors(e, library, at));
            errors.AddRange(OrderErrors(e, started, ids, library, at));
            if (
                e.Kind is CaptureKind.TrialStarted or CaptureKind.ExerciseSkipped or CaptureKind.ExerciseAdded
            )
            {
                started.TryAdd(e.TrialId, e);
            }
            ids[e.Id] = e;
        }
        return errors;
    }

    private static IEnumerable<FieldError> OrderErrors(
        CaptureEvent e,
        Dictionary<Guid, CaptureEvent> started,
        Dictionary<Guid, CaptureEvent> ids,
        PracticeLibrary library,
        string at
    )
    {
        if (e.Kind is CaptureKind.TrialStarted or CaptureKind.ExerciseSkipped or CaptureKind.ExerciseAdded)
        {
            if (started.ContainsKey(e.TrialId))
            {
                yield return new($"{at}.trialId", "This trial was already started.");
            }
            yield break;
        }
        if (!started.TryGetValue(e.TrialId, out var start))
        {
            yield return new($"{at}.trialId", "This trial was never started in this visit.");
            yield break;
        }
        if (e.At < start.At)
        {
            yield return new($"{at}.at", "This happened before its trial was started.");
        }
        if (
            e.Kind == CaptureKind.SideCorrected
            && library.FindRung(start.RungId ?? "") is { } rung
            && (e.Side is null || !rung.TaskSides.Contains(e.Side.Value))
        )
        {
            yield return new($"{at}.side", SideWords(rung));
        }
        if (
            e.Kind == CaptureKind.MeasureTaken
            && library.FindTask(start.TaskId)?.Most is { } most
            && !(e.Amount <= most)
        )
        {
            yield return new($"{at}.amount", $"A reading here is at most {most:0}.");
        }
        if (e.Kind == CaptureKind.Undone)
        {
            if (e.Undoes is null || !ids.TryGetValue(e.Undoes.Value, out var undone))
            {
                yield return new($"{at}.undoes", "There is no such event to take back.");
            }
            else if (undone.TrialId != e.TrialId)
            {
                yield return new($"{at}.undoes", "The event to take back belongs to another trial.");
            }
        }
    }

    private static IEnumerable<FieldError> FieldErrors(CaptureEvent e, PracticeLibrary library, string at)
    {
        if (e.Id == Guid.Empty)
        {
            yield return new($"{at}.id", "An event needs an id.");
        }
        if (e.By is { Length: 0 or > 200 })
        {
            yield return new($"{at}.by", "A name has 1 to 200 letters.");
        }
        var errors = e.Kind switch
        {
            CaptureKind.TrialStarted => StartErrors(e, library, at),
            CaptureKind.FaultMarked when library.FindFault(e.Fault ?? "") is null =>
            [
                new($"{at}.fault", $"There is no fault “{e.Fault}”."),
            ],
            CaptureKind.CueAnswered when e.Worked is null =>
            [
                new($"{at}.worked", "Say whether the cue worked."),
            ],
            CaptureKind.PainMarked => PainErrors(e, at),
            CaptureKind.EffortMarked when e.Value is null or < 0 or > 10 =>
            [
                new($"{at}.value", "Effort is a whole number from 0 to 10."),
            ],
            CaptureKind.FeltMarked when library.FeltPlaces.All(place => place.Id != e.Place) =>
            [
                new($"{at}.place", $"There is no place “{e.Place}”."),
            ],
            CaptureKind.MeasureTaken when !(e.Amount is >= 0 and <= 1000) =>
            [
                new($"{at}.amount", "Give the reading, 0 or more."),
            ],
            CaptureKind.RangeReached => RangeErrors(e, at),
            CaptureKind.InstrumentUsed when e.Instrument is null =>
            [
                new($"{at}.instrument", "Say what showed that the trunk moved."),
            ],
            CaptureKind.ExerciseSkipped when e.PlanItemId is null =>
            [
                new($"{at}.planItemId", "Say which exercise is left out."),
            ],
            CaptureKind.PhotoMeasured => e.Photo is { } photo
                ? PhotoCheck.Errors(photo, $"{at}.photo.")
                : [new FieldError($"{at}.photo", "Say which points were put on the photograph.")],
            CaptureKind.ExerciseAdded => AddedErrors(e, library, at),
            CaptureKind.TrialEnded when e.Reason is null => [new($"{at}.reason", "Say why the trial ended.")],
            _ => Array.Empty<FieldError>(),
        };
        foreach (var error in errors)
        {
            yield return error;
        }
    }

    private static FieldError[] PainErrors(CaptureEvent e, string at) =>
        e switch
        {
            { Value: null or < 0 or > 10 } => [new($"{at}.value", "Pain is a whole number from 0 to 10.")],
            { Phase: null } => [new($"{at}.phase", "Say whether the pain was before, during or after.")],
            _ => [],
        };

    private static IEnumerable<FieldError> AddedErrors(CaptureEvent e, PracticeLibrary library, string at)
    {
        if (e.PlanItemId is null)
        {
            yield return new($"{at}.planItemId", "An added exercise needs an id of its own.");
        }
        if (library.FindRung(e.RungId ?? "") is null)
        {
            yield return new($"{at}.rungId", $"There is no rung “{e.RungId}”.");
        }
        if (e.Target is not { Reps: >= 1 and <= 100, Sets: >= 1 and <= 10, Hold: >= 0 and <= 600 })
        {
            yield return new($"{at}.target", "1 to 10 sets of 1 to 100 reps, held 0 to 600 seconds.");
        }
    }

    private static FieldError[] RangeErrors(CaptureEvent e, string at) =>
        e switch
        {
            { Share: null, Degrees: null } =>
            [
                new($"{at}.share", "Say how far it went: a share or degrees."),
            ],
            { Share: not null and not (>= 0 and <= 1) } =>
            [
                new($"{at}.share", "A share is between 0 and 1."),
            ],
            { Degrees: not null and not (>= 0 and <= 180) } =>
            [
                new($"{at}.degrees", "An angle is between 0 and 180 degrees."),
            ],
            _ => [],
        };

    private static string SideWords(Rung rung) =>
        rung.Sides == RungSides.Each
            ? "This rung is done left or right."
            : "This rung has no side: give “both”.";

    /// <summary>A task that is not there, a rung or a way that is not of the task, and readings that cannot be.</summary>
    private static IEnumerable<FieldError> TaskErrors(
        CaptureEvent e,
        Rung? rung,
        PracticeLibrary library,
        string at
    )
    {
        if (e.TaskId is { } id)
        {
            if (library.FindTask(id) is not { } task)
            {
                yield return new($"{at}.taskId", $"There is no task “{id}”.");
            }
            else
            {
                if (rung is not null && !task.Uses(rung, library))
                {
                    yield return new($"{at}.rungId", $"{rung.Name} is not part of {task.Name}.");
                }
                if (!task.Ways.Contains(e.Variant))
                {
                    yield return new(
                        $"{at}.variant",
                        $"{task.Name} is not done “{e.Variant ?? "without a way"}”."
                    );
                }
            }
        }
        if (e.Load is not null and not (>= 0 and <= 300))
        {
            yield return new($"{at}.load", "A load is between 0 and 300 kg.");
        }
        if (e.LegLength is not null and not (>= 40 and <= 140))
        {
            yield return new($"{at}.legLength", "Leg length is between 40 and 140 cm.");
        }
    }

    private static IEnumerable<FieldError> StartErrors(CaptureEvent e, PracticeLibrary library, string at)
    {
        var rung = library.FindRung(e.RungId ?? "");
        if (rung is null)
        {
            yield return new($"{at}.rungId", $"There is no rung “{e.RungId}”.");
        }
        else if (e.Side is null || !rung.TaskSides.Contains(e.Side.Value))
        {
            yield return new($"{at}.side", SideWords(rung));
        }
        foreach (var error in TaskErrors(e, rung, library, at))
        {
            yield return error;
        }
        if (e.Target is not { Reps: >= 1 and <= 100, Sets: 1, Hold: >= 0 and <= 600 })
        {
            yield return new(
                $"{at}.target",
                "A trial aims at 1 to 100 reps, one set, held 0 to 600 seconds."
            );
        }
        if (e.Purpose is null)
        {
            yield return new($"{at}.purpose", "Say whether this is a screen or a session.");
        }
        else if (e.Purpose == TrialPurpose.Session && e.PlanItemId is null)
        {
            yield return new($"{at}.planItemId", "In a session a trial belongs to an exercise of the plan.");
        }
        if (e.Share is not null and not (>= 0 and <= 1))
        {
            yield return new($"{at}.share", "A share is between 0 and 1.");
        }
        if (e.Eased is { } eased && eased.Distinct().Count() != eased.Count)
        {
            yield return new($"{at}.eased", "Each change is named once.");
        }
    }
}
