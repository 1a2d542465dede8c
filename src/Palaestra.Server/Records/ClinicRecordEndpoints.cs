using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Exchange.Records;
using Palaestra.Server.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Instruments;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.Records;

/// <param name="File">In the archive. <paramref name="Why"/>: what is wrong with it; nothing of it was taken in.</param>
public sealed record RecordRefused(string File, Message Why);

/// <summary>What came with the records of a clinic.</summary>
public sealed record ClinicRecordsTaken(
    IReadOnlyList<RecordTaken> Taken,
    IReadOnlyList<RecordRefused> Refused
);

/// <summary>The records of all clients as one file, out and in: an archive of the archives of each.</summary>
public static class ClinicRecordEndpoints
{
    private const string Type = "application/zip";
    private const string Folder = "records/";

    public static void MapClinicRecords(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/clinic/records").WithTags("Records");
        routes
            .MapGet("/api/clinic/clinic.zip", Out)
            .WithTags("Records")
            .Produces<byte[]>(StatusCodes.Status200OK, Type)
            .Described(
                "GetClinicRecordsFile",
                "The records of all clients as one file; for an administrator. The password is asked again."
            );
        group
            .MapPost("", In)
            .WithMetadata(new RequestSizeLimitAttribute(RecordZip.ClinicBytesMost))
            .Accepts<byte[]>(Type)
            .RequireRateLimiting(TraceEndpoints.OneAtATime)
            .Described(
                "TakeInClinicRecords",
                "Takes in the file of all records: each whole or not at all. The same file again changes nothing.",
                422
            );
    }

    private static async Task<FileStreamHttpResult> Out(
        PalaestraDb db,
        IServiceScopeFactory scopes,
        AuditWriter audit,
        ClinicWords words,
        ClinicClock clock,
        HttpResponse response
    )
    {
        await audit.CaughtUp();
        var clients = await db
            .Clients.AsNoTracking()
            .Where(client => client.MergedIntoId == null)
            .OrderBy(client => client.Number)
            .ToListAsync();
        var file = await PassingFile.Filled(async to =>
        {
            using var all = new RecordZipWriter(to, clock.Zone.Tell(clock.Now), RecordManifest.ClinicKind);
            foreach (var client in clients)
            {
                // Each by itself, so that what one has read is not kept for the next.
                await using var scope = scopes.CreateAsyncScope();
                var records = scope.ServiceProvider.GetRequiredService<RecordsOut>();
                await using var one = await PassingFile.Filled(into => records.Write(client, into));
                all.AddPacked(NameOf(client), one);
            }
        });
        NamedFile.Attach(response, words.Say(Message.Of("file.clinic", ("day", clock.Today))), ".zip");
        return TypedResults.Stream(file, Type);
    }

    /// <summary>By the number, so that a person finds it; the id keeps two of one number apart.</summary>
    private static string NameOf(Data.Intake.Client client) =>
        $"{Folder}{NamedFile.Safe(client.Number)} {client.Id}.zip";

    private static async Task<Results<Ok<ClinicRecordsTaken>, ProblemHttpResult>> In(
        HttpRequest request,
        IServiceScopeFactory scopes
    )
    {
        await using var file = await PassingFile.Filled(to => request.Body.CopyToAsync(to));
        var opened = RecordZip.Open(file, RecordManifest.ClinicKind);
        if (opened.Value is not { } zip)
        {
            return Problem.Fields(opened.Errors);
        }
        var (taken, refused) = (new List<RecordTaken>(), new List<RecordRefused>());
        using (zip)
        {
            foreach (var name in zip.Names.Where(name => name.StartsWith(Folder, StringComparison.Ordinal)))
            {
                await using var scope = scopes.CreateAsyncScope();
                await using var one = await PassingFile.Filled(to =>
                {
                    zip.CopyTo(name, to);
                    return Task.CompletedTask;
                });
                var result = await scope.ServiceProvider.GetRequiredService<RecordsIn>().Take(one);
                if (result.Value is { } came)
                {
                    taken.Add(came);
                }
                else
                {
                    refused.Add(new(name[Folder.Length..], result.Errors[0].Message));
                }
            }
        }
        return TypedResults.Ok(new ClinicRecordsTaken(taken, refused));
    }
}
