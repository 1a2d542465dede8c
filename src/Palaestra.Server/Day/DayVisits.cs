using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Day;

/// <summary>The visits of one day, as the rail shows them. What is worked out from whole records is known from today on; of a day that is over only what the visits themselves tell.</summary>
public sealed class DayVisits(PalaestraDb db, ClinicClock clock, Bookings bookings)
{
    /// <summary>In order of time, those that were called off among them.</summary>
    public async Task<IReadOnlyList<DayVisit>> On(DateOnly day)
    {
        var (begins, ends) = (clock.Zone.StartOf(day), clock.Zone.StartOf(day.AddDays(1)));
        var visits = db.Visits.Where(v => v.PlannedAt >= begins && v.PlannedAt < ends);
        var rows = await (
            from visit in visits.AsNoTracking()
            join episode in db.Episodes on visit.EpisodeId equals episode.Id
            join standing in db.Standings on visit.EpisodeId equals standing.EpisodeId
            join told in db.StandingVisits on visit.Id equals told.VisitId into tellings
            from said in tellings.DefaultIfEmpty()
            select new
            {
                visit.Id,
                Done = visit.DecidedAt != null,
                episode.Client!.Phone,
                episode.Client!.Guardian,
                episode.DischargedOn,
                Before = db.Visits.Count(v =>
                    v.EpisodeId == visit.EpisodeId && v.CalledOff == null && v.PlannedAt < visit.PlannedAt
                ),
                Said = said,
                Standing = standing,
            }
        ).ToDictionaryAsync(row => row.Id);
        return
        [
            .. from booking in await bookings.Told(visits)
            where rows.ContainsKey(booking.VisitId)
            let row = rows[booking.VisitId]
            let state = row.Done ? VisitState.Done
            : booking.Begun ? VisitState.Open
            : VisitState.Planned
            select new DayVisit(
                booking.EpisodeId,
                booking.VisitId,
                booking.Name,
                booking.PlannedAt,
                row.Said?.Number ?? row.Before + 1,
                row.Said is null ? state : Enum.Parse<VisitState>(row.Said.State),
                row.Standing.Closed,
                row.Said?.Says ?? Message.Plain(""),
                row.Standing.PainFirst,
                row.Standing.PainLast,
                row.Standing.RungId,
                booking.ClientId,
                booking.Minutes,
                booking.WithId,
                booking.WithName,
                booking.CalledOff,
                booking.FromPaper,
                booking.Begun,
                booking.SeriesId,
                booking.Version,
                row.Phone ?? row.Guardian?.Phone,
                row.DischargedOn is not null
            ),
        ];
    }
}
