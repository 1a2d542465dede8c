using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Exchange.HomeLog;
using Palaestra.Server.Amendments;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Visits;

/// <param name="Reason">Why it is written anew, 1 to 500 characters: needed where it was written on an earlier day.</param>
public sealed record HomeDayForm(HomeDay Log, int Version, string? Reason = null);

public sealed record HomeDayStored(int Version);

/// <param name="Csv">The text of the file.</param>
/// <param name="Reason">Why days are written anew, 1 to 500 characters: needed where one was written on an earlier day and says otherwise.</param>
public sealed record HomeFileForm(string Csv, string? Reason = null);

public sealed record HomeFileTaken(int Days);

public static class HomeLogEndpoints
{
    public static void MapHomeLog(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Visits");
        group
            .MapGet("/visits/{visitId:guid}/home-log", Get)
            .Described("GetHomeLog", "The days at home before a visit, as planned and as told.");
        group
            .MapGet("/visits/{visitId:guid}/home-log.csv", File)
            .Described("GetHomeLogFile", "The home log before a visit as CSV.");
        group
            .MapPut("/episodes/{id:guid}/home-log", Put)
            .Described("WriteHomeDay", "Writes one day at home, on the version that was read.", 409);
        group
            .MapPost("/episodes/{id:guid}/home-log/file", Import)
            .Described(
                "ImportHomeLog",
                "Reads a home log from a CSV file; days that were written before are replaced.",
                409
            );
        group
            .MapPost("/visits/{visitId:guid}/home-log/code", Codes)
            .Described(
                "ReadHomeCodes",
                "Takes in the log of a client's own programme from its codes or its file, each day once; days that were written at the clinic stand.",
                409
            );
    }

    private static async Task<Results<Ok<HomeCodeTaken>, ProblemHttpResult>> Codes(
        Guid visitId,
        HomeCodeForm form,
        OpenCase open,
        HomeCodes codes,
        PalaestraDb db,
        WhoIsHere who
    )
    {
        var taken = await codes.Take(open.File, form, who.Name);
        if (!taken.IsValid)
        {
            return Problem.Fields(taken.Errors);
        }
        if (taken.Value is { Taken.Count: 0, Kept.Count: 0, There: var there })
        {
            return Problem.Conflict(Message.Of("home-code.replayed", ("days", there.Count)));
        }
        return await db.SavedFirst()
            ? TypedResults.Ok(taken.Value!)
            : Problem.Conflict(Message.Of("home.meanwhile-log"));
    }

    private static async Task<Results<Ok<HomeLogView>, ProblemHttpResult>> Get(
        Guid visitId,
        OpenCase open,
        HomeLogs homeLogs
    )
    {
        var file = open.File;
        return await homeLogs.Of(file, visitId) is { } view
            ? TypedResults.Ok(view)
            : Problem.NotFound("plan");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> File(
        Guid visitId,
        OpenCase open,
        HomeLogs homeLogs
    )
    {
        var file = open.File;
        if (await homeLogs.Of(file, visitId) is not { } view)
        {
            return Problem.NotFound("plan");
        }
        var exercises = homeLogs.Exercises(file);
        var days = view
            .Rows.Where(row => row.Log is not null || row.Planned.Count > 0)
            .Select(row => new CsvDay(
                row.Day,
                [.. exercises.Where(e => row.Planned.Contains(e.PlanItemId) && IsIn(view, e))],
                row.Log
            ));
        return TypedResults.File(
            Encoding.UTF8.GetBytes(HomeLogCsv.Write(days, exercises)),
            "text/csv",
            "home-log.csv"
        );
    }

    /// <summary>An exercise keeps its id across revisions: only its present rung is asked for.</summary>
    private static bool IsIn(HomeLogView view, LoggedExercise e) =>
        view.Columns.Any(c => c.PlanItemId == e.PlanItemId && c.RungId == e.RungId && c.Side == e.Side);

    private static async Task<Results<Ok<HomeDayStored>, ProblemHttpResult>> Put(
        Guid id,
        HomeDayForm form,
        OpenCase open,
        HomeLogs homeLogs,
        PalaestraDb db,
        WhoIsHere who,
        Amending amending
    )
    {
        var file = open.File;
        if (homeLogs.ErrorsOf(file, form.Log, "log") is { Count: > 0 } errors)
        {
            return Problem.Fields(errors);
        }
        if (await homeLogs.Unreasoned(file, form.Log, form.Reason, amending) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        try
        {
            if (await homeLogs.Write(file, form.Log, form.Version, who.Name))
            {
                await db.SaveChangesAsync();
                return TypedResults.Ok(new HomeDayStored(form.Version + 1));
            }
        }
        catch (DbUpdateException problem) when (!StoreFault.Is(problem))
        {
            // Somebody was faster: the same answer as when it is seen beforehand.
        }
        return Problem.Conflict(Message.Of("home.meanwhile"));
    }

    private static async Task<Results<Ok<HomeFileTaken>, ProblemHttpResult>> Import(
        Guid id,
        HomeFileForm form,
        OpenCase open,
        HomeLogs homeLogs,
        PalaestraDb db,
        WhoIsHere who,
        Amending amending
    )
    {
        var file = open.File;
        var read = HomeLogCsv.Read(form.Csv, homeLogs.Exercises(file));
        if (!read.IsValid)
        {
            return Problem.Fields(read.Errors);
        }
        var errors = read.Value!.SelectMany(day =>
                homeLogs.ErrorsOf(file, day, $"{day.Day:yyyy-MM-dd}").DistinctBy(error => error.Message)
            )
            .ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        foreach (var day in read.Value!)
        {
            var merged = await homeLogs.Merged(file, day);
            // Nothing is saved before all may be.
            if (await homeLogs.Unreasoned(file, merged, form.Reason, amending) is { } unreasoned)
            {
                return Problem.Fields([unreasoned]);
            }
            await homeLogs.Write(file, merged, who.Name);
        }
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("home.meanwhile-log"));
        }
        return TypedResults.Ok(new HomeFileTaken(read.Value.Count));
    }
}
