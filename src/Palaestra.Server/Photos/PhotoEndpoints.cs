using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Data.Photos;
using Palaestra.Server.Amendments;
using Palaestra.Server.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Photos;

public sealed record PhotoKept(Guid Id);

/// <param name="Given">The client agreed that pictures of them are kept.</param>
public sealed record PhotoConsentForm(bool Given);

/// <summary>Pictures kept with a trial; their points and angles are events of its log.</summary>
public static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Photos");
        group
            .MapPut("/episodes/{id:guid}/photo-consent", SetConsent)
            .Described(
                "SetPhotoConsent",
                "What the client said when asked whether pictures may be kept. Taken back, those that are kept stay until they are removed."
            );
        group
            .MapPost("/visits/{visitId:guid}/trials/{trialId:guid}/photos", Keep)
            .Accepts<byte[]>("image/jpeg", "image/png")
            .Described("KeepPhoto", "Keeps a picture of a trial, JPEG or PNG, and answers its id.", 404, 409);
        group.MapGet("/photos/{id:guid}", Get).Described("GetPhoto", "A kept picture.", 404);
        group
            .MapDelete("/photos/{id:guid}", Remove)
            .Described(
                "RemovePhoto",
                "Removes a picture, with a reason; that it was there stays known.",
                404,
                422
            );
    }

    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> SetConsent(
        Guid id,
        PhotoConsentForm form,
        OpenCase open,
        PalaestraDb db,
        Core.Library.PracticeLibrary library,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        var episode = open.File.Episode;
        episode.PhotoConsent = new Consent(form.Given, who.Name, clock.Now.ToDateTimeUtc());
        return await db.SavedFirst()
            ? TypedResults.Ok(EpisodeView.Of(open.File, library, clock.Today))
            : Problem.Conflict(Message.Of("conflict.changed"));
    }

    private static async Task<Results<Ok<PhotoKept>, ProblemHttpResult>> Keep(
        Guid visitId,
        Guid trialId,
        HttpRequest request,
        PhotoFiles photos,
        OpenCase open,
        PalaestraDb db,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        if (!open.File.Events(visitId).Any(e => e is TrialStarted && e.TrialId == trialId))
        {
            return Problem.NotFound("trial");
        }
        if (open.File.Episode.PhotoConsent is not { Given: true })
        {
            return Problem.Conflict(Message.Of("photo.consent"));
        }
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes);
        if (await photos.Keep(bytes.ToArray()) is not { } id)
        {
            return Problem.Field("image", Message.Of("picture.kind"));
        }
        db.Photos.Add(
            new()
            {
                Id = id,
                VisitId = visitId,
                TrialId = trialId,
                KeptAt = clock.Now,
                By = who.Name,
            }
        );
        await db.SaveChangesAsync();
        return TypedResults.Ok(new PhotoKept(id));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Get(
        Guid id,
        PhotoFiles photos,
        PalaestraDb db,
        HttpContext context
    )
    {
        if (await db.Photos.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id) is { } known)
        {
            context.IsAbout(known.VisitId);
        }
        return photos.Find(id) is var (path, type)
            ? TypedResults.PhysicalFile(path, type)
            : Problem.NotFound("kept-picture");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        string? reason,
        PhotoFiles photos,
        PalaestraDb db,
        WhoIsHere who,
        ClinicClock clock,
        Amending amending,
        HttpContext context
    )
    {
        if (photos.Find(id) is not var (path, _))
        {
            return Problem.NotFound("kept-picture");
        }
        if (amending.Always(reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        // None: kept before pictures were written down.
        if (await db.Photos.FirstOrDefaultAsync(p => p.Id == id) is { } known)
        {
            context.IsAbout(known.VisitId);
            // With the context: what is amended names the episode.
            await db.Visits.FindAsync(known.VisitId);
            known.RemovedAt = clock.Now;
            known.RemovedBy = who.Name;
            known.RemovedWhy = amending.Reason;
            await db.SaveChangesAsync();
        }
        File.Delete(path);
        return TypedResults.NoContent();
    }
}
