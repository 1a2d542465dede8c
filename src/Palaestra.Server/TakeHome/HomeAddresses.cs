using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;

namespace Palaestra.Server.TakeHome;

/// <param name="Allowed">The clinic lets home programmes have addresses.</param>
/// <param name="Path">None: it has none.</param>
public sealed record HomeAddressView(bool Allowed, string? Path);

/// <summary>The home programme at a secret address of this server, where the clinic allows that.</summary>
public static class HomeAddresses
{
    private const string Html = "text/html; charset=utf-8";

    private static string PathOf(string key) => $"/home/{key}";

    public static void MapHomeAddresses(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/episodes/{id:guid}/home-address").WithTags("TakeHome");
        group
            .MapGet("", Get)
            .Described("GetHomeAddress", "The address of the home programme, if it has one.", 404);
        group
            .MapPost("", Open)
            .Described(
                "OpenHomeAddress",
                "Gives the home programme an address that opens without sign-in; one it had before is closed.",
                404,
                409
            );
        group
            .MapDelete("", Close)
            .Described("CloseHomeAddress", "Closes the address of the home programme.", 404);
        routes
            .MapGet("/home/{key}", Page)
            .Produces<string>(StatusCodes.Status200OK, "text/html")
            .Described(
                "GetHomePageAtAddress",
                "The home programme of an address that was opened; while it must wait (409) or at an address that is closed (404) a page that says so.",
                404,
                409,
                429
            )
            .RequireRateLimiting(TakeHomeEndpoints.AddressLimit)
            .WithOwnContentPolicy()
            .WithTags("TakeHome")
            .AllowAnonymous();
        // What a message shows of an address is looked at first.
        routes
            .MapMethods("/home/{key}", [HttpMethods.Head], Page)
            .ExcludeFromDescription()
            .RequireRateLimiting(TakeHomeEndpoints.AddressLimit)
            .WithOwnContentPolicy()
            .AllowAnonymous();
    }

    private static async Task<Results<Ok<HomeAddressView>, ProblemHttpResult>> Get(Guid id, PalaestraDb db) =>
        await db
            .Episodes.Where(episode => episode.Id == id)
            .Select(episode => new { episode.HomeKey })
            .SingleOrDefaultAsync()
            is { } found
            ? TypedResults.Ok(await ViewOf(found.HomeKey, db))
            : Problem.NotFound("episode");

    /// <summary>Long and random; asking again makes a new one.</summary>
    private static async Task<Results<Ok<HomeAddressView>, ProblemHttpResult>> Open(Guid id, PalaestraDb db)
    {
        if (await db.Episodes.FindAsync(id) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        if (!await Allowed(db))
        {
            return Problem.Conflict(Message.Of("home.address-off"));
        }
        episode.HomeKey = AddressKey.New();
        await db.SaveChangesAsync();
        return TypedResults.Ok(await ViewOf(episode.HomeKey, db));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Close(Guid id, PalaestraDb db)
    {
        if (await db.Episodes.FindAsync(id) is not { } episode)
        {
            return Problem.NotFound("episode");
        }
        episode.HomeKey = null;
        await db.SaveChangesAsync();
        return TypedResults.NoContent();
    }

    private static Task<bool> Allowed(PalaestraDb db) =>
        db.Clinics.AsNoTracking().Select(clinic => clinic.HomeAddresses).SingleAsync();

    private static async Task<HomeAddressView> ViewOf(string? key, PalaestraDb db) =>
        new(await Allowed(db), key is null ? null : PathOf(key));

    /// <summary>The plan in force, each time anew; a red flag or a plan that is gone is heeded at once.</summary>
    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> Page(
        string key,
        PalaestraDb db,
        CaseFiles files,
        HomePages pages,
        HomeFile home,
        ClinicClock clock,
        Attempts attempts,
        HttpContext context
    )
    {
        var clinic = await db.Clinics.AsNoTracking().SingleAsync();
        var id = await db
            .Episodes.Where(episode => clinic.HomeAddresses && episode.HomeKey == key)
            .Select(episode => (Guid?)episode.Id)
            .FirstOrDefaultAsync();
        if (id is not { } found || await files.OfEpisode(found) is not { } file)
        {
            var refusal = Problem.NotFound("home-address");
            return await attempts.NotThere("home", context, refusal) is { StatusCode: not 404 } tooOften
                ? tooOften
                : Say(Message.Of("home.address-closed"), StatusCodes.Status404NotFound);
        }
        if (
            Problem.NotAtHome(file) is not null
            || file.CurrentPlan is not { Plan.Items.Count: > 0 } revision
            || !home.IsBuilt
        )
        {
            return Say(Message.Of("home.wait"), StatusCodes.Status409Conflict);
        }
        return Answer(home.Of(await pages.Of(file, revision)), StatusCodes.Status200OK);

        ContentHttpResult Say(Message message, int status) =>
            Answer(home.Saying(HomePages.Language, message, clinic.Contact), status);

        ContentHttpResult Answer(HomeDocument document, int status)
        {
            context.Response.Headers.ContentSecurityPolicy = $"{document.Policy}; frame-ancestors 'none'";
            context.Response.Headers.CacheControl = "no-store";
            return TypedResults.Text(document.Html, Html, Encoding.UTF8, status);
        }
    }
}
