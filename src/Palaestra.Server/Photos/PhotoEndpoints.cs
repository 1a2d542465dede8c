using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Data.Photos;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Photos;

public sealed record PhotoKept(Guid Id);

/// <summary>Pictures kept with a trial; their points and angles are events of its log.</summary>
public static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/photos").WithTags("Photos");
        group
            .MapPost("", Keep)
            .Accepts<byte[]>("image/jpeg", "image/png")
            .Described("KeepPhoto", "Keeps a picture, JPEG or PNG, and answers its id.");
        group.MapGet("/{id:guid}", Get).Described("GetPhoto", "A kept picture.", 404);
        group.MapDelete("/{id:guid}", Remove).Described("RemovePhoto", "Removes a picture.", 404);
    }

    private static async Task<Results<Ok<PhotoKept>, ProblemHttpResult>> Keep(
        HttpRequest request,
        PhotoFiles photos
    )
    {
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes);
        return await photos.Keep(bytes.ToArray()) is { } id
            ? TypedResults.Ok(new PhotoKept(id))
            : Problem.Field("image", Message.Of("picture.kind"));
    }

    private static Results<PhysicalFileHttpResult, ProblemHttpResult> Get(Guid id, PhotoFiles photos) =>
        photos.Find(id) is var (path, type)
            ? TypedResults.PhysicalFile(path, type)
            : Problem.NotFound("kept-picture");

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, PhotoFiles photos)
    {
        if (photos.Find(id) is not var (path, _))
        {
            return Problem.NotFound("kept-picture");
        }
        File.Delete(path);
        return TypedResults.NoContent();
    }
}
