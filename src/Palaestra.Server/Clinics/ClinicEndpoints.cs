using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Photos;
using Palaestra.Exchange.Letters;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Clinics;

/// <param name="Contact">One line for the sheet: whom to call.</param>
/// <param name="Version">Of the edit it is based on; 0 before the first.</param>
/// <param name="Time">None in a form: it stays as it is.</param>
/// <param name="Address">Lines at the head of letters; none in a form: it stays as it is.</param>
/// <param name="LockMinutes">1 to 60: without a touch, after which a tablet locks itself; none in a form: it stays as it is.</param>
/// <param name="RetentionYears">1 to 50, after the last visit; none in a form: it stays as it is.</param>
/// <param name="HomeAddresses">Home programmes may have an address of this server; none in a form: it stays as it is. Off closes all there are.</param>
/// <param name="HasMark">There is a picture for the head of letters and sheets; of no account in a form.</param>
public sealed record ClinicForm(
    string Name,
    string Contact,
    int Version,
    ClinicTime? Time = null,
    string? Address = null,
    bool HasMark = false,
    int? LockMinutes = null,
    int? RetentionYears = null,
    bool? HomeAddresses = null
);

/// <param name="Zone">Name in the IANA database, as Europe/Berlin.</param>
/// <param name="WeekStart">The day calendars begin their weeks with.</param>
/// <param name="Units">Of height and mass; none in a form: they stay as they are.</param>
public sealed record ClinicTime(
    string Zone,
    DateOrder DateOrder,
    DayOfWeek WeekStart,
    PersonUnits? Units = null
)
{
    /// <summary>As somebody reads it who chose otherwise than the clinic.</summary>
    public ClinicTime For(OwnReading own) =>
        new(Zone, own.DateOrder ?? DateOrder, own.WeekStart ?? WeekStart, own.Units ?? Units);
}

/// <summary>How an account reads dates, weeks and measures on the screens; none: as the clinic does. Papers are the clinic's.</summary>
public sealed record OwnReading(
    DateOrder? DateOrder = null,
    DayOfWeek? WeekStart = null,
    PersonUnits? Units = null
);

public static class ClinicEndpoints
{
    private const int Longest = 160;
    private const int AddressLongest = 300;
    private const int AddressLines = 5;
    private static Message Meanwhile => Message.Of("conflict.meanwhile");

    public static void MapClinic(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/clinic").WithTags("Clinic");
        group.MapGet("", Get).Described("GetClinic", "Name, contact, address and time zone of the clinic.");
        group
            .MapPut("", Put)
            .Described(
                "UpdateClinic",
                "Writes name, contact, address and time zone, on the version that was read.",
                409
            );
        group.MapGet("/mark", GetMark).Described("GetClinicMark", "The picture at the head of letters.", 404);
        group
            .MapPut("/mark", PutMark)
            .Accepts<byte[]>("image/jpeg", "image/png")
            .Described("PutClinicMark", "Keeps the picture at the head of letters, JPEG or PNG.", 409);
        group
            .MapDelete("/mark", RemoveMark)
            .Described("RemoveClinicMark", "Removes the picture at the head of letters.", 409);
    }

    private static async Task<Ok<ClinicForm>> Get(PalaestraDb db) =>
        TypedResults.Ok(FormOf(await db.Clinics.AsNoTracking().SingleAsync()));

    private static async Task<Results<Ok<ClinicForm>, ProblemHttpResult>> Put(
        ClinicForm form,
        PalaestraDb db,
        ClinicClock clock
    )
    {
        var zone = form.Time is { } time ? ClinicZone.Find(time.Zone) : clock.Zone;
        var errors = new[] { ("name", form.Name), ("contact", form.Contact) }
            .Where(field => field.Item2.Length > Longest)
            .Select(field => new FieldError(field.Item1, Message.Of("clinic.one-line", ("most", Longest))))
            .ToList();
        if (
            form.Address is { } address
            && (address.Length > AddressLongest || address.Split('\n').Length > AddressLines)
        )
        {
            errors.Add(
                new(
                    "address",
                    Message.Of("clinic.address", ("lines", AddressLines), ("most", AddressLongest))
                )
            );
        }
        if (zone is null)
        {
            errors.Add(new("time.zone", Message.Of("clinic.zone")));
        }
        if (form.LockMinutes is < 1 or > 60)
        {
            errors.Add(new("lockMinutes", Message.Of("clinic.lock")));
        }
        if (form.RetentionYears is < 1 or > 50)
        {
            errors.Add(new("retentionYears", Message.Of("clinic.retention")));
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var clinic = await db.Clinics.SingleAsync();
        if (form.Version != clinic.Version)
        {
            return Problem.Conflict(Meanwhile, FormOf(clinic));
        }
        clinic.Name = form.Name.Trim();
        clinic.Contact = form.Contact.Trim();
        clinic.LockMinutes = form.LockMinutes ?? clinic.LockMinutes;
        clinic.RetentionYears = form.RetentionYears ?? clinic.RetentionYears;
        clinic.Address = form.Address?.Trim() ?? clinic.Address;
        if (form.Time is { } chosen)
        {
            (clinic.DateOrder, clinic.WeekStart) = (chosen.DateOrder, chosen.WeekStart);
            clinic.Units = chosen.Units ?? clinic.Units;
            await Move(clinic, zone!, clock, db);
        }
        clinic.HomeAddresses = form.HomeAddresses ?? clinic.HomeAddresses;
        clinic.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Meanwhile);
        }
        if (!clinic.HomeAddresses)
        {
            // Allowed again they are other addresses.
            await db
                .Episodes.Where(episode => episode.HomeKey != null)
                .ExecuteUpdateAsync(set => set.SetProperty(episode => episode.HomeKey, (string?)null));
        }
        var moved = clinic.TimeZone != clock.Zone.Id;
        clock.Keep(clinic);
        if (moved)
        {
            // What was worked out by the days of the zone before.
            await db.Standings.ExecuteUpdateAsync(set => set.SetProperty(standing => standing.Stale, true));
        }
        return TypedResults.Ok(FormOf(clinic));
    }

    /// <summary>
    /// Into another zone: visits still to come keep their time on the wall, as they were told to the client; what has been keeps its
    /// instant.
    /// </summary>
    private static async Task Move(Clinic clinic, ClinicZone zone, ClinicClock clock, PalaestraDb db)
    {
        clinic.TimeZone = zone.Id;
        if (zone.Id == clock.Zone.Id)
        {
            return;
        }
        var now = clock.Now;
        foreach (var visit in await db.Visits.Where(v => v.PlannedAt > now).ToListAsync())
        {
            visit.PlannedAt = zone.At(clock.Zone.Local(visit.PlannedAt));
            visit.Version++;
        }
    }

    private static ClinicForm FormOf(Clinic clinic) =>
        new(
            clinic.Name,
            clinic.Contact,
            clinic.Version,
            new(clinic.TimeZone, clinic.DateOrder, clinic.WeekStart, clinic.Units),
            clinic.Address,
            clinic.Mark is not null,
            clinic.LockMinutes,
            clinic.RetentionYears,
            clinic.HomeAddresses
        );

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> GetMark(PalaestraDb db) =>
        await db.Clinics.AsNoTracking().Select(c => c.Mark).SingleAsync() is { } mark
            ? TypedResults.File(mark, PhotoFiles.TypeOf(mark))
            : Problem.NotFound("clinic-mark");

    private static async Task<Results<Ok<ClinicForm>, ProblemHttpResult>> PutMark(
        HttpRequest request,
        PalaestraDb db
    )
    {
        using var read = new MemoryStream();
        await request.Body.CopyToAsync(read);
        var bytes = read.ToArray();
        var wrong = PhotoFiles.TypeOf(bytes) is null ? Message.Of("picture.kind") : LetterMark.Wrong(bytes);
        return wrong is null ? await Marked(bytes, db) : Problem.Field("mark", wrong);
    }

    private static Task<Results<Ok<ClinicForm>, ProblemHttpResult>> RemoveMark(PalaestraDb db) =>
        Marked(null, db);

    private static async Task<Results<Ok<ClinicForm>, ProblemHttpResult>> Marked(byte[]? mark, PalaestraDb db)
    {
        var clinic = await db.Clinics.SingleAsync();
        clinic.Mark = mark;
        clinic.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Meanwhile);
        }
        return TypedResults.Ok(FormOf(clinic));
    }
}
