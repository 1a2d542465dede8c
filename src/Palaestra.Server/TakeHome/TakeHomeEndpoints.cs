using System.Security.Cryptography;
using System.Text;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
using Palaestra.Data;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.TakeHome;

public sealed record FeedView(string Path);

public static class TakeHomeEndpoints
{
    /// <summary>A calendar asks a few times a day; oftener than this it is no calendar. By address of the feed and of who asks. Our own.</summary>
    private const int FeedsAMinute = 30;
    public const string AddressLimit = "addresses";

    public static void AddFeedLimit(this IServiceCollection services) =>
        services.AddRateLimiter(limits =>
        {
            limits.OnRejected = (rejected, _) =>
            {
                if (
                    rejected
                        .HttpContext.GetEndpoint()
                        ?.Metadata.GetMetadata<EnableRateLimitingAttribute>()
                        ?.PolicyName == AddressLimit
                )
                {
                    rejected.HttpContext.Response.StatusCode = StatusCodes.Status429TooManyRequests;
                }
                return ValueTask.CompletedTask;
            };
            limits.AddPolicy(
                AddressLimit,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        $"{context.Request.RouteValues["key"]} {context.Connection.RemoteIpAddress}",
                        _ => new FixedWindowRateLimiterOptions
                        {
                            PermitLimit = FeedsAMinute,
                            Window = TimeSpan.FromMinutes(1),
                        }
                    )
            );
        });

    private const string CalendarType = "text/calendar";

    public static void MapTakeHome(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}").WithTags("TakeHome");
        group
            .MapGet("/sheet", SheetOf)
            .Described(
                "GetSheet",
                "What the home programme says: exercises, doses, days, when to stop.",
                409
            );
        group
            .MapGet("/sheet.pdf", SheetPdfOf)
            .Described("GetSheetPdf", "The home programme as PDF, A4 or Letter.", 409);
        group
            .MapGet("/home.html", HomeHtml)
            .Described(
                "GetHomePage",
                "The home programme as one file for the client's phone: it moves, counts, times, and keeps its log there.",
                409,
                422
            );
        group
            .MapGet("/calendar", Calendar)
            .Described(
                "GetCalendar",
                "The days of the plan in force, and the address calendars can follow.",
                404
            );
        group
            .MapGet("/calendar.ics", CalendarFile)
            .Described(
                "GetCalendarFile",
                "The days of the plan in force as an iCalendar file; with reminders so many minutes before visits, where asked for."
            );
        routes
            .MapGet("/api/visits/{visitId:guid}/invitation.ics", Invitation)
            .WithTags("TakeHome")
            .Described(
                "GetVisitInvitation",
                "A visit as an iCalendar file, to be sent to the client.",
                404,
                409
            );
        group
            .MapPost("/feed", OpenFeed)
            .Described(
                "OpenFeed",
                "Opens an address that calendars follow without sign-in; one opened before is closed.",
                404
            );
        group
            .MapDelete("/feed", CloseFeed)
            .Described("CloseFeed", "Closes the address that calendars follow.", 404);
        routes
            .MapGet("/feeds/{key}.ics", Feed)
            .Produces<string>(StatusCodes.Status200OK, CalendarType)
            .Produces(StatusCodes.Status304NotModified)
            .Described("GetFeed", "The iCalendar file of an address that was opened.", 404, 429)
            .RequireRateLimiting(AddressLimit)
            .WithTags("TakeHome")
            .AllowAnonymous();
        // Some calendars look first.
        routes
            .MapMethods("/feeds/{key}.ics", [HttpMethods.Head], Feed)
            .ExcludeFromDescription()
            .RequireRateLimiting(AddressLimit)
            .AllowAnonymous();
        routes.MapHomeAddresses();
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> SheetPdfOf(
        Guid id,
        OpenCase open,
        HomeProgrammes programmes,
        ClinicWords words,
        ClinicClock clock,
        HttpResponse response,
        Word<Paper>? paper,
        bool large = false,
        bool record = false
    )
    {
        var (sheet, problem) = await Find(open.File, programmes, record);
        return sheet is null
            ? problem!
            : NamedFile.Pdf(
                response,
                SheetPdf.Write(sheet, paper?.Value ?? Paper.A4, large, words.Speech),
                words.Say(Message.Of("file.home-programme", ("name", sheet.ClientName), ("day", clock.Today)))
            );
    }

    /// <param name="lang">The client's language; none: English, the one there is.</param>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> HomeHtml(
        Guid id,
        OpenCase open,
        HomePages pages,
        HomeFile home,
        ClinicWords words,
        ClinicClock clock,
        HttpResponse response,
        string? lang
    )
    {
        var file = open.File;
        if (Problem.NotAtHome(file) is { } refusal)
        {
            return refusal;
        }
        if (lang is not (null or HomePages.Language))
        {
            return Problem.Field("lang", Message.Of("home.lang", ("lang", lang)));
        }
        if (file.CurrentPlan is not { Plan.Items.Count: > 0 } revision)
        {
            return Problem.NotFound("plan");
        }
        if (!home.IsBuilt)
        {
            return Problem.Conflict(Message.Of("home.not-built"));
        }
        return NamedFile.Html(
            response,
            home.Of(await pages.Of(file, revision)).Html,
            words.Say(Message.Of("file.home-page", ("day", clock.Today)))
        );
    }

    /// <summary>What the PDF says, for the page.</summary>
    private static async Task<Results<Ok<Sheet>, ProblemHttpResult>> SheetOf(
        Guid id,
        OpenCase open,
        HomeProgrammes programmes,
        bool record = false
    )
    {
        var (sheet, problem) = await Find(open.File, programmes, record);
        return sheet is null ? problem! : TypedResults.Ok(sheet);
    }

    private static async Task<(Sheet? Sheet, ProblemHttpResult? Problem)> Find(
        CaseFile file,
        HomeProgrammes programmes,
        bool record
    )
    {
        if (Problem.NotAtHome(file) is { } refusal)
        {
            return (null, refusal);
        }
        return file.CurrentPlan is { Plan.Items.Count: > 0 } revision
            ? (await programmes.Of(file, revision, record), null)
            : (null, Problem.NotFound("plan"));
    }

    private static async Task<Results<Ok<CalendarView>, ProblemHttpResult>> Calendar(
        Guid id,
        OpenCase open,
        CalendarFeeds feeds
    )
    {
        var file = open.File;
        return feeds.View(file) is { } view ? TypedResults.Ok(view) : Problem.NotFound("plan");
    }

    private static Task<Results<FileContentHttpResult, ProblemHttpResult>> CalendarFile(
        Guid id,
        OpenCase open,
        CalendarFeeds feeds,
        int? alarm
    ) => IcsOf("exercises.ics", alarm, () => feeds.Text(open.File, alarm));

    private static Task<Results<FileContentHttpResult, ProblemHttpResult>> Invitation(
        Guid visitId,
        OpenCase open,
        CalendarFeeds feeds,
        int? alarm
    ) => IcsOf("visit.ics", alarm, () => feeds.Invitation(open.File, visitId, alarm));

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> IcsOf(
        string name,
        int? alarm,
        Func<Task<string>> text
    ) =>
        alarm is null or (>= 1 and <= CalendarFeeds.AlarmMost)
            ? TypedResults.File(Encoding.UTF8.GetBytes(await text()), CalendarType, name)
            : Problem.Field("alarm", Message.Of("feed.alarm", ("most", CalendarFeeds.AlarmMost)));

    /// <summary>An address that needs no sign-in: a calendar program has none. Long and random; asking again makes a new one.</summary>
    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> OpenFeed(Guid id, PalaestraDb db)
    {
        if (await db.Episodes.FindAsync(id) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        episode.FeedKey = AddressKey.New();
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

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Feed(
        string key,
        PalaestraDb db,
        CaseFiles files,
        CalendarFeeds feeds,
        Attempts attempts,
        HttpContext context
    )
    {
        var id = await db
            .Episodes.Where(episode => episode.FeedKey == key)
            .Select(episode => (Guid?)episode.Id)
            .FirstOrDefaultAsync();
        if (id is not { } found || await files.OfEpisode(found) is not { } file)
        {
            return await attempts.NotThere("feed", context, Problem.NotFound("feed"));
        }
        var bytes = Encoding.UTF8.GetBytes(await feeds.Text(file));
        // Told by what it says: a calendar that has it is answered with 304.
        var tag = new EntityTagHeaderValue($"\"{Convert.ToHexStringLower(SHA256.HashData(bytes))[..32]}\"");
        return TypedResults.File(bytes, $"{CalendarType}; charset=utf-8", entityTag: tag);
    }
}
