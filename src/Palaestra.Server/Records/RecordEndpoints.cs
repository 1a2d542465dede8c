using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Exchange.Records;
using Palaestra.Server.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Instruments;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.Records;

/// <summary>A client's whole record as one file, out and in.</summary>
public static class RecordEndpoints
{
    private const string Type = "application/zip";

    public static void MapRecords(this IEndpointRouteBuilder routes)
    {
        routes.MapClinicRecords();
        var group = routes.MapGroup("/api").WithTags("Records");
        group
            .MapGet("/clients/{clientId:guid}/record.zip", Out)
            .Produces<byte[]>(StatusCodes.Status200OK, Type)
            .Described(
                "GetRecordFile",
                "All that is kept of a client as one file; for an administrator, or the practitioner in charge. The password is asked again.",
                404,
                409
            );
        group
            .MapPost("/records", In)
            .WithMetadata(new RequestSizeLimitAttribute(RecordZip.BytesMost))
            .Accepts<byte[]>(Type)
            .RequireRateLimiting(TraceEndpoints.OneAtATime)
            .Described(
                "TakeInRecord",
                "Takes in the file of a record: all of it, or nothing. The same file again changes nothing.",
                422
            );
    }

    private static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> Out(
        Guid clientId,
        PalaestraDb db,
        RecordsOut records,
        AuditWriter audit,
        ClinicWords words,
        ClinicClock clock,
        WhoIsHere who,
        HttpResponse response
    )
    {
        if (await db.Clients.AsNoTracking().FirstOrDefaultAsync(c => c.Id == clientId) is not { } client)
        {
            return Problem.NotFound("client");
        }
        if (client.MergedIntoId is not null)
        {
            return Problem.Conflict(Message.Of("client.merged"));
        }
        if (!who.Is(Role.Administrator) && client.InChargeId is { } inCharge && inCharge != who.AccountId)
        {
            return Problem.Of(StatusCodes.Status403Forbidden, Message.Of("record.in-charge"));
        }
        // What waits to be linked is told with the rest.
        await audit.CaughtUp();
        var file = await PassingFile.Filled(to => records.Write(client, to));
        NamedFile.Attach(
            response,
            words.Say(Message.Of("file.record", ("name", client.Name), ("day", clock.Today))),
            ".zip"
        );
        return TypedResults.Stream(file, Type);
    }

    private static async Task<Results<Ok<RecordTaken>, ProblemHttpResult>> In(
        HttpRequest request,
        RecordsIn records
    )
    {
        await using var file = await PassingFile.Filled(to => request.Body.CopyToAsync(to));
        var taken = await records.Take(file);
        return taken.Value is { } value ? TypedResults.Ok(value) : Problem.Fields(taken.Errors);
    }
}
