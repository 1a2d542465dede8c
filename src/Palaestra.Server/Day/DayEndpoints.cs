using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Day;
using Palaestra.Data.Visits;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Practice;

namespace Palaestra.Server.Day;

/// <summary>A visit on the rail of the day.</summary>
/// <param name="RungId">A rung to draw beside the name: the first loaded exercise of the plan; none before a plan.</param>
/// <param name="WithId">Account of whom it is booked with, or who is in charge; none: nobody in particular.</param>
/// <param name="CalledOff">None: it stands.</param>
/// <param name="Phone">Of the client or, where they have none, of their guardian.</param>
/// <param name="Discharged">Their episode is.</param>
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
    string? RungId,
    Guid ClientId,
    int Minutes,
    Guid? WithId,
    string? WithName,
    CalledOff? CalledOff,
    bool FromPaper,
    bool Begun,
    Guid? SeriesId,
    int Version,
    string? Phone,
    bool Discharged
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

/// <param name="PileCount">Clients with something on the pile; <paramref name="Pile"/> is its top.</param>
/// <param name="Others">Clients without a visit today, those seen last first; <paramref name="OthersCount"/> of them in all.</param>
/// <param name="PractisedLastOn">The day the eye was last trained, where it is time again; none: it is not, or it never was.</param>
/// <param name="Behind">Clients of whom the record changed and who are not looked through yet.</param>
public sealed record DayView(
    DateOnly Date,
    Instant Now,
    IReadOnlyList<DayVisit> Visits,
    IReadOnlyList<WorklistEntry> Pile,
    int PileCount,
    IReadOnlyList<ClientLine> Others,
    int OthersCount,
    int Behind,
    DateOnly? PractisedLastOn
);

public static class DayEndpoints
{
    private const int PileMost = 30;

    public static void MapDay(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Day");
        group
            .MapGet("/day", Today)
            .Described(
                "GetDay",
                "The visits of today or another day, of all or of one practitioner, and what waits for a practitioner."
            );
    }

    /// <param name="day">None: today. <paramref name="with"/>: an account; none: everybody.</param>
    private static async Task<Ok<DayView>> Today(
        PalaestraDb db,
        StandingWorker standings,
        ClinicClock clock,
        WhoIsHere who,
        DayVisits visits,
        ClientSearch search,
        PracticeRuns practice,
        CancellationToken gone,
        DateOnly? day = null,
        Guid? with = null
    )
    {
        if (await Behind(db, gone) > 0)
        {
            await standings.CaughtUp(gone);
        }
        var today = clock.Today;
        var all = await visits.On(day ?? today);
        var (pile, count) = await Pile(today, db);
        var here = all.Where(v => v.CalledOff is null).Select(v => v.EpisodeId).Distinct().ToList();
        var others = await search.Find(null, who.Clinical, without: here);
        var clients = await db.Clients.CountAsync(c => c.ArchivedAt == null && c.MergedIntoId == null, gone);
        var seen = all.Where(v => v.CalledOff is null).Select(v => v.ClientId).Distinct().Count();
        var view = new DayView(
            day ?? today,
            clock.Now,
            [.. all.Where(v => with is null || v.WithId == with)],
            pile,
            count,
            others,
            Math.Max(clients - seen, others.Count),
            await Behind(db, gone),
            who.Clinical && await practice.DueFor(who.AccountId!.Value) is (true, { } last) ? last : null
        );
        return TypedResults.Ok(who.Clinical ? view : AtTheDesk(view, who));
    }

    /// <summary>Names and times alone: what is clinical is not for everybody.</summary>
    private static DayView AtTheDesk(DayView day, WhoIsHere who) =>
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
                        Phone = who.Is(Data.Staff.Role.Reception) ? v.Phone : null,
                    }
                ),
            ],
            Pile = [],
            PileCount = 0,
        };

    private static Task<int> Behind(PalaestraDb db, CancellationToken gone) =>
        db.Standings.CountAsync(s => s.Stale, gone);

    /// <summary>At most one entry a client: the most pressing.</summary>
    internal static async Task<(List<WorklistEntry> Top, int Count)> Pile(DateOnly today, PalaestraDb db)
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
