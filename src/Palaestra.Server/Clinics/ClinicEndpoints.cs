using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Clinics;

/// <param name="Contact">One line for the sheet: whom to call.</param>
/// <param name="Version">Of the edit it is based on; 0 before the first.</param>
/// <param name="Time">None in a form: it stays as it is.</param>
public sealed record ClinicForm(string Name, string Contact, int Version, ClinicTime? Time = null);

/// <param name="Zone">Name in the IANA database, as Europe/Berlin.</param>
/// <param name="WeekStart">The day calendars begin their weeks with.</param>
public sealed record ClinicTime(string Zone, DateOrder DateOrder, DayOfWeek WeekStart);

public static class ClinicEndpoints
{
    private const int Longest = 160;

    public static void MapClinic(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/clinic").WithTags("Clinic");
        group.MapGet("", Get).WithName("GetClinic");
        group.MapPut("", Put).WithName("UpdateClinic");
    }

    private static async Task<Ok<ClinicForm>> Get(PalaestraDb db) =>
        TypedResults.Ok(FormOf(await db.Clinics.AsNoTracking().SingleOrDefaultAsync()));

    private static async Task<Results<Ok<ClinicForm>, ProblemHttpResult>> Put(
        ClinicForm form,
        PalaestraDb db,
        ClinicClock clock
    )
    {
        var zone = form.Time is { } time ? ClinicZone.Find(time.Zone) : clock.Zone;
        var errors = new[] { ("name", form.Name), ("contact", form.Contact) }
            .Where(field => field.Item2.Length > Longest)
            .Select(field => new FieldError(
                field.Item1,
                $"At most {Longest} letters, so that it fits one line."
            ))
            .ToList();
        if (zone is null)
        {
            errors.Add(
                new("time.zone", "This is no time zone we know. Choose one from the list, as Europe/Berlin.")
            );
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        const string conflict = "Somebody else changed this meanwhile. Nothing was stored.";
        var clinic = await db.Clinics.SingleOrDefaultAsync();
        if (form.Version != (clinic?.Version ?? 0))
        {
            return Problem.Conflict(conflict, FormOf(clinic));
        }
        if (clinic is null)
        {
            clinic = new Clinic();
            db.Clinics.Add(clinic);
        }
        clinic.Name = form.Name.Trim();
        clinic.Contact = form.Contact.Trim();
        if (form.Time is { } chosen)
        {
            (clinic.DateOrder, clinic.WeekStart) = (chosen.DateOrder, chosen.WeekStart);
            await Move(clinic, zone!, clock, db);
        }
        clinic.Version++;
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            return Problem.Conflict(conflict);
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

    private static ClinicForm FormOf(Clinic? clinic) =>
        clinic is null ? new("", "", 0) : new(clinic.Name, clinic.Contact, clinic.Version, TimeOf(clinic));

    public static ClinicTime TimeOf(Clinic clinic) =>
        new(clinic.TimeZone, clinic.DateOrder, clinic.WeekStart);
}
