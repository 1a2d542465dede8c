using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;
using Palaestra.Server.Words;

namespace Palaestra.Server.Library;

/// <summary>The content as the client shows it.</summary>
public sealed record LibraryView(
    string Version,
    IReadOnlyList<Ladder> Ladders,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<FeltPlace> FeltPlaces,
    IReadOnlyList<Precaution> Precautions,
    IReadOnlyList<DangerSign> DangerSigns,
    IReadOnlyList<Modifier> Modifiers,
    IReadOnlyList<Policy> Policies,
    IReadOnlyList<ScreenTask> Tasks,
    IReadOnlyList<Goal> Goals,
    IReadOnlyList<Equipment> Equipment,
    IReadOnlyList<OutcomeMeasure> Outcomes,
    Cautions Cautions,
    IReadOnlyList<PhotoSample> PhotoSamples,
    IReadOnlyList<Position> Positions,
    IReadOnlyDictionary<string, string> Rules
)
{
    public static LibraryView Of(PracticeLibrary library, IReadOnlyDictionary<string, string> rules) =>
        new(
            library.Version,
            library.Ladders,
            library.Faults,
            library.FeltPlaces,
            library.Precautions,
            library.DangerSigns,
            library.Modifiers,
            library.Policies,
            library.Tasks,
            library.Goals,
            library.Equipment,
            library.Outcomes,
            library.Cautions,
            library.PhotoSamples,
            library.Positions,
            rules
        );
}

public sealed record RungFigure(string RungId, Figure Figure);

public static class LibraryEndpoints
{
    public static void MapLibrary(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Library");
        group
            .MapGet("/library", Library)
            .Produces<LibraryView>()
            .Described("GetLibrary", "Ladders, tasks, faults, precautions and policies.");
        group
            .MapGet("/figures", SheetOf)
            .Produces<IReadOnlyList<RungFigure>>()
            .Described("GetFigureSheet", "Drawings of all rungs, start and end.");
        group.MapGet("/figures/{rungId}", FigureOf).Described("GetFigure", "The drawing of a rung.", 404);
        group
            .MapGet("/figures/{rungId}/frames", FramesOf)
            .Described("GetFigureFrames", "The movement of a rung as drawings in order.", 404);
        group
            .MapGet("/figures/{rungId}/from/{before}", ChangeOf)
            .Described(
                "GetFigureChange",
                "The body on its way from another rung to this one, as drawings in order; empty where it would have to turn over.",
                404
            );
        group
            .MapGet("/figures/{rungId}/faults/{fault}", FaultFigureOf)
            .Described("GetFaultFigure", "The drawing of a fault on a rung.", 404);
    }

    private static WrittenAnswer Library(WrittenLibrary written, Kept kept, string? version)
    {
        // Without a version it is not kept at all: it changes with the clinic's policies.
        if (version is not null)
        {
            kept.By(version);
        }
        return new(written.Answer);
    }

    private static Results<Ok<Figure>, ProblemHttpResult> FigureOf(
        string rungId,
        PracticeLibrary library,
        FigureStore figures,
        Kept kept,
        string? version,
        Word<Side>? side,
        Word<Frame>? frame,
        Word<View>? view,
        double? range
    )
    {
        if (library.FindRung(rungId) is not { } rung)
        {
            return Problem.NotFound("rung");
        }
        if (range is { } share && !(share is > 0 and <= 1))
        {
            return Problem.Field("range", Message.Of("dose.range"));
        }
        kept.By(version);
        return TypedResults.Ok(
            figures.Of(rung, side?.Value ?? Side.Left, frame?.Value ?? Frame.End, view?.Value, range ?? 1)
        );
    }

    private static Results<Ok<IReadOnlyList<Figure>>, ProblemHttpResult> FramesOf(
        string rungId,
        PracticeLibrary library,
        FigureStore figures,
        Kept kept,
        string? version,
        Word<Side>? side,
        Word<View>? view
    )
    {
        if (library.FindRung(rungId) is not { } rung)
        {
            return Problem.NotFound("rung");
        }
        kept.By(version);
        return TypedResults.Ok(figures.Moving(rung, side?.Value ?? Side.Left, view?.Value));
    }

    private static Results<Ok<IReadOnlyList<Figure>>, ProblemHttpResult> ChangeOf(
        string rungId,
        string before,
        PracticeLibrary library,
        FigureStore figures,
        Kept kept,
        string? version,
        Word<Side>? side
    )
    {
        if (library.FindRung(rungId) is not { } rung || library.FindRung(before) is not { } from)
        {
            return Problem.NotFound("rung");
        }
        kept.By(version);
        return TypedResults.Ok(figures.Changing(from, rung, side?.Value ?? Side.Left));
    }

    private static Results<Ok<Figure>, ProblemHttpResult> FaultFigureOf(
        string rungId,
        string fault,
        PracticeLibrary library,
        FigureStore figures,
        Kept kept,
        string? version,
        Word<Side>? side,
        Word<View>? view
    )
    {
        if (library.FindRung(rungId) is not { } rung)
        {
            return Problem.NotFound("rung");
        }
        if (
            library.FindFault(fault) is not { } found
            || figures.Faulty(rung, side?.Value ?? Side.Left, found, view?.Value) is not { } figure
        )
        {
            return Problem.NotFound("fault-drawing");
        }
        kept.By(version);
        return TypedResults.Ok(figure);
    }

    /// <summary>Everything at once for the sheet of all rungs: the movement of each in one picture.</summary>
    private static WrittenAnswer SheetOf(WrittenSheets sheets, Kept kept, string? version, Word<Side>? side)
    {
        kept.By(version);
        return new(sheets.Of(side?.Value ?? Side.Left));
    }
}
