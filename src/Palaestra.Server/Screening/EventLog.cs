using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Screening;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Screening;

/// <param name="Stored">Events new to the server. <paramref name="Known"/>: events it had seen before.</param>
public sealed record EventsTaken(int Stored, int Known);

/// <summary>Appends capture events: each id once, all of a batch or none of it.</summary>
public sealed class EventLog(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
{
    public const int BatchMax = 500;

    public async Task<Checked<EventsTaken>> Append(
        Intake.CaseFile file,
        Guid visitId,
        IReadOnlyList<CaptureEvent> incoming,
        string by
    )
    {
        if (incoming.Count > BatchMax)
        {
            return Checked<EventsTaken>.Bad(
                new FieldError("events", Message.Of("events.most", ("most", BatchMax)))
            );
        }
        var known = file.Events(visitId);
        var errors = CaptureCheck.Errors(known, incoming, library).ToList();
        errors.AddRange(await ForeignErrors(visitId, incoming));
        errors.AddRange(ClockErrors(incoming));
        errors.AddRange(ClosedErrors(file, known, incoming));
        errors.AddRange(PlanErrors(file, known, incoming));
        errors.AddRange(BarErrors(file, incoming));
        if (errors.Count > 0)
        {
            return Checked<EventsTaken>.Bad(errors);
        }
        var seen = known.Select(e => e.Id).ToHashSet();
        var fresh = incoming.Where(e => seen.Add(e.Id)).ToList();
        db.Events.AddRange(fresh.Select(e => Logged(e, visitId, by)));
        await db.SaveChangesAsync();
        return Checked<EventsTaken>.Good(new EventsTaken(fresh.Count, incoming.Count - fresh.Count));
    }

    private LoggedEvent Logged(CaptureEvent e, Guid visitId, string by) =>
        new()
        {
            Id = e.Id,
            VisitId = visitId,
            TrialId = e.TrialId,
            Kind = e.Kind,
            Event = e,
            ReceivedAt = clock.Now,
            By = e.By ?? by,
        };

    /// <summary>An id or a trial that already belongs to another visit: another client's, or a mixed-up tablet.</summary>
    private async Task<IEnumerable<FieldError>> ForeignErrors(
        Guid visitId,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var ids = incoming.Select(e => e.Id).ToList();
        var trials = incoming.Select(e => e.TrialId).Distinct().ToList();
        var foreign = await db
            .Events.AsNoTracking()
            .Where(e => e.VisitId != visitId && (ids.Contains(e.Id) || trials.Contains(e.TrialId)))
            .Select(e => new { e.Id, e.TrialId })
            .ToListAsync();
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => foreign.Any(f => f.Id == pair.e.Id || f.TrialId == pair.e.TrialId))
            .Select(pair => new FieldError($"events[{pair.i}].trialId", Message.Of("events.other-visit")));
    }

    private IEnumerable<FieldError> ClockErrors(IReadOnlyList<CaptureEvent> incoming)
    {
        var latest = clock.Now.ToDateTimeOffset() + CaptureCheck.ClockSlack;
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => pair.e.At > latest)
            .Select(pair => new FieldError($"events[{pair.i}].at", Message.Of("events.future")));
    }

    /// <summary>What a precaution bars is not taken in on the fly: a bar needs a written reason, which the plan keeps.</summary>
    private IEnumerable<FieldError> BarErrors(Intake.CaseFile file, IReadOnlyList<CaptureEvent> incoming) =>
        from pair in incoming.Select((e, i) => (e, i))
        let added = pair.e as ExerciseAdded
        where added is not null
        let rung = library.FindRung(added.RungId)
        where rung is not null
        let allowance = Allowance.Of(library, file.Profile.Precautions, rung, Side.Both)
        where allowance.Barred
        select new FieldError(
            $"events[{pair.i}].rungId",
            Message.Of("session.barred", ("rung", rung.Id), ("why", allowance.BarWords))
        );

    /// <summary>What is done in a session belongs to an exercise that some plan of this client holds or held.</summary>
    private static IEnumerable<FieldError> PlanErrors(
        Intake.CaseFile file,
        IReadOnlyList<CaptureEvent> known,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var exercises = file.Plans.SelectMany(p => p.Plan.Items).Select(item => item.Id).ToHashSet();
        exercises.UnionWith(known.Concat(incoming).OfType<ExerciseAdded>().Select(e => e.PlanItemId));
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => ExerciseOf(pair.e) is { } id && !exercises.Contains(id))
            .Select(pair => new FieldError($"events[{pair.i}].planItemId", Message.Of("events.no-item")));
    }

    private static Guid? ExerciseOf(CaptureEvent told) =>
        told switch
        {
            TrialStarted e => e.PlanItemId,
            ExerciseSkipped e => e.PlanItemId,
            SetUpChanged e => e.PlanItemId,
            _ => null,
        };

    /// <summary>While a red flag is open no trial may begin; what was under way is still taken in.</summary>
    private static IEnumerable<FieldError> ClosedErrors(
        Intake.CaseFile file,
        IReadOnlyList<CaptureEvent> known,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var noted = file
            .Episode.DangerReports.Where(r => r.Open)
            .Select(r => (DateTime?)r.NotedAt.ToDateTimeUtc())
            .Min();
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => pair.e.Kind == CaptureKind.TrialStarted && pair.e.At.UtcDateTime > noted)
            .Where(pair => known.All(k => k.Id != pair.e.Id))
            .Select(pair => new FieldError($"events[{pair.i}]", Message.Of("conflict.closed-done")));
    }
}
