using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Library;

/// <summary>The content as the client shows it.</summary>
public sealed record LibraryView(
    string Version,
    IReadOnlyList<Ladder> Ladders,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<FeltPlace> FeltPlaces,
    IReadOnlyList<Precaution> Precautions,
    IReadOnlyList<DangerSign> DangerSigns,
    IReadOnlyList<Policy> Policies
);

public static class LibraryEndpoints
{
    public static void MapLibrary(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Library");
        group.MapGet("/library", Library).WithName("GetLibrary");
        group.MapGet("/figures/{rungId}", FigureOf).WithName("GetFigure");
    }

    private static Ok<LibraryView> Library(PracticeLibrary library) =>
        TypedResults.Ok(
            new LibraryView(
                library.Version,
                library.Ladders,
                library.Faults,
                library.FeltPlaces,
                library.Precautions,
                library.DangerSigns,
                library.Policies
            )
        );

    private static Results<Ok<Figure>, ProblemHttpResult> FigureOf(
        string rungId,
        PracticeLibrary library,
        FigureStore figures,
        HttpResponse response,
        Word<Side>? side,
        Word<Frame>? frame
    )
    {
        if (library.FindRung(rungId) is not { } rung)
        {
            return Problem.NotFound("rung");
        }
        response.Headers.CacheControl = "private, max-age=3600";
        return TypedResults.Ok(figures.Of(rung, side?.Value ?? Side.Left, frame?.Value ?? Frame.End));
    }
}
