using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Screening;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Screening;

/// <param name="Stored">Events new to the server. <paramref name="Known"/>: events it had seen before.</param>
public sealed record EventsTaken(int Stored, int Known);

/// <summary>
/// Appends capture events: each id once, all of a batch or none of it. A tap reads what it touches, its trials and its own ids, however
/// long the record is; only what rests on the whole record (a plan's exercise, what a precaution bars) asks for more.
/// </summary>
public sealed partial class EventLog(
    PalaestraDb db,
    PracticeLibrary library,
    ClinicClock clock,
    Intake.CaseFiles files,
    TapQueue queue,
    Amendments.TrialMoves moves
)
{
    public const int BatchMax = 500;

    /// <summary>What a batch touches of a visit that is there.</summary>
    /// <param name="Flags">When the red flags that are open were noted.</param>
    /// <param name="Stored">Events of the same trials or with the same ids, of this visit and of others.</param>
    private sealed record Touched(
        Data.Visits.Visit Visit,
        IReadOnlyList<Instant> Flags,
        IReadOnlyList<(Guid VisitId, CaptureEvent Event)> Stored
    );

    /// <returns>None where there is no such visit.</returns>
    public async Task<Checked<EventsTaken>?> Append(
        Guid visitId,
        IReadOnlyList<CaptureEvent> incoming,
        string by,
        Guid? account = null
    )
    {
        if (incoming.Count > BatchMax)
        {
            return Checked<EventsTaken>.Bad(
                new FieldError("events", Message.Of("events.most", ("most", BatchMax)))
            );
        }
        if (await Read(visitId, incoming) is not { } touched)
        {
            return null;
        }
        if (await Elsewhere(visitId, touched, incoming) is { Count: > 0 } elsewhere)
        {
            return await AppendApart(visitId, incoming, elsewhere, by, account);
        }
        var known = touched.Stored.Where(e => e.VisitId == visitId).Select(e => e.Event).ToList();
        var errors = CaptureCheck.Errors(known, incoming, library).ToList();
        errors.AddRange(ForeignErrors(visitId, touched, incoming));
        errors.AddRange(ClosedErrors(touched.Flags, known, incoming));
        errors.AddRange(await PlanErrors(touched.Visit.EpisodeId, visitId, incoming));
        errors.AddRange(await BarErrors(touched.Visit.EpisodeId, incoming));
        if (errors.Count > 0)
        {
            return Checked<EventsTaken>.Bad(errors);
        }
        var seen = known.Select(e => e.Id).ToHashSet();
        var fresh = incoming.Where(e => seen.Add(e.Id)).ToList();
        db.Events.AddRange(fresh.Select(e => Logged(e, visitId, by, account)));
        if (fresh.Count > 0 && touched.Visit.CalledOff is not null)
        {
            // What was done at it shows that it took place.
            touched.Visit.PutBack();
        }
        await queue.Write(() => db.SaveChangesAsync());
        return Checked<EventsTaken>.Good(new EventsTaken(fresh.Count, incoming.Count - fresh.Count));
    }

    /// <summary>Where trials are now that stood at this visit once and were filed elsewhere; empty where none of these were.</summary>
    private async Task<IReadOnlyDictionary<Guid, Guid>> Elsewhere(
        Guid visitId,
        Touched touched,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var trials = incoming.Where(e => e is not null).Select(e => e.TrialId).ToHashSet();
        var apart = touched
            .Stored.Where(e => e.VisitId != visitId && trials.Contains(e.Event.TrialId))
            .GroupBy(e => e.Event.TrialId)
            .ToDictionary(trial => trial.Key, trial => trial.First().VisitId);
        if (apart.Count == 0)
        {
            return apart;
        }
        var moved = await moves.MovedFrom(visitId, apart.Keys);
        return moved.ToDictionary(trial => trial, trial => apart[trial]);
    }

    /// <summary>What belongs to trials that were filed elsewhere goes there; the rest stays here.</summary>
    private async Task<Checked<EventsTaken>?> AppendApart(
        Guid visitId,
        IReadOnlyList<CaptureEvent> incoming,
        IReadOnlyDictionary<Guid, Guid> elsewhere,
        string by,
        Guid? account
    )
    {
        var taken = new EventsTaken(0, 0);
        foreach (
            var part in incoming
                .Select((e, i) => (Event: e, Place: i))
                .GroupBy(p => elsewhere.GetValueOrDefault(p.Event?.TrialId ?? default, visitId))
        )
        {
            var answer = await Append(part.Key, [.. part.Select(p => p.Event)], by, account);
            if (answer is not { IsValid: true, Value: { } stored })
            {
                return answer is null
                    ? null
                    : Checked<EventsTaken>.Bad([
                        .. answer.Errors.Select(e => Placed(e, [.. part.Select(p => p.Place)])),
                    ]);
            }
            taken = new(taken.Stored + stored.Stored, taken.Known + stored.Known);
        }
        return Checked<EventsTaken>.Good(taken);
    }

    /// <summary>Named by the place of its event in the batch that was sent, not in a part of it.</summary>
    private static FieldError Placed(FieldError error, IReadOnlyList<int> places) =>
        error with
        {
            Field = PlaceInBatch()
                .Replace(
                    error.Field,
                    found =>
                        $"events[{places[int.Parse(found.Groups[1].Value, CultureInfo.InvariantCulture)]}]"
                ),
        };

    [GeneratedRegex(@"^events\[(\d+)\]")]
    private static partial Regex PlaceInBatch();

    /// <summary>In one statement. The visit and where its episode stands stay with the context: marking the episode asks for them.</summary>
    private async Task<Touched?> Read(Guid visitId, IReadOnlyList<CaptureEvent> incoming)
    {
        // What is undone may, wrongly, be of another trial.
        var ids = incoming
            .Where(e => e is not null)
            .Select(e => e.Id)
            .Concat(incoming.OfType<Undone>().Select(e => e.Undoes))
            .ToList();
        var trials = incoming.Where(e => e is not null).Select(e => e.TrialId).Distinct().ToList();
        var rows = await (
            from visit in db.Visits
            where visit.Id == visitId
            join marked in db.Standings on visit.EpisodeId equals marked.EpisodeId into marks
            from standing in marks.DefaultIfEmpty()
            from report in db
                .DangerReports.Where(r => r.EpisodeId == visit.EpisodeId && r.ClearedAt == null)
                .DefaultIfEmpty()
            from stored in db
                .Events.Where(e => ids.Contains(e.Id) || trials.Contains(e.TrialId))
                .DefaultIfEmpty()
            select new
            {
                Visit = visit,
                Standing = standing,
                Flag = report == null ? null : (Instant?)report.NotedAt,
                StoredAt = stored == null ? null : (Guid?)stored.VisitId,
                Event = stored == null ? null : stored.Event,
            }
        ).ToListAsync();
        return rows.Count == 0
            ? null
            : new Touched(
                rows[0].Visit,
                [.. rows.Select(row => row.Flag).OfType<Instant>().Distinct()],
                [
                    .. rows.Where(row => row.Event is not null)
                        .DistinctBy(row => row.Event!.Id)
                        .Select(row => (row.StoredAt!.Value, Renewal.Of(row.Event!, library))),
                ]
            );
    }

    private LoggedEvent Logged(CaptureEvent e, Guid visitId, string by, Guid? account) =>
        new()
        {
            Id = e.Id,
            VisitId = visitId,
            TrialId = e.TrialId,
            Kind = e.Kind,
            Event = e with { By = by },
            ReceivedAt = clock.Now,
            By = by,
            AccountId = account,
            ToldBy = e.By == by ? null : e.By,
        };

    /// <summary>An id or a trial that already belongs to another visit: another client's, or a mixed-up tablet.</summary>
    private static IEnumerable<FieldError> ForeignErrors(
        Guid visitId,
        Touched touched,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var foreign = touched.Stored.Where(e => e.VisitId != visitId).Select(e => e.Event).ToList();
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair =>
                pair.e is not null && foreign.Any(f => f.Id == pair.e.Id || f.TrialId == pair.e.TrialId)
            )
            .Select(pair => new FieldError($"events[{pair.i}].trialId", Message.Of("events.other-visit")));
    }

    /// <summary>What a precaution bars is not taken in on the fly: a bar needs a written reason, which the plan keeps.</summary>
    private async Task<IEnumerable<FieldError>> BarErrors(
        Guid episodeId,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        if (!incoming.OfType<ExerciseAdded>().Any() || await files.OfEpisode(episodeId) is not { } file)
        {
            return [];
        }
        return from pair in incoming.Select((e, i) => (e, i))
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
    }

    /// <summary>What is done in a session belongs to an exercise that some plan of this client holds or held.</summary>
    private async Task<IEnumerable<FieldError>> PlanErrors(
        Guid episodeId,
        Guid visitId,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var sought = incoming.Select(ExerciseOf).OfType<Guid>().ToHashSet();
        sought.ExceptWith(incoming.OfType<ExerciseAdded>().Select(e => e.PlanItemId));
        if (sought.Count > 0)
        {
            sought.ExceptWith(await InLatestPlan(episodeId));
        }
        if (sought.Count > 0)
        {
            sought.ExceptWith(await InOlderPlans(episodeId, visitId));
        }
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => ExerciseOf(pair.e) is { } id && sought.Contains(id))
            .Select(pair => new FieldError($"events[{pair.i}].planItemId", Message.Of("events.no-item")));
    }

    private async Task<IEnumerable<Guid>> InLatestPlan(Guid episodeId) =>
        await db
            .Plans.AsNoTracking()
            .Where(plan => plan.EpisodeId == episodeId)
            .OrderByDescending(plan => plan.Revision)
            .Select(plan => plan.Plan)
            .FirstOrDefaultAsync()
            is { } plan
            ? plan.Items.Select(item => item.Id)
            : [];

    /// <summary>And those that were taken in on the fly.</summary>
    private async Task<IEnumerable<Guid>> InOlderPlans(Guid episodeId, Guid visitId)
    {
        var plans = await db
            .Plans.AsNoTracking()
            .Where(plan => plan.EpisodeId == episodeId)
            .Select(plan => plan.Plan)
            .ToListAsync();
        var added = await db
            .Events.AsNoTracking()
            .Where(e => e.VisitId == visitId && e.Kind == CaptureKind.ExerciseAdded)
            .Select(e => e.Event)
            .ToListAsync();
        return plans
            .SelectMany(plan => plan.Items)
            .Select(item => item.Id)
            .Concat(added.OfType<ExerciseAdded>().Select(e => e.PlanItemId));
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
        IReadOnlyList<Instant> flags,
        IReadOnlyList<CaptureEvent> known,
        IReadOnlyList<CaptureEvent> incoming
    )
    {
        var noted = flags.Select(at => (DateTime?)at.ToDateTimeUtc()).Min();
        return incoming
            .Select((e, i) => (e, i))
            .Where(pair => pair.e?.Kind == CaptureKind.TrialStarted && pair.e.At.UtcDateTime > noted)
            .Where(pair => known.All(k => k.Id != pair.e.Id))
            .Select(pair => new FieldError($"events[{pair.i}]", Message.Of("conflict.closed-done")));
    }
}
