using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Screening;

namespace Palaestra.Server.Clients;

/// <param name="Name">As it stands in the record: that it is the right one.</param>
/// <param name="Reason">1 to 500 characters; told in the certificate and nowhere else.</param>
/// <param name="Early">Also before the clinic's retention time is over, as the client may ask.</param>
public sealed record EraseForm(string Name, string Reason, bool Early = false);

public sealed record ErasedRows(string What, int Rows);

/// <summary>What went, told once: nothing of it is kept.</summary>
/// <param name="RetainedUntil">When the clinic's retention time is or was over; none: there was no visit.</param>
/// <param name="BackupsUntil">When the last backup that still holds them is removed; none: there is no backup.</param>
public sealed record ErasureCertificate(
    string Number,
    string Name,
    DateOnly BirthDate,
    string Reason,
    string By,
    Instant At,
    DateOnly? RetainedUntil,
    IReadOnlyList<ErasedRows> Rows,
    int Files,
    DateOnly? BackupsUntil
);

/// <summary>Somebody whose record need not be kept any longer.</summary>
public sealed record RetentionOver(
    Guid ClientId,
    string Number,
    string Name,
    DateOnly LastVisit,
    DateOnly Until
);

public static class ErasureEndpoints
{
    private const int ReasonMost = 500;

    public static void MapErasures(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Clients");
        group
            .MapPost("/clients/{clientId:guid}/erasure", Erase)
            .Described("EraseClient", "Erases a client for good, and certifies what went.", 404, 409);
        group
            .MapGet("/clients/retention-over", Over)
            .Described("GetRetentionOver", "Clients whose record need not be kept any longer.");
        group
            .MapGet("/erased", Erased)
            .Described(
                "GetErased",
                "Visits of clients who were erased: a tablet forgets what it has of them."
            );
    }

    private static async Task<Results<Ok<ErasureCertificate>, ProblemHttpResult>> Erase(
        Guid clientId,
        EraseForm form,
        PalaestraDb db,
        Settings settings,
        BackupRuns backups,
        ClinicClock clock,
        WhoIsHere who,
        TapQueue queue,
        Live.VisitNews news,
        Audit.AuditWriter audit,
        TapShelf taps,
        PlanShelf plans
    )
    {
        var client = await db.Clients.AsNoTracking().FirstOrDefaultAsync(c => c.Id == clientId);
        if (client is null)
        {
            return Problem.NotFound("client");
        }
        if (client.MergedIntoId is not null)
        {
            return Problem.Conflict(Message.Of("client.merged"));
        }
        if (form.Name.Trim() != client.Name)
        {
            return Problem.Field("name", Message.Of("erase.name"));
        }
        if (form.Reason.Trim().Length is 0 or > ReasonMost)
        {
            return Problem.Field("reason", Message.Of("amend.reason"));
        }
        var last = await LastVisits(db)
            .Where(v => v.ClientId == clientId)
            .Select(v => v.Last)
            .FirstOrDefaultAsync();
        var until = last == default ? null : (DateOnly?)clock.Zone.DayOf(last).AddYears(await Years(db));
        if (until > clock.Today && !form.Early)
        {
            return Problem.Field("early", Message.Of("erase.early", ("day", until)));
        }
        // What waits to be linked is silenced with the rest.
        await audit.CaughtUp();
        Erased? erased = null;
        await queue.Write(() =>
        {
            erased = Erasure.ForGood(
                settings.DataFolder,
                settings.BackupFolder,
                clientId,
                clock.Now.ToDateTimeOffset()
            );
            return Task.FromResult(0);
        });
        taps.Clear();
        plans.Clear();
        // Every tablet asks what was erased.
        news.TellAll();
        return TypedResults.Ok(
            new ErasureCertificate(
                client.Number,
                client.Name,
                client.BirthDate,
                form.Reason.Trim(),
                who.Name,
                clock.Now,
                until,
                [
                    .. erased!
                        .Rows.Where(row => row.Value > 0)
                        .OrderByDescending(row => row.Value)
                        .Select(row => new ErasedRows(row.Key, row.Value)),
                ],
                erased.Files,
                backups.HeldUntil() is { } held ? clock.Zone.DayOf(Instant.FromDateTimeOffset(held)) : null
            )
        );
    }

    private static async Task<int> Years(PalaestraDb db) =>
        (await db.Clinics.AsNoTracking().SingleAsync()).RetentionYears;

    private sealed class LastVisit
    {
        public Guid ClientId { get; init; }
        public Instant Last { get; init; }
    }

    private static IQueryable<LastVisit> LastVisits(PalaestraDb db) =>
        from visit in db.Visits
        where visit.CalledOff == null
        join episode in db.Episodes on visit.EpisodeId equals episode.Id
        group visit.PlannedAt by episode.ClientId into own
        select new LastVisit { ClientId = own.Key, Last = own.Max() };

    private static async Task<Ok<IReadOnlyList<RetentionOver>>> Over(PalaestraDb db, ClinicClock clock)
    {
        var years = await Years(db);
        var before = clock.Zone.StartOf(clock.Today.AddYears(-years));
        var rows = await (
            from last in LastVisits(db)
            where last.Last < before
            join client in db.Clients on last.ClientId equals client.Id
            orderby last.Last
            select new
            {
                client.Id,
                client.Number,
                client.Name,
                last.Last,
            }
        )
            .Take(100)
            .ToListAsync();
        return TypedResults.Ok<IReadOnlyList<RetentionOver>>([
            .. rows.Select(row => new RetentionOver(
                row.Id,
                row.Number,
                row.Name,
                clock.Zone.DayOf(row.Last),
                clock.Zone.DayOf(row.Last).AddYears(years)
            )),
        ]);
    }

    private static Ok<IReadOnlyList<Guid>> Erased(Settings settings) =>
        TypedResults.Ok<IReadOnlyList<Guid>>([
            .. Erasure.Listed(settings.BackupFolder).SelectMany(entry => entry.Visits ?? []).Distinct(),
        ]);
}
