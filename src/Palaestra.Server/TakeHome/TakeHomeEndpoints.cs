using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.TakeHome;

public sealed record FeedView(string Path);

public static class TakeHomeEndpoints
{
    private const string CalendarType = "text/calendar";

    public static void MapTakeHome(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}").WithTags("TakeHome");
        group.MapGet("/sheet", SheetOf).WithName("GetSheet");
        group.MapGet("/sheet.pdf", SheetPdfOf).WithName("GetSheetPdf");
        group.MapGet("/calendar", Calendar).WithName("GetCalendar");
        group.MapGet("/calendar.ics", CalendarFile).WithName("GetCalendarFile");
        group.MapPost("/feed", OpenFeed).WithName("OpenFeed");
        group.MapDelete("/feed", CloseFeed).WithName("CloseFeed");
        routes.MapGet("/feeds/{key}.ics", Feed).WithName("GetFeed").WithTags("TakeHome").AllowAnonymous();
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> SheetPdfOf(
        Guid id,
        CaseFiles files,
        HomeProgrammes programmes,
        ClinicWords words,
        ClinicClock clock,
        HttpResponse response,
        Word<Paper>? paper,
        bool large = false,
        bool record = false
    )
    {
        var (sheet, problem) = await Find(id, files, programmes, record);
        return sheet is null
            ? problem!
            : NamedFile.Pdf(
                response,
                SheetPdf.Write(sheet, paper?.Value ?? Paper.A4, large, words.Speech),
                words.Say(Message.Of("file.home-programme", ("name", sheet.ClientName), ("day", clock.Today)))
            );
    }

    /// <summary>What the PDF says, for the page.</summary>
    private static async Task<Results<Ok<Sheet>, ProblemHttpResult>> SheetOf(
        Guid id,
        CaseFiles files,
        HomeProgrammes programmes,
        bool record = false
    )
    {
        var (sheet, problem) = await Find(id, files, programmes, record);
        return sheet is null ? problem! : TypedResults.Ok(sheet);
    }

    private static async Task<(Sheet? Sheet, ProblemHttpResult? Problem)> Find(
        Guid id,
        CaseFiles files,
        HomeProgrammes programmes,
        bool record
    )
    {
        if (await files.OfEpisode(id) is not { } file)
        {
            return (null, Problem.NotFound("episode"));
        }
        if (file.Closed)
        {
            return (null, Problem.Closed());
        }
        return file.CurrentPlan is { Plan.Items.Count: > 0 } revision
            ? (await programmes.Of(file, revision, record), null)
            : (null, Problem.NotFound("plan"));
    }

    private static async Task<Results<Ok<CalendarView>, ProblemHttpResult>> Calendar(
        Guid id,
        CaseFiles files,
        CalendarFeeds feeds
    )
    {
        if (await files.OfEpisode(id) is not { } file)
        {
            return Problem.NotFound("episode");
        }
        return feeds.View(file) is { } view ? TypedResults.Ok(view) : Problem.NotFound("plan");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> CalendarFile(
        Guid id,
        CaseFiles files,
        CalendarFeeds feeds
    ) =>
        await files.OfEpisode(id) is { } file
            ? TypedResults.File(Encoding.UTF8.GetBytes(feeds.Text(file)), CalendarType, "exercises.ics")
            : Problem.NotFound("episode");

    /// <summary>An address that needs no sign-in: a calendar program has none. Long and random; asking again makes a new one.</summary>
    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> OpenFeed(Guid id, PalaestraDb db)
    {
        if (await db.Episodes.FindAsync(id) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        episode.FeedKey = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(24));
        await db.SaveChangesAsync();
        return TypedResults.Ok(new FeedView(CalendarFeeds.PathOf(episode.FeedKey)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> CloseFeed(Guid id, PalaestraDb db)
    {
        if (await db.Episodes.FindAsync(id) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        episode.FeedKey = null;
        await db.SaveChangesAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> Feed(
        string key,
        PalaestraDb db,
        CaseFiles files,
        CalendarFeeds feeds
    )
    {
        var id = await db
            .Episodes.Where(episode => episode.FeedKey == key)
            .Select(episode => (Guid?)episode.Id)
            .FirstOrDefaultAsync();
        return id is { } found && await files.OfEpisode(found) is { } file
            ? TypedResults.Content(feeds.Text(file), CalendarType, Encoding.UTF8)
            : Problem.NotFound("feed");
    }
}
