using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Intake;
using Palaestra.Data.Visits;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Visits;

/// <summary>Books visits, and tells them as the desk sees them.</summary>
public sealed class Bookings(PalaestraDb db, ClinicClock clock, Staffing staffing, WhoIsHere who)
{
    /// <summary>A visit that takes longer than this is none.</summary>
    private static readonly Duration Longest = Duration.FromMinutes(BookVisitForm.MinutesMax);

    /// <returns>None where there is no such visit.</returns>
    public async Task<Booking?> Of(Guid visitId) =>
        await Told(db.Visits.Where(v => v.Id == visitId)) is [var booking] ? booking : null;

    /// <summary>Of all episodes of a client, the latest first.</summary>
    public async Task<IReadOnlyList<Booking>> OfClient(Guid clientId) =>
        [
            .. (
                await Told(
                    db.Visits.Where(v => db.Episodes.Any(e => e.Id == v.EpisodeId && e.ClientId == clientId))
                )
            ).Reverse(),
        ];

    /// <summary>Of one series, in order of time.</summary>
    public Task<IReadOnlyList<Booking>> OfSeries(Guid seriesId) =>
        Told(db.Visits.Where(v => v.SeriesId == seriesId));

    /// <summary>In order of time.</summary>
    public async Task<IReadOnlyList<Booking>> Told(IQueryable<Visit> visits)
    {
        var rows = await (
            from visit in visits.AsNoTracking()
            join episode in db.Episodes on visit.EpisodeId equals episode.Id
            orderby visit.PlannedAt, visit.Id
            select new
            {
                visit.Id,
                visit.EpisodeId,
                episode.ClientId,
                episode.Client!.Name,
                visit.PlannedAt,
                visit.Minutes,
                WithId = visit.WithId ?? episode.Client.InChargeId,
                visit.CalledOff,
                visit.CalledOffReason,
                visit.CalledOffBy,
                visit.FromPaperAt,
                Begun = visit.DecidedAt != null
                    || visit.CheckIn != null
                    || visit.Intake != null
                    || db.Events.Any(e => e.VisitId == visit.Id)
                    || db.Notes.Any(n => n.VisitId == visit.Id)
                    || db.Charts.Any(c => c.VisitId == visit.Id),
                visit.SeriesId,
                visit.Version,
            }
        ).ToListAsync();
        var told = new List<Booking>(rows.Count);
        foreach (var row in rows)
        {
            told.Add(
                new Booking(
                    row.Id,
                    row.EpisodeId,
                    row.ClientId,
                    row.Name,
                    row.PlannedAt,
                    row.Minutes,
                    row.WithId,
                    await staffing.NameOf(row.WithId),
                    row.CalledOff,
                    row.CalledOffReason,
                    row.CalledOffBy,
                    row.FromPaperAt is not null,
                    row.Begun,
                    row.SeriesId,
                    row.Version
                )
            );
        }
        return told;
    }

    /// <summary>A visit as it was asked for; the caller adds and saves it. One from before the episode was opened opens it earlier.</summary>
    /// <param name="episode">With its client.</param>
    /// <param name="path">Before the names of the fields.</param>
    public async Task<(Visit? Visit, ProblemHttpResult? Problem)> New(
        BookVisitForm form,
        Episode episode,
        string path = ""
    )
    {
        var at = form.PlannedAt is { } planned ? BookVisitForm.At(planned, clock.Zone) : clock.Now;
        var visit = new Visit
        {
            Id = form.Id ?? Guid.CreateVersion7(),
            EpisodeId = episode.Id,
            PlannedAt = at,
            Minutes = form.Minutes ?? Visit.UsualMinutes,
            WithId = form.WithId,
            FromPaperAt = form.FromPaper ? clock.Now : null,
            FromPaperBy = form.FromPaper ? who.Name : null,
        };
        if (form.PlannedAt is { Kind: DateTimeKind.Unspecified } local && !clock.Zone.Has(local))
        {
            return (null, Problem.Field($"{path}plannedAt", Message.Of("visit.left-out")));
        }
        if (await Wrong(visit, form.FromPaper, path) is { } wrong)
        {
            return (null, Problem.Fields([wrong]));
        }
        if (await WhyNotThen(visit, episode) is { } closed)
        {
            return (null, closed);
        }
        if (
            form is { WithId: not null, Anyway: false, FromPaper: false }
            && await Collision(visit, episode.Client!) is { } collision
        )
        {
            return (null, collision);
        }
        OpenEarlier(episode, visit);
        return (visit, null);
    }

    /// <summary>A visit from before the episode was opened: it was opened earlier than was known.</summary>
    public void OpenEarlier(Episode episode, Visit visit)
    {
        if (clock.Zone.DayOf(visit.PlannedAt) is var day && day < episode.OpenedOn)
        {
            episode.OpenedOn = day;
        }
    }

    /// <summary>What of a visit cannot be, whatever else is booked.</summary>
    public async Task<FieldError?> Wrong(Visit visit, bool paper, string path = "")
    {
        var day = clock.Zone.DayOf(visit.PlannedAt);
        return visit.Minutes is < BookVisitForm.MinutesMin or > BookVisitForm.MinutesMax
                ? new($"{path}minutes", Message.Of("visit.minutes"))
            : paper && visit.PlannedAt > clock.Now ? new($"{path}plannedAt", Message.Of("visit.paper-future"))
            : !paper && (day < clock.Today || day > clock.Today.AddYears(1))
                ? new($"{path}plannedAt", Message.Of("visit.within-a-year"))
            : visit.WithId is { } account && !await staffing.IsBookable(account)
                ? new($"{path}withId", Message.Of("visit.with"))
            : await db.Visits.AnyAsync(v =>
                v.EpisodeId == visit.EpisodeId
                && v.PlannedAt == visit.PlannedAt
                && v.Id != visit.Id
                && v.CalledOff == null
            )
                ? new($"{path}plannedAt", Message.Of("visit.taken"))
            : null;
    }

    /// <summary>The episode was not open on that day, or the client was not born.</summary>
    public async Task<ProblemHttpResult?> WhyNotThen(Visit visit, Episode episode)
    {
        var day = clock.Zone.DayOf(visit.PlannedAt);
        return day < episode.Client!.BirthDate ? Problem.Field("plannedAt", Message.Of("visit.before-birth"))
            : (await TimelineOf(episode)).WhyNotAt(day) is { } why ? Problem.Conflict(why)
            : null;
    }

    /// <summary>When an episode was open.</summary>
    public async Task<CareTimeline> TimelineOf(Episode episode) =>
        new(
            episode.OpenedOn,
            [
                .. (await db.Discharges.AsNoTracking().Where(d => d.EpisodeId == episode.Id).ToListAsync())
                    .OrderBy(d => d.At)
                    .Select(d => new Closing(d.Day, d.ReopenedOn)),
            ]
        );

    /// <summary>What stands at the same time, of the client or of whom it is with; none: nothing.</summary>
    public async Task<ProblemHttpResult?> Collision(Visit visit, Client client)
    {
        var taken = await TakenBy(visit, client);
        return taken.Count == 0
            ? null
            : Problem.Taken(
                Message.Of(
                    "visit.collides",
                    (
                        "visits",
                        taken.Select(b =>
                            Message.Of(
                                "visit.collision",
                                ("name", b.Name),
                                (
                                    "at",
                                    clock
                                        .Zone.Local(b.PlannedAt)
                                        .ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture)
                                ),
                                ("with", b.WithName)
                            )
                        )
                    )
                ),
                taken
            );
    }

    /// <summary>What stands at the same time.</summary>
    public async Task<IReadOnlyList<Booking>> TakenBy(Visit visit, Client client)
    {
        var (from, to) = (visit.PlannedAt - Longest, visit.PlannedAt + Longest);
        var near = await Told(
            db.Visits.Where(v => v.CalledOff == null && v.PlannedAt > from && v.PlannedAt < to)
        );
        var wanted = new BookedTime(
            visit.Id,
            client.Id,
            visit.WithId ?? client.InChargeId,
            visit.PlannedAt.ToDateTimeOffset(),
            visit.Minutes
        );
        var collide = wanted
            .Collisions(
                near.Select(b => new BookedTime(
                    b.VisitId,
                    b.ClientId,
                    b.WithId,
                    b.PlannedAt.ToDateTimeOffset(),
                    b.Minutes
                ))
            )
            .Select(b => b.Visit)
            .ToHashSet();
        return [.. near.Where(b => collide.Contains(b.VisitId))];
    }
}
