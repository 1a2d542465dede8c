using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Day;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;

namespace Palaestra.Server.Day;

/// <summary>A visit on the rail of the day.</summary>
/// <param name="RungId">A rung to draw beside the name: the first loaded exercise of the plan; none before a plan.</param>
public sealed record DayVisit(
    Guid EpisodeId,
    Guid VisitId,
    string Name,
    Instant PlannedAt,
    int Number,
    VisitState State,
    bool Closed,
    Message Says,
    int? PainFirst,
    int? PainLast,
    string? RungId
);

/// <summary>Something that wants a decision, and where to take it.</summary>
public sealed record WorklistEntry(
    WorklistKind Kind,
    Guid EpisodeId,
    Guid VisitId,
    string Name,
    Message What,
    Message Step,
    string Station
);

public sealed record ClientLine(Guid EpisodeId, Guid VisitId, string Name, string Complaint);

/// <param name="PileCount">Clients with something on the pile; <paramref name="Pile"/> is its top.</param>
/// <param name="Others">Clients without a visit today, those seen last first; <paramref name="OthersCount"/> of them in all.</param>
/// <param name="Behind">Clients of whom the record changed and who are not looked through yet.</param>
public sealed record DayView(
    DateOnly Date,
    Instant Now,
    IReadOnlyList<DayVisit> Visits,
    IReadOnlyList<WorklistEntry> Pile,
    int PileCount,
    IReadOnlyList<ClientLine> Others,
    int OthersCount,
    int Behind
);

public static class DayEndpoints
{
    private const int PileMost = 30;
    private const int OthersMost = 30;

    public static void MapDay(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Day");
        group
            .MapGet("/day", Today)
            .Described("GetDay", "The visits of today, and what waits for a practitioner.");
        group
            .MapGet("/clients", Find)
            .Described("FindClients", "Clients whose name has these letters; all where none are given.");
    }

    private static async Task<Ok<DayView>> Today(
        PalaestraDb db,
        StandingWorker standings,
        ClinicClock clock,
        WhoIsHere who,
        CancellationToken gone
    )
    {
        if (await Behind(db, gone) > 0)
        {
            await standings.CaughtUp(gone);
        }
        var today = clock.Today;
        var visits = await VisitsOn(today, clock.Zone, db);
        var (pile, count) = await Pile(today, db);
        var here = visits.Select(v => v.EpisodeId).ToList();
        var others = await LinesOf(Seen(db).Where(s => !here.Contains(s.EpisodeId)), db);
        var clients = await db.Standings.CountAsync(gone);
        var day = new DayView(
            today,
            clock.Now,
            visits,
            pile,
            count,
            others,
            clients - here.Distinct().Count(),
            await Behind(db, gone)
        );
        return TypedResults.Ok(who.Clinical ? day : AtTheDesk(day));
    }

    /// <summary>Names and times alone: what is clinical is not for everybody.</summary>
    private static DayView AtTheDesk(DayView day) =>
        day with
        {
            Visits =
            [
                .. day.Visits.Select(v =>
                    v with
                    {
                        Closed = false,
                        Says = Message.Plain(""),
                        PainFirst = null,
                        PainLast = null,
                        RungId = null,
                    }
                ),
            ],
            Pile = [],
            PileCount = 0,
            Others = [.. day.Others.Select(line => line with { Complaint = "" })],
        };

    private static Task<int> Behind(PalaestraDb db, CancellationToken gone) =>
        db.Standings.CountAsync(s => s.Stale, gone);

    /// <summary>Clients whose name or complaint holds the words, those seen last first.</summary>
    private static async Task<Ok<IReadOnlyList<ClientLine>>> Find(
        string? words,
        PalaestraDb db,
        WhoIsHere who
    )
    {
        var clinical = who.Clinical;
        var sought = $"%{(words ?? "").Trim()}%";
        var found =
            from standing in Seen(db)
            join episode in db.Episodes on standing.EpisodeId equals episode.Id
            where
                EF.Functions.Like(episode.Client!.Name, sought)
                || (clinical && EF.Functions.Like(episode.Complaint, sought))
            select standing;
        var lines = await LinesOf(found, db);
        return TypedResults.Ok<IReadOnlyList<ClientLine>>(
            clinical ? lines : [.. lines.Select(line => line with { Complaint = "" })]
        );
    }

    private static IQueryable<Standing> Seen(PalaestraDb db) =>
        db.Standings.AsNoTracking().Where(standing => standing.LatestVisitId != Guid.Empty);

    private static Task<List<ClientLine>> LinesOf(IQueryable<Standing> standings, PalaestraDb db) =>
        (
            from standing in standings.OrderByDescending(s => s.LatestOn).Take(OthersMost)
            join episode in db.Episodes on standing.EpisodeId equals episode.Id
            orderby standing.LatestOn descending, episode.Client!.Name
            select new ClientLine(episode.Id, standing.LatestVisitId, episode.Client!.Name, episode.Complaint)
        ).ToListAsync();

    private static async Task<List<DayVisit>> VisitsOn(DateOnly day, ClinicZone zone, PalaestraDb db)
    {
        var (begins, ends) = (zone.StartOf(day), zone.StartOf(day.AddDays(1)));
        var rows = await (
            from visit in db.Visits.AsNoTracking()
            where visit.PlannedAt >= begins && visit.PlannedAt < ends
            join standing in db.Standings on visit.EpisodeId equals standing.EpisodeId
            join said in db.StandingVisits on visit.Id equals said.VisitId
            join episode in db.Episodes on visit.EpisodeId equals episode.Id
            orderby visit.PlannedAt
            select new
            {
                visit.Id,
                visit.EpisodeId,
                visit.PlannedAt,
                episode.Client!.Name,
                said.Number,
                said.State,
                said.Says,
                Standing = standing,
            }
        ).ToListAsync();
        return rows.ConvertAll(row => new DayVisit(
            row.EpisodeId,
            row.Id,
            row.Name,
            row.PlannedAt,
            row.Number,
            Enum.Parse<VisitState>(row.State),
            row.Standing.Closed,
            row.Says,
            row.Standing.PainFirst,
            row.Standing.PainLast,
            row.Standing.RungId
        ));
    }

    /// <summary>At most one entry a client: the most pressing.</summary>
    private static async Task<(List<WorklistEntry> Top, int Count)> Pile(DateOnly today, PalaestraDb db)
    {
        var due = db.Pile.AsNoTracking().Where(row => row.From <= today);
        var count = await due.Select(row => row.EpisodeId).Distinct().CountAsync();
        var rows = await (
            from row in due
            where !due.Any(other => other.EpisodeId == row.EpisodeId && other.Kind < row.Kind)
            join episode in db.Episodes on row.EpisodeId equals episode.Id
            orderby row.Kind, row.From
            select new { Row = row, episode.Client!.Name }
        )
            .Take(2 * PileMost)
            .ToListAsync();
        return (
            [
                .. rows.DistinctBy(pair => pair.Row.EpisodeId)
                    .Take(PileMost)
                    .Select(pair => new WorklistEntry(
                        pair.Row.Kind,
                        pair.Row.EpisodeId,
                        pair.Row.VisitId,
                        pair.Name,
                        Since(pair.Row, today),
                        pair.Row.Step,
                        pair.Row.Station
                    )),
            ],
            count
        );
    }

    private static Message Since(WorklistRow row, DateOnly today) =>
        row.CountFrom is { } from && today.DayNumber - from.DayNumber is var days
            ? row.What.With(("days", days), ("weeks", days / 7))
            : row.What;
}
