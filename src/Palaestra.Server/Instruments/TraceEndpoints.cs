using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Signals;
using Palaestra.Data;
using Palaestra.Data.Traces;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Amendments;
using Palaestra.Server.Audit;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Instruments;

public static class TraceEndpoints
{
    /// <summary>
    /// A file of the largest size takes many times that of memory while it is read: the next waits, before any of it is taken in.
    /// </summary>
    public const string OneAtATime = "one-file-at-a-time";

    private const int Waiting = 30;

    private const int Pieces = 1000;

    public static IServiceCollection AddTraceQueue(this IServiceCollection services) =>
        services.AddRateLimiter(limits =>
        {
            limits.RejectionStatusCode = StatusCodes.Status503ServiceUnavailable;
            limits.AddConcurrencyLimiter(
                OneAtATime,
                queue =>
                {
                    queue.PermitLimit = 1;
                    queue.QueueLimit = Waiting;
                }
            );
        });

    public static void MapTraces(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Instruments");
        group
            .MapGet("/visits/{visitId:guid}/traces", All)
            .Described("GetTraces", "Traces kept with a visit.", 404);
        group
            .MapPost("/visits/{visitId:guid}/trials/{trialId:guid}/traces", Keep)
            .Described("KeepTrace", "Keeps what an instrument read during a trial.", 404, 409);
        group
            .MapPost("/visits/{visitId:guid}/trials/{trialId:guid}/traces/file", Import)
            .WithMetadata(new RequestSizeLimitAttribute(TraceFileForm.Most))
            .Accepts<TraceFileForm>("application/json")
            .RequireRateLimiting(OneAtATime)
            .AddEndpointFilter(GivesBack)
            .Described("ImportTrace", "Reads a trace of a trial from a CSV file.", 404, 409);
        group
            .MapPost("/traces/columns", Columns)
            .Described(
                "LookAtTraceFile",
                "The columns of a CSV file and what they seem to be. Nothing is stored."
            );
        group
            .MapGet("/traces/{id:guid}", View)
            .Described("GetTrace", "A trace and what was found in it.", 404, 409);
        group
            .MapGet("/traces/{id:guid}/file.csv", File)
            .Described("GetTraceFile", "A trace as CSV.", 404, 409);
        group
            .MapDelete("/traces/{id:guid}", Remove)
            .Described("RemoveTrace", "Removes a trace, with a reason.", 404, 422);
    }

    private static async Task<Results<Ok<IReadOnlyList<TraceEntry>>, ProblemHttpResult>> All(
        Guid visitId,
        PalaestraDb db,
        TraceStore traceStore
    ) =>
        await db.Visits.AnyAsync(visit => visit.Id == visitId)
            ? TypedResults.Ok<IReadOnlyList<TraceEntry>>([
                .. (await traceStore.Of(visitId)).Select(TraceEntry.Of),
            ])
            : Problem.NotFound("visit");

    private static async Task<Results<Ok<TraceEntry>, ProblemHttpResult>> Keep(
        Guid visitId,
        Guid trialId,
        KeepTraceForm form,
        OpenCase open,
        LiveDevices instruments,
        TraceStore traceStore,
        TimeProvider time,
        WhoIsHere who
    )
    {
        if (TrialOf(visitId, trialId, open) is not { } trial)
        {
            return Problem.NotFound("trial");
        }
        if (instruments.Find(form.Device) is not { } device)
        {
            return Problem.NotFound("instrument");
        }
        if (trial.EndedAt is not { } ended)
        {
            return Problem.Conflict(Message.Of("trace.running"));
        }
        var already = await traceStore.Kept(trialId, TraceStore.KindOf(device.Setup.Id));
        if (already is not null && Covers(already, ended))
        {
            return TypedResults.Ok(TraceEntry.Of(already));
        }
        // Told by the tablet's clock, recorded by the server's.
        var ahead = time.GetUtcNow() - form.Now;
        if (device.Cut(trial.StartedAt + ahead, ended + ahead) is not { } trace)
        {
            return Problem.Conflict(Message.Of("trace.not-heard"));
        }
        return await Stored(
            visitId,
            trial,
            trace with
            {
                StartedAt = trial.StartedAt,
            },
            TraceSource.Live,
            traceStore,
            who,
            already
        );
    }

    /// <summary>A trial that was opened again and went on has outgrown its trace; one that was read in stays as it is.</summary>
    private static bool Covers(StoredTrace trace, DateTimeOffset ended) =>
        trace.Source == TraceSource.File
        || trace.StartedAt.AddSeconds(trace.Samples / trace.Rate + 1) >= ended;

    /// <inheritdoc cref="WholeBody.GiveBack"/>
    private static async ValueTask<object?> GivesBack(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        try
        {
            return await next(context);
        }
        finally
        {
            WholeBody.GiveBack(context.HttpContext.Request);
        }
    }

    private static async Task<Results<Ok<TraceEntry>, ProblemHttpResult>> Import(
        Guid visitId,
        Guid trialId,
        TraceFileForm form,
        OpenCase open,
        PracticeLibrary library,
        TraceStore traceStore,
        WhoIsHere who
    )
    {
        if (TrialOf(visitId, trialId, open) is not { } trial)
        {
            return Problem.NotFound("trial");
        }
        var read = TraceReader.Read(form.Csv, library.Instruments, trial.StartedAt, form.Mapping);
        if (!read.IsValid)
        {
            return Problem.Fields(read.Errors);
        }
        var trace = read.Value!;
        if (await traceStore.Kept(trialId, TraceStore.KindOf(trace.Instrument)) is not null)
        {
            return Problem.Conflict(Message.Of("trace.there"));
        }
        return await Stored(visitId, trial, Placed(trace, trial), TraceSource.File, traceStore, who);
    }

    /// <summary>A file of another day or place begins with the trial.</summary>
    private static Trace Placed(Trace trace, Trial trial)
    {
        var ends = trace.StartedAt.AddSeconds(trace.Seconds);
        var meets = trace.StartedAt <= (trial.EndedAt ?? trial.StartedAt) && ends >= trial.StartedAt;
        return meets ? trace : trace with { StartedAt = trial.StartedAt };
    }

    private static async Task<Results<Ok<TraceEntry>, ProblemHttpResult>> Stored(
        Guid visitId,
        Trial trial,
        Trace trace,
        TraceSource source,
        TraceStore traceStore,
        WhoIsHere who,
        StoredTrace? instead = null
    )
    {
        try
        {
            return TypedResults.Ok(
                TraceEntry.Of(await traceStore.Keep(visitId, trial, trace, source, who.Name, instead))
            );
        }
        catch (DbUpdateException problem) when (!StoreFault.Is(problem))
        {
            return Problem.Conflict(Message.Of("trace.meanwhile"));
        }
    }

    private static Results<Ok<TraceColumns>, ProblemHttpResult> Columns(
        TraceHeadForm form,
        PracticeLibrary library
    ) =>
        TraceColumns.Of(form.Csv, library.Instruments) is { } columns
            ? TypedResults.Ok(columns)
            : Problem.Field("csv", Message.Of("file.empty"));

    private static async Task<Results<Ok<TraceView>, ProblemHttpResult>> View(
        Guid id,
        CaseFiles files,
        TraceStore traceStore,
        HttpContext context,
        double from = 0,
        double? seconds = null,
        int pieces = Pieces
    )
    {
        if (await traceStore.Find(id) is not { } row || await files.OfVisit(row.VisitId) is not { } file)
        {
            return Problem.NotFound("trace");
        }
        context.IsAbout(row.VisitId);
        if (file.Trials(row.VisitId).FirstOrDefault(t => t.Id == row.TrialId) is not { } trial)
        {
            return Problem.NotFound("discarded-trial");
        }
        return await traceStore.Read(row) is { } trace
            ? TypedResults.Ok(await traceStore.View(row, trace, file, trial, from, seconds, pieces))
            : Damaged();
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> File(
        Guid id,
        TraceStore traceStore,
        HttpContext context
    )
    {
        if (await traceStore.Find(id) is not { } row)
        {
            return Problem.NotFound("trace");
        }
        context.IsAbout(row.VisitId);
        if (await traceStore.Read(row) is not { } trace)
        {
            return Damaged();
        }
        using var text = new StringWriter();
        TraceCsv.Write(text, trace, traceStore.SetupOf(row.Instrument));
        return TypedResults.File(
            Encoding.UTF8.GetBytes(text.ToString()),
            "text/csv",
            $"trace-{row.Instrument.ToString().ToLowerInvariant()}.csv"
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        string? reason,
        TraceStore traceStore,
        Amending amending
    )
    {
        if (await traceStore.Find(id) is not { } row)
        {
            return Problem.NotFound("trace");
        }
        if (amending.Always(reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        await traceStore.Remove(row);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult Damaged() => Problem.Conflict(Message.Of("trace.damaged"));

    private static Trial? TrialOf(Guid visitId, Guid trialId, OpenCase open) =>
        open.File.Trials(visitId).FirstOrDefault(t => t.Id == trialId);
}
