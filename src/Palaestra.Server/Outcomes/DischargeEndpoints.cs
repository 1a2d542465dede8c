using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Data.Outcomes;
using Palaestra.Data.Visits;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Visits;
using Palaestra.Server.Words;

namespace Palaestra.Server.Outcomes;

/// <param name="ReopenedOn">None: it holds.</param>
public sealed record DischargeView(
    DateOnly Day,
    Discharge Summary,
    string By,
    Instant At,
    DateOnly? ReopenedOn,
    string? ReopenedBy,
    string? ReopenReason
);

/// <summary>What there is to know before an episode ends.</summary>
/// <param name="Goals">What the client wanted to do again, by id: each is answered.</param>
/// <param name="Status">What the record says of how it went, sentence by sentence.</param>
/// <param name="Why">Why it cannot be discharged today; none: it can.</param>
/// <param name="Undecided">Days of sessions on which nothing was decided.</param>
/// <param name="Booked">Visits to come that would be called off.</param>
/// <param name="Discharges">The latest first.</param>
public sealed record DischargeAsk(
    int Version,
    DateOnly? DischargedOn,
    IReadOnlyList<string> Goals,
    IReadOnlyList<string> Status,
    Message? Why,
    IReadOnlyList<DateOnly> Undecided,
    IReadOnlyList<Booking> Booked,
    IReadOnlyList<DischargeView> Discharges
);

/// <param name="Day">None: today.</param>
/// <param name="Version">Of the episode that was read.</param>
public sealed record DischargeForm(Discharge Summary, int Version, DateOnly? Day = null);

/// <param name="Reason">1 to 500 characters.</param>
public sealed record ReopenForm(int Version, string? Reason);

public static class DischargeEndpoints
{
    public static void MapDischarges(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}").WithTags("Outcomes");
        group
            .MapGet("/discharge", Get)
            .Described("GetDischarge", "How an episode went, what is still open, and its discharges.");
        group
            .MapPost("/discharge", Post)
            .Described(
                "DischargeEpisode",
                "Ends an episode with a summary; visits to come are called off.",
                409
            );
        group
            .MapPost("/reopen", Reopen)
            .Described("ReopenEpisode", "Takes a discharged episode up again.", 409);
    }

    private static async Task<Ok<DischargeAsk>> Get(
        Guid id,
        OpenCase open,
        PalaestraDb db,
        Bookings bookings,
        LetterComposer letters,
        ClinicClock clock
    ) => TypedResults.Ok(await Asked(open.File, db, bookings, letters, clock));

    private static async Task<Results<Ok<DischargeAsk>, ProblemHttpResult>> Post(
        Guid id,
        DischargeForm form,
        OpenCase open,
        CaseFiles files,
        PalaestraDb db,
        Bookings bookings,
        LetterComposer letters,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var file = open.File;
        var day = form.Day ?? clock.Today;
        if (form.Version != file.Episode.Version)
        {
            return Problem.Conflict(
                Message.Of("conflict.changed"),
                await Asked(file, db, bookings, letters, clock)
            );
        }
        var timeline = await bookings.TimelineOf(file.Episode);
        if (timeline.WhyNotDischarged(day, clock.Today, TookPlace(file), file.Closed) is { } why)
        {
            return timeline.IsOpen && !file.Closed ? Problem.Field("day", why) : Problem.Conflict(why);
        }
        var errors = Discharge.Errors(form.Summary, file.Episode.Goals, "summary").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        db.Discharges.Add(
            new()
            {
                EpisodeId = id,
                Day = day,
                Summary = form.Summary,
                At = clock.Now,
                By = who.Name,
                AccountId = who.AccountId,
            }
        );
        foreach (var visit in ToCome(file))
        {
            (visit.CalledOff, visit.CalledOffAt, visit.CalledOffBy) = (
                CalledOff.Cancelled,
                clock.Now,
                who.Name
            );
            visit.Version++;
        }
        file.Episode.DischargedOn = day;
        file.Episode.Version++;
        return await Saved(id, files, db, bookings, letters, clock);
    }

    private static async Task<Results<Ok<DischargeAsk>, ProblemHttpResult>> Reopen(
        Guid id,
        ReopenForm form,
        OpenCase open,
        CaseFiles files,
        PalaestraDb db,
        Bookings bookings,
        LetterComposer letters,
        ClinicClock clock,
        WhoIsHere who,
        Amending amending
    )
    {
        var episode = open.File.Episode;
        if (amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        if (form.Version != episode.Version)
        {
            return Problem.Conflict(
                Message.Of("conflict.changed"),
                await Asked(open.File, db, bookings, letters, clock)
            );
        }
        var last = (await db.Discharges.Where(d => d.EpisodeId == id).ToListAsync())
            .Where(d => d.ReopenedOn is null)
            .MaxBy(d => d.At);
        if (episode.DischargedOn is null || last is null)
        {
            return Problem.Conflict(Message.Of("discharge.open"));
        }
        (last.ReopenedOn, last.ReopenedAt, last.ReopenedBy, last.ReopenReason) = (
            clock.Today,
            clock.Now,
            who.Name,
            amending.Reason
        );
        episode.DischargedOn = null;
        episode.Version++;
        episode.Client!.ArchivedAt = null;
        return await Saved(id, files, db, bookings, letters, clock);
    }

    private static async Task<Results<Ok<DischargeAsk>, ProblemHttpResult>> Saved(
        Guid id,
        CaseFiles files,
        PalaestraDb db,
        Bookings bookings,
        LetterComposer letters,
        ClinicClock clock
    ) =>
        await db.SavedFirst()
            ? TypedResults.Ok(await Asked((await files.OfEpisode(id))!, db, bookings, letters, clock))
            : Problem.Conflict(Message.Of("conflict.changed"));

    private static async Task<DischargeAsk> Asked(
        CaseFile file,
        PalaestraDb db,
        Bookings bookings,
        LetterComposer letters,
        ClinicClock clock
    )
    {
        var ids = ToCome(file).Select(v => v.Id).ToList();
        var discharges = await db
            .Discharges.AsNoTracking()
            .Where(d => d.EpisodeId == file.Episode.Id)
            .ToListAsync();
        return new(
            file.Episode.Version,
            file.Episode.DischargedOn,
            file.Episode.Goals,
            await letters.Status(file),
            (await bookings.TimelineOf(file.Episode)).WhyNotDischarged(
                clock.Today,
                clock.Today,
                TookPlace(file),
                file.Closed
            ),
            [
                .. file
                    .Visits.Where(v => v.DecidedAt is null && file.Has(v.Id, TrialPurpose.Session))
                    .Select(file.DayOf),
            ],
            await bookings.Told(db.Visits.Where(v => ids.Contains(v.Id))),
            [
                .. discharges
                    .OrderByDescending(d => d.At)
                    .Select(d => new DischargeView(
                        d.Day,
                        d.Summary,
                        d.By,
                        d.At,
                        d.ReopenedOn,
                        d.ReopenedBy,
                        d.ReopenReason
                    )),
            ]
        );
    }

    private static List<Visit> ToCome(CaseFile file) => [.. file.Visits.Where(v => !file.HasBegun(v))];

    private static List<DateOnly> TookPlace(CaseFile file) =>
        [.. file.Visits.Where(file.HasBegun).Select(file.DayOf)];
}
