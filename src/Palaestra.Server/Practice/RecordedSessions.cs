using MathNet.Numerics;
using MathNet.Numerics.Random;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Core.Signals;
using Palaestra.Data;
using Palaestra.Data.Photos;
using Palaestra.Data.Practice;
using Palaestra.Data.Traces;
using Palaestra.Server.Clinics;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Practice;

/// <summary>Sessions on recorded traces and photographs of clients who agreed, as long as they agree and nothing was taken away.</summary>
public sealed class RecordedSessions(
    PalaestraDb db,
    CaseFiles files,
    TraceStore traceStore,
    PhotoFiles photoFiles,
    PracticeLibrary library,
    ClinicClock clock
)
{
    private sealed record Source(Guid Id, Guid VisitId, string RungId, RecordedThing Thing);

    /// <summary>How many there are.</summary>
    public async Task<RecordedThere> There()
    {
        var visits = await AgreedVisits();
        var traces = await db.Traces.Where(trace => visits.Contains(trace.VisitId)).CountAsync();
        var photos = await db
            .Photos.Where(photo => photo.RemovedAt == null && visits.Contains(photo.VisitId))
            .Select(photo => photo.Id)
            .ToListAsync();
        return new(traces, photos.Count(photo => photoFiles.Find(photo) is not null));
    }

    /// <returns>None where there is nothing of what was asked for.</returns>
    public async Task<RecordedSession?> Make(RecordedForm form, string by, int seed)
    {
        var visits = await AgreedVisits();
        var all = await Sources(visits);
        Source[] chosen =
        [
            .. Chosen(all, RecordedKind.Trace, form.Traces, seed),
            .. Chosen(all, RecordedKind.Photo, form.Photos, seed),
        ];
        if (chosen.Length == 0)
        {
            return null;
        }
        var session = new RecordedSession
        {
            Name = form.Name.Trim(),
            MadeAt = clock.Now,
            MadeBy = by,
        };
        db.RecordedSessions.Add(session);
        foreach (var ((which, of), place) in RecordedOrder.Of(chosen.Length, seed).Select((o, i) => (o, i)))
        {
            var source = chosen[which];
            db.RecordedItems.Add(
                new()
                {
                    SessionId = session.Id,
                    SourceId = source.Id,
                    VisitId = source.VisitId,
                    RungId = source.RungId,
                    Place = place,
                    Thing = source.Thing with { Place = place, Of = of },
                }
            );
        }
        await db.SaveChangesAsync();
        return session;
    }

    private static IEnumerable<Source> Chosen(List<Source> all, RecordedKind kind, int count, int seed) =>
        all.Where(source => source.Thing.Kind == kind)
            .SelectPermutation(new Xoshiro256StarStar(seed))
            .Take(count);

    /// <summary>Visits of clients who agreed.</summary>
    private async Task<List<Guid>> AgreedVisits()
    {
        var episodes = (
            await db
                .Episodes.Where(episode => episode.PracticeConsent != null)
                .Select(episode => new { episode.Id, episode.PracticeConsent })
                .ToListAsync()
        )
            .Where(episode => episode.PracticeConsent!.Given)
            .Select(episode => episode.Id)
            .ToList();
        return await db
            .Visits.Where(visit => episodes.Contains(visit.EpisodeId))
            .Select(visit => visit.Id)
            .ToListAsync();
    }

    private async Task<List<Source>> Sources(List<Guid> visits)
    {
        var traces = (
            await db.Traces.AsNoTracking().Where(t => visits.Contains(t.VisitId)).ToListAsync()
        ).ToLookup(trace => trace.VisitId);
        var photos = (
            await db
                .Photos.AsNoTracking()
                .Where(p => p.RemovedAt == null && visits.Contains(p.VisitId))
                .ToListAsync()
        ).ToLookup(photo => photo.VisitId);
        var sources = new List<Source>();
        foreach (var visit in visits.Where(visit => traces.Contains(visit) || photos.Contains(visit)))
        {
            var trials = (await files.OfVisit(visit))!.Trials(visit).ToDictionary(trial => trial.Id);
            foreach (var trace in traces[visit].Where(trace => trials.ContainsKey(trace.TrialId)))
            {
                if (await ThingOf(trace) is { } thing)
                {
                    sources.Add(new(trace.Id, visit, trials[trace.TrialId].RungId, thing));
                }
            }
            foreach (var photo in photos[visit].Where(photo => photoFiles.Find(photo.Id) is not null))
            {
                if (trials.TryGetValue(photo.TrialId, out var trial) && ThingOf(photo, trial) is { } thing)
                {
                    sources.Add(new(photo.Id, visit, trial.RungId, thing));
                }
            }
        }
        return sources;
    }

    /// <returns>None where its file is damaged.</returns>
    private async Task<RecordedThing?> ThingOf(StoredTrace row)
    {
        if (await traceStore.Read(row) is not { } trace)
        {
            return null;
        }
        var reading = TraceReading.Of(trace, traceStore.SetupOf(row.Instrument), askedSeconds: 0);
        return new(
            0,
            null,
            RecordedKind.Trace,
            trace.Seconds,
            reading.Analysis is null
                ? null
                : reading.Losses.Select(loss => loss.Onset).Append(trace.Seconds).Min()
        );
    }

    /// <returns>None where its measurement was taken back: nothing tells from where it was seen.</returns>
    private static RecordedThing? ThingOf(StoredPhoto photo, Trial trial) =>
        (trial.Photos ?? []).Select(p => p.Reading).FirstOrDefault(p => p.Image == photo.Id) is { } reading
            ? new(
                0,
                null,
                RecordedKind.Photo,
                View: reading.View,
                Width: reading.Width,
                Height: reading.Height
            )
            : null;

    public Task<RecordedSession?> Of(Guid id) =>
        db.RecordedSessions.AsNoTracking().FirstOrDefaultAsync(session => session.Id == id);

    /// <returns>None where there is none, its client does not agree any more, or it was taken away.</returns>
    public async Task<RecordedItem?> Item(Guid id) =>
        await db.RecordedItems.AsNoTracking().FirstOrDefaultAsync(item => item.Id == id) is { } item
        && (await Shown([item])).Count > 0
            ? item
            : null;

    /// <summary>In their order, without those that must not or cannot be shown any more.</summary>
    private async Task<List<RecordedItem>> Shown(IReadOnlyList<RecordedItem> items)
    {
        var agreed = (await AgreedVisits()).ToHashSet();
        var ids = items.Select(item => item.SourceId).ToList();
        var there = (
            await db.Traces.Where(trace => ids.Contains(trace.Id)).Select(trace => trace.Id).ToListAsync()
        )
            .Concat(
                (
                    await db
                        .Photos.Where(photo => photo.RemovedAt == null && ids.Contains(photo.Id))
                        .Select(photo => photo.Id)
                        .ToListAsync()
                ).Where(photo => photoFiles.Find(photo) is not null)
            )
            .ToHashSet();
        return
        [
            .. items
                .Where(item => agreed.Contains(item.VisitId) && there.Contains(item.SourceId))
                .OrderBy(item => item.Place),
        ];
    }

    /// <summary>Likewise, and without traces whose file is damaged: nobody could go on past one.</summary>
    private async Task<List<RecordedItem>> Whole(Guid sessionId)
    {
        var whole = new List<RecordedItem>();
        foreach (var item in await Shown(await ItemsOf(sessionId)))
        {
            if (
                item.Thing.Kind == RecordedKind.Photo
                || await traceStore.Find(item.SourceId) is { } row && await traceStore.Read(row) is not null
            )
            {
                whole.Add(item);
            }
        }
        return whole;
    }

    private Task<List<RecordedItem>> ItemsOf(Guid sessionId) =>
        db.RecordedItems.AsNoTracking().Where(item => item.SessionId == sessionId).ToListAsync();

    /// <summary>All sessions, the latest first; whether a file is damaged is seen only when it is opened.</summary>
    public async Task<IReadOnlyList<RecordedRow>> Rows(Guid account)
    {
        var sessions = await db.RecordedSessions.AsNoTracking().OrderByDescending(s => s.Id).ToListAsync();
        var items = await Shown(await db.RecordedItems.AsNoTracking().ToListAsync());
        var rows = new List<RecordedRow>();
        foreach (var session in sessions)
        {
            var those = items.Where(item => item.SessionId == session.Id).ToList();
            rows.Add(RowOf(session, those, await Ratings(those), account));
        }
        return rows;
    }

    public async Task<RecordedView> View(RecordedSession session, Guid account)
    {
        var items = await Whole(session.Id);
        var ratings = await Ratings(items);
        var own = ratings.GetValueOrDefault(account);
        var next = items.FirstOrDefault(item => own?.ContainsKey(item.Place) != true);
        return new(
            RowOf(session, items, ratings, account),
            next?.Id,
            next is null && own is not null
                ? RecordedFigures.Of(
                    [.. items.Select(item => item.Thing)],
                    Done(items, ratings),
                    library.Practice
                )
                : null
        );
    }

    /// <summary>What was said of these items, by account and by place.</summary>
    private async Task<Dictionary<Guid, IReadOnlyDictionary<int, RecordedReading>>> Ratings(
        List<RecordedItem> items
    )
    {
        var places = items.ToDictionary(item => item.Id, item => item.Place);
        return (
            await db
                .RecordedRatings.AsNoTracking()
                .Where(rating => places.Keys.Contains(rating.ItemId))
                .ToListAsync()
        )
            .GroupBy(rating => rating.AccountId)
            .ToDictionary(
                rater => rater.Key,
                IReadOnlyDictionary<int, RecordedReading> (rater) =>
                    rater.ToDictionary(rating => places[rating.ItemId], rating => rating.Reading)
            );
    }

    private static List<IReadOnlyDictionary<int, RecordedReading>> Done(
        List<RecordedItem> items,
        Dictionary<Guid, IReadOnlyDictionary<int, RecordedReading>> ratings
    ) => [.. ratings.Values.Where(rater => rater.Count == items.Count)];

    private static RecordedRow RowOf(
        RecordedSession session,
        List<RecordedItem> items,
        Dictionary<Guid, IReadOnlyDictionary<int, RecordedReading>> ratings,
        Guid account
    ) =>
        new(
            session.Id,
            session.Name,
            session.MadeAt,
            session.MadeBy,
            items.Count,
            ratings.GetValueOrDefault(account)?.Count ?? 0,
            Done(items, ratings).Count
        );

    /// <summary>Pieces a course is drawn in.</summary>
    private const int Pieces = 800;

    /// <returns>None where its trace is damaged.</returns>
    public async Task<RecordedItemView?> ViewOf(RecordedItem item)
    {
        var items = await Whole(item.SessionId);
        var number = 1 + items.FindIndex(i => i.Id == item.Id);
        if (item.Thing.View is { } view)
        {
            var (width, height) = (item.Thing.Width, item.Thing.Height);
            return new(
                item.Id,
                number,
                items.Count,
                item.RungId,
                null,
                new(view, width, height, [.. Core.Photos.PhotoPoints.Of(view)])
            );
        }
        var row = (await traceStore.Find(item.SourceId))!;
        var setup = traceStore.SetupOf(row.Instrument) with { Rate = row.Rate };
        return await traceStore.Read(row) is { } trace
            ? new(
                item.Id,
                number,
                items.Count,
                item.RungId,
                new(setup, trace.Seconds, TraceShape.Of(trace, setup, Pieces)),
                null
            )
            : null;
    }

    /// <summary>Stores what was said of an item; told twice, the first counts.</summary>
    public async Task Rate(RecordedItem item, RecordedReading reading, Guid account)
    {
        if (await db.RecordedRatings.AnyAsync(r => r.ItemId == item.Id && r.AccountId == account))
        {
            return;
        }
        var rating = new RecordedRating
        {
            ItemId = item.Id,
            VisitId = item.VisitId,
            AccountId = account,
            Reading = reading,
            At = clock.Now,
        };
        db.RecordedRatings.Add(rating);
        if (!await db.SavedFirst())
        {
            // Two tablets at once.
            db.Entry(rating).State = EntityState.Detached;
        }
    }
}
