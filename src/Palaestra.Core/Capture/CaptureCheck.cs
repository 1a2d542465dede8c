using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Capture;

/// <summary>Refuses events that cannot be true, naming field and reason. What it lets through can always be folded.</summary>
public static class CaptureCheck
{
    /// <summary>
    /// Tablets drift; further off than this it was a wrong clock. What was tapped by one is kept and said so: refused, it would
    /// be lost.
    /// </summary>
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
                errors.Add(new(at, Message.Of("capture.empty")));
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
                yield return new($"{at}.trialId", Message.Of("capture.started"));
            }
            yield break;
        }
        if (!started.TryGetValue(e.TrialId, out var start))
        {
            yield return new($"{at}.trialId", Message.Of("capture.not-started"));
            yield break;
        }
        if (e.At < start.At && start.At - e.At <= ClockSlack)
        {
            yield return new($"{at}.at", Message.Of("capture.before-start"));
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
            yield return new($"{at}.amount", Message.Of("capture.reading-most", ("most", most)));
        }
        if (e is Undone undo)
        {
            if (!ids.TryGetValue(undo.Undoes, out var undone))
            {
                yield return new($"{at}.undoes", Message.Of("capture.no-undone"));
            }
            else if (undone.TrialId != e.TrialId)
            {
                yield return new($"{at}.undoes", Message.Of("capture.undone-elsewhere"));
            }
        }
    }

    private static IEnumerable<FieldError> FieldErrors(CaptureEvent e, PracticeLibrary library, string at)
    {
        if (e.Id == Guid.Empty)
        {
            yield return new($"{at}.id", Message.Of("capture.id"));
        }
        if (e.By is { Length: 0 or > 200 })
        {
            yield return new($"{at}.by", Message.Of("capture.by"));
        }
        foreach (
            var (name, _) in (e.Foreign ?? []).Where(f =>
                f.Value.ValueKind != System.Text.Json.JsonValueKind.Null
            )
        )
        {
            yield return new($"{at}.{name}", Message.Of("capture.no-field"));
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
                new($"{at}.fault", Message.Of("no.fault", ("fault", e.Fault))),
            ],
            PainMarked { Value: < 0 or > 10 } or SessionPainAsked { Value: < 0 or > 10 } =>
            [
                new($"{at}.value", Message.Of("pain.range")),
            ],
            SessionPainAsked { Minutes: not (>= 0 and <= 240) } =>
            [
                new($"{at}.minutes", Message.Of("capture.minutes")),
            ],
            EffortMarked { Value: < 0 or > 10 } => [new($"{at}.value", Message.Of("effort.range"))],
            FeltMarked e when Unfelt(e.Place, library) =>
            [
                new($"{at}.place", Message.Of("no.place", ("place", e.Place))),
            ],
            SetUpChanged e when Unfelt(e.Place, library) =>
            [
                new($"{at}.place", Message.Of("no.place", ("place", e.Place))),
            ],
            MeasureTaken { Amount: not (>= 0 and <= 1000) } =>
            [
                new($"{at}.amount", Message.Of("capture.amount")),
            ],
            RangeReached e => RangeErrors(e, at),
            PhotoMeasured e => PhotoCheck.Errors(e.Photo, $"{at}.photo."),
            ExerciseAdded e => AddedErrors(e, library, at),
            CueGiven { Cue: { Length: 0 or > 200 } } => [new($"{at}.cue", Message.Of("capture.cue"))],
            TrialAmended { Reason: var reason }
                when string.IsNullOrWhiteSpace(reason) || reason.Length > 500 =>
            [
                new($"{at}.reason", Message.Of("capture.amend")),
            ],
            LegAsked { Side: Side.Both } => [new($"{at}.side", Message.Of("capture.leg"))],
            _ => [],
        };

    private static bool Unfelt(string place, PracticeLibrary library) =>
        library.FeltPlaces.All(known => known.Id != place);

    private static IEnumerable<FieldError> AddedErrors(ExerciseAdded e, PracticeLibrary library, string at)
    {
        if (library.FindRung(e.RungId) is null)
        {
            yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", e.RungId)));
        }
        if (e.Target is not { Reps: >= 1 and <= 100, Sets: >= 1 and <= 10, Hold: >= 0 and <= 600 })
        {
            yield return new($"{at}.target", Message.Of("capture.target"));
        }
        foreach (var error in DoseCheck.SettingErrors(e.Target, $"{at}.target"))
        {
            yield return error;
        }
    }

    private static FieldError[] RangeErrors(RangeReached e, string at) =>
        e switch
        {
            { Share: null, Degrees: null } => [new($"{at}.share", Message.Of("capture.reach"))],
            { Share: not null and not (>= 0 and <= 1) } => [new($"{at}.share", Message.Of("share.range"))],
            { Degrees: not null and not (>= 0 and <= 180) } =>
            [
                new($"{at}.degrees", Message.Of("capture.degrees")),
            ],
            _ => [],
        };

    private static Message SideWords(Rung rung) =>
        rung.Sides == RungSides.Each ? Message.Of("capture.sided") : Message.Of("capture.no-side");

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
                yield return new($"{at}.taskId", Message.Of("no.task", ("task", id)));
            }
            else
            {
                if (rung is not null && !task.Uses(rung, library))
                {
                    yield return new(
                        $"{at}.rungId",
                        Message.Of("capture.not-in-task", ("rung", rung.Id), ("task", task.Id))
                    );
                }
                if (!task.Ways.Contains(e.Variant))
                {
                    yield return new(
                        $"{at}.variant",
                        Message.Of("capture.variant", ("task", task.Id), ("variant", e.Variant))
                    );
                }
            }
        }
        else if (e.Variant is { } way && rung is not null && rung.Ways?.Any(w => w.Id == way) != true)
        {
            yield return new($"{at}.variant", Message.Of("capture.way", ("rung", rung.Id), ("way", way)));
        }
        if (e.Load is not null and not (>= 0 and <= 300))
        {
            yield return new($"{at}.load", Message.Of("capture.load"));
        }
        if (e.LegLength is not null and not (>= 40 and <= 140))
        {
            yield return new($"{at}.legLength", Message.Of("capture.leg-length"));
        }
    }

    private static IEnumerable<FieldError> StartErrors(TrialStarted e, PracticeLibrary library, string at)
    {
        var rung = library.FindRung(e.RungId);
        if (rung is null)
        {
            yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", e.RungId)));
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
            yield return new($"{at}.target", Message.Of("capture.trial-dose"));
        }
        foreach (var error in DoseCheck.SettingErrors(e.Target, $"{at}.target"))
        {
            yield return error;
        }
        if (e.Purpose == TrialPurpose.Session && e.PlanItemId is null)
        {
            yield return new($"{at}.planItemId", Message.Of("capture.no-item"));
        }
        if (e.Share is not null and not (>= 0 and <= 1))
        {
            yield return new($"{at}.share", Message.Of("share.range"));
        }
        if (e.Eased is { } eased && eased.Distinct().Count() != eased.Count)
        {
            yield return new($"{at}.eased", Message.Of("capture.eased"));
        }
    }
}
