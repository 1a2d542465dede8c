using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Data;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Screening;

public sealed record EventBatch(IReadOnlyList<CaptureEvent> Events);

/// <summary>Where a screen stands: what was done, and for each ladder and side what comes next or where it ended.</summary>
public sealed record ScreenView(
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<RungSearch> Searches,
    IReadOnlyList<Allowance> Allowances
);

public sealed record VisitEvents(IReadOnlyList<CaptureEvent> Events);

public static class ScreeningEndpoints
{
    public static void MapScreening(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}").WithTags("Screening");
        group.MapPost("/events", Append).WithName("AppendEvents");
        group.MapGet("/events", Events).WithName("GetEvents");
        group.MapGet("/screen", Screen).WithName("GetScreen");
    }

    private static async Task<Results<Ok<EventsTaken>, ProblemHttpResult>> Append(
        Guid visitId,
        EventBatch batch,
        EventLog log,
        PalaestraDb db,
        PracticeLibrary library,
        WhoIsHere who
    )
    {
        if (await CaseFile.OfVisit(visitId, db, library) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        try
        {
            var taken = await log.Append(file, visitId, batch.Events, who.Name);
            return taken.IsValid ? TypedResults.Ok(taken.Value!) : Problem.Fields(taken.Errors);
        }
        catch (DbUpdateException)
        {
            // The same batch arrived twice at once; the other one won. The tablet sends again and all are known.
            return Problem.Conflict("The same events are being stored by another request. Send them again.");
        }
    }

    private static async Task<Results<Ok<VisitEvents>, ProblemHttpResult>> Events(
        Guid visitId,
        PalaestraDb db,
        PracticeLibrary library
    ) =>
        await CaseFile.OfVisit(visitId, db, library) is { } file
            ? TypedResults.Ok(new VisitEvents([.. file.Events(visitId).OrderBy(e => e.At).ThenBy(e => e.Id)]))
            : Problem.NotFound("visit");

    private static async Task<Results<Ok<ScreenView>, ProblemHttpResult>> Screen(
        Guid visitId,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        if (await CaseFile.OfVisit(visitId, db, library) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var trials = file.Trials(visitId);
        var screen = trials
            .Where(t => t is { Open: false, Purpose: TrialPurpose.Screen })
            .OrderBy(t => t.StartedAt)
            .ToList();
        var screened = library.Ladders.Where(l => l.Screened).ToList();
        var searches =
            from ladder in screened
            from side in new[] { Side.Left, Side.Right }
            select RungFinder.Search(ladder, side, screen, file.Profile, file.Policy, library);
        var allowances =
            from ladder in screened
            from rung in ladder.Rungs
            from side in rung.TaskSides
            select Allowance.Of(library, file.Profile.Precautions, rung, side);
        return TypedResults.Ok(new ScreenView(trials, [.. searches], [.. allowances]));
    }
}
