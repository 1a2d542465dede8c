using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Capture;

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
        var started = known.Where(e => e.Begins).ToDictionary(e => e.TrialId);
        var ids = known.ToDictionary(e => e.Id);
        for (var i = 0; i < incoming.Count; i++)
        {
            var e = incoming[i];
            var at = $"{path}[{i}]";
            if (e is null)
            {
                errors.Add(new(at, "There is nothing here."));
                continue;
            }
            if (ids.ContainsKey(e.Id))
            {
                continue;
            }
            errors.AddRange(FieldErrors(e, library, at));
            errors.AddRange(OrderErrors(e, started, ids, library, at));
            if (e.Begins)
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
        if (e.Begins)
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
        var trial = start as TrialStarted;
        if (
            e is SideCorrected corrected
            && library.FindRung(trial?.RungId ?? "") is { } rung
            && !rung.TaskSides.Contains(corrected.Side)
        )
        {
            yield return new($"{at}.side", SideWords(rung));
        }
        if (
            e is MeasureTaken measured
            && library.FindTask(trial?.TaskId)?.Most is { } most
            && !(measured.Amount <= most)
        )
        {
            yield return new($"{at}.amount", $"A reading here is at most {most:0}.");
        }
        if (e is Undone undo)
        {
            if (!ids.TryGetValue(undo.Undoes, out var undone))
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
            yield return new($"{at}.by", "A name has 1 to 200 characters.");
        }
        foreach (
            var (name, _) in (e.Foreign ?? []).Where(f =>
                f.Value.ValueKind != System.Text.Json.JsonValueKind.Null
            )
        )
        {
            yield return new($"{at}.{name}", "This kind of event has no such field.");
        }
        foreach (var error in KindErrors(e, library, at))
        {
            yield return error;
        }
    }

    private static IEnumerable<FieldError> KindErrors(
        CaptureEvent told,
        PracticeLibrary library,
        string at
    ) =>
        told switch
        {
            TrialStarted e => StartErrors(e, library, at),
            FaultMarked e when library.FindFault(e.Fault) is null =>
            [
                new($"{at}.fault", $"There is no fault “{e.Fault}”."),
            ],
            PainMarked { Value: < 0 or > 10 } or SessionPainAsked { Value: < 0 or > 10 } =>
            [
                new($"{at}.value", "Pain is a whole number from 0 to 10."),
            ],
            SessionPainAsked { Minutes: not (>= 0 and <= 240) } =>
            [
                new($"{at}.minutes", "Minutes since the last set are between 0 and 240."),
            ],
            EffortMarked { Value: < 0 or > 10 } =>
            [
                new($"{at}.value", "Effort is a whole number from 0 to 10."),
            ],
            FeltMarked e when Unfelt(e.Place, library) =>
            [
                new($"{at}.place", $"There is no place “{e.Place}”."),
            ],
            SetUpChanged e when Unfelt(e.Place, library) =>
            [
                new($"{at}.place", $"There is no place “{e.Place}”."),
            ],
            MeasureTaken { Amount: not (>= 0 and <= 1000) } =>
            [
                new($"{at}.amount", "Give the reading, 0 or more."),
            ],
            RangeReached e => RangeErrors(e, at),
            PhotoMeasured e => PhotoCheck.Errors(e.Photo, $"{at}.photo."),
            ExerciseAdded e => AddedErrors(e, library, at),
            CueGiven { Cue: { Length: 0 or > 200 } } => [new($"{at}.cue", "A cue has 1 to 200 characters.")],
            TrialAmended { Reason: var reason }
                when string.IsNullOrWhiteSpace(reason) || reason.Length > 500 =>
            [
                new($"{at}.reason", "Say why it is put right, in up to 500 characters."),
            ],
            LegAsked { Side: Side.Both } => [new($"{at}.side", "Say which leg: left or right.")],
            _ => [],
        };

    private static bool Unfelt(string place, PracticeLibrary library) =>
        library.FeltPlaces.All(known => known.Id != place);

    private static IEnumerable<FieldError> AddedErrors(ExerciseAdded e, PracticeLibrary library, string at)
    {
        if (library.FindRung(e.RungId) is null)
        {
            yield return new($"{at}.rungId", $"There is no rung “{e.RungId}”.");
        }
        if (e.Target is not { Reps: >= 1 and <= 100, Sets: >= 1 and <= 10, Hold: >= 0 and <= 600 })
        {
            yield return new($"{at}.target", "1 to 10 sets of 1 to 100 reps, held 0 to 600 seconds.");
        }
        foreach (var error in DoseCheck.SettingErrors(e.Target, $"{at}.target"))
        {
            yield return error;
        }
    }

    private static FieldError[] RangeErrors(RangeReached e, string at) =>
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
        TrialStarted e,
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
        else if (e.Variant is { } way && rung is not null && rung.Ways?.Any(w => w.Id == way) != true)
        {
            yield return new($"{at}.variant", $"{rung.Name} is not done “{way}”.");
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

    private static IEnumerable<FieldError> StartErrors(TrialStarted e, PracticeLibrary library, string at)
    {
        var rung = library.FindRung(e.RungId);
        if (rung is null)
        {
            yield return new($"{at}.rungId", $"There is no rung “{e.RungId}”.");
        }
        else if (!rung.TaskSides.Contains(e.Side))
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
        foreach (var error in DoseCheck.SettingErrors(e.Target, $"{at}.target"))
        {
            yield return error;
        }
        if (e.Purpose == TrialPurpose.Session && e.PlanItemId is null)
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
