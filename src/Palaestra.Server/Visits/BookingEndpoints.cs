using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Data.Visits;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Live;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Visits;

public static class BookingEndpoints
{
    private const int EveryMost = 60;
    private const int CountMost = 26;
    private const int ReasonMost = 200;

    public static void MapBookings(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Visits");
        group
            .MapPost("/episodes/{id:guid}/visits", Book)
            .Described(
                "BookVisit",
                "Books a visit, within a year; now, for somebody who walked in; or one that has been, from paper.",
                404,
                409
            );
        group
            .MapPost("/episodes/{id:guid}/visits/series", BookSeries)
            .Described("BookSeries", "Books visits at the same time of day, so many days apart.", 404, 409);
        group
            .MapPut("/visits/{visitId:guid}/booking", Move)
            .Described(
                "MoveVisit",
                "Books a visit at another time or with somebody else, on the version that was read.",
                404,
                409
            );
        group
            .MapPost("/visits/{visitId:guid}/called-off", CallOff)
            .Described("CallOffVisit", "A visit was cancelled, or the client did not come.", 404, 409);
        group
            .MapPost("/visits/{visitId:guid}/put-back", PutBack)
            .Described("PutVisitBack", "A visit that was called off stands again.", 404, 409);
    }

    private static async Task<Results<Created<VisitView>, Ok<VisitView>, ProblemHttpResult>> Book(
        Guid id,
        BookVisitForm form,
        CaseFiles files,
        PalaestraDb db,
        Bookings bookings,
        VisitNews news
    )
    {
        if (await EpisodeOf(id, db) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        if (form.Id is { } sent && await db.Visits.AnyAsync(v => v.Id == sent))
        {
            return await Known(sent, id, files);
        }
        var (visit, problem) = await bookings.New(form, episode);
        if (visit is null)
        {
            return problem!;
        }
        db.Visits.Add(visit);
        if (!await db.SavedFirst())
        {
            // The same tap, twice at once.
            db.ChangeTracker.Clear();
            return await Known(visit.Id, id, files);
        }
        news.Tell(visit.Id);
        var stored = await files.OfEpisode(id);
        return TypedResults.Created($"/api/visits/{visit.Id}", EpisodeView.VisitOf(visit, stored!));
    }

    /// <summary>What the first of two taps booked; of another episode it is not told.</summary>
    private static async Task<Results<Created<VisitView>, Ok<VisitView>, ProblemHttpResult>> Known(
        Guid visitId,
        Guid episodeId,
        CaseFiles files
    ) =>
        await files.OfEpisode(episodeId) is { } file
        && file.Visits.FirstOrDefault(v => v.Id == visitId) is { } visit
            ? TypedResults.Ok(EpisodeView.VisitOf(visit, file))
            : Problem.Conflict(Message.Of("conflict.meanwhile"));

    private static Task<Episode?> EpisodeOf(Guid id, PalaestraDb db) =>
        db.Episodes.Include(e => e.Client).FirstOrDefaultAsync(e => e.Id == id);

    private static async Task<Results<Created<SeriesBooked>, Ok<SeriesBooked>, ProblemHttpResult>> BookSeries(
        Guid id,
        SeriesForm form,
        PalaestraDb db,
        Bookings bookings,
        ClinicClock clock,
        VisitNews news
    )
    {
        if (await EpisodeOf(id, db) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        if (form.EveryDays is < 1 or > EveryMost)
        {
            return Problem.Field("everyDays", Message.Of("series.every", ("most", EveryMost)));
        }
        if (form.Count is < 2 or > CountMost)
        {
            return Problem.Field("count", Message.Of("series.count", ("most", CountMost)));
        }
        if (form.First.Kind != DateTimeKind.Unspecified)
        {
            return Problem.Field("first", Message.Of("series.first"));
        }
        if (form.Id is { } sent && await bookings.OfSeries(sent) is { Count: > 0 } known)
        {
            return TypedResults.Ok(new SeriesBooked(sent, known, []));
        }
        var seriesId = form.Id ?? Guid.CreateVersion7();
        var timeline = await bookings.TimelineOf(episode);
        var leftOut = new List<LeftOutOfSeries>();
        for (var i = 0; i < form.Count; i++)
        {
            var local = form.First.AddDays(i * form.EveryDays);
            var visit = new Visit
            {
                Id = VisitIdOf(seriesId, i),
                EpisodeId = id,
                PlannedAt = clock.Zone.At(local),
                Minutes = form.Minutes ?? Visit.UsualMinutes,
                WithId = form.WithId,
                SeriesId = seriesId,
            };
            var wrong = await bookings.Wrong(visit, paper: false);
            if (wrong is not null && (i == 0 || wrong.Field != "plannedAt"))
            {
                return Problem.Field(wrong.Field == "plannedAt" ? "first" : wrong.Field, wrong.Message);
            }
            var why = clock.Zone.Has(local)
                ? wrong?.Message ?? await WhyLeftOut(visit, timeline, episode, form.Anyway, bookings, clock)
                : Message.Of("visit.left-out");
            if (why is null)
            {
                db.Visits.Add(visit);
            }
            else
            {
                leftOut.Add(new(local, why));
            }
        }
        if (!await db.SavedFirst())
        {
            // The same tap, twice at once: the visits of a series have their ids from it.
            db.ChangeTracker.Clear();
            return await bookings.OfSeries(seriesId) is { Count: > 0 } first
                ? TypedResults.Ok(new SeriesBooked(seriesId, first, []))
                : Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        var booked = await bookings.OfSeries(seriesId);
        foreach (var one in booked)
        {
            news.Tell(one.VisitId);
        }
        return TypedResults.Created(
            $"/api/episodes/{id}/visits/series",
            new SeriesBooked(seriesId, booked, leftOut)
        );
    }

    /// <summary>The same for the same place in the same series.</summary>
    private static Guid VisitIdOf(Guid series, int place) =>
        new(SHA256.HashData([.. series.ToByteArray(), (byte)place]).AsSpan(0, 16));

    /// <summary>Why one day of a series is not booked; the others are.</summary>
    private static async Task<Message?> WhyLeftOut(
        Visit visit,
        CareTimeline timeline,
        Episode episode,
        bool anyway,
        Bookings bookings,
        ClinicClock clock
    )
    {
        var day = clock.Zone.DayOf(visit.PlannedAt);
        if (episode.Away.FirstOrDefault(a => a.From <= day && day <= a.To) is not null)
        {
            return Message.Of("series.away");
        }
        if (timeline.WhyNotAt(day) is { } closed)
        {
            return closed;
        }
        return !anyway && await bookings.TakenBy(visit, episode.Client!) is { Count: > 0 } taken
            ? Message.Of("series.taken", ("name", taken[0].Name))
            : null;
    }

    private static async Task<Results<Ok<Booking>, ProblemHttpResult>> Move(
        Guid visitId,
        MoveVisitForm form,
        PalaestraDb db,
        Bookings bookings,
        ClinicClock clock,
        Amending amending,
        VisitNews news
    )
    {
        if (await Found(visitId, db) is not var (visit, episode))
        {
            return Problem.NotFound("visit");
        }
        var booking = (await bookings.Of(visitId))!;
        var paper = visit.FromPaperAt is not null;
        if (visit.CalledOff is not null)
        {
            return Problem.Conflict(Message.Of("visit.called-off"), booking);
        }
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(Message.Of("visit.changed"), booking);
        }
        if (paper ? visit.DecidedAt is not null : booking.Begun)
        {
            return Problem.Conflict(paper ? Message.Of("visit.decided") : Message.Of("visit.begun"), booking);
        }
        if (form.PlannedAt.Kind == DateTimeKind.Unspecified && !clock.Zone.Has(form.PlannedAt))
        {
            return Problem.Field("plannedAt", Message.Of("visit.left-out"));
        }
        if (paper && amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        visit.PlannedAt = BookVisitForm.At(form.PlannedAt, clock.Zone);
        visit.Minutes = form.Minutes ?? visit.Minutes;
        visit.WithId = form.WithId;
        if (await bookings.Wrong(visit, paper) is { } wrong)
        {
            return Problem.Fields([wrong]);
        }
        if (await bookings.WhyNotThen(visit, episode) is { } closed)
        {
            return closed;
        }
        if (!form.Anyway && !paper && await bookings.Collision(visit, episode.Client!) is { } collision)
        {
            return collision;
        }
        bookings.OpenEarlier(episode, visit);
        visit.Version++;
        return await Saved(visit, db, bookings, news);
    }

    private static async Task<Results<Ok<Booking>, ProblemHttpResult>> CallOff(
        Guid visitId,
        CallOffForm form,
        PalaestraDb db,
        Bookings bookings,
        ClinicClock clock,
        WhoIsHere who,
        VisitNews news
    )
    {
        if (await Found(visitId, db) is not var (visit, _))
        {
            return Problem.NotFound("visit");
        }
        var booking = (await bookings.Of(visitId))!;
        if (form.Reason?.Length > ReasonMost)
        {
            return Problem.Field("reason", Message.Of("client.long", ("most", ReasonMost)));
        }
        if (visit.CalledOff == form.What)
        {
            // The same tap once more.
            return TypedResults.Ok(booking);
        }
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(Message.Of("visit.changed"), booking);
        }
        if (booking.Begun)
        {
            return Problem.Conflict(Message.Of("visit.begun"), booking);
        }
        if (form.What == CalledOff.Missed && visit.PlannedAt > clock.Now)
        {
            return Problem.Field("what", Message.Of("visit.not-yet"));
        }
        Write(visit, form, clock, who);
        if (form is { Rest: true, What: CalledOff.Cancelled } && visit.SeriesId is { } series)
        {
            await CallOffRest(series, visit, form, db, bookings, clock, who);
        }
        return await Saved(visit, db, bookings, news);
    }

    private static async Task CallOffRest(
        Guid series,
        Visit after,
        CallOffForm form,
        PalaestraDb db,
        Bookings bookings,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var begun = (await bookings.OfSeries(series)).Where(b => b.Begun).Select(b => b.VisitId).ToHashSet();
        var rest = await db
            .Visits.Where(v => v.SeriesId == series && v.CalledOff == null && v.PlannedAt > after.PlannedAt)
            .ToListAsync();
        foreach (var visit in rest.Where(v => !begun.Contains(v.Id)))
        {
            Write(visit, form, clock, who);
        }
    }

    private static void Write(Visit visit, CallOffForm form, ClinicClock clock, WhoIsHere who)
    {
        visit.CalledOff = form.What;
        visit.CalledOffAt = clock.Now;
        visit.CalledOffBy = who.Name;
        visit.CalledOffReason = string.IsNullOrWhiteSpace(form.Reason) ? null : form.Reason.Trim();
        visit.Version++;
    }

    private static async Task<Results<Ok<Booking>, ProblemHttpResult>> PutBack(
        Guid visitId,
        PutBackForm form,
        PalaestraDb db,
        Bookings bookings,
        VisitNews news
    )
    {
        if (await Found(visitId, db) is not var (visit, episode))
        {
            return Problem.NotFound("visit");
        }
        if (visit.CalledOff is null)
        {
            return TypedResults.Ok((await bookings.Of(visitId))!);
        }
        if (form.Version != visit.Version)
        {
            return Problem.Conflict(Message.Of("visit.changed"), await bookings.Of(visitId));
        }
        if (await bookings.WhyNotThen(visit, episode) is { } closed)
        {
            return closed;
        }
        if (!form.Anyway && await bookings.Collision(visit, episode.Client!) is { } collision)
        {
            return collision;
        }
        visit.PutBack();
        return await Saved(visit, db, bookings, news);
    }

    private static async Task<(Visit Visit, Episode Episode)?> Found(Guid visitId, PalaestraDb db) =>
        await db.Visits.FindAsync(visitId) is { } visit && await EpisodeOf(visit.EpisodeId, db) is { } episode
            ? (visit, episode)
            : null;

    private static async Task<Results<Ok<Booking>, ProblemHttpResult>> Saved(
        Visit visit,
        PalaestraDb db,
        Bookings bookings,
        VisitNews news
    )
    {
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("visit.changed"));
        }
        news.Tell(visit.Id);
        return TypedResults.Ok((await bookings.Of(visit.Id))!);
    }
}
