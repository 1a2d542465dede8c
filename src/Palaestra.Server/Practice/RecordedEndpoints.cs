using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Data.Photos;
using Palaestra.Server.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Practice;

/// <summary>Traces and photographs of the clinic's own clients, rated by a team without names.</summary>
public static class RecordedEndpoints
{
    public static void MapRecorded(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGroup("/api")
            .WithTags("Practice")
            .MapPut("/episodes/{id:guid}/practice-consent", SetConsent)
            .Described(
                "SetPracticeConsent",
                "What the client said when asked whether colleagues may rate their traces and kept pictures, without a name. Taken back, none of them is shown any more."
            );
        var group = routes.MapGroup("/api/practice/recorded").WithTags("Practice");
        group
            .MapPost("", Make)
            .Described("MakeRecordedSession", "Makes a session on recorded traces and photographs.", 409);
        group
            .MapGet("/{sessionId:guid}", Session)
            .Described("GetRecordedSession", "How a session on recorded traces and photographs stands.", 404);
        group
            .MapGet("/items/{itemId:guid}", Item)
            .Described(
                "GetRecordedItem",
                "A recorded trace or photograph to be rated, without whose it is.",
                404,
                409
            );
        group
            .MapGet("/items/{itemId:guid}/picture", Picture)
            .Described("GetRecordedPicture", "The picture of a photograph to be rated.", 404);
        group
            .MapPost("/items/{itemId:guid}/rating", Rate)
            .Described("RateRecordedItem", "What is said of it; told twice, the first counts.", 404);
    }

    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> SetConsent(
        Guid id,
        PracticeConsentForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        open.File.Episode.PracticeConsent = new Consent(form.Given, who.Name, clock.Now.ToDateTimeUtc());
        return await db.SavedFirst()
            ? TypedResults.Ok(EpisodeView.Of(open.File, library, clock.Today))
            : Problem.Conflict(Message.Of("conflict.changed"));
    }

    private static async Task<Results<Created<RecordedView>, ProblemHttpResult>> Make(
        RecordedForm form,
        RecordedSessions sessions,
        WhoIsHere who
    )
    {
        var errors = PracticeEndpoints.NameErrors(form.Name).ToList();
        foreach (var (field, count) in new[] { ("traces", form.Traces), ("photos", form.Photos) })
        {
            if (count is < 0 or > TeamSession.ClipsMost)
            {
                errors.Add(new(field, Message.Of("practice.recorded-many", ("most", TeamSession.ClipsMost))));
            }
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        return await sessions.Make(form, who.Name, RandomNumberGenerator.GetInt32(int.MaxValue)) is { } made
            ? TypedResults.Created(
                $"/api/practice/recorded/{made.Id}",
                await sessions.View(made, who.AccountId!.Value)
            )
            : Problem.Conflict(Message.Of("practice.recorded-none"));
    }

    private static async Task<Results<Ok<RecordedView>, ProblemHttpResult>> Session(
        Guid sessionId,
        RecordedSessions sessions,
        WhoIsHere who
    ) =>
        await sessions.Of(sessionId) is { } session
            ? TypedResults.Ok(await sessions.View(session, who.AccountId!.Value))
            : Problem.NotFound("recorded-session");

    private static async Task<Results<Ok<RecordedItemView>, ProblemHttpResult>> Item(
        Guid itemId,
        RecordedSessions sessions,
        HttpContext context
    )
    {
        if (await sessions.Item(itemId) is not { } item)
        {
            return Problem.NotFound("recorded-item");
        }
        context.IsAbout(item.VisitId);
        return await sessions.ViewOf(item) is { } view
            ? TypedResults.Ok(view)
            : Problem.Conflict(Message.Of("trace.damaged"));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Picture(
        Guid itemId,
        RecordedSessions sessions,
        PhotoFiles photos,
        HttpContext context
    )
    {
        if (
            await sessions.Item(itemId) is not { Thing.Kind: RecordedKind.Photo } item
            || photos.Find(item.SourceId) is not var (path, type)
        )
        {
            return Problem.NotFound("recorded-item");
        }
        context.IsAbout(item.VisitId);
        return TypedResults.PhysicalFile(path, type);
    }

    private static async Task<Results<Ok<RecordedView>, ProblemHttpResult>> Rate(
        Guid itemId,
        RecordedReading reading,
        RecordedSessions sessions,
        WhoIsHere who
    )
    {
        if (await sessions.Item(itemId) is not { } item)
        {
            return Problem.NotFound("recorded-item");
        }
        var errors = reading.Errors(item.Thing).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var account = who.AccountId!.Value;
        await sessions.Rate(item, reading, account);
        return TypedResults.Ok(await sessions.View((await sessions.Of(item.SessionId))!, account));
    }
}
