using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Clinics;

/// <param name="Contact">One line for the sheet: whom to call.</param>
/// <param name="Version">Of the edit it is based on; 0 before the first.</param>
public sealed record ClinicForm(string Name, string Contact, int Version);

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

    private static async Task<Results<Ok<ClinicForm>, ProblemHttpResult>> Put(ClinicForm form, PalaestraDb db)
    {
        var errors = new[] { ("name", form.Name), ("contact", form.Contact) }
            .Where(field => field.Item2.Length > Longest)
            .Select(field => new FieldError(
                field.Item1,
                $"At most {Longest} letters, so that it fits one line."
            ))
            .ToList();
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
        clinic.Version++;
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            return Problem.Conflict(conflict);
        }
        return TypedResults.Ok(FormOf(clinic));
    }

    private static ClinicForm FormOf(Clinic? clinic) =>
        clinic is null ? new("", "", 0) : new(clinic.Name, clinic.Contact, clinic.Version);
}
